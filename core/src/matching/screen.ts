import type { Matrix3 } from '../colour/ellipse.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { Lab } from '../colour/spaces.ts';
import { beadLength } from '../mixing/hand.ts';
import { BOTH } from '../paint/viewing.ts';
import type { ModeTable, Palette } from '../laying/palette.ts';
import { MOST_TOGETHER, offFrom, pullOf, type Desktop } from '../laying/shares.ts';
import type { Quest } from './sought.ts';
import { costOfSet, worthOf } from '../laying/worth.ts';

/** A set of ingredients whose shares come near a target, by reckoning along straight lines. */
export interface Candidate {
  readonly set: readonly number[];
  readonly shares: readonly number[];
  /** ΔE00 that is missing. */
  readonly distance: number;
  /** What it will score at best: expected difference and what the set costs. */
  readonly score: number;
}

/** What is kept of a screening. */
export interface Screening {
  /** Candidates that are kept. */
  readonly keep: number;
  /** Whether what cannot be promised and what sets cost counts; else distance alone. */
  readonly judged: boolean;
  /** Candidates that score no lower are of no use. */
  readonly below?: number;
}

/** Everything about the ingredients, straightened about one mixture. */
export interface Straightened {
  /** Where each ingredient pulls from the target, three numbers each, at a whole share of scattering. */
  readonly pulls: Float64Array;
  /** What of an ingredient's share scatters: shares of scattering over this are shares of volume. */
  readonly scatter: Float64Array;
  /** Variance of error at a whole share; nothing where errors do not count. */
  readonly error: Float64Array;
}

/** How much of the light's answer to scattering each band gives, summing to 1, over the mixture's own S. */
function scatterWeights({ mixed, slopes }: Desktop): Float64Array {
  const weights = new Float64Array(BANDS);
  let whole = 0;
  for (let i = 0; i < BANDS; i++) whole += Math.abs(slopes[BANDS + i]!) * mixed[BANDS + i]!;
  for (let i = 0; i < BANDS; i++) weights[i] = Math.abs(slopes[BANDS + i]!) / whole;
  return weights;
}

/** Slopes of every two neighbouring bands together: errors are smooth, so pairs of bands do for them. */
const paired = new Float64Array(3 * BANDS);

function pairUp({ slopes }: Desktop): void {
  for (let i = 0; i < 3 * BANDS; i++) paired[i] = slopes[2 * i]! + slopes[2 * i + 1]!;
}

/** Square of what a change of curves pulls; its pairs of bands from `first` to below `end` stand in `table` from `from` on. */
function squaredPull(table: Float64Array, from: number, first: number, end: number): number {
  let l = 0;
  let c = 0;
  let h = 0;
  const shift = from - first;
  for (let i = first; i < end; i++) {
    const v = table[shift + i]!;
    l += paired[i]! * v;
    c += paired[BANDS + i]! * v;
    h += paired[2 * BANDS + i]! * v;
  }
  return l * l + c * c + h * h;
}

function variance({ both, K, S }: ModeTable): number {
  let sum = 0;
  for (let from = 0; from < both.length; from += BANDS) sum += squaredPull(both, from, 0, BANDS);
  for (let from = 0; from < K.length; from += BANDS / 2) sum += squaredPull(K, from, 0, BANDS / 2) + squaredPull(S, from, BANDS / 2, BANDS);
  return sum;
}

/** Variance of error of some ingredients at a whole share, by the slopes on a desktop; of the others nothing. */
export function errorVariances({ modes }: Palette, desk: Desktop, of: Iterable<number> = modes.keys()): Float64Array {
  pairUp(desk);
  const variances = new Float64Array(modes.length);
  for (const t of of) variances[t] = variance(modes[t]!);
  return variances;
}

/**
 * Straightens a palette about the mixture on a desktop. A thick film's colour depends on the ratio of
 * K to S alone, so there shares are weighed by what they scatter: in these the colour is most nearly straight.
 */
export function straighten(palette: Palette, target: Lab, U: Matrix3, desk: Desktop, withErrors = true): Straightened {
  const lab = palette.eye.seeWithSlopes(desk.mixed, U, desk.slopes);
  const off = offFrom(U, lab, target);
  const n = palette.ingredients.length;
  const pulls = new Float64Array(3 * n);
  const scatter = new Float64Array(n).fill(1);
  const { thick } = palette.eye;
  const weights = thick ? scatterWeights(desk) : undefined;
  // Off a film's mixture the slopes count from where it stands, not from nothing.
  const from = new Float64Array(3);
  if (!thick) pullOf(desk, desk.mixed, 0, from, 0);
  for (let t = 0; t < n; t++) {
    if (weights) {
      let sum = 0;
      for (let i = 0, s = t * BOTH + BANDS; i < BANDS; i++, s++) sum += weights[i]! * palette.table[s]!;
      scatter[t] = sum;
    }
    pullOf(desk, palette.table, t * BOTH, pulls, 3 * t);
    for (let row = 0; row < 3; row++) pulls[3 * t + row] = (pulls[3 * t + row]! - from[row]!) / scatter[t]! + off[row]!;
  }
  return { pulls, scatter, error: withErrors ? errorVariances(palette, desk) : new Float64Array(n) };
}

/** Candidates kept while sets are gone through: the best so many, and what a further one must score below. */
class Kept {
  private list: Candidate[] = [];
  constructor(
    private readonly keep: number,
    public worst: number,
  ) {}

  offer(candidate: Candidate): void {
    this.list.push(candidate);
    if (this.list.length >= 2 * this.keep) this.sift();
  }
  private sift(): void {
    this.list.sort((a, b) => a.score - b.score);
    this.list.length = Math.min(this.list.length, this.keep);
    if (this.list.length === this.keep) this.worst = Math.min(this.worst, this.list[this.keep - 1]!.score);
  }
  all(): Candidate[] {
    this.sift();
    return this.list;
  }
}

/** A dose is off by a tenth of itself at least: squared. */
const DOSING_COUNTS = 0.01;

/** Least that a dose is off by which is let down, as a share of itself, beyond what every dose is. */
const LET_DOWN_ERROR = 0.15;

/** Goes through every set of up to four ingredients of a straightened palette. */
class Sets {
  private readonly set = new Int32Array(MOST_TOGETHER);
  /** Shares of scattering of the set in hand. */
  private readonly c = new Float64Array(MOST_TOGETHER);
  private readonly kept: Kept;
  private readonly judged: boolean;
  private readonly w: Float64Array;
  private readonly n: number;
  /** Products of every two pulls. */
  private readonly gram: Float64Array;
  /** What doubt and dosing of an ingredient put into the square of the score at a whole share of scattering. */
  private readonly doubt: Float64Array;
  /** What a short bead of it adds to that, whatever its share, and what it adds at most at a whole share: it may be let down. */
  private readonly short: Float64Array;
  private readonly shortAtMost: Float64Array;

  constructor(
    private readonly quest: Quest,
    private readonly straight: Straightened,
    { keep, judged, below = Infinity }: Screening,
  ) {
    const { pulls: w, error, scatter } = straight;
    const n = error.length;
    this.judged = judged;
    this.kept = new Kept(keep, below);
    this.w = w;
    this.n = n;
    this.gram = new Float64Array(n * n);
    for (let i = 0; i < n; i++)
      for (let j = i; j < n; j++)
        this.gram[i * n + j] = this.gram[j * n + i] = w[3 * i]! * w[3 * j]! + w[3 * i + 1]! * w[3 * j + 1]! + w[3 * i + 2]! * w[3 * j + 2]!;
    this.doubt = error.map((variance, i) => variance / (scatter[i]! * scatter[i]!) + DOSING_COUNTS * this.gram[i * n + i]!);
    const { amountMl, hand, bores } = quest.table;
    this.short = error.map((_, i) => this.gram[i * n + i]! * ((scatter[i]! * hand.beadMm) / beadLength(amountMl, bores[i]!)) ** 2);
    this.shortAtMost = error.map((_, i) => this.gram[i * n + i]! * LET_DOWN_ERROR ** 2);
  }

  all(): Candidate[] {
    const { usable, mustUse, most } = this.quest;
    const free = usable.filter((i) => !mustUse.includes(i));
    const size = Math.min(most, MOST_TOGETHER);
    const { set } = this;
    const grow = (held: number, from: number): void => {
      if (held > 0 && held < MOST_TOGETHER && held >= mustUse.length) this.judgeSmall(held);
      if (held === MOST_TOGETHER - 1 && size === MOST_TOGETHER) return this.judgeFours(free, from);
      if (held >= size) return;
      for (let i = from; i < free.length; i++) {
        set[held] = free[i]!;
        grow(held + 1, i + 1);
      }
    };
    for (let k = 0; k < mustUse.length; k++) set[k] = mustUse[k]!;
    if (mustUse.length === MOST_TOGETHER) this.judgeFours([mustUse[3]!], 0);
    else grow(mustUse.length, 0);
    return this.kept.all();
  }

  /** One, two or three ingredients: least squares from the products of their pulls, every share above nothing. */
  private judgeSmall(n: number): void {
    const { c, set, gram } = this;
    const i = set[0]! * this.n;
    const g00 = gram[i + set[0]!]!;
    if (n === 1) {
      c[0] = 1;
      return this.score(1, g00);
    }
    const j = set[1]! * this.n;
    const g01 = gram[i + set[1]!]!;
    const a11 = gram[j + set[1]!]! - 2 * g01 + g00;
    const b1 = g00 - g01;
    if (n === 2) {
      const second = b1 / a11;
      if (!(second > 0 && second < 1)) return;
      c[0] = 1 - second;
      c[1] = second;
      return this.score(2, g00 - second * b1);
    }
    const k = set[2]! * this.n;
    const g02 = gram[i + set[2]!]!;
    const a22 = gram[k + set[2]!]! - 2 * g02 + g00;
    const a12 = gram[j + set[2]!]! - g01 - g02 + g00;
    const b2 = g00 - g02;
    const whole = a11 * a22 - a12 * a12;
    if (!(whole > 1e-12 * a11 * a22)) return;
    const second = (b1 * a22 - b2 * a12) / whole;
    const third = (b2 * a11 - b1 * a12) / whole;
    if (!(second > 0 && third > 0 && second + third < 1)) return;
    c[0] = 1 - second - third;
    c[1] = second;
    c[2] = third;
    this.score(3, g00 - second * b1 - third * b2);
  }

  /**
   * Every fourth ingredient beside the three in hand. The target lies within the tetrahedron of four
   * pulls where the volumes it spans with their faces are of one sign; these are the shares, too.
   */
  private judgeFours(free: readonly number[], from: number): void {
    const { w, c, set, kept, doubt, judged } = this;
    const { single, pair, tubes } = this.quest.costs;
    const cost = judged ? costOfSet(this.quest.costs, set, 3) + (tubes[4] ?? 0) - (tubes[3] ?? 0) : 0;
    let { worst } = kept;
    if (cost >= worst) return;
    const [i, j, k] = [3 * set[0]!, 3 * set[1]!, 3 * set[2]!];
    const ix = w[i]!;
    const iy = w[i + 1]!;
    const iz = w[i + 2]!;
    const jx = w[j]!;
    const jy = w[j + 1]!;
    const jz = w[j + 2]!;
    const kx = w[k]!;
    const ky = w[k + 1]!;
    const kz = w[k + 2]!;
    const jkx = jy * kz - jz * ky;
    const jky = jz * kx - jx * kz;
    const jkz = jx * ky - jy * kx;
    const kix = ky * iz - kz * iy;
    const kiy = kz * ix - kx * iz;
    const kiz = kx * iy - ky * ix;
    const ijx = iy * jz - iz * jy;
    const ijy = iz * jx - ix * jz;
    const ijz = ix * jy - iy * jx;
    const last = -(ix * jkx + iy * jky + iz * jkz);
    const positive = last > 0;
    const di = doubt[set[0]!]!;
    const dj = doubt[set[1]!]!;
    const dk = doubt[set[2]!]!;
    const { short, shortAtMost } = this;
    const si = short[set[0]!]!;
    const sj = short[set[1]!]!;
    const sk = short[set[2]!]!;
    const mi = shortAtMost[set[0]!]!;
    const mj = shortAtMost[set[1]!]!;
    const mk = shortAtMost[set[2]!]!;
    const ni = set[0]! * this.n;
    const nj = set[1]! * this.n;
    const nk = set[2]! * this.n;
    for (let f = from; f < free.length; f++) {
      const t = free[f]!;
      const least = judged ? cost + single[t]! + pair[ni + t]! + pair[nj + t]! + pair[nk + t]! : 0;
      if (least >= worst) continue;
      const l = 3 * t;
      const lx = w[l]!;
      const ly = w[l + 1]!;
      const lz = w[l + 2]!;
      const a = lx * jkx + ly * jky + lz * jkz;
      if (a > 0 !== positive) continue;
      const b = lx * kix + ly * kiy + lz * kiz;
      if (b > 0 !== positive) continue;
      const d = lx * ijx + ly * ijy + lz * ijz;
      if (d > 0 !== positive) continue;
      const whole = a + b + d + last;
      if (whole === 0) continue;
      let score = 0;
      if (judged) {
        const aa = a * a;
        const bb = b * b;
        const dd = d * d;
        const ll = last * last;
        const over = 1 / (whole * whole);
        const square =
          (aa * di + bb * dj + dd * dk + ll * doubt[t]!) * over +
          Math.min(si, aa * over * mi) +
          Math.min(sj, bb * over * mj) +
          Math.min(sk, dd * over * mk) +
          Math.min(short[t]!, ll * over * shortAtMost[t]!);
        score = Math.sqrt(square) + least;
      }
      if (score >= worst) continue;
      c[0] = a / whole;
      c[1] = b / whole;
      c[2] = d / whole;
      c[3] = last / whole;
      set[3] = t;
      this.keep(4, 0, score);
      worst = kept.worst;
    }
  }

  /** Scores the small set in hand, that is off by so much squared, and keeps it while it is among the best. */
  private score(n: number, square: number): void {
    const { c, set, kept, doubt, quest } = this;
    const distance = Math.sqrt(Math.max(0, square));
    let score = distance;
    if (score >= kept.worst) return;
    if (this.judged) {
      let variance = 0;
      // Of sets that do not come to the target the dosing is reckoned as if they did; it counts little.
      for (let k = 0; k < n; k++) {
        const t = set[k]!;
        const square = c[k]! * c[k]!;
        variance += square * doubt[t]! + Math.min(this.short[t]!, square * this.shortAtMost[t]!);
      }
      score = worthOf(distance, Math.sqrt(variance), 0, quest.table.worth) + costOfSet(quest.costs, set, n);
      if (score >= kept.worst) return;
    }
    this.keep(n, distance, score);
  }

  private keep(n: number, distance: number, score: number): void {
    const { c, set, kept, straight } = this;
    const members = Array.from(set.subarray(0, n));
    kept.offer({ set: members, shares: members.map((t, k) => c[k]! / straight.scatter[t]!), distance, score });
  }
}

/**
 * The most promising sets of up to four ingredients, best first. About one mixture the colour changes
 * nearly in straight lines, so a set reaches the target where the target lies within its pulls: a
 * few products a set, for every set there is.
 */
export const screen = (quest: Quest, straight: Straightened, asked: Screening): Candidate[] => new Sets(quest, straight, asked).all();
