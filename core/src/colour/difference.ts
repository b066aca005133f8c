import type { Lab } from './spaces.ts';

const RADIANS = Math.PI / 180;
const POW25_7 = 25 ** 7;

/** Hue angle 0–2π; 0 for a neutral. */
const hue = (a: number, b: number): number => {
  const h = Math.atan2(b, a);
  return h < 0 ? h + 2 * Math.PI : h;
};

/**
 * A function that measures CIEDE2000 from `reference` (kL = kC = kH = 1).
 * What depends on the reference alone is paid once.
 * Source: Sharma, Wu and Dalal 2005, Color Research & Application 30(1).
 */
export function deltaE00From(reference: Lab): (L: number, a: number, b: number) => number {
  const [L1, a1, b1] = reference;
  const C1 = Math.sqrt(a1 * a1 + b1 * b1);
  return (L2, a2, b2) => {
    const C2 = Math.sqrt(a2 * a2 + b2 * b2);
    const meanC = (C1 + C2) / 2;
    const c2 = meanC * meanC;
    const c7 = c2 * c2 * c2 * meanC;
    const G1 = 1.5 - 0.5 * Math.sqrt(c7 / (c7 + POW25_7));
    const x1 = a1 * G1;
    const x2 = a2 * G1;
    const D1 = Math.sqrt(x1 * x1 + b1 * b1);
    const D2 = Math.sqrt(x2 * x2 + b2 * b2);
    const product = D1 * D2;
    const h1 = hue(x1, b1);
    const h2 = hue(x2, b2);
    let dh = h2 - h1;
    let meanH = h1 + h2;
    if (product === 0) dh = 0;
    else if (Math.abs(dh) <= Math.PI) meanH /= 2;
    else {
      dh += dh > 0 ? -2 * Math.PI : 2 * Math.PI;
      meanH = meanH / 2 + (meanH < 2 * Math.PI ? Math.PI : -Math.PI);
    }
    const dH = 2 * Math.sqrt(product) * Math.sin(dh / 2);
    const meanD = (D1 + D2) / 2;
    const T =
      1 -
      0.17 * Math.cos(meanH - 30 * RADIANS) +
      0.24 * Math.cos(2 * meanH) +
      0.32 * Math.cos(3 * meanH + 6 * RADIANS) -
      0.2 * Math.cos(4 * meanH - 63 * RADIANS);
    const l50 = (L1 + L2) / 2 - 50;
    const SL = 1 + (0.015 * l50 * l50) / Math.sqrt(20 + l50 * l50);
    const SC = 1 + 0.045 * meanD;
    const SH = 1 + 0.015 * meanD * T;
    const u = (meanH / RADIANS - 275) / 25;
    const theta = 30 * RADIANS * Math.exp(-u * u);
    const d2 = meanD * meanD;
    const d7 = d2 * d2 * d2 * meanD;
    const RT = -2 * Math.sqrt(d7 / (d7 + POW25_7)) * Math.sin(2 * theta);
    const l = (L2 - L1) / SL;
    const c = (D2 - D1) / SC;
    const h = dH / SH;
    return Math.sqrt(Math.max(0, l * l + c * c + h * h + RT * c * h));
  };
}

/** CIEDE2000 between two colours seen under the same light. */
export const deltaE00 = (one: Lab, other: Lab): number => deltaE00From(one)(other[0], other[1], other[2]);

/** CIE 1976 ΔE*ab. */
export const deltaE76 = (one: Lab, other: Lab): number =>
  Math.hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2]);
