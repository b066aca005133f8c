import { beadLength, masstoneOf, mixCurves, mixerOf, mixingOrder, type Lab, type PaintCurves } from '@dusk/core';
import type { Tube } from '../stores/tubes.ts';
import type { RecipeMeasure } from '../workers/recipe.ts';

/** One step of mixing a recipe: what is added and what the pile turns into. */
export interface Step {
  readonly name: string;
  readonly parts: number;
  /** Length of paint to squeeze, in mm, for the tube's nozzle; a let-down is measured by the knife. */
  readonly beadMm: number;
  readonly paint: Lab;
  readonly pileAfter: Lab;
  readonly caution: string;
  /** How many times as much let-down is made as the pile needs, since less cannot be measured. */
  readonly batch?: number;
  readonly letdown?: readonly { readonly name: string; readonly parts: number; readonly beadMm: number; readonly paint: Lab }[];
}

/** No bead shorter than this can be squeezed: a let-down is then made in a larger batch. */
const SHORTEST_BEAD_MM = 3;
/** A let-down is laid out as from a nozzle of this bore. */
const KNIFE_BORE_MM = 6;

interface Ingredient extends RecipeMeasure {
  readonly paint: PaintCurves;
}

/** The steps of a recipe in mixing order, for a pile of `amountMl`. */
export function stepsOf(measures: readonly RecipeMeasure[], tubes: ReadonlyMap<string, Tube>, amountMl: number): Step[] {
  const known = (id: string | undefined): Tube => tubes.get(id!)!;
  const ingredients = measures.map((m): Ingredient => ({
    ...m,
    paint: m.letdown ? mixCurves(m.letdown.map((l) => ({ paint: known(l.tubeId).paint, parts: l.parts }))) : known(m.tubeId).paint,
  }));
  const order = mixingOrder(ingredients);
  const mix = mixerOf(ingredients.map((i) => i.paint));
  const chips = order.map((_, step) => mix(ingredients.map(({ parts }, i) => (order.indexOf(i) <= step ? parts : 0))));
  const total = ingredients.reduce((sum, { parts }) => sum + parts, 0);
  return order.map((i, step): Step => {
    const { parts, letdown, tubeId, paint } = ingredients[i]!;
    const ml = (amountMl * parts) / total;
    const common = { parts, pileAfter: chips[step]! };
    if (!letdown) {
      const { name, nozzleMm, masstone, caution } = known(tubeId);
      return { ...common, name, beadMm: beadLength(ml, nozzleMm), paint: masstone, caution };
    }
    const whole = letdown.reduce((sum, l) => sum + l.parts, 0);
    const strong = known(letdown.at(-1)!.tubeId);
    const strongBead = beadLength((ml * letdown.at(-1)!.parts) / whole, strong.nozzleMm);
    const batch = Math.max(1, SHORTEST_BEAD_MM / strongBead);
    return {
      ...common,
      name: `${strong.name}, let down`,
      beadMm: beadLength(ml, KNIFE_BORE_MM),
      paint: masstoneOf(paint),
      caution: strong.caution,
      batch,
      letdown: letdown.map((l) => {
        const tube = known(l.tubeId);
        return { name: tube.name, parts: l.parts, beadMm: beadLength((batch * ml * l.parts) / whole, tube.nozzleMm), paint: tube.masstone };
      }),
    };
  });
}

/** Names of the tubes in a recipe with their parts, as `3 Titanium white · 1 Viridian`. */
export const inShort = (steps: readonly Step[]): string =>
  steps.map(({ parts, name }) => `${Math.round(parts * 100) / 100} ${name}`).join(' · ');
