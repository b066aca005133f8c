import { inverse, Matrix } from 'ml-matrix';
import type { Xyz } from './spaces.ts';

type Row = readonly [number, number, number];
type Matrix3 = readonly [Row, Row, Row];

/** CAT16 sharpened sensors (Li et al. 2017). */
const CAT16: Matrix3 = [
  [0.401288, 0.650173, -0.051461],
  [-0.250268, 1.204414, 0.045854],
  [-0.002079, 0.048952, 0.953127],
];
const CAT16_INVERSE = inverse(new Matrix(CAT16.map((row) => [...row]))).to2DArray() as unknown as Matrix3;

function apply(m: Matrix3, [x, y, z]: Xyz): Xyz {
  const row = (i: 0 | 1 | 2) => m[i][0] * x + m[i][1] * y + m[i][2] * z;
  return [row(0), row(1), row(2)];
}

/** The colour that looks under `to` as `xyz` does under `from` (CAT16, full adaptation). */
export function adapt(xyz: Xyz, from: Xyz, to: Xyz): Xyz {
  const source = apply(CAT16, from);
  const target = apply(CAT16, to);
  const seen = apply(CAT16, xyz);
  return apply(CAT16_INVERSE, [(seen[0] * target[0]) / source[0], (seen[1] * target[1]) / source[1], (seen[2] * target[2]) / source[2]]);
}
