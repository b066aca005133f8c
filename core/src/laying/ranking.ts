import { CraftError } from '../errors.ts';
import { deltaE00From } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { WORTH } from './worth.ts';

/** How recipes are ranked against a target. */
export interface Ranking {
  readonly target: Lab;
  readonly targetValue: MunsellValue;
  /** Value steps a recipe may be off before value counts on its own. */
  readonly valueTolerance: number;
  /** ΔE00 of a recipe's colour from the target. */
  readonly deltaE: (L: number, a: number, b: number) => number;
}

/** A quarter of a value step: about what a painter sees on the canvas. */
export const VALUE_TOLERANCE: MunsellValue = 0.25;
/** @throws CraftError for a target or a tolerance that is no number */
export function rankingFor(target: Lab, valueTolerance: number = VALUE_TOLERANCE): Ranking {
  if (!target.every(Number.isFinite))
    throw new CraftError('target', `The target must be three numbers, L, a and b; it is ${JSON.stringify(target)}.`);
  if (!(valueTolerance >= 0)) throw new CraftError('target', `The tolerance of value must be a number from 0; it is ${valueTolerance}.`);
  return {
    target,
    targetValue: valueOfLightness(Math.min(100, Math.max(0, target[0]))),
    valueTolerance,
    deltaE: deltaE00From(target),
  };
}

/** What the value error costs, in ΔE00. */
export function valueCost(ranking: Ranking, value: MunsellValue): number {
  const beyond = Math.abs(value - ranking.targetValue) - ranking.valueTolerance;
  return beyond > 0 ? beyond * WORTH.value : 0;
}
