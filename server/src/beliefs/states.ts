// Learnt states of tubes: what is believed, laid over the newest curves that are not learnt.
import { randomUUID } from 'node:crypto';
import { believed, beliefOf } from '@dusk/core';
import { In, type EntityManager } from 'typeorm';
import { Tube, TubeState } from '../entities/index.ts';
import { paintOfState, statesById } from '../tubes/tubes.ts';
import type { Work } from '../change/work.ts';
import { baseIds } from './evidence.ts';
import type { Folded } from './packed.ts';

/** Below these two reckonings of a tube are the same to any eye: natural logarithms, and nm. */
const SAME_STRENGTH = 2e-4;
const SAME_WITHIN = 2e-3;
const SAME_SHIFT_NM = 2e-3;

const isSame = (one: NonNullable<TubeState['learnt']>, other: NonNullable<TubeState['learnt']>): boolean =>
  one.piles === other.piles &&
  Math.abs(Math.log(one.strength / other.strength)) < SAME_STRENGTH &&
  Math.abs(Math.log(one.within / other.within)) < SAME_WITHIN &&
  Math.abs(one.shiftNm - other.shiftNm) < SAME_SHIFT_NM;

/** Learnt states that tubes are reckoned with today, without their curves. */
async function learntToday(db: EntityManager): Promise<Pick<TubeState, 'id' | 'tubeId' | 'baseId' | 'learnt'>[]> {
  const today = (await db.find(Tube, { select: { stateId: true } })).flatMap(({ stateId }) => stateId ?? []);
  return db.find(TubeState, {
    where: { id: In(today), basis: 'learnt' },
    select: { id: true, tubeId: true, baseId: true, learnt: true },
  });
}

/**
 * Brings the tubes' states up to what is now believed: a new learnt state where that has changed, the
 * state it was learnt over where nothing speaks of the tube any more.
 */
export async function bringStatesUp({ db, at, touch }: Pick<Work, 'db' | 'at' | 'touch'>, { beliefs, tally }: Folded): Promise<void> {
  const today = new Map((await learntToday(db)).map((state) => [state.tubeId, state]));
  const under = await baseIds(db, [...new Set([...Object.keys(tally), ...today.keys()])]);
  for (const id of today.keys())
    if (!(id in tally)) {
      await db.update(Tube, { id }, { stateId: under.get(id)! });
      touch('tubes', id);
    }
  const different = Object.entries(tally).flatMap(([id, { piles, beliefId }]) => {
    const learnt = { ...beliefOf(beliefs, id), piles };
    const now = today.get(id);
    return now?.learnt && now.baseId === under.get(id) && isSame(now.learnt, learnt) ? [] : [{ id, beliefId, learnt }];
  });
  // Curves are read of those alone that have come to be others.
  const bases = await statesById(
    db,
    different.map(({ id }) => under.get(id)!),
  );
  for (const { id, beliefId, learnt } of different) {
    const base = bases.get(under.get(id)!)!;
    const { K, S } = believed(paintOfState(base), beliefs, id);
    const state = { id: randomUUID(), tubeId: id, basis: 'learnt' as const, source: 'piles', createdAt: at, baseId: base.id };
    await db.insert(TubeState, { ...state, beliefId, learnt, K: Array.from(K), S: Array.from(S), doubt: base.doubt });
    await db.update(Tube, { id }, { stateId: state.id });
    touch('tubes', id);
  }
}
