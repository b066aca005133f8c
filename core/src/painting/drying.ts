import { CraftError, finite } from '../errors.ts';
import type { Drying } from '../paint/pigments/definition.ts';
import { TOUCH_DRY_DAYS } from '../mixing/drying.ts';

// Rules of thumb for a thin coat of linseed paint at 20 °C: windows, never dates. A touch test beats them every time.
// Times are reckoned as logarithms of days, so that what doubles them is added.

/** What a tube is to a layer's drying and fatness. */
export interface LayerPart {
  /** The tube, where touches are to teach how it dries. */
  readonly id?: string | undefined;
  /** Share of the layer's paint, any unit. */
  readonly parts: number;
  readonly drying: Drying;
  /** Grams of oil to 100 g of pigment, and grams per ml of the paint. */
  readonly oil: number;
  readonly density: number;
  /** What its colour is bound in; linseed unless it is said. */
  readonly bound?: BinderKind | undefined;
}

/** What tubes are bound in, and what stays in a film beside the paint. */
export const BINDER_KINDS = ['linseed', 'walnut', 'poppy'] as const;
export type BinderKind = (typeof BINDER_KINDS)[number];
export const MEDIUM_KINDS = ['linseed', 'walnut', 'poppy', 'resin', 'alkyd'] as const;
export type MediumKind = (typeof MEDIUM_KINDS)[number];

/** One layer as it was, or is to be, laid. */
export interface Layer {
  readonly paint: readonly LayerPart[];
  /** Share of the film that is medium, 0–1. */
  readonly medium?: { readonly kind: MediumKind; readonly share: number } | undefined;
  /** Share of what is laid that evaporates, 0–1. */
  readonly thinner?: number | undefined;
  /** As it lies once it has set, µm. */
  readonly filmUm: number;
  /** When it is laid, ms since 1970. */
  readonly at: number;
  /** Left out where nobody knows how warm the room is. */
  readonly temperatureC?: number | undefined;
}

/** From so many days after it was laid to so many. */
export type DayWindow = readonly [from: number, to: number];

export interface LayerTold {
  readonly touchDry: DayWindow;
  readonly throughDry: DayWindow;
  /** Share of oil and resin in the dry film, by volume, 0–1: “fat” as a share, not as thickness. */
  readonly fatness: number;
}

/** A day, ms. */
export const DAY_MS = 86_400_000;
/** A layer drags from about this share of the time until it is dry. */
export const TACKY_FROM = 0.4;

/** How much more than its share a tube counts: a strong drier and a strong retarder both do. */
const COUNTS: Readonly<Record<Drying, number>> = { fast: 1.6, medium: 1, slow: 1.3 };
/** Films dry by these figures at this thickness; twice as thick takes 2 to 4 times as long, half as thick less so much less. */
const THIN_COAT_UM = 100;
const THICKER = 1.5;
const THINNER = 0.8;
/** An hour or two is the least, days. */
const LEAST_DAYS = 0.08;
const USUAL_C = 20;
/** Halved with each so many degrees. */
const TWICE_PER_C = 10;
/** What an oil makes of the time, where it binds all of the film. */
const BOUND_TAKES: Readonly<Record<BinderKind, number>> = { linseed: 1, walnut: 1.35, poppy: 1.75 };
const TAKES: Readonly<Record<MediumKind, number>> = { linseed: 1.15, walnut: 1.45, poppy: 1.9, resin: 1, alkyd: 1 };
/** From this share on alkyd leads; days it then takes, and of slow tubes. More of it is not faster. */
const ALKYD_LEADS = 0.1;
const ALKYD_DAYS: DayWindow = [0.5, 1];
const ALKYD_SLOW_DAYS: DayWindow = [2, 3];
/** Through-dry comes so many times later than dry to touch, later yet where it is thick. */
const THROUGH: DayWindow = [3, 6];
const OIL_DENSITY = 0.93;
/** Of the binder so much of the thinner's share goes into the ground with it. */
const CARRIED_OFF = 0.15;
/** What of a medium stays as oil or resin. */
const STAYS: Readonly<Record<MediumKind, number>> = { linseed: 1, walnut: 1, poppy: 1, resin: 0.9, alkyd: 0.9 };

/** Nine of ten lie within so many standard deviations. */
export const NINE_OF_TEN = 1.645;
/** What is not known, each as the standard deviation of the logarithm of the time. */
export const UNSURE = {
  /** A tube within its class, at least: makers differ by two fifths. */
  tube: 0.25,
  /** How thick this hand lays what it calls thin or thick: by a half. */
  hand: 0.3,
  /** A room between 12 and 28 °C, and one whose warmth was said. */
  room: 0.32,
  saidRoom: 0.1,
  /** What differs from one layer to the next. */
  layer: 0.16,
} as const;

/** @throws CraftError for what cannot be a layer */
export function checkLayer({ paint, medium, thinner = 0, filmUm, at, temperatureC = USUAL_C }: Layer): void {
  const whole = paint.reduce((sum, { parts }) => sum + finite('parts', 'Parts', parts), 0);
  if (paint.some(({ parts }) => parts < 0) || !(whole > 0)) throw new CraftError('parts', 'A layer holds some paint.');
  if (medium && !(finite('film', 'The share of medium', medium.share) >= 0 && medium.share < 1))
    throw new CraftError('film', `The share of medium lies from 0 to below 1; it is ${medium.share}.`);
  if (!(finite('film', 'The share of thinner', thinner) >= 0 && thinner < 1))
    throw new CraftError('film', `The share of thinner lies from 0 to below 1; it is ${thinner}.`);
  if (!(finite('film', 'The film', filmUm) > 0 && filmUm <= 10_000))
    throw new CraftError('film', `A film is up to 10000 µm thick; this one is ${filmUm}.`);
  if (!Number.isFinite(at)) throw new CraftError('input', 'When a layer was laid is a day, as 2026-11-30.');
  if (!(finite('input', 'The temperature', temperatureC) >= -10 && temperatureC <= 50))
    throw new CraftError('input', `Paint dries between −10 and 50 °C; this is ${temperatureC}.`);
}

/** Share of oil and resin in the dry film, by volume. More oil is never leaner; thinner leaves, and takes a little along. */
export function fatnessOf({ paint, medium, thinner = 0 }: Pick<Layer, 'paint' | 'medium' | 'thinner'>): number {
  const whole = paint.reduce((sum, { parts }) => sum + parts, 0);
  const inPaint = paint.reduce(
    (sum, { parts, oil, density }) => sum + (parts / whole) * Math.min(0.9, ((oil / (100 + oil)) * density) / OIL_DENSITY),
    0,
  );
  const kept = inPaint * (1 - CARRIED_OFF * thinner);
  const own = kept / (kept + 1 - inPaint);
  const { kind = 'linseed', share = 0 } = medium ?? {};
  // What of the medium evaporates is not in the dry film.
  const dry = share * STAYS[kind];
  return ((1 - share) * own + dry) / (1 - share + dry);
}

const centreOf = ([from, to]: DayWindow): number => (Math.log(from) + Math.log(to)) / 2;
const halfOf = ([from, to]: DayWindow): number => (Math.log(to) - Math.log(from)) / 2;

/** When a layer is dry to touch, as the logarithm of days, and how it hangs on what is not known. */
export interface LayerClock {
  readonly log: number;
  /** The share of each tube in it, by id: their own deviations count so much. Those without an id are in `rest`. */
  readonly tubes: ReadonlyMap<string, { readonly weight: number; readonly sd: number }>;
  /** Variance of what no touch of another layer tells. */
  readonly rest: number;
  /** Standard deviation of the room's part. */
  readonly room: number;
}

/** How a layer's time hangs together. @throws CraftError for what cannot be a layer */
export function clockOf(layer: Layer): LayerClock {
  checkLayer(layer);
  const { paint, medium, thinner = 0, filmUm, temperatureC } = layer;
  const share = medium?.share ?? 0;
  const whole = paint.reduce((sum, { parts }) => sum + parts, 0);
  const slow = paint.reduce((sum, { parts, drying }) => sum + (drying === 'slow' ? parts / whole : 0), 0);
  const weights = paint.map(({ parts, drying }) => parts * COUNTS[drying]);
  const all = weights.reduce((sum, one) => sum + one, 0);
  let log = 0;
  // More alkyd is not faster; what it leads by, it also takes from what tubes differ by.
  const leads = medium?.kind === 'alkyd' ? Math.min(1, share / ALKYD_LEADS) : 0;
  const tubes = new Map<string, { weight: number; sd: number }>();
  let rest = UNSURE.layer ** 2;
  paint.forEach(({ id, drying, bound = 'linseed' }, i) => {
    const days = TOUCH_DRY_DAYS[drying];
    const weight = weights[i]! / all;
    log += weight * (centreOf(days) + Math.log(BOUND_TAKES[bound]));
    const sd = Math.max(UNSURE.tube, halfOf(days) / NINE_OF_TEN);
    const counts = weight * (1 - leads / 2);
    if (id === undefined) rest += (counts * sd) ** 2;
    else tubes.set(id, { weight: (tubes.get(id)?.weight ?? 0) + counts, sd });
  });
  // A fatter film dries later, by its oil.
  if (medium && medium.kind !== 'alkyd') log += Math.min(1, 2 * share) * Math.log(TAKES[medium.kind]) + Math.log(1 + share / 2);
  if (leads > 0) {
    const led = (1 - slow) * centreOf(ALKYD_DAYS) + slow * centreOf(ALKYD_SLOW_DAYS);
    log = Math.min(log, (1 - leads) * log + leads * led);
  }
  const times = filmUm / THIN_COAT_UM;
  log += times >= 1 ? THICKER * Math.log(times) : Math.max(Math.log(0.1), THINNER * Math.log(times)) + Math.log(1 - 0.5 * thinner);
  log += (Math.LN2 * (USUAL_C - (temperatureC ?? USUAL_C))) / TWICE_PER_C;
  return { log: Math.max(Math.log(LEAST_DAYS), log), tubes, rest, room: temperatureC === undefined ? UNSURE.room : UNSURE.saidRoom };
}

/** A time that is not sure: the logarithm of days is normally distributed. */
export interface Unsure {
  readonly mean: number;
  readonly sd: number;
}

/** The time of a layer of which, and of whose tubes and room, nothing was ever felt. */
export function firstTime({ log, tubes, rest, room }: LayerClock): Unsure {
  const byTubes = [...tubes.values()].reduce((sum, { weight, sd }) => sum + (weight * sd) ** 2, 0);
  return { mean: log, sd: Math.sqrt(rest + byTubes + UNSURE.hand ** 2 + room ** 2) };
}

/** The window that nine of ten lie in. */
export const windowOf = ({ mean, sd }: Unsure): DayWindow => [Math.exp(mean - NINE_OF_TEN * sd), Math.exp(mean + NINE_OF_TEN * sd)];

/** When a layer is dry through, from when it is dry to touch. */
export function throughOf({ mean, sd }: Unsure, filmUm: number): Unsure {
  const later = Math.max(0, Math.log(filmUm / THIN_COAT_UM) / 2);
  return { mean: mean + centreOf(THROUGH) + later, sd: Math.hypot(sd, halfOf(THROUGH) / NINE_OF_TEN) };
}

/** When a layer is dry to touch, and through, and how fat it is. @throws CraftError for what cannot be a layer */
export function layerTold(layer: Layer, time: Unsure = firstTime(clockOf(layer))): LayerTold {
  return { touchDry: windowOf(time), throughDry: windowOf(throughOf(time, layer.filmUm)), fatness: fatnessOf(layer) };
}
