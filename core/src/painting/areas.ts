import { DAY_MS, fatnessOf, throughOf, windowOf, type Layer, type Unsure } from './drying.ts';
import { learnDrying, timeOf, type DryingLearnt, type FeltLayer, type Felt } from './felt.ts';
import { judgedOver, standsAfter, LAYER_STANDS, type LayerVerdict, type Stands } from './layers.ts';

/** A point in shares of the canvas. */
export interface CanvasPoint {
  readonly x: number;
  readonly y: number;
}

/** What takes paint off again, and how much of the film stays: a stain where it was wiped, a thin coat where it was lifted or scraped. */
export const LEAVES = { 'wiped back': 0.15, lifted: 0.4, 'scraped back': 0.25 } as const;
export type TakingOff = keyof typeof LEAVES;

/** What was done with an area, as far as layers and their drying go. */
export type AreaEvent =
  | { readonly id: string; readonly at: number; readonly kind: 'laid'; readonly layer: Layer }
  | { readonly id: string; readonly at: number; readonly kind: TakingOff | 'oiled out' }
  | { readonly id: string; readonly at: number; readonly kind: 'touched'; readonly felt: Felt };

/** An area of a painting, and what was done with it in order. */
export interface AreaStory {
  readonly id: string;
  /** Left out where it was not drawn: then it is the whole, or lies nobody says where, over nothing but what covers the whole. */
  readonly outline?: readonly CanvasPoint[] | undefined;
  readonly isWhole?: boolean | undefined;
  readonly events: readonly AreaEvent[];
}

/** A layer that lies on a painting. */
export interface Lying {
  readonly id: string;
  readonly areaId: string;
  /** As it lies now: what was taken off is gone from its film. */
  readonly layer: Layer;
  readonly time: Unsure;
  /** When it is dry to touch, and through, ms since 1970. */
  readonly touchDry: readonly [from: number, to: number];
  readonly throughDry: readonly [from: number, to: number];
  readonly fatness: number;
  /** The last touch of it, where there was one. */
  readonly felt?: { readonly at: number; readonly felt: Felt } | undefined;
}

const SIDE = 48;
/** Places of a small canvas that lie within an outline, as bits. */
function placesIn(outline: readonly CanvasPoint[]): Uint8Array {
  const places = new Uint8Array(SIDE * SIDE);
  for (let row = 0; row < SIDE; row++) {
    const y = (row + 0.5) / SIDE;
    const cuts: number[] = [];
    outline.forEach((a, i) => {
      const b = outline[(i + 1) % outline.length]!;
      if (a.y <= y !== b.y <= y) cuts.push(a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x));
    });
    cuts.sort((one, other) => one - other);
    for (let k = 0; k + 1 < cuts.length; k += 2)
      for (let x = Math.max(0, Math.ceil(cuts[k]! * SIDE - 0.5)); x < SIDE && x + 0.5 < cuts[k + 1]! * SIDE; x++)
        places[row * SIDE + x] = 1;
  }
  // What is smaller than a place still lies somewhere.
  if (!places.includes(1)) {
    const at = (v: number): number => Math.min(SIDE - 1, Math.max(0, Math.floor(v * SIDE)));
    for (const { x, y } of outline) places[at(y) * SIDE + at(x)] = 1;
  }
  return places;
}

const WORD = 32;
/** Places as bits of words, so that many are compared at once. */
function packed(places: Uint8Array): Uint32Array {
  const words = new Uint32Array(Math.ceil(places.length / WORD));
  places.forEach((is, at) => {
    if (is) words[at >> 5] = words[at >> 5]! | (1 << (at & 31));
  });
  return words;
}
/** How many bits of a word are set. */
function bitsIn(word: number): number {
  let n = word - ((word >>> 1) & 0x55555555);
  n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
  return (((n + (n >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

/** Areas no more than touch below this share of the smaller one. */
const TOUCHES = 0.03;

/** Which areas of a painting lie over one another, each over itself. @returns ids by id */
export function overlapsOf(areas: readonly Pick<AreaStory, 'id' | 'outline' | 'isWhole'>[]): Map<string, Set<string>> {
  const all = areas.map(({ id, outline, isWhole = false }) => {
    const places = outline && packed(placesIn(outline));
    return { id, isWhole, places, size: places?.reduce((sum, word) => sum + bitsIn(word), 0) ?? 0 };
  });
  const touch = (one: (typeof all)[number], other: (typeof all)[number]): boolean => {
    if (one.isWhole || other.isWhole) return true;
    if (!one.places || !other.places) return false;
    let both = 0;
    for (let k = 0; k < one.places.length; k++) both += bitsIn(one.places[k]! & other.places[k]!);
    return both > TOUCHES * Math.min(one.size, other.size);
  };
  const over = new Map(all.map(({ id }) => [id, new Set([id])]));
  all.forEach((one, i) => {
    for (const other of all.slice(i + 1)) {
      if (!touch(one, other)) continue;
      over.get(one.id)!.add(other.id);
      over.get(other.id)!.add(one.id);
    }
  });
  return over;
}

interface LaidOn {
  readonly areaId: string;
  readonly felt: FeltLayer;
}

/** The layers of areas, each as it lies, with the touches it had. A touch and what takes off are of the newest layer there. */
function laidOn(areas: readonly AreaStory[]): LaidOn[] {
  return areas.flatMap(({ id: areaId, events }) => {
    const laid: { readonly id: string; layer: Layer; touches: FeltLayer['touches'][number][] }[] = [];
    for (const event of [...events].sort((one, other) => one.at - other.at)) {
      const top = laid.at(-1);
      if (event.kind === 'laid') laid.push({ id: event.id, layer: event.layer, touches: [] });
      else if (event.kind === 'touched') {
        if (top && event.at >= top.layer.at) top.touches.push({ at: event.at, felt: event.felt });
      } else if (event.kind !== 'oiled out' && top) top.layer = { ...top.layer, filmUm: top.layer.filmUm * LEAVES[event.kind] };
    }
    return laid.map((felt) => ({ areaId, felt }));
  });
}

/** What the touches of all areas of a studio teach. */
export const learntFrom = (areas: readonly AreaStory[]): DryingLearnt => learnDrying(laidOn(areas).map(({ felt }) => felt));

/** All layers that lie on a painting, in the order they were laid. */
export function lyingOn(areas: readonly AreaStory[], learnt?: DryingLearnt): Lying[] {
  return laidOn(areas)
    .map(({ areaId, felt: { id, layer, touches } }): Lying => {
      const time = timeOf(id, layer, learnt);
      const at = (days: number): number => layer.at + days * DAY_MS;
      const [from, to] = windowOf(time);
      const [throughFrom, throughTo] = windowOf(throughOf(time, layer.filmUm));
      return {
        id,
        areaId,
        layer,
        time,
        touchDry: [at(from), at(to)],
        throughDry: [at(throughFrom), at(throughTo)],
        fatness: fatnessOf(layer),
        felt: touches.at(-1),
      };
    })
    .sort((one, other) => one.layer.at - other.layer.at);
}

/** How a layer is at a moment; what was felt of it last stands where it was felt to be further. */
export function standsAt(lying: Pick<Lying, 'layer' | 'time' | 'felt'>, at: number): Stands {
  const reckoned = standsAfter((at - lying.layer.at) / DAY_MS, lying.time, lying.layer.filmUm);
  if (!lying.felt || lying.felt.at > at) return reckoned;
  const known: Stands = lying.felt.felt === 'sunk' ? 'dry' : lying.felt.felt;
  return LAYER_STANDS.indexOf(known) > LAYER_STANDS.indexOf(reckoned) ? known : reckoned;
}

/** What an area answers to being painted over at a moment. */
export interface MayPaint {
  readonly stands: Stands | 'bare';
  /** The layer that holds it up, or the newest where none does. */
  readonly by?: Lying | undefined;
  /** Whether it sank and is to be oiled out before anything is matched to it. */
  readonly sunk: boolean;
}

/** @param lying all layers of the painting @param over the areas that lie over the one that is asked about, itself among them */
export function mayPaintOver(lying: readonly Lying[], over: ReadonlySet<string>, at: number): MayPaint {
  const below = lying.filter(({ areaId, layer }) => over.has(areaId) && layer.at <= at);
  if (below.length === 0) return { stands: 'bare', sunk: false };
  let by = below.at(-1)!;
  let stands = standsAt(by, at);
  for (const one of below) {
    const own = standsAt(one, at);
    if (LAYER_STANDS.indexOf(own) < LAYER_STANDS.indexOf(stands)) [by, stands] = [one, own];
  }
  return { stands, by, sunk: below.at(-1)!.felt?.felt === 'sunk' };
}

/** What is to be said of a layer over each of those it lies over: all that is not good, the worst first. */
export function verdictsFor(
  layer: Layer,
  areaId: string,
  lying: readonly Lying[],
  overlaps: ReadonlyMap<string, ReadonlySet<string>>,
  learnt?: DryingLearnt,
): { readonly over: Lying; readonly verdict: LayerVerdict; readonly says: string }[] {
  const time = timeOf(undefined, layer, learnt);
  const over = overlaps.get(areaId) ?? new Set([areaId]);
  // Of each area that it lies over the newest layer counts: what is under that was judged when it came there.
  const newest = new Map<string, Lying>();
  for (const one of lying) if (over.has(one.areaId) && one.layer.at < layer.at) newest.set(one.areaId, one);
  return [...newest.values()]
    .map((one) => ({ over: one, ...judgedOver({ layer, time }, one) }))
    .filter(({ verdict }) => verdict !== 'good')
    .sort((one, other) => WORST.indexOf(one.verdict) - WORST.indexOf(other.verdict));
}

const WORST: readonly LayerVerdict[] = [
  'wet below',
  'tacky below',
  'leaner than below',
  'fast over slow',
  'thin over thick',
  'perhaps tacky below',
  'good',
];
