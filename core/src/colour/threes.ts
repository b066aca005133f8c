// Three equations in three unknowns, for colours: small enough to be written out.
export type Row3 = readonly [number, number, number];
export type Matrix3 = readonly [Row3, Row3, Row3];

const cross = ([a, b, c]: Row3, [d, e, f]: Row3): Row3 => [b * f - c * e, c * d - a * f, a * e - b * d];
export const dot3 = (one: Row3, other: Row3): number => one[0] * other[0] + one[1] * other[1] + one[2] * other[2];

/** A matrix times a column. */
export const times3 = ([r, s, t]: Matrix3, column: Row3): Row3 => [dot3(r, column), dot3(s, column), dot3(t, column)];

/**
 * The inverse of a matrix, from its adjugate.
 * @throws RangeError when its rows lie in a plane
 */
export function inverse3([r, s, t]: Matrix3): Matrix3 {
  const [x, y, z] = [cross(s, t), cross(t, r), cross(r, s)];
  const volume = dot3(r, x);
  if (volume === 0 || !Number.isFinite(volume)) throw new RangeError('The rows of this matrix lie in a plane.');
  const row = (k: 0 | 1 | 2): Row3 => [x[k] / volume, y[k] / volume, z[k] / volume];
  return [row(0), row(1), row(2)];
}
