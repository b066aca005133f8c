import { hueLean, hueWeight, saturation } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { VALUE_WEIGHT, type Ranking } from './ranking.ts';

/** Mean hue at which the ellipses of CIEDE2000 lean most, −π…π; they lean alike on both sides. */
const BLUE = (-85 * Math.PI) / 180;
/** Least change of Munsell value per L* over the whole scale is 0.0904 (ASTM D1535 against CIE L*). */
const LEAST_VALUE_SLOPE = 0.09;
/** T of CIEDE2000 nowhere exceeds this, nor changes faster than this per radian. */
const T_MOST = 1.67;
const T_SLOPE = 2.41;

/** An angle brought within −π…π. */
const turned = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));

/** Least c² + h² − 2ρch over |c| ≥ c0, |h| ≥ h0. */
function leastForm(c0: number, h0: number, rho: number): number {
  if (h0 < rho * c0) return c0 * c0 * (1 - rho * rho);
  if (c0 < rho * h0) return h0 * h0 * (1 - rho * rho);
  return c0 * c0 + h0 * h0 - 2 * rho * c0 * h0;
}

/**
 * A function that tells, for a box in Lab (least and most L, a, b from `at` on), a ΔE00-based
 * score that nothing inside it can fall below, effort left out; once a bound of `enough` is found
 * it looks no closer.
 *
 * It is CIEDE2000 in interval arithmetic: the box is seen from neutral as a range of chromas and
 * hues; S_L, S_C, S_H and R_T are taken at their worst over these ranges. Near the target, where the
 * ranges are too coarse, ΔC'² + ΔH'² = Δa'² + Δb² ≥ Δa² + Δb² is the better bound, so the larger counts.
 */
export function boundFrom(ranking: Ranking): (boxes: Float32Array, at: number, enough?: number) => number {
  const [L, a, b]: Lab = ranking.target;
  const C = Math.sqrt(a * a + b * b);
  const tolerance = ranking.valueTolerance;
  return (boxes, at, enough = Infinity) => {
    const l0 = boxes[at]!;
    const l1 = boxes[at + 1]!;
    const a0 = boxes[at + 2]!;
    const a1 = boxes[at + 3]!;
    const b0 = boxes[at + 4]!;
    const b1 = boxes[at + 5]!;
    const dL = L < l0 ? l0 - L : L > l1 ? L - l1 : 0;
    const beyond = dL * LEAST_VALUE_SLOPE - tolerance;
    const valueCost = beyond > 0 ? beyond * VALUE_WEIGHT : 0;
    // S_L grows away from a mean of 50, so one end of the range decides.
    const away = Math.max(Math.abs((L + l0) / 2 - 50), Math.abs((L + l1) / 2 - 50));
    const l = dL / (1 + (0.015 * away * away) / Math.sqrt(20 + away * away));

    // Chroma of the box before stretching, and the range of 1 + G that follows.
    const ca = (a0 + a1) / 2;
    const cb = (b0 + b1) / 2;
    const ha = (a1 - a0) / 2;
    const hb = (b1 - b0) / 2;
    const centre = Math.sqrt(ca * ca + cb * cb);
    const half = Math.sqrt(ha * ha + hb * hb);
    const g1 = 1.5 - 0.5 * saturation((C + Math.max(0, centre - half)) / 2);
    const g0 = 1.5 - 0.5 * saturation((C + centre + half) / 2);
    const spread = g1 / g0;

    // The same stretched by the least 1 + G; the rest of the stretch widens the ranges.
    const x = g0 * ca;
    const r = Math.sqrt(x * x + cb * cb);
    const hr = Math.sqrt(g0 * g0 * ha * ha + hb * hb);
    const least = Math.max(0, r - hr);
    const most = (r + hr) * spread;
    const target = Math.sqrt(g0 * g0 * a * a + b * b);
    const meanMost = (target * spread + most) / 2;
    const SC = 1 + 0.045 * meanMost;
    const c0 = Math.max(0, target - most, least - target * spread) / SC;

    // The straight bound with R_T at its worst costs no angle; often it is enough.
    const da = a < a0 ? a0 - a : a > a1 ? a - a1 : 0;
    const db = b < b0 ? b0 - b : b > b1 ? b - b1 : 0;
    const plane = (da * da + db * db) / (SC * SC);
    const cheap = Math.sqrt(l * l + (1 - 0.8661 * saturation(meanMost)) * plane) + valueCost;
    if (cheap >= enough) return cheap;

    const slack = 0.5 * (spread - 1);
    const width = hr < r ? Math.asin(hr / r) + 2 * slack : Math.PI;
    const targetHue = Math.atan2(b, g0 * a);
    const turn = width < Math.PI ? turned(Math.atan2(cb, x) - targetHue) : 0;
    const opposite = Math.abs(turn) + width > Math.PI;
    // The mean hue goes the shorter way round, so it is never further than a quarter turn from the target's.
    const meanHue = opposite ? targetHue : targetHue + turn / 2;
    const meanWidth = (opposite ? Math.PI : width) / 2 + slack;
    const T = opposite ? T_MOST : Math.min(T_MOST, hueWeight(turned(meanHue)) + T_SLOPE * meanWidth);
    const SH = 1 + 0.015 * meanMost * T;
    const minTurn = width < Math.PI ? Math.max(0, Math.abs(turn) - width) : 0;
    const h0 = (2 * Math.sqrt(target * least) * Math.sin(minTurn / 2)) / SH;

    const fromBlue = turned(meanHue - BLUE);
    const nearest = Math.max(0, Math.abs(fromBlue) - meanWidth);
    // R_T is negative, so it takes off only where chroma and hue differ in the same direction.
    const chromaSide = least > target * spread ? 1 : most < target ? -1 : 0;
    const hueSide = opposite || width >= Math.PI ? 0 : turn > width ? 1 : turn < -width ? -1 : 0;
    const rho = nearest > 1.6 || chromaSide * hueSide < 0 ? 0 : saturation(meanMost) * hueLean(BLUE + nearest);
    const polar = leastForm(c0, h0, rho);
    // S_H never exceeds S_C, since T stays below 2.
    return Math.sqrt(l * l + Math.max(polar, (1 - rho) * plane)) + valueCost;
  };
}
