import { CraftError, finite } from '../errors.ts';
import { labToMunsell, munsellToLab } from '../colour/munsell.ts';
import type { Lab } from '../colour/spaces.ts';
import { WARM_POLE } from '../colour/temperature.ts';
import { lightnessOfValue } from '../colour/value.ts';

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

const WARM = (WARM_POLE * Math.PI) / 180;
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
