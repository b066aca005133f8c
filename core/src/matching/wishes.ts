import { CraftError } from '../errors.ts';
import { deltaE00 } from '../colour/difference.ts';
import { BANDS } from '../colour/spectrum.ts';
import { dryingOf } from '../mixing/drying.ts';
import { measurings } from '../mixing/mixture.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import type { Hand } from '../mixing/hand.ts';
import { HOLDS, type Hold, type Sought } from './sought.ts';
import type { Palette } from '../laying/palette.ts';
import { MOST_TOGETHER } from '../laying/shares.ts';
import { portionsOn, type Recipe } from './recipe.ts';
import { DULLING, type Dulling } from '../laying/worth.ts';

/** What a painter minds most, once value and colour are right: as a hand mixes, in one heap from few tubes, or another thing. */
export const EMPHASES = ['usual', 'closest', 'fewest', 'steady', 'cheap', 'fast', 'covers', 'lets through', 'cautious'] as const;
export type Emphasis = (typeof EMPHASES)[number];

/** What a painter asks of a recipe beyond its colour. */
export interface Wishes {
  readonly emphasis?: Emphasis;
  /** Tubes that must not be in it, as tube blacks where darks are to be mixed. */
  readonly exclude?: readonly string[];
  /** A tube or pile that must be in it, or several. */
  readonly mustUse?: string | readonly string[];
  /** Only piles may be in it, no tube straight. */
  readonly onlyPiles?: boolean;
  /** What is held while the rest gives way. */
  readonly hold?: Hold;
  /** Most things in one recipe, when less than the palette's limits allow. */
  readonly most?: number;
  /** Most parts in a heap, when less than the palette's limits allow. */
  readonly parts?: number;
  /** The painter's school of dulling a colour. */
  readonly dulling?: Dulling;
  /** How much is to be mixed, in ml; as usual unless said. */
  readonly amountMl?: number | undefined;
  /** The hand that mixes it; an ordinary one unless said. */
  readonly hand?: Hand | undefined;
}

/**
 * What is sought on a palette by wishes.
 * @throws CraftError for a tube that is not on the palette, or when nothing is left to mix with
 */
export function soughtOn(
  { ingredients, limits }: Palette,
  { exclude = [], mustUse, most, parts, dulling, hold, onlyPiles, emphasis, amountMl, hand }: Wishes,
): Omit<Sought, 'target'> {
  const index = new Map(ingredients.map(({ id }, i) => [id, i]));
  const needed = mustUse === undefined ? [] : typeof mustUse === 'string' ? [mustUse] : [...new Set(mustUse)];
  const stranger = [...exclude, ...needed].find((id) => !index.has(id));
  if (stranger !== undefined) throw new CraftError('palette', `There is no ${JSON.stringify(stranger)} on this palette.`);
  if (most !== undefined && (!Number.isInteger(most) || most < 1))
    throw new CraftError('limits', `The most tubes in a recipe must be a whole number from 1; it is ${JSON.stringify(most)}.`);
  if (parts !== undefined && (!Number.isInteger(parts) || parts < 2))
    throw new CraftError('limits', `The most parts in a recipe must be a whole number from 2; it is ${JSON.stringify(parts)}.`);
  if (dulling !== undefined && !DULLING.includes(dulling))
    throw new CraftError('input', `A way of dulling is one of ${DULLING.join(', ')}; it is ${JSON.stringify(dulling)}.`);
  if (hold !== undefined && !HOLDS.includes(hold))
    throw new CraftError('input', `What is held is one of ${HOLDS.join(', ')}; it is ${JSON.stringify(hold)}.`);
  const room = Math.min(limits.tubes, most ?? MOST_TOGETHER, MOST_TOGETHER);
  if (needed.length > room)
    throw new CraftError('limits', `${needed.length} things are to be in a recipe that holds at most ${room}: ask for less.`);
  const left = new Set(exclude);
  const both = needed.find((id) => left.has(id));
  if (both !== undefined) throw new CraftError('limits', `${both} is both to be used and to be left out.`);
  const usable = ingredients.flatMap(({ id, tubes }, i) =>
    (onlyPiles && !tubes) || left.has(id) || (tubes && Object.keys(tubes).some((tube) => left.has(tube))) ? [] : [i],
  );
  if (usable.length === 0) throw new CraftError('limits', 'Nothing is left to mix with: ask for less.');
  return {
    most,
    parts,
    dulling,
    ...(hold !== undefined && { hold }),
    ...(amountMl !== undefined && { amountMl }),
    ...(hand !== undefined && { hand }),
    ...(emphasis === 'fast' && { soonDry: true }),
    ...(emphasis === 'closest' && { closest: true }),
    ...(usable.length < ingredients.length && { usable }),
    ...(needed.length > 0 && { mustUse: needed.map((id) => index.get(id)!) }),
  };
}

/** ΔE00 that each emphasis is worth: per measuring, per unit of steadiness, per doubled price, per step of drying, per ΔE00 that shows through, per thing with a caution. */
const PER = { measuring: 0.5, steadiness: 0.9, doubledPrice: 1.5, drying: 1.2, showing: 0.12, caution: 4 } as const;
/** A usual coat, µm, by which covering is judged where no other is laid. */
const USUAL_COAT_UM = 40;
/** Black and white, by which covering is judged (a contrast card). */
const CARD = { black: new Float64Array(BANDS).fill(0.02), white: new Float64Array(BANDS).fill(0.85) } as const;

/** How far a black and a white ground under one coat of a recipe still differ, ΔE00. */
export function showsThrough(palette: Palette, { mixture }: Pick<Recipe, 'mixture'>): number {
  const paint = mixCurves(portionsOn(palette, mixture));
  const { medium = 0, film } = palette.eye.viewing.laying ?? {};
  const over = (ground: Float64Array) =>
    labOf(reflectance(paint, { medium, film: { thicknessUm: film?.thicknessUm ?? USUAL_COAT_UM, ground } }), palette.eye.light);
  return deltaE00(over(CARD.black), over(CARD.white));
}

/** What a recipe costs in the eyes of the emphasis, in ΔE00, on top of its score. */
export function emphasisCost(palette: Palette, recipe: Recipe, emphasis: Emphasis): number {
  const byId = new Map(palette.ingredients.map((ingredient) => [ingredient.id, ingredient]));
  const parts = Object.entries(recipe.flat).map(([id, share]) => ({ share, tube: byId.get(id) }));
  switch (emphasis) {
    case 'usual':
    case 'closest':
      return 0;
    case 'fewest':
      return PER.measuring * (Object.keys(recipe.flat).length + measurings(recipe.mixture) - 2);
    case 'steady':
      return PER.steadiness * recipe.steadiness;
    case 'cheap':
      return PER.doubledPrice * Math.log2(1 + parts.reduce((sum, p) => sum + (p.tube?.price ?? 1) * p.share, 0));
    case 'fast':
      return PER.drying * dryingOf(parts.map(({ share, tube }) => ({ id: tube?.id ?? '', share, drying: tube?.drying ?? 'medium' }))).much;
    case 'cautious':
      return PER.caution * parts.filter((p) => (p.tube?.caution ?? 'none') !== 'none').length;
    case 'covers':
      return PER.showing * showsThrough(palette, recipe);
    case 'lets through':
      return -PER.showing * showsThrough(palette, recipe);
  }
}
