import { encodeSrgb } from '../colour/display.ts';
import { lightnessOfValue, valueFromY, valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { labForward, type LinearRgb } from '../colour/spaces.ts';
import type { Key } from './key.ts';
import { linearReader, lumaOf, SRGB, type Pixels, type RgbSpace } from './pixels.ts';

/** Linear light of a picture, three numbers a pixel, rows from the top. */
export interface LightPlane {
  readonly rgb: Float32Array;
  readonly width: number;
  readonly height: number;
  readonly space: RgbSpace;
}

/** Steps of the root of Y at which tables over light are kept. */
const STEPS = 4096;
const tabled = (of: (Y: number) => number): Float32Array => Float32Array.from({ length: STEPS + 1 }, (_, i) => of((i / STEPS) ** 2));
const place = (Y: number): number => Math.round(Math.sqrt(Y <= 0 ? 0 : Y >= 1 ? 1 : Y) * STEPS);
const VALUE_AT = tabled((Y) => valueFromY(100 * Y));

/** What light is multiplied with to come through a key, by its Y: as `throughKey` does with Lab, where all is above the toe of Lab. */
function keyTable({ valueOf, plan }: Key): Float32Array | undefined {
  if (plan.kind === 'as it is') return undefined;
  return tabled((Y) => {
    const L = 116 * labForward(Y) - 16;
    const painted = lightnessOfValue(valueOf(valueOfLightness(L)));
    return ((painted + 16) / Math.max(24, L + 16)) ** 3;
  });
}

/** A picture as linear light, with its light put right and, where one is given, through a key. */
export function lightOf(picture: Pixels, gains: LinearRgb = [1, 1, 1], key?: Key): LightPlane {
  const { width, height, space = SRGB } = picture;
  const read = linearReader(picture);
  const luma = lumaOf(space);
  const table = key && keyTable(key);
  const rgb = new Float32Array(width * height * 3);
  for (let i = 0, at = 0; i < rgb.length; i += 3, at += 4) {
    let r = read(at, 0) * gains[0];
    let g = read(at, 1) * gains[1];
    let b = read(at, 2) * gains[2];
    if (table) {
      const k = table[place(luma[0] * r + luma[1] * g + luma[2] * b)]!;
      r *= k;
      g *= k;
      b *= k;
    }
    rgb[i] = r;
    rgb[i + 1] = g;
    rgb[i + 2] = b;
  }
  return { rgb, width, height, space };
}

/** Munsell value of every pixel. */
export function valuesOf({ rgb, space }: LightPlane): Float32Array {
  const [r, g, b] = lumaOf(space);
  const values = new Float32Array(rgb.length / 3);
  for (let i = 0, at = 0; i < values.length; i++, at += 3) values[i] = VALUE_AT[place(r * rgb[at]! + g * rgb[at + 1]! + b * rgb[at + 2]!)]!;
  return values;
}

/** Odd widths of three boxes that together blur as a Gaussian of this deviation does (Wells 1986). */
function boxes(sigma: number): readonly number[] {
  const ideal = Math.sqrt((12 * sigma * sigma) / 3 + 1);
  const lower = Math.floor(ideal) - (Math.floor(ideal) % 2 === 0 ? 1 : 0);
  const smaller = Math.round((12 * sigma * sigma - 3 * lower * lower - 12 * lower - 9) / (-4 * lower - 4));
  return [0, 1, 2].map((i) => (i < smaller ? lower : lower + 2));
}

/** One box along lines of a plane: `step` from one to the next on a line, the edge going on as it is. */
function boxAlong(from: Float32Array, to: Float32Array, start: number, count: number, step: number, width: number): void {
  const half = (width - 1) / 2;
  const last = start + (count - 1) * step;
  for (let c = 0; c < 3; c++) {
    const [first, end] = [from[start + c]!, from[last + c]!];
    let sum = first * (half + 1);
    for (let i = 0; i < half; i++) sum += from[start + Math.min(count - 1, i) * step + c]!;
    for (let i = 0; i < count; i++) {
      const enters = i + half;
      const leaves = i - half - 1;
      sum += (enters < count ? from[start + enters * step + c]! : end) - (leaves >= 0 ? from[start + leaves * step + c]! : first);
      to[start + i * step + c] = sum / width;
    }
  }
}

/** A plane as eyes half closed see it: blurred in linear light. @param sigma in pixels; below half a pixel nothing is blurred */
export function squinted(plane: LightPlane, sigma: number): LightPlane {
  if (!(sigma >= 0.5)) return plane;
  const { width, height } = plane;
  let from = plane.rgb;
  const to = [new Float32Array(from.length), new Float32Array(from.length)] as const;
  let next = 0;
  const through = (along: (from: Float32Array, to: Float32Array) => void): void => {
    along(from, to[next]!);
    from = to[next]!;
    next = 1 - next;
  };
  for (const size of boxes(sigma)) {
    through((a, b) => {
      for (let y = 0; y < height; y++) boxAlong(a, b, y * width * 3, width, 3, size);
    });
    through((a, b) => {
      for (let x = 0; x < width; x++) boxAlong(a, b, x * 3, height, width * 3, size);
    });
  }
  return { ...plane, rgb: from };
}

/** Encoded byte of linear light at 65,536 steps. */
const BYTE_AT = Uint8Array.from({ length: 65_536 }, (_, i) => Math.round(255 * encodeSrgb(i / 65535)));
const byteOf = (v: number): number => BYTE_AT[v <= 0 ? 0 : v >= 1 ? 65535 : Math.round(v * 65535)]!;

/** A plane as a screen takes it: four bytes a pixel under the tone curve that sRGB and Display P3 share. */
export function toBytes({ rgb }: LightPlane): Uint8ClampedArray<ArrayBuffer> {
  const bytes = new Uint8ClampedArray((rgb.length / 3) * 4);
  for (let i = 0, at = 0; i < rgb.length; i += 3, at += 4) {
    bytes[at] = byteOf(rgb[i]!);
    bytes[at + 1] = byteOf(rgb[i + 1]!);
    bytes[at + 2] = byteOf(rgb[i + 2]!);
    bytes[at + 3] = 255;
  }
  return bytes;
}

/** Grey byte of a value. */
const GREY_AT = Uint8Array.from({ length: 1001 }, (_, i) => {
  const L = lightnessOfValue(i / 100);
  const f = (L + 16) / 116;
  return Math.round(255 * encodeSrgb(Math.min(1, L > 8 ? f * f * f : (L * 27) / 24389)));
});
export const greyOfValue = (value: MunsellValue): number => GREY_AT[Math.min(1000, Math.max(0, Math.round(value * 100)))]!;
