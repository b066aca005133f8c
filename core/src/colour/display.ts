import {
  clampChroma,
  converter,
  displayable,
  formatHex,
  modeLab65,
  modeLch65,
  modeLrgb,
  modeP3,
  modeRgb,
  modeXyz65,
  parse,
  useMode,
} from 'culori/fn';
import { CraftError } from '../errors.ts';
import type { Lab, LinearRgb } from './spaces.ts';

/** Screens the product can show colours on. */
export type Display = 'srgb' | 'p3';

/** A colour as it can be shown, and whether the screen can show it as it is. */
export interface Shown {
  /** `#rrggbb`, for `p3` a CSS `color(display-p3 …)`. */
  readonly css: string;
  /** False when the chroma had to be reduced, at the same lightness and hue. */
  readonly inDisplay: boolean;
}

// Only the spaces that are used come along to the page.
for (const mode of [modeRgb, modeLrgb, modeXyz65, modeLab65, modeLch65, modeP3]) useMode(mode as Parameters<typeof useMode>[0]);

const toP3 = converter('p3');
const toLab65 = converter('lab65');
const culoriLab = ([l, a, b]: Lab) => ({ mode: 'lab65' as const, l, a, b });
/** Rounding of white and of the matrix leaves pure greys a hair outside. */
const clampedL = ([L, a, b]: Lab): Lab => [Math.min(100, Math.max(0, L)), a, b];

/** Shows a D65 Lab colour on a screen, chroma reduced until it fits. */
export function show(lab: Lab, display: Display = 'srgb'): Shown {
  const colour = culoriLab(clampedL(lab));
  const mode = display === 'p3' ? 'p3' : 'rgb';
  const fits = displayable(display === 'p3' ? p3AsRgb(colour) : colour);
  const shown = fits ? colour : clampChroma({ ...colour }, 'lch65', mode);
  if (display === 'srgb') return { css: formatHex(shown), inDisplay: fits };
  const p = toP3(shown);
  const digits = [p.r, p.g, p.b].map((v) => Math.min(1, Math.max(0, v)).toFixed(4)).join(' ');
  return { css: `color(display-p3 ${digits})`, inDisplay: fits };
}

const p3AsRgb = (colour: ReturnType<typeof culoriLab>) => ({ ...toP3(colour), mode: 'rgb' as const });

/** `#rrggbb` of a D65 Lab colour for an sRGB screen. */
export const labToHex = (lab: Lab): string => show(lab).css;

/**
 * D65 Lab of a CSS hex colour.
 * @throws CraftError unless it reads `#rgb` or `#rrggbb`.
 */
export function hexToLab(hex: unknown): Lab {
  if (typeof hex !== 'string' || !/^#([0-9a-f]{3}|[0-9a-f]{6})$/i.test(hex))
    throw new CraftError('colour', `A hex colour looks like #8a6b4f; this is ${JSON.stringify(hex)}.`);
  const { l, a, b } = toLab65(parse(hex)!);
  return [l, a, b];
}

/** D65 Lab of linear-light sRGB (IEC 61966-2-1 primaries). */
export function linearRgbToLab([r, g, b]: LinearRgb): Lab {
  const lab = toLab65({ mode: 'lrgb', r, g, b });
  return [lab.l, lab.a, lab.b];
}

/** Linear-light sRGB of a D65 Lab colour; outside 0–1 where the screen cannot follow. */
export function labToLinearRgb(lab: Lab): LinearRgb {
  const { r, g, b } = converter('lrgb')(culoriLab(lab));
  return [r, g, b];
}

/** sRGB transfer function, encoded 0–1 to linear light. */
export const decodeSrgb = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);

/** Linear light of each of the 256 steps of an sRGB channel. */
export const LINEAR_OF_BYTE: Float64Array = Float64Array.from({ length: 256 }, (_, v) => decodeSrgb(v / 255));

/** Linear light to encoded sRGB, 0–1. */
export const encodeSrgb = (v: number): number => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055);
