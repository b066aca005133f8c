import { colourName, IN_REACH, NEAR_REACH, temperatureWord, valueOfLightness, type Lab } from '@dusk/core';

/** `warm, khaki`: temperature, then what a painter calls it. */
export const describe = (lab: Lab, temperature: number): string => `${temperatureWord(temperature)}, ${colourName(lab)}`;

/** How a prediction differs from its target in value, as a painter says it. */
export function valueDifference(error: number): string {
  const amount = Math.abs(error);
  if (amount < 0.05) return 'same value';
  return `${amount.toFixed(1)} ${error > 0 ? 'lighter' : 'darker'}`;
}

/** Half of what still passes counts as a match. */
const MATCH = IN_REACH / 2;

/** How far off a mixture is, in words; what an eye at the easel lets pass is the engine's to say. */
export function closeness(deltaE00: number): string {
  if (deltaE00 < MATCH) return 'a match';
  if (deltaE00 < IN_REACH) return 'passes for it';
  if (deltaE00 < NEAR_REACH) return 'near it';
  return 'out of reach';
}

/** A first name for a pile; the painter may give a better one. */
export const firstName = (lab: Lab): string => `${colourName(lab)} ${valueOfLightness(lab[0]).toFixed(1)}`;

/** `14:20`, in the painter's own time. */
export const clock = (at: string): string => new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

/** `14:20` today, `3 March, 14:20` before. */
export function moment(at: string, now = new Date()): string {
  const then = new Date(at);
  if (then.toDateString() === now.toDateString()) return clock(at);
  return `${then.toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}, ${clock(at)}`;
}

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
export const mlText = (ml: number): string => `${ml < 0.1 ? ml.toFixed(3) : ml < 1 ? ml.toFixed(2) : ml.toFixed(1)} ml`;
export const mmText = (mm: number): string => `${mm < 10 ? mm.toFixed(1) : mm.toFixed(0)} mm`;

/** A share as a painter reads it: small ones to a tenth of a per cent. */
export const shareText = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;
