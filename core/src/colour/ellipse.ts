import { hueLean, hueWeight, saturation } from './difference.ts';
import type { Lab } from './spaces.ts';

/** A 3 × 3 matrix by rows. */
export type Matrix3 = Float64Array;

/**
 * The ellipsoid of CIEDE2000 about a colour: a matrix U (3 × 3, by rows) with |U·ΔLab| ≈ ΔE00 for small
 * differences. It is the formula's own quadratic form in lightness, chroma and hue, the lean R_T of the
 * blues in it, brought to a root by completing the square. Its first row is lightness alone.
 */
export function ellipsoidAt([L, a, b]: Lab): Matrix3 {
  const stretch = 1.5 - 0.5 * saturation(Math.sqrt(a * a + b * b));
  const x = a * stretch;
  const C = Math.sqrt(x * x + b * b);
  const hue = C > 1e-6 ? Math.atan2(b, x) : 0;
  const l50 = (L - 50) ** 2;
  const SL = 1 + (0.015 * l50) / Math.sqrt(20 + l50);
  const SC = 1 + 0.045 * C;
  const SH = 1 + 0.015 * C * hueWeight(hue);
  const lean = -saturation(C) * hueLean(hue);
  const root = Math.sqrt(Math.max(0, 1 - lean * lean));
  const [cos, sin] = [Math.cos(hue), Math.sin(hue)];
  const [ca, cb, ha, hb] = [cos / SC, sin / SC, -sin / SH, cos / SH];
  return Float64Array.of(1 / SL, 0, 0, 0, (ca + lean * ha) * stretch, cb + lean * hb, 0, root * ha * stretch, root * hb);
}
