import type { Needs, PileDto } from '@dusk/wire';
import { In, IsNull, MoreThan, type EntityManager } from 'typeorm';
import { Addition, Look, Stage, TubeState } from '../entities/index.ts';
import { notFound, ProblemError, unfit } from '../refusing/problems.ts';
import { mlText } from '@dusk/core';
import { pileOf, pileRows, predictedAfter } from './piles.ts';
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

async function checkAdditions(db: EntityManager, { pileId, additions }: Sent): Promise<void> {
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
  if (living.some((s) => s.pileId === pileId)) throw unfit('The request does not fit', 'additions', 'A pile cannot be added to itself.');
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

/** Piles whose amounts depend on a stage: its own and those it takes from. */
async function touchPiles({ db, touch }: Work, stageId: string, pileId: string): Promise<void> {
  touch('piles', pileId);
  const sources = await db.find(Addition, { where: { stageId }, relations: { source: true } });
  for (const { source } of sources) if (source) touch('piles', source.pileId);
}

const newestOf = (db: EntityManager, pileId: string): Promise<Stage | null> =>
  db.findOne(Stage, { where: { pileId, withdrawnAt: IsNull() }, order: { n: 'DESC' } });

export const addStage: Doing<Sent> = async (work, sent) => {
  const { db } = work;
  const { id, pileId, kind, additions, left, at } = sent;
  await pileOf(db, pileId);
  checkOrder(sent, await newestOf(db, pileId));
  await checkAdditions(db, sent);
  await checkLeft(db, sent);
  const last = await db.maximum(Stage, 'n');
  const row = { id, n: (last ?? 0) + 1, pileId, kind, left: left ?? null, at: at ?? work.at, withdrawnAt: null };
  const rows = additions.map(({ id: own, tubeId, stateId, stageId, ml, low, high, said }, position) => ({
    id: own,
    stageId: id,
    position,
    tubeId: tubeId ?? null,
    stateId: stateId ?? null,
    sourceId: stageId ?? null,
    ml,
    low,
    high,
    said: said ?? null,
  }));
  await db.insert(Stage, { ...row, predicted: await predictedAfter(db, row, rows) });
  for (const addition of rows) await db.insert(Addition, addition);
  await touchPiles(work, id, pileId);
  return [{ do: 'stage.withdraw', id }];
};

async function stageOf(db: EntityManager, id: string): Promise<Stage> {
  const stage = await db.findOneBy(Stage, { id });
  if (!stage) throw notFound('step');
  return stage;
}

export const withdrawStage: Doing<Needs<'stage.withdraw'>> = async (work, { id }) => {
  const { db, at } = work;
  const stage = await stageOf(db, id);
  if (stage.withdrawnAt) throw refuse('This step was undone already.');
  if (await db.existsBy(Stage, { pileId: stage.pileId, withdrawnAt: IsNull(), n: MoreThan(stage.n) }))
    throw refuse('Something was done with this pile since; undo that first.');
  const using = await db.findOne(Addition, {
    where: { sourceId: id, stage: { withdrawnAt: IsNull() } },
    relations: { stage: { pile: true } },
  });
  if (using) throw refuse(`“${using.stage!.pile!.name}” was mixed from this pile as it is now; undo that first.`);
  await touchPiles(work, id, stage.pileId);
  await db.update(Stage, { id }, { withdrawnAt: at });
  if (await db.existsBy(Look, { stageId: id })) work.relearn(stage.pileId);
  return [{ do: 'stage.restore', id }];
};

export const restoreStage: Doing<Needs<'stage.restore'>> = async (work, { id }) => {
  const { db } = work;
  const stage = await stageOf(db, id);
  if (!stage.withdrawnAt) throw refuse('This step stands already.');
  await pileOf(db, stage.pileId);
  const newest = await newestOf(db, stage.pileId);
  if (newest && newest.n > stage.n) throw refuse('Something else was done with this pile since.');
  const sources = await db.find(Addition, { where: { stageId: id }, relations: { source: true } });
  if (sources.some(({ source }) => source?.withdrawnAt)) throw refuse('A pile that this one takes from is not as it was.');
  await db.update(Stage, { id }, { withdrawnAt: null });
  await touchPiles(work, id, stage.pileId);
  if (await db.existsBy(Look, { stageId: id })) work.relearn(stage.pileId);
  return [{ do: 'stage.withdraw', id }];
};
