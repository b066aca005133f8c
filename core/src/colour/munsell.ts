import { CraftError } from '../errors.ts';
import { adapt } from './adaptation.ts';
import { whiteOf } from './integrate.ts';
import { hueDegrees, hueDifference, labToXyz, xyzToLab, type Lab, type Xyz } from './spaces.ts';
import { MUNSELL_RENOTATION } from './tables/munsellRenotation.ts';
import { lightnessOfValue, valueFromY, valueToY, type MunsellValue } from './value.ts';

/** A colour in Munsell's order. `hue` runs 0–100 from 0R through Y, G, B and P; it means nothing at chroma 0. */
export interface Munsell {
  readonly hue: number;
  readonly value: MunsellValue;
  readonly chroma: number;
}

const FAMILIES = ['R', 'YR', 'Y', 'GY', 'G', 'BG', 'B', 'PB', 'P', 'RP'] as const;
const HUE_STEP = 2.5;
const HUES = 40;
/** Below this chroma a colour is written as a neutral, `N 5.2/`. */
const NEUTRAL = 0.05;

/** A place in the a*b* plane of illuminant C, in polar form. */
interface Place {
  readonly angle: number;
  readonly radius: number;
}

/** Chips of one hue and value at chroma 2, 4, 6 … */
type Spoke = readonly Place[];

const whiteC = (): Xyz => whiteOf('C');

function readSpoke(text: string, value: number): Spoke {
  const Y = valueToY(value);
  return text
    .split(' ')
    .map((triple) => triple.split(',').map(Number) as [number, number, number])
    .sort((one, other) => one[0] - other[0])
    .map(([, x, y]) => {
      const [, a, b] = xyzToLab([(x * Y) / y, Y, ((1 - x - y) * Y) / y], whiteC());
      return { angle: hueDegrees(a, b), radius: Math.hypot(a, b) };
    });
}

/** Hue number 0–100 of a family and its step, as 7.5 in YR → 17.5. */
const hueNumber = (step: number, family: string): number => (FAMILIES.indexOf(family as 'R') * 10 + step) % 100;

let spokes: Spoke[][] | undefined;

/** `spokes[value − 1][hue / 2.5]`, read from the table once. */
function allSpokes(): Spoke[][] {
  if (spokes) return spokes;
  const made: Spoke[][] = Array.from({ length: 9 }, () => []);
  for (const [key, text] of Object.entries(MUNSELL_RENOTATION)) {
    const [, step, family, value] = /^([\d.]+)([A-Z]+) (\d)$/.exec(key)!;
    made[Number(value) - 1]![hueNumber(Number(step), family!) / HUE_STEP] = readSpoke(text, Number(value));
  }
  return (spokes = made);
}

/** Place at any chroma along a spoke; beyond its last real chip the last step is carried on. */
function along(spoke: Spoke, chroma: number): Place {
  const position = chroma / 2 - 1;
  if (position <= 0 || spoke.length === 1) return { angle: spoke[0]!.angle, radius: (spoke[0]!.radius * chroma) / 2 };
  const i = Math.min(Math.floor(position), spoke.length - 2);
  return blend(spoke[i]!, spoke[i + 1]!, position - i);
}

const blend = (one: Place, other: Place, t: number): Place => ({
  angle: one.angle + hueDifference(one.angle, other.angle) * Math.min(t, 1),
  radius: one.radius + (other.radius - one.radius) * t,
});

/** Place of a hue and chroma on the sheet of one whole value (1–9). */
function onSheet(value: number, hue: number, chroma: number): Place {
  const sheet = allSpokes()[value - 1]!;
  const position = hue / HUE_STEP;
  const i = Math.floor(position);
  return blend(along(sheet[i % HUES]!, chroma), along(sheet[(i + 1) % HUES]!, chroma), position - i);
}

const flat = ({ angle, radius }: Place): readonly [a: number, b: number] => [
  radius * Math.cos((angle * Math.PI) / 180),
  radius * Math.sin((angle * Math.PI) / 180),
];

/**
 * a* and b* under illuminant C. Interpolated between the sheets of value 1–9; below 1 the sheet
 * shrinks to the black point, above 9 the last sheet holds, since no chips are published there.
 */
function planeOf({ hue, value, chroma }: Munsell): readonly [a: number, b: number] {
  if (chroma <= 0) return [0, 0];
  const v = Math.min(9, Math.max(1, value));
  const low = Math.min(8, Math.floor(v));
  const [a1, b1] = flat(onSheet(low, hue, chroma));
  const [a2, b2] = flat(onSheet(low + 1, hue, chroma));
  const t = v - low;
  const shrink = Math.min(1, Math.max(0.02, value));
  return [shrink * (a1 + (a2 - a1) * t), shrink * (b1 + (b2 - b1) * t)];
}

/** Lab under illuminant C of a Munsell colour (renotation of Newhall, Nickerson and Judd 1943). */
function munsellToLabC(m: Munsell): Lab {
  const [a, b] = planeOf(m);
  return [lightnessOfValue(m.value), a, b];
}

/** XYZ under illuminant C of a Munsell colour. */
export const munsellToXyzC = (m: Munsell): Xyz => labToXyz(munsellToLabC(m), whiteC());

/** D65 Lab of a Munsell colour, carried over from illuminant C by CAT16. */
export function munsellToLab(m: Munsell): Lab {
  const white = whiteOf('D65');
  return xyzToLab(adapt(munsellToXyzC(m), whiteC(), white), white);
}

/**
 * Munsell colour of an XYZ seen under illuminant C: hue and chroma by fixed-point
 * iteration against the interpolated table, value by ASTM D1535.
 */
export function xyzCToMunsell(xyz: Xyz): Munsell {
  const value = Math.min(10, Math.max(0, valueFromY(xyz[1])));
  const [, a, b] = xyzToLab(xyz, whiteC());
  const radius = Math.hypot(a, b);
  if (radius < 0.01) return { hue: 0, value, chroma: 0 };
  const angle = hueDegrees(a, b);
  let hue = ((angle - 20 + 360) % 360) / 3.6;
  let chroma = radius / 5;
  for (let round = 0; round < 200; round++) {
    const [fa, fb] = planeOf({ hue, value, chroma });
    const turn = hueDifference(hueDegrees(fa, fb), angle);
    const ratio = radius / Math.max(1e-6, Math.hypot(fa, fb));
    hue = (hue + (turn / 3.6) * 0.7 + 100) % 100;
    chroma = Math.min(60, chroma * ratio ** 0.9);
    if (Math.abs(turn) < 1e-5 && Math.abs(ratio - 1) < 1e-6) break;
  }
  return { hue, value, chroma };
}

/** Munsell colour of a D65 Lab, carried over to illuminant C by CAT16. */
export function labToMunsell(lab: Lab): Munsell {
  const white = whiteOf('D65');
  return xyzCToMunsell(adapt(labToXyz(lab, white), white, whiteC()));
}

const short = (v: number): string => String(Math.round(v * 10) / 10);

/** `7.5YR 4.1/6.2`, or `N 4.1/` for a neutral. */
export function writeMunsell({ hue, value, chroma }: Munsell): string {
  if (chroma < NEUTRAL) return `N ${short(value)}/`;
  const tenths = Math.round(hue * 10) % 1000;
  const step = tenths % 100;
  const family = FAMILIES[(Math.floor(tenths / 100) + (step === 0 ? 9 : 0)) % 10]!;
  return `${short(step === 0 ? 10 : step / 10)}${family} ${short(value)}/${short(chroma)}`;
}

/**
 * Reads `7.5YR 4/6` or `N 5/`.
 * @throws CraftError for anything else, or for a hue step, value or chroma out of range.
 */
export function munsellFromInput(text: unknown): Munsell {
  const neutral = typeof text === 'string' && /^\s*N\s*(\d+(?:\.\d+)?)\s*\/?\s*$/i.exec(text);
  const full =
    typeof text === 'string' && /^\s*(\d+(?:\.\d+)?)\s*(YR|GY|BG|PB|RP|R|Y|G|B|P)\s*(\d+(?:\.\d+)?)\s*\/\s*(\d+(?:\.\d+)?)\s*$/i.exec(text);
  if (!neutral && !full)
    throw new CraftError('colour', `A Munsell colour looks like "7.5YR 4/6" or "N 5/"; this is ${JSON.stringify(text)}.`);
  const value = Number(neutral ? neutral[1] : (full as RegExpExecArray)[3]);
  const step = full ? Number(full[1]) : 0;
  const chroma = full ? Number(full[4]) : 0;
  if (value > 10 || step > 10 || chroma > 50)
    throw new CraftError('colour', `Munsell hue steps and values run to 10 and chroma to 50; this is ${JSON.stringify(text)}.`);
  return { hue: full ? hueNumber(step, full[2]!.toUpperCase()) : 0, value, chroma };
}
