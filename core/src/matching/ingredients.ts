import { deltaE00 } from '../colour/difference.ts';
import { CraftError } from '../errors.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import type { Drying } from '../paint/pigments/definition.ts';
import { MOST_TUBES } from './limits.ts';

/** A tube as it lies on the palette. `id` is the caller's own name for it. */
export interface PaletteTube extends PaintCurves {
  readonly id: string;
  /** Price of a millilitre in any one currency, where the painter minds it. */
  readonly price?: number;
  readonly drying?: Drying;
}

/** A pile that is already mixed and may be an ingredient: shares of its tubes. */
export interface PaletteMix extends PaintCurves {
  readonly id: string;
  readonly flat: Readonly<Record<string, number>>;
}

/** A weak premix of a strong tube, mixed first and then used as one ingredient. */
export interface Letdown {
  readonly name: string;
  readonly parts: Readonly<Record<string, number>>;
}

/** What a part of a recipe can be: a tube, or a let-down of one. */
export interface BookIngredient extends PaintCurves {
  readonly id: string;
  /** What it counts as towards the limit of tubes: a pile on the palette is one thing. */
  readonly counts: readonly string[];
  readonly letdown?: Letdown;
  /** Of a pile that is there: share of volume of each tube in it. */
  readonly tubes?: Readonly<Record<string, number>>;
  readonly price?: number;
  readonly drying?: Drying;
}

/**
 * A tube is let down when one part of it in eleven of the base moves the base further than this (ΔE00):
 * pale colours need less of it than a part.
 */
const STRONG_STEP = 12;
/** Parts of the base to one of the tube, in an ordinary let-down and in a thin one. */
const LETDOWN_BASE = 9;
const THIN_LETDOWN_BASE = 39;
/** Tubes of which one part in twelve moves the base further than this may need the thin one too: pale greys. */
const VERY_STRONG_STEP = 24;
/** Each let-down makes the book larger, so a large palette has fewer: those of its strongest tubes. */
const MOST_WITH_LETDOWNS = 17;
const MOST_THIN = 3;

const isSane = (v: number): boolean => Number.isFinite(v) && v >= 0 && v <= 1000;

function checkPalette(tubes: readonly PaletteTube[]): void {
  if (tubes.length === 0) throw new CraftError('palette', 'The palette is empty: choose at least one tube.');
  if (tubes.length > MOST_TUBES)
    throw new CraftError('palette', `A palette may hold at most ${MOST_TUBES} tubes; this one holds ${tubes.length}.`);
  const seen = new Set<string>();
  for (const { id, K, S } of tubes) {
    if (seen.has(id)) throw new CraftError('palette', `The tube ${JSON.stringify(id)} is on the palette twice.`);
    seen.add(id);
    if (!K.every(isSane) || !S.every((v) => isSane(v) && v > 0))
      throw new CraftError(
        'palette',
        `The curves of the tube ${JSON.stringify(id)} are broken: K and S must be numbers from 0, S above 0.`,
      );
  }
}

/** The paint others are let down with: the lightest masstone on the palette. */
function baseOf(tubes: readonly PaletteTube[]): PaletteTube {
  const lightness = (tube: PaletteTube) => labOf(reflectance(tube))[0];
  return tubes.reduce((best, tube) => (lightness(tube) > lightness(best) ? tube : best));
}

/** How far one part in twelve moves the base, in ΔE00: what painters call tinting strength. */
function tintingStep(tube: PaintCurves, base: PaintCurves): number {
  const tint = mixCurves([
    { paint: tube, parts: 1 },
    { paint: base, parts: 11 },
  ]);
  return deltaE00(labOf(reflectance(tint)), labOf(reflectance(base)));
}

function letDown(tube: PaletteTube, base: PaletteTube, baseParts: number, name: string): BookIngredient {
  const parts = { [base.id]: baseParts, [tube.id]: 1 };
  const { K, S } = mixCurves([
    { paint: base, parts: baseParts },
    { paint: tube, parts: 1 },
  ]);
  return { id: name, K, S, counts: [base.id, tube.id], letdown: { name, parts } };
}

/** Ordinary let-downs first, the strongest tubes' before; then thin ones, while there is room. */
function letDowns(tubes: readonly PaletteTube[]): BookIngredient[] {
  const base = baseOf(tubes);
  const strong = tubes
    .filter((tube) => tube !== base)
    .map((tube) => ({ tube, step: tintingStep(tube, base) }))
    .filter(({ step }) => step > STRONG_STEP)
    .sort((one, other) => other.step - one.step);
  const ordinary = strong.map(({ tube }) => letDown(tube, base, LETDOWN_BASE, `${tube.id} let down`));
  const thin = strong
    .filter(({ step }) => step > VERY_STRONG_STEP)
    .slice(0, MOST_THIN)
    .map(({ tube }) => letDown(tube, base, THIN_LETDOWN_BASE, `${tube.id} let down thin`));
  return [...ordinary, ...thin].slice(0, Math.max(0, MOST_WITH_LETDOWNS - tubes.length));
}

/**
 * Ingredients for recipes from a palette: its tubes in their order, then let-downs (1 : 9 and
 * 1 : 39 in the lightest paint) of those of which less than a part may be needed, then piles that are there already.
 * @throws CraftError for an empty or overfull palette, a tube twice, or broken curves.
 */
export function ingredientsOf(tubes: readonly PaletteTube[], piles: readonly PaletteMix[] = []): BookIngredient[] {
  checkPalette(tubes);
  if (piles.length > 0) checkPalette([...tubes, ...piles]);
  const whole = tubes.map((tube): BookIngredient => ({ ...tube, counts: [tube.id] }));
  const mixed = piles.map(({ id, K, S, flat }): BookIngredient => ({ id, K, S, tubes: flat, counts: [id] }));
  return [...whole, ...letDowns(tubes), ...mixed];
}
