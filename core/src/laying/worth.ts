import { hueDifference, labToLch, type Lab } from '../colour/spaces.ts';
import type { Palette, PaletteIngredient, Tint } from './palette.ts';

/**
 * What a painter would give away, in ΔE00 of the expected true difference, for a recipe that is
 * better in another way. The one place where these weights stand.
 */
export const WORTH = {
  /** One part less to measure, over all heaps. */
  part: 0.008,
  /** A heap of more than a dozen parts less: they are no longer counted at a glance. */
  thinHeap: 0.15,
  /** The same of more than two dozen. */
  longHeap: 0.3,
  /** A touch of the knife's tip less: no bead is laid beside another to see it by. */
  touch: 0.08,
  /** A millilitre less that is left over of what is mixed first. */
  leftOver: 0.08,
  /** One of two whites less: a second one has to earn its keep. */
  twoWhites: 0.5,
  /** A loud tube less where a dull colour is wanted: earth before loud. */
  loud: 1.1,
  /** Two opposites less that cancel one another. */
  opposites: 2,
  /** A slowly drying tube less, where drying fast is wished; a middling one half of it. */
  slow: 1,
  /** A recipe that passes for the target goes before one that does not. */
  notPassing: 2.5,
  /** One value step nearer, beyond the tolerance: a step is 8 to 10 ΔE00, so value counts a little more than double. */
  value: 12,
} as const;

/**
 * What work is worth, in ΔE00: of so many tubes together, and of so many heaps that are mixed first. A
 * painter mixes in one heap from two or three tubes (`habit`); who asks for the closest gives little away.
 */
export interface WorkWorth {
  /** By how many tubes, from none. */
  readonly tubes: readonly number[];
  /** By how many heaps are mixed first, from none. */
  readonly heaps: readonly number[];
  /** Whether long heaps are tried after others, too. */
  readonly tries: boolean;
  /** One ΔE00 nearer, beyond what is let pass: that much counts though it cannot be promised. */
  readonly nearer: number;
  /** ΔE00 that an eye lets pass that does not look for it. */
  readonly letsPass: number;
  /** How much of what the hand leaves open counts. */
  readonly hand: number;
}
export const HABIT: WorkWorth = {
  tubes: [0, 0, 0.05, 0.15, 1.1],
  heaps: [0, 0.8, 3, 6],
  tries: false,
  nearer: 0.5,
  letsPass: 0.7,
  hand: 1,
};
export const CLOSEST: WorkWorth = {
  tubes: [0, 0, 0.05, 0.12, 0.2],
  heaps: [0, 0.15, 0.35, 1],
  tries: true,
  nearer: 2,
  letsPass: 0,
  hand: 0.3,
};

/** As near as one heap comes, the tubes being given. */
export const NEAR_IN_ONE: WorkWorth = { ...CLOSEST, heaps: [0, 1.2, 4, 8] };

/** What work is worth where more heaps than so many, the pile's own counted, are out of the question. */
export const inHeaps = (worth: WorkWorth, most: number): WorkWorth => ({
  ...worth,
  heaps: worth.heaps.map((cost, first) => (first < most ? cost : Infinity)),
});

/** ΔE00 a painter would give away to do without a pigment that asks for care. */
const CARE: Readonly<Record<string, number>> = {
  lead: 1.3,
  cadmium: 0.95,
  cobalt: 1,
  nickel: 0.8,
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

/** A white, as it comes. */
const WHITE_FROM = 93;
export const isWhite = ({ chroma, lightness }: Tint): boolean => lightness > WHITE_FROM && chroma < NEUTRAL_CHROMA;

const careOf = ({ caution }: PaletteIngredient): number => (caution === undefined ? 0 : (CARE[caution] ?? 0));

/** What sets of ingredients cost for one target, whatever their shares: by ingredient, and by pair. */
export interface SetCosts {
  readonly single: Float64Array;
  /** n × n, symmetric. */
  readonly pair: Float64Array;
  /** What so many tubes cost. */
  readonly tubes: readonly number[];
}

/** Penalties of a school: what is not its way of dulling costs more than opposites do elsewhere. */
const NOT_THE_WAY = 2;

function costOfWay(dulling: Dulling, tint: Tint): number {
  const neutral = tint.chroma < NEUTRAL_CHROMA && tint.lightness < 90;
  const earth = tint.chroma >= NEUTRAL_CHROMA && tint.chroma < LOUD_FROM && tint.lightness < 90;
  if (dulling === 'opposites') return neutral || tint.chroma < OPPOSITE_CHROMA ? (tint.lightness < 90 ? NOT_THE_WAY : 0) : 0;
  if (dulling === 'grey') return earth && tint.chroma < OPPOSITE_CHROMA ? NOT_THE_WAY / 2 : 0;
  return 0;
}

/** What every ingredient and every pair of them costs for a target. */
export function setCosts(
  { ingredients, tints }: Palette,
  target: Lab,
  dulling: Dulling = 'any',
  soonDry = false,
  { tubes: worth } = HABIT,
): SetCosts {
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
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) if (isWhite(tints[i]!) && isWhite(tints[j]!)) pair[i * n + j] = pair[j * n + i] = WORTH.twoWhites;
  return { single, pair, tubes: worth };
}

/** What a set costs whatever its shares. */
export function costOfSet({ single, pair, tubes }: SetCosts, set: ArrayLike<number>, count = set.length): number {
  const n = single.length;
  let cost = tubes[count] ?? tubes.at(-1)!;
  for (let k = 0; k < count; k++) {
    cost += single[set[k]!]!;
    for (let m = k + 1; m < count; m++) cost += pair[set[k]! * n + set[m]!]!;
  }
  return cost;
}

/**
 * The expected true difference: what the prediction says, what it cannot promise, and what the hand
 * leaves open, as independent errors. A difference that cannot be promised thus hardly counts.
 */
export const expectedDifference = (deltaE: number, error: number, dosing: number): number =>
  Math.sqrt(deltaE * deltaE + error * error + dosing * dosing);

/** ΔE00 up to which a mixture passes for the target. */
export const IN_REACH = 2;

/** What a colour is worth: the expected true difference, and what a prediction should not leave open though it may. */
export const worthOf = (deltaE: number, error: number, dosing: number, { nearer, letsPass }: WorkWorth): number =>
  expectedDifference(deltaE, error, dosing) + nearer * Math.max(0, deltaE - letsPass) + (deltaE > IN_REACH ? WORTH.notPassing : 0);

/** Sets that cost nothing: where only the colour counts. */
export const noCosts = ({ ingredients: { length } }: Palette): SetCosts => ({
  tubes: [0],
  single: new Float64Array(length),
  pair: new Float64Array(length * length),
});
