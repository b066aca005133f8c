import { valueOfLightness } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { mixerOf } from '../paint/mixer.ts';
import { rankingFor, valueCost } from './ranking.ts';
import { weigh, type Measure, type Recipe } from './recipe.ts';
import { searchFactors } from './search.ts';
import type { Illuminant } from '../colour/illuminants.ts';

/** What a mixture costs against a target: ΔE00 and the value beyond tolerance. */
export function mismatch(target: Lab, valueTolerance?: number): (lab: Lab) => number {
  const ranking = rankingFor(target, valueTolerance);
  return ([L, a, b]) => ranking.deltaE(L, a, b) + valueCost(ranking, valueOfLightness(Math.max(0, L)));
}

/** Shares below this are left out: no scale weighs them. */
const LEAST_SHARE = 5e-4;

/**
 * Exact proportions of a recipe's ingredients for people with a scale. Never worse than the whole
 * parts it starts from; parts add up to what they did.
 */
export function polish(measures: readonly Measure[], target: Lab, light: Illuminant = 'D65', valueTolerance?: number): Recipe {
  const whole = measures.reduce((sum, m) => sum + m.parts, 0);
  const mix = mixerOf(
    measures.map((m) => m.ingredient),
    light,
  );
  const cost = mismatch(target, valueTolerance);
  const start = measures.map((m) => m.parts / whole);
  const { numbers } = searchFactors((shares) => cost(mix(shares)), start);
  const total = numbers.reduce((sum, v) => sum + v, 0);
  const kept = measures.map((m, i) => ({ ...m, parts: (numbers[i]! / total) * whole })).filter((m) => m.parts / whole > LEAST_SHARE);
  const polished = weigh(kept, target, light);
  return cost(polished.lab) <= cost(mix(start)) ? polished : weigh(measures, target, light);
}
