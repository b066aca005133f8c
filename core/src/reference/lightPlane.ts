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

/** A table that is made when it is first needed: nothing of it is in the way of a page that begins. */
function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

/** Steps of the root of Y at which tables over light are kept. */
const STEPS = 4096;
const tabled = (of: (Y: number) => number): Float32Array => Float32Array.from({ length: STEPS + 1 }, (_, i) => of((i / STEPS) ** 2));
const place = (Y: number): number => (Math.sqrt(Y <= 0 ? 0 : Y >= 1 ? 1 : Y) * STEPS + 0.5) | 0;
const valueTable = once(() => tabled((Y) => valueFromY(100 * Y)));

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
  const [gr, gg, gb] = gains;
  for (let i = 0, at = 0; i < rgb.length; i += 3, at += 4) {
    let r = read(at, 0) * gr;
    let g = read(at, 1) * gg;
    let b = read(at, 2) * gb;
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
  const table = valueTable();
  for (let i = 0, at = 0; i < values.length; i++, at += 3) values[i] = table[place(r * rgb[at]! + g * rgb[at + 1]! + b * rgb[at + 2]!)]!;
  return values;
}

/** Odd widths of three boxes that together blur as a Gaussian of this deviation does (Wells 1986). */
function boxes(sigma: number): readonly number[] {
  const ideal = Math.sqrt((12 * sigma * sigma) / 3 + 1);
  const lower = Math.floor(ideal) - (Math.floor(ideal) % 2 === 0 ? 1 : 0);
  const smaller = Math.round((12 * sigma * sigma - 3 * lower * lower - 12 * lower - 9) / (-4 * lower - 4));
  return [0, 1, 2].map((i) => (i < smaller ? lower : lower + 2));
}

/** A box along every row, the edge going on as it is. */
function boxAcross(from: Float32Array, to: Float32Array, width: number, height: number, size: number): void {
  const half = (size - 1) / 2;
  const even = 1 / size;
  const row = 3 * width;
  const end = row - 3;
  for (let start = 0; start < height * row; start += row) {
    let r = from[start]! * (half + 1);
    let g = from[start + 1]! * (half + 1);
    let b = from[start + 2]! * (half + 1);
    for (let i = 0; i < half; i++) {
      const at = start + Math.min(end, 3 * i);
      r += from[at]!;
      g += from[at + 1]!;
      b += from[at + 2]!;
    }
    for (let x = 0; x < row; x += 3) {
      const enters = x + 3 * half;
      const leaves = x - 3 * half - 3;
      const on = start + (enters < end ? enters : end);
      const off = start + (leaves > 0 ? leaves : 0);
      r += from[on]! - from[off]!;
      g += from[on + 1]! - from[off + 1]!;
      b += from[on + 2]! - from[off + 2]!;
      to[start + x] = r * even;
      to[start + x + 1] = g * even;
      to[start + x + 2] = b * even;
    }
  }
}

/** A box down every column, row by row, so that memory is gone through in order. */
function boxDown(from: Float32Array, to: Float32Array, width: number, height: number, size: number): void {
  const half = (size - 1) / 2;
  const even = 1 / size;
  const row = 3 * width;
  const sums = new Float64Array(row);
  const rowAt = (y: number): number => Math.min(height - 1, Math.max(0, y)) * row;
  for (let y = -half - 1; y < half; y++) {
    const at = rowAt(y);
    for (let i = 0; i < row; i++) sums[i]! += from[at + i]!;
  }
  for (let y = 0; y < height; y++) {
    const on = rowAt(y + half);
    const off = rowAt(y - half - 1);
    const out = y * row;
    for (let i = 0; i < row; i++) {
      const sum = sums[i]! + from[on + i]! - from[off + i]!;
      sums[i] = sum;
      to[out + i] = sum * even;
    }
  }
}

/** A plane half as large: means of four. */
function halved({ rgb, width, height, space }: LightPlane): LightPlane {
  const [w, h] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const out = new Float32Array(w * h * 3);
  for (let y = 0; y < h; y++) {
    const above = 2 * y * width * 3;
    const below = Math.min(height - 1, 2 * y + 1) * width * 3;
    for (let x = 0; x < w; x++) {
      const left = 6 * x;
      const right = Math.min(width - 1, 2 * x + 1) * 3;
      const at = (y * w + x) * 3;
      for (let c = 0; c < 3; c++)
        out[at + c] = 0.25 * (rgb[above + left + c]! + rgb[above + right + c]! + rgb[below + left + c]! + rgb[below + right + c]!);
    }
  }
  return { rgb: out, width: w, height: h, space };
}

/** A plane twice as large, linear between the middles of its pixels. */
function doubled({ rgb, width: w, height: h, space }: LightPlane, width: number, height: number): LightPlane {
  const out = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    const near = Math.min(h - 1, y >> 1) * w * 3;
    const far = Math.min(h - 1, Math.max(0, (y >> 1) + (y % 2 === 0 ? -1 : 1))) * w * 3;
    for (let x = 0; x < width; x++) {
      const own = Math.min(w - 1, x >> 1) * 3;
      const beside = Math.min(w - 1, Math.max(0, (x >> 1) + (x % 2 === 0 ? -1 : 1))) * 3;
      const at = (y * width + x) * 3;
      for (let c = 0; c < 3; c++)
        out[at + c] =
          0.5625 * rgb[near + own + c]! + 0.1875 * (rgb[near + beside + c]! + rgb[far + own + c]!) + 0.0625 * rgb[far + beside + c]!;
    }
  }
  return { rgb: out, width, height, space };
}

/** From this deviation on a plane half as large tells no less. */
const COARSE = 3;

/** A plane as eyes half closed see it: blurred in linear light. @param sigma in pixels; below half a pixel nothing is blurred */
export function squinted(plane: LightPlane, sigma: number): LightPlane {
  if (!(sigma >= 0.5)) return plane;
  const { width, height } = plane;
  if (sigma >= COARSE && Math.min(width, height) > 8) return doubled(squinted(halved(plane), sigma / 2), width, height);
  const across = new Float32Array(plane.rgb.length);
  let from: Float32Array = plane.rgb;
  let to: Float32Array = new Float32Array(plane.rgb.length);
  for (const size of boxes(sigma)) {
    if (size === 1) continue;
    boxAcross(from, across, width, height, size);
    boxDown(across, to, width, height, size);
    if (from === plane.rgb) from = new Float32Array(plane.rgb.length);
    [from, to] = [to, from];
  }
  return { ...plane, rgb: from };
}

/** Encoded byte of linear light at 65,536 steps. */
const byteTable = once(() => Uint8Array.from({ length: 65_536 }, (_, i) => Math.round(255 * encodeSrgb(i / 65535))));
/** Gives the encoded byte of linear light. */
export function byteEncoder(): (light: number) => number {
  const table = byteTable();
  return (v) => table[v <= 0 ? 0 : v >= 1 ? 65535 : (v * 65535 + 0.5) | 0]!;
}

/** A plane as a screen takes it: four bytes a pixel under the tone curve that sRGB and Display P3 share. */
export function toBytes({ rgb }: LightPlane): Uint8ClampedArray<ArrayBuffer> {
  const bytes = new Uint8ClampedArray((rgb.length / 3) * 4);
  const byteOf = byteEncoder();
  for (let i = 0, at = 0; i < rgb.length; i += 3, at += 4) {
    bytes[at] = byteOf(rgb[i]!);
    bytes[at + 1] = byteOf(rgb[i + 1]!);
    bytes[at + 2] = byteOf(rgb[i + 2]!);
    bytes[at + 3] = 255;
  }
  return bytes;
}

const greyTable = once(() =>
  Uint8Array.from({ length: 1001 }, (_, i) => {
    const L = lightnessOfValue(i / 100);
    const f = (L + 16) / 116;
    return Math.round(255 * encodeSrgb(Math.min(1, L > 8 ? f * f * f : (L * 27) / 24389)));
  }),
);
/** Grey byte of a value. */
export const greyOfValue = (value: MunsellValue): number => greyTable()[Math.min(1000, Math.max(0, Math.round(value * 100)))]!;
