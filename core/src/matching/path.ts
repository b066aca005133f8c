import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { CraftError } from '../errors.ts';
import { mixerOf } from '../paint/mixer.ts';
import { mixingOrder } from './mixingOrder.ts';

/** Something to add to a pile, in parts. */
export interface Addition {
  readonly id: string;
  readonly parts: number;
}

/** One step: what is added, and what the pile looks like then. */
export interface PathStep {
  readonly add: Addition;
  readonly lab: Lab;
  readonly value: MunsellValue;
}

/** Steps of mixing, and by how many value steps the pile ever went past its target. */
export interface MixingPath {
  readonly steps: readonly PathStep[];
  readonly overshoot: MunsellValue;
}

/** An ingredient of a path. */
export interface PathPortion {
  readonly id: string;
  readonly paint: PaintCurves;
  readonly parts: number;
}

const MOST_INGREDIENTS = 7;
/** Value steps of overshoot that are worth a less natural order. */
const FORGIVEN = 0.15;
/** Shares in which the last, strongest ingredient is crept up with. */
const CREEP = [0.5, 0.25, 0.25] as const;
/** One part moving value or colour by more than this is added in portions. */
const CREEP_FROM = 6;

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

function overshootOf(values: readonly MunsellValue[], target: MunsellValue): number {
  const fromLight = values[0]! >= target;
  return Math.max(0, ...values.slice(1).map((v) => (fromLight ? target - v : v - target)));
}

const distance = (one: Lab, other: Lab): number => Math.hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2]);

/**
 * An order of additions that starts with the plentiful and weak, ends with the strong, crept up
 * with in portions, and goes past the target in value no further than it must.
 * @param from index of the ingredient (a tube, or a pile that is there) to start from
 * @throws CraftError when there is nothing to add, or more than seven ingredients
 */
export function mixingPath(portions: readonly PathPortion[], from?: number): MixingPath {
  const used = portions.map((p, i) => ({ ...p, i })).filter((p) => p.parts > 0 || p.i === from);
  if (used.length === 0) throw new CraftError('parts', 'There is nothing to mix: all parts are zero.');
  if (used.length > MOST_INGREDIENTS)
    throw new CraftError('parts', `A path is found for at most ${MOST_INGREDIENTS} ingredients; this mixture has ${used.length}.`);
  const mix = mixerOf(used.map((p) => p.paint));
  const full = used.map((p) => p.parts);
  const target = valueOfLightness(mix(full)[0]);
  const natural = mixingOrder(used);
  const start = used.findIndex((p) => p.i === from);
  const orders = start < 0 ? permutations(natural) : permutations(natural.filter((i) => i !== start)).map((rest) => [start, ...rest]);
  const colours = (order: readonly number[]): Lab[] => {
    const parts = new Float64Array(used.length);
    return order.map((i) => {
      parts[i] = full[i]!;
      return mix(parts);
    });
  };
  const judged = orders.map((order) => {
    const overshoot = overshootOf(
      colours(order).map((lab) => valueOfLightness(lab[0])),
      target,
    );
    return { order, overshoot, disorder: disorder(order, natural) };
  });
  const leastOvershoot = Math.min(...judged.map((j) => j.overshoot));
  const fit = judged.filter((j) => j.overshoot <= leastOvershoot + FORGIVEN).sort((a, b) => a.disorder - b.disorder);
  const { order } = fit[0]!;

  const steps: PathStep[] = [];
  const parts = new Float64Array(used.length);
  const add = (i: number, n: number): void => {
    parts[i]! += n;
    const lab = mix(parts);
    steps.push({ add: { id: used[i]!.id, parts: n }, lab, value: valueOfLightness(lab[0]) });
  };
  order.forEach((i, at) => {
    const before = steps.at(-1)?.lab;
    const whole = parts.slice();
    whole[i] = full[i]!;
    const strides = before !== undefined && at === order.length - 1 && distance(before, mix(whole)) > CREEP_FROM;
    if (strides) for (const share of CREEP) add(i, full[i]! * share);
    else add(i, full[i]!);
  });
  return {
    steps,
    overshoot: overshootOf(
      steps.map((s) => s.value),
      target,
    ),
  };
}
