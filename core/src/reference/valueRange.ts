import type { LinearRgb } from '../colour/spaces.ts';
import { valueFromY, type MunsellValue } from '../colour/value.ts';
import { linearReader, lumaOf, SRGB, type Pixels } from './pixels.ts';

/** Darkest dark and lightest light of a picture, left out what only a few stray pixels reach. */
export interface ValueRange {
  readonly darkest: MunsellValue;
  readonly lightest: MunsellValue;
}

const BINS = 1024;
/** Share of pixels that count as stray at either end. */
const STRAY = 0.002;

/** How the pixels of a picture are spread over value. */
export interface ValueSpread {
  /** Share of pixels in each of {@link SPREAD_BINS} equal steps of value, 0 to 10. */
  readonly shares: Float64Array;
  readonly range: ValueRange;
  /** Lightest of all, what was left out among it, but for a pixel or two. */
  readonly brightest: MunsellValue;
  /** Value that parts lights from shadows best (Otsu 1979). */
  readonly split: MunsellValue;
}
export const SPREAD_BINS = 100;

/** Value at each bin of the root of Y. */
let valueOfBin: Float64Array | undefined;
const valuesOfBins = (): Float64Array =>
  (valueOfBin ??= Float64Array.from({ length: BINS }, (_, bin) => valueFromY(100 * ((bin + 0.5) / BINS) ** 2)));

/** Pixels that have to be as light for the lightest to be more than noise. */
const NOT_NOISE = 3;

/** How many pixels fall into each bin; apart from them those that are left out. */
function rootBins(
  picture: Pixels,
  gains: LinearRgb,
  leaves: (x: number, y: number) => boolean,
): { readonly bins: Uint32Array; readonly left: Uint32Array } {
  const { width, height, space = SRGB } = picture;
  const read = linearReader(picture);
  const luma = lumaOf(space);
  const [r, g, b] = [luma[0] * gains[0], luma[1] * gains[1], luma[2] * gains[2]];
  const bins = new Uint32Array(BINS);
  const left = new Uint32Array(BINS);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      const Y = r * read(at, 0) + g * read(at, 1) + b * read(at, 2);
      (leaves(x, y) ? left : bins)[Math.min(BINS - 1, Math.floor(Math.sqrt(Y) * BINS))]!++;
    }
  return { bins, left };
}

/** The value at which what lies below and above differ most for their sizes. */
function otsu(shares: Float64Array): MunsellValue {
  let whole = 0;
  shares.forEach((share, i) => (whole += share * i));
  let below = 0;
  let sum = 0;
  let best = 0;
  // Where nothing lies between two heaps every place between them is as good: the middle is taken.
  let [from, to] = [0, 0];
  for (let i = 0; i < shares.length - 1; i++) {
    below += shares[i]!;
    sum += shares[i]! * i;
    if (below <= 0 || below >= 1) continue;
    const between = (whole * below - sum) ** 2 / (below * (1 - below));
    if (between > best * (1 + 1e-9)) {
      best = between;
      from = to = i;
    } else if (between > best * (1 - 1e-9)) to = i;
  }
  return (((from + to) / 2 + 1) * 10) / SPREAD_BINS;
}

/**
 * How the values of a picture are spread.
 * @param gains what each channel's light is multiplied with
 * @param leaves out a pixel that does not count
 */
export function valueSpread(
  picture: Pixels,
  gains: LinearRgb = [1, 1, 1],
  leaves: (x: number, y: number) => boolean = () => false,
): ValueSpread {
  const { bins, left: leftOut } = rootBins(picture, gains, leaves);
  const values = valuesOfBins();
  const count = Math.max(
    1,
    bins.reduce((sum, n) => sum + n, 0),
  );
  const at = (share: number): MunsellValue => {
    let left = share * count;
    for (let bin = 0; bin < BINS; bin++) {
      left -= bins[bin]!;
      if (left < 0) return values[bin]!;
    }
    return 10;
  };
  let top = BINS - 1;
  for (let met = 0; top > 0; top--) if ((met += bins[top]! + leftOut[top]!) >= NOT_NOISE) break;
  const shares = new Float64Array(SPREAD_BINS);
  bins.forEach((n, bin) => (shares[Math.min(SPREAD_BINS - 1, Math.floor((values[bin]! / 10) * SPREAD_BINS))]! += n / count));
  return { shares, range: { darkest: at(STRAY), lightest: at(1 - STRAY) }, brightest: values[top]!, split: otsu(shares) };
}

/** Values between which all but the stray pixels lie. */
export const valueRange = (picture: Pixels): ValueRange => valueSpread(picture).range;
