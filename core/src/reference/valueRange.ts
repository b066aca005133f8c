import { valueFromY, type MunsellValue } from '../colour/value.ts';
import { LINEAR_OF_BYTE as LINEAR } from '../colour/display.ts';
import type { Pixels } from './area.ts';

/** Darkest dark and lightest light of a picture, left out what only a few stray pixels reach. */
export interface ValueRange {
  readonly darkest: MunsellValue;
  readonly lightest: MunsellValue;
}

/** Luminance of the sRGB primaries (IEC 61966-2-1). */
const LUMA = [0.2126, 0.7152, 0.0722] as const;
const BINS = 1024;
/** Share of pixels that count as stray at either end. */
const STRAY = 0.002;

/** Values between which all but the stray pixels lie. */
export function valueRange({ data, width, height }: Pixels): ValueRange {
  const bins = new Uint32Array(BINS);
  const count = width * height;
  for (let i = 0; i < count; i++) {
    const Y = LUMA[0] * LINEAR[data[i * 4]!]! + LUMA[1] * LINEAR[data[i * 4 + 1]!]! + LUMA[2] * LINEAR[data[i * 4 + 2]!]!;
    bins[Math.min(BINS - 1, Math.floor(Math.sqrt(Y) * BINS))]!++;
  }
  const at = (share: number): MunsellValue => {
    let left = share * count;
    for (let bin = 0; bin < BINS; bin++) {
      left -= bins[bin]!;
      if (left < 0) return valueFromY(100 * ((bin + 0.5) / BINS) ** 2);
    }
    return 10;
  };
  return { darkest: at(STRAY), lightest: at(1 - STRAY) };
}
