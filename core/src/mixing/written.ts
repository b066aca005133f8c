import type { Millilitres, Millimetres } from './units.ts';

/** Fractions a knife thinks in. */
const FRACTIONS: readonly (readonly [share: number, text: string])[] = [
  [0, ''],
  [1 / 8, '⅛'],
  [1 / 6, '⅙'],
  [1 / 4, '¼'],
  [1 / 3, '⅓'],
  [1 / 2, '½'],
  [2 / 3, '⅔'],
  [3 / 4, '¾'],
  [1, ''],
];
const LEAST_FRACTION = 0.1;
const WEIGHED = 20;

/** Parts as a painter reads them: `1½`, `⅙`; so little that no knife divides it as a decimal. */
export function partsText(parts: number): string {
  // So many parts are weighed, not divided with a knife.
  if (parts >= WEIGHED && !Number.isInteger(parts)) return parts.toFixed(1);
  if (parts < LEAST_FRACTION) return parts < 0.01 ? parts.toFixed(3) : parts.toFixed(2);
  const whole = Math.floor(parts + 1e-9);
  const rest = parts - whole;
  const [share, text] = FRACTIONS.reduce((best, next) => (Math.abs(next[0] - rest) < Math.abs(best[0] - rest) ? next : best));
  const shown = whole + (share === 1 ? 1 : 0);
  return `${shown === 0 ? '' : shown}${text}` || '⅛';
}

/** Millilitres and millimetres of bead, with as many digits as can be told apart. */
export const mlText = (ml: Millilitres): string => `${ml < 0.1 ? ml.toFixed(3) : ml < 1 ? ml.toFixed(2) : ml.toFixed(1)} ml`;
export const mmText = (mm: Millimetres): string => `${mm < 10 ? mm.toFixed(1) : mm.toFixed(0)} mm`;

/** A share as a painter reads it: small ones to a tenth of a per cent. */
export const shareText = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;
