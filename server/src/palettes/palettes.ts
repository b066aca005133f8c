import type { Needs, PaletteDto } from '@dusk/wire';
import { In, IsNull, Not, type EntityManager } from 'typeorm';
import { Painting, Palette, PaletteTube, Tube } from '../entities/index.ts';
import { ProblemError, stale, unfit } from '../refusing/problems.ts';
import { puttingAway } from '../change/putAway.ts';
import { changed, given, groupedBy, present } from '../change/rows.ts';
import { checkTubes } from '../tubes/tubes.ts';
import type { Doing, Work } from '../change/work.ts';

/** Palettes with their tubes, in two queries however many. */
export async function paletteRows(db: EntityManager, ids?: readonly string[]): Promise<PaletteDto[]> {
  const palettes = await db.find(Palette, { where: ids ? { id: In([...ids]) } : { deletedAt: IsNull() }, order: { createdAt: 'ASC' } });
  const places = await db.find(PaletteTube, { ...(ids && { where: { paletteId: In([...ids]) } }), order: { position: 'ASC' } });
  const tubes = groupedBy(places, (place) => place.paletteId);
  return palettes.map(({ id, version, name, lightsWhiteId, mixedDarks, guestIds, createdAt, updatedAt, deletedAt }) => ({
    id,
    version,
    name,
    tubeIds: (tubes.get(id) ?? []).map((t) => t.tubeId),
    lightsWhiteId,
    mixedDarks,
    // A tube that was taken off is no guest any more.
    guestIds: guestIds.filter((guest) => (tubes.get(id) ?? []).some(({ tubeId }) => tubeId === guest)),
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

export const changePalette: Doing<Needs<'palette.change'>> = async (work, { id, version, tubeIds, ...change }) => {
  await paletteOf(work.db, id);
  const [before] = (await paletteRows(work.db, [id])) as [PaletteDto];
  if (before.version !== version) throw stale('palette', version, before);
  const white = change.lightsWhiteId;
  if (white && !(tubeIds ?? before.tubeIds).includes(white))
    throw unfit('Not on this palette', 'lightsWhiteId', 'The white for the lights is one of the palette’s own tubes.');
  const stranger = change.guestIds?.find((guest) => !(tubeIds ?? before.tubeIds).includes(guest));
  if (stranger !== undefined)
    throw unfit('Not on this palette', 'guestIds', 'A tube that is there for one sitting is one of the palette’s own tubes.');
  if (tubeIds) await layOut(work, id, tubeIds);
  const news = given(change);
  await work.db.update(Palette, { id }, { ...news, version: version + 1, updatedAt: work.at });
  work.touch('palettes', id);
  return [{ do: 'palette.change', id, version: version + 1, ...changed(news, before), ...(tubeIds && { tubeIds: [...before.tubeIds] }) }];
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
