import { finite, CraftError } from '../errors.ts';
import {
  DAY_MS,
  TACKY_FROM,
  clockOf,
  firstTime,
  NINE_OF_TEN,
  throughOf,
  UNSURE,
  type Layer,
  type LayerClock,
  type Unsure,
} from './drying.ts';

/** How a layer is to the touch. */
export const FELT = ['wet', 'tacky', 'dry', 'dry through', 'sunk'] as const;
export type Felt = (typeof FELT)[number];

/** A layer was touched. */
export interface Touch {
  /** ms since 1970. */
  readonly at: number;
  readonly felt: Felt;
}

export interface FeltLayer {
  readonly id: string;
  readonly layer: Layer;
  /** In order. */
  readonly touches: readonly Touch[];
}

/** What touches taught: of the room, of this hand, of tubes, together normally distributed; and of the layers that were touched. */
export interface DryingLearnt {
  /** The room, the hand, then tubes. */
  readonly ids: readonly string[];
  readonly mean: readonly number[];
  /** Row by row. */
  readonly cov: readonly (readonly number[])[];
  /** When layers are dry to touch that were touched themselves. */
  readonly times: ReadonlyMap<string, Unsure>;
}

const [ROOM, HAND] = [0, 1] as const;
/** What a finger is unsure by, as the logarithm of a time. */
const FINGER = 0.12;
/** A room changes with the season: it is as unknown again after so many days. */
const SEASON_DAYS = 180;

/** The density, and the share below, of the standard normal distribution. */
const density = (x: number): number => Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
/** Share below (Abramowitz and Stegun 7.1.26: within 1.5e-7). */
export function shareBelow(x: number): number {
  const t = 1 / (1 + 0.3275911 * (Math.abs(x) / Math.SQRT2));
  const poly = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const tail = (poly * Math.exp((-x * x) / 2)) / 2;
  return x >= 0 ? 1 - tail : tail;
}

/** What is left of a standard normal distribution between two bounds: its mean, and its variance. */
function between(low: number, high: number): readonly [mean: number, variance: number] {
  const share = shareBelow(high) - shareBelow(low);
  // Nearly never so: what was felt is believed as far as its nearer bound.
  if (share < 1e-5) return [low > 0 ? low : high, 0.2];
  const [a, b] = [Number.isFinite(low) ? density(low) : 0, Number.isFinite(high) ? density(high) : 0];
  const mean = (a - b) / share;
  const bounds = ((Number.isFinite(low) ? low * a : 0) - (Number.isFinite(high) ? high * b : 0)) / share;
  return [mean, Math.min(1, Math.max(0.01, 1 + bounds - mean * mean))];
}

/** Between which times a layer is dry to touch that was felt so after some days, as logarithms. */
function said({ felt }: Touch, days: number, filmUm: number): readonly [number, number] {
  const at = Math.log(days);
  if (felt === 'wet') return [at, Infinity];
  if (felt === 'tacky') return [at, at - Math.log(TACKY_FROM)];
  if (felt === 'dry through') return [-Infinity, at - (throughOf({ mean: 0, sd: 0 }, filmUm).mean - NINE_OF_TEN * UNSURE.layer)];
  return [-Infinity, at];
}

/** @throws CraftError for a touch that none can be */
function checkTouch({ at, felt }: Touch, layer: Layer): void {
  if (!FELT.includes(felt)) throw new CraftError('input', `A layer is felt to be ${FELT.join(', ')}.`);
  if (finite('input', 'When a layer was touched', at) < layer.at) throw new CraftError('input', 'A layer is touched after it was laid.');
}

/** How much each unknown counts in a layer's time. */
function countsIn(clock: LayerClock, ids: readonly string[]): Float64Array {
  const counts = new Float64Array(ids.length);
  counts[ROOM] = 1;
  counts[HAND] = 1;
  for (const [id, { weight }] of clock.tubes) {
    const at = ids.indexOf(id, 2);
    if (at >= 0) counts[at] = weight;
  }
  return counts;
}

/**
 * What touches teach, one layer after the other in the order they were laid: each touch says between which times its layer
 * dried, and so moves the layer, the room, this hand and the layer's tubes together (assumed-density filtering: what is
 * left between the bounds, as a normal distribution again). A touch only ever narrows what is known.
 * @throws CraftError for touches that are none
 */
export function learnDrying(layers: readonly FeltLayer[]): DryingLearnt {
  const touched = layers.filter(({ touches }) => touches.length > 0).sort((one, other) => one.layer.at - other.layer.at);
  const clocks = touched.map(({ layer }) => clockOf(layer));
  const sds = new Map<string, number>();
  for (const { tubes } of clocks) for (const [id, { sd }] of tubes) sds.set(id, sd);
  const ids = ['the room', 'the hand', ...sds.keys()];
  const n = ids.length;
  const mean = new Float64Array(n + 1);
  /** With one more for what the layer has of its own. */
  const cov = Array.from({ length: n + 1 }, () => new Float64Array(n + 1));
  const roomFirst = (clocks[0]?.room ?? UNSURE.room) ** 2;
  cov[ROOM]![ROOM] = roomFirst;
  cov[HAND]![HAND] = UNSURE.hand ** 2;
  [...sds.values()].forEach((sd, i) => (cov[i + 2]![i + 2] = sd ** 2));
  const times = new Map<string, Unsure>();
  let before: number | undefined;
  touched.forEach(({ id, layer, touches }, k) => {
    const clock = clocks[k]!;
    if (before !== undefined) {
      const less = Math.min(1, (layer.at - before) / DAY_MS / SEASON_DAYS);
      cov[ROOM]![ROOM] = Math.max(cov[ROOM]![ROOM]!, cov[ROOM]![ROOM]! * (1 - less) + roomFirst * less);
    }
    before = layer.at;
    // The layer's own part is new with each.
    for (let i = 0; i <= n; i++) cov[i]![n] = cov[n]![i] = 0;
    mean[n] = 0;
    cov[n]![n] = clock.rest;
    const counts = new Float64Array(n + 1);
    counts.set(countsIn(clock, ids));
    counts[n] = 1;
    const along = (): Float64Array => {
      const own = new Float64Array(n + 1);
      for (let i = 0; i <= n; i++) for (let j = 0; j <= n; j++) own[i] = own[i]! + cov[i]![j]! * counts[j]!;
      return own;
    };
    const now = (): { readonly mean: number; readonly variance: number; readonly with: Float64Array } => {
      const own = along();
      return {
        mean: clock.log + counts.reduce((sum, c, j) => sum + c * mean[j]!, 0),
        variance: counts.reduce((sum, c, j) => sum + c * own[j]!, 0),
        with: own,
      };
    };
    for (const touch of [...touches].sort((one, other) => one.at - other.at)) {
      checkTouch(touch, layer);
      const [low, high] = said(touch, Math.max(1 / 48, (touch.at - layer.at) / DAY_MS), layer.filmUm);
      const { mean: m, variance, with: own } = now();
      const s = Math.hypot(Math.sqrt(variance), FINGER);
      const [moved, left] = between((low - m) / s, (high - m) / s);
      for (let i = 0; i <= n; i++) {
        mean[i] = mean[i]! + (own[i]! / s) * moved;
        for (let j = 0; j <= n; j++) cov[i]![j] = cov[i]![j]! - ((own[i]! * own[j]!) / s ** 2) * (1 - left);
      }
    }
    const { mean: m, variance } = now();
    times.set(id, { mean: m, sd: Math.sqrt(Math.max(1e-6, variance)) });
  });
  return { ids, mean: [...mean].slice(0, n), cov: cov.slice(0, n).map((row) => [...row].slice(0, n)), times };
}

/** When a layer is dry to touch, by all that was felt: of it, else of its tubes in this room under this hand. */
export function timeOf(id: string | undefined, layer: Layer, learnt?: DryingLearnt): Unsure {
  const own = id === undefined ? undefined : learnt?.times.get(id);
  if (own) return own;
  const clock = clockOf(layer);
  if (!learnt || learnt.times.size === 0) return firstTime(clock);
  const counts = countsIn(clock, learnt.ids);
  let variance = clock.rest;
  for (const [tube, { weight, sd }] of clock.tubes) if (!learnt.ids.includes(tube)) variance += (weight * sd) ** 2;
  let mean = clock.log;
  counts.forEach((c, i) => {
    if (c === 0) return;
    mean += c * learnt.mean[i]!;
    counts.forEach((d, j) => (variance += d === 0 ? 0 : c * d * learnt.cov[i]![j]!));
  });
  return { mean, sd: Math.sqrt(variance) };
}
