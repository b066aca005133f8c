import type { PaintCurves } from './catalogue.ts';
import { labOf, reflectance } from './mix.ts';

/** As light as paper and of no colour to speak of, straight from the tube. */
const WHITE = { L: 90, C: 8 } as const;
export function isWhitePaint(paint: PaintCurves): boolean {
  const [L, a, b] = labOf(reflectance(paint));
  return L >= WHITE.L && Math.hypot(a, b) <= WHITE.C;
}
