import { CraftError } from '../errors.ts';
import { labToLch } from '../colour/spaces.ts';
import { BANDS } from '../colour/spectrum.ts';
import { CATALOGUE, type Basis, type PaintCurves } from '../paint/catalogue.ts';
import { modesOf, SPREAD_OF } from '../paint/deviation.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import type { Drying } from '../paint/pigments/definition.ts';
import { BOTH, endToEnd, eyeFor, type Eye, type Viewing } from '../paint/viewing.ts';
import { MOST_INGREDIENTS, MOST_TUBES, USUAL_LIMITS, type Limits } from './limits.ts';

/** A tube as it lies on the palette. `id` is the caller's own name for it. */
export interface PaletteTube extends PaintCurves {
  readonly id: string;
  /** What its curves rest on, typical unless said. */
  readonly basis?: Basis;
  /** What to be careful about, as in the catalogue: `none`, `cadmium`, … */
  readonly caution?: string;
  /** Price of a millilitre in any one currency, where the painter minds it. */
  readonly price?: number;
  readonly drying?: Drying;
  /** Bore of its mouth; an ordinary one unless said. */
  readonly nozzleMm?: number;
}

/** A pile that is already mixed and may be an ingredient: shares of its tubes. */
export interface PaletteMix extends PaintCurves {
  readonly id: string;
  readonly flat: Readonly<Record<string, number>>;
}

/** What a recipe can be made from: a tube, or a pile that is there. */
export interface PaletteIngredient extends PaletteTube {
  /** Of a pile: share of volume of each tube in it. */
  readonly tubes?: Readonly<Record<string, number>>;
}

/** How a paint shows itself let into titanium white, one part to nine: the same on every palette. */
export interface Tint {
  readonly chroma: number;
  readonly hue: number;
  /** L* of the paint as it comes. */
  readonly lightness: number;
}

/** Ways of differing, end to end, every two bands as their mean: of K and S together, of K alone and of S alone. */
export interface ModeTable {
  readonly both: Float64Array;
  readonly K: Float64Array;
  readonly S: Float64Array;
}

/** Mixtures reckoned beforehand, from which searches start. */
export interface Starts {
  readonly sets: readonly (readonly number[])[];
  readonly shares: readonly (readonly number[])[];
  /** Three numbers each. */
  readonly lab: Float32Array;
}

/** A palette laid out to be matched with: what recipes may be made from, within which limits, and how they are looked at. */
export interface Palette {
  readonly ingredients: readonly PaletteIngredient[];
  readonly limits: Limits;
  readonly eye: Eye;
  /** Curves of each ingredient as the eye sees them, end to end. */
  readonly table: Float64Array;
  /** The ways in which each ingredient may differ from its curves. */
  readonly modes: readonly ModeTable[];
  readonly tints: readonly Tint[];
  /** How strongly each ingredient pulls a mixture: its absorption and scattering together. */
  readonly strengths: Float64Array;
  readonly starts: Starts;
}

const isSane = (v: number): boolean => Number.isFinite(v) && v >= 0 && v <= 1000;

function checkIngredients(all: readonly (PaintCurves & { readonly id: string })[]): void {
  const seen = new Set<string>();
  for (const { id, K, S } of all) {
    if (seen.has(id)) throw new CraftError('palette', `The tube ${JSON.stringify(id)} is on the palette twice.`);
    seen.add(id);
    if (K.length !== BANDS || S.length !== BANDS || !K.every(isSane) || !S.every((v) => isSane(v) && v > 0))
      throw new CraftError(
        'palette',
        `The curves of the tube ${JSON.stringify(id)} are broken: K and S must be numbers from 0, S above 0.`,
      );
  }
}

function checkPalette(tubes: readonly PaletteTube[], piles: readonly PaletteMix[]): void {
  if (tubes.length === 0) throw new CraftError('palette', 'The palette is empty: choose at least one tube.');
  if (tubes.length > MOST_TUBES)
    throw new CraftError('palette', `A palette may hold at most ${MOST_TUBES} tubes; this one holds ${tubes.length}.`);
  if (tubes.length + piles.length > MOST_INGREDIENTS)
    throw new CraftError(
      'palette',
      `Tubes and piles together may be at most ${MOST_INGREDIENTS}; these are ${tubes.length + piles.length}.`,
    );
  checkIngredients([...tubes, ...piles]);
}

const TINT_BASE = 9;
const WHITE = CATALOGUE.get('titanium-white')!;

function tintOf(paint: PaintCurves): Tint {
  const [, chroma, hue] = labToLch(
    labOf(
      reflectance(
        mixCurves([
          { paint, parts: 1 },
          { paint: WHITE, parts: TINT_BASE },
        ]),
      ),
    ),
  );
  return { chroma, hue, lightness: labOf(reflectance(paint))[0] };
}

/** How starts of one to four paints divide their pull: evenly, and towards one of them. */
const DIVISIONS: readonly (readonly (readonly number[])[])[] = [
  [[1]],
  [0.01, 0.04, 0.12, 0.3, 0.5, 0.7, 0.88, 0.96, 0.99].map((share) => [share, 1 - share]),
  [
    [1, 1, 1],
    [4, 1, 1],
    [1, 4, 1],
    [1, 1, 4],
    [12, 1, 1],
    [1, 12, 1],
    [1, 1, 12],
  ],
  [
    [1, 1, 1, 1],
    [6, 1, 1, 1],
    [1, 6, 1, 1],
    [1, 1, 6, 1],
    [1, 1, 1, 6],
  ],
];
/** Palettes of more ingredients have enough starts of two, of three, of four. */
const MOST_WITH_STARTS_OF = [Infinity, Infinity, 12, 6] as const;

function strengthsOf(table: Float64Array, n: number): Float64Array {
  return Float64Array.from({ length: n }, (_, t) => {
    let sum = 0;
    for (let i = t * BOTH; i < (t + 1) * BOTH; i++) sum += table[i]!;
    return sum;
  });
}

/** Mixtures of up to four paints that divide their pull in some ways. @param from starts without any paint before this are left out */
function startsOf(table: Float64Array, pulls: Float64Array, eye: Eye, from = 0): Starts {
  const n = pulls.length;
  const sets: number[][] = [];
  const shares: number[][] = [];
  const labs: number[] = [];
  const mixed = new Float64Array(BOTH);
  const grow = (set: number[], next: number): void => {
    if (set.length > 0 && set.at(-1)! >= from)
      for (const division of DIVISIONS[set.length - 1]!) {
        const parts = division.map((part, k) => part / pulls[set[k]!]!);
        const whole = parts.reduce((sum, part) => sum + part, 0);
        mixed.fill(0);
        set.forEach((t, k) => {
          for (let i = 0; i < BOTH; i++) mixed[i] = mixed[i]! + (parts[k]! / whole) * table[t * BOTH + i]!;
        });
        sets.push(set);
        shares.push(parts.map((part) => part / whole));
        labs.push(...eye.see(mixed));
      }
    if (set.length < DIVISIONS.length && n <= MOST_WITH_STARTS_OF[set.length]!) for (let t = next; t < n; t++) grow([...set, t], t + 1);
  };
  grow([], 0);
  return { sets, shares, lab: Float32Array.from(labs) };
}

const bothStarts = (one: Starts, other: Starts): Starts => ({
  sets: [...one.sets, ...other.sets],
  shares: [...one.shares, ...other.shares],
  lab: Float32Array.of(...one.lab, ...other.lab),
});

/** Curves of several paints end to end. */
function tableOf(paints: readonly PaintCurves[]): Float64Array {
  const table = new Float64Array(paints.length * BOTH);
  paints.forEach((paint, i) => table.set(endToEnd(paint), i * BOTH));
  return table;
}

const NONE = new Float64Array(0);
/** Every two bands of some curves as their mean, end to end. */
const inPairs = (curves: readonly Float64Array[]): Float64Array =>
  Float64Array.from(curves.flatMap((curve) => Array.from({ length: BANDS / 2 }, (_, i) => (curve[2 * i]! + curve[2 * i + 1]!) / 2)));

function modesOn(paint: PaintCurves, { basis = 'typical', doubt }: PaletteIngredient): ModeTable {
  if (doubt) {
    const open = doubt.flatMap((way) => [paint.K.map((v, i) => v * way[i]!), paint.S.map((v, i) => v * way[BANDS + i]!)]);
    return { both: inPairs(open), K: NONE, S: NONE };
  }
  const { both, K, S } = modesOf(paint, SPREAD_OF[basis]);
  return { both: inPairs(both.flatMap((mode) => [mode.K, mode.S])), K: inPairs(K), S: inPairs(S) };
}

/** What is unknown of a pile on the palette: little, since it was seen. */
const PILE_BASIS: Basis = 'measured';

/**
 * Lays out a palette: tubes in their order, then piles that are there already. A few milliseconds.
 * @throws CraftError for an empty or overfull palette, a tube twice, broken curves, or a viewing out of range
 */
export function layPalette(
  tubes: readonly PaletteTube[],
  limits: Limits = USUAL_LIMITS,
  viewing: Viewing = {},
  piles: readonly PaletteMix[] = [],
): Palette {
  checkPalette(tubes, piles);
  const eye = eyeFor(viewing);
  const ingredients: PaletteIngredient[] = [
    ...tubes,
    ...piles.map(({ id, K, S, flat }): PaletteIngredient => ({ id, K, S, tubes: flat, basis: PILE_BASIS })),
  ];
  const curves = ingredients.map((ingredient) => eye.curvesOf(ingredient));
  const table = tableOf(curves);
  const strengths = strengthsOf(table, curves.length);
  return {
    ingredients,
    limits,
    eye,
    table,
    modes: curves.map((paint, i) => modesOn(paint, ingredients[i]!)),
    tints: ingredients.map(tintOf),
    strengths,
    starts: startsOf(table, strengths, eye),
  };
}

/** A palette with one tube more, which stands last. */
export function withTube(palette: Palette, tube: PaletteTube): Palette {
  checkIngredients([...palette.ingredients, tube]);
  const curves = palette.eye.curvesOf(tube);
  const last = palette.ingredients.length;
  const table = new Float64Array((last + 1) * BOTH);
  table.set(palette.table);
  table.set(endToEnd(curves), last * BOTH);
  const strengths = strengthsOf(table, last + 1);
  return {
    ...palette,
    ingredients: [...palette.ingredients, tube],
    table,
    modes: [...palette.modes, modesOn(curves, tube)],
    tints: [...palette.tints, tintOf(tube)],
    strengths,
    starts: bothStarts(palette.starts, startsOf(table, strengths, palette.eye, last)),
  };
}
