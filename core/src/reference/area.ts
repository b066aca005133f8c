import { LINEAR_OF_BYTE as LINEAR, linearRgbToLab } from '../colour/display.ts';
import type { Lab } from '../colour/spaces.ts';

/** A decoded picture: sRGB, four bytes a pixel, rows from the top. */
export interface Pixels {
  readonly data: Uint8ClampedArray | Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** What was read from a small round area of a picture. */
export interface AreaReading {
  readonly lab: Lab;
  readonly pixels: number;
  /** Share of pixels whose brightest channel is at the top, where the photo has lost the light. */
  readonly clipped: number;
  /** Share of pixels wholly at the bottom, where the photo has lost the dark. */
  readonly crushed: number;
}

const TOP = 254;
const BOTTOM = 3;

/**
 * Mean colour of a disc, taken in linear light as the eye would blend it.
 * @param x @param y centre in pixels, clamped to the picture
 * @param radius in pixels; 0 reads a single one
 */
export function readArea({ data, width, height }: Pixels, x: number, y: number, radius: number): AreaReading {
  const cx = Math.min(width - 1, Math.max(0, Math.floor(x)));
  const cy = Math.min(height - 1, Math.max(0, Math.floor(y)));
  const r = Math.max(0, radius);
  let red = 0;
  let green = 0;
  let blue = 0;
  let pixels = 0;
  let clipped = 0;
  let crushed = 0;
  for (let py = Math.max(0, Math.ceil(cy - r)); py <= Math.min(height - 1, cy + r); py++) {
    for (let px = Math.max(0, Math.ceil(cx - r)); px <= Math.min(width - 1, cx + r); px++) {
      if ((px - cx) ** 2 + (py - cy) ** 2 > r * r) continue;
      const at = (py * width + px) * 4;
      const [R, G, B] = [data[at]!, data[at + 1]!, data[at + 2]!];
      red += LINEAR[R]!;
      green += LINEAR[G]!;
      blue += LINEAR[B]!;
      if (Math.max(R, G, B) >= TOP) clipped++;
      else if (Math.max(R, G, B) <= BOTTOM) crushed++;
      pixels++;
    }
  }
  return {
    lab: linearRgbToLab([red / pixels, green / pixels, blue / pixels]),
    pixels,
    clipped: clipped / pixels,
    crushed: crushed / pixels,
  };
}

/** Share of lost pixels from which a reading is not to be trusted. */
const LOST_SHARE = 0.15;

/** What is wrong with a reading, if anything, as a sentence. */
export function areaWarning({ clipped, crushed }: AreaReading): string | undefined {
  if (clipped > LOST_SHARE) return 'Clipped: the photo has lost the light here; the subject is lighter or stronger than it shows.';
  if (crushed > LOST_SHARE) return 'Crushed: the photo has lost the dark here; trust the subject, not this.';
  return undefined;
}
