import { Matrix } from 'ml-matrix';
import { deltaE00, type Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixerOf, type Mixer } from '../paint/mixer.ts';
import type { Addable, Dose, Evidence, Stage } from './evidence.ts';
import { adjusted, EACH, firstBeliefs, firstOffset, isSighting, onlyOf, SIGMA, sightingKey, speakingOf, type Beliefs } from './beliefs.ts';
import { UNSAID, type Reading } from './doubt.ts';
import { conditioned, factorised, inverseOf, placesOf } from './joint.ts';

/** What a pile taught. */
export interface Learnt {
  readonly beliefs: Beliefs;
  /** Parts of each tube that are now believed to lie in the pile. */
  readonly parts: Readonly<Record<string, number>>;
  /** How the pile is off from its believed tubes, in Lab, by its last look: of what they leave unexplained, what is not the reading's. */
  readonly residual: Lab;
  /** What the last look is believed to have read too high, in Lab. */
  readonly offset: Lab;
  /** Whether the last look is further off than tubes, knife and reading allow, and nobody has confirmed it: it teaches little. */
  readonly isStrange: boolean;
  /** How unsure the pile's look stays after it, in ΔE00 in any one direction (standard deviation). */
  readonly unsure: Delta;
}

/** A usual knife: a dose lies anywhere within a tenth of what was meant. */
export const KNIFE = 0.1;
/** Half-widths that a knife can have. */
export const FINEST_KNIFE = 0.01;
export const COARSEST_KNIFE = 0.6;
/** What a mixture is off by, with what three numbers a tube cannot say of its shape: standard deviations in Lab. */
const SHAPE_L = 0.72;
const SHAPE_AB = 0.95;
const PER_CHROMA = 0.035;
/** What of L, a and b makes a ΔE00 of 1, on the average of greys. */
const WIDTH = [1.2, 1, 1] as const;
const STEP = 1e-3;
/** A round moves no number by more than this many of its standard deviations. */
const LONGEST_STRIDE = 2.5;
const ROUNDS = 8;
/** However much beliefs leave unexplained, a reading scatters by no more than this many standard deviations. */
const MOST_NOISE = 1.5;
/**
 * Square of the standard deviations (of three numbers together) from which a look is strange, once in a hundred
 * looks by chance; from there on it counts the less the stranger it is, as errors with heavy tails do.
 */
const STRANGE = 11.3;
const TAIL = 3;
/** Sightings that are remembered beside those of the pile: what they taught of tubes stays. */
const SIGHTINGS_KEPT = 6;

interface Observed {
  readonly stage: number;
  readonly lab: Lab;
  readonly reading: Reading;
  /** Place of its sighting among the pile's; -1 for one that is not off. */
  readonly sighting: number;
}

interface Problem {
  readonly tubes: readonly Addable[];
  readonly sightings: readonly Reading[];
  /** For each dose: its tube, its meant parts, and the standard deviation of its logarithm. */
  readonly doses: readonly { readonly tube: number; readonly parts: number; readonly stage: number; readonly sigma: number }[];
  readonly observed: readonly Observed[];
}

/** Variances in Lab of what a mixture of a colour is off by, whatever its tubes' numbers. */
function shapeVariances([, a, b]: Lab): Lab {
  const ab = (SHAPE_AB * (1 + PER_CHROMA * Math.hypot(a, b))) ** 2;
  return [SHAPE_L ** 2, ab, ab];
}

/** Variances of what one reading of a colour scatters by. */
function noiseVariances([, a, b]: Lab, { noise }: Reading): Lab {
  const ab = (noise * WIDTH[1]! * (1 + PER_CHROMA * Math.hypot(a, b))) ** 2 / 3;
  return [(noise * WIDTH[0]!) ** 2 / 3, ab, ab];
}

/** Curves of a pile's tubes by their numbers. */
const curvesAt = ({ tubes }: Problem, x: readonly number[]): PaintCurves[] =>
  tubes.map((tube, t) => adjusted(tube, x.slice(t * EACH, t * EACH + EACH)));

/** Lab at each observed stage, for tube numbers, offsets of sightings and log dosing errors laid end to end. */
function looksOf({ tubes, sightings, doses, observed }: Problem, mix: Mixer, x: readonly number[]): number[] {
  const offsets = tubes.length * EACH;
  const first = offsets + sightings.length * EACH;
  return observed.flatMap(({ stage, sighting }) => {
    const parts = new Float64Array(tubes.length);
    doses.forEach((dose, d) => {
      if (dose.stage <= stage) parts[dose.tube]! += dose.parts * Math.exp(x[first + d]!);
    });
    return [...mix(parts)].map((v, i) => (sighting < 0 ? v : v + x[offsets + sighting * EACH + i]!));
  });
}

const predict = (problem: Problem, x: readonly number[]): number[] => looksOf(problem, mixerOf(curvesAt(problem, x)), x);

/** Predicted looks, and by how much each moves with each number (finite differences; a sighting's offset is a plain sum). */
function predictAround(problem: Problem, x: readonly number[]): { readonly at: number[]; readonly J: Matrix } {
  const { tubes, sightings, observed } = problem;
  const tubeNumbers = tubes.length * EACH;
  const known = tubeNumbers + sightings.length * EACH;
  const curves = curvesAt(problem, x);
  const mix = mixerOf(curves);
  const at = looksOf(problem, mix, x);
  const J = Matrix.zeros(at.length, x.length);
  x.forEach((value, j) => {
    if (j >= tubeNumbers && j < known) {
      const [sighting, component] = [Math.floor((j - tubeNumbers) / EACH), (j - tubeNumbers) % EACH];
      observed.forEach((one, k) => one.sighting === sighting && J.set(k * EACH + component, j, 1));
      return;
    }
    const step = STEP * (j < tubeNumbers && j % EACH === 2 ? 10 : 1);
    const moved = x.map((v, i) => (i === j ? value + step : v));
    const t = Math.floor(j / EACH);
    const other = j < tubeNumbers ? mixerOf(curves.with(t, adjusted(tubes[t]!, moved.slice(t * EACH, t * EACH + EACH)))) : mix;
    looksOf(problem, other, moved).forEach((v, i) => J.set(i, j, (v - at[i]!) / step));
  });
  return { at, J };
}

/** An even spread over a range has this many of its standard deviations from end to end. */
const EVEN = Math.sqrt(12);
const sigmaOf = ({ range }: Dose, knife: number): number =>
  Math.hypot((2 * knife) / EVEN, range ? Math.log(range[1] / range[0]) / EVEN : 0);

/** @throws CraftError for a knife that is none */
export function knifeOf(knife: number = KNIFE): number {
  if (!(knife >= FINEST_KNIFE && knife <= COARSEST_KNIFE))
    throw new CraftError('parts', `A knife is good to a share between ${FINEST_KNIFE} and ${COARSEST_KNIFE}; this one is ${knife}.`);
  return knife;
}

/** What of a pile can be solved for: the tubes that are in it, its doses, and how it was read. */
function problemOf(tubes: readonly Addable[], stages: readonly Stage[]): Problem {
  const inPile: Addable[] = [];
  const place = (id: string): number => {
    const at = inPile.findIndex((t) => t.id === id);
    if (at >= 0) return at;
    const tube = tubes.find((t) => t.id === id);
    if (!tube) throw new CraftError('pigment', `There is no tube ${JSON.stringify(id)} to learn about.`);
    return inPile.push(tube) - 1;
  };
  const doses = stages.flatMap(({ additions, knife }, stage) =>
    additions.map((dose) => {
      if (!(dose.parts > 0) || !Number.isFinite(dose.parts))
        throw new CraftError('parts', `Parts must be above 0; those of ${dose.id} are ${dose.parts}.`);
      return { tube: place(dose.id), parts: dose.parts, stage, sigma: sigmaOf(dose, knifeOf(knife)) };
    }),
  );
  const sightings: Reading[] = [];
  const observed = stages.flatMap(({ observed: lab, reading = UNSAID }, stage): Observed[] => {
    if (!lab) return [];
    if (reading.bias === 0) return [{ stage, lab, reading, sighting: -1 }];
    const known = sightings.findIndex((s) => s.sighting === reading.sighting);
    return [{ stage, lab, reading, sighting: known >= 0 ? known : sightings.push(reading) - 1 }];
  });
  if (doses.length === 0) throw new CraftError('parts', 'The pile has nothing in it yet.');
  return { tubes: inPile, sightings, doses, observed };
}

/** The most probable numbers of a pile's tubes, sightings and doses, and the covariance about them. */
function mostProbable(
  problem: Problem,
  mean: readonly number[],
  prior: Matrix,
): { readonly x: number[]; readonly covariance: Matrix; readonly strange: readonly boolean[] } {
  const known = mean.length;
  const tubeNumbers = problem.tubes.length * EACH;
  const size = known + problem.doses.length;
  const start = [...mean, ...problem.doses.map(() => 0)];
  const precision = Matrix.zeros(size, size);
  precision.setSubMatrix(inverseOf(prior), 0, 0);
  problem.doses.forEach(({ sigma }, d) => precision.set(known + d, known + d, 1 / sigma ** 2));
  const scale = [
    ...mean.map((_, i) => (i < tubeNumbers ? SIGMA[i % EACH]! : Math.sqrt(prior.get(i, i)))),
    ...problem.doses.map(({ sigma }) => sigma),
  ];
  const seen = problem.observed.flatMap(({ lab }) => [...lab]);
  const weights = problem.observed.flatMap(({ lab, reading }) => {
    const noise = noiseVariances(lab, reading);
    return shapeVariances(lab).map((shape, i) => 1 / (shape + noise[i]!));
  });
  let strange: readonly boolean[] = problem.observed.map(() => false);
  let x = start.slice();
  let curvature = precision;
  for (let round = 0; round < ROUNDS && seen.length > 0; round++) {
    const { at, J } = predictAround(problem, x);
    // How strange a look is is told by what was believed before it, not by what it makes one believe.
    if (round === 0) {
      const odds = oddities(
        problem,
        J,
        prior,
        weights,
        seen.map((v, i) => v - at[i]!),
      );
      strange = odds.map((square) => square > STRANGE);
      odds.forEach((square, k) => {
        if (square > STRANGE) for (let i = 0; i < EACH; i++) weights[k * EACH + i]! *= (STRANGE / square) ** TAIL;
      });
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
  return { x, covariance: inverseOf(curvature), strange };
}

/** How far off each look is from what is believed, squared, in standard deviations of what tubes, knife and reading allow. */
function oddities(problem: Problem, J: Matrix, prior: Matrix, weights: readonly number[], off: readonly number[]): number[] {
  const known = prior.rows;
  const wide = Matrix.zeros(J.columns, J.columns);
  wide.setSubMatrix(prior, 0, 0);
  problem.doses.forEach(({ sigma }, d) => wide.set(known + d, known + d, sigma ** 2));
  return problem.observed.map(({ reading }, k) => {
    if (reading.confirmed) return 0;
    const rows = [0, 1, 2].map((i) => k * EACH + i);
    const own = J.subMatrix(rows[0]!, rows[2]!, 0, J.columns - 1);
    const spread = own.mmul(wide).mmul(own.transpose());
    rows.forEach((row, i) => spread.set(i, i, spread.get(i, i) + 1 / weights[row]!));
    const gap = Matrix.columnVector(rows.map((row) => off[row]!));
    return gap.transpose().mmul(inverseOf(spread)).mmul(gap).get(0, 0);
  });
}

/** Beliefs that speak of all tubes and sightings of a pile, and of no more sightings of old than are kept. */
function readyFor(beliefs: Beliefs, { tubes, sightings }: Problem): Beliefs {
  const own = sightings.map(sightingKey);
  const old = beliefs.ids.filter((id) => isSighting(id) && !own.includes(id));
  const over = new Set(old.slice(0, Math.max(0, old.length - SIGHTINGS_KEPT)));
  const kept = over.size > 0 ? onlyOf(beliefs, (id) => !over.has(id)) : beliefs;
  const taught = new Set(tubes.flatMap(({ id, doubt }) => (doubt ? [id] : [])));
  const withTubes = speakingOf(
    kept,
    firstBeliefs(
      tubes.map((t) => t.id).filter((id) => !kept.ids.includes(id)),
      (id) => taught.has(id),
    ),
  );
  return sightings
    .filter((s) => !kept.ids.includes(sightingKey(s)))
    .reduce((known, s) => speakingOf(known, firstOffset(s, (s.bias * WIDTH[0]) / Math.sqrt(3))), withTubes);
}

/**
 * Learns from a pile whose stages were looked at: strengths, shares of paint and shifts of the tubes
 * in it, the offsets of the sightings it was read in and the dosing error of every addition are
 * estimated together (Gauss–Newton to the most probable values; what stays uncertain is the inverse
 * of the curvature there). Since the looks hang on those alone, the other tubes follow exactly by
 * their covariance (conditioning of a joint normal distribution), however many the studio holds.
 * @param tubes curves of at least the tubes in the pile
 * @throws CraftError for a tube whose curves are not given, parts or a knife that are none
 */
export function learn(beliefs: Beliefs, tubes: readonly Addable[], stages: readonly Stage[]): Learnt {
  const problem = problemOf(tubes, stages);
  const known = readyFor(beliefs, problem);
  const inside = placesOf(known, [...problem.tubes.map((t) => t.id), ...problem.sightings.map(sightingKey)]);
  const before = new Matrix(known.covariance.map((row) => [...row]));
  const prior = before.selection(inside, inside);
  const { x, covariance, strange } = mostProbable(
    problem,
    inside.map((i) => known.mean[i]!),
    prior,
  );
  const parts: Record<string, number> = {};
  problem.doses.forEach(({ tube, parts: meant }, d) => {
    const { id } = problem.tubes[tube]!;
    parts[id] = (parts[id] ?? 0) + meant * Math.exp(x[inside.length + d]!);
  });
  const last = problem.observed.at(-1);
  return {
    beliefs: last ? conditioned(known, inside, x, prior, covariance) : known,
    parts,
    isStrange: strange.at(-1) ?? false,
    ...(last ? unexplained(problem, x, covariance, last) : { residual: [0, 0, 0], offset: [0, 0, 0], unsure: 0 }),
  };
}

/** What the most probable numbers leave unexplained of the last look, less the part of it that is the reading's noise. */
function unexplained(
  problem: Problem,
  x: readonly number[],
  covariance: Matrix,
  { lab, reading, sighting }: Observed,
): Pick<Learnt, 'residual' | 'offset' | 'unsure'> {
  const left = predict(problem, x)
    .slice(-EACH)
    .map((v, i) => lab[i]! - v);
  const offsets = (problem.tubes.length + sighting) * EACH;
  const residual: [number, number, number] = [0, 0, 0];
  const shape = shapeVariances(lab);
  const noise = noiseVariances(lab, reading);
  let squares = 0;
  for (let i = 0; i < EACH; i++) {
    const ofNoise = noise[i]! / (shape[i]! + noise[i]!);
    const likely = MOST_NOISE * Math.sqrt(noise[i]!);
    residual[i] = left[i]! - Math.min(likely, Math.max(-likely, left[i]! * ofNoise));
    const ofOffset = sighting < 0 ? 0 : covariance.get(offsets + i, offsets + i);
    const astray = Math.sqrt(ofOffset + shape[i]! * ofNoise);
    const [L, a, b] = lab.map((v, k) => (k === i ? v + astray : v)) as [number, number, number];
    squares += deltaE00(lab, [L, a, b]) ** 2 / EACH;
  }
  return { residual, offset: sighting < 0 ? [0, 0, 0] : [x[offsets]!, x[offsets + 1]!, x[offsets + 2]!], unsure: Math.sqrt(squares) };
}

/**
 * What is believed after evidence, one pile after the other. The order of the evidence is the
 * caller's; what is left out was never learnt.
 */
export const afterEvidence = (evidence: readonly Evidence[], tubes: readonly Addable[], from: Beliefs = firstBeliefs([])): Beliefs =>
  evidence.reduce((beliefs, { stages }) => learn(beliefs, tubes, stages).beliefs, from);
