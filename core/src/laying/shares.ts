import { ellipsoidAt, type Matrix3 } from '../colour/ellipse.ts';
import type { Lab } from '../colour/spaces.ts';
import { BOTH, emptySlopes, type Curves72, type Slopes } from '../paint/viewing.ts';
import type { Palette } from './palette.ts';

/** Most ingredients whose shares are sought together: three numbers make a colour, a fourth share makes the whole. */
export const MOST_TOGETHER = 4;
/** Shares below this are none; below the second only where they bring a set to the target. */
const LEAST_SHARE = 4e-6;
const TRACE = 1e-4;
const THERE = 1;
/** ΔE00 from which nothing better is sought, where shares are only ranked; and what counts as a gain. */
const NEAR_ENOUGH = 0.12;
const GAINING = 0.02;
const MOST_ROUNDS = 9;

/** Shares of a set that come nearest to a target. */
export interface Shares {
  readonly set: readonly number[];
  readonly shares: Float64Array;
  readonly lab: Lab;
  /** What is missing to the target in the ellipsoid's measure: |off| ≈ ΔE00. */
  readonly off: readonly [number, number, number];
  readonly distance: number;
  /** How `off` changes with each share, three numbers each. */
  readonly pulls: Float64Array;
}

/** Room for reckoning, used over and over. */
export interface Desktop {
  /** A mixture's curves end to end. */
  readonly mixed: Curves72;
  readonly slopes: Slopes;
}
export const desktop = (): Desktop => ({ mixed: new Float64Array(BOTH), slopes: emptySlopes() });

/** Sums the curves of a set by its shares into the desktop. */
export function mixInto({ mixed }: Desktop, { table }: Palette, set: readonly number[], shares: ArrayLike<number>): void {
  const n = set.length;
  // Sets are small; a share of nothing of the first stands for those that are not there.
  const a = set[0]! * BOTH;
  const b = n > 1 ? set[1]! * BOTH : a;
  const c = n > 2 ? set[2]! * BOTH : a;
  const d = n > 3 ? set[3]! * BOTH : a;
  const sa = shares[0]!;
  const sb = n > 1 ? shares[1]! : 0;
  const sc = n > 2 ? shares[2]! : 0;
  const sd = n > 3 ? shares[3]! : 0;
  for (let i = 0; i < BOTH; i++) mixed[i] = sa * table[a + i]! + sb * table[b + i]! + sc * table[c + i]! + sd * table[d + i]!;
}

/** How U·Lab changes with the share of one paint, by the slopes on the desktop; its curves stand in `table` from `from` on. */
export function pullOf({ slopes }: Desktop, table: Float64Array, from: number, into: Float64Array, at: number): void {
  let l = 0;
  let c = 0;
  let h = 0;
  for (let i = 0; i < BOTH; i++) {
    const v = table[from + i]!;
    l += slopes[i]! * v;
    c += slopes[BOTH + i]! * v;
    h += slopes[2 * BOTH + i]! * v;
  }
  into[at] = l;
  into[at + 1] = c;
  into[at + 2] = h;
}

export const offFrom = (U: Matrix3, lab: Lab, target: Lab): [number, number, number] => {
  const da = lab[1] - target[1];
  const db = lab[2] - target[2];
  return [U[0]! * (lab[0] - target[0]), U[4]! * da + U[5]! * db, U[7]! * da + U[8]! * db];
};

const root = new Float64Array(9);
const between = new Float64Array(3);
/**
 * Solves A·x = g for a symmetric positive matrix of up to 3 × 3 (by rows of 3) by Cholesky's
 * factors. It is the innermost loop of every search, where a package's matrices cost more than the solve.
 * @returns whether there is a solution; it is written to `x`
 */
export function solveThree(A: Float64Array, g: Float64Array, m: number, x: Float64Array): boolean {
  for (let i = 0; i < m; i++)
    for (let j = 0; j <= i; j++) {
      let sum = A[3 * i + j]!;
      for (let k = 0; k < j; k++) sum -= root[3 * i + k]! * root[3 * j + k]!;
      if (i !== j) root[3 * i + j] = sum / root[4 * j]!;
      else if (sum > 0) root[4 * i] = Math.sqrt(sum);
      else return false;
    }
  for (let i = 0; i < m; i++) {
    let sum = g[i]!;
    for (let k = 0; k < i; k++) sum -= root[3 * i + k]! * between[k]!;
    between[i] = sum / root[4 * i]!;
  }
  for (let i = m - 1; i >= 0; i--) {
    let sum = between[i]!;
    for (let k = i + 1; k < m; k++) sum -= root[3 * k + i]! * x[k]!;
    x[i] = sum / root[4 * i]!;
  }
  return true;
}

const normal = new Float64Array(9);
const right = new Float64Array(3);
const step = new Float64Array(3);
/** A trace of damping keeps two paints of nearly one pull apart. */
const DAMPING = 1e-7;

/** The Gauss–Newton step of shares 1 … n − 1, share 0 taking the rest; false when there is none. */
function gaussNewton(pulls: Float64Array, off: readonly number[], n: number): boolean {
  const m = n - 1;
  for (let i = 0; i < m; i++) {
    const p = 3 * (i + 1);
    const x = pulls[p]! - pulls[0]!;
    const y = pulls[p + 1]! - pulls[1]!;
    const z = pulls[p + 2]! - pulls[2]!;
    for (let j = 0; j <= i; j++) {
      const q = 3 * (j + 1);
      normal[3 * i + j] = x * (pulls[q]! - pulls[0]!) + y * (pulls[q + 1]! - pulls[1]!) + z * (pulls[q + 2]! - pulls[2]!);
    }
    right[i] = -(x * off[0]! + y * off[1]! + z * off[2]!);
    normal[4 * i]! *= 1 + DAMPING;
  }
  return solveThree(normal, right, m, step);
}

/** A share that is left this much of itself by a straight step is one with some to spare. */
const TO_SPARE = 0.4;

/**
 * How near some shares come to a colour by one straight step, ΔE00; Infinity where some share would be left too little
 * of itself for the line to be trusted.
 * @param off from the colour, in the measure of the pulls
 */
export function straightTo({ set, shares, pulls }: Shares, off: readonly [number, number, number]): number {
  const n = set.length;
  if (n === 1) return Math.hypot(...off);
  if (!gaussNewton(pulls, off, n)) return Infinity;
  let first = 0;
  let [l, c, h] = off;
  for (let k = 1; k < n; k++) {
    const by = step[k - 1]!;
    if (by < (TO_SPARE - 1) * shares[k]!) return Infinity;
    first -= by;
    l += by * pulls[3 * k]!;
    c += by * pulls[3 * k + 1]!;
    h += by * pulls[3 * k + 2]!;
  }
  if (first < (TO_SPARE - 1) * shares[0]!) return Infinity;
  return Math.hypot(l + first * pulls[0]!, c + first * pulls[1]!, h + first * pulls[2]!);
}

/** A share is at most brought down to this share of itself in one step. */
const LEAST_LEFT = 0.12;

/** Takes the step as far as every share stays above nothing. @returns whether every share is still one */
function takeStep(shares: Float64Array): boolean {
  const n = shares.length;
  let first = 0;
  for (let k = 1; k < n; k++) first -= step[k - 1]!;
  let far = 1;
  for (let k = 0; k < n; k++) {
    const by = k === 0 ? first : step[k - 1]!;
    if (by < -(1 - LEAST_LEFT) * shares[k]!) far = Math.min(far, ((1 - LEAST_LEFT) * shares[k]!) / -by);
  }
  let inside = true;
  for (let k = 0; k < n; k++) {
    shares[k]! += far * (k === 0 ? first : step[k - 1]!);
    if (shares[k]! < LEAST_SHARE) inside = false;
  }
  return inside;
}

/** What shares of a set come to, with the pulls about them. */
export function sharesAt(palette: Palette, set: readonly number[], shares: Float64Array, target: Lab, U: Matrix3, desk: Desktop): Shares {
  mixInto(desk, palette, set, shares);
  const lab = palette.eye.seeWithSlopes(desk.mixed, U, desk.slopes);
  const off = offFrom(U, lab, target);
  const pulls = new Float64Array(3 * set.length);
  for (let k = 0; k < set.length; k++) pullOf(desk, palette.table, set[k]! * BOTH, pulls, 3 * k);
  return { set, shares, lab, off, distance: Math.sqrt(off[0] * off[0] + off[1] * off[1] + off[2] * off[2]), pulls };
}

/**
 * Exact shares of a set that bring it nearest to a target (Gauss–Newton on U·Lab, as Allen 1974 solved
 * two-constant matches). Nothing where a share falls to none: then a smaller set does as well.
 * @param start shares to start from, all above 0
 * @param enough ΔE00 from which nothing better is sought
 */
export function nearestShares(
  palette: Palette,
  set: readonly number[],
  start: ArrayLike<number>,
  target: Lab,
  U: Matrix3 = ellipsoidAt(target),
  desk: Desktop = desktop(),
  enough = NEAR_ENOUGH,
): Shares | undefined {
  const n = set.length;
  const shares = Float64Array.from(start);
  let whole = 0;
  for (let k = 0; k < n; k++) whole += shares[k]!;
  for (let k = 0; k < n; k++) shares[k]! /= whole;
  let before = Infinity;
  for (let round = 0; ; round++) {
    const found = sharesAt(palette, set, shares, target, U, desk);
    const { distance, off, pulls } = found;
    const done = n === 1 || round >= MOST_ROUNDS || distance < enough || Math.abs(before - distance) < Math.min(GAINING, enough);
    if (done || !gaussNewton(pulls, off, n)) return distance > THERE && shares.some((share) => share < TRACE) ? undefined : found;
    before = distance;
    if (!takeStep(shares)) return undefined;
  }
}
