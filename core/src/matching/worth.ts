import { hueDifference, labToLch, type Lab } from '../colour/spaces.ts';
import type { Palette, PaletteIngredient, Tint } from './palette.ts';

/**
 * What a painter would give away, in ΔE00 of the expected true difference, for a recipe that is
 * better in another way. The one place where these weights stand.
 */
export const WORTH = {
  /** One tube less. */
  tube: 0.14,
  /** One part less to measure, over all heaps. */
  part: 0.008,
  /** One heap less to mix first. */
  heap: 0.22,
  /** A heap of more than a dozen parts (1 : 14 and beyond) less: long beads against a speck. */
  thinHeap: 0.06,
  /** A loud tube less where a dull colour is wanted: earth before loud. */
  loud: 0.5,
  /** Two opposites less that cancel one another. */
  opposites: 0.9,
  /** A slowly drying tube less, where drying fast is wished; a middling one half of it. */
  slow: 1,
  /** One ΔE00 nearer, beyond what an eye that does not look for it lets pass: that much counts though it cannot be promised. */
  passing: 0.5,
  /** A recipe that passes for the target goes before one that does not. */
  notPassing: 1.5,
  /** One value step nearer, beyond the tolerance: a step is 8 to 10 ΔE00, so value counts a little more than double. */
  value: 12,
} as const;

/** ΔE00 a painter would give away to do without a pigment that asks for care. */
const CARE: Readonly<Record<string, number>> = {
  lead: 0.9,
  cadmium: 0.5,
  cobalt: 0.55,
  nickel: 0.4,
  chromium: 0.1,
  manganese: 0.05,
  fugitive: 0.3,
};

/** How a colour is dulled: no matter how, by its opposite, by earths and black, or by a grey of its value. */
export const DULLING = ['any', 'opposites', 'earths', 'grey'] as const;
export type Dulling = (typeof DULLING)[number];

/** Chroma of the tint from which a tube begins to be loud, and how much further it is wholly so. */
const LOUD_FROM = 34;
const LOUD_RANGE = 14;
/** Chroma of a target that is no longer dull. */
const DULL_BELOW = 42;

/** How loud a tube is, 0–1. */
export const loudness = ({ chroma }: Tint): number => Math.min(1, Math.max(0, (chroma - LOUD_FROM) / LOUD_RANGE));

/** Tubes of at least this chroma of tint, more than this angle of hue apart, cancel one another. */
const OPPOSITE_CHROMA = 20;
const OPPOSITE_ANGLE = 115;
/** A neutral tint: black, grey. */
const NEUTRAL_CHROMA = 6;

/** Whether two paints dull one another as opposites do. */
export const areOpposites = (one: Tint, other: Tint): boolean =>
  one.chroma >= OPPOSITE_CHROMA &&
  other.chroma >= OPPOSITE_CHROMA &&
  Math.abs(hueDifference(one.hue, other.hue)) > OPPOSITE_ANGLE &&
  // An earth beside a blue is how painters make their greys: it is sure, and no cancelling of loud by loud.
  Math.min(one.chroma, other.chroma) + Math.max(one.chroma, other.chroma) / 2 > 44;

const careOf = ({ caution }: PaletteIngredient): number => (caution === undefined ? 0 : (CARE[caution] ?? 0));

/** What sets of ingredients cost for one target, whatever their shares: by ingredient, and by pair. */
export interface SetCosts {
  readonly single: Float64Array;
  /** n × n, symmetric. */
  readonly pair: Float64Array;
}

/** Penalties of a school: what is not its way of dulling costs as much as opposites do elsewhere. */
function costOfWay(dulling: Dulling, tint: Tint): number {
  const neutral = tint.chroma < NEUTRAL_CHROMA && tint.lightness < 90;
  const earth = tint.chroma >= NEUTRAL_CHROMA && tint.chroma < LOUD_FROM && tint.lightness < 90;
  if (dulling === 'opposites') return neutral || tint.chroma < OPPOSITE_CHROMA ? (tint.lightness < 90 ? WORTH.opposites : 0) : 0;
  if (dulling === 'grey') return earth && tint.chroma < OPPOSITE_CHROMA ? WORTH.opposites / 2 : 0;
  return 0;
}

/** What every ingredient and every pair of them costs for a target. */
export function setCosts({ ingredients, tints }: Palette, target: Lab, dulling: Dulling = 'any', soonDry = false): SetCosts {
  const n = ingredients.length;
  const [, chroma] = labToLch(target);
  const dull = Math.max(0, 1 - chroma / DULL_BELOW);
  const single = Float64Array.from(ingredients, (ingredient, i) => {
    const loud = dulling === 'opposites' ? 0 : WORTH.loud * dull * loudness(tints[i]!);
    const { drying = 'medium' } = ingredient;
    const slow = !soonDry || drying === 'fast' ? 0 : drying === 'slow' ? WORTH.slow : WORTH.slow / 2;
    return careOf(ingredient) + loud + slow + dull * costOfWay(dulling, tints[i]!);
  });
  const pair = new Float64Array(n * n);
  if (dulling !== 'opposites')
    for (let i = 0; i < n; i++)
      for (let j = i + 1; j < n; j++)
        if (areOpposites(tints[i]!, tints[j]!)) pair[i * n + j] = pair[j * n + i] = WORTH.opposites * Math.sqrt(dull);
  return { single, pair };
}

/** What a set costs whatever its shares. */
export function costOfSet({ single, pair }: SetCosts, set: ArrayLike<number>, count = set.length): number {
  const n = single.length;
  let cost = WORTH.tube * (count - 1);
  for (let k = 0; k < count; k++) {
    cost += single[set[k]!]!;
    for (let m = k + 1; m < count; m++) cost += pair[set[k]! * n + set[m]!]!;
  }
  return cost;
}

/** How much a difference that the dosing leaves open counts: the root of squares of this share of the steadiness. */
const STEADINESS_SHARE = 0.5;

/**
 * The expected true difference: what the prediction says, what it cannot promise, and what a knife
 * leaves open, as independent errors. A difference that cannot be promised thus hardly counts.
 */
export const expectedDifference = (deltaE: number, error: number, steadiness: number): number =>
  Math.sqrt(deltaE * deltaE + error * error + (STEADINESS_SHARE * steadiness) ** 2);

/** ΔE00 that an eye lets pass. */
const LETS_PASS = 0.7;
/** ΔE00 up to which a mixture passes for the target. */
export const IN_REACH = 2;

/** What a colour is worth: the expected true difference, and what a prediction should not leave open though it may. */
export const worthOf = (deltaE: number, error: number, steadiness: number): number =>
  expectedDifference(deltaE, error, steadiness) +
  WORTH.passing * Math.max(0, deltaE - LETS_PASS) +
  (deltaE > IN_REACH ? WORTH.notPassing : 0);

/** Sets that cost nothing: where only the colour counts. */
export const noCosts = ({ ingredients: { length } }: Palette): SetCosts => ({
  single: new Float64Array(length),
  pair: new Float64Array(length * length),
});
