import { deltaE00 } from '../colour/difference.ts';
import type { Illuminant } from '../colour/illuminants.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import type { Palette } from '../laying/palette.ts';
import { portionsOn } from './recipe.ts';
import { solve, type Answer, type Offer, type SolveOptions } from './solve.ts';

/** Lights under which a remade pile is compared: daylight, filament lamp, LED, three-band fluorescent. */
export const COMPARED_LIGHTS = ['D65', 'A', 'LED', 'F10'] as const satisfies readonly Illuminant[];

/** A recipe for an old colour from other tubes, and how far the two part under each light. */
export interface Rederived extends Offer {
  readonly differences: Readonly<Record<(typeof COMPARED_LIGHTS)[number], number>>;
}

/** The same colour from another palette. */
export interface RederivedAnswer {
  readonly reach: Answer['reach'];
  readonly recipes: readonly Rederived[];
}

/**
 * Remakes a colour from another palette. A pile that matches by day and not by lamp
 * (metamerism) is known by its differences before it dries.
 */
export function rederive(original: PaintCurves, palette: Palette, options?: SolveOptions): RederivedAnswer {
  const seen = reflectance(original);
  const { reach, recipes } = solve(palette, labOf(seen, palette.eye.light), options);
  return {
    reach,
    recipes: recipes.map((offer) => {
      const remade = reflectance(mixCurves(portionsOn(palette, offer.mixture)));
      const under = (light: Illuminant): number => deltaE00(labOf(seen, light), labOf(remade, light));
      return { ...offer, differences: { D65: under('D65'), A: under('A'), LED: under('LED'), F10: under('F10') } };
    }),
  };
}
