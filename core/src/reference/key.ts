import { CraftError } from '../errors.ts';
import { labToLch, type Lab } from '../colour/spaces.ts';
import { lightnessOfValue, valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { ValueRange } from './valueRange.ts';

/** How a picture's range is put onto paint. */
export type KeyPlan =
  /** As it is; what lies beyond paint is marked. */
  | { readonly kind: 'as it is' }
  /** Between the palette's darkest and its white, so many values held back below white for the highlights. */
  | { readonly kind: 'fitted'; readonly held: number }
  /** Low or high: the value that was picked comes to lie at another, the ends as when fitted. */
  | { readonly kind: 'moved'; readonly from: MunsellValue; readonly to: MunsellValue; readonly held: number };

/** What the picture holds and what paint can do. */
export interface KeyEnds {
  /** Darkest and lightest of the picture's things; glints apart. */
  readonly seen: ValueRange;
  readonly paint: ValueRange;
}

/** A key ready to be used: seen value to painted value, rising all the way. */
export interface Key {
  readonly plan: KeyPlan;
  readonly ends: KeyEnds;
  /** Points that the curve goes through, by seen value. */
  readonly points: readonly (readonly [seen: MunsellValue, painted: MunsellValue])[];
  readonly valueOf: (seen: MunsellValue) => MunsellValue;
}

/** Held back below white where nothing is said: half a value. */
export const USUAL_HELD = 0.5;

const fritschCarlson = (xs: readonly number[], ys: readonly number[]): ((x: number) => number) => {
  const n = xs.length;
  const rise = Array.from({ length: n - 1 }, (_, i) => (ys[i + 1]! - ys[i]!) / (xs[i + 1]! - xs[i]!));
  const slopes = xs.map((_, i) => {
    if (i === 0) return rise[0]!;
    if (i === n - 1) return rise[n - 2]!;
    const [before, after] = [rise[i - 1]!, rise[i]!];
    if (before * after <= 0) return 0;
    const [w1, w2] = [2 * (xs[i + 1]! - xs[i]!) + xs[i]! - xs[i - 1]!, xs[i + 1]! - xs[i]! + 2 * (xs[i]! - xs[i - 1]!)];
    return (w1 + w2) / (w1 / before + w2 / after);
  });
  return (x) => {
    if (x <= xs[0]!) return ys[0]! + slopes[0]! * (x - xs[0]!);
    if (x >= xs[n - 1]!) return ys[n - 1]! + slopes[n - 1]! * (x - xs[n - 1]!);
    let i = 0;
    while (x > xs[i + 1]!) i++;
    const h = xs[i + 1]! - xs[i]!;
    const t = (x - xs[i]!) / h;
    return (
      ys[i]! * (1 + 2 * t) * (1 - t) ** 2 +
      h * slopes[i]! * t * (1 - t) ** 2 +
      ys[i + 1]! * t * t * (3 - 2 * t) +
      h * slopes[i + 1]! * t * t * (t - 1)
    );
  };
};

/** Seen values that are further apart than this are told apart on the curve. */
const APART = 0.05;

function pointsOf(plan: KeyPlan, { seen, paint }: KeyEnds): [number, number][] {
  if (plan.kind === 'as it is') return [];
  const top = Math.max(paint.darkest + 0.5, paint.lightest - plan.held);
  const dark: [number, number] = [seen.darkest, paint.darkest];
  const light: [number, number] = [Math.max(seen.lightest, seen.darkest + 2 * APART), top];
  // What is lighter than any thing is glint: what was held back is for it.
  const glint: [number, number] = [Math.max(10, light[0] + APART), paint.lightest];
  const black: [number, number] = [Math.min(0, dark[0] - APART), paint.darkest];
  if (plan.kind === 'fitted') return [black, dark, light, glint];
  const from = Math.min(light[0] - APART, Math.max(dark[0] + APART, plan.from));
  const to = Math.min(light[1] - 0.02, Math.max(dark[1] + 0.02, plan.to));
  return [black, dark, [from, to], light, glint];
}

/**
 * Lays a key: monotone cubics through its points (Fritsch and Butland 1984).
 * @throws CraftError for ends in no order, or more held back than there is
 */
export function layKey(plan: KeyPlan, ends: KeyEnds): Key {
  const { seen, paint } = ends;
  if (!(seen.darkest <= seen.lightest && paint.darkest < paint.lightest))
    throw new CraftError('input', 'A range runs from its darkest to its lightest.');
  if (plan.kind !== 'as it is' && !(plan.held >= 0 && plan.held <= 5))
    throw new CraftError('input', 'From 0 to 5 values can be held back below white.');
  const points = pointsOf(plan, ends);
  const curve =
    points.length > 0
      ? fritschCarlson(
          points.map(([x]) => x),
          points.map(([, y]) => y),
        )
      : (v: number) => v;
  const within = (v: number): number => (plan.kind === 'as it is' ? v : Math.min(paint.lightest, Math.max(paint.darkest, v)));
  return { plan, ends, points, valueOf: (v) => within(curve(v)) };
}

/** Least f(Y) that a ratio is taken over: below it a colour is as good as black and its hue means nothing. */
const LEAST = 8;

/**
 * The colour to paint for one that was seen. Light is made more or less at the same chromaticity, so
 * that a and b go with f(Y) (CIE 15): a darker key is stronger in light and duller in dark paint, as it looks.
 */
export function throughKey(key: Key, lab: Lab): Lab {
  if (key.plan.kind === 'as it is') return lab;
  const L = lightnessOfValue(key.valueOf(valueOfLightness(lab[0])));
  const ratio = (L + 16) / Math.max(16 + LEAST, lab[0] + 16);
  return [L, lab[1] * ratio, lab[2] * ratio];
}

/** Where a seen colour lies beyond what paint can do: by how many values, and which way. */
export function beyondPaint(lab: Lab, { paint }: KeyEnds): { readonly by: number; readonly way: 'darker' | 'lighter' } | undefined {
  const value = valueOfLightness(lab[0]);
  if (value < paint.darkest - 0.05) return { by: paint.darkest - value, way: 'darker' };
  if (value > paint.lightest + 0.05) return { by: value - paint.lightest, way: 'lighter' };
  return undefined;
}

/** A light thing painted with nothing but white leaves nothing for its highlight. */
export const isNearWhite = (lab: Lab, paint: ValueRange): boolean =>
  valueOfLightness(lab[0]) > paint.lightest - 0.3 && labToLch(lab)[1] < 6;
