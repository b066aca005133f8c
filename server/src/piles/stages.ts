import type { Needs, PileDto } from '@dusk/wire';
import { In, IsNull, MoreThan, type EntityManager } from 'typeorm';
import { Addition, Look, Stage, TubeState } from '../entities/index.ts';
import { notFound, ProblemError, unfit } from '../refusing/problems.ts';
import { LEAVES, mlText } from '@dusk/core';
import { pileOf, pileRows, predictedAfter } from './piles.ts';
import { areaOf } from '../paintings/areas.ts';
import { sittingAt } from '../deeds/sittings.ts';
import type { Doing, Work } from '../change/work.ts';

type Sent = Needs<'stage.add'>;

const refuse = (detail: string): ProblemError => new ProblemError(409, 'Not now', detail);

/** Whether a stage may follow what was done with the pile before, in a painter's words. */
function checkOrder({ kind, additions, left }: Sent, before: Stage | null): void {
  const isFirst = before === null || before.kind === 'scraped';
  if (kind === 'mixed' && !isFirst) throw refuse('This pile is mixed already; add to it instead.');
  if (kind !== 'mixed' && before === null) throw refuse('This pile is not mixed yet.');
  if (kind !== 'mixed' && isFirst) throw refuse('This pile was scraped off; mix it anew.');
  const takes = kind === 'mixed' || kind === 'added';
  if (takes && additions.length === 0) throw unfit('Nothing was added', 'additions', 'Say what went into the pile.');
  if (!takes && additions.length > 0) throw unfit('The request does not fit', 'additions', 'Only what was mixed or added has additions.');
  if (kind === 'left' && left === undefined) throw unfit('The request does not fit', 'left', 'Say how much of the pile is left.');
  if (takes && left !== undefined)
    throw unfit('The request does not fit', 'left', 'How much is left is said when something was taken away.');
}

/** @param pileId the pile that takes them, which is none of its own sources */
async function checkAdditions(db: EntityManager, additions: Sent['additions'], pileId?: string): Promise<void> {
  for (const { tubeId, stageId, ml, low, high } of additions) {
    if ((tubeId === undefined) === (stageId === undefined))
      throw unfit('The request does not fit', 'additions', 'What is added is a tube or a pile, not both.');
    if (!(low <= ml && ml <= high)) throw unfit('The request does not fit', 'additions', 'An amount lies between its least and its most.');
  }
  const states = additions.flatMap(({ stateId, tubeId }) => (stateId === undefined ? [] : { id: stateId, tubeId: tubeId! }));
  const known = await db.find(TubeState, { where: { id: In(states.map((s) => s.id)) }, select: { id: true, tubeId: true } });
  if (states.some((s) => !known.some((k) => k.id === s.id && k.tubeId === s.tubeId)))
    throw unfit('Unknown tube', 'additions', 'A tube in the pile, or the state it was reckoned with, is not in this studio.');
  const sources = additions.flatMap(({ stageId }) => stageId ?? []);
  const living = await db.find(Stage, { where: { id: In(sources), withdrawnAt: IsNull() }, relations: { pile: true } });
  if (living.length < new Set(sources).size) throw refuse('A pile that this one takes from is not as it was: one of its steps was undone.');
  if (pileId !== undefined && living.some((s) => s.pileId === pileId))
    throw unfit('The request does not fit', 'additions', 'A pile cannot be added to itself.');
  if (living.some(({ pile }) => !pile))
    throw unfit('The request does not fit', 'additions', 'Paint is taken from tubes and piles, not from an area.');
  if (living.some((s) => s.pile!.deletedAt)) throw refuse('A pile that this one takes from was put away.');
}

/** More may be left than was reckoned, since nobody measures what lies there; but not many times as much. */
const MORE_THAN_RECKONED = 2;
const SURELY_ML = 1;
async function checkLeft(db: EntityManager, { pileId, left }: Sent): Promise<void> {
  if (left === undefined) return;
  const [{ there }] = (await pileRows(db, { ids: [pileId] })) as [PileDto];
  if (left > MORE_THAN_RECKONED * there + SURELY_ML)
    throw unfit('More than there is', 'left', `There are about ${mlText(there)} of this pile: ${mlText(left)} cannot be left of it.`);
}

/** Rows that depend on a stage: the pile or area it is of, and the piles it takes from. */
async function touchAll({ db, touch }: Work, { id, pileId, areaId }: Pick<Stage, 'id' | 'pileId' | 'areaId'>): Promise<void> {
  if (pileId !== null) touch('piles', pileId);
  if (areaId !== null) touch('areas', areaId);
  const sources = await db.find(Addition, { where: { stageId: id }, relations: { source: true } });
  for (const { source } of sources) if (source) touch('piles', source.pileId!);
}

/** What a stage is of, as a condition. */
const ofSame = ({ pileId, areaId }: Pick<Stage, 'pileId' | 'areaId'>) => (pileId === null ? { areaId: areaId! } : { pileId });

const newestOf = (db: EntityManager, of: Pick<Stage, 'pileId' | 'areaId'>): Promise<Stage | null> =>
  db.findOne(Stage, { where: { ...ofSame(of), withdrawnAt: IsNull() }, order: { n: 'DESC' } });

const additionsOf = (stageId: string, additions: Sent['additions']) =>
  additions.map(({ id, tubeId, stateId, stageId: sourceId, ml, low, high, said }, position) => ({
    id,
    stageId,
    position,
    tubeId: tubeId ?? null,
    stateId: stateId ?? null,
    sourceId: sourceId ?? null,
    ml,
    low,
    high,
    said: said ?? null,
  }));

const nextN = async (db: EntityManager): Promise<number> => ((await db.maximum(Stage, 'n')) ?? 0) + 1;

export const addStage: Doing<Sent> = async (work, sent) => {
  const { db } = work;
  const { id, pileId, kind, additions, left } = sent;
  const { paintingId } = await pileOf(db, pileId);
  checkOrder(sent, await newestOf(db, { pileId, areaId: null }));
  await checkAdditions(db, additions, pileId);
  await checkLeft(db, sent);
  const at = sent.at ?? work.at;
  const row = { id, n: await nextN(db), pileId, areaId: null, kind, left: left ?? null, at, laid: null, touch: null, withdrawnAt: null };
  const rows = additionsOf(id, additions);
  const predicted = await predictedAfter(db, row, rows);
  await db.insert(Stage, { ...row, predicted, sittingId: await sittingAt(work, at, paintingId) });
  for (const addition of rows) await db.insert(Addition, addition);
  await touchAll(work, row);
  return [{ do: 'stage.withdraw', id }];
};

/** Something that is done with an area: paint is laid on it, wiped back, oiled out, or it is touched. */
export const addAreaDeed: Doing<Needs<'deed.add'>> = async (work, { id, areaId, kind, additions, laid, touch, ...sent }) => {
  const { db } = work;
  const { paintingId } = await areaOf(db, areaId);
  if (kind !== 'laid' && additions.length > 0)
    throw unfit('The request does not fit', 'additions', 'Paint goes onto an area when it is laid.');
  if (kind !== 'laid' && kind !== 'oiled out' && laid !== undefined)
    throw unfit('The request does not fit', 'laid', 'How paint was laid is said when something was laid.');
  if ((kind === 'touched') !== (touch !== undefined))
    throw unfit('The request does not fit', 'touch', 'How it felt is said of an area that was touched, and of no other.');
  const isBare = !(await db.existsBy(Stage, { areaId, kind: 'laid', withdrawnAt: IsNull() }));
  if (isBare && kind in LEAVES) throw refuse(`Nothing was laid here yet that could be ${kind}.`);
  if (isBare && kind === 'touched') throw refuse('Nothing was laid here yet that could be touched.');
  await checkAdditions(db, additions);
  const at = sent.at ?? work.at;
  const row = { id, n: await nextN(db), pileId: null, areaId };
  await db.insert(Stage, {
    ...row,
    kind,
    at,
    laid: laid ?? null,
    touch: touch ?? null,
    left: null,
    predicted: null,
    withdrawnAt: null,
    sittingId: await sittingAt(work, at, paintingId),
  });
  for (const addition of additionsOf(id, additions)) await db.insert(Addition, addition);
  await touchAll(work, row);
  return [{ do: 'stage.withdraw', id }];
};

async function stageOf(db: EntityManager, id: string): Promise<Stage> {
  const stage = await db.findOneBy(Stage, { id });
  if (!stage) throw notFound('step');
  return stage;
}

/** What looks at a pile taught is reckoned anew where the stage that was looked at comes or goes. */
async function relearnLooks(work: Work, { id, pileId }: Stage): Promise<void> {
  if (pileId !== null && (await work.db.existsBy(Look, { stageId: id }))) work.relearn(pileId);
}

export const withdrawStage: Doing<Needs<'stage.withdraw'>> = async (work, { id }) => {
  const { db, at } = work;
  const stage = await stageOf(db, id);
  const what = stage.pileId === null ? 'area' : 'pile';
  if (stage.withdrawnAt) throw refuse('This step was undone already.');
  if (await db.existsBy(Stage, { ...ofSame(stage), withdrawnAt: IsNull(), n: MoreThan(stage.n) }))
    throw refuse(`Something was done with this ${what} since; undo that first.`);
  const using = await db.findOne(Addition, {
    where: { sourceId: id, stage: { withdrawnAt: IsNull() } },
    relations: { stage: { pile: true, area: true } },
  });
  if (using?.stage!.pile) throw refuse(`“${using.stage!.pile.name}” was mixed from this pile as it is now; undo that first.`);
  if (using) throw refuse(`“${using.stage!.area!.name}” was painted with this pile as it is now; undo that first.`);
  await touchAll(work, stage);
  await db.update(Stage, { id }, { withdrawnAt: at });
  await relearnLooks(work, stage);
  return [{ do: 'stage.restore', id }];
};

export const restoreStage: Doing<Needs<'stage.restore'>> = async (work, { id }) => {
  const { db } = work;
  const stage = await stageOf(db, id);
  if (!stage.withdrawnAt) throw refuse('This step stands already.');
  await (stage.pileId === null ? areaOf(db, stage.areaId!) : pileOf(db, stage.pileId));
  const newest = await newestOf(db, stage);
  if (newest && newest.n > stage.n) throw refuse(`Something else was done with this ${stage.pileId === null ? 'area' : 'pile'} since.`);
  const sources = await db.find(Addition, { where: { stageId: id }, relations: { source: true } });
  if (sources.some(({ source }) => source?.withdrawnAt)) throw refuse('A pile that this one takes from is not as it was.');
  await db.update(Stage, { id }, { withdrawnAt: null });
  await touchAll(work, stage);
  await relearnLooks(work, stage);
  return [{ do: 'stage.withdraw', id }];
};
