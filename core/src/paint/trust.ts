import { inverse, Matrix } from 'ml-matrix';
import { ellipsoidAt } from '../colour/ellipse.ts';
import type { Delta } from '../colour/difference.ts';
import { leastSure, type Basis, type PaintCurves } from './catalogue.ts';
import { modesOf, NUMBERS_SIGMA, numbersModesOf, OF_EVEN, SPREAD_OF, USUAL_SPREAD, type Spread } from './deviation.ts';
import { mixCurves, type Laying, type Portion } from './mix.ts';
import { BOTH, emptySlopes, endToEnd, eyeFor, type Curves72, type Slopes } from './viewing.ts';

/** How far a prediction can be trusted. */
export interface Trust {
  /** The least sure of the curves it rests on. */
  readonly basis: Basis;
  /** ΔE00 that about nine of ten true mixtures stay within. */
  readonly errorEstimate: Delta;
  /** ΔE00 that about half of them stay within. */
  readonly likelyError: Delta;
}

/** A portion whose curves rest on something. */
export interface KnownPortion extends Portion {
  readonly basis?: Basis;
  /** The tube, where its doubt is known together with that of others. */
  readonly id?: string;
  /** Parts that are not known exactly, as those logged in words, lie anywhere in this range. */
  readonly range?: readonly [least: number, most: number];
}

/** What is known of doubts beyond each curve's own basis. */
export interface KnownDoubts {
  /**
   * How unsure tubes are together: for each id three numbers, log strength, log share of paint and shift
   * in nm, as learning gives them. Curves of such a tube are to be those that are believed.
   */
  readonly joint?: { readonly ids: readonly string[]; readonly covariance: readonly (readonly number[])[] };
  /** Half-width of what every dose may be off, as a share of itself, where a true pile is asked for and not the recipe. */
  readonly knife?: number;
}

/** Numbers of a tube in {@link KnownDoubts}. */
const NUMBERS = 3;
/** What piles have not taught of a tube is most of the shape of its curves; what strength, share and shift took up of it: {@link leftOpen}. */
const SHAPE_LEFT = 0.95;
const TAUGHT: Spread = {
  strength: 0,
  shiftNm: 0,
  extender: 0,
  shape: [USUAL_SPREAD.shape[0] * SHAPE_LEFT, USUAL_SPREAD.shape[1] * SHAPE_LEFT],
};
/** What a look leaves open, squared ΔE00, and the share of a shape that no number takes up in every mixture. */
const OPEN = 2;
const NEVER_TAKEN = 0.3;
/** Share of a shape that many piles teach. */
const MANY_TEACH = 0.25;

/**
 * What of an effect a tube's numbers cannot have taken up: where its bands are narrow a shape that is off looks
 * like a strength that is, and was learnt as that; a black or an earth leaves all of it.
 */
function leftOpen(effects: readonly Float64Array[]): (one: Float64Array) => Float64Array {
  const m = Matrix.eye(3).mul(OPEN);
  effects.forEach((e, i) => {
    for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) m.set(r, c, m.get(r, c) + e[r]! * e[c]! * NUMBERS_SIGMA[i]! ** 2);
  });
  const left = inverse(m).mul(OPEN);
  return (one) =>
    Float64Array.from(
      { length: 3 },
      (_, r) =>
        NEVER_TAKEN * one[r]! + (1 - NEVER_TAKEN) * (left.get(r, 0) * one[0]! + left.get(r, 1) * one[1]! + left.get(r, 2) * one[2]!),
    );
}

/** A symmetric 3 × 3 sum of squares: the covariance of U·Lab. */
class Scatter {
  private readonly m = new Float64Array(9);

  add(one: ArrayLike<number>, other: ArrayLike<number>, by: number): void {
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) this.m[3 * i + j] = this.m[3 * i + j]! + by * one[i]! * other[j]!;
  }

  /**
   * The length that a share of normal vectors of this covariance stay within: their square is about a
   * scaled χ² of the same mean and variance (Satterthwaite 1946), its quantile that of Wilson and Hilferty (1931).
   */
  within(z: number): number {
    const sum = this.m[0]! + this.m[4]! + this.m[8]!;
    if (!(sum > 0)) return 0;
    const squares = this.m.reduce((s, v) => s + v * v, 0);
    const degrees = (sum * sum) / squares;
    const cube = 1 - 2 / (9 * degrees) + z * Math.sqrt(2 / (9 * degrees));
    return Math.sqrt(Math.max(0, sum * Math.max(0, cube) ** 3));
  }
}

/** Normal deviates below which a half, and 91 in a hundred lie: a little above nine tenths, since makers differ in ways of their own. */
const HALF = 0;
const NEARLY_ALL = 1.341;

/** U·Lab that a change of a mixture's curves makes. */
function effect(slopes: Slopes, change: Curves72, by: number): Float64Array {
  const out = new Float64Array(3);
  for (let row = 0; row < 3; row++) {
    let sum = 0;
    for (let i = 0; i < BOTH; i++) sum += slopes[row * BOTH + i]! * change[i]!;
    out[row] = by * sum;
  }
  return out;
}

const NONE = new Float64Array(BOTH / 2);

/** Ways in which a paint may differ from its curves by itself, one standard deviation each. */
const ownModes = (paint: PaintCurves, spread: Spread): Curves72[] => {
  if (paint.doubt) {
    const curves = endToEnd(paint);
    return paint.doubt.map((way) => way.map((v, i) => v * curves[i]!));
  }
  const { both, K, S } = modesOf(paint, spread);
  return [
    ...both.map(endToEnd),
    ...K.map((curve) => endToEnd({ K: curve, S: NONE })),
    ...S.map((curve) => endToEnd({ K: NONE, S: curve })),
  ];
};

/** Ways of differing of curves that were asked about: a cache, since they follow from the curves alone. */
const modesKept = new WeakMap<Float64Array, Map<string, { readonly of: Float64Array; readonly modes: readonly Curves72[] }>>();

function kept(paint: PaintCurves, key: string, make: () => readonly Curves72[]): readonly Curves72[] {
  let known = modesKept.get(paint.K);
  if (!known) modesKept.set(paint.K, (known = new Map()));
  const found = known.get(key);
  if (found?.of === paint.S) return found.modes;
  const modes = make();
  known.set(key, { of: paint.S, modes });
  return modes;
}

/**
 * How far the true mixture may lie from the prediction: what every tube may differ by (and every dose,
 * where those are uncertain), carried to the colour to first order. Not one constant: a tint of one
 * strong tube is far less sure than an earth and white.
 * @param portions tubes and parts, let-downs opened
 */
export function trustIn(portions: readonly KnownPortion[], laying?: Laying, { joint, knife = 0 }: KnownDoubts = {}): Trust {
  const used = portions.filter(({ parts }) => parts > 0);
  const eye = eyeFor({ ...(laying && { laying }) });
  const whole = used.reduce((sum, { parts }) => sum + parts, 0);
  // Thinning comes after mixing, so that it is the same for every paint: the eye's own curves only scale.
  const mixed = endToEnd(eye.curvesOf(mixCurves(used)));
  const thinned = eye.thick ? 1 : 1 - (laying?.medium ?? 0);
  const slopes = emptySlopes();
  const U = ellipsoidAt(eye.see(mixed));
  eye.seeWithSlopes(mixed, U, slopes);
  const scatter = new Scatter();
  const together: { readonly at: number; readonly effects: readonly Float64Array[] }[] = [];
  /** Tubes hold extender, on the average half of the most there is: nothing to a thick film of such tubes alone, but to a thin one. */
  const thinner = new Float64Array(3);
  for (const { paint, parts, basis = 'typical', id, range } of used) {
    const share = (parts / whole) * thinned;
    const at = id === undefined || !joint ? -1 : joint.ids.indexOf(id);
    const spread = at < 0 ? SPREAD_OF[basis] : TAUGHT;
    const numbers = at < 0 ? [] : kept(paint, 'numbers', () => numbersModesOf(paint).map(endToEnd)).map((m) => effect(slopes, m, share));
    const open = at < 0 ? undefined : leftOpen(numbers);
    // Who has seen a tube in many mixtures knows more of its shape than its numbers say.
    const left = at < 0 ? 1 : 1 - MANY_TEACH * (1 - Math.min(1, joint!.covariance[at * NUMBERS]![at * NUMBERS]! / NUMBERS_SIGMA[0] ** 2));
    for (const mode of kept(paint, at < 0 ? basis : 'taught', () => ownModes(paint, spread))) {
      const all = effect(slopes, mode, share);
      const moves = open ? open(all).map((v) => v * left) : all;
      scatter.add(moves, moves, 1);
    }
    const mean = effect(slopes, endToEnd(paint), paint.doubt ? 0 : (share * (at < 0 ? spread : USUAL_SPREAD).extender) / 2);
    mean.forEach((v, i) => (thinner[i] = thinner[i]! + v));
    if (at >= 0) together.push({ at, effects: numbers });
    const dosing = Math.hypot(knife * OF_EVEN, range ? (Math.log(range[1] / range[0]) / 2) * OF_EVEN : 0);
    if (dosing > 0) {
      const more = endToEnd(paint).map((v, i) => v * thinned - mixed[i]!);
      const moves = effect(slopes, more, (parts / whole) * dosing);
      scatter.add(moves, moves, 1);
    }
  }
  scatter.add(thinner, thinner, 1);
  for (const one of together)
    for (const other of together)
      for (let i = 0; i < NUMBERS; i++)
        for (let j = 0; j < NUMBERS; j++)
          scatter.add(one.effects[i]!, other.effects[j]!, joint!.covariance[one.at * NUMBERS + i]![other.at * NUMBERS + j]!);
  return {
    basis: leastSure(used.map((p) => p.basis ?? 'typical')),
    errorEstimate: scatter.within(NEARLY_ALL),
    likelyError: scatter.within(HALF),
  };
}
