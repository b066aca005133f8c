// Three equations in three unknowns, for colours: small enough to be written out.
export type Row3 = readonly [number, number, number];
/** A matrix, by rows. */
export type Rows3 = readonly [Row3, Row3, Row3];

const cross = ([a, b, c]: Row3, [d, e, f]: Row3): Row3 => [b * f - c * e, c * d - a * f, a * e - b * d];
export const dot3 = (one: Row3, other: Row3): number => one[0] * other[0] + one[1] * other[1] + one[2] * other[2];

/** A matrix times a column. */
export const times3 = ([r, s, t]: Rows3, column: Row3): Row3 => [dot3(r, column), dot3(s, column), dot3(t, column)];

/**
 * The inverse of a matrix, from its adjugate.
 * @throws RangeError when its rows lie in a plane
 */
export function inverse3([r, s, t]: Rows3): Rows3 {
  const [x, y, z] = [cross(s, t), cross(t, r), cross(r, s)];
  const volume = dot3(r, x);
  if (volume === 0 || !Number.isFinite(volume)) throw new RangeError('The rows of this matrix lie in a plane.');
  const row = (k: 0 | 1 | 2): Row3 => [x[k] / volume, y[k] / volume, z[k] / volume];
  return [row(0), row(1), row(2)];
}

/** How three numbers change with each of three others, in a row each: by going a little way along it from `at`, where they are `now`. */
export function slopes3(of: (at: Row3) => Row3, at: Row3, now: Row3, way: number): Rows3 {
  const along = (k: 0 | 1 | 2): Row3 => {
    const moved = of([at[0] + (k === 0 ? way : 0), at[1] + (k === 1 ? way : 0), at[2] + (k === 2 ? way : 0)]);
    return [(moved[0] - now[0]) / way, (moved[1] - now[1]) / way, (moved[2] - now[2]) / way];
  };
  return [along(0), along(1), along(2)];
}

/**
 * A damped step of least squares: (JᵀJ + damping)⁻¹ Jᵀr.
 * @param columns of J @param damping what is added to a square on the diagonal
 */
export function dampedStep3(columns: Rows3, r: Row3, damping: (square: number) => number): Row3 {
  const normal = (i: 0 | 1 | 2): Row3 => {
    const [x, y, z] = times3(columns, columns[i]);
    return [x + (i === 0 ? damping(x) : 0), y + (i === 1 ? damping(y) : 0), z + (i === 2 ? damping(z) : 0)];
  };
  return times3(inverse3([normal(0), normal(1), normal(2)]), times3(columns, r));
}
