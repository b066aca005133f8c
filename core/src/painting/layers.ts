import { DAY_MS, TACKY_FROM, fatnessOf, layerTold, throughOf, windowOf, type Layer, type LayerTold, type Unsure } from './drying.ts';
import { shareBelow, timeOf } from './felt.ts';

/** What a layer is to the one below it. */
export type LayerVerdict =
  'good' | 'wet below' | 'tacky below' | 'perhaps tacky below' | 'leaner than below' | 'fast over slow' | 'thin over thick';

export interface LayerJudged extends LayerTold {
  readonly verdict: LayerVerdict;
  /** Why, and what would even it; nothing where all is well. */
  readonly says: string;
}

/** Shares below this are no difference that a film feels. */
const AS_FAT = 0.03;
const THICK_UM = 200;
const THIN_UM = 30;
const DROP_ML = 0.05;
/** A usual pile. */
const PILE_ML = 4;
/** Days in which the one dries clearly sooner. */
const SOONER = 0.6;

/** How a layer most likely is to the touch. */
export const LAYER_STANDS = ['wet', 'tacky', 'perhaps dry', 'dry', 'dry through'] as const;
export type Stands = (typeof LAYER_STANDS)[number];

const SURE = 0.9;

/** How a layer is so many days after it was laid. */
export function standsAfter(days: number, time: Unsure, filmUm: number): Stands {
  if (days <= 0) return 'wet';
  const within = ({ mean, sd }: Unsure): number => shareBelow((Math.log(days) - mean) / sd);
  if (within(throughOf(time, filmUm)) >= SURE) return 'dry through';
  const isDry = within(time);
  if (isDry >= SURE) return 'dry';
  if (isDry >= 0.5) return 'perhaps dry';
  return days >= TACKY_FROM * Math.exp(time.mean) ? 'tacky' : 'wet';
}

/** Drops of oil to a usual pile that bring a layer to a fatness. */
export function dropsTo(fatness: number, own: number): number {
  // (own + x) / (1 + x) = fatness
  const x = (fatness - own) / (1 - fatness);
  return Math.max(1, Math.ceil((x * PILE_ML) / DROP_ML));
}

/** A layer, and when it is dry as far as that is known. */
export interface Timed {
  readonly layer: Layer;
  readonly time: Unsure;
}

/** What is to be said of a layer over one below. Advice with a reason, never a locked door. */
export function judgedOver(above: Timed, below: Timed): Pick<LayerJudged, 'verdict' | 'says'> {
  const since = (above.layer.at - below.layer.at) / DAY_MS;
  const stands = standsAfter(since, below.time, below.layer.filmUm);
  if (stands === 'wet') return { verdict: 'wet below', says: 'What is below is wet: work into it, or wait.' };
  if (stands === 'tacky')
    return { verdict: 'tacky below', says: 'What is below still drags: wait, step over it with loaded paint, or oil out and go on.' };
  const [own, other] = [fatnessOf(above.layer), fatnessOf(below.layer)];
  if (own < other - AS_FAT) {
    const drops = dropsTo(other, own);
    return {
      verdict: 'leaner than below',
      says: `Leaner than what is below: ${drops} ${drops === 1 ? 'drop' : 'drops'} of oil to this pile would even it.`,
    };
  }
  const isThrough = since >= windowOf(throughOf(below.time, below.layer.filmUm))[1];
  if (!isThrough && Math.exp(above.time.mean) < SOONER * Math.exp(below.time.mean) && above.layer.filmUm >= below.layer.filmUm / 2)
    return {
      verdict: 'fast over slow',
      says: 'This dries sooner than what is below, which is not dry through: it may crack. Wait, or lay it thinner.',
    };
  if (!isThrough && below.layer.filmUm >= THICK_UM && above.layer.filmUm <= THIN_UM)
    return { verdict: 'thin over thick', says: 'Thin over thick that is not dry through: it may crack.' };
  if (stands === 'perhaps dry') return { verdict: 'perhaps tacky below', says: 'What is below is most likely dry: touch it first.' };
  return { verdict: 'good', says: '' };
}

/** Layers one over the other, each with its windows, how fat it is, and what is to be said of it over the one below. */
export function layersJudged(layers: readonly Layer[], times = layers.map((layer) => timeOf(undefined, layer))): LayerJudged[] {
  return layers.map((layer, i) => ({
    ...layerTold(layer, times[i]),
    ...(i === 0
      ? { verdict: 'good' as const, says: '' }
      : judgedOver({ layer, time: times[i]! }, { layer: layers[i - 1]!, time: times[i - 1]! })),
  }));
}
