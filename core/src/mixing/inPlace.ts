import { deltaE00 } from '../colour/difference.ts';
import { CraftError, finite } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';
import type { Spectrum } from '../colour/spectrum.ts';
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
  /** Coats until what is below shows by less than ΔE00 1, or null when the most coats do not do it. */
  readonly coats: number | null;
  /** Colour and what still shows (ΔE00 from the thick film) after each coat. */
  readonly after: readonly { readonly lab: Lab; readonly shows: number }[];
}

/** What is below no longer counts as showing under this ΔE00. */
const COVERED = 1;
const MOST_COATS = 30;

/**
 * Coats of a paint, each a film of the same thickness, until what is below is covered.
 * @param thicknessUm of one coat; a brushed coat is some 20–60 µm
 */
export function coatsToCover(paint: PaintCurves, ground: Spectrum, thicknessUm: number, medium = 0): Coverage {
  if (!(finite('film', 'The film thickness', thicknessUm) > 0 && thicknessUm <= 5000))
    throw new CraftError('film', `A coat must be above 0 and at most 5000 µm thick; this one is ${thicknessUm}.`);
  if (medium >= 1) throw new CraftError('film', 'Pure medium never covers.');
  const thick = labOf(reflectance(paint, { medium }));
  const after: { lab: Lab; shows: number }[] = [];
  for (let coats = 1; coats <= MOST_COATS; coats++) {
    // Coats of one paint lie on one another as one film: two half films equal a whole.
    const lab = labOf(reflectance(paint, { medium, film: { thicknessUm: thicknessUm * coats, ground } }));
    const shows = deltaE00(thick, lab);
    after.push({ lab, shows });
    if (shows < COVERED) return { coats, after };
  }
  return { coats: null, after };
}
