import { hueDifference, labToLch, lchToLab, type Lab } from './spaces.ts';
import { relativeTemperatureWord, temperature, WARM_POLE, type WarmBlue } from './temperature.ts';
import { lightnessOfValue, valueOfLightness } from './value.ts';

/** Ways in which a chip is moved until it looks like the paint. */
export type Nudge = 'value' | 'hue' | 'chroma' | 'temperature' | 'brown';

/** One small step of each: a tenth of a value, and about as much to the eye of hue, chroma and temperature (Lab units). */
const VALUE_STEP = 0.1;
const HUE_STEP = 1.2;
const CHROMA_STEP = 1;
const TEMPERATURE_STEP = 1.2;
/** Browner is darker and duller at once. */
const BROWN_VALUE = 0.7;
const BROWN_CHROMA = 0.7;
/** Hues that have browns, and the chroma from which they do. */
const BROWNS = [25, 95] as const;
const BROWN_FROM = 12;
/** Below this chroma hue cannot be turned; the chip then moves towards the warm or the cool pole. */
const NEUTRAL = 3;
const WARM = (WARM_POLE * Math.PI) / 180;

/**
 * A colour moved by small steps of value, of hue (round the circle, from red towards yellow positive;
 * near neutral towards warm), of chroma, of temperature (straight towards the warm pole or the cool one), or
 * of brown. Value keeps hue and chroma; nothing leaves what there is.
 */
export function nudged(lab: Lab, by: Nudge, steps: number): Lab {
  const [L, C, h] = labToLch(lab);
  switch (by) {
    case 'value':
      return [lightnessOfValue(Math.min(10, Math.max(0, valueOfLightness(L) + steps * VALUE_STEP))), lab[1], lab[2]];
    case 'chroma':
      return lchToLab([L, Math.max(0, C + steps * CHROMA_STEP), C < 1e-6 ? WARM_POLE : h]);
    case 'hue': {
      if (C < NEUTRAL) return warmed(lab, steps * HUE_STEP);
      const turn = (2 * Math.asin(Math.min(1, HUE_STEP / (2 * C))) * 180) / Math.PI;
      return lchToLab([L, C, (h + steps * turn + 720) % 360]);
    }
    case 'temperature':
      return warmed(lab, steps * TEMPERATURE_STEP);
    case 'brown':
      return nudged(nudged(lab, 'chroma', -steps * BROWN_CHROMA), 'value', -steps * BROWN_VALUE);
  }
}

const warmed = ([L, a, b]: Lab, by: number): Lab => [L, a + by * Math.cos(WARM), b + by * Math.sin(WARM)];

/** Whether a painter would call a colour browner or less so: a red, an orange, a yellow that is not nearly grey. */
export function hasBrowns(lab: Lab): boolean {
  const [, C, h] = labToLch(lab);
  return C >= BROWN_FROM && h >= BROWNS[0] && h <= BROWNS[1];
}

/** From each hue on, what the next hue is called that way round, and the one before it the other way. */
const TURNS: readonly (readonly [upTo: number, onward: string, back: string])[] = [
  [24, 'yellower', 'more violet'],
  // A rust red is told from its neighbours: orange and red.
  [62, 'yellower', 'redder'],
  [100, 'greener', 'redder'],
  [190, 'bluer', 'yellower'],
  [250, 'bluer', 'greener'],
  [290, 'more violet', 'greener'],
  [340, 'redder', 'bluer'],
  [360, 'yellower', 'more violet'],
];

/** What a painter calls turning the hue onward and back; near neutral that is warmer and cooler. */
export function turnWords(lab: Lab): { readonly onward: string; readonly back: string } {
  const [, C, h] = labToLch(lab);
  if (C < NEUTRAL) return { onward: 'warmer', back: 'cooler' };
  const [, onward, back] = TURNS.find(([upTo]) => h <= upTo)!;
  return { onward, back };
}

/** Least differences worth a word: value steps, and Lab units of hue and chroma. */
const WORTH_VALUE = 0.05;
const WORTH_LAB = 1.5;

/** How a colour differs from another, as a painter says it, value first: `0.4 darker`, `redder`, `duller`. */
export function differenceWords(seen: Lab, wanted: Lab, warmBlue?: WarmBlue): string[] {
  const words: string[] = [];
  const dv = valueOfLightness(seen[0]) - valueOfLightness(wanted[0]);
  if (Math.abs(dv) >= WORTH_VALUE) words.push(`${Math.abs(dv).toFixed(1)} ${dv > 0 ? 'lighter' : 'darker'}`);
  const [, C, h] = labToLch(wanted);
  const [, seenC, seenH] = labToLch(seen);
  if (Math.min(C, seenC) < NEUTRAL) {
    const dt = temperature(seen, warmBlue) - temperature(wanted, warmBlue);
    if (Math.abs(dt) >= WORTH_LAB / 2) words.push(relativeTemperatureWord(dt));
    // What is neither warmer nor cooler lies across: towards green, or towards violet.
    const across = (seen[2] - wanted[2]) * Math.cos(WARM) - (seen[1] - wanted[1]) * Math.sin(WARM);
    if (Math.abs(across) >= WORTH_LAB) words.push(across > 0 ? 'greener' : 'more violet');
    return words;
  }
  const turn = hueDifference(h, seenH);
  const chord = 2 * Math.sin((Math.abs(turn) * Math.PI) / 360) * Math.sqrt(C * seenC);
  if (chord >= WORTH_LAB) words.push(turn > 0 ? turnWords(wanted).onward : turnWords(wanted).back);
  if (Math.abs(seenC - C) >= WORTH_LAB) words.push(seenC > C ? 'brighter' : 'duller');
  return words;
}
