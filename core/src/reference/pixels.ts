import { converter, modeLrgb, modeP3, modeRec2020, modeXyz65, useMode } from 'culori/fn';
import { decodeSrgb, LINEAR_OF_BYTE } from '../colour/display.ts';
import { labForward, type Lab, type LinearRgb, type Xyz } from '../colour/spaces.ts';

/** Linear light of an encoded channel, 0–1 both. */
export type ToneCurve = (encoded: number) => number;

/** What the numbers of a picture mean: tone curves of its channels, and its primaries under D65. */
export interface RgbSpace {
  readonly name: string;
  readonly curves: readonly [ToneCurve, ToneCurve, ToneCurve];
  /** Linear light of each of the 256 steps of each channel. */
  readonly ofByte: readonly [Float64Array, Float64Array, Float64Array];
  /** Linear RGB to XYZ under D65 with Y of white at 1, by rows. */
  readonly toXyz: Float64Array;
}

/** A decoded picture: four channels a pixel, rows from the top; sRGB unless said. */
export interface Pixels {
  readonly data: Uint8ClampedArray | Uint8Array | Uint16Array;
  readonly width: number;
  readonly height: number;
  readonly space?: RgbSpace;
  /** Whether its alpha says what its file has lost (`LOST_ALPHA`), since its numbers are not the file's own. */
  readonly marksLost?: boolean;
}

const byBytes = (curve: ToneCurve): Float64Array => Float64Array.from({ length: 256 }, (_, v) => curve(v / 255));

export function rgbSpace(name: string, curves: RgbSpace['curves'], toXyz: Float64Array): RgbSpace {
  const [r, g, b] = curves;
  return { name, curves, toXyz, ofByte: [byBytes(r), byBytes(g), byBytes(b)] };
}

for (const mode of [modeLrgb, modeXyz65, modeP3, modeRec2020]) useMode(mode as Parameters<typeof useMode>[0]);
const toXyz65 = converter('xyz65');

/** XYZ of each primary at full light, as the columns of a matrix. */
function primaries(mode: 'lrgb' | 'p3' | 'rec2020'): Float64Array {
  const columns = (
    [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ] as const
  ).map(([r, g, b]) => toXyz65({ mode, r, g, b }));
  return Float64Array.from([...columns.map(({ x }) => x), ...columns.map(({ y }) => y), ...columns.map(({ z }) => z)]);
}

export const SRGB: RgbSpace = {
  name: 'srgb',
  curves: [decodeSrgb, decodeSrgb, decodeSrgb],
  ofByte: [LINEAR_OF_BYTE, LINEAR_OF_BYTE, LINEAR_OF_BYTE],
  toXyz: primaries('lrgb'),
};
/** Display P3: wider primaries under sRGB's own tone curve. */
export const DISPLAY_P3: RgbSpace = { ...SRGB, name: 'display-p3', toXyz: primaries('p3') };

/** The primaries of Rec. 2020 under sRGB's tone curve: what is stronger than Display P3 holds is read in it. */
export const WIDE: RgbSpace = { ...SRGB, name: 'wide', toXyz: primaries('rec2020') };

/** Spaces in which pictures are handed to the page. */
export const SHOWN_SPACES: Readonly<Record<string, RgbSpace>> = { srgb: SRGB, 'display-p3': DISPLAY_P3 };

/** XYZ with Y of white at 100. */
export function linearToXyz({ toXyz: m }: RgbSpace, [r, g, b]: LinearRgb): Xyz {
  const row = (i: number): number => 100 * (m[i]! * r + m[i + 1]! * g + m[i + 2]! * b);
  return [row(0), row(3), row(6)];
}

/** Lab under D65 of linear light in a space; its own white is the white. */
export function linearToLab({ toXyz: m }: RgbSpace, r: number, g: number, b: number): Lab {
  const x = labForward((m[0]! * r + m[1]! * g + m[2]! * b) / (m[0]! + m[1]! + m[2]!));
  const y = labForward((m[3]! * r + m[4]! * g + m[5]! * b) / (m[3]! + m[4]! + m[5]!));
  const z = labForward((m[6]! * r + m[7]! * g + m[8]! * b) / (m[6]! + m[7]! + m[8]!));
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** What each channel gives to Y, summing to 1. */
export const lumaOf = ({ toXyz: m }: RgbSpace): readonly [number, number, number] => {
  const whole = m[3]! + m[4]! + m[5]!;
  return [m[3]! / whole, m[4]! / whole, m[5]! / whole];
};

/** Reads a channel of a picture as linear light. */
export function linearReader({ data, space = SRGB }: Pixels): (at: number, channel: 0 | 1 | 2) => number {
  if (data instanceof Uint16Array) return (at, channel) => space.curves[channel](data[at + channel]! / 65535);
  const tables = space.ofByte;
  return (at, channel) => tables[channel][data[at + channel]!]!;
}
