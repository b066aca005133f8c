import { CholeskyDecomposition, EigenvalueDecomposition, inverse, Matrix } from 'ml-matrix';
import { deltaE00, type Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { BANDS, type Spectrum } from '../colour/spectrum.ts';
import { CraftError, finite } from '../errors.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { shifted } from '../paint/deviation.ts';
import { THROUGH_SURFACE, K2_INSIDE, outward, thickReflectance } from '../paint/kubelkaMunk.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import { BOTH, emptySlopes, endToEnd, eyeFor } from '../paint/viewing.ts';

/** What is read of one swatch: paint laid too thick to see through. */
export interface SwatchReading {
  /** Parts of the tube that is taught, and of white. */
  readonly parts: { readonly tube: number; readonly white: number };
  /** 36 bands, 0–1, the mirror part left out; or its D65 colour. */
  readonly spectrum?: Spectrum;
  readonly lab?: Lab;
  /** What it was mixed with instead of the white of the others. */
  readonly other?: PaintCurves;
  /** By what a colour was read; a spectrum is a reader's. */
  readonly by?: 'photo' | 'eye';
}

/** A tube as its swatches tell it. */
export interface FittedTube extends PaintCurves {
  /** Tinting strength in times of what it was taken for, and how far its bands lie to the red, nm. */
  readonly strength: number;
  readonly shiftNm: number;
  /** ΔE00 from each reading to what the fitted tube gives there, and what the typical one gave. */
  readonly residuals: readonly Delta[];
  readonly before: readonly Delta[];
  /** What is still open: changes of log K and log S end to end, one standard deviation each (72 numbers), the largest first. */
  readonly doubt: readonly Float64Array[];
  /** How far it lies from what is usual among tubes of its pigment, in standard deviations. */
  readonly strangeness: number;
}

/** Beyond so much strangeness it is likely another paint than the one it was taken for. */
export const ANOTHER_PAINT = 3;

/** Standard deviations among tubes of one pigment, a little wide, since makers differ in ways of their own. */
const PRIOR = { strength: 0.26, share: 0.1, shiftNm: 4, shape: 0.095, own: 0.012 } as const;
/** Bands over which an error of shape hangs together. */
const REACH = 6.5;
/** What a reader scatters by, in reflectance and as a share of it; and what photos and eyes do in L, a, b: each swatch by itself, and all alike. */
const READER = { floor: 0.002, share: 0.006 } as const;
const SEEN: Readonly<Record<'photo' | 'eye', { readonly own: number; readonly alike: number }>> = {
  photo: { own: 0.75, alike: 0.75 },
  eye: { own: 1.4, alike: 1 },
};
/** Log parts that a tint is off by. */
const DOSE = 0.01;
const ROUNDS = 14;
const SETTLED = 1e-5;
/** Of the doubt so many ways are kept. */
const WAYS = 12;
/** Its prior is wide, so that strange tubes are followed; among usual ones nine of ten lie within this much of what it leaves open. Swatches of one card are off alike, which each tube is told by itself. */
const USUALLY = { reader: 0.8, seen: 0.88 } as const;

/** Precision of log K and log S, end to end, before anything was read. */
let precisionKept: Matrix | undefined;
function priorPrecision(): Matrix {
  if (precisionKept) return precisionKept;
  const prior = Matrix.zeros(BOTH, BOTH);
  for (let i = 0; i < BOTH; i++)
    for (let j = 0; j < BOTH; j++) {
      const half = (k: number): number => (k < BANDS ? 1 : 0.5);
      const isOne = i < BANDS === j < BANDS;
      const near = isOne ? Math.exp(-0.5 * (((i % BANDS) - (j % BANDS)) / REACH) ** 2) : 0;
      prior.set(
        i,
        j,
        PRIOR.strength ** 2 * half(i) * half(j) + PRIOR.share ** 2 + PRIOR.shape ** 2 * near + (i === j ? PRIOR.own ** 2 : 0),
      );
    }
  const precision = inverse(prior);
  // Rounding leaves it a hair from symmetric, which Cholesky refuses.
  return (precisionKept = precision.clone().add(precision.transpose()).div(2));
}

/** Unknowns: log K and log S of every band, shift in nm over its prior, log parts of each tint, and what photo and eye read too high. */
const AT_SHIFT = BOTH;
const AT_DOSE = BOTH + 1;

interface Setting {
  readonly from: PaintCurves;
  readonly white: PaintCurves;
  readonly readings: readonly SwatchReading[];
  readonly unknowns: number;
  /** Where the offsets of photo and eye stand. */
  readonly atOffset: Readonly<Record<'photo' | 'eye', number>>;
}

/** Curves by their unknowns. */
function curvesAt({ from }: Setting, x: Float64Array): PaintCurves {
  const K = shifted(from.K, x[AT_SHIFT]! * PRIOR.shiftNm);
  const S = shifted(from.S, x[AT_SHIFT]! * PRIOR.shiftNm);
  for (let i = 0; i < BANDS; i++) {
    K[i]! *= Math.exp(x[i]!);
    S[i]! *= Math.exp(x[BANDS + i]!);
  }
  return { K, S };
}

/** Log change of each band with the shift's unknown. */
function slopeOfShift({ from }: Setting, x: Float64Array): Float64Array {
  const out = new Float64Array(BOTH);
  const by = x[AT_SHIFT]! * PRIOR.shiftNm;
  [from.K, from.S].forEach((curve, which) => {
    const red = shifted(curve, by + 0.5);
    const blue = shifted(curve, by - 0.5);
    for (let i = 0; i < BANDS; i++) out[which * BANDS + i] = PRIOR.shiftNm * (Math.log(red[i]!) - Math.log(blue[i]!));
  });
  return out;
}

/** Adds one row of a linear system: what is off, how it changes with each unknown, over its standard deviation. */
type Row = (off: number, slopes: ReadonlyMap<number, number>, sigma: number) => void;

/** Off and slopes of every reading at some unknowns. */
function readAll(setting: Setting, x: Float64Array, row: Row): void {
  const paint = curvesAt(setting, x);
  const byShift = slopeOfShift(setting, x);
  const eye = eyeFor();
  const slopes = emptySlopes();
  const identity = Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1);
  setting.readings.forEach(({ parts, spectrum, lab, by = 'photo', other = setting.white }, n) => {
    const tube = parts.tube * Math.exp(DOSE * x[AT_DOSE + n]!);
    const whole = tube + parts.white;
    const share = tube / whole;
    const mixed = mixCurves([{ paint, parts: tube }, ...(parts.white > 0 ? [{ paint: other, parts: parts.white }] : [])]);
    /** Curves of the mixture change with a dose by so much of what sets tube and white apart. */
    const dosed = parts.white > 0 ? DOSE * share * (1 - share) : 0;
    const apart = (which: 'K' | 'S', i: number): number => dosed * (paint[which][i]! - other[which][i]!);
    if (spectrum) {
      for (let i = 0; i < BANDS; i++) {
        const k = mixed.K[i]!;
        const s = mixed.S[i]!;
        const inside = thickReflectance(k, s);
        const R = outward(inside);
        // dR∞/d(K/S) = −R∞ / √(q² + 2q)
        const q = k / s;
        const byQ = (-inside / Math.sqrt(q * q + 2 * q + 1e-12)) * (THROUGH_SURFACE / (1 - K2_INSIDE * inside) ** 2);
        const dK = byQ / s;
        const dS = (-byQ * q) / s;
        const ofK = dK * share * paint.K[i]!;
        const ofS = dS * share * paint.S[i]!;
        row(
          spectrum[i]! - R,
          new Map([
            [i, ofK],
            [BANDS + i, ofS],
            [AT_SHIFT, ofK * byShift[i]! + ofS * byShift[BANDS + i]!],
            [AT_DOSE + n, dK * apart('K', i) + dS * apart('S', i)],
          ]),
          READER.floor + READER.share * R,
        );
      }
      return;
    }
    const seen = eye.seeWithSlopes(endToEnd(mixed), identity, slopes);
    const { own } = SEEN[by];
    for (let axis = 0; axis < 3; axis++) {
      const all = new Map<number, number>();
      let shift = 0;
      let dose = 0;
      for (let i = 0; i < BOTH; i++) {
        const which = i < BANDS ? 'K' : 'S';
        const slope = slopes[axis * BOTH + i]!;
        const moves = slope * share * paint[which][i % BANDS]!;
        all.set(i, moves);
        shift += moves * byShift[i]!;
        dose += slope * apart(which, i % BANDS);
      }
      all
        .set(AT_SHIFT, shift)
        .set(AT_DOSE + n, dose)
        .set(setting.atOffset[by] + axis, 1);
      row(lab![axis]! - seen[axis]! - x[setting.atOffset[by] + axis]!, all, own);
    }
  });
}

/** Precision of the unknowns before anything was read. */
function precisionBefore({ unknowns, atOffset }: Setting): Matrix {
  const P = Matrix.zeros(unknowns, unknowns);
  P.setSubMatrix(priorPrecision(), 0, 0);
  for (let i = AT_SHIFT; i < atOffset.photo; i++) P.set(i, i, 1);
  for (const by of ['photo', 'eye'] as const)
    for (let axis = 0; axis < 3; axis++) P.set(atOffset[by] + axis, atOffset[by] + axis, 1 / SEEN[by].alike ** 2);
  return P;
}

/** Half of −2 log of the likelihood and the prior together. */
function costAt(setting: Setting, x: Float64Array, before: Matrix): number {
  const vector = Matrix.columnVector(Array.from(x));
  let cost = vector.transpose().mmul(before.mmul(vector)).get(0, 0);
  readAll(setting, x, (off, _, sigma) => (cost += robust(off / sigma)));
  return cost;
}
/** What is far off counts by its length instead of its square (Huber 1964). */
const FAR = 3;
const robust = (z: number): number => (Math.abs(z) <= FAR ? z * z : FAR * (2 * Math.abs(z) - FAR));
const weightOf = (z: number): number => Math.min(1, FAR / Math.max(1e-9, Math.abs(z)));

interface Solved {
  readonly x: Float64Array;
  readonly precision: Matrix;
  readonly cost: number;
}

/** Damped Gauss–Newton about the prior's mean. */
function solved(setting: Setting): Solved {
  const before = precisionBefore(setting);
  const x = new Float64Array(setting.unknowns);
  let cost = costAt(setting, x, before);
  let precision = before;
  for (let round = 0; round < ROUNDS; round++) {
    const A = before.clone();
    const g = before.mmul(Matrix.columnVector(Array.from(x))).mul(-1);
    readAll(setting, x, (off, slopes, sigma) => {
      const w = weightOf(off / sigma) / sigma ** 2;
      const entries = [...slopes];
      for (const [i, a] of entries) {
        g.set(i, 0, g.get(i, 0) + w * a * off);
        for (const [j, b] of entries) A.set(i, j, A.get(i, j) + w * a * b);
      }
    });
    for (let i = 0; i < setting.unknowns; i++) for (let j = 0; j < i; j++) A.set(j, i, A.get(i, j));
    precision = A;
    const step = new CholeskyDecomposition(A).solve(g);
    let by = 1;
    let next = x;
    let nextCost = Infinity;
    for (; by > 0.05; by /= 2) {
      next = x.map((v, i) => v + by * step.get(i, 0));
      nextCost = costAt(setting, next, before);
      if (nextCost <= cost) break;
    }
    if (!(nextCost <= cost)) break;
    const gained = cost - nextCost;
    x.set(next);
    cost = nextCost;
    if (gained < SETTLED * (1 + cost)) break;
  }
  return { x, precision, cost };
}

/** The ways in which curves may still be off, by the inverse of what is known of them. */
function doubtFrom(precision: Matrix, usually: number): Float64Array[] {
  const covariance = inverse(precision).subMatrix(0, BOTH - 1, 0, BOTH - 1);
  // The shift is told in the curves already: what it leaves open moves them less than their own doubt does.
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(covariance, { assumeSymmetric: true });
  return realEigenvalues
    .map((value, i) => ({ value, way: eigenvectorMatrix.getColumn(i) }))
    .sort((one, other) => other.value - one.value)
    .slice(0, WAYS)
    .filter(({ value }) => value > 1e-8)
    .map(({ value, way }) => Float64Array.from(way, (v) => v * usually * Math.sqrt(value)));
}

function settingFor(from: PaintCurves, white: PaintCurves, readings: readonly SwatchReading[]): Setting {
  const photo = AT_DOSE + readings.length;
  return { from, white, readings, unknowns: photo + 6, atOffset: { photo, eye: photo + 3 } };
}

/** Most swatches of one tube. */
export const MOST_SWATCHES = 12;

/** @throws CraftError for readings that cannot be of paint */
export function checkReadings(readings: readonly SwatchReading[]): void {
  if (readings.length === 0) throw new CraftError('input', 'There is nothing to go by yet: read the tube as it comes, and a tint or two.');
  if (readings.length > MOST_SWATCHES) throw new CraftError('input', `At most ${MOST_SWATCHES} swatches tell of one tube.`);
  for (const { parts, spectrum, lab } of readings) {
    const tube = finite('parts', 'The parts of the tube', parts.tube);
    const white = finite('parts', 'The parts of white', parts.white);
    if (!(tube > 0 && white >= 0 && tube < 1e6 && white < 1e6))
      throw new CraftError('parts', 'A swatch holds some of the tube, and none or more of white.');
    if (spectrum) {
      if (spectrum.length !== BANDS)
        throw new CraftError('spectrum', `A reading holds ${BANDS} bands from 380 nm; this one holds ${spectrum.length}.`);
      if (!spectrum.every(Number.isFinite)) throw new CraftError('spectrum', 'A reading holds something that is no number.');
      if (spectrum.some((v) => v > 1.02))
        throw new CraftError(
          'spectrum',
          'A reading is brighter than white paper can be: the reader was saturated, or wants its white tile again.',
        );
      if (spectrum.every((v) => v <= 0.001))
        throw new CraftError('spectrum', 'A reading is black throughout: nothing lay under the reader.');
      if (spectrum.some((v) => v < -0.01))
        throw new CraftError('spectrum', 'A reading is darker than nothing: the reader wants its dark setting again.');
    } else if (!lab?.every(Number.isFinite)) throw new CraftError('colour', 'A swatch needs a spectrum or a colour.');
    else if (lab[0] > 101 || lab[0] < 0) throw new CraftError('colour', 'A swatch cannot be lighter than paper or darker than black.');
  }
}

const colourOf = ({ spectrum, lab }: SwatchReading): Lab => lab ?? labOf(spectrum!);
/** What a paint gives in the shares of a reading. */
function givenBy(paint: PaintCurves, white: PaintCurves, { parts, other = white }: SwatchReading): Lab {
  return labOf(
    reflectance(
      mixCurves([
        { paint, parts: parts.tube },
        { paint: other, parts: parts.white },
      ]),
    ),
  );
}

/**
 * Fits a tube's K and S to swatches of it with white: log K, log S and a shift of the bands under a smooth prior about
 * curves typical of the pigment, by Gauss–Newton. White keeps its curves, which fixes the size of S (readings of
 * opaque paint tell S only against it).
 * @param from curves the tube was taken for
 * @param white the white of the tints: its S is typical by convention; see {@link fitWhite}
 * @throws CraftError for readings that cannot be of paint
 */
export function fitTube(from: PaintCurves, white: PaintCurves, readings: readonly SwatchReading[]): FittedTube {
  checkReadings(readings);
  const setting = settingFor(from, white, readings);
  const { x, precision } = solved(setting);
  const { K, S } = curvesAt(setting, x);
  const distance = (paint: PaintCurves) => readings.map((one) => deltaE00(givenBy(paint, white, one), colourOf(one)));
  const own = Matrix.columnVector(Array.from(x.subarray(0, BOTH)));
  const away = own.transpose().mmul(priorPrecision().mmul(own)).get(0, 0) + x[AT_SHIFT]! ** 2;
  // What the prior leaves room for has about as many ways as there are tellings: strength, share, shift and a few of shape.
  const strangeness = Math.sqrt(away / FREE_WAYS);
  return {
    K,
    S,
    strength: strengthOf(from, { K, S }),
    shiftNm: x[AT_SHIFT]! * PRIOR.shiftNm,
    residuals: distance({ K, S }),
    before: distance(from),
    doubt: doubtFrom(precision, readings.some(({ spectrum }) => spectrum) ? USUALLY.reader : USUALLY.seen),
    strangeness,
  };
}
const FREE_WAYS = 6;

/** How strong paint is against other curves: by what both absorb, where the first absorbs most. */
function strengthOf(from: PaintCurves, to: PaintCurves): number {
  let weights = 0;
  let logs = 0;
  for (let i = 0; i < BANDS; i++) {
    weights += from.K[i]!;
    logs += from.K[i]! * Math.log(to.K[i]! / from.K[i]!);
  }
  return Math.exp(logs / weights);
}

/** Fits a white as it comes: its S stays typical, so that all else is told against it; its K follows in every band. */
export function fitWhite(from: PaintCurves, readings: readonly SwatchReading[]): FittedTube {
  const alone = readings.filter(({ parts }) => parts.white === 0);
  if (alone.length === 0) throw new CraftError('input', 'A white is told by itself, straight from the tube.');
  const { K, S, doubt, ...rest } = fitTube(from, from, alone);
  // An opaque reading tells K/S alone: what the fit gave S goes to K.
  const own = K.map((k, i) => (k * from.S[i]!) / S[i]!);
  const ways = doubt.map((way) => way.map((v, i) => (i < BANDS ? v - way[BANDS + i]! : 0)));
  return { ...rest, K: own, S: from.S, doubt: ways };
}

/** Whether the parts of some readings look exchanged: another order of the same swatches fits far better. */
export function looksSwapped(
  from: PaintCurves,
  white: PaintCurves,
  readings: readonly SwatchReading[],
): readonly [number, number] | undefined {
  if (readings.length < 2) return undefined;
  const costOf = (list: readonly SwatchReading[]): number => {
    const setting = settingFor(from, white, list);
    return solved(setting).cost;
  };
  const own = costOf(readings);
  let best = own;
  let pair: readonly [number, number] | undefined;
  for (let i = 0; i < readings.length; i++)
    for (let j = i + 1; j < readings.length; j++) {
      const a = readings[i]!;
      const b = readings[j]!;
      if (a.parts.tube * b.parts.white === b.parts.tube * a.parts.white) continue;
      const cost = costOf(readings.map((one, n) => (n === i ? { ...one, parts: b.parts } : n === j ? { ...one, parts: a.parts } : one)));
      if (cost < best) [best, pair] = [cost, [i, j]];
    }
  return own - best > CLEARLY ? pair : undefined;
}
/** So much likelier, in squared standard deviations, is clear. */
const CLEARLY = 30;
