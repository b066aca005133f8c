import { deltaE00 } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { valueOfLightness } from '../colour/value.ts';
import { inGreys, toBytes, type LightPlane } from '../reference/lightPlane.ts';
import { isHatched, ofEveryColour, type Looked } from '../reference/looks.ts';

/** How a pile serves a place. */
export const SERVES = ['not', 'a step off', 'as it is'] as const;
/** A place that looks no further from a pile than this is painted with it, ΔE00. */
export const SERVES_WITHIN = 4;
/** A place of its hue and strength that is so many values lighter or darker is one step off. */
const A_STEP = 1.3;
/** How far hue and strength may be off there, ΔE76 in a and b. */
const OF_ITS_HUE = 9;

/** Whether a pile serves a colour: as it is, a step lighter or darker, or not. */
export function servesAs(pile: Lab, lab: Lab): (typeof SERVES)[number] {
  if (Math.abs(pile[0] - lab[0]) < 12 && deltaE00(pile, lab) <= SERVES_WITHIN) return 'as it is';
  const off = Math.abs(valueOfLightness(pile[0]) - valueOfLightness(lab[0]));
  return off <= A_STEP && Math.hypot(pile[1] - lab[1], pile[2] - lab[2]) <= OF_ITS_HUE ? 'a step off' : 'not';
}

/** Means of four. */
function halfOf(plane: LightPlane): LightPlane {
  const [width, height] = [Math.max(1, plane.width >> 1), Math.max(1, plane.height >> 1)];
  const rgb = new Float32Array(3 * width * height);
  const row = 3 * plane.width;
  const right = plane.width > 1 ? 3 : 0;
  const below = plane.height > 1 ? row : 0;
  for (let y = 0, to = 0; y < height; y++)
    for (let x = 0, at = 2 * y * row; x < width; x++, at += 6)
      for (let c = 0; c < 3; c++, to++)
        rgb[to] = (plane.rgb[at + c]! + plane.rgb[at + right + c]! + plane.rgb[at + below + c]! + plane.rgb[at + below + right + c]!) / 4;
  return { ...plane, rgb, width, height };
}

/** What is done round a place decides with it: a brush lays no speck. Places on each side. */
const BRUSH = 2;

/** Kinds as a brush lays them: of each place the one that most places round it have. */
function asPatches(kinds: Float32Array, width: number, height: number): Uint8Array {
  const most = new Uint8Array(kinds.length);
  const counts = SERVES.map(() => new Int32Array(width));
  const tell = (y: number, by: 1 | -1): void => {
    if (y < 0 || y >= height) return;
    for (let x = 0; x < width; x++) counts[kinds[y * width + x]!]![x]! += by;
  };
  for (let y = 0; y < BRUSH; y++) tell(y, 1);
  for (let y = 0; y < height; y++) {
    tell(y + BRUSH, 1);
    tell(y - BRUSH - 1, -1);
    const sums = [0, 0, 0];
    const add = (x: number, by: 1 | -1): void => {
      if (x >= 0 && x < width) for (let k = 0; k < 3; k++) sums[k]! += by * counts[k]![x]!;
    };
    for (let x = 0; x < BRUSH; x++) add(x, 1);
    for (let x = 0; x < width; x++) {
      add(x + BRUSH, 1);
      add(x - BRUSH - 1, -1);
      most[y * width + x] = sums[2]! >= sums[0]! && sums[2]! >= sums[1]! ? 2 : sums[1]! >= sums[0]! ? 1 : 0;
    }
  }
  return most;
}

/**
 * The places of a picture that a pile serves: in their colours, with a white and black border like a
 * stroke laid round them; those a step off lined; the rest pale grey. @returns shares as it is, a step off
 */
export function drawServing(plane: LightPlane, pile: Lab): Looked {
  const { width, height } = plane;
  // Judged half as large: grain is looked past.
  const small = halfOf(plane);
  const judged = asPatches(
    ofEveryColour(small, (lab) => SERVES.indexOf(servesAs(pile, lab))),
    small.width,
    small.height,
  );
  const kinds = new Uint8Array(width * height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++)
      kinds[i] = judged[Math.min(small.height - 1, y >> 1) * small.width + Math.min(small.width - 1, x >> 1)]!;
  const own = toBytes(plane);
  const bytes = inGreys(plane, (value) => 4 + 0.35 * value);
  const counts = [0, 0];
  const is = (x: number, y: number): boolean => x >= 0 && y >= 0 && x < width && y < height && kinds[y * width + x] === 2;
  for (let i = 0, at = 0; i < kinds.length; i++, at += 4) {
    if (kinds[i] === 0) continue;
    counts[kinds[i] === 2 ? 0 : 1]!++;
    const [x, y] = [i % width, Math.floor(i / width)];
    if (kinds[i] === 1) {
      if (isHatched(x, y)) for (let c = 0; c < 3; c++) bytes[at + c] = own[at + c]!;
      continue;
    }
    const isRim = !is(x - 1, y) || !is(x + 1, y) || !is(x, y - 1) || !is(x, y + 1);
    const isNextToRim = !is(x - 2, y) || !is(x + 2, y) || !is(x, y - 2) || !is(x, y + 2);
    for (let c = 0; c < 3; c++) bytes[at + c] = isRim ? 255 : isNextToRim ? 0 : own[at + c]!;
  }
  return { bytes, shares: counts.map((n) => n / Math.max(1, kinds.length)) };
}
