import type { Zone } from '@dusk/core';
import type { Needs, ViewDto } from '@dusk/wire';

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

/** A tube that lies on no palette yet, and was taught by a reader. */
export const SAMPLE_TAUGHT: SampleTube = { pigment: 'burnt-umber', name: 'Burnt umber', nozzleMm: 6 };

export interface SamplePalette {
  readonly name: string;
  readonly pigments: readonly string[];
}

/** A place in a picture to sample, in shares of its width and height. */
export interface SamplePlace {
  readonly name: string;
  readonly thing: string;
  readonly zone: Zone;
  readonly x: number;
  readonly y: number;
  /** How it is laid, and what it is to be enough for. */
  readonly lands?: Pick<NonNullable<Needs<'pile.add'>['purpose']>, 'laid' | 'passage'>;
}

/** What the sample painter did with a pile, in order. */
export interface SampleDeed {
  readonly pile: string;
  readonly did: readonly ('mixed' | 'looked at' | 'corrected' | 'scraped')[];
}

/** What grows from a pile: the same thing in shadow, so many half stops down; or a string to another. */
export type SampleKin = { readonly of: string } & (
  { readonly inShadow: number; readonly name: string; readonly thing: string } | { readonly to: string; readonly n: number }
);

/** A part of a painting, and what was done with it so many days ago. */
export interface SampleArea {
  readonly name: string;
  /** In shares of the canvas; left out for the whole. */
  readonly outline?: readonly (readonly [x: number, y: number])[];
  readonly did: readonly (
    | { readonly daysAgo: number; readonly laid: NonNullable<Needs<'deed.add'>['laid']>; readonly of: Readonly<Record<string, number>> }
    | { readonly daysAgo: number; readonly felt: NonNullable<Needs<'deed.add'>['touch']> }
  )[];
}

export interface SamplePainting {
  readonly title: string;
  readonly palette: SamplePalette;
  readonly ground: string;
  /** Of its palette, the pigment the ground is a wash of; its colour is then that. */
  readonly groundOf?: string;
  /** Its sides in mm. */
  readonly canvas: { readonly widthMm: number; readonly heightMm: number };
  readonly picture: string;
  readonly source: string;
  /** How the picture is keyed and lined. */
  readonly view: ViewDto;
  readonly piles: readonly SamplePlace[];
  readonly done?: readonly SampleDeed[];
  readonly kin?: readonly SampleKin[];
  /** What was laid on it in earlier sittings. */
  readonly areas?: readonly SampleArea[];
  /** Piles of which cards were made, kept as one set. */
  readonly cards?: { readonly set: string; readonly note: string; readonly piles: readonly string[] };
}

export const SAMPLE_PAINTINGS: readonly SamplePainting[] = [
  {
    title: 'Oil can and twine by window and lamp',
    palette: {
      name: 'Window and lamp',
      pigments: ['titanium-white', 'yellow-oxide', 'pyrrole-orange', 'transparent-oxide-red', 'ultramarine-blue', 'viridian'],
    },
    ground: '#8f7f6a',
    canvas: { widthMm: 450, heightMm: 300 },
    picture: 'workbench',
    source: 'set up and lit for this studio',
    view: { grid: { across: 6, down: 4, diagonals: false, thirds: false } },
    piles: [
      { name: 'wall by the window', thing: 'wall', zone: 'light', x: 0.62, y: 0.12 },
      { name: 'wall near the lamp', thing: 'wall', zone: 'light', x: 0.04, y: 0.3 },
      {
        name: 'bench in the light',
        thing: 'bench',
        zone: 'halftone',
        x: 0.52,
        y: 0.86,
        lands: { laid: { how: 'thin' }, passage: { cm2: 300 } },
      },
      { name: 'copper, body', thing: 'copper', zone: 'halftone', x: 0.29, y: 0.53 },
      { name: 'glaze, halftone', thing: 'bowl', zone: 'halftone', x: 0.53, y: 0.56 },
      { name: 'blanket, front', thing: 'blanket', zone: 'halftone', x: 0.67, y: 0.4 },
      { name: 'twine in the light', thing: 'twine', zone: 'light', x: 0.7, y: 0.58 },
      { name: 'under the bowl', thing: 'bench', zone: 'cast shadow', x: 0.58, y: 0.7 },
    ],
    done: [
      { pile: 'wall by the window', did: ['mixed'] },
      { pile: 'bench in the light', did: ['mixed', 'looked at', 'corrected', 'looked at'] },
      { pile: 'glaze, halftone', did: ['mixed', 'scraped'] },
      { pile: 'wall near the lamp', did: ['mixed', 'looked at'] },
    ],
    areas: [
      {
        name: 'wall',
        outline: [
          [0.02, 0.03],
          [0.98, 0.03],
          [0.98, 0.36],
          [0.02, 0.42],
        ],
        did: [
          { daysAgo: 9, laid: { how: 'thin' }, of: { 'titanium-white': 3, 'yellow-oxide': 1, 'ultramarine-blue': 0.5 } },
          { daysAgo: 5, felt: 'dry' },
        ],
      },
      {
        name: 'bowl',
        outline: [
          [0.45, 0.48],
          [0.61, 0.46],
          [0.64, 0.62],
          [0.5, 0.7],
          [0.43, 0.6],
        ],
        did: [{ daysAgo: 3, laid: { how: 'normal', with: 'oil' }, of: { viridian: 2, 'titanium-white': 1, 'yellow-oxide': 1 } }],
      },
      {
        name: 'bench',
        outline: [
          [0.02, 0.68],
          [0.98, 0.62],
          [0.98, 0.97],
          [0.02, 0.97],
        ],
        did: [{ daysAgo: 1, laid: { how: 'normal' }, of: { 'transparent-oxide-red': 2, 'ultramarine-blue': 1, 'titanium-white': 1 } }],
      },
    ],
    cards: {
      set: 'Lamp and window, first sitting',
      note: 'for the next still life by the same lamp',
      piles: [
        'under the bowl',
        'copper, body',
        'glaze, halftone',
        'blanket, front',
        'bench in the light',
        'twine in the light',
        'wall near the lamp',
      ],
    },
  },
  {
    title: 'Courtyard, washing day',
    palette: {
      name: 'Courtyard in the sun',
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
    groundOf: 'raw-sienna',
    canvas: { widthMm: 600, heightMm: 400 },
    picture: 'courtyard',
    source: 'seen from a window, in the last sun',
    view: { key: { kind: 'fitted', held: 0.5 } },
    piles: [
      { name: 'wall in the sun', thing: 'wall', zone: 'light', x: 0.48, y: 0.1 },
      { name: 'wall in the shade', thing: 'wall', zone: 'cast shadow', x: 0.66, y: 0.9 - 0.15 },
      { name: 'door', thing: 'door', zone: 'halftone', x: 0.2, y: 0.55 },
      { name: 'awning', thing: 'awning', zone: 'transmitted light', x: 0.62, y: 0.28 },
      { name: 'sheet', thing: 'washing', zone: 'light', x: 0.36, y: 0.5 },
      { name: 'paving', thing: 'paving', zone: 'halftone', x: 0.4, y: 0.94 },
    ],
    areas: [
      { name: 'the whole', did: [{ daysAgo: 20, laid: { how: 'wash', with: 'thinner' }, of: { 'raw-sienna': 1 } }] },
      {
        name: 'wall',
        outline: [
          [0.25, 0.02],
          [0.98, 0.02],
          [0.98, 0.4],
          [0.25, 0.3],
        ],
        did: [{ daysAgo: 2, laid: { how: 'loaded' }, of: { 'titanium-white': 4, 'hansa-yellow': 1, 'raw-sienna': 1 } }],
      },
    ],
    kin: [
      { of: 'sheet', inShadow: 2, name: 'sheet, in shadow', thing: 'washing' },
      { of: 'wall in the shade', to: 'wall in the sun', n: 5 },
    ],
  },
];
