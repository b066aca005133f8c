import { deltaE00 } from '../colour/difference.ts';
import { CraftError, finite } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';
import { BANDS, type Spectrum } from '../colour/spectrum.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';

/**
 * What a pile looks like where it has picked up a share of the wet paint below it.
 * @param share of the volume that is paint from below, 0–1
 */
export function pickedUp(pile: PaintCurves, below: PaintCurves, share: number): PaintCurves {
  if (!(finite('film', 'The share picked up', share) >= 0 && share <= 1))
    throw new CraftError('film', `The share picked up must lie within 0 and 1; it is ${share}.`);
  return mixCurves([
    { paint: pile, parts: 1 - share },
    { paint: below, parts: share },
  ]);
}

/** How a paint covers what is below it. */
export interface Coverage {
  /** Coats until what is below no longer shows at a glance, or null when the most coats do not do it. */
  readonly coats: number | null;
  /** Coats until an eye that looks for it finds nothing of it either; null likewise. */
  readonly unseen: number | null;
  /** Colour after each coat, and what of the ground still shows, ΔE00: see {@link coatsToCover}. */
  readonly after: readonly { readonly lab: Lab; readonly shows: number }[];
}

/**
 * What is below no longer shows to an eye at the canvas under this ΔE00: what passes for one colour
 * everywhere else here; differences of 1 to 2 are seen by a trained eye that looks for them, side by side
 * (Mokrzycki and Tatol 2011).
 */
const COVERED = 2;
/** Under this one not even by such an eye. */
const UNSEEN = 1;
/** The black and the white of a contrast card, as those by which hiding power is measured (ISO 6504-3). */
const CARD = [new Float64Array(BANDS).fill(0.02), new Float64Array(BANDS).fill(0.85)] as const;
const MOST_COATS = 30;

/**
 * Coats of a paint, each a film of the same thickness, until what is below is covered: either black and
 * white under it no longer differ visibly, or over this ground it already looks as it does thickly laid.
 * @param thicknessUm of one coat; a brushed coat is some 20–60 µm
 */
export function coatsToCover(paint: PaintCurves, ground: Spectrum, thicknessUm: number, medium = 0): Coverage {
  if (!(finite('film', 'The film thickness', thicknessUm) > 0 && thicknessUm <= 5000))
    throw new CraftError('film', `A coat must be above 0 and at most 5000 µm thick; this one is ${thicknessUm}.`);
  if (medium >= 1) throw new CraftError('film', 'Pure medium never covers.');
  const thick = labOf(reflectance(paint, { medium }));
  const after: { lab: Lab; shows: number }[] = [];
  let covered: number | null = null;
  for (let coats = 1; coats <= MOST_COATS; coats++) {
    // Coats of one paint lie on one another as one film: two half films equal a whole.
    const over = (what: Spectrum): Lab => labOf(reflectance(paint, { medium, film: { thicknessUm: thicknessUm * coats, ground: what } }));
    const lab = over(ground);
    const shows = Math.min(deltaE00(thick, lab), deltaE00(over(CARD[0]), over(CARD[1])));
    if (covered === null) after.push({ lab, shows });
    if (shows < COVERED) covered ??= coats;
    if (shows < UNSEEN) return { coats: covered, unseen: coats, after };
  }
  return { coats: covered, unseen: null, after };
}
