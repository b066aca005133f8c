import { deltaE00From } from '../colour/difference.ts';
import { BANDS } from '../colour/spectrum.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { labOf, reflectance, type Portion } from '../paint/mix.ts';
import { mixerOf } from '../paint/mixer.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { isTouch } from './hand.ts';
import type { Heap, Mixture } from './mixture.ts';
import { paintOfSource, portionsOf, type PaintOf } from './open.ts';

/** How strongly a paint pulls a mixture: its absorption and scattering over the visible, together. */
function pull({ K, S }: PaintCurves): number {
  let sum = 0;
  for (let i = 2; i < BANDS - 3; i++) sum += K[i]! + S[i]!;
  return sum / (BANDS - 5);
}

/** The plentiful first, the strong last, since a strong tube in excess can only be drowned. */
function naturalOrder(portions: readonly Portion[]): number[] {
  const weight = portions.map(({ paint, parts }) => parts / pull(paint));
  return portions.map((_, i) => i).sort((one, other) => weight[other]! - weight[one]!);
}

/** Up to as many ingredients every order is tried. */
export const MOST_TRIED = 7;
/** How much further astray a more natural order may lead. */
const FORGIVEN = 4;
/** What a ΔE00 away from the end, a value step past it, and a unit of chroma beyond both ends count as. */
const PER_AWAY = 3;
const PER_VALUE_STEP = 5;
const PER_CHROMA = 0.3;
/** Value steps that an order may go further past its end than another. */
const HARDLY_PAST = 0.15;

function permutations(indices: readonly number[]): number[][] {
  if (indices.length <= 1) return [[...indices]];
  return indices.flatMap((first) => permutations(indices.filter((i) => i !== first)).map((rest) => [first, ...rest]));
}

/** How many pairs stand the other way round than in the natural order. */
function disorder(order: readonly number[], natural: readonly number[]): number {
  const place = new Map(natural.map((i, at) => [i, at]));
  let pairs = 0;
  for (let i = 0; i < order.length; i++)
    for (let j = i + 1; j < order.length; j++) if (place.get(order[i]!)! > place.get(order[j]!)!) pairs++;
  return pairs;
}

/** By how many value steps a pile goes past its end on the way. */
export function overshootOf(values: readonly MunsellValue[], end: MunsellValue): MunsellValue {
  const fromLight = values[0]! >= end;
  return Math.max(0, ...values.slice(1).map((v) => (fromLight ? end - v : v - end)));
}

/** Colours of every part of a pile: of each set of its ingredients, by the bits of their indices. */
function coloursOfParts(portions: readonly Portion[]): Lab[] {
  const mix = mixerOf(portions.map((p) => p.paint));
  return Array.from({ length: 1 << portions.length }, (_, held): Lab =>
    held === 0 ? [0, 0, 0] : mix(portions.map(({ parts }, i) => ((held >> i) & 1 ? parts : 0))),
  );
}

/** How far an order leads astray, and what of that is past the end in value. */
interface Astray {
  readonly astray: number;
  readonly past: MunsellValue;
}

/**
 * How far an order leads astray: the largest step away from the end, what the pile goes past
 * it in value, and what it is stronger on the way than at both ends of a step.
 */
function astrayIn(order: readonly number[], colours: readonly Lab[], fromEnd: readonly number[]): Astray {
  const along: number[] = [];
  let held = 0;
  for (const i of order) along.push((held |= 1 << i));
  const end = colours[held]!;
  let away = 0;
  let chroma = 0;
  for (let k = 1; k < along.length; k++) {
    away = Math.max(away, fromEnd[along[k]!]! - fromEnd[along[k - 1]!]!);
    const [, a, b] = colours[along[k]!]!;
    const ends = Math.max(Math.hypot(end[1], end[2]), Math.hypot(colours[along[0]!]![1], colours[along[0]!]![2]));
    chroma = Math.max(chroma, Math.hypot(a, b) - ends);
  }
  const values = along.map((part) => valueOfLightness(Math.max(0, colours[part]![0])));
  const past = overshootOf(values, values.at(-1)!);
  return { astray: PER_AWAY * Math.max(0, away) + PER_CHROMA * chroma + PER_VALUE_STEP * past, past };
}

/**
 * Order in which to add the ingredients of a pile: it starts with the plentiful and weak, ends with
 * the strong, and lets the painter see the pile come nearer to its end, in value and in colour, as far
 * as the ingredients allow. More than {@link MOST_TRIED} ingredients stand in their natural order. The
 * one place that orders ingredients.
 * @param from index of the portion to start from
 * @returns indices into `portions`
 */
export function mixingOrder(portions: readonly Portion[], from?: number): number[] {
  const natural = naturalOrder(portions);
  // A strong paint laid out first would have to be drowned, however straight the way from it.
  const first = from ?? natural[0]!;
  const startingFrom = (order: readonly number[]): number[] => [first, ...order.filter((i) => i !== first)];
  if (portions.length > MOST_TRIED) return startingFrom(natural);
  const colours = coloursOfParts(portions);
  const end = deltaE00From(colours.at(-1)!);
  const fromEnd = colours.map(([L, a, b]) => end(L, a, b));
  const rest = natural.filter((i) => i !== first);
  const judged = permutations(rest)
    .map(startingFrom)
    .map((order) => ({ order, ...astrayIn(order, colours, fromEnd), disorder: disorder(order, natural) }));
  // A pile goes no further past its end in value than it must.
  const past = Math.min(...judged.map((j) => j.past));
  const straight = judged.filter((j) => j.past <= past + HARDLY_PAST);
  const least = Math.min(...straight.map((j) => j.astray));
  return straight.filter((j) => j.astray <= least + FORGIVEN).sort((a, b) => a.disorder - b.disorder)[0]!.order;
}

/** The same mixture with the ingredients of every heap in mixing order. */
export function inMixingOrder(mixture: Mixture, paintOf: PaintOf): Mixture {
  const ordered = (heap: Heap): Heap => {
    const { ingredients } = heap;
    const inOrder = mixingOrder(portionsOf(mixture, heap, paintOf)).map((i) => ingredients[i]!);
    // What the knife's tip adds is added last, until it looks right.
    return { ingredients: [...inOrder.filter((one) => !isTouch(one)), ...inOrder.filter(isTouch)] };
  };
  return { heaps: mixture.heaps.map(ordered) };
}

/** The colour of a heap after each of its ingredients, in their order. */
export function chipsAlong(mixture: Mixture, heap: Heap, paintOf: PaintOf): Lab[] {
  const paints = heap.ingredients.map((ingredient) => paintOfSource(mixture, ingredient, paintOf));
  const mix = mixerOf(paints);
  return heap.ingredients.map((_, step) => mix(heap.ingredients.map(({ parts }, i) => (i <= step ? parts : 0))));
}

/** The colour of one paint as it comes. */
export const masstoneOf = (paint: PaintCurves): Lab => labOf(reflectance(paint));
