import { CraftError, finite } from '../errors.ts';
import { labToMunsell, munsellToLab } from '../colour/munsell.ts';
import { labToXyz, xyzToLab, type Lab, type Xyz } from '../colour/spaces.ts';
import { WARM_POLE } from '../colour/temperature.ts';
import { lightnessOfValue, valueOfLightness, type MunsellValue } from '../colour/value.ts';

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

/** A share of the way to another colour; value goes evenly in Munsell steps. */
export function toward(lab: Lab, other: Lab, share: number): Lab {
  const t = finite('target', 'The share of the way', share);
  const value = valueOfLightness(Math.max(0, lab[0])) * (1 - t) + valueOfLightness(Math.max(0, other[0])) * t;
  return [lightnessOfValue(Math.min(10, Math.max(0, value))), lab[1] * (1 - t) + other[1] * t, lab[2] * (1 - t) + other[2] * t];
}

/** White by which light is counted in shares of itself. */
const WHOLE: Xyz = [1, 1, 1];

/** Share of the light that a step into the shadow leaves: half a stop. */
const SHADE = Math.SQRT1_2;

/**
 * The same thing with less light on it, half a stop a step: less of everything at the same chromaticity,
 * so that it is darker and in paint duller. The shadow's own colour (what is reflected into it) is for the eye to add.
 */
export function inShadow(lab: Lab, steps: number): Lab {
  const left = SHADE ** finite('target', 'A step into the shadow', steps);
  const [x, y, z] = labToXyz(lab, WHOLE);
  // No more light than white paint has.
  const share = Math.min(left, 1 / Math.max(y, 1e-6));
  return xyzToLab([x * share, y * share, z * share], WHOLE);
}

/** Light of the air between on a clear day, which far things come to: a pale cool grey. */
const AIR: Lab = [76, -2, -9];
/** Share of what is seen that a step of distance leaves to the thing. */
const CLEARS = 0.86;

/**
 * The same thing further off: a share of its own light is lost on the way, and that of the air is added
 * (Koschmieder 1924). Darks pale soonest, and all go to the colour of the air.
 */
export function furtherOff(lab: Lab, steps: number, air: Lab = AIR): Lab {
  const left = CLEARS ** Math.max(0, finite('target', 'A step of distance', steps));
  const own = labToXyz(lab, WHOLE);
  const between = labToXyz(air, WHOLE);
  return xyzToLab([0, 1, 2].map((k) => own[k]! * left + between[k]! * (1 - left)) as [number, number, number], WHOLE);
}

/** A colour no stronger than a ceiling of Munsell chroma, its hue and value as they were. */
export function underCeiling(lab: Lab, ceiling: number | undefined): Lab {
  if (ceiling === undefined) return lab;
  const m = labToMunsell(lab);
  return m.chroma <= ceiling ? lab : munsellToLab({ hue: m.hue, value: m.value, chroma: ceiling });
}

/** Values that a painting keeps between: a dim or a misty scene has no white and no black. */
export interface ValueEnds {
  readonly darkest: MunsellValue;
  readonly lightest: MunsellValue;
}
/** A colour no darker and no lighter than a painting may get, its hue and strength as they were. */
export function withinEnds(lab: Lab, ends: ValueEnds | undefined): Lab {
  if (!ends) return lab;
  const value = valueOfLightness(lab[0]);
  if (value >= ends.darkest && value <= ends.lightest) return lab;
  return [lightnessOfValue(Math.min(ends.lightest, Math.max(ends.darkest, value))), lab[1], lab[2]];
}

/** Munsell chroma of a colour, by which a ceiling is judged. */
export const strengthOf = (lab: Lab): number => labToMunsell(lab).chroma;
