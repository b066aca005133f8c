import { createHash, randomUUID } from 'node:crypto';
import { afterEvidence, believed, beliefOf, firstBeliefs, onlyOf, readingOf, type Beliefs, type Evidence } from '@dusk/core';
import { IsNull, type EntityManager } from 'typeorm';
import { Belief, Tube, TubeState } from '../entities/index.ts';
import { groupedBy } from './rows.ts';
import { paintOfState, statesById } from './tubes.ts';
import type { Work } from './work.ts';

/** What one pile says about tubes, and the belief that said it last. */
interface PileEvidence extends Evidence {
  readonly pileId: string;
  readonly beliefId: string;
  readonly since: string;
  readonly tubeIds: readonly string[];
}

/** Evidence that is neither refused nor withdrawn, pile by pile, in the order of their first looks. */
async function standingEvidence(db: EntityManager): Promise<PileEvidence[]> {
  const rows = await db.find(Belief, {
    where: { refusedAt: IsNull(), look: { withdrawnAt: IsNull(), stage: { withdrawnAt: IsNull() } } },
    relations: { look: { stage: true, sighting: true } },
    order: { at: 'ASC', id: 'ASC' },
  });
  const byPile = groupedBy(rows, (row) => row.look!.stage!.pileId);
  return [...byPile].map(([pileId, beliefs]): PileEvidence => {
    const looks = new Map(beliefs.map((b) => [b.lookId, b.look!]));
    const newest = beliefs.at(-1)!;
    // A look that is refused leaves its additions, which later looks still need.
    const stages = newest.evidence.map(({ observed, lookId, ...rest }) => {
      const look = lookId === undefined ? undefined : looks.get(lookId);
      if (!observed || (lookId !== undefined && !look)) return rest;
      return { ...rest, observed, ...(look && { reading: readingOf(look.sighting!.kind, look.sightingId, look.confirmed) }) };
    });
    const tubeIds = [...new Set(stages.flatMap((s) => s.additions.map((d) => d.id)))];
    return { pileId, beliefId: newest.id, since: beliefs[0]!.at, tubeIds, stages };
  });
}

/** The state of every tube that evidence is laid over: its newest that is not learnt. */
async function baseStates(db: EntityManager, tubeIds: readonly string[]): Promise<Map<string, TubeState>> {
  if (tubeIds.length === 0) return new Map();
  const rows = await db
    .createQueryBuilder(TubeState, 'state')
    .where(`state.tubeId IN (:...tubeIds) AND state.basis <> 'learnt'`, { tubeIds })
    .orderBy('state.createdAt', 'ASC')
    .addOrderBy('state.rowid', 'ASC')
    .getMany();
  return new Map(rows.map((state) => [state.tubeId, state]));
}

/** Beliefs after each stretch of evidence that was folded lately: a cache, since each follows from the evidence. */
const folded = new Map<string, Beliefs>();
const MOST_FOLDED = 64;

/** Folds evidence, going on from the longest beginning that was folded before. */
function fold(evidence: readonly PileEvidence[], bases: ReadonlyMap<string, TubeState>): Beliefs {
  const tubes = [...bases].map(([id, state]) => ({ id, ...paintOfState(state) }));
  const keys: string[] = [];
  let key = '';
  for (const { stages, tubeIds } of evidence) {
    // Each key holds all evidence so far: as a hash, since years of it are megabytes.
    const own = `${JSON.stringify(stages)} ${tubeIds.map((id) => bases.get(id)?.id).join()}`;
    key = createHash('sha256').update(key).update(own).digest('base64');
    keys.push(key);
  }
  const known = keys.findLastIndex((k) => folded.has(k));
  let beliefs = known < 0 ? firstBeliefs([]) : folded.get(keys[known]!)!;
  for (let i = known + 1; i < evidence.length; i++) {
    beliefs = afterEvidence([evidence[i]!], tubes, beliefs);
    folded.delete(keys[i]!);
    folded.set(keys[i]!, beliefs);
  }
  for (const oldest of [...folded.keys()].slice(0, Math.max(0, folded.size - MOST_FOLDED))) folded.delete(oldest);
  return beliefs;
}

const tubesIn = (evidence: readonly PileEvidence[]): string[] => [...new Set(evidence.flatMap((e) => e.tubeIds))];

/** What is believed of the tubes without what one pile taught. */
export async function beliefsWithout(db: EntityManager, pileId: string): Promise<Beliefs> {
  const evidence = (await standingEvidence(db)).filter((e) => e.pileId !== pileId);
  return fold(evidence, await baseStates(db, tubesIn(evidence)));
}

/** How unsure the tubes of a palette are together, as far as piles have taught them. */
export async function doubtsAbout(db: EntityManager, tubeIds: readonly string[]): Promise<Beliefs> {
  const evidence = await standingEvidence(db);
  return onlyOf(fold(evidence, await baseStates(db, tubesIn(evidence))), (id) => tubeIds.includes(id));
}

/** What is believed without one pile, with the curves that its tubes and those spoken of rest on. */
export async function groundsFor(db: EntityManager, pileId: string, tubeIds: readonly string[]) {
  const evidence = (await standingEvidence(db)).filter((e) => e.pileId !== pileId);
  const bases = await baseStates(db, [...new Set([...tubesIn(evidence), ...tubeIds])]);
  return { beliefs: fold(evidence, bases), tubes: [...bases].map(([id, state]) => ({ id, ...paintOfState(state) })) };
}

/** Below these two reckonings of the same are the same: log strength, and nm. */
const SAME_STRENGTH = 1e-9;
const SAME_SHIFT = 1e-9;

/**
 * Brings the tubes' states up to what is now believed: a new learnt state where that has changed, the
 * state it was learnt over where nothing speaks of the tube any more.
 */
export async function relearn({ db, at, touch }: Work): Promise<void> {
  const evidence = await standingEvidence(db);
  const learntNow = await db.find(Tube, { where: { state: { basis: 'learnt' } }, relations: { state: true } });
  const spokenOf = tubesIn(evidence);
  const bases = await baseStates(db, [...new Set([...spokenOf, ...learntNow.map((t) => t.id)])]);
  const beliefs = fold(evidence, bases);
  const today = await statesById(
    db,
    (await db.find(Tube, { where: spokenOf.map((id) => ({ id })) })).flatMap((t) => t.stateId ?? []),
  );
  const current = new Map([...today.values()].map((state) => [state.tubeId, state]));
  for (const { id, stateId } of learntNow)
    if (!spokenOf.includes(id) && bases.get(id)!.id !== stateId) {
      await db.update(Tube, { id }, { stateId: bases.get(id)!.id });
      touch('tubes', id);
    }
  const states = spokenOf.flatMap((id) => {
    const base = bases.get(id)!;
    const piles = evidence.filter((e) => e.tubeIds.includes(id));
    const learnt = { ...beliefOf(beliefs, id), piles: piles.length };
    const now = current.get(id);
    if (now?.learnt && now.baseId === base.id && isSame(now.learnt, learnt)) return [];
    const { K, S } = believed(paintOfState(base), beliefs, id);
    const state = { id: randomUUID(), tubeId: id, basis: 'learnt' as const, source: 'piles', createdAt: at, baseId: base.id };
    return { ...state, beliefId: piles.at(-1)!.beliefId, learnt, K: Array.from(K), S: Array.from(S) };
  });
  if (states.length === 0) return;
  await db.insert(TubeState, states);
  // The newest row of each tube is the one that was just added.
  await db.query(
    `UPDATE "tube" SET "stateId" = (SELECT "id" FROM "tube_state" WHERE "tubeId" = "tube"."id" ORDER BY "rowid" DESC LIMIT 1) WHERE "id" IN (${states.map(() => '?').join()})`,
    states.map((state) => state.tubeId),
  );
  for (const { tubeId } of states) touch('tubes', tubeId);
}

const isSame = (one: NonNullable<TubeState['learnt']>, other: NonNullable<TubeState['learnt']>): boolean =>
  one.piles === other.piles &&
  Math.abs(Math.log(one.strength / other.strength)) < SAME_STRENGTH &&
  Math.abs(Math.log(one.within / other.within)) < SAME_STRENGTH &&
  Math.abs(one.shiftNm - other.shiftNm) < SAME_SHIFT;
