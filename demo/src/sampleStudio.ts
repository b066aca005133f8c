/** A tube of the sample studio, by a maker made up for it. */
export interface SampleTube {
  readonly pigment: string;
  readonly name: string;
  readonly nozzleMm: number;
}

/** Made up; any likeness of a name is chance. */
export const SAMPLE_MAKER = 'Harrow Lane Colours';

export const SAMPLE_TUBES: readonly SampleTube[] = [
  { pigment: 'titanium-white', name: 'Titanium white', nozzleMm: 8 },
  { pigment: 'hansa-yellow', name: 'Hansa yellow', nozzleMm: 6 },
  { pigment: 'yellow-oxide', name: 'Yellow oxide', nozzleMm: 6 },
  { pigment: 'raw-sienna', name: 'Raw sienna', nozzleMm: 6 },
  { pigment: 'pyrrole-orange', name: 'Pyrrole orange', nozzleMm: 6 },
  { pigment: 'venetian-red', name: 'Venetian red', nozzleMm: 6 },
  { pigment: 'transparent-oxide-red', name: 'Transparent oxide red', nozzleMm: 6 },
  { pigment: 'quinacridone-rose', name: 'Quinacridone rose', nozzleMm: 6 },
  { pigment: 'ultramarine-blue', name: 'Ultramarine blue', nozzleMm: 6 },
  { pigment: 'phthalo-turquoise', name: 'Phthalo turquoise', nozzleMm: 5 },
  { pigment: 'viridian', name: 'Viridian', nozzleMm: 6 },
];

export interface SamplePalette {
  readonly name: string;
  readonly pigments: readonly string[];
}

/** A place in a picture to sample, in shares of its width and height. */
export interface SamplePlace {
  readonly name: string;
  readonly x: number;
  readonly y: number;
}

/** What the sample painter did with a pile, in order. */
export interface SampleDeed {
  readonly pile: string;
  readonly did: readonly ('mixed' | 'looked at' | 'corrected' | 'scraped')[];
}

export interface SamplePainting {
  readonly title: string;
  readonly palette: SamplePalette;
  readonly ground: string;
  readonly picture: string;
  readonly piles: readonly SamplePlace[];
  readonly done?: readonly SampleDeed[];
}

export const SAMPLE_PAINTINGS: readonly SamplePainting[] = [
  {
    title: 'Oil can and twine by one lamp',
    palette: {
      name: 'Lamp light, six tubes',
      pigments: ['titanium-white', 'yellow-oxide', 'pyrrole-orange', 'transparent-oxide-red', 'ultramarine-blue', 'viridian'],
    },
    ground: '#8f7f6a',
    picture: 'workbench',
    piles: [
      { name: 'wall, further off', x: 0.62, y: 0.12 },
      { name: 'wall near the lamp', x: 0.04, y: 0.3 },
      { name: 'bench in the light', x: 0.52, y: 0.86 },
      { name: 'copper, body', x: 0.29, y: 0.53 },
      { name: 'glaze, halftone', x: 0.53, y: 0.56 },
      { name: 'blanket, top', x: 0.67, y: 0.4 },
      { name: 'twine in the light', x: 0.7, y: 0.58 },
    ],
    done: [
      { pile: 'wall, further off', did: ['mixed'] },
      { pile: 'bench in the light', did: ['mixed', 'looked at', 'corrected', 'looked at'] },
      { pile: 'glaze, halftone', did: ['mixed', 'scraped'] },
      { pile: 'wall near the lamp', did: ['mixed', 'looked at'] },
    ],
  },
  {
    title: 'Courtyard, washing day',
    palette: {
      name: 'Courtyard, seven tubes',
      pigments: [
        'titanium-white',
        'hansa-yellow',
        'raw-sienna',
        'venetian-red',
        'quinacridone-rose',
        'ultramarine-blue',
        'phthalo-turquoise',
      ],
    },
    ground: '#b9a58c',
    picture: 'courtyard',
    piles: [
      { name: 'wall in the sun', x: 0.48, y: 0.1 },
      { name: 'wall in the shade', x: 0.66, y: 0.9 - 0.15 },
      { name: 'door', x: 0.2, y: 0.55 },
      { name: 'awning', x: 0.62, y: 0.28 },
      { name: 'sheet', x: 0.36, y: 0.5 },
      { name: 'paving', x: 0.4, y: 0.94 },
    ],
  },
];
