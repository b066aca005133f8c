import { labToMunsell } from '../colour/munsell.ts';
import { labToLch, type Lab } from '../colour/spaces.ts';
import { valueOfLightness } from '../colour/value.ts';
import { furtherOff, inShadow, moved, toward, type Shift } from '../matching/relative.ts';

/** Which family of light a relative belongs to: lights and shadows of one thing do not meet in value. */
export type LightFamily = 'light' | 'shadow';

/** A relative of a base colour: how it comes of it, first by what the world does, then by what the eye adds. */
export interface Relative {
  readonly name: string;
  readonly zone?: string;
  readonly family?: LightFamily;
  /** Half stops less light. */
  readonly shadow?: number;
  /** Steps of distance. */
  readonly off?: number;
  /** A share of the way to what throws its light on it, or what mirrors it. */
  readonly toward?: { readonly lab: Lab; readonly share: number };
  /** By value, strength, hue and temperature. */
  readonly by?: Shift;
}

/** Relatives of one base, as painters who decide by knowledge lay them out; each shift is a start that the painter changes. */
export interface FamilyAid {
  readonly id: string;
  readonly name: string;
  /** What it rests on, in a painter's words. */
  readonly rests: string;
  readonly relatives: readonly Relative[];
}

const SKY: Lab = [72, -3, -14];
const WATER: Lab = [42, -8, -6];
const METAL: Lab = [62, 2, 6];

export const AIDS: readonly FamilyAid[] = [
  {
    id: 'in light',
    name: 'A thing in light',
    rests:
      'The base is the thing in full light. A halftone has half the light, the shadow a quarter and less; what light falls into the shadow is the sky’s, a little cool. A warm light has cooler shadows, a cool one warmer: turn the warmth where yours is cool.',
    relatives: [
      { name: 'halftone', zone: 'halftone', family: 'light', shadow: 1.5, by: { chroma: 0.3 } },
      { name: 'in shadow', zone: 'shadow', family: 'shadow', shadow: 5, by: { temperature: -3 } },
      { name: 'reflected light', zone: 'reflected light', family: 'shadow', shadow: 3.8, toward: { lab: SKY, share: 0.08 } },
      { name: 'accent', zone: 'accent dark', family: 'shadow', shadow: 8, by: { chroma: -0.5 } },
    ],
  },
  {
    id: 'strong yellow',
    name: 'A strong yellow in light',
    rests:
      'A strong yellow that is only darkened goes green and dies. Its shadow changes hue on purpose: to orange, then to a red brown, as dark as the others.',
    relatives: [
      { name: 'halftone', zone: 'halftone', family: 'light', shadow: 1.5, by: { hue: -1, chroma: 0.5 } },
      { name: 'in shadow', zone: 'shadow', family: 'shadow', shadow: 4.5, by: { hue: -4, chroma: 1 } },
      { name: 'reflected light', zone: 'reflected light', family: 'shadow', shadow: 3.4, by: { hue: -3, chroma: 1 } },
      { name: 'accent', zone: 'accent dark', family: 'shadow', shadow: 7, by: { hue: -5 } },
    ],
  },
  {
    id: 'face',
    name: 'A face, by regions',
    rests:
      'The base is the sitter’s own colour, whatever its depth, on the cheek’s side in the light. Where skin lies thin over bone it is a little lighter and yellower; where blood is near, redder and brighter; about the mouth and jaw, duller and cooler. How far is scaled to how strong the base is.',
    relatives: [
      { name: 'forehead', by: { value: 0.3, hue: 0.8, chroma: -0.2 } },
      { name: 'cheek', by: { value: -0.15, hue: -1.2, chroma: 0.8 } },
      { name: 'nose and ear', by: { value: -0.3, hue: -1.6, chroma: 1.1 } },
      { name: 'jaw and chin', by: { value: -0.35, chroma: -0.7, temperature: -2 } },
      { name: 'eye socket', by: { value: -0.6, chroma: -0.4, temperature: -1.5 } },
      { name: 'lips', by: { value: -0.8, hue: -2.2, chroma: 1.2 } },
      { name: 'neck', by: { value: -0.4, hue: 0.6, chroma: -0.4 } },
    ],
  },
  {
    id: 'distance',
    name: 'Further and further off',
    rests:
      'Each step leaves some six sevenths of a thing’s own light and adds the air’s: darks pale soonest, all goes to a pale cool grey. A far edge over water or under a bright sky may be darker than what is before it.',
    relatives: [
      { name: 'a field away', off: 1 },
      { name: 'across the valley', off: 3 },
      { name: 'the far hill', off: 6 },
      { name: 'the farthest', off: 11 },
    ],
  },
  {
    id: 'reflections',
    name: 'Its reflections',
    rests:
      'Water gives back less than it gets: lights come darker, darks a little lighter, both toward the water’s own colour. A polished thing gives it back in its own hue. What is turned away from you is reflected from its other side.',
    relatives: [
      { name: 'in still water', toward: { lab: WATER, share: 0.25 } },
      { name: 'in moved water', toward: { lab: WATER, share: 0.45 } },
      { name: 'in metal', toward: { lab: METAL, share: 0.35 } },
      { name: 'on a table', toward: { lab: [38, 6, 12], share: 0.6 }, by: { chroma: -0.5 } },
    ],
  },
];

/** Munsell chroma of a skin that the shifts of a face are told for. */
const USUAL_CHROMA = 4;

/** A relative of a base colour. Shifts of strength go with the base's own: what is dull stays so. */
export function relativeOf(base: Lab, { shadow = 0, off = 0, toward: aim, by = {} }: Relative): Lab {
  const scale = Math.min(1.5, Math.max(0.35, labToMunsell(base).chroma / USUAL_CHROMA));
  const { chroma, temperature, ...rest } = by;
  const shift: Shift = {
    ...rest,
    ...(chroma !== undefined && { chroma: chroma * scale }),
    ...(temperature !== undefined && { temperature: temperature * scale }),
  };
  let at = shadow > 0 ? inShadow(base, shadow) : base;
  at = moved(at, shift);
  if (aim) at = toward(at, aim.lab, aim.share);
  return off > 0 ? furtherOff(at, off) : at;
}

/** Lights and shadows are so far apart at least, in values. */
const APART = 0.3;

/** What is not as it should be among relatives of one base, in a painter's words. */
export function familySaid(base: Lab, relatives: readonly { readonly relative: Relative; readonly lab: Lab }[]): string[] {
  const value = (lab: Lab): number => valueOfLightness(lab[0]);
  const lights = [{ name: 'the light', value: value(base) }];
  const shadows: { name: string; value: number }[] = [];
  for (const { relative, lab } of relatives) {
    if (relative.family === 'light') lights.push({ name: relative.name, value: value(lab) });
    if (relative.family === 'shadow') shadows.push({ name: relative.name, value: value(lab) });
  }
  if (shadows.length === 0) return [];
  const darkestLight = lights.reduce((one, other) => (other.value < one.value ? other : one));
  const lightestShadow = shadows.reduce((one, other) => (other.value > one.value ? other : one));
  if (lightestShadow.value > darkestLight.value)
    return [
      `${lightestShadow.name} is lighter than ${darkestLight.name}: light and shadow fall apart. Darken the one or lighten the other.`,
    ];
  if (lightestShadow.value > darkestLight.value - APART)
    return [`${lightestShadow.name} and ${darkestLight.name} meet in value: let them be a little further apart.`];
  return [];
}

/** A face whose light is darker than its shadow is hardly meant so. */
export const isInsideOut = (light: Lab, shadow: Lab): boolean => light[0] < shadow[0];

/** By how much a relative differs from its base, in the steps in which a target is kept. */
export function shiftBetween(base: Lab, lab: Lab): Shift {
  const [from, to] = [labToMunsell(base), labToMunsell(lab)];
  const round = (v: number, most: number): number => Math.min(most, Math.max(-most, Math.round(100 * v) / 100));
  const turned = ((to.hue - from.hue + 150) % 100) - 50;
  const isHued = labToLch(base)[1] > 2 && labToLch(lab)[1] > 2;
  return {
    value: round(to.value - from.value, 10),
    chroma: round(to.chroma - from.chroma, 30),
    ...(isHued && { hue: round(turned / 2.5, 20) }),
  };
}
