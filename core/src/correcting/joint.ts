import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { EACH, type Beliefs } from './beliefs.ts';

/** Rounding leaves products that ought to be symmetric a hair off. */
export const symmetric = (m: Matrix): Matrix => Matrix.add(m, m.transpose()).mul(0.5);
export const factorised = (m: Matrix): CholeskyDecomposition => new CholeskyDecomposition(symmetric(m));
export const inverseOf = (m: Matrix): Matrix => factorised(m).solve(Matrix.eye(m.rows));

/** Where the numbers of some tubes and sightings stand among all numbers that are believed. */
export const placesOf = ({ ids }: Beliefs, wanted: readonly string[]): number[] =>
  wanted.flatMap((id) => {
    const at = ids.indexOf(id) * EACH;
    return [at, at + 1, at + 2];
  });

/**
 * Joint beliefs once some of their numbers are believed otherwise: the others move with those they hang
 * together with (conditioning of a joint normal distribution).
 * @param inside places of these numbers
 * @param mean what is believed of them now; more of the same may follow
 * @param prior their covariance in `known`
 * @param posterior their covariance now; more may follow
 */
export function conditioned(known: Beliefs, inside: readonly number[], mean: ArrayLike<number>, prior: Matrix, posterior: Matrix): Beliefs {
  const before = new Matrix(known.covariance.map((row) => [...row]));
  const all = known.mean.map((_, i) => i);
  /** How much each number moves with those inside. */
  const gain = before.selection(all, [...inside]).mmul(inverseOf(prior));
  const moved = gain.mmul(Matrix.columnVector(inside.map((i, k) => mean[k]! - known.mean[i]!))).to1DArray();
  const now = posterior.subMatrix(0, inside.length - 1, 0, inside.length - 1);
  const change = gain.mmul(now.sub(prior)).mmul(gain.transpose());
  return {
    ids: known.ids,
    mean: known.mean.map((v, i) => v + moved[i]!),
    covariance: before.add(change).to2DArray(),
  };
}
