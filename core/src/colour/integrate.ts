import { CraftError } from '../errors.ts';
import { BANDS, FIRST_NM, STEP_NM, type Spectrum } from './spectrum.ts';
import { hasLines, illuminantPower, POWER_COUNT, POWER_FIRST_NM, POWER_STEP_NM, type Illuminant } from './illuminants.ts';
import { OBSERVER_1931 } from './tables/observer1931.ts';
import type { Xyz } from './spaces.ts';

/** XYZ weights per band for one light, so that `X = Σ x[i]·R[i]`, with Y of the white at 100. */
export interface Weights {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
  readonly white: Xyz;
}

/** Four neighbouring samples of a table, the first by its place, and how much each counts; used over and over. */
interface Shares4 {
  first: number;
  readonly share: Float64Array;
}
const inTable: Shares4 = { first: 0, share: new Float64Array(4) };
const inBands: Shares4 = { first: 0, share: new Float64Array(4) };

/**
 * Shares of four neighbouring samples in the value at `position` (in samples) of an evenly
 * spaced table of `count`: cubic Lagrange interpolation, as in ASTM E2022. Written in place: it is
 * done a thousand times before the first colour is seen.
 */
function cubicShares(position: number, count: number, into: Shares4): void {
  const first = Math.min(Math.max(Math.floor(position) - 1, 0), count - 4);
  const t = position - first;
  into.first = first;
  into.share[0] = ((t - 1) * (t - 2) * (t - 3)) / -6;
  into.share[1] = (t * (t - 2) * (t - 3)) / 2;
  into.share[2] = (t * (t - 1) * (t - 3)) / -2;
  into.share[3] = (t * (t - 1) * (t - 2)) / 6;
}

/** Share of each band in the reflectance at `nm`; end values held outside 380–730 nm (ASTM E308). */
function bandShares(nm: number, into: Shares4): void {
  const position = (nm - FIRST_NM) / STEP_NM;
  if (position > 0 && position < BANDS - 1) return cubicShares(position, BANDS, into);
  into.first = position <= 0 ? 0 : BANDS - 4;
  into.share.fill(0);
  into.share[position <= 0 ? 0 : 3] = 1;
}

/** Value of a smooth 5 nm table where {@link inTable} says. */
function readSmooth(table: readonly number[]): number {
  const { first, share } = inTable;
  return share[0]! * table[first]! + share[1]! * table[first + 1]! + share[2]! * table[first + 2]! + share[3]! * table[first + 3]!;
}

/** Value of a 5 nm table of power at any wavelength inside it, linear as CIE 15 asks of its illuminants. */
function readPower(table: readonly number[], nm: number): number {
  const position = (nm - POWER_FIRST_NM) / POWER_STEP_NM;
  const i = Math.min(Math.floor(position), POWER_COUNT - 2);
  const t = position - i;
  return table[i]! * (1 - t) + table[i + 1]! * t;
}

function makeWeights(light: Illuminant): Weights {
  const power = illuminantPower(light);
  const step = hasLines(light) ? POWER_STEP_NM : 1;
  const sums = [new Float64Array(BANDS), new Float64Array(BANDS), new Float64Array(BANDS)] as const;
  const tables = [OBSERVER_1931.x, OBSERVER_1931.y, OBSERVER_1931.z];
  for (let nm = POWER_FIRST_NM; nm <= 780; nm += step) {
    const p = readPower(power, nm);
    bandShares(nm, inBands);
    cubicShares((nm - POWER_FIRST_NM) / POWER_STEP_NM, POWER_COUNT, inTable);
    for (let c = 0; c < 3; c++) {
      const w = p * readSmooth(tables[c]!);
      for (let k = 0; k < 4; k++) sums[c]![inBands.first + k]! += w * inBands.share[k]!;
    }
  }
  const total = sums[1].reduce((s, v) => s + v, 0);
  for (const sum of sums) for (let i = 0; i < BANDS; i++) sum[i]! *= 100 / total;
  const add = (s: Float64Array) => s.reduce((t, v) => t + v, 0);
  return { x: sums[0], y: sums[1], z: sums[2], white: [add(sums[0]), add(sums[1]), add(sums[2])] };
}

const made = new Map<Illuminant, Weights>();

/** Weights for a light, made once. */
export function weightsFor(light: Illuminant): Weights {
  let w = made.get(light);
  if (!w) made.set(light, (w = makeWeights(light)));
  return w;
}

/** XYZ of the perfect diffuser under a light. */
export const whiteOf = (light: Illuminant): Xyz => weightsFor(light).white;

/**
 * XYZ of a reflectance under a light, CIE 1931 2° observer.
 * @throws CraftError for a spectrum of another length
 */
export function spectrumToXyz(r: Spectrum, light: Illuminant = 'D65'): Xyz {
  if (r.length !== BANDS) throw new CraftError('spectrum', `A spectrum must hold ${BANDS} bands; this one holds ${r.length}.`);
  const w = weightsFor(light);
  let X = 0;
  let Y = 0;
  let Z = 0;
  for (let i = 0; i < BANDS; i++) {
    const v = r[i]!;
    X += w.x[i]! * v;
    Y += w.y[i]! * v;
    Z += w.z[i]! * v;
  }
  return [X, Y, Z];
}
