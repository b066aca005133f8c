import { Matrix, inverse } from 'ml-matrix';
import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { shifted } from '../paint/deviation.ts';
import { mixerOf } from '../paint/mixer.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { PaletteTube } from './ingredients.ts';

/** What is believed of each tube beyond its curves, as one joint normal distribution. Plain data. */
export interface Beliefs {
  readonly ids: readonly string[];
  /** For each tube in turn: log strength of K, log share of paint (less extender), shift in nm. */
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
}

/** One addition to a pile, as it was meant. */
export interface Dose {
  readonly id: string;
  readonly parts: number;
}

/** A stage of a pile: what was added, and how it looked then if that was observed. */
export interface Stage {
  readonly additions: readonly Dose[];
  readonly observed?: Lab;
}

/** What a pile taught. */
export interface Learnt {
  readonly beliefs: Beliefs;
  /** Parts of each tube that are now believed to lie in the pile. */
  readonly parts: Readonly<Record<string, number>>;
  /** What the beliefs leave unexplained of the last observation: seen less believed, in Lab. */
  readonly residual: Lab;
}

const PER_TUBE = 3;
/** Standard deviations of tubes of one pigment, and the extender's mean (see `USUAL_SPREAD`). */
const SIGMA = [0.18, 0.085, 2.9] as const;
const MEAN = [-0.015, -0.135, 0] as const;
/** Standard deviation of a dose by knife, as a share of itself. */
const DOSING = 0.06;
/** What an observation is off by, with what three numbers a tube cannot say of its shape. */
const SEEN_L = 0.8;
const SEEN_AB = 1.0;
const PER_CHROMA = 0.035;
const STEP = 1e-3;
const ROUNDS = 8;

/** What is believed of typical tubes before any pile was looked at. */
export function firstBeliefs(ids: readonly string[]): Beliefs {
  const size = ids.length * PER_TUBE;
  return {
    ids: [...ids],
    mean: Array.from({ length: size }, (_, i) => MEAN[i % PER_TUBE]!),
    covariance: Array.from({ length: size }, (_, i) => Array.from({ length: size }, (_, j) => (i === j ? SIGMA[i % PER_TUBE]! ** 2 : 0))),
  };
}

/** Curves of a tube as they are believed to be. */
export function believed(paint: PaintCurves, beliefs: Beliefs, id: string): PaintCurves {
  const at = beliefs.ids.indexOf(id);
  return at < 0 ? paint : adjusted(paint, beliefs.mean.slice(at * PER_TUBE, at * PER_TUBE + PER_TUBE));
}

function adjusted(paint: PaintCurves, [strength, share, shift]: readonly number[]): PaintCurves {
  const K = shifted(paint.K, shift!);
  const S = shifted(paint.S, shift!);
  const k = Math.exp(strength! + share!);
  const s = Math.exp(strength! / 2 + share!);
  for (let i = 0; i < BANDS; i++) {
    K[i]! *= k;
    S[i]! *= s;
  }
  return { K, S };
}

interface Problem {
  readonly tubes: readonly PaletteTube[];
  /** For each dose: its tube and its meant parts. */
  readonly doses: readonly { readonly tube: number; readonly parts: number; readonly stage: number }[];
  readonly observed: readonly { readonly stage: number; readonly lab: Lab }[];
}

/** Lab at each observed stage, for tube numbers and log dosing errors laid end to end. */
function predict({ tubes, doses, observed }: Problem, x: readonly number[]): number[] {
  const paints = tubes.map((tube, t) => adjusted(tube, x.slice(t * PER_TUBE, t * PER_TUBE + PER_TUBE)));
  const mix = mixerOf(paints);
  const first = tubes.length * PER_TUBE;
  return observed.flatMap(({ stage }) => {
    const parts = new Float64Array(tubes.length);
    doses.forEach((dose, d) => {
      if (dose.stage <= stage) parts[dose.tube]! += dose.parts * Math.exp(x[first + d]!);
    });
    return [...mix(parts)];
  });
}

function problemOf(tubes: readonly PaletteTube[], stages: readonly Stage[]): Problem {
  const place = new Map(tubes.map((t, i) => [t.id, i]));
  const doses = stages.flatMap(({ additions }, stage) =>
    additions.map(({ id, parts }) => {
      const tube = place.get(id);
      if (tube === undefined) throw new CraftError('pigment', `There is no tube ${JSON.stringify(id)} on the palette.`);
      if (!(parts > 0) || !Number.isFinite(parts)) throw new CraftError('parts', `Parts must be above 0; those of ${id} are ${parts}.`);
      return { tube, parts, stage };
    }),
  );
  const observed = stages.flatMap(({ observed: lab }, stage) => (lab ? [{ stage, lab }] : []));
  if (doses.length === 0) throw new CraftError('parts', 'The pile has nothing in it yet.');
  return { tubes, doses, observed };
}

/**
 * Learns from a pile whose stages were looked at: strengths, shares of paint and shifts of its tubes
 * and the dosing error of every addition are estimated together (Gauss–Newton to the most probable
 * values; what stays uncertain is the inverse of the curvature there). Beliefs of other tubes move
 * with those they hang together with.
 * @throws CraftError for a tube that is not on the palette, or parts that are none
 */
export function learn(beliefs: Beliefs, tubes: readonly PaletteTube[], stages: readonly Stage[]): Learnt {
  const ordered = beliefs.ids.map((id) => {
    const tube = tubes.find((t) => t.id === id);
    if (!tube) throw new CraftError('palette', `The beliefs speak of ${JSON.stringify(id)}, which is not on the palette.`);
    return tube;
  });
  const problem = problemOf(ordered, stages);
  const tubeNumbers = beliefs.mean.length;
  const size = tubeNumbers + problem.doses.length;
  const prior = [...beliefs.mean, ...problem.doses.map(() => 0)];
  const priorPrecision = Matrix.zeros(size, size);
  priorPrecision.setSubMatrix(inverse(new Matrix(beliefs.covariance.map((row) => [...row]))), 0, 0);
  for (let d = tubeNumbers; d < size; d++) priorPrecision.set(d, d, 1 / DOSING ** 2);

  const seen = problem.observed.flatMap(({ lab }) => [...lab]);
  const weights = problem.observed.flatMap(({ lab }) => {
    const ab = SEEN_AB * (1 + PER_CHROMA * Math.hypot(lab[1], lab[2]));
    return [1 / SEEN_L ** 2, 1 / ab ** 2, 1 / ab ** 2];
  });
  let x = prior.slice();
  let curvature = priorPrecision;
  for (let round = 0; round < ROUNDS && seen.length > 0; round++) {
    const at = predict(problem, x);
    const J = Matrix.zeros(seen.length, size);
    for (let j = 0; j < size; j++) {
      const step = STEP * (j < tubeNumbers && j % PER_TUBE === 2 ? 10 : 1);
      const moved = predict(
        problem,
        x.map((v, i) => (i === j ? v + step : v)),
      );
      moved.forEach((v, i) => J.set(i, j, (v - at[i]!) / step));
    }
    const JtW = J.transpose().mulRowVector(weights);
    curvature = JtW.mmul(J).add(priorPrecision);
    const pull = JtW.mmul(Matrix.columnVector(seen.map((v, i) => v - at[i]!)));
    const home = priorPrecision.mmul(Matrix.columnVector(x.map((v, i) => v - prior[i]!)));
    const stride = inverse(curvature).mmul(pull.sub(home)).to1DArray();
    const longest = Math.max(...stride.map((v, i) => Math.abs(v) / (i < tubeNumbers ? 2.5 * SIGMA[i % PER_TUBE]! : 2.5 * DOSING)));
    x = x.map((v, i) => v + stride[i]! / Math.max(1, longest));
    if (longest < 1e-4) break;
  }
  const covariance = inverse(curvature);
  const at = predict(problem, x);
  const last = seen.length - 3;
  const parts: Record<string, number> = {};
  problem.doses.forEach(({ tube, parts: meant }, d) => {
    const { id } = ordered[tube]!;
    parts[id] = (parts[id] ?? 0) + meant * Math.exp(x[tubeNumbers + d]!);
  });
  return {
    beliefs: {
      ids: beliefs.ids,
      mean: x.slice(0, tubeNumbers),
      covariance: Array.from({ length: tubeNumbers }, (_, i) => Array.from({ length: tubeNumbers }, (_, j) => covariance.get(i, j))),
    },
    parts,
    residual: seen.length === 0 ? [0, 0, 0] : [seen[last]! - at[last]!, seen[last + 1]! - at[last + 1]!, seen[last + 2]! - at[last + 2]!],
  };
}
