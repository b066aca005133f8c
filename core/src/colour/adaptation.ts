import type { Xyz } from './spaces.ts';
import { inverse3, times3, type Rows3 } from './threes.ts';

/** CAT16 sharpened sensors (Li et al. 2017). */
const CAT16: Rows3 = [
  [0.401288, 0.650173, -0.051461],
  [-0.250268, 1.204414, 0.045854],
  [-0.002079, 0.048952, 0.953127],
];
const CAT16_INVERSE = inverse3(CAT16);

/** The colour that looks under `to` as `xyz` does under `from` (CAT16, full adaptation). */
export function adapt(xyz: Xyz, from: Xyz, to: Xyz): Xyz {
  const source = times3(CAT16, from);
  const target = times3(CAT16, to);
  const seen = times3(CAT16, xyz);
  return times3(CAT16_INVERSE, [(seen[0] * target[0]) / source[0], (seen[1] * target[1]) / source[1], (seen[2] * target[2]) / source[2]]);
}
