import { labToLch, type Lab, type LinearRgb } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { isGlint, type Glints } from './glints.ts';
import type { Outline } from './outline.ts';
import { meanOf } from './area.ts';
import type { Pixels } from './pixels.ts';
import type { ValueSpread } from './valueRange.ts';

/** Zones of light on a thing, as painters name them. */
export const ZONES = [
  'highlight',
  'light',
  'halftone',
  'shadow',
  'cast shadow',
  'reflected light',
  'transmitted light',
  'accent dark',
] as const;
export type Zone = (typeof ZONES)[number];

/** What a picture as a whole tells about a place in it. */
export interface PictureLight {
  readonly spread: ValueSpread;
  readonly glints: Glints;
  readonly gains: LinearRgb;
}

/** Ways in which is looked from a place, how far (share of the longer side), and in how many steps. */
const WAYS = 12;
const FAR = 0.12;
const STEPS = 10;
/** Steps that count as near. */
const NEAR = 4;
/** Shares of the picture's range of value. */
const ACCENT = 0.07;
const HALF = 0.09;
/** Values by which a core of a shadow is darker than the light reflected into it. */
const DIP = 0.3;
/** A hard edge of a cast shadow: so much of the way to the light lies in one step. */
const ABRUPT = 0.6;
/** Light through a thing makes it strong against what is behind. */
const THROUGH_CHROMA = 25;

/** a and b go with f(Y) in more or less of the same light: what is left differs by so little, and so little of itself, in light of other colour. */
const SAME = 0.06;
const SAME_SHARE = 0.35;

/** Whether two colours may be one surface in more and in less light. */
function alike([L1, a1, b1]: Lab, [L2, a2, b2]: Lab): boolean {
  const [p, q, r, s] = [a1 / (L1 + 16), b1 / (L1 + 16), a2 / (L2 + 16), b2 / (L2 + 16)];
  return Math.hypot(p - r, q - s) < SAME + SAME_SHARE * Math.max(Math.hypot(p, q), Math.hypot(r, s));
}

/** Colours along a line out of a place, nearest first. */
type Ray = readonly { readonly lab: Lab; readonly value: MunsellValue }[];

function raysFrom(picture: Pixels, { x, y, radius }: Outline, gains: LinearRgb): Ray[] {
  const reach = FAR * Math.max(picture.width, picture.height);
  const grain = Math.max(1, 0.003 * picture.width);
  return Array.from({ length: WAYS }, (_, way) => {
    const angle = (2 * Math.PI * way) / WAYS;
    const ray: { lab: Lab; value: MunsellValue }[] = [];
    for (let step = 1; step <= STEPS; step++) {
      const far = radius + (reach * step) / STEPS;
      const [px, py] = [x + far * Math.cos(angle), y + far * Math.sin(angle)];
      if (px < 0 || py < 0 || px >= picture.width || py >= picture.height) break;
      const lab = meanOf(picture, { x: px, y: py, radius: grain }, gains);
      ray.push({ lab, value: valueOfLightness(lab[0]) });
    }
    return ray;
  });
}

/** A thing whose own values differ by so much shows light and shadow by itself. */
const OWN_RANGE = 1.5;
/** How far its own middle then counts against that of the picture. */
const OWN_COUNTS = 0.6;

/** Value that parts light from shadow on a thing: that of the picture, drawn to the middle of what the thing itself shows round here. */
function splitOf(value: MunsellValue, lab: Lab, rays: readonly Ray[], split: MunsellValue): MunsellValue {
  const own = rays.flat().flatMap((one) => (alike(one.lab, lab) ? [one.value] : []));
  const [darkest, lightest] = [Math.min(value, ...own), Math.max(value, ...own)];
  return lightest - darkest < OWN_RANGE ? split : OWN_COUNTS * ((darkest + lightest) / 2) + (1 - OWN_COUNTS) * split;
}

/** Largest single step on the way up to the light, as a share of the way. */
function abruptness(from: MunsellValue, ray: Ray, end: number): number {
  let before = from;
  let most = 0;
  for (let i = 0; i <= end; i++) {
    most = Math.max(most, ray[i]!.value - before);
    before = ray[i]!.value;
  }
  return most / Math.max(0.01, ray[end]!.value - from);
}

function shadowKind(value: MunsellValue, lab: Lab, rays: readonly Ray[], split: MunsellValue): Zone {
  // Darker first, then lighter again on the same thing: the core lies between here and the light.
  const overCore = rays.filter((ray) => {
    const core = ray.findIndex((one) => one.value < value - DIP && alike(one.lab, lab));
    return core >= 0 && ray.slice(core).some((one) => one.value > value + DIP && alike(one.lab, lab));
  });
  // One alone may be a line drawn on the thing; and it is where the thing turns away, near its edge.
  const nearEdge = rays.some((ray) => ray.slice(0, NEAR).some((one) => !alike(one.lab, lab)));
  if (nearEdge && overCore.length >= 2) return 'reflected light';
  const cast = rays.some((ray) => {
    const lit = ray.findIndex((one) => one.value > split + 0.3);
    return lit >= 0 && alike(ray[lit]!.lab, lab) && abruptness(value, ray, lit) > ABRUPT;
  });
  return cast ? 'cast shadow' : 'shadow';
}

/**
 * The zone that a place most likely is in, by its value and by what is round it: a proposal, for the painter to change.
 */
export function proposeZone(picture: Pixels, outline: Outline, lab: Lab, { spread, glints, gains }: PictureLight): Zone {
  const { range } = spread;
  const whole = Math.max(0.5, range.lightest - range.darkest);
  const value = valueOfLightness(lab[0]);
  if (isGlint(glints, outline.x, outline.y) && value > spread.split) return 'highlight';
  const rays = raysFrom(picture, outline, gains);
  const split = splitOf(value, lab, rays, spread.split);
  const round = rays.flat();
  const mean = (of: (one: Ray[number]) => number): number => round.reduce((sum, one) => sum + of(one), 0) / Math.max(1, round.length);
  // An accent is small: a little way off it is lighter nearly all round.
  const lighter = rays.filter((ray) => ray.slice(0, 2).some((one) => one.value > value + 0.3)).length;
  if (value < range.darkest + ACCENT * whole && lighter > (2 / 3) * rays.length) return 'accent dark';
  if (value < split - HALF * whole) return shadowKind(value, lab, rays, split);
  const [, chroma] = labToLch(lab);
  const behind = round.filter((one) => one.value > value + 0.4);
  const shines =
    chroma > THROUGH_CHROMA &&
    behind.length > round.length / 3 &&
    chroma > 1.5 * mean((one) => labToLch(one.lab)[1]) &&
    value > split - HALF * whole;
  if (shines) return 'transmitted light';
  return value < split + HALF * whole ? 'halftone' : 'light';
}

/** Colour round an area, as far again as it is large: what shifts it in the eye. */
export function surroundOf(picture: Pixels, { x, y, radius }: Outline, gains: LinearRgb): Lab {
  const reach = Math.max(3 * radius, 0.02 * picture.width);
  const ring = Array.from({ length: 16 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 16;
    return { x: x + reach * Math.cos(angle), y: y + reach * Math.sin(angle), radius: Math.max(1, reach / 4) };
  }).filter((one) => one.x >= 0 && one.y >= 0 && one.x < picture.width && one.y < picture.height);
  const [first, ...more] = ring;
  if (!first) return meanOf(picture, { x, y, radius }, gains);
  // The surround is as it blends, whatever it holds.
  const labs = [first, ...more].map((one) => meanOf(picture, one, gains));
  const sum = labs.reduce<[number, number, number]>((so, lab) => [so[0] + lab[0], so[1] + lab[1], so[2] + lab[2]], [0, 0, 0]);
  return [sum[0] / labs.length, sum[1] / labs.length, sum[2] / labs.length];
}
