import { labToLch, type Lab } from './spaces.ts';

/** Signed temperature in units of Lab chroma: warm positive, cool negative, 0 at neutral. */
export type Temperature = number & { readonly __unit?: 'temperature' };

/** Which of two blues a painter calls the warm one. */
export type WarmBlue = 'red-leaning' | 'green-leaning';

/** Hue of the warm pole, in degrees. */
export const WARM_POLE = 55;
/** The green that is neither: olives and the greens of young leaves are warm, grass is not. */
const NEITHER = 114;
/** The coldest hue: 235° when ultramarine counts as the warm blue, 285° when the greenish one does. */
export const COOL_POLE: Readonly<Record<WarmBlue, number>> = { 'red-leaning': 235, 'green-leaning': 285 };

/**
 * Chroma times the cosine of the hue's way from the warm pole (h 55°), where neither warm nor cool lies
 * a right angle from either pole: at h 114° on the side of the greens, half way on that of the violets.
 */
export function temperature(lab: Lab, warmBlue: WarmBlue = 'red-leaning'): Temperature {
  const [, C, h] = labToLch(lab);
  const cool = COOL_POLE[warmBlue] - WARM_POLE;
  const way = (h - WARM_POLE + 360) % 360;
  const neither = NEITHER - WARM_POLE;
  const angle =
    way <= neither
      ? (way / neither) * 90
      : way <= cool
        ? 90 + ((way - neither) / (cool - neither)) * 90
        : 180 + ((way - cool) / (360 - cool)) * 180;
  return C * Math.cos((angle * Math.PI) / 180);
}

/** Temperature of a colour next to a neighbour: warmer positive. */
export const relativeTemperature = (lab: Lab, neighbour: Lab, warmBlue?: WarmBlue): Temperature =>
  temperature(lab, warmBlue) - temperature(neighbour, warmBlue);

const GRADES: readonly (readonly [least: number, word: string])[] = [
  [38, 'very '],
  [14, ''],
  [5, 'fairly '],
  [2, 'a little '],
  [0.5, 'slightly '],
];

/** `slightly warm` … `very cool`; finely graded near neutral, where it matters to greys. */
export function temperatureWord(t: Temperature): string {
  const grade = GRADES.find(([least]) => Math.abs(t) >= least);
  return grade ? grade[1] + (t > 0 ? 'warm' : 'cool') : 'neutral';
}

/** How a colour differs in temperature from its neighbour, in words. */
export function relativeTemperatureWord(t: Temperature): string {
  const amount = Math.abs(t);
  if (amount < 0.5) return 'as warm';
  const grade = amount < 2 ? 'slightly ' : amount < 5 ? 'a little ' : amount < 14 ? '' : 'much ';
  return grade + (t > 0 ? 'warmer' : 'cooler');
}
