import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { Lab } from '../colour/spaces.ts';

/** How strongly a paint pulls a mixture: its absorption and scattering over the visible, together. */
function pull({ K, S }: PaintCurves): number {
  let sum = 0;
  for (let i = 2; i < BANDS - 3; i++) sum += K[i]! + S[i]!;
  return sum / (BANDS - 5);
}

/**
 * Order in which to add the ingredients of a recipe: the plentiful first, the strong last, since a
 * strong tube in excess can only be drowned.
 * @returns indices into `portions`
 */
export function mixingOrder(portions: readonly { readonly paint: PaintCurves; readonly parts: number }[]): number[] {
  const weight = portions.map(({ paint, parts }) => parts / pull(paint));
  return portions.map((_, i) => i).sort((one, other) => weight[other]! - weight[one]!);
}

/** The colour of the pile after each addition, in the order given. */
export function chipsAlong(portions: readonly { readonly paint: PaintCurves; readonly parts: number }[], order: readonly number[]): Lab[] {
  return order.map((_, step) => labOf(reflectance(mixCurves(order.slice(0, step + 1).map((i) => portions[i]!)))));
}
