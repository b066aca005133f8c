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

/** Relative luminance of every pixel, 0–1. */
function luminance({ rgb, space }: LightPlane): Float32Array {
  const [r, g, b] = lumaOf(space);
  const light = new Float32Array(rgb.length / 3);
  for (let i = 0, at = 0; i < light.length; i++, at += 3) light[i] = r * rgb[at]! + g * rgb[at + 1]! + b * rgb[at + 2]!;
  return light;
}

/** Turns luminance into values, in its place. */
function toValues(light: Float32Array): Float32Array {
  const table = valueTable();
  for (let i = 0; i < light.length; i++) light[i] = table[place(light[i]!)]!;
  return light;
}

/** Munsell value of every pixel. */
export const valuesOf = (plane: LightPlane): Float32Array => toValues(luminance(plane));

/** A picture in greys: bytes for the screen, each pixel the grey of a tone that its value is given. */
export function inGreys(plane: LightPlane, toneOf: (value: MunsellValue) => MunsellValue): Uint8ClampedArray<ArrayBuffer> {
  const greys = Uint8Array.from(valueTable(), (value) => greyOfValue(toneOf(value)));
  const light = luminance(plane);
  const bytes = new Uint8ClampedArray(light.length * 4);
  for (let i = 0, at = 0; i < light.length; i++, at += 4) {
    bytes[at] = bytes[at + 1] = bytes[at + 2] = greys[place(light[i]!)]!;
    bytes[at + 3] = 255;
  }
  return bytes;
}

/** Odd widths of three boxes that together blur as a Gaussian of this deviation does (Wells 1986). */
function boxes(sigma: number): readonly number[] {
  const ideal = Math.sqrt((12 * sigma * sigma) / 3 + 1);
  const lower = Math.floor(ideal) - (Math.floor(ideal) % 2 === 0 ? 1 : 0);
  const smaller = Math.round((12 * sigma * sigma - 3 * lower * lower - 12 * lower - 9) / (-4 * lower - 4));
  return [0, 1, 2].map((i) => (i < smaller ? lower : lower + 2));
}

/** A box along every row, the edge going on as it is: three channels together, which is twice as fast as one after another. */
function threeAcross(from: Float32Array, to: Float32Array, width: number, height: number, size: number): void {
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

/** The same for one channel. */
function oneAcross(from: Float32Array, to: Float32Array, width: number, height: number, size: number): void {
  const half = (size - 1) / 2;
  const even = 1 / size;
  const end = width - 1;
  for (let start = 0; start < height * width; start += width) {
    let sum = from[start]! * (half + 1);
    for (let i = 0; i < half; i++) sum += from[start + Math.min(end, i)]!;
    for (let x = 0; x < width; x++) {
      sum += from[start + Math.min(end, x + half)]! - from[start + Math.max(0, x - half - 1)]!;
      to[start + x] = sum * even;
    }
  }
}

/** A box down every column, row by row, so that memory is gone through in order. */
function boxDown(from: Float32Array, to: Float32Array, width: number, height: number, size: number, channels: number): void {
  const half = (size - 1) / 2;
  const even = 1 / size;
  const row = channels * width;
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

/** Numbers of a picture in rows, so many channels a pixel. */
interface Channels {
  readonly data: Float32Array;
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 3;
}

/** Half as large: means of four. */
function halved({ data, width, height, channels }: Channels): Channels {
  const [w, h] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const out = new Float32Array(w * h * channels);
  for (let y = 0; y < h; y++) {
    const above = 2 * y * width * channels;
    const below = Math.min(height - 1, 2 * y + 1) * width * channels;
    for (let x = 0; x < w; x++) {
      const left = 2 * channels * x;
      const right = Math.min(width - 1, 2 * x + 1) * channels;
      const at = (y * w + x) * channels;
      for (let c = 0; c < channels; c++)
        out[at + c] = 0.25 * (data[above + left + c]! + data[above + right + c]! + data[below + left + c]! + data[below + right + c]!);
    }
  }
  return { data: out, width: w, height: h, channels };
}

/** Twice as large, linear between the middles of its pixels. */
function doubled({ data, width: w, height: h, channels }: Channels, width: number, height: number): Channels {
  const out = new Float32Array(width * height * channels);
  for (let y = 0; y < height; y++) {
    const near = Math.min(h - 1, y >> 1) * w * channels;
    const far = Math.min(h - 1, Math.max(0, (y >> 1) + (y % 2 === 0 ? -1 : 1))) * w * channels;
    for (let x = 0; x < width; x++) {
      const own = Math.min(w - 1, x >> 1) * channels;
      const beside = Math.min(w - 1, Math.max(0, (x >> 1) + (x % 2 === 0 ? -1 : 1))) * channels;
      const at = (y * width + x) * channels;
      for (let c = 0; c < channels; c++)
        out[at + c] =
          0.5625 * data[near + own + c]! + 0.1875 * (data[near + beside + c]! + data[far + own + c]!) + 0.0625 * data[far + beside + c]!;
    }
  }
  return { data: out, width, height, channels };
}

/** From this deviation on a plane half as large tells no less. */
const COARSE = 3;

function blurred(plane: Channels, sigma: number): Channels {
  if (!(sigma >= 0.5)) return plane;
  const { data, width, height, channels } = plane;
  if (sigma >= COARSE && Math.min(width, height) > 8) return doubled(blurred(halved(plane), sigma / 2), width, height);
  const acrossRows = channels === 1 ? oneAcross : threeAcross;
  const across = new Float32Array(data.length);
  let from: Float32Array = data;
  let to: Float32Array = new Float32Array(data.length);
  for (const size of boxes(sigma)) {
    if (size === 1) continue;
    acrossRows(from, across, width, height, size);
    boxDown(across, to, width, height, size, channels);
    if (from === data) from = new Float32Array(data.length);
    [from, to] = [to, from];
  }
  return { ...plane, data: from };
}

/** A plane as eyes half closed see it: blurred in linear light. @param sigma in pixels; below half a pixel nothing is blurred */
export function squinted(plane: LightPlane, sigma: number): LightPlane {
  const { rgb, width, height } = plane;
  return { ...plane, rgb: blurred({ data: rgb, width, height, channels: 3 }, sigma).data };
}

/** One number a pixel, blurred. @param sigma in pixels */
export const valuesBlurred = (data: Float32Array, width: number, height: number, sigma: number): Float32Array =>
  blurred({ data, width, height, channels: 1 }, sigma).data;

/** Munsell values after squints of several deviations: only their luminance is blurred. */
export function valuesSquinted(plane: LightPlane, sigmas: readonly number[]): Float32Array[] {
  const { width, height } = plane;
  const light: Channels = { data: luminance(plane), width, height, channels: 1 };
  return sigmas.map((sigma) => toValues(blurred(light, sigma).data.slice()));
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
