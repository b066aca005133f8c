import type { Lab } from './spaces.ts';

/** A colour difference, CIEDE2000 unless said. */
export type Delta = number & { readonly __unit?: 'delta E' };

const RADIANS = Math.PI / 180;
const POW25_7 = 25 ** 7;

/** √(C⁷/(C⁷ + 25⁷)): how far a chroma counts as saturated, in G and R_C. */
export function saturation(C: number): number {
  const c2 = C * C;
  const c7 = c2 * c2 * c2 * C;
  return Math.sqrt(c7 / (c7 + POW25_7));
}

/** T: how much a difference in hue weighs at a mean hue (radians). */
const hueWeightAt = (h: number): number =>
  1 -
  0.17 * Math.cos(h - 30 * RADIANS) +
  0.24 * Math.cos(2 * h) +
  0.32 * Math.cos(3 * h + 6 * RADIANS) -
  0.2 * Math.cos(4 * h - 63 * RADIANS);

/** sin 2Δθ: how far the ellipses lean at a mean hue (radians), only near blue. */
const leanAt = (h: number): number => {
  const u = (((h / RADIANS + 360) % 360) - 275) / 25;
  return Math.sin(60 * RADIANS * Math.exp(-u * u));
};

/** Steps of the tables below in a full turn; straight lines between them are good to 3e-6. */
const TURN = 4096;
const PER_RADIAN = TURN / (2 * Math.PI);
/** A function of hue by table: a cosine costs more than all the rest of the formula. */
function tabled(f: (h: number) => number): (h: number) => number {
  const table = Float64Array.from({ length: TURN + 2 }, (_, i) => f(i / PER_RADIAN - Math.PI));
  return (h) => {
    const at = (h + Math.PI) * PER_RADIAN;
    const i = at | 0;
    return table[i]! + (table[i + 1]! - table[i]!) * (at - i);
  };
}
/** {@link hueWeightAt} for −π…π. */
export const hueWeight = tabled(hueWeightAt);
/** {@link leanAt} for −π…π. */
export const hueLean = tabled(leanAt);

/** Mean of two hues that lie opposite, where the formula's own convention decides the side (−π…π). */
function meanOfOpposites(x1: number, b1: number, x2: number, b2: number): number {
  const positive = (h: number) => (h < 0 ? h + 2 * Math.PI : h);
  const h1 = positive(Math.atan2(b1, x1));
  const h2 = positive(Math.atan2(b2, x2));
  const sum = h1 + h2;
  const mean = Math.abs(h2 - h1) <= Math.PI ? sum / 2 : sum / 2 + (sum < 2 * Math.PI ? Math.PI : -Math.PI);
  return mean > Math.PI ? mean - 2 * Math.PI : mean;
}

/**
 * A function that measures CIEDE2000 from `reference` (kL = kC = kH = 1).
 * What depends on the reference alone is paid once. The mean hue is taken as the direction of the
 * two hues' unit vectors added, ΔH' from the vectors' products.
 * Source: Sharma, Wu and Dalal 2005, Color Research & Application 30(1).
 */
export function deltaE00From(reference: Lab): (L: number, a: number, b: number) => number {
  const [L1, a1, b1] = reference;
  const C1 = Math.sqrt(a1 * a1 + b1 * b1);
  const bb1 = b1 * b1;
  return (L2, a2, b2) => {
    const C2 = Math.sqrt(a2 * a2 + b2 * b2);
    const stretch = 1.5 - 0.5 * saturation((C1 + C2) / 2);
    const x1 = a1 * stretch;
    const x2 = a2 * stretch;
    const D1 = Math.sqrt(x1 * x1 + bb1);
    const D2 = Math.sqrt(x2 * x2 + b2 * b2);
    const meanD = (D1 + D2) / 2;
    const l50 = (L1 + L2) / 2 - 50;
    const l50s = l50 * l50;
    const l = (L2 - L1) / (1 + (0.015 * l50s) / Math.sqrt(20 + l50s));
    const c = (D2 - D1) / (1 + 0.045 * meanD);
    if (D1 * D2 === 0) return Math.sqrt(l * l + c * c);
    const x = x1 * D2 + x2 * D1;
    const y = b1 * D2 + b2 * D1;
    const opposite = x * x + y * y < 1e-6 * D1 * D1 * D2 * D2;
    const mean = opposite ? meanOfOpposites(x1, b1, x2, b2) : Math.atan2(y, x);
    const dH2 = (x2 - x1) * (x2 - x1) + (b2 - b1) * (b2 - b1) - (D2 - D1) * (D2 - D1);
    const dH = dH2 > 0 ? Math.sqrt(dH2) : 0;
    const h = (x1 * b2 - x2 * b1 < 0 ? -dH : dH) / (1 + 0.015 * meanD * hueWeight(mean));
    const RT = -2 * saturation(meanD) * hueLean(mean);
    const sum = l * l + c * c + h * h + RT * c * h;
    return sum > 0 ? Math.sqrt(sum) : 0;
  };
}

/** CIEDE2000 between two colours seen under the same light. */
export const deltaE00 = (one: Lab, other: Lab): number => deltaE00From(one)(other[0], other[1], other[2]);

/** CIE 1976 ΔE*ab. */
export const deltaE76 = (one: Lab, other: Lab): number => Math.hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2]);
