import { CraftError, finite } from '../errors.ts';
import { labToMunsell, munsellToLab } from '../colour/munsell.ts';
import { labToLch, lchToLab, type Lab } from '../colour/spaces.ts';
import { lightnessOfValue, valueOfLightness } from '../colour/value.ts';

/** How a target differs from a pile or a sample. */
export interface Shift {
  /** Steps of Munsell value, lighter positive. */
  readonly value?: number;
  /** Steps of Munsell chroma, stronger positive. */
  readonly chroma?: number;
  /** Munsell hue steps (40 to the circle), from red towards yellow positive. */
  readonly hue?: number;
  /** Units of temperature (Lab chroma), warmer positive. */
  readonly temperature?: number;
}

const WARM = (55 * Math.PI) / 180;
const HUE_STEP = 2.5;

/**
 * A colour moved by steps. Value alone keeps Munsell hue and chroma; temperature moves it straight
 * towards the warm or the cool pole at the same value.
 * @throws CraftError for a step that is no number, or beyond what there is
 */
export function moved(lab: Lab, shift: Shift): Lab {
  const step = (name: keyof Shift, most: number): number => {
    const given = shift[name];
    if (given === undefined) return 0;
    if (Math.abs(finite('target', `The step of ${name}`, given)) > most)
      throw new CraftError('target', `A target moves by at most ${most} steps of ${name}; this one moves by ${given}.`);
    return given;
  };
  const [dv, dc, dh, dt] = [step('value', 10), step('chroma', 30), step('hue', 20), step('temperature', 100)];
  let at: Lab = lab;
  if (dv !== 0 || dc !== 0 || dh !== 0) {
    const m = labToMunsell(lab);
    const value = Math.min(9.9, Math.max(0.1, m.value + dv));
    const chroma = Math.max(0, m.chroma + dc);
    at =
      dc === 0 && dh === 0 && m.chroma < 0.3
        ? atValue(lab, value)
        : munsellToLab({ hue: (m.hue + dh * HUE_STEP + 100) % 100, value, chroma });
  }
  if (dt === 0) return at;
  return [at[0], at[1] + dt * Math.cos(WARM), at[2] + dt * Math.sin(WARM)];
}

const atValue = ([, a, b]: Lab, value: number): Lab => [lightnessOfValue(value), a, b];

/** A pair of greys or colours of one value, one warmer and one cooler than a middle, by `temperature` each. */
export function warmAndCool(lab: Lab, temperature: number): readonly [warm: Lab, cool: Lab] {
  return [moved(lab, { temperature }), moved(lab, { temperature: -temperature })];
}

/** The same hue and chroma at another value; chroma shrinks towards black and white as paint's does. */
export function keyedTo(lab: Lab, value: number, chromaShare = 1): Lab {
  const [, C, h] = labToLch(lab);
  const from = valueOfLightness(lab[0]);
  const room = value > from ? (10 - value) / Math.max(0.5, 10 - from) : value / Math.max(0.5, from);
  return lchToLab([lightnessOfValue(value), C * chromaShare * Math.min(1, Math.sqrt(Math.max(0, room)) * 1.05), h]);
}
