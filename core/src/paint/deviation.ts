import { BANDS, STEP_NM } from '../colour/spectrum.ts';
import { normal } from '../random.ts';
import type { Basis, PaintCurves } from './catalogue.ts';

/** How a true tube differs from the curves it is predicted by. */
export interface Deviation {
  /** Factor on K; its root on S, since finer grinding raises both, S less. */
  readonly strength: number;
  /** Bands lie this far to the red, in nm. */
  readonly shiftNm: number;
  /** Share of volume that is clear extender instead of paint. */
  readonly extender: number;
  /** Smooth error of shape: factors on log K and log S, 36 bands each. */
  readonly shapeK: Float64Array;
  readonly shapeS: Float64Array;
}

/** How widely tubes differ: half-widths of even distributions, and one standard deviation of shape. */
export interface Spread {
  readonly strength: number;
  readonly shiftNm: number;
  readonly extender: number;
  readonly shape: readonly [least: number, most: number];
}

/** Tubes of different makers of one pigment: strength ×0.7–1.3, ±5 nm, a quarter extender, 5–8 % of shape. */
export const USUAL_SPREAD: Spread = { strength: 0.3, shiftNm: 5, extender: 0.25, shape: [0.05, 0.08] };
/** Standard deviations of what learning finds of such a tube: log strength, log share of paint, nm of shift. */
export const NUMBERS_SIGMA = [0.18, 0.085, 2.9] as const;
/** Makers who differ more than is usual. */
export const HARSH_SPREAD: Spread = { strength: 0.3, shiftNm: 8, extender: 0.4, shape: [0.08, 0.15] };

const scaled = ({ strength, shiftNm, extender, shape }: Spread, by: number): Spread => ({
  strength: strength * by,
  shiftNm: shiftNm * by,
  extender: extender * by,
  shape: [shape[0] * by, shape[1] * by],
});

/** What is still unknown of a tube by what its curves rest on. */
export const SPREAD_OF: Readonly<Record<Basis, Spread>> = {
  typical: USUAL_SPREAD,
  learnt: scaled(USUAL_SPREAD, 0.55),
  fitted: scaled(USUAL_SPREAD, 0.2),
  measured: scaled(USUAL_SPREAD, 0.1),
};

/** Cosines over the spectrum from which smooth errors are made; the slowest weigh most. */
const MODES = 5;
const MODE_SHAPES: readonly Float64Array[] = Array.from({ length: MODES }, (_, m) =>
  Float64Array.from({ length: BANDS }, (_, i) => Math.cos((Math.PI * m * (i + 0.5)) / BANDS)),
);

/** A smooth curve of a given standard deviation over bands and draws. */
function smooth(random: () => number, sigma: number): Float64Array {
  const curve = new Float64Array(BANDS);
  for (let m = 0; m < MODES; m++) {
    const weight = (normal(random) * sigma * Math.SQRT2) / Math.sqrt(MODES + 1) / (m === 0 ? Math.SQRT2 : 1);
    const shape = MODE_SHAPES[m]!;
    for (let i = 0; i < BANDS; i++) curve[i]! += weight * shape[i]!;
  }
  return curve;
}

/** Draws one true tube. */
export function drawDeviation(spread: Spread, random: () => number): Deviation {
  const even = (half: number): number => (2 * random() - 1) * half;
  const sigma = spread.shape[0] + random() * (spread.shape[1] - spread.shape[0]);
  return {
    strength: 1 + even(spread.strength),
    shiftNm: even(spread.shiftNm),
    extender: random() * spread.extender,
    shapeK: smooth(random, sigma),
    shapeS: smooth(random, sigma),
  };
}

/** Reads a curve `nm` to the blue of each band, straight between bands and held at the ends. */
export function shifted(curve: Float64Array, nm: number): Float64Array {
  const moved = new Float64Array(BANDS);
  const by = nm / STEP_NM;
  for (let i = 0; i < BANDS; i++) {
    const at = Math.min(BANDS - 1, Math.max(0, i - by));
    const low = Math.min(BANDS - 2, Math.floor(at));
    moved[i] = curve[low]! + (curve[low + 1]! - curve[low]!) * (at - low);
  }
  return moved;
}

/** The curves of a tube that deviates. */
export function deviate(paint: PaintCurves, { strength, shiftNm, extender, shapeK, shapeS }: Deviation): PaintCurves {
  const K = shifted(paint.K, shiftNm);
  const S = shifted(paint.S, shiftNm);
  const left = 1 - extender;
  const strengthS = Math.sqrt(strength);
  for (let i = 0; i < BANDS; i++) {
    K[i]! *= left * strength * Math.exp(shapeK[i]!);
    S[i]! *= left * strengthS * Math.exp(shapeS[i]!);
  }
  return { K, S };
}

/** Small changes of a paint's K and S, each one standard deviation of one way in which its tubes differ. */
export interface Modes {
  /** Ways in which K and S change together: strength, extender, shift. */
  readonly both: readonly PaintCurves[];
  /** Smooth errors of shape of each alone. */
  readonly K: readonly Float64Array[];
  readonly S: readonly Float64Array[];
}

/** Standard deviations of even distributions: half-width over √3, whole width over √12. */
export const OF_EVEN = 1 / Math.sqrt(3);
const OF_EVEN_FROM_NOUGHT = 1 / Math.sqrt(12);

/** How a paint's curves change to the red, for each nm. */
function slopesByNm({ K, S }: PaintCurves): PaintCurves {
  const slope = (curve: Float64Array): Float64Array => {
    const red = shifted(curve, 1);
    const blue = shifted(curve, -1);
    return curve.map((_, i) => (red[i]! - blue[i]!) / 2);
  };
  return { K: slope(K), S: slope(S) };
}

/** How a paint's curves change with log strength, log share of paint, and nm of shift: what learning finds of a tube. */
export const numbersModesOf = (paint: PaintCurves): readonly [strength: PaintCurves, share: PaintCurves, shift: PaintCurves] => [
  { K: paint.K, S: paint.S.map((v) => v / 2) },
  paint,
  slopesByNm(paint),
];

/** The ways in which tubes of a paint differ, to first order: see {@link deviate}. */
export function modesOf({ K, S }: PaintCurves, spread: Spread): Modes {
  const scaledBy = (curve: Float64Array, by: number): Float64Array => curve.map((v) => v * by);
  const strength = spread.strength * OF_EVEN;
  const extender = (spread.extender * OF_EVEN_FROM_NOUGHT) / (1 - spread.extender / 2);
  const byNm = slopesByNm({ K, S });
  const shift = spread.shiftNm * OF_EVEN;
  const sigma = (spread.shape[0] + spread.shape[1]) / 2;
  const bent = (curve: Float64Array): Float64Array[] =>
    MODE_SHAPES.map((shape, m) => {
      const weight = (sigma * Math.SQRT2) / Math.sqrt(MODES + 1) / (m === 0 ? Math.SQRT2 : 1);
      return curve.map((v, i) => v * weight * shape[i]!);
    });
  return {
    both: [
      { K: scaledBy(K, strength), S: scaledBy(S, strength / 2) },
      { K: scaledBy(K, -extender), S: scaledBy(S, -extender) },
      { K: scaledBy(byNm.K, shift), S: scaledBy(byNm.S, shift) },
    ],
    K: bent(K),
    S: bent(S),
  };
}
