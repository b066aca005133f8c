import type { PassingOn } from '@dusk/wire';
import { IsNull, type EntityManager } from 'typeorm';
import sharp from 'sharp';
import { Reference } from '../entities/index.ts';
import { workingPixels } from '../pictures/pictures.ts';

/** A picture that hangs by a painting, before it leaves the studio. */
export interface Hung {
  readonly name: string;
  readonly pictureId: string;
  readonly passing: PassingOn;
}

/** The pictures of a painting, oldest first; photos of the canvas are none to paint from. */
export async function hungBy(db: EntityManager, paintingId: string): Promise<Hung[]> {
  const all = await db.find(Reference, { where: { paintingId, deletedAt: IsNull() }, order: { createdAt: 'ASC' } });
  return all.filter(({ view }) => !view.canvas);
}

/** Their copies to look at. */
export async function copiesOf(db: EntityManager, pictures: readonly Hung[]): Promise<{ readonly name: string; readonly bytes: Buffer }[]> {
  const copies: { name: string; bytes: Buffer }[] = [];
  for (const { name, pictureId } of pictures) copies.push({ name, bytes: (await workingPixels(db, pictureId)).bytes });
  return copies;
}

/** A picture as small as where it goes can show, in sRGB. @param px its longest side */
export const madeSmall = (bytes: Buffer, px: number, quality: number): Promise<Buffer> =>
  sharp(bytes)
    .resize({ width: px, height: px, fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .jpeg({ quality })
    .toBuffer();
