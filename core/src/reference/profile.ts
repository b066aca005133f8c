import { deviceTable, type DeviceTable } from './profileTables.ts';
import { rgbSpace, type RgbSpace, type ToneCurve } from './pixels.ts';
import { broken, ProfileReader } from './profileReader.ts';

/** What an embedded profile is made of. */
export type Profile =
  /** Tone curves and primaries: reckoned here. */
  | { readonly kind: 'matrix'; readonly name: string; readonly space: RgbSpace }
  | { readonly kind: 'grey'; readonly name: string; readonly curve: ToneCurve }
  /** A table from device to colour (CMYK, scanners), by the relative colorimetric intent. */
  | { readonly kind: 'table'; readonly name: string; readonly channels: number; readonly table: DeviceTable };

/** From D50, in which profiles are written, to D65 (Bradford; ICC.1 annex E). */
export const D50_TO_D65 = [0.9555766, -0.0230393, 0.0631636, -0.0282895, 1.0099416, 0.0210077, 0.0122982, -0.020483, 1.3299098] as const;

const HEADER = 128;
const MOST_TAGS = 200;

/** The name a profile gives itself, for the painter to read. */
function nameOf(file: ProfileReader, tags: ReadonlyMap<string, number>): string {
  const at = tags.get('desc');
  if (at === undefined) return 'a profile without a name';
  try {
    const type = file.text(at, 4);
    if (type === 'desc') return file.text(at + 12, Math.min(80, Math.max(0, file.u32(at + 8) - 1))).trim();
    if (type !== 'mluc') return 'a profile without a name';
    const [length, offset] = [Math.min(160, file.u32(at + 20)), file.u32(at + 24)];
    return file
      .text(at + offset, length)
      .replaceAll('\0', '')
      .trim();
  } catch {
    return 'a profile without a name';
  }
}

function primariesOf(file: ProfileReader, tags: ReadonlyMap<string, number>): Float64Array {
  const columns = ['rXYZ', 'gXYZ', 'bXYZ'].map((tag) => {
    const at = tags.get(tag)!;
    if (file.text(at, 4) !== 'XYZ ') throw broken('it has no primaries');
    return [file.fixed(at + 8), file.fixed(at + 12), file.fixed(at + 16)] as const;
  });
  const m = new Float64Array(9);
  for (let row = 0; row < 3; row++)
    for (let column = 0; column < 3; column++)
      for (let k = 0; k < 3; k++) m[3 * row + column]! += D50_TO_D65[3 * row + k]! * columns[column]![k]!;
  const sane = m.every((v) => Number.isFinite(v) && Math.abs(v) < 4) && m[3]! + m[4]! + m[5]! > 0.5;
  if (!sane) throw broken('its primaries make no sense');
  return m;
}

/**
 * Reads an embedded ICC profile (ICC.1:2022, versions 2 and 4).
 * @throws CraftError, in a sentence, when it is broken
 */
export function readProfile(bytes: Uint8Array): Profile {
  const file = new ProfileReader(bytes);
  if (file.length < HEADER + 4 || file.text(36, 4) !== 'acsp') throw broken('it is not one');
  const count = file.u32(HEADER);
  if (count > MOST_TAGS) throw broken('its list is too long');
  const tags = new Map<string, number>();
  for (let i = 0; i < count; i++) tags.set(file.text(HEADER + 4 + 12 * i, 4), file.u32(HEADER + 8 + 12 * i));
  const device = file.text(16, 4).trim();
  const name = nameOf(file, tags);
  const channels = { RGB: 3, CMYK: 4, GRAY: 1 }[device];
  if (channels === undefined) throw broken(`it is for ${device}, not for pictures in RGB, CMYK or grey`);
  // A2B1 is the relative colorimetric table; a profile that has one only for the perceptual intent means it for all.
  const toColour = tags.get('A2B1') ?? tags.get('A2B0');
  if (toColour !== undefined) return { kind: 'table', name, channels, table: deviceTable(file, toColour, file.text(20, 4)) };
  if (device === 'GRAY' && tags.has('kTRC')) return { kind: 'grey', name, curve: file.curve(tags.get('kTRC')!).curve };
  if (!['rXYZ', 'gXYZ', 'bXYZ', 'rTRC', 'gTRC', 'bTRC'].every((tag) => tags.has(tag))) throw broken('it has no primaries');
  const curves = ['rTRC', 'gTRC', 'bTRC'].map((tag) => file.curve(tags.get(tag)!).curve) as [ToneCurve, ToneCurve, ToneCurve];
  return { kind: 'matrix', name, space: rgbSpace(name, curves, primariesOf(file, tags)) };
}
