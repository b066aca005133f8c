import { deltaE00 } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { mixCurves } from '../paint/mix.ts';
import { additionsFor, MOST_GROWTH, type Additions } from './additions.ts';
import { believed, learn, type Beliefs, type Dose, type Stage } from './beliefs.ts';
import type { PaletteTube } from './ingredients.ts';

/** What to do with a pile that came out wrong. */
export interface Correction extends Additions {
  /** ΔE00 between what was seen and the target. */
  readonly off: number;
  readonly advice: 'leave it' | 'add' | 'start again with part of it';
  /** Taking only part of the pile, when the whole would grow too large: how much to keep and what to add to that. */
  readonly part?: { readonly keep: number; readonly add: readonly Dose[] };
  /** What is now believed of the tubes, for the next pile. */
  readonly beliefs: Beliefs;
}

/** Within this ΔE00 a pile passes; adding more would only chase the reading's noise. */
const GOOD_ENOUGH = 1;
/** From this size on part of the pile with its additions is less paint. */
const TOO_LARGE = 2;
const PART = 1 / 3;

/**
 * Corrects a pile by additions only, from what was mixed and how it looks. The observation first
 * corrects what is believed of the tubes and of what really went in.
 * @param stages what was added so far, with the looks that were observed
 * @param beliefs what is believed of the tubes before this pile
 * @throws CraftError for a tube that is not on the palette, or an empty pile
 */
export function correct(
  tubes: readonly PaletteTube[],
  stages: readonly Stage[],
  target: Lab,
  beliefs: Beliefs,
  mostGrowth: number = MOST_GROWTH,
): Correction {
  const learnt = learn(beliefs, tubes, stages);
  const trueTubes = tubes.map((t) => ({ id: t.id, ...believed(t, learnt.beliefs, t.id) }));
  const inPile = Object.entries(learnt.parts);
  const curves = mixCurves(inPile.map(([id, parts]) => ({ paint: trueTubes.find((t) => t.id === id)!, parts })));
  const parts = inPile.reduce((sum, [, n]) => sum + n, 0);
  const seen = stages.findLast((s) => s.observed)?.observed;
  const off = seen ? deltaE00(target, seen) : NaN;
  const found = additionsFor({ ...curves, parts, residual: learnt.residual }, trueTubes, target, mostGrowth);
  if (found.add.length === 0 || off <= GOOD_ENOUGH)
    return { ...found, add: [], growth: 1, off: seen ? off : found.mismatchBefore, advice: 'leave it', beliefs: learnt.beliefs };
  const part = { keep: PART, add: found.add.map(({ id, parts: n }) => ({ id, parts: n * PART })) };
  const large = found.growth > TOO_LARGE;
  return {
    ...found,
    off: seen ? off : found.mismatchBefore,
    advice: large ? 'start again with part of it' : 'add',
    ...(large && { part }),
    beliefs: learnt.beliefs,
  };
}
