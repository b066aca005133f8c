import { CraftError } from '../errors.ts';
import { labToLch, type Lab } from '../colour/spaces.ts';
import { lightnessOfValue, valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { ValueRange } from './valueRange.ts';

/** How a picture's range is put onto paint. */
export type KeyPlan =
  /** As it is; what lies beyond paint is marked. */
  | { readonly kind: 'as it is' }
  /** Between the palette's darkest and its white, so many values held back below white for the highlights, and above the darkest for accents. */
  | ({ readonly kind: 'fitted' } & HeldBack)
  /** Low or high: the value that was picked comes to lie at another and takes the rest with it; what paint has no room for is pressed together. */
  | ({ readonly kind: 'moved'; readonly from: MunsellValue; readonly to: MunsellValue } & HeldBack);

/** How far the picture's things stay from the ends of paint, in values. */
export interface HeldBack {
  /** Below the palette's lightest. */
  readonly held: number;
  /** Above its darkest; nothing where it is not said. */
  readonly heldDark?: number | undefined;
}

/** What the picture holds and what paint can do. */
export interface KeyEnds {
  /** Darkest and lightest of the picture's things; glints apart. */
  readonly seen: ValueRange;
  /** Lightest of all, lamps and glints among it; 10 where it is not known. */
  readonly brightest?: MunsellValue | undefined;
  readonly paint: ValueRange;
}

/** A key ready to be used: seen value to painted value, rising all the way. */
export interface Key {
  readonly plan: KeyPlan;
  readonly ends: KeyEnds;
  /** Points that the curve goes through, by seen value. */
  readonly points: readonly Point[];
  readonly valueOf: (seen: MunsellValue) => MunsellValue;
}

/** Held back below white where nothing is said: half a value. */
export const USUAL_HELD = 0.5;

/** Monotone cubics through points (Fritsch and Butland 1984); the ends rise as the pieces next to them do. */
const cubics = (points: readonly Point[]): ((x: number) => number) => {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
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
    let i = 0;
    while (i < n - 2 && x > xs[i + 1]!) i++;
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

type Point = readonly [seen: MunsellValue, painted: MunsellValue];

/** Seen values that are further apart than this are told apart on the curve. */
const APART = 0.05;
/** Lamps and glints rise above the things with at least this share of the things' own rise: a glow stays a glow. */
const LEAST_GLOW = 0.75;
/** What an end may be held back by at most leaves so much between the two. */
const LEAST_RANGE = 0.5;

/** The straight way from one point to another. */
const between = ([x0, y0]: Point, [x1, y1]: Point, x: number): number => y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);

/** Where the darkest and the lightest thing come to lie, and what is darker and lighter than any thing. */
function endsOf(plan: HeldBack, { seen, paint, brightest = 10 }: KeyEnds): { dark: Point; light: Point; black: Point; white: Point } {
  const { darkest, lightest } = paint;
  const low = Math.min(darkest + (plan.heldDark ?? 0), lightest - LEAST_RANGE);
  const dark: Point = [seen.darkest, Math.max(darkest, low)];
  const at = Math.max(seen.lightest, seen.darkest + 2 * APART);
  const white: Point = [Math.max(brightest, at + APART), lightest];
  const top = Math.max(dark[1] + LEAST_RANGE, lightest - plan.held);
  // The most that leaves what is lighter its share: (lightest - y) / (white - at) = LEAST_GLOW (y - dark) / (at - dark).
  const share = (LEAST_GLOW * (white[0] - at)) / (at - dark[0]);
  const glowing = (lightest + share * dark[1]) / (1 + share);
  // As light as that, what is held back is what the glow takes; nothing is lighter than a thing where no light is.
  const isLit = white[0] > at + 2 * APART;
  return { dark, light: [at, isLit ? Math.min(top, glowing) : top], black: [Math.min(0, dark[0] - APART), darkest], white };
}

/** Both ends moved by as much, contrast kept, as far as paint goes. */
function movedEnds({ dark, light }: { readonly dark: Point; readonly light: Point }, by: number): { dark: Point; light: Point } {
  const low = Math.min(Math.max(dark[1], dark[0] + by), light[1] - LEAST_RANGE);
  return { dark: [dark[0], low], light: [light[0], Math.max(low + LEAST_RANGE, Math.min(light[1], light[0] + by))] };
}

/** A curve that rises all the way: the things as the plan says, straight from them to what is darker and lighter. */
function curveOf(plan: Exclude<KeyPlan, { readonly kind: 'as it is' }>, ends: KeyEnds): Pick<Key, 'points' | 'valueOf'> {
  const fitted = endsOf(plan, ends);
  const { black, white } = fitted;
  const { dark, light } = plan.kind === 'moved' ? movedEnds(fitted, plan.to - plan.from) : fitted;
  const things: Point[] = [dark, light];
  if (plan.kind === 'moved') {
    const from = Math.min(light[0] - APART, Math.max(dark[0] + APART, plan.from));
    const to = Math.min(light[1] - 0.02, Math.max(dark[1] + 0.02, plan.to));
    things.splice(1, 0, [from, to]);
  }
  const curve = cubics(things);
  const { darkest, lightest } = ends.paint;
  const valueOf = (seen: MunsellValue): MunsellValue => {
    const painted = seen < dark[0] ? between(black, dark, seen) : seen > light[0] ? between(light, white, seen) : curve(seen);
    return Math.min(lightest, Math.max(darkest, painted));
  };
  return { points: [black, ...things, white], valueOf };
}

/**
 * Lays a key: fitted it is straight from the darkest thing to the lightest.
 * @throws CraftError for ends in no order, or more held back than there is
 */
export function layKey(plan: KeyPlan, ends: KeyEnds): Key {
  const { seen, paint } = ends;
  if (!(seen.darkest <= seen.lightest && paint.darkest < paint.lightest))
    throw new CraftError('input', 'A range runs from its darkest to its lightest.');
  if (plan.kind === 'as it is') return { plan, ends, points: [], valueOf: (seenValue) => seenValue };
  for (const held of [plan.held, plan.heldDark ?? 0])
    if (!(held >= 0 && held <= 5)) throw new CraftError('input', 'From 0 to 5 values can be held back from either end.');
  return { plan, ends, ...curveOf(plan, ends) };
}

/** By how much contrasts between the picture's things grow (above 1) or shrink: one number, or below and above the value that is moved. */
export function contrastsOf({ plan, points }: Key): number[] {
  if (plan.kind === 'as it is') return [1];
  const things = points.slice(1, -1);
  return things.slice(1).map(([x, y], i) => (y - things[i]![1]) / (x - things[i]![0]));
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
