// Sittings: one begins by itself with the first deed after a rest, or is said to; what is said of it can be put right later.
import { SITTING_REST_MS, type Needs, type Operation, type SittingDto } from '@dusk/wire';
import { In, IsNull, LessThanOrEqual, type EntityManager } from 'typeorm';
import { randomUUID } from 'node:crypto';
import { Painting, Palette, Sitting, Stage, Tube } from '../entities/index.ts';
import { stale, unfit } from '../refusing/problems.ts';
import { puttingAway } from '../change/putAway.ts';
import { changed, given, present } from '../change/rows.ts';
import type { Doing, Work } from '../change/work.ts';

const sittingDto = ({ palette: _, ...sitting }: Sitting): SittingDto => sitting;

/** Sittings by id, or those in which something was done with a painting that stands, in a fixed number of queries. */
export async function sittingRows(
  db: EntityManager,
  { ids, paintingId }: { readonly ids?: readonly string[]; readonly paintingId?: string },
): Promise<SittingDto[]> {
  if (ids) return (await db.findBy(Sitting, { id: In([...ids]) })).map(sittingDto);
  const found = await db
    .createQueryBuilder(Sitting, 'sitting')
    .where(
      `sitting.deletedAt IS NULL AND sitting.id IN (SELECT stage.sittingId FROM pile JOIN stage ON stage.pileId = pile.id WHERE pile.paintingId = :paintingId AND stage.withdrawnAt IS NULL UNION SELECT stage.sittingId FROM area JOIN stage ON stage.areaId = area.id WHERE area.paintingId = :paintingId AND stage.withdrawnAt IS NULL)`,
      { paintingId },
    )
    .orderBy('sitting.openedAt', 'ASC')
    .getMany();
  return found.map(sittingDto);
}

/** Whether a sitting still goes on at a moment: nobody closed it before, and it has not rested too long. */
async function goesOn(db: EntityManager, sitting: Sitting, at: string): Promise<boolean> {
  if (sitting.closedAt !== null) return at <= sitting.closedAt;
  const last = await db.findOne(Stage, {
    where: { sittingId: sitting.id, at: LessThanOrEqual(at) },
    order: { at: 'DESC' },
    select: { at: true },
  });
  const lively = [sitting.openedAt, last?.at ?? ''].sort().at(-1)!;
  return Date.parse(at) - Date.parse(lively) < SITTING_REST_MS;
}

/** A new sitting; what is not said of it can be said later. */
async function begin({ db, touch }: Work, said: Needs<'sitting.add'> & { readonly openedAt: string }): Promise<void> {
  const { id, openedAt, paletteId = null, light = '', guests = [], note = '' } = said;
  await db.insert(Sitting, { id, version: 1, paletteId, openedAt, closedAt: null, light, guests, note, deletedAt: null });
  touch('sittings', id);
}

/** The sitting that something is done in: the one that goes on, or a new one that begins with it. */
export async function sittingAt(work: Work, at: string, paintingId: string | null): Promise<string> {
  const { db } = work;
  const openedAt = new Date(at).toISOString();
  const newest = await db.findOne(Sitting, {
    where: { deletedAt: IsNull(), openedAt: LessThanOrEqual(openedAt) },
    order: { openedAt: 'DESC' },
  });
  if (newest && (await goesOn(db, newest, openedAt))) return newest.id;
  const painting = paintingId === null ? null : await db.findOneBy(Painting, { id: paintingId });
  const id = randomUUID();
  await begin(work, { id, openedAt, ...(painting && { paletteId: painting.paletteId }) });
  return id;
}

async function checkSaid(db: EntityManager, { paletteId, guests }: Pick<Needs<'sitting.change'>, 'paletteId' | 'guests'>): Promise<void> {
  if (paletteId && !(await db.existsBy(Palette, { id: paletteId })))
    throw unfit('Unknown palette', 'paletteId', 'The palette of this sitting is not in this studio.');
  if (guests && (await db.countBy(Tube, { id: In(guests) })) < guests.length)
    throw unfit('Unknown tube', 'guests', 'A tube that joined this sitting is not in this studio.');
}

export const addSitting: Doing<Needs<'sitting.add'>> = async (work, { id, openedAt, ...said }) => {
  await checkSaid(work.db, said);
  await begin(work, { id, openedAt: new Date(openedAt ?? work.at).toISOString(), ...said });
  return [{ do: 'sitting.delete', id, version: 1 }];
};

export const changeSitting: Doing<Needs<'sitting.change'>> = async ({ db, touch }, { id, version, ...said }) => {
  const before = present('sitting', await db.findOneBy(Sitting, { id }));
  if (before.version !== version) throw stale('sitting', version, sittingDto(before));
  await checkSaid(db, said);
  if (said.closedAt && new Date(said.closedAt).toISOString() < before.openedAt)
    throw unfit('Over before it began', 'closedAt', 'A sitting ends after it has begun.');
  const news = { ...given(said), ...(said.closedAt && { closedAt: new Date(said.closedAt).toISOString() }) };
  await db.update(Sitting, { id }, { ...news, version: version + 1 });
  touch('sittings', id);
  return [{ do: 'sitting.change', id, version: version + 1, ...changed(news, before) } as Operation];
};

export const { away: deleteSitting, back: restoreSitting } = puttingAway({ what: 'sitting', rows: 'sittings', entity: Sitting });
