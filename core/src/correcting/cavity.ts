import { Matrix } from 'ml-matrix';
import { firstBeliefs, speakingOf, type Beliefs } from './beliefs.ts';
import { conditioned, factorised, inverseOf, placesOf, symmetric } from './joint.ts';

/**
 * What one pile adds to what is believed of its tubes: the precision it brings, and that times the mean it
 * draws to (natural parameters of a normal distribution), a row for each number of each tube in turn.
 */
export interface PileShare {
  readonly ids: readonly string[];
  readonly precision: readonly (readonly number[])[];
  readonly pull: readonly number[];
}

/** Beliefs of exactly these tubes, in this order; of one that nobody has looked at, what is believed of any. */
function about(beliefs: Beliefs, ids: readonly string[]): { readonly mean: Matrix; readonly covariance: Matrix } {
  const full = speakingOf(beliefs, firstBeliefs(ids.filter((id) => !beliefs.ids.includes(id))));
  const numbers = placesOf(full, ids);
  return {
    mean: Matrix.columnVector(numbers.map((i) => full.mean[i]!)),
    covariance: new Matrix(numbers.map((i) => numbers.map((j) => full.covariance[i]![j]!))),
  };
}

/**
 * What a pile added, from what was believed before and after it was learnt from.
 * @param ids the tubes in the pile
 */
export function shareOf(before: Beliefs, after: Beliefs, ids: readonly string[]): PileShare {
  const [one, other] = [about(before, ids), about(after, ids)];
  const [was, is] = [inverseOf(one.covariance), inverseOf(other.covariance)];
  return {
    ids: [...ids],
    precision: symmetric(Matrix.sub(is, was)).to2DArray(),
    pull: is.mmul(other.mean).sub(was.mmul(one.mean)).to1DArray(),
  };
}

/** Where less than all of a share can be taken away without leaving nonsense, this much less is tried each time. */
const LESS = 0.9;
const LEAST = 0.05;

/**
 * What is believed without one pile, without learning from all others anew: its share is taken out of the
 * joint distribution (the cavity of expectation propagation: T. Minka, 2001). What later piles said
 * was reckoned about a mean that this pile had a part in, so it is a little off from learning anew.
 */
export function withoutShare(beliefs: Beliefs, { ids, precision, pull }: PileShare): Beliefs {
  if (ids.some((id) => !beliefs.ids.includes(id))) return beliefs;
  const now = about(beliefs, ids);
  const whole = inverseOf(now.covariance);
  const own = new Matrix(precision.map((row) => [...row]));
  for (let part = 1; part > LEAST; part *= LESS) {
    const left = symmetric(Matrix.sub(whole, Matrix.mul(own, part)));
    if (!factorised(left).isPositiveDefinite()) continue;
    const covariance = inverseOf(left);
    const drawn = whole.mmul(now.mean).sub(Matrix.columnVector([...pull]).mul(part));
    return conditioned(beliefs, placesOf(beliefs, ids), covariance.mmul(drawn).to1DArray(), now.covariance, covariance);
  }
  return beliefs;
}
