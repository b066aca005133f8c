import type { Illuminant } from '../colour/illuminants.ts';
import { weightsFor } from '../colour/integrate.ts';
import { K1_OUTSIDE, K2_INSIDE } from './kubelkaMunk.ts';

/**
 * Weights of X, Y and Z for the inner loops, over the white of the light and with the constant
 * factor of Saunderson's surface in them: `R = (1 − k1)(1 − k2) · S / ((1 − k2)·S + K + √(K(K + 2S)))`.
 */
export function surfaceWeights(light: Illuminant): readonly [x: Float64Array, y: Float64Array, z: Float64Array] {
  const { x, y, z, white } = weightsFor(light);
  const through = (1 - K1_OUTSIDE) * (1 - K2_INSIDE);
  const over = (w: Float64Array, of: number): Float64Array => w.map((v) => (v * through) / of);
  return [over(x, white[0]), over(y, white[1]), over(z, white[2])];
}
