import { BANDS } from '../colour/spectrum.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { labOf, reflectance, type Portion } from '../paint/mix.ts';
import { mixerOf } from '../paint/mixer.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
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
/** Value steps of overshoot that are worth a less natural order. */
const FORGIVEN = 0.15;

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

/**
 * Order in which to add the ingredients of a pile: it starts with the plentiful and weak, ends with
 * the strong, and goes past the end in value no further than it must. More than {@link MOST_TRIED}
 * ingredients stand in their natural order. The one place that orders ingredients.
 * @param from index of the portion to start from
 * @returns indices into `portions`
 */
export function mixingOrder(portions: readonly Portion[], from?: number): number[] {
  const natural = naturalOrder(portions);
  const startingFrom = (order: readonly number[]): number[] =>
    from === undefined ? [...order] : [from, ...order.filter((i) => i !== from)];
  if (portions.length > MOST_TRIED) return startingFrom(natural);
  const mix = mixerOf(portions.map((p) => p.paint));
  const full = portions.map((p) => p.parts);
  const end = valueOfLightness(mix(full)[0]);
  const valuesAlong = (order: readonly number[]): MunsellValue[] => {
    const parts = new Float64Array(portions.length);
    return order.map((i) => {
      parts[i] = full[i]!;
      return valueOfLightness(mix(parts)[0]);
    });
  };
  const rest = from === undefined ? natural : natural.filter((i) => i !== from);
  const judged = permutations(rest)
    .map(startingFrom)
    .map((order) => ({ order, overshoot: overshootOf(valuesAlong(order), end), disorder: disorder(order, natural) }));
  const least = Math.min(...judged.map((j) => j.overshoot));
  return judged.filter((j) => j.overshoot <= least + FORGIVEN).sort((a, b) => a.disorder - b.disorder)[0]!.order;
}

/** The same mixture with the ingredients of every heap in mixing order. */
export function inMixingOrder(mixture: Mixture, paintOf: PaintOf): Mixture {
  const ordered = (heap: Heap): Heap => ({
    ingredients: mixingOrder(portionsOf(mixture, heap, paintOf)).map((i) => heap.ingredients[i]!),
  });
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
