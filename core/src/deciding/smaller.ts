import type { Lab, LinearRgb } from '../colour/spaces.ts';
import { linearReader, linearToLab, SRGB, type Pixels } from '../reference/pixels.ts';

/** A picture made smaller: Lab of its places, three numbers each, rows from the top. */
export interface SmallPicture {
  readonly lab: Float32Array;
  readonly width: number;
  readonly height: number;
  /** Pixels of the picture to one of its places. */
  readonly per: number;
}

/** Pixels of a place that are looked at, along each side: more say nothing new. */
const LOOKED_AT = 4;

/** Means in linear light over squares, so that the longer side has no more than so many. */
export function smaller(picture: Pixels, gains: LinearRgb, longest: number): SmallPicture {
  const per = Math.max(1, Math.max(picture.width, picture.height) / longest);
  const [width, height] = [Math.max(1, Math.floor(picture.width / per)), Math.max(1, Math.floor(picture.height / per))];
  const space = picture.space ?? SRGB;
  const read = linearReader(picture);
  const step = Math.max(1, Math.floor(per / LOOKED_AT));
  const lab = new Float32Array(3 * width * height);
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [Math.floor(y * per), Math.min(picture.height, Math.max(Math.floor(y * per) + 1, Math.floor((y + 1) * per)))];
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.floor(x * per), Math.min(picture.width, Math.max(Math.floor(x * per) + 1, Math.floor((x + 1) * per)))];
      let [r, g, b, n] = [0, 0, 0, 0];
      for (let py = top; py < bottom; py += step)
        for (let px = left; px < right; px += step) {
          const at = 4 * (py * picture.width + px);
          r += read(at, 0);
          g += read(at, 1);
          b += read(at, 2);
          n++;
        }
      lab.set(linearToLab(space, (gains[0] * r) / n, (gains[1] * g) / n, (gains[2] * b) / n), 3 * (y * width + x));
    }
  }
  return { lab, width, height, per };
}

export const labAt = ({ lab }: SmallPicture, i: number): Lab => [lab[3 * i]!, lab[3 * i + 1]!, lab[3 * i + 2]!];

/** ΔE76 between a place and a colour. */
export const awayFrom = ({ lab }: SmallPicture, i: number, [L, a, b]: Lab): number =>
  Math.hypot(lab[3 * i]! - L, lab[3 * i + 1]! - a, lab[3 * i + 2]! - b);

const ACROSS = 3;
const ASLANT = 4;

/** How far each place of a mask lies from its edge, in places: chamfer 3–4 (Borgefors 1986); the picture's own edge counts as one. */
export function depths(mask: Uint8Array, width: number, height: number): Float32Array {
  const far = 1e6;
  const depth = new Float32Array(mask.length);
  const before = (i: number, x: number, y: number): number => {
    const edge = x === 0 || y === 0 || x === width - 1 ? 0 : far;
    return Math.min(
      edge,
      x > 0 ? depth[i - 1]! : 0,
      y > 0 ? depth[i - width]! : 0,
      ...(y > 0 && x > 0 ? [depth[i - width - 1]! + ASLANT - ACROSS] : []),
      ...(y > 0 && x < width - 1 ? [depth[i - width + 1]! + ASLANT - ACROSS] : []),
    );
  };
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) depth[i] = mask[i] === 0 ? 0 : Math.min(far, before(i, x, y) + ACROSS);
  for (let y = height - 1, i = mask.length - 1; y >= 0; y--)
    for (let x = width - 1; x >= 0; x--, i--) {
      if (mask[i] === 0) continue;
      const right = x < width - 1 ? depth[i + 1]! : 0;
      const below = y < height - 1 ? depth[i + width]! : 0;
      const aslant = Math.min(
        y < height - 1 && x > 0 ? depth[i + width - 1]! : 0,
        y < height - 1 && x < width - 1 ? depth[i + width + 1]! : 0,
      );
      depth[i] = Math.min(depth[i]!, right + ACROSS, below + ACROSS, aslant + ASLANT);
    }
  for (let i = 0; i < depth.length; i++) depth[i] = depth[i]! / ACROSS;
  return depth;
}
