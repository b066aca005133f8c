import { createHash } from 'node:crypto';
import type { PictureDto } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { Picture, PictureBytes, PictureCopy } from '../entities/index.ts';
import { smallCopy } from './copies.ts';
import type { NewPicture } from './own.ts';
import { notFound } from '../refusing/problems.ts';

/** Keeps a picture under the hash of its bytes and of how they are to be turned; one that is there already is not kept twice. */
export async function keepPicture(
  db: EntityManager,
  picture: NewPicture,
  at: string,
): Promise<{ readonly kept: PictureDto; readonly known: boolean }> {
  const { mime, width, height, orientation, space, colours, bytes, working, small } = picture;
  const hash = createHash('sha256').update(bytes);
  if (orientation !== 1) hash.update(`turned ${orientation}`);
  const id = hash.digest('hex');
  const known = await db.findOneBy(Picture, { id });
  if (known) return { kept: { id, width: known.width, height: known.height, space: known.space, colours: known.colours }, known: true };
  await db.insert(Picture, { id, mime, width, height, orientation, space, colours, createdAt: at });
  await db.insert(PictureBytes, { pictureId: id, bytes });
  for (const [kind, copy] of [
    ['working', working],
    ['small', small],
  ] as const)
    if (copy) await db.insert(PictureCopy, { pictureId: id, kind, mime: copy.mime, bytes: copy.bytes });
  return { kept: { id, width, height, space, colours }, known: false };
}

/** A file of a picture. */
export interface PictureFile {
  readonly mime: string;
  readonly bytes: Buffer;
}

/** A picture's file with what is needed to read a piece of it. */
export async function ownFile(db: EntityManager, id: string): Promise<{ readonly bytes: Buffer; readonly picture: Picture }> {
  const row = await db.findOne(PictureBytes, { where: { pictureId: id }, relations: { picture: true } });
  if (!row) throw notFound('picture');
  return { bytes: row.bytes, picture: row.picture! };
}

/** A picture's own pixels, as it came less what was written beside them. */
export async function ownPixels(db: EntityManager, id: string): Promise<PictureFile> {
  const { bytes, picture } = await ownFile(db, id);
  return { mime: picture.mime, bytes };
}

const copyOf = (db: EntityManager, pictureId: string, kind: PictureCopy['kind']): Promise<PictureFile | null> =>
  db.findOneBy(PictureCopy, { pictureId, kind });

/** A copy of a picture to look at. What was kept before there were copies is its own. */
export async function workingPixels(db: EntityManager, id: string): Promise<PictureFile> {
  return (await copyOf(db, id, 'working')) ?? ownPixels(db, id);
}

/** A small copy of a picture, to choose it by. */
export async function smallPixels(db: EntityManager, id: string): Promise<PictureFile> {
  return (await copyOf(db, id, 'small')) ?? smallCopy((await ownPixels(db, id)).bytes);
}
