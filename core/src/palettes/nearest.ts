import { deltaE00, type Delta } from '../colour/difference.ts';
import { ellipsoidAt } from '../colour/ellipse.ts';
import type { Lab } from '../colour/spaces.ts';
import { offFrom, pullOf, solveThree, type Desktop, desktop } from '../laying/shares.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { BOTH, endToEnd, eyeFor, type Eye } from '../paint/viewing.ts';

/** Tubes laid out so that any few of them can be mixed. */
export interface Bench {
  readonly count: number;
  /** Curves end to end, one tube after the other. */
  readonly table: Float64Array;
  /** Log parts with which each tube counts as much as any other. */
  readonly even: Float64Array;
  readonly eye: Eye;
  readonly desk: Desktop;
}

/** What absorbs and scatters nothing still counts for something. */
const LEAST_WEIGHT = 0.05;

export function layBench(paints: readonly PaintCurves[]): Bench {
  const table = new Float64Array(paints.length * BOTH);
  const even = new Float64Array(paints.length);
  paints.forEach((paint, i) => {
    const curves = endToEnd(paint);
    table.set(curves, i * BOTH);
    even[i] = -Math.log(LEAST_WEIGHT + curves.reduce((sum, v) => sum + v, 0) / BOTH);
  });
  return { count: paints.length, table, even, eye: eyeFor(), desk: desktop() };
}

/** The nearest that some tubes come to a colour, in any shares. */
export interface NearestShares {
  /** Log parts of each tube of the set. */
  readonly logs: Float64Array;
  readonly lab: Lab;
  readonly distance: Delta;
}

const ROUNDS = 26;
const FIRST_DAMPING = 0.02;
/** No tube is let go below this log part under the most: what is gone could not come back. */
const LEAST_LOG = -13;
/** The longest step of one log part. */
const LONGEST = 2.5;

const normal = new Float64Array(9);
const right = new Float64Array(3);
const step = new Float64Array(3);
const pulls = new Float64Array(3 * 64);

/**
 * The shares of a set of tubes that come nearest to a colour: Levenberg–Marquardt in log parts, where the shortest step
 * that mends three numbers takes three equations however many tubes there are.
 * @param from log parts to begin with, as long as the set
 * @param enough ΔE00 from which nothing nearer is sought
 */
export function nearestOf(
  { table, eye, desk }: Bench,
  set: readonly number[],
  target: Lab,
  from: ArrayLike<number>,
  enough: Delta,
): NearestShares {
  const U = ellipsoidAt(target);
  const n = set.length;
  const logs = Float64Array.from(from);
  const tried = new Float64Array(n);
  const { mixed, slopes } = desk;
  function mix(by: Float64Array): void {
    mixed.fill(0);
    let most = -Infinity;
    for (let k = 0; k < n; k++) most = Math.max(most, by[k]!);
    let whole = 0;
    for (let k = 0; k < n; k++) whole += Math.exp(by[k]! - most);
    for (let k = 0; k < n; k++) {
      const share = Math.exp(by[k]! - most) / whole;
      const at = set[k]! * BOTH;
      for (let i = 0; i < BOTH; i++) mixed[i] = mixed[i]! + share * table[at + i]!;
    }
  }
  const shareOf = (k: number): number => {
    let whole = 0;
    for (let j = 0; j < n; j++) whole += Math.exp(logs[j]! - logs[k]!);
    return 1 / whole;
  };
  mix(logs);
  let lab = eye.seeWithSlopes(mixed, U, slopes);
  let off = offFrom(U, lab, target);
  let length = Math.hypot(...off);
  let damping = FIRST_DAMPING;
  for (let round = 0; round < ROUNDS && length > enough; round++) {
    // How each log part moves the colour: by its share, and against the whole.
    let ml = 0;
    let mc = 0;
    let mh = 0;
    for (let k = 0; k < n; k++) {
      pullOf(desk, table, set[k]! * BOTH, pulls, 3 * k);
      const share = shareOf(k);
      for (let j = 0; j < 3; j++) pulls[3 * k + j] = pulls[3 * k + j]! * share;
      ml += pulls[3 * k]!;
      mc += pulls[3 * k + 1]!;
      mh += pulls[3 * k + 2]!;
    }
    for (let k = 0; k < n; k++) {
      const share = shareOf(k);
      pulls[3 * k] = pulls[3 * k]! - share * ml;
      pulls[3 * k + 1] = pulls[3 * k + 1]! - share * mc;
      pulls[3 * k + 2] = pulls[3 * k + 2]! - share * mh;
    }
    normal.fill(0);
    for (let k = 0; k < n; k++)
      for (let i = 0; i < 3; i++)
        for (let j = 0; j <= i; j++) normal[3 * i + j] = normal[3 * i + j]! + pulls[3 * k + i]! * pulls[3 * k + j]!;
    const size = (normal[0]! + normal[4]! + normal[8]!) / 3;
    let isBetter = false;
    for (let again = 0; again < 5 && !isBetter; again++) {
      for (let i = 0; i < 3; i++) {
        right[i] = -off[i]!;
        for (let j = 0; j <= i; j++) damped[3 * i + j] = normal[3 * i + j]!;
        damped[4 * i] = damped[4 * i]! + damping * size + 1e-9;
      }
      if (!solveThree(damped, right, 3, step)) break;
      let most = -Infinity;
      for (let k = 0; k < n; k++) {
        const by = pulls[3 * k]! * step[0]! + pulls[3 * k + 1]! * step[1]! + pulls[3 * k + 2]! * step[2]!;
        tried[k] = logs[k]! + Math.max(-LONGEST, Math.min(LONGEST, by));
        most = Math.max(most, tried[k]!);
      }
      for (let k = 0; k < n; k++) tried[k] = Math.max(LEAST_LOG, tried[k]! - most);
      mix(tried);
      const nextLab = eye.see(mixed);
      const nextOff = offFrom(U, nextLab, target);
      const next = Math.hypot(...nextOff);
      if (next < length) {
        isBetter = true;
        const gained = length - next;
        logs.set(tried);
        [lab, off, length] = [nextLab, nextOff, next];
        damping = Math.max(1e-7, damping / 6);
        if (gained < 0.004 * next) round = ROUNDS;
      } else damping = Math.max(1e-5, damping * 8);
    }
    if (!isBetter) break;
    mix(logs);
    lab = eye.seeWithSlopes(mixed, U, slopes);
  }
  // Far off the ellipsoid about a colour says too much.
  return { logs, lab, distance: Math.min(length, deltaE00(lab, target)) };
}
const damped = new Float64Array(9);
