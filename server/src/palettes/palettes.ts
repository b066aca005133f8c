import type { Needs, PaletteDto } from '@dusk/wire';
import { In, IsNull, Not, type EntityManager } from 'typeorm';
import { Painting, Palette, PaletteTube, Tube } from '../entities/index.ts';
import { ProblemError, stale, unfit } from '../refusing/problems.ts';
import { puttingAway } from '../change/putAway.ts';
import { groupedBy, present } from '../change/rows.ts';
import { checkTubes } from '../tubes/tubes.ts';
import type { Doing, Work } from '../change/work.ts';

/** Palettes with their tubes, in two queries however many. */
export async function paletteRows(db: EntityManager, ids?: readonly string[]): Promise<PaletteDto[]> {
  const palettes = await db.find(Palette, { where: ids ? { id: In([...ids]) } : { deletedAt: IsNull() }, order: { createdAt: 'ASC' } });
  const places = await db.find(PaletteTube, { ...(ids && { where: { paletteId: In([...ids]) } }), order: { position: 'ASC' } });
  const tubes = groupedBy(places, (place) => place.paletteId);
  return palettes.map(({ id, version, name, createdAt, updatedAt, deletedAt }) => ({
    id,
    version,
    name,
    tubeIds: (tubes.get(id) ?? []).map((t) => t.tubeId),
    createdAt,
    updatedAt,
    deletedAt,
  }));
}

const paletteOf = async (db: EntityManager, id: string): Promise<Palette> => present('palette', await db.findOneBy(Palette, { id }));

async function layOut({ db }: Work, paletteId: string, tubeIds: readonly string[]): Promise<void> {
  await checkTubes(db, tubeIds);
  const [away] = await db.findBy(Tube, { id: In([...tubeIds]), deletedAt: Not(IsNull()) });
  if (away) throw unfit('A tube put away', 'tubeIds', `“${away.name}” was put away. Bring it back first.`);
  await db.delete(PaletteTube, { paletteId });
  await db.insert(
    PaletteTube,
    tubeIds.map((tubeId, position) => ({ paletteId, tubeId, position })),
  );
}

export const addPalette: Doing<Needs<'palette.add'>> = async (work, { id, name, tubeIds }) => {
  await work.db.insert(Palette, { id, version: 1, name, createdAt: work.at, updatedAt: work.at, deletedAt: null });
  await layOut(work, id, tubeIds);
  work.touch('palettes', id);
  return [{ do: 'palette.delete', id, version: 1 }];
};

export const changePalette: Doing<Needs<'palette.change'>> = async (work, { id, version, name, tubeIds }) => {
  await paletteOf(work.db, id);
  const [before] = (await paletteRows(work.db, [id])) as [PaletteDto];
  if (before.version !== version) throw stale('palette', version, before);
  if (tubeIds) await layOut(work, id, tubeIds);
  await work.db.update(Palette, { id }, { ...(name !== undefined && { name }), version: version + 1, updatedAt: work.at });
  work.touch('palettes', id);
  return [
    {
      do: 'palette.change',
      id,
      version: version + 1,
      ...(name !== undefined && { name: before.name }),
      ...(tubeIds && { tubeIds: [...before.tubeIds] }),
    },
  ];
};

/** A palette that a painting is made from stays. */
async function checkUnused({ db }: Work, { id }: { readonly id: string }, back: boolean): Promise<void> {
  if (back) return;
  const painting = await db.findOneBy(Painting, { paletteId: id, deletedAt: IsNull() });
  if (painting) throw new ProblemError(409, 'In use', `“${painting.title}” is painted from this palette. Give it another palette first.`);
}

export const { away: deletePalette, back: restorePalette } = puttingAway({
  what: 'palette',
  rows: 'palettes',
  entity: Palette,
  check: checkUnused,
});
