// Areas of paintings: outlined, named, with what was done with them.
import type { AdditionDto, AreaDeed, AreaDto, Needs, Operation } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Area, type Addition } from '../entities/index.ts';
import { ProblemError, stale } from '../refusing/problems.ts';
import { puttingAway } from '../change/putAway.ts';
import { changed, given, groupedBy, present } from '../change/rows.ts';
import type { Doing } from '../change/work.ts';
import { paintingOf } from './paintings.ts';

/** Paint that went into a pile or onto an area, as it crosses the wire. */
export const additionDto = ({ id, tubeId, stateId, sourceId, ml, low, high, said }: Addition): AdditionDto => ({
  id,
  tubeId,
  stateId,
  stageId: sourceId,
  ml,
  low,
  high,
  said,
});

/** A deed of an area as it lies in the file. */
interface DeedRow {
  readonly id: string;
  readonly n: number;
  readonly areaId: string;
  readonly kind: string;
  readonly at: string;
  readonly sittingId: string | null;
  readonly laid: string | null;
  readonly touch: string | null;
}

/** Areas with what was done with them, in a fixed number of queries: by id, or all of some paintings. */
export async function areaRows(
  db: EntityManager,
  { ids, paintingIds = [] }: { readonly ids?: readonly string[]; readonly paintingIds?: readonly string[] },
): Promise<AreaDto[]> {
  const areas = await db.find(Area, {
    where: ids ? { id: In([...ids]) } : { paintingId: In([...paintingIds]), deletedAt: IsNull() },
    order: { createdAt: 'ASC', id: 'ASC' },
  });
  if (areas.length === 0) return [];
  // Rows as they lie in the file: a log holds thousands of them.
  const among = JSON.stringify(areas.map(({ id }) => id));
  const stages = await db.query<DeedRow[]>(
    `SELECT "id", "n", "areaId", "kind", "at", "sittingId", "laid", "touch" FROM "stage" WHERE "withdrawnAt" IS NULL AND "areaId" IN (SELECT value FROM json_each(?)) ORDER BY "n"`,
    [among],
  );
  const additions = await db.query<Addition[]>(
    `SELECT * FROM "addition" WHERE "stageId" IN (SELECT value FROM json_each(?)) ORDER BY "position"`,
    [JSON.stringify(stages.map(({ id }) => id))],
  );
  const of = groupedBy(additions, ({ stageId }) => stageId);
  const byArea = groupedBy(stages, ({ areaId }) => areaId);
  return areas.map(({ painting: _, ...area }) => ({
    ...area,
    deeds: (byArea.get(area.id) ?? []).map(({ id, n, kind, at, sittingId, laid, touch }) => ({
      id,
      n,
      kind: kind as AreaDeed,
      at,
      sittingId,
      laid: laid === null ? null : (JSON.parse(laid) as AreaDto['deeds'][number]['laid']),
      touch: touch as AreaDto['deeds'][number]['touch'],
      additions: (of.get(id) ?? []).map(additionDto),
    })),
  }));
}

/** An area that can be painted on. @throws ProblemError when it, or its painting, was put away */
export async function areaOf(db: EntityManager, id: string): Promise<Area> {
  const { painting, ...area } = present('area', await db.findOne(Area, { where: { id }, relations: { painting: true } }));
  if (painting?.deletedAt)
    throw new ProblemError(409, 'Its painting is put away', `The painting “${painting.title}” was put away. Bring it back first.`);
  return area;
}

export const addArea: Doing<Needs<'area.add'>> = async ({ db, at, touch }, { id, paintingId, name, outline }) => {
  await paintingOf(db, paintingId);
  await db.insert(Area, {
    id,
    version: 1,
    paintingId,
    name,
    outline: outline?.map(({ x, y }) => ({ x, y })) ?? null,
    createdAt: at,
    deletedAt: null,
  });
  touch('areas', id);
  return [{ do: 'area.delete', id, version: 1 }];
};

export const changeArea: Doing<Needs<'area.change'>> = async ({ db, touch }, { id, version, ...change }) => {
  const before = await areaOf(db, id);
  if (before.version !== version) throw stale('area', version, (await areaRows(db, { ids: [id] }))[0]);
  const news = given(change);
  await db.update(Area, { id }, { ...news, version: version + 1 });
  touch('areas', id);
  return [{ do: 'area.change', id, version: version + 1, ...changed(news, before) } as Operation];
};

export const { away: deleteArea, back: restoreArea } = puttingAway({ what: 'area', rows: 'areas', entity: Area });
