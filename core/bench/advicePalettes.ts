import { CATALOGUE, type PaletteTube } from '../src/index.ts';

/** Eight palettes of three to twenty-four tubes, by which advice is judged. */
export const ADVICE_PALETTES: Readonly<Record<string, readonly string[]>> = {
  'three: white, sienna, ultramarine': ['titanium-white', 'burnt-sienna', 'ultramarine-blue'],
  'four earths': ['titanium-white', 'yellow-ochre', 'venetian-red', 'ivory-black'],
  'four: strong primaries': ['titanium-white', 'cadmium-yellow', 'quinacridone-rose', 'phthalo-blue'],
  'six, mixed darks': ['titanium-white', 'yellow-ochre', 'cadmium-red', 'alizarin-permanent', 'ultramarine-blue', 'viridian'],
  'eight for skin': [
    'titanium-white',
    'naples-yellow-hue',
    'yellow-ochre',
    'cadmium-red-light',
    'venetian-red',
    'alizarin-permanent',
    'ultramarine-blue',
    'raw-umber',
  ],
  'twelve, ordinary': [
    'titanium-white',
    'cadmium-lemon',
    'cadmium-yellow',
    'yellow-ochre',
    'cadmium-red',
    'alizarin-permanent',
    'ultramarine-blue',
    'cerulean-blue',
    'viridian',
    'burnt-sienna',
    'burnt-umber',
    'ivory-black',
  ],
  'sixteen, outdoors': [
    'titanium-white',
    'hansa-yellow',
    'cadmium-yellow-deep',
    'yellow-ochre',
    'raw-sienna',
    'pyrrole-orange',
    'pyrrole-red',
    'quinacridone-magenta',
    'dioxazine-violet',
    'ultramarine-blue',
    'cobalt-blue',
    'phthalo-blue',
    'phthalo-green-yellow-shade',
    'burnt-sienna',
    'raw-umber',
    'lamp-black',
  ],
  'twenty-four': [
    'titanium-white',
    'zinc-white',
    'cadmium-lemon',
    'hansa-yellow',
    'indian-yellow',
    'naples-yellow-hue',
    'yellow-ochre',
    'transparent-oxide-red',
    'cadmium-orange',
    'cadmium-red',
    'pyrrole-red',
    'quinacridone-rose',
    'alizarin-permanent',
    'cobalt-violet',
    'ultramarine-blue',
    'cobalt-blue',
    'phthalo-blue',
    'prussian-blue',
    'viridian',
    'phthalo-green',
    'chromium-oxide-green',
    'burnt-sienna',
    'raw-umber',
    'ivory-black',
  ],
};

/** Tubes with all that the catalogue says of them. */
export const knownTubes = (slugs: readonly string[]): PaletteTube[] =>
  slugs.map((id) => {
    const { K, S, caution, drying } = CATALOGUE.get(id)!;
    return { id, K, S, caution, drying };
  });
