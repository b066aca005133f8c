import { CraftError, finite } from '../errors.ts';
import type { Drying } from '../paint/pigments/definition.ts';
import { TOUCH_DRY_DAYS } from '../mixing/drying.ts';

// Rules of thumb for a thin coat of linseed paint at 20 °C: windows, never dates. A touch test beats them every time.

/** What a tube is to a layer's drying and fatness. */
export interface LayerPart {
  /** Share of the layer's paint, any unit. */
  readonly parts: number;
  readonly drying: Drying;
  /** Grams of oil to 100 g of pigment, and grams per ml of the paint. */
  readonly oil: number;
  readonly density: number;
}

/** What stays in a film beside the paint. */
export const MEDIUM_KINDS = ['linseed', 'walnut', 'poppy', 'resin', 'alkyd'] as const;
export type MediumKind = (typeof MEDIUM_KINDS)[number];

/** One layer as it was, or is to be, laid. */
export interface Layer {
  readonly paint: readonly LayerPart[];
  /** Share of the film that is medium, 0–1. */
  readonly medium?: { readonly kind: MediumKind; readonly share: number };
  /** Share of what is laid that evaporates, 0–1. */
  readonly thinner?: number;
  /** As it lies once it has set, µm. */
  readonly filmUm: number;
  /** When it is laid, ms since 1970. */
  readonly at: number;
  readonly temperatureC?: number;
}

/** From so many days after it was laid to so many. */
export type DayWindow = readonly [from: number, to: number];

export interface LayerTold {
  readonly touchDry: DayWindow;
  readonly throughDry: DayWindow;
  /** Share of oil and resin in the dry film, by volume, 0–1: “fat” as a share, not as thickness. */
  readonly fatness: number;
}

/** How much more than its share a tube counts: a strong drier and a strong retarder both do. */
const COUNTS: Readonly<Record<Drying, number>> = { fast: 1.6, medium: 1, slow: 1.3 };
/** Films dry by these figures at this thickness; twice as thick takes 2 to 4 times as long, half as thick less so much less. */
const THIN_COAT_UM = 100;
const THICKER = 1.5;
const THINNER = 0.8;
/** An hour or two is the least, days. */
const LEAST_DAYS = 0.06;
const USUAL_C = 20;
/** What an oil makes of the time, where it binds all of the film. */
const TAKES: Readonly<Record<MediumKind, number>> = { linseed: 1.15, walnut: 1.45, poppy: 1.9, resin: 1, alkyd: 1 };
/** From this share on alkyd leads; days it then takes, and of slow tubes. More of it is not faster. */
const ALKYD_LEADS = 0.1;
const ALKYD_DAYS: DayWindow = [0.5, 1];
const ALKYD_SLOW_DAYS: DayWindow = [1.5, 3];
/** Through-dry comes so many times later than dry to touch, later yet where it is thick. */
const THROUGH: DayWindow = [3, 6];
const OIL_DENSITY = 0.93;
/** Of the binder so much of the thinner's share goes into the ground with it. */
const CARRIED_OFF = 0.15;
/** What of a medium stays as oil or resin. */
const STAYS: Readonly<Record<MediumKind, number>> = { linseed: 1, walnut: 1, poppy: 1, resin: 0.9, alkyd: 0.9 };

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

/** Days of a mixture's tubes: between them by share, strong driers and retarders beyond theirs. */
function daysOf(paint: readonly LayerPart[]): DayWindow {
  let weights = 0;
  const logs = [0, 0];
  for (const { parts, drying } of paint) {
    const weight = parts * COUNTS[drying];
    weights += weight;
    TOUCH_DRY_DAYS[drying].forEach((days, i) => (logs[i] = logs[i]! + weight * Math.log(days)));
  }
  return [Math.exp(logs[0]! / weights), Math.exp(logs[1]! / weights)];
}

/** When a layer is dry to touch, and through, and how fat it is. @throws CraftError for what cannot be a layer */
export function layerTold(layer: Layer): LayerTold {
  checkLayer(layer);
  const { paint, medium, thinner = 0, filmUm, temperatureC = USUAL_C } = layer;
  const share = medium?.share ?? 0;
  const whole = paint.reduce((sum, { parts }) => sum + parts, 0);
  const slow = paint.reduce((sum, { parts, drying }) => sum + (drying === 'slow' ? parts / whole : 0), 0);
  let [from, to] = daysOf(paint);
  if (medium && medium.kind !== 'alkyd') {
    // A fatter film dries later, by its oil.
    const by = TAKES[medium.kind] ** Math.min(1, 2 * share) * (1 + share / 2);
    [from, to] = [from * by, to * by];
  }
  if (medium?.kind === 'alkyd' && share > 0) {
    const leads = Math.min(1, share / ALKYD_LEADS);
    const [a, b] = [0, 1].map((i) => ALKYD_DAYS[i]! * (1 - slow) + ALKYD_SLOW_DAYS[i]! * slow) as [number, number];
    [from, to] = [Math.min(from, from ** (1 - leads) * a ** leads), Math.min(to, to ** (1 - leads) * b ** leads)];
  }
  const times = filmUm / THIN_COAT_UM;
  // An alkyd film sets by itself, thick or thin, but not a thick one as soon.
  const byFilm = times >= 1 ? times ** THICKER : Math.max(0.1, times ** THINNER) * (1 - 0.5 * thinner);
  const byCold = 2 ** ((USUAL_C - temperatureC) / 10);
  const touchDry: DayWindow = [Math.max(LEAST_DAYS, from * byFilm * byCold), Math.max(2 * LEAST_DAYS, to * byFilm * byCold)];
  const later = Math.max(1, Math.sqrt(times));
  return {
    touchDry,
    throughDry: [touchDry[0] * THROUGH[0] * later, touchDry[1] * THROUGH[1] * later],
    fatness: fatnessOf(layer),
  };
}

/** What a layer is to the one below it. */
export type LayerVerdict = 'good' | 'wet below' | 'tacky below' | 'leaner than below' | 'fast over slow' | 'thin over thick';

export interface LayerJudged extends LayerTold {
  readonly verdict: LayerVerdict;
  /** Why, and what would even it; nothing where all is well. */
  readonly says: string;
}

const DAY_MS = 86_400_000;
/** Shares below this are no difference that a film feels. */
const AS_FAT = 0.03;
const THICK_UM = 200;
const THIN_UM = 30;
const DROP_ML = 0.05;
/** A usual pile. */
const PILE_ML = 4;
/** Days in which the one dries clearly sooner. */
const SOONER = 0.6;

/** Drops of oil to a usual pile that bring a layer to a fatness. */
function dropsTo(fatness: number, own: number): number {
  // (own + x) / (1 + x) = fatness
  const x = (fatness - own) / (1 - fatness);
  return Math.max(1, Math.ceil((x * PILE_ML) / DROP_ML));
}

function judge(layer: Layer, told: LayerTold, below: Layer, toldBelow: LayerTold): Pick<LayerJudged, 'verdict' | 'says'> {
  const since = (layer.at - below.at) / DAY_MS;
  if (since < toldBelow.touchDry[0] / 3) return { verdict: 'wet below', says: 'What is below is wet: work into it, or wait.' };
  if (since < toldBelow.touchDry[1])
    return { verdict: 'tacky below', says: 'What is below may still drag: wait, step over it with loaded paint, or oil out and go on.' };
  if (told.fatness < toldBelow.fatness - AS_FAT) {
    const drops = dropsTo(toldBelow.fatness, told.fatness);
    return {
      verdict: 'leaner than below',
      says: `Leaner than what is below: ${drops} ${drops === 1 ? 'drop' : 'drops'} of oil to this pile would even it.`,
    };
  }
  const isThrough = since >= toldBelow.throughDry[1];
  if (!isThrough && told.touchDry[1] < SOONER * toldBelow.touchDry[1] && layer.filmUm >= below.filmUm / 2)
    return {
      verdict: 'fast over slow',
      says: 'This dries sooner than what is below, which is not dry through: it may crack. Wait, or lay it thinner.',
    };
  if (!isThrough && below.filmUm >= THICK_UM && layer.filmUm <= THIN_UM)
    return { verdict: 'thin over thick', says: 'Thin over thick that is not dry through: it may crack.' };
  return { verdict: 'good', says: '' };
}

/** Layers one over the other, each with its windows, how fat it is, and what is to be said of it over the one below. Advice, never a locked door. */
export function layersJudged(layers: readonly Layer[]): LayerJudged[] {
  const told = layers.map(layerTold);
  return layers.map((layer, i) =>
    i === 0 ? { ...told[0]!, verdict: 'good', says: '' } : { ...told[i]!, ...judge(layer, told[i]!, layers[i - 1]!, told[i - 1]!) },
  );
}
