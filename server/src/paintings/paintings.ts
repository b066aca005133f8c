import type { Needs, PaintingDto } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Painting, Palette, Pile, Tube } from '../entities/index.ts';
import { ProblemError, stale, unfit } from '../refusing/problems.ts';
import { puttingAway } from '../change/putAway.ts';
import { changed, given, present } from '../change/rows.ts';
import type { Doing, Work } from '../change/work.ts';

/** A thin warm grey: the commonest toned ground. */
const USUAL_GROUND = '#a89b88';

/** How many piles each painting has, in one query. */
async function pileCounts(db: EntityManager, ids?: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const counting = db
    .createQueryBuilder(Pile, 'pile')
    .select('pile.paintingId', 'paintingId')
    .addSelect('COUNT(*)', 'piles')
    .where('pile.deletedAt IS NULL')
    .groupBy('pile.paintingId');
  if (ids) counting.andWhere('pile.paintingId IN (:...ids)', { ids });
  const rows = await counting.getRawMany<{ paintingId: string; piles: number }>();
  return new Map(rows.map((row) => [row.paintingId, Number(row.piles)]));
}

/** Paintings in two queries, however many. */
export async function paintingRows(db: EntityManager, ids?: readonly string[]): Promise<PaintingDto[]> {
  const paintings = await db.find(Painting, { where: ids ? { id: In([...ids]) } : { deletedAt: IsNull() }, order: { createdAt: 'ASC' } });
  const piles = await pileCounts(db, ids);
  return paintings.map((painting) => ({ ...painting, pileCount: piles.get(painting.id) ?? 0 }));
}

/** So many paintings are read at once. */
export const PAGE = 100;

/** Ids of the newest paintings that are there, or of those that come after one; and the last of them where more follow. */
export async function pageOfPaintings(
  db: EntityManager,
  after?: Painting,
): Promise<{ readonly ids: readonly string[]; readonly next?: string }> {
  const asking = db
    .createQueryBuilder(Painting, 'painting')
    .select(['painting.id', 'painting.createdAt'])
    .where('painting.deletedAt IS NULL');
  if (after) asking.andWhere('(painting.createdAt, painting.id) < (:createdAt, :id)', { createdAt: after.createdAt, id: after.id });
  const found = await asking
    .orderBy('painting.createdAt', 'DESC')
    .addOrderBy('painting.id', 'DESC')
    .limit(PAGE + 1)
    .getMany();
  const ids = found.slice(0, PAGE).map(({ id }) => id);
  return { ids, ...(found.length > PAGE && { next: ids.at(-1)! }) };
}

export const paintingOf = async (db: EntityManager, id: string): Promise<Painting> =>
  present('painting', await db.findOneBy(Painting, { id }));

async function checkGround(db: EntityManager, groundOf: Needs<'painting.add'>['groundOf'] | null): Promise<void> {
  if (groundOf && !(await db.existsBy(Tube, { id: groundOf.tubeId })))
    throw unfit('Unknown tube', 'groundOf', 'The ground is to be made of a tube that is not in this studio.');
}

async function checkPalette(db: EntityManager, paletteId: string): Promise<void> {
  const palette = await db.findOneBy(Palette, { id: paletteId });
  if (!palette || palette.deletedAt) throw unfit('Unknown palette', 'paletteId', 'There is no such palette in this studio.');
}

/** Values that a painting has at least between its ends. */
const LEAST_BETWEEN = 0.5;

export const addPainting: Doing<Needs<'painting.add'>> = async ({ db, at, touch }, { id, title, paletteId, ground, groundOf = null }) => {
  await checkPalette(db, paletteId);
  await checkGround(db, groundOf);
  await db.insert(Painting, {
    id,
    version: 1,
    title,
    paletteId,
    ground: ground ?? USUAL_GROUND,
    groundOf,
    createdAt: at,
    updatedAt: at,
    deletedAt: null,
  });
  touch('paintings', id);
  return [{ do: 'painting.delete', id, version: 1 }];
};

export const changePainting: Doing<Needs<'painting.change'>> = async ({ db, at, touch }, { id, version, ...change }) => {
  await paintingOf(db, id);
  const [before] = (await paintingRows(db, [id])) as [PaintingDto];
  if (before.version !== version) throw stale('painting', version, before);
  if (change.paletteId !== undefined) await checkPalette(db, change.paletteId);
  await checkGround(db, change.groundOf ?? null);
  if (change.between && change.between.lightest - change.between.darkest < LEAST_BETWEEN)
    throw unfit('Nothing between', 'between', 'The lightest a painting may get is lighter than its darkest, by half a value at least.');
  if (change.about?.followsId === id) throw unfit('Its own predecessor', 'about', 'A painting does not follow itself.');
  if (change.about?.followsId !== undefined && !(await db.existsBy(Painting, { id: change.about.followsId })))
    throw unfit('Unknown painting', 'about', 'The earlier painting is not in this studio.');
  const news = given(change);
  await db.update(Painting, { id }, { ...news, version: version + 1, updatedAt: at });
  touch('paintings', id);
  return [{ do: 'painting.change', id, version: version + 1, ...changed(news, before) }];
};

/** A painting comes back only to a palette that is there. */
async function checkItsPalette({ db }: Work, { id }: { readonly id: string }, back: boolean): Promise<void> {
  if (!back) return;
  const { paletteId } = await db.findOneByOrFail(Painting, { id });
  if (await db.existsBy(Palette, { id: paletteId, deletedAt: IsNull() })) return;
  throw new ProblemError(409, 'Its palette is put away', 'The palette of this painting was put away. Bring the palette back first.');
}

export const { away: deletePainting, back: restorePainting } = puttingAway({
  what: 'painting',
  rows: 'paintings',
  entity: Painting,
  check: checkItsPalette,
});

/** Whether anybody has worked in the studio yet: a painting or a palette was ever made. */
export const hasWork = async (db: EntityManager): Promise<boolean> => (await db.exists(Painting)) || (await db.exists(Palette));
