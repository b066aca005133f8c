import type { Tube } from '../stores/tubes.ts';

/** A palette for a common way of working, each place by the pigments that may fill it, the best first. */
export interface StartingPalette {
  readonly name: string;
  readonly says: string;
  readonly places: readonly (readonly [what: string, ...pigments: string[]])[];
  readonly mixedDarks?: boolean;
}

const WHITE = ['a white', 'titanium-white', 'titanium-zinc-white', 'lead-white', 'mixing-white', 'zinc-white'] as const;
const BLUE = ['a deep blue', 'ultramarine-blue', 'cobalt-blue', 'phthalo-blue-red-shade', 'prussian-blue'] as const;
const YELLOW_EARTH = ['a yellow earth', 'yellow-ochre', 'yellow-oxide', 'transparent-yellow-oxide', 'raw-sienna'] as const;
const RED_EARTH = ['a red earth', 'venetian-red', 'indian-red', 'burnt-sienna', 'transparent-red-oxide', 'red-oxide'] as const;
const BROWN = ['a brown', 'burnt-umber', 'raw-umber', 'van-dyke-brown'] as const;
const BLACK = ['a black', 'ivory-black', 'mars-black', 'lamp-black'] as const;
const WARM_RED = ['a warm red', 'cadmium-red', 'pyrrole-red', 'naphthol-red', 'cadmium-red-light'] as const;
const COOL_RED = ['a cool red', 'alizarin-permanent', 'quinacridone-rose', 'quinacridone-crimson', 'alizarin-crimson'] as const;
const COOL_YELLOW = ['a cool yellow', 'cadmium-lemon', 'bismuth-yellow', 'hansa-yellow', 'nickel-titanate-yellow'] as const;
const WARM_YELLOW = ['a warm yellow', 'cadmium-yellow', 'cadmium-yellow-deep', 'hansa-yellow', 'indian-yellow'] as const;
const LIGHT_BLUE = ['a light blue', 'cerulean-blue', 'cobalt-blue', 'manganese-blue-hue', 'phthalo-turquoise'] as const;
const GREEN = ['a green', 'viridian', 'phthalo-green', 'chromium-oxide-green', 'terre-verte'] as const;

export const STARTING: readonly StartingPalette[] = [
  { name: 'Earths', says: 'quiet, all of a piece', places: [WHITE, YELLOW_EARTH, RED_EARTH, BROWN, BLACK] },
  { name: 'Three and white', says: 'everything from three', places: [WHITE, WARM_YELLOW, COOL_RED, BLUE], mixedDarks: true },
  { name: 'Earths and primaries', says: 'for most pictures', places: [WHITE, YELLOW_EARTH, RED_EARTH, WARM_YELLOW, WARM_RED, BLUE, BROWN] },
  { name: 'High key', says: 'light and bright', places: [WHITE, COOL_YELLOW, WARM_RED, COOL_RED, LIGHT_BLUE, GREEN], mixedDarks: true },
  { name: 'Portrait', says: 'for skin', places: [WHITE, YELLOW_EARTH, WARM_RED, COOL_RED, RED_EARTH, BROWN, BLUE] },
  { name: 'Nocturne', says: 'deep and dim, with a few lights', places: [WHITE, YELLOW_EARTH, RED_EARTH, BLUE, GREEN, BLACK, WARM_YELLOW] },
];

/** A starting palette as the rack fills it. */
export interface Filled {
  readonly start: StartingPalette;
  readonly tubes: readonly Tube[];
  /** What the painter's own rack has nothing for: a typical one stands for it, where there is one. */
  readonly missing: readonly string[];
}

/** Fills each place from a rack: one's own tubes first; where none of those will do, a typical one, which is said to be missing. */
export function filledFrom(rack: readonly Tube[], start: StartingPalette): Filled {
  const own = rack.filter(({ maker }) => maker !== '');
  const tubes: Tube[] = [];
  const missing: string[] = [];
  for (const [what, ...pigments] of start.places) {
    const among = (list: readonly Tube[]): Tube | undefined =>
      pigments
        .map((slug) => list.find((tube) => tube.pigment === slug && tube.pigments.length === 1 && !tubes.includes(tube)))
        .find(Boolean);
    const mine = among(own);
    const taken = mine ?? among(rack);
    if (taken) tubes.push(taken);
    if (!mine && own.length > 0) missing.push(what);
  }
  return { start, tubes, missing };
}
