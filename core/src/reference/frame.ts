import { CraftError } from '../errors.ts';

/** How a picture is cut and turned; all absent: as it is. */
export interface Shape {
  /** Quarter turns, clockwise. */
  readonly turn?: number | undefined;
  /** Degrees clockwise, −45…45; the picture is enlarged until no corner is bare. */
  readonly straighten?: number | undefined;
  readonly mirror?: boolean | undefined;
  /** What is kept of the turned picture, in shares of its width and height. */
  readonly crop?: Crop | undefined;
}

export interface Crop {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** x' = a·x + c·y + e, y' = b·x + d·y + f: the order in which a canvas takes them. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** The picture as it is cut and turned: its size, and the way between its pixels and the picture's own. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly toFrame: Affine;
  readonly toPicture: Affine;
}

/** First `one`, then `other`. */
const then = (one: Affine, other: Affine): Affine => [
  other[0] * one[0] + other[2] * one[1],
  other[1] * one[0] + other[3] * one[1],
  other[0] * one[2] + other[2] * one[3],
  other[1] * one[2] + other[3] * one[3],
  other[0] * one[4] + other[2] * one[5] + other[4],
  other[1] * one[4] + other[3] * one[5] + other[5],
];

const back = ([a, b, c, d, e, f]: Affine): Affine => {
  const det = a * d - b * c;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
};

/** Where a point goes. */
export const through = ([a, b, c, d, e, f]: Affine, x: number, y: number): readonly [x: number, y: number] => [
  a * x + c * y + e,
  b * x + d * y + f,
];

/** How much longer lengths are afterwards. */
export const stretchOf = ([a, b, c, d]: Affine): number => Math.sqrt(Math.abs(a * d - b * c));

const QUARTERS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;
const MOST_STRAIGHTENED = 45;

function checkCrop({ x, y, width, height }: Crop): void {
  const inside = x >= 0 && y >= 0 && width > 0 && height > 0 && x + width <= 1 + 1e-9 && y + height <= 1 + 1e-9;
  if (!inside) throw new CraftError('input', 'What is kept of a picture lies within it and is not empty.');
}

/**
 * The frame of a picture of some size, in pixels.
 * @throws CraftError for a crop outside the picture, or a turn out of range
 */
export function frameOf({ turn = 0, straighten = 0, mirror = false, crop }: Shape, width: number, height: number): Frame {
  if (!Number.isInteger(turn) || !(Math.abs(straighten) <= MOST_STRAIGHTENED))
    throw new CraftError('input', `A picture is turned by whole quarters, and straightened by at most ${MOST_STRAIGHTENED} degrees.`);
  if (crop) checkCrop(crop);
  const [cos, sin] = QUARTERS[((turn % 4) + 4) % 4]!;
  const [w, h] = sin === 0 ? [width, height] : [height, width];
  const angle = (straighten * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(Math.abs(angle))];
  const enlarge = Math.max(c + (s * h) / w, c + (s * w) / h);
  const lean: Affine = [enlarge * c, enlarge * Math.sin(angle), -enlarge * Math.sin(angle), enlarge * c, 0, 0];
  const whole = [
    [cos, sin, -sin, cos, 0, 0] as Affine,
    lean,
    [1, 0, 0, 1, w / 2 - (crop?.x ?? 0) * w, h / 2 - (crop?.y ?? 0) * h] as Affine,
    // What was cut out is mirrored, not another piece cut from the mirrored picture.
    [mirror ? -1 : 1, 0, 0, 1, mirror ? (crop?.width ?? 1) * w : 0, 0] as Affine,
  ].reduce<Affine>((so, next) => then(so, next), [1, 0, 0, 1, -width / 2, -height / 2]);
  return { width: (crop?.width ?? 1) * w, height: (crop?.height ?? 1) * h, toFrame: whole, toPicture: back(whole) };
}

/** A crop of a turned picture once that is turned by one more quarter: clockwise, or back. */
export const turnedCrop = ({ x, y, width, height }: Crop, by: 1 | -1): Crop =>
  by === 1 ? { x: 1 - y - height, y: x, width: height, height: width } : { x: y, y: 1 - x - width, width: height, height: width };

/**
 * The largest piece of a picture in some proportions, about a middle.
 * @param ratio width over height of what is kept
 * @param width @param height of the turned picture
 */
export function cropTo(
  ratio: number,
  width: number,
  height: number,
  middle: { readonly x: number; readonly y: number } = { x: 0.5, y: 0.5 },
): Crop {
  const own = width / height;
  const w = ratio < own ? ratio / own : 1;
  const h = ratio < own ? 1 : own / ratio;
  const held = (at: number, size: number): number => Math.min(1 - size, Math.max(0, at - size / 2));
  return { x: held(middle.x, w), y: held(middle.y, h), width: w, height: h };
}
