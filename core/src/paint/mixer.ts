import type { Illuminant } from '../colour/illuminants.ts';
import { labForward, type Lab } from '../colour/spaces.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { PaintCurves } from './catalogue.ts';
import { K2_INSIDE } from './kubelkaMunk.ts';
import { surfaceWeights } from './surfaceWeights.ts';

/** Lab of any parts of a fixed list of paints, as a thick glossy film. */
export type Mixer = (parts: ArrayLike<number>) => Lab;

/** Paints are reckoned four at a time; what is lacking to four is empty. */
const WIDE = 4;

/** Weights and curves laid out band by band: x, y, z, then K and S of four paints, of the next four, … */
function layOut(paints: readonly PaintCurves[], light: Illuminant, blocks: number): Float64Array {
  const stride = 3 + 2 * WIDE * blocks;
  const table = new Float64Array(stride * BANDS);
  const [wx, wy, wz] = surfaceWeights(light);
  for (let i = 0; i < BANDS; i++) {
    const at = i * stride;
    table.set([wx[i]!, wy[i]!, wz[i]!], at);
    paints.forEach(({ K, S }, p) => table.set([K[i]!, S[i]!], at + 3 + 2 * p));
  }
  return table;
}

/**
 * A mixer for searches that try many parts of the same paints: weights and curves are laid out
 * once. Agrees with `labOf(reflectance(mixCurves(…)))`; parts must be ≥ 0 and not all zero.
 */
export function mixerOf(paints: readonly PaintCurves[], light: Illuminant = 'D65'): Mixer {
  const blocks = Math.max(1, Math.ceil(paints.length / WIDE));
  const table = layOut(paints, light, blocks);
  const stride = table.length / BANDS;
  const count = paints.length;
  const inside = 1 - K2_INSIDE;
  const n = new Float64Array(WIDE * blocks);
  return (parts) => {
    for (let p = 0; p < count; p++) n[p] = parts[p]!;
    let X = 0;
    let Y = 0;
    let Z = 0;
    for (let at = 0; at < table.length; at += stride) {
      let k = 0;
      let s = 0;
      for (let p = 0, q = at + 3; p < n.length; p += WIDE, q += 2 * WIDE) {
        k = k + n[p]! * table[q]! + n[p + 1]! * table[q + 2]! + n[p + 2]! * table[q + 4]! + n[p + 3]! * table[q + 6]!;
        s = s + n[p]! * table[q + 1]! + n[p + 1]! * table[q + 3]! + n[p + 2]! * table[q + 5]! + n[p + 3]! * table[q + 7]!;
      }
      const R = s / (inside * s + k + Math.sqrt(k * (k + 2 * s)));
      X += table[at]! * R;
      Y += table[at + 1]! * R;
      Z += table[at + 2]! * R;
    }
    const fy = labForward(Y);
    return [116 * fy - 16, 500 * (labForward(X) - fy), 200 * (fy - labForward(Z))];
  };
}
