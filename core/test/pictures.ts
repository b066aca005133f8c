import type { Pixels } from '../src/index.ts';

/** A picture painted pixel by pixel. */
export function picture(width: number, height: number, paint: (x: number, y: number) => readonly [number, number, number]): Pixels {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set([...paint(x, y), 255], (y * width + x) * 4);
  return { data, width, height };
}

/** A grey by its linear light, 0–1. */
export function greyByte(linear: number): number {
  const v = Math.min(1, Math.max(0, linear));
  return Math.round(255 * (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055));
}

type Triple = readonly [number, number, number];
const fixed = (v: number): number => Math.round(v * 65536);

/** An ICC profile of three primaries (XYZ under D50) and one tone curve: a gamma, or parameters of kind 3. */
export function matrixProfile(primaries: readonly [Triple, Triple, Triple], curve: number | readonly number[]): Uint8Array {
  const tags: [string, Uint8Array][] = [];
  const block = (size: number, write: (view: DataView) => void): Uint8Array => {
    const bytes = new Uint8Array(size);
    write(new DataView(bytes.buffer));
    return bytes;
  };
  const sign = (view: DataView, at: number, text: string): void => [...text].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  for (const [i, tag] of ['rXYZ', 'gXYZ', 'bXYZ'].entries())
    tags.push([
      tag,
      block(20, (view) => {
        sign(view, 0, 'XYZ ');
        primaries[i]!.forEach((v, k) => view.setInt32(8 + 4 * k, fixed(v)));
      }),
    ]);
  const tone =
    typeof curve === 'number'
      ? block(16, (view) => {
          sign(view, 0, 'curv');
          view.setUint32(8, 1);
          view.setUint16(12, Math.round(curve * 256));
        })
      : block(12 + 4 * curve.length, (view) => {
          sign(view, 0, 'para');
          view.setUint16(8, 3);
          curve.forEach((v, k) => view.setInt32(12 + 4 * k, fixed(v)));
        });
  for (const tag of ['rTRC', 'gTRC', 'bTRC']) tags.push([tag, tone]);
  const start = 132 + 12 * tags.length;
  const size = start + tags.reduce((sum, [, bytes]) => sum + bytes.length, 0);
  const file = new Uint8Array(size);
  const view = new DataView(file.buffer);
  view.setUint32(0, size);
  view.setUint32(8, 0x02400000);
  sign(view, 12, 'mntrRGB XYZ ');
  sign(view, 36, 'acsp');
  [0.9642, 1, 0.8249].forEach((v, i) => view.setInt32(68 + 4 * i, fixed(v)));
  view.setUint32(128, tags.length);
  let at = start;
  tags.forEach(([tag, bytes], i) => {
    sign(view, 132 + 12 * i, tag);
    view.setUint32(136 + 12 * i, at);
    view.setUint32(140 + 12 * i, bytes.length);
    file.set(bytes, at);
    at += bytes.length;
  });
  return file;
}

/** Published primaries under D50. */
export const ADOBE_RGB: readonly [Triple, Triple, Triple] = [
  [0.60974, 0.31111, 0.01947],
  [0.20528, 0.62567, 0.06087],
  [0.14919, 0.06322, 0.74457],
];
export const ADOBE_GAMMA = 563 / 256;
export const PROPHOTO: readonly [Triple, Triple, Triple] = [
  [0.79767, 0.28804, 0],
  [0.13519, 0.71188, 0],
  [0.03134, 0.00009, 0.82491],
];
