import { randomUUID } from 'node:crypto';
import type { NewPainting, PaintingChange, PaintingDto, ReferenceDto } from '@dusk/wire';
import { IsNull, type EntityManager } from 'typeorm';
import { Painting, Palette, type Picture, PictureBytes, Pile, Reference } from '../entities/index.ts';
import { notFound, ProblemError, stale } from '../problems.ts';
import { now } from './catalogue.ts';
import { paletteOf } from './palettes.ts';
import { keepPicture, type NormalPicture } from './pictures.ts';

/** A thin warm grey: the commonest toned ground. */
const USUAL_GROUND = '#a89b88';

const referenceDto = ({ id, pictureId, name, createdAt }: Reference, { width, height }: Picture): ReferenceDto => ({
  id,
  pictureId,
  name,
  width,
  height,
  createdAt,
});

async function read(db: EntityManager, painting: Painting): Promise<PaintingDto> {
  const { id, version, title, paletteId, ground, createdAt, updatedAt } = painting;
  const references = await db.find(Reference, {
    where: { paintingId: id, deletedAt: IsNull() },
    relations: { picture: true },
    order: { createdAt: 'ASC' },
  });
  const pileCount = await db.countBy(Pile, { paintingId: id, deletedAt: IsNull() });
  return { id, version, title, paletteId, ground, references: references.map((r) => referenceDto(r, r.picture!)), pileCount, createdAt, updatedAt };
}

export async function allPaintings(db: EntityManager): Promise<PaintingDto[]> {
  const paintings = await db.find(Painting, { where: { deletedAt: IsNull() }, order: { createdAt: 'ASC' } });
  return Promise.all(paintings.map((p) => read(db, p)));
}

export async function paintingOf(db: EntityManager, id: string, deletedToo = false): Promise<Painting> {
  const painting = await db.findOneBy(Painting, { id });
  if (!painting || (painting.deletedAt && !deletedToo)) throw notFound('painting');
  return painting;
}

async function checkPalette(db: EntityManager, paletteId: string): Promise<void> {
  await paletteOf(db, paletteId).catch(() => {
    throw new ProblemError(422, 'Unknown palette', 'There is no such palette in this studio.', {
      fields: [{ field: 'paletteId', message: 'There is no such palette.' }],
    });
  });
}

export async function addPainting(db: EntityManager, { title, paletteId, ground }: NewPainting): Promise<PaintingDto> {
  await checkPalette(db, paletteId);
  const at = now();
  const row = { id: randomUUID(), version: 1, title, paletteId, ground: ground ?? USUAL_GROUND, createdAt: at, updatedAt: at, deletedAt: null };
  return read(db, await db.save(Painting, row));
}

export async function changePainting(db: EntityManager, id: string, { version, ...change }: PaintingChange): Promise<PaintingDto> {
  const painting = await paintingOf(db, id);
  if (painting.version !== version) throw stale('painting', version, await read(db, painting));
  if (change.paletteId !== undefined) await checkPalette(db, change.paletteId);
  const given = Object.fromEntries(Object.entries(change).filter(([, v]) => v !== undefined));
  return read(db, await db.save(Object.assign(painting, given, { version: version + 1, updatedAt: now() })));
}

export async function deletePainting(db: EntityManager, id: string): Promise<void> {
  const painting = await paintingOf(db, id);
  await db.save(Object.assign(painting, { deletedAt: now(), version: painting.version + 1 }));
}

export async function restorePainting(db: EntityManager, id: string): Promise<PaintingDto> {
  const painting = await paintingOf(db, id, true);
  return read(db, await db.save(Object.assign(painting, { deletedAt: null, version: painting.version + 1 })));
}

/** Adds a picture to a painting. */
export async function addReference(db: EntityManager, paintingId: string, picture: NormalPicture, name: string): Promise<ReferenceDto> {
  await paintingOf(db, paintingId);
  const kept = await keepPicture(db, picture);
  const row = { id: randomUUID(), paintingId, pictureId: kept.id, name, createdAt: now(), deletedAt: null };
  return referenceDto(await db.save(Reference, row), kept);
}

async function referenceOf(db: EntityManager, id: string): Promise<Reference> {
  const reference = await db.findOneBy(Reference, { id });
  if (!reference) throw notFound('reference');
  return reference;
}

export async function deleteReference(db: EntityManager, id: string): Promise<void> {
  const reference = await referenceOf(db, id);
  if (reference.deletedAt) throw notFound('reference');
  await db.save(Object.assign(reference, { deletedAt: now() }));
}

export async function restoreReference(db: EntityManager, id: string): Promise<void> {
  await db.save(Object.assign(await referenceOf(db, id), { deletedAt: null }));
}

/** A picture with its bytes. */
export async function pictureBytes(db: EntityManager, id: string): Promise<{ mime: string; bytes: Buffer }> {
  const row = await db.findOne(PictureBytes, { where: { pictureId: id }, relations: { picture: true } });
  if (!row) throw notFound('picture');
  return { mime: row.picture!.mime, bytes: row.bytes };
}

/** Whether anybody has worked in the studio yet: a painting or a palette was ever made. */
export const hasWork = async (db: EntityManager): Promise<boolean> => (await db.exists(Painting)) || (await db.exists(Palette));
