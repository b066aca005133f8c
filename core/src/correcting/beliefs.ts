import type { PaintCurves } from '../paint/catalogue.ts';
import { NUMBERS_SIGMA, shifted } from '../paint/deviation.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { Reading } from './doubt.ts';

/** What is believed of each tube beyond its curves, and of how readings are off: one joint normal distribution. Plain data. */
export interface Beliefs {
  /** Tubes; and sightings, by {@link sightingKey}. */
  readonly ids: readonly string[];
  /** For each tube in turn: log strength of K, log share of paint (less extender), shift in nm. For each sighting: by how much it reads L, a, b too high. */
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
}

/** Numbers about a tube or a sighting. */
export const EACH = 3;
/** Standard deviations of tubes of one pigment, and their mean, the extender's in it (see `USUAL_SPREAD`). */
export const SIGMA = NUMBERS_SIGMA;
export const MEAN = [-0.015, -0.135, 0] as const;

const SIGHTING = 'sighting ';

/** The name under which beliefs speak of a sighting's offset; no tube is called so. */
export const sightingKey = ({ sighting }: Reading): string => SIGHTING + sighting;
export const isSighting = (id: string): boolean => id.startsWith(SIGHTING);

const diagonal = (variances: readonly number[]): number[][] => variances.map((v, i) => variances.map((_, j) => (i === j ? v : 0)));

/** What is believed of typical tubes before any pile was looked at. */
export const firstBeliefs = (ids: readonly string[], isTaught: (id: string) => boolean = () => false): Beliefs => ({
  ids: [...ids],
  mean: ids.flatMap((id) => (isTaught(id) ? [0, MEAN[1], 0] : [...MEAN])),
  covariance: diagonal(ids.flatMap((id) => SIGMA.map((sigma) => (isTaught(id) ? TAUGHT_LEAVES * sigma : sigma) ** 2))),
});
/** What swatches leave open of a tube’s numbers, as a share of what is open among tubes of its pigment. */
const TAUGHT_LEAVES = 0.3;

/** What is believed of a sighting before anything was read in it. */
export const firstOffset = (reading: Reading, spread: number): Beliefs => ({
  ids: [sightingKey(reading)],
  mean: [0, 0, 0],
  covariance: diagonal([spread ** 2, spread ** 2, spread ** 2]),
});

const zeros = (n: number): number[] => Array.from({ length: n }, () => 0);

/** Beliefs that also speak of something nobody has looked at yet. */
export const speakingOf = (beliefs: Beliefs, fresh: Beliefs): Beliefs =>
  fresh.ids.length === 0
    ? beliefs
    : {
        ids: [...beliefs.ids, ...fresh.ids],
        mean: [...beliefs.mean, ...fresh.mean],
        covariance: [
          ...beliefs.covariance.map((row) => [...row, ...zeros(fresh.mean.length)]),
          ...fresh.covariance.map((row) => [...zeros(beliefs.mean.length), ...row]),
        ],
      };

/** Beliefs about some of what they speak of; what they knew of the rest stays in these (marginal distribution). */
export function onlyOf({ ids, mean, covariance }: Beliefs, wanted: (id: string) => boolean): Beliefs {
  const kept = ids.flatMap((id, at) => (wanted(id) ? [at] : []));
  const numbers = kept.flatMap((at) => [at * EACH, at * EACH + 1, at * EACH + 2]);
  return {
    ids: kept.map((at) => ids[at]!),
    mean: numbers.map((i) => mean[i]!),
    covariance: numbers.map((i) => numbers.map((j) => covariance[i]![j]!)),
  };
}

/** The three numbers of one tube, or those of any tube before it was looked at. */
function numbersOf({ ids, mean }: Beliefs, id: string): readonly number[] {
  const at = ids.indexOf(id);
  return at < 0 ? MEAN : mean.slice(at * EACH, at * EACH + EACH);
}

/**
 * Curves of a tube as they are believed to be. Share of paint is taken against that of a tube nobody
 * has looked at, so that learnt and typical tubes mix as they should.
 */
export const believed = (paint: PaintCurves, beliefs: Beliefs, id: string): PaintCurves =>
  beliefs.ids.includes(id) ? adjusted(paint, numbersOf(beliefs, id)) : paint;

/** What is believed of one tube, as a painter says it. */
export interface TubeBelief {
  /** Tinting strength, in times that of its curves. */
  readonly strength: number;
  /** About two of three true strengths lie within this factor of it. */
  readonly within: number;
  readonly shiftNm: number;
}

export function beliefOf(beliefs: Beliefs, id: string): TubeBelief {
  const [strength, share, shift] = numbersOf(beliefs, id) as [number, number, number];
  const at = beliefs.ids.indexOf(id) * EACH;
  const c = (i: number, j: number): number => (at < 0 ? (i === j ? SIGMA[i]! ** 2 : 0) : beliefs.covariance[at + i]![at + j]!);
  return {
    strength: Math.exp(strength - MEAN[0] + share - MEAN[1]),
    within: Math.exp(Math.sqrt(Math.max(0, c(0, 0) + 2 * c(0, 1) + c(1, 1)))),
    shiftNm: shift,
  };
}

/** Curves of a tube by its three numbers. */
export function adjusted(paint: PaintCurves, [strength, share, shift]: readonly number[]): PaintCurves {
  const K = shifted(paint.K, shift!);
  const S = shifted(paint.S, shift!);
  const less = share! - MEAN[1];
  const k = Math.exp(strength! + less);
  const s = Math.exp(strength! / 2 + less);
  for (let i = 0; i < BANDS; i++) {
    K[i]! *= k;
    S[i]! *= s;
  }
  return { K, S, ...(paint.doubt && { doubt: paint.doubt }) };
}
