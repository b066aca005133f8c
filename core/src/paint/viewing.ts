import { CraftError, finite } from '../errors.ts';
import type { Illuminant } from '../colour/illuminants.ts';
import { BANDS } from '../colour/spectrum.ts';
import { labForward, type Lab } from '../colour/spaces.ts';
import type { Matrix3 } from '../colour/ellipse.ts';
import type { PaintCurves } from './catalogue.ts';
import { filmReflectance, filmWithSlopes, inward, K2_INSIDE, SUNK_SURFACE, TITANIUM_SCATTER_PER_UM } from './kubelkaMunk.ts';
import { checkLaying, mixCurves, type Laying } from './mix.ts';
import { surfaceWeights } from './surfaceWeights.ts';

/** Where and how a mixture is looked at; all absent: a thick glossy film by daylight. */
export interface Viewing {
  readonly light?: Illuminant;
  readonly laying?: Laying;
  /** Wet paint below of which the pile takes up a share of its volume. */
  readonly pickUp?: { readonly below: PaintCurves; readonly share: number };
}

/** K of every band, then S of every band, end to end: 72 numbers. */
export type Curves72 = Float64Array;
/** Numbers in a paint's curves laid end to end. */
export const BOTH = 2 * BANDS;

/** A paint's curves end to end. */
export function endToEnd({ K, S }: PaintCurves): Curves72 {
  const both = new Float64Array(BOTH);
  both.set(K);
  both.set(S, BANDS);
  return both;
}

/** How the colour of a mixture changes with its K and S in each band: three rows of {@link BOTH}, in the metric asked for. */
export type Slopes = Float64Array;

export const emptySlopes = (): Slopes => new Float64Array(3 * BOTH);

/** Sees mixtures in one viewing, with the slopes that searches go by. */
export interface Eye {
  readonly viewing: Viewing;
  readonly light: Illuminant;
  /** Whether only the ratios of K and S count, not their size: a film too thick to see through. */
  readonly thick: boolean;
  /** A paint as it is once thinned and after what it picks up, so that mixtures stay sums. */
  curvesOf(paint: PaintCurves): PaintCurves;
  /** Lab of a mixture of such curves. */
  see(mixed: Curves72): Lab;
  /** The same; writes how U·Lab changes with K and S of each band. */
  seeWithSlopes(mixed: Curves72, U: Matrix3, slopes: Slopes): Lab;
}

/** Slope of {@link labForward}. */
const slopeOfForward = (t: number): number => (t > 216 / 24389 ? 1 / (3 * Math.cbrt(t) ** 2) : 24389 / 27 / 116);

const INSIDE = 1 - K2_INSIDE;
/** A film's reflectance and its slopes in one band. */
const film3 = new Float64Array(3);

/** What R of each band changes with K and with S, before {@link intoMetric}. */
const byK = new Float64Array(BANDS);
const byS = new Float64Array(BANDS);

/** Writes the slopes: U·dLab/dR of each band times what R changes with K and with S. */
function intoMetric(weights: readonly Float64Array[], X: number, Y: number, Z: number, U: Matrix3, slopes: Slopes): void {
  const wx = weights[0]!;
  const wy = weights[1]!;
  const wz = weights[2]!;
  const dx = 500 * slopeOfForward(X);
  const dy = slopeOfForward(Y);
  const dz = 200 * slopeOfForward(Z);
  const u0 = 116 * dy * U[0]!;
  const u4 = U[4]!;
  const u5 = U[5]!;
  const u7 = U[7]!;
  const u8 = U[8]!;
  for (let i = 0; i < BANDS; i++) {
    const y = wy[i]!;
    const a = wx[i]! * dx - 500 * dy * y;
    const b = 200 * dy * y - wz[i]! * dz;
    const l = u0 * y;
    const c = u4 * a + u5 * b;
    const h = u7 * a + u8 * b;
    const dK = byK[i]!;
    const dS = byS[i]!;
    slopes[i] = l * dK;
    slopes[BANDS + i] = l * dS;
    slopes[BOTH + i] = c * dK;
    slopes[BOTH + BANDS + i] = c * dS;
    slopes[2 * BOTH + i] = h * dK;
    slopes[2 * BOTH + BANDS + i] = h * dS;
  }
}

const labFrom = (X: number, Y: number, Z: number): Lab => {
  const fy = labForward(Y);
  return [116 * fy - 16, 500 * (labForward(X) - fy), 200 * (fy - labForward(Z))];
};

/** A film too thick to see through: R = S / ((1 − k2)·S + K + √(K(K + 2S))), constants in the weights. */
function thickEye(viewing: Viewing, light: Illuminant, curvesOf: Eye['curvesOf']): Eye {
  const sunk = SUNK_SURFACE * (viewing.laying?.sunk ?? 0);
  const weights = surfaceWeights(light).map((w) => w.map((v) => v * (1 - sunk)));
  const [wx, wy, wz] = weights as [Float64Array, Float64Array, Float64Array];
  function see(mixed: Curves72): Lab {
    let X = sunk;
    let Y = sunk;
    let Z = sunk;
    for (let i = 0; i < BANDS; i++) {
      const k = mixed[i]!;
      const s = mixed[BANDS + i]!;
      const R = s / (INSIDE * s + k + Math.sqrt(k * (k + 2 * s)));
      X += wx[i]! * R;
      Y += wy[i]! * R;
      Z += wz[i]! * R;
    }
    return labFrom(X, Y, Z);
  }
  function seeWithSlopes(mixed: Curves72, U: Matrix3, slopes: Slopes): Lab {
    let X = sunk;
    let Y = sunk;
    let Z = sunk;
    for (let i = 0; i < BANDS; i++) {
      const k = mixed[i]!;
      const s = mixed[BANDS + i]!;
      const root = Math.sqrt(k * (k + 2 * s)) + 1e-9;
      const below = 1 / (INSIDE * s + k + root);
      const overRoot = 1 / root;
      const R = s * below;
      byK[i] = -R * below * (1 + (k + s) * overRoot);
      byS[i] = below - R * below * (INSIDE + k * overRoot);
      X += wx[i]! * R;
      Y += wy[i]! * R;
      Z += wz[i]! * R;
    }
    intoMetric(weights, X, Y, Z, U, slopes);
    return labFrom(X, Y, Z);
  }
  return { viewing, light, thick: true, curvesOf, see, seeWithSlopes };
}

/** A film over its ground. */
function filmEye(viewing: Viewing, light: Illuminant, curvesOf: Eye['curvesOf']): Eye {
  const { film, sunk: sunkBy = 0 } = viewing.laying!;
  const sunk = SUNK_SURFACE * sunkBy;
  const X0 = film!.thicknessUm * TITANIUM_SCATTER_PER_UM;
  const ground = Float64Array.from(film!.ground, inward);
  const weights = surfaceWeights(light).map((w) => w.map((v) => v * (1 - sunk)));
  const [wx, wy, wz] = weights as [Float64Array, Float64Array, Float64Array];
  /** Measured reflectance over the constant factor that is in the weights. */
  const measured = (internal: number): number => internal / (1 - K2_INSIDE * internal);
  function see(mixed: Curves72): Lab {
    let X = sunk;
    let Y = sunk;
    let Z = sunk;
    for (let i = 0; i < BANDS; i++) {
      const R = measured(filmReflectance(mixed[i]!, mixed[BANDS + i]!, X0, ground[i]!));
      X += wx[i]! * R;
      Y += wy[i]! * R;
      Z += wz[i]! * R;
    }
    return labFrom(X, Y, Z);
  }
  function seeWithSlopes(mixed: Curves72, U: Matrix3, slopes: Slopes): Lab {
    let X = sunk;
    let Y = sunk;
    let Z = sunk;
    for (let i = 0; i < BANDS; i++) {
      filmWithSlopes(mixed[i]!, mixed[BANDS + i]!, X0, ground[i]!, film3);
      const out = 1 / (1 - K2_INSIDE * film3[0]!);
      const R = film3[0]! * out;
      byK[i] = film3[1]! * out * out;
      byS[i] = film3[2]! * out * out;
      X += wx[i]! * R;
      Y += wy[i]! * R;
      Z += wz[i]! * R;
    }
    intoMetric(weights, X, Y, Z, U, slopes);
    return labFrom(X, Y, Z);
  }
  return { viewing, light, thick: false, curvesOf, see, seeWithSlopes };
}

/**
 * An eye for a viewing. Agrees with `labOf(reflectance(mixCurves(…)))`.
 * @throws CraftError for a laying or a share out of range
 */
export function eyeFor(viewing: Viewing = {}): Eye {
  const { light = 'D65', laying = {}, pickUp } = viewing;
  checkLaying(laying);
  if (pickUp && !(finite('film', 'The share picked up', pickUp.share) >= 0 && pickUp.share < 1))
    throw new CraftError('film', `The share picked up must lie from 0 to below 1; it is ${pickUp.share}.`);
  const { medium = 0, film } = laying;
  const curvesOf = (paint: PaintCurves): PaintCurves => {
    const landed = pickUp
      ? mixCurves([
          { paint, parts: 1 - pickUp.share },
          { paint: pickUp.below, parts: pickUp.share },
        ])
      : paint;
    if (!film || medium === 0) return landed;
    return { K: landed.K.map((v) => v * (1 - medium)), S: landed.S.map((v) => v * (1 - medium)) };
  };
  return film ? filmEye(viewing, light, curvesOf) : thickEye(viewing, light, curvesOf);
}
