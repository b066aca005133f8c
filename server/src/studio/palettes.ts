import { randomUUID } from 'node:crypto';
import type { NewPalette, PaletteChange, PaletteDto } from '@dusk/wire';
import { IsNull, type EntityManager } from 'typeorm';
import { Painting, Palette, PaletteTube } from '../entities/index.ts';
import { notFound, ProblemError, stale } from '../problems.ts';
import { now } from './catalogue.ts';
import { checkTubes } from './tubes.ts';

const dto = (palette: Palette, tubes: readonly PaletteTube[]): PaletteDto => ({
  id: palette.id,
  version: palette.version,
  name: palette.name,
  tubeIds: tubes.map((t) => t.tubeId),
  createdAt: palette.createdAt,
  updatedAt: palette.updatedAt,
});

async function read(db: EntityManager, palette: Palette): Promise<PaletteDto> {
  return dto(palette, await db.find(PaletteTube, { where: { paletteId: palette.id }, order: { position: 'ASC' } }));
}

export async function allPalettes(db: EntityManager): Promise<PaletteDto[]> {
  const palettes = await db.find(Palette, { where: { deletedAt: IsNull() }, order: { createdAt: 'ASC' } });
  return Promise.all(palettes.map((p) => read(db, p)));
}

export async function paletteOf(db: EntityManager, id: string, deletedToo = false): Promise<Palette> {
  const palette = await db.findOneBy(Palette, { id });
  if (!palette || (palette.deletedAt && !deletedToo)) throw notFound('palette');
  return palette;
}

async function layOut(db: EntityManager, paletteId: string, tubeIds: readonly string[]): Promise<void> {
  await checkTubes(db, tubeIds);
  await db.delete(PaletteTube, { paletteId });
  await db.insert(PaletteTube, tubeIds.map((tubeId, position) => ({ paletteId, tubeId, position })));
}

export async function addPalette(db: EntityManager, { name, tubeIds }: NewPalette): Promise<PaletteDto> {
  const at = now();
  const palette = await db.save(Palette, { id: randomUUID(), version: 1, name, createdAt: at, updatedAt: at, deletedAt: null });
  await layOut(db, palette.id, tubeIds);
  return read(db, palette);
}

export async function changePalette(db: EntityManager, id: string, { version, name, tubeIds }: PaletteChange): Promise<PaletteDto> {
  const palette = await paletteOf(db, id);
  if (palette.version !== version) throw stale('palette', version, await read(db, palette));
  if (tubeIds) await layOut(db, id, tubeIds);
  Object.assign(palette, { ...(name !== undefined && { name }), version: version + 1, updatedAt: now() });
  return read(db, await db.save(palette));
}

/** Marks a palette as deleted; one that a painting is made from stays. */
export async function deletePalette(db: EntityManager, id: string): Promise<void> {
  const palette = await paletteOf(db, id);
  const painting = await db.findOneBy(Painting, { paletteId: id, deletedAt: IsNull() });
  if (painting)
    throw new ProblemError(409, 'In use', `“${painting.title}” is painted from this palette. Give it another palette first.`);
  await db.save(Object.assign(palette, { deletedAt: now(), version: palette.version + 1 }));
}

export async function restorePalette(db: EntityManager, id: string): Promise<PaletteDto> {
  const palette = await paletteOf(db, id, true);
  return read(db, await db.save(Object.assign(palette, { deletedAt: null, version: palette.version + 1 })));
}
