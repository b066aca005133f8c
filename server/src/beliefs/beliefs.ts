// What is believed of the tubes: the fold of all evidence that counts, pile by pile.
import { afterEvidence, isSighting, onlyOf, withoutShare, type Beliefs } from '@dusk/core';
import type { EntityManager } from 'typeorm';
import { paintOfState } from '../tubes/tubes.ts';
import type { Work } from '../change/work.ts';
import { baseStates, evidenceOfPiles } from './evidence.ts';
import { foldOn, type TubeCurves } from './fold.ts';
import { packFolded, type Folded } from './packed.ts';
import { NEWEST_KEPT, keepShare, keepSnapshot, newestFolded, newestStart, placeOf, placesAfter, replace, shareKept } from './order.ts';
import { bringStatesUp } from './states.ts';

/** So many piles are folded while somebody waits; more are left to the worker. */
export const AT_ONCE = 4;

/** Curves of tubes as evidence is laid over them. */
async function curvesBeneath(db: EntityManager, tubeIds: readonly string[]): Promise<TubeCurves[]> {
  const bases = await baseStates(db, [...new Set(tubeIds)]);
  return [...bases].map(([id, state]) => ({ id, ...paintOfState(state) }));
}

/** What some piles say, and the curves of their tubes that it is laid over. */
export async function evidenceAndCurves(db: EntityManager, pileIds: readonly string[]) {
  const evidence = await evidenceOfPiles(db, pileIds);
  const tubes = await curvesBeneath(
    db,
    evidence.flatMap(({ tubeIds }) => tubeIds),
  );
  return { evidence, tubes };
}

/** Folds what is not folded yet, if it is little. @returns nothing where it is much */
async function foldHere(db: EntityManager): Promise<Folded | undefined> {
  const start = await newestStart(db);
  const places = await placesAfter(db, start, AT_ONCE + 1);
  if (places.length > AT_ONCE) return undefined;
  const { evidence, tubes } = await evidenceAndCurves(
    db,
    places.map(({ pileId }) => pileId),
  );
  let folded = start.folded;
  for (const { pileId, share, after } of foldOn(folded, evidence, tubes)) {
    await keepShare(db, pileId, share);
    await keepSnapshot(db, pileId, after.piles, packFolded(after));
    folded = after;
  }
  return folded;
}

/**
 * Reckons anew what is believed after the evidence of some piles has changed, and brings the tubes up to it; where
 * that takes long, the tubes stay as they are until the worker has come to it.
 */
export async function relearn(work: Work, pileIds: Iterable<string>): Promise<{ readonly isBehind: boolean }> {
  for (const pileId of pileIds) await replace(work.db, pileId);
  const folded = await foldHere(work.db);
  if (folded) await bringStatesUp(work, folded);
  return { isBehind: folded === undefined };
}

/** After a pile of long ago all others would have to be learnt from anew: its share is taken out instead. */
async function withoutOld(db: EntityManager, pileId: string): Promise<Beliefs> {
  const { beliefs } = await newestFolded(db);
  const share = await shareKept(db, pileId);
  return share ? withoutShare(beliefs, share) : beliefs;
}

/** What is believed of the tubes without what one pile taught. */
export async function beliefsWithout(db: EntityManager, pileId: string): Promise<Beliefs> {
  const place = await placeOf(db, pileId);
  if (!place) return (await newestFolded(db)).beliefs;
  if ((await placesAfter(db, { place }, AT_ONCE + 1)).length > AT_ONCE) return withoutOld(db, pileId);
  const start = await newestStart(db, place);
  const places = await placesAfter(db, start, AT_ONCE + NEWEST_KEPT);
  if (places.length === AT_ONCE + NEWEST_KEPT) return withoutOld(db, pileId);
  const others = places.map((one) => one.pileId).filter((id) => id !== pileId);
  const { evidence, tubes } = await evidenceAndCurves(db, others);
  return afterEvidence(evidence, tubes, start.folded.beliefs);
}

/** How unsure the tubes of a palette are together, as far as piles have taught them. */
export async function doubtsAbout(db: EntityManager, tubeIds: readonly string[]): Promise<Beliefs> {
  const { beliefs } = await newestFolded(db);
  return onlyOf(beliefs, (id) => tubeIds.includes(id));
}

/** What is believed without one pile, with the curves that its tubes and those spoken of rest on. */
export async function groundsFor(db: EntityManager, pileId: string, tubeIds: readonly string[]) {
  const beliefs = await beliefsWithout(db, pileId);
  return { beliefs, tubes: await curvesBeneath(db, [...beliefs.ids.filter((id) => !isSighting(id)), ...tubeIds]) };
}
