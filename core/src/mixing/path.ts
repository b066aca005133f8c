import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { CraftError } from '../errors.ts';
import { mixerOf } from '../paint/mixer.ts';
import { MOST_TRIED, mixingOrder, overshootOf } from './order.ts';

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

/** Shares in which the last, strongest ingredient is crept up with. */
const CREEP = [0.5, 0.25, 0.25] as const;
/** One part moving value or colour by more than this is added in portions. */
const CREEP_FROM = 6;

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
  if (used.length > MOST_TRIED)
    throw new CraftError('parts', `A path is found for at most ${MOST_TRIED} ingredients; this mixture has ${used.length}.`);
  const mix = mixerOf(used.map((p) => p.paint));
  const full = used.map((p) => p.parts);
  const start = used.findIndex((p) => p.i === from);
  const order = mixingOrder(used, start < 0 ? undefined : start);

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
      valueOfLightness(mix(full)[0]),
    ),
  };
}
