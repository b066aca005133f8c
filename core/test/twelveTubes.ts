/** Twelve ordinary tubes, white first. */
export const TWELVE_TUBES = [
  'titanium-white',
  'yellow-ochre',
  'cadmium-yellow',
  'cadmium-red',
  'quinacridone-rose',
  'burnt-sienna',
  'ultramarine-blue',
  'viridian',
  'ivory-black',
  'raw-umber',
  'cerulean-blue',
  'cadmium-orange',
];
