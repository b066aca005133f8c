import { CATALOGUE, type PaletteTube } from '../src/index.ts';

const SIX = ['titanium-white', 'yellow-oxide', 'pyrrole-orange', 'transparent-oxide-red', 'ultramarine-blue', 'viridian'];
const EIGHT = [
  'titanium-white',
  'cadmium-yellow',
  'yellow-ochre',
  'cadmium-red',
  'alizarin-permanent',
  'ultramarine-blue',
  'phthalo-blue',
  'burnt-umber',
];
const TWELVE = [...EIGHT, 'viridian', 'burnt-sienna', 'cobalt-blue', 'ivory-black'];
/** Without a tube so strong that a knife cannot dose it. */
export const CORRECTING = [
  'titanium-white',
  'hansa-yellow',
  'yellow-ochre',
  'venetian-red',
  'quinacridone-rose',
  'ultramarine-blue',
  'burnt-umber',
  'viridian',
];

export const PALETTES: readonly (readonly string[])[] = [SIX, EIGHT, TWELVE];

export const tubesOf = (slugs: readonly string[]): PaletteTube[] =>
  slugs.map((id) => {
    const { K, S } = CATALOGUE.get(id)!;
    return { id, K, S };
  });

/** A value of a sorted copy at a share of its length. */
export function at(list: readonly number[], share: number): number {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
}

export const mean = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / list.length;

export function timed<T>(work: () => T): { readonly result: T; readonly ms: number } {
  const from = performance.now();
  const result = work();
  return { result, ms: performance.now() - from };
}
