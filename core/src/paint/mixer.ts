import type { Illuminant } from '../colour/illuminants.ts';
import { labForward, type Lab } from '../colour/spaces.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { PaintCurves } from './catalogue.ts';
import { K2_INSIDE } from './kubelkaMunk.ts';
import { surfaceWeights } from './surfaceWeights.ts';

/** Lab of any parts of a fixed list of paints, as a thick glossy film. */
export type Mixer = (parts: ArrayLike<number>) => Lab;

/**
 * A mixer for searches that try many parts of the same paints: weights and curves are laid out
 * once. Agrees with `labOf(reflectance(mixCurves(…)))`; parts must be ≥ 0 and not all zero.
 */
export function mixerOf(paints: readonly PaintCurves[], light: Illuminant = 'D65'): Mixer {
  const count = paints.length;
  const bands = BANDS;
  const K = new Float64Array(count * bands);
  const S = new Float64Array(count * bands);
  paints.forEach((paint, p) => {
    K.set(paint.K, p * bands);
    S.set(paint.S, p * bands);
  });
  const [wx, wy, wz] = surfaceWeights(light);
  const inside = 1 - K2_INSIDE;
  return (parts) => {
    let X = 0;
    let Y = 0;
    let Z = 0;
    for (let i = 0; i < bands; i++) {
      let k = 0;
      let s = 0;
      for (let p = 0, at = i; p < count; p++, at += bands) {
        const n = parts[p]!;
        k += n * K[at]!;
        s += n * S[at]!;
      }
      const R = s / (inside * s + k + Math.sqrt(k * (k + 2 * s)));
      X += wx[i]! * R;
      Y += wy[i]! * R;
      Z += wz[i]! * R;
    }
    const fy = labForward(Y);
    return [116 * fy - 16, 500 * (labForward(X) - fy), 200 * (fy - labForward(Z))];
  };
}
