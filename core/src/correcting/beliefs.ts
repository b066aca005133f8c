import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { shifted } from '../paint/deviation.ts';
import { mixerOf } from '../paint/mixer.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { Addable } from './additions.ts';

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
  /** Parts that are not known exactly, as those logged in words, lie about anywhere in this range. */
  readonly range?: readonly [least: number, most: number];
}

/** A stage of a pile: what was added, and how it looked then if that was observed. */
export interface Stage {
  readonly additions: readonly Dose[];
  readonly observed?: Lab;
  /** How many times less sure than a careful reading the observation is; 1 unless said. */
  readonly doubt?: number;
}

/** Evidence about tubes: a pile's additions in order, with its looks. */
export interface Evidence {
  readonly stages: readonly Stage[];
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
/** A round moves no number by more than this many of its standard deviations. */
const LONGEST_STRIDE = 2.5;
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

/** The three numbers of one tube, or those of any tube before it was looked at. */
function numbersOf({ ids, mean }: Beliefs, id: string): readonly number[] {
  const at = ids.indexOf(id);
  return at < 0 ? MEAN : mean.slice(at * PER_TUBE, at * PER_TUBE + PER_TUBE);
}

/**
 * Curves of a tube as they are believed to be. Share of paint is taken against that of a tube nobody
 * has looked at, so that learnt and typical tubes mix as they should.
 */
export const believed = (paint: PaintCurves, beliefs: Beliefs, id: string): PaintCurves =>
  beliefs.ids.includes(id) ? adjusted(paint, numbersOf(beliefs, id)) : paint;

/** What is believed of one tube, as a painter says it. */
export interface TubeBelief {
  /** Tinting strength, in times that of its curves. */
  readonly strength: number;
  /** About two of three true strengths lie within this factor of it. */
  readonly within: number;
  readonly shiftNm: number;
}

export function beliefOf(beliefs: Beliefs, id: string): TubeBelief {
  const [strength, share, shift] = numbersOf(beliefs, id) as [number, number, number];
  const at = beliefs.ids.indexOf(id) * PER_TUBE;
  const c = (i: number, j: number): number => (at < 0 ? (i === j ? SIGMA[i]! ** 2 : 0) : beliefs.covariance[at + i]![at + j]!);
  return {
    strength: Math.exp(strength - MEAN[0] + share - MEAN[1]),
    within: Math.exp(Math.sqrt(Math.max(0, c(0, 0) + 2 * c(0, 1) + c(1, 1)))),
    shiftNm: shift,
  };
}

function adjusted(paint: PaintCurves, [strength, share, shift]: readonly number[]): PaintCurves {
  const K = shifted(paint.K, shift!);
  const S = shifted(paint.S, shift!);
  const less = share! - MEAN[1];
  const k = Math.exp(strength! + less);
  const s = Math.exp(strength! / 2 + less);
  for (let i = 0; i < BANDS; i++) {
    K[i]! *= k;
    S[i]! *= s;
  }
  return { K, S };
}

interface Problem {
  readonly tubes: readonly Addable[];
  /** For each dose: its tube, its meant parts, and the standard deviation of its logarithm. */
  readonly doses: readonly { readonly tube: number; readonly parts: number; readonly stage: number; readonly sigma: number }[];
  readonly observed: readonly { readonly stage: number; readonly lab: Lab; readonly doubt: number }[];
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

/** An even spread over a range has this many of its standard deviations from end to end. */
const EVEN = Math.sqrt(12);
const sigmaOf = ({ range }: Dose): number => (range ? Math.hypot(DOSING, Math.log(range[1] / range[0]) / EVEN) : DOSING);

/** What of a pile can be solved for: the tubes that are in it, and its doses. */
function problemOf(tubes: readonly Addable[], stages: readonly Stage[]): Problem {
  const inPile: Addable[] = [];
  const place = (id: string): number => {
    const at = inPile.findIndex((t) => t.id === id);
    if (at >= 0) return at;
    const tube = tubes.find((t) => t.id === id);
    if (!tube) throw new CraftError('pigment', `There is no tube ${JSON.stringify(id)} to learn about.`);
    return inPile.push(tube) - 1;
  };
  const doses = stages.flatMap(({ additions }, stage) =>
    additions.map((dose) => {
      if (!(dose.parts > 0) || !Number.isFinite(dose.parts))
        throw new CraftError('parts', `Parts must be above 0; those of ${dose.id} are ${dose.parts}.`);
      return { tube: place(dose.id), parts: dose.parts, stage, sigma: sigmaOf(dose) };
    }),
  );
  const observed = stages.flatMap(({ observed: lab, doubt = 1 }, stage) => (lab ? [{ stage, lab, doubt }] : []));
  if (doses.length === 0) throw new CraftError('parts', 'The pile has nothing in it yet.');
  return { tubes: inPile, doses, observed };
}

/** Beliefs that also speak of these tubes, as of ones that nobody has looked at. */
function speakingOf(beliefs: Beliefs, ids: readonly string[]): Beliefs {
  const fresh = ids.filter((id) => !beliefs.ids.includes(id));
  if (fresh.length === 0) return beliefs;
  const { mean, covariance } = firstBeliefs(fresh);
  const [old, more] = [beliefs.mean.length, mean.length];
  const zeros = (n: number): number[] => Array.from({ length: n }, () => 0);
  return {
    ids: [...beliefs.ids, ...fresh],
    mean: [...beliefs.mean, ...mean],
    covariance: [...beliefs.covariance.map((row) => [...row, ...zeros(more)]), ...covariance.map((row) => [...zeros(old), ...row])],
  };
}

/** Rounding leaves products that ought to be symmetric a hair off. */
const factorised = (m: Matrix): CholeskyDecomposition => new CholeskyDecomposition(Matrix.add(m, m.transpose()).mul(0.5));
const inverseOf = (m: Matrix): Matrix => factorised(m).solve(Matrix.eye(m.rows));

/** The most probable numbers of a pile's tubes and doses, and the covariance about them. */
function mostProbable(problem: Problem, mean: readonly number[], prior: Matrix): { readonly x: number[]; readonly covariance: Matrix } {
  const tubeNumbers = mean.length;
  const size = tubeNumbers + problem.doses.length;
  const start = [...mean, ...problem.doses.map(() => 0)];
  const precision = Matrix.zeros(size, size);
  precision.setSubMatrix(inverseOf(prior), 0, 0);
  problem.doses.forEach(({ sigma }, d) => precision.set(tubeNumbers + d, tubeNumbers + d, 1 / sigma ** 2));
  const scale = [...mean.map((_, i) => SIGMA[i % PER_TUBE]!), ...problem.doses.map(({ sigma }) => sigma)];
  const seen = problem.observed.flatMap(({ lab }) => [...lab]);
  const weights = problem.observed.flatMap(({ lab, doubt }) => {
    const ab = doubt * SEEN_AB * (1 + PER_CHROMA * Math.hypot(lab[1], lab[2]));
    return [1 / (doubt * SEEN_L) ** 2, 1 / ab ** 2, 1 / ab ** 2];
  });
  let x = start.slice();
  let curvature = precision;
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
    curvature = JtW.mmul(J).add(precision);
    const pull = JtW.mmul(Matrix.columnVector(seen.map((v, i) => v - at[i]!)));
    const home = precision.mmul(Matrix.columnVector(x.map((v, i) => v - start[i]!)));
    const stride = factorised(curvature).solve(pull.sub(home)).to1DArray();
    const longest = Math.max(...stride.map((v, i) => Math.abs(v) / (LONGEST_STRIDE * scale[i]!)));
    x = x.map((v, i) => v + stride[i]! / Math.max(1, longest));
    if (longest < 1e-4) break;
  }
  return { x, covariance: inverseOf(curvature) };
}

/**
 * Learns from a pile whose stages were looked at: strengths, shares of paint and shifts of the tubes
 * in it and the dosing error of every addition are estimated together (Gauss–Newton to the most
 * probable values; what stays uncertain is the inverse of the curvature there). Since the looks hang
 * on those tubes alone, the others follow exactly by their covariance (conditioning of a joint normal
 * distribution), however many the studio holds.
 * @param tubes curves of at least the tubes in the pile
 * @throws CraftError for a tube whose curves are not given, or parts that are none
 */
export function learn(beliefs: Beliefs, tubes: readonly Addable[], stages: readonly Stage[]): Learnt {
  const problem = problemOf(tubes, stages);
  const known = speakingOf(
    beliefs,
    problem.tubes.map((t) => t.id),
  );
  const inside = problem.tubes.flatMap((t) => {
    const at = known.ids.indexOf(t.id) * PER_TUBE;
    return [at, at + 1, at + 2];
  });
  const before = new Matrix(known.covariance.map((row) => [...row]));
  const prior = before.selection(inside, inside);
  const mean = inside.map((i) => known.mean[i]!);
  const { x, covariance } = mostProbable(problem, mean, prior);
  const at = predict(problem, x);
  const parts: Record<string, number> = {};
  problem.doses.forEach(({ tube, parts: meant }, d) => {
    const { id } = problem.tubes[tube]!;
    parts[id] = (parts[id] ?? 0) + meant * Math.exp(x[inside.length + d]!);
  });
  const last = problem.observed.at(-1)?.lab;
  const from = at.length - 3;
  return {
    beliefs: last ? conditioned(known, inside, x, prior, covariance) : known,
    parts,
    residual: last ? [last[0] - at[from]!, last[1] - at[from + 1]!, last[2] - at[from + 2]!] : [0, 0, 0],
  };
}

/** Joint beliefs once some of their numbers are known better: the others move with those they hang together with. */
function conditioned(known: Beliefs, inside: readonly number[], x: readonly number[], prior: Matrix, posterior: Matrix): Beliefs {
  const size = known.mean.length;
  const before = new Matrix(known.covariance.map((row) => [...row]));
  const all = Array.from({ length: size }, (_, i) => i);
  const pulled = inverseOf(prior);
  /** How much each number moves with those inside. */
  const gain = before.selection(all, [...inside]).mmul(pulled);
  const moved = Matrix.columnVector(inside.map((i, k) => x[k]! - known.mean[i]!));
  const mean = gain.mmul(moved).to1DArray();
  const now = posterior.subMatrix(0, inside.length - 1, 0, inside.length - 1);
  const change = gain.mmul(now.sub(prior)).mmul(gain.transpose());
  return {
    ids: known.ids,
    mean: known.mean.map((v, i) => v + mean[i]!),
    covariance: before.add(change).to2DArray(),
  };
}

/**
 * What is believed after evidence, one pile after the other. The order of the evidence is the
 * caller's; what is left out was never learnt.
 */
export const afterEvidence = (evidence: readonly Evidence[], tubes: readonly Addable[], from: Beliefs = firstBeliefs([])): Beliefs =>
  evidence.reduce((beliefs, { stages }) => learn(beliefs, tubes, stages).beliefs, from);
