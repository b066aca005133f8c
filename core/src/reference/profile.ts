import { CraftError } from '../errors.ts';
import { deviceTable, type DeviceTable } from './profileTables.ts';
import { rgbSpace, type RgbSpace, type ToneCurve } from './pixels.ts';

/** What an embedded profile is made of. */
export type Profile =
  /** Tone curves and primaries: reckoned here. */
  | { readonly kind: 'matrix'; readonly name: string; readonly space: RgbSpace }
  | { readonly kind: 'grey'; readonly name: string; readonly curve: ToneCurve }
  /** A table from device to colour (CMYK, scanners), by the relative colorimetric intent. */
  | { readonly kind: 'table'; readonly name: string; readonly channels: number; readonly table: DeviceTable };

/** From D50, in which profiles are written, to D65 (Bradford; ICC.1 annex E). */
export const D50_TO_D65 = [0.9555766, -0.0230393, 0.0631636, -0.0282895, 1.0099416, 0.0210077, 0.0122982, -0.020483, 1.3299098] as const;

const broken = (what: string): CraftError => new CraftError('input', `The colour profile in this picture cannot be read: ${what}.`);
const HEADER = 128;
const MOST_TAGS = 200;

/** A profile's bytes, each place looked at before it is read. */
export class ProfileReader {
  private readonly view: DataView;
  constructor(bytes: Uint8Array) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }
  get length(): number {
    return this.view.byteLength;
  }
  private within(at: number, size: number): void {
    if (!(at >= 0 && at + size <= this.view.byteLength)) throw broken('it breaks off');
  }
  u8(at: number): number {
    this.within(at, 1);
    return this.view.getUint8(at);
  }
  u16(at: number): number {
    this.within(at, 2);
    return this.view.getUint16(at);
  }
  u32(at: number): number {
    this.within(at, 4);
    return this.view.getUint32(at);
  }
  /** s15Fixed16Number. */
  fixed(at: number): number {
    this.within(at, 4);
    return this.view.getInt32(at) / 65536;
  }
  text(at: number, length: number): string {
    this.within(at, length);
    return String.fromCharCode(...Array.from({ length }, (_, i) => this.view.getUint8(at + i)));
  }
  /** A tone curve, and how many bytes it takes. */
  curve(at: number): { readonly curve: ToneCurve; readonly size: number } {
    return curveAt(this, at);
  }
}

/** Parametric curves, by type (ICC.1 10.18): parameters g, a, b, c, d, e, f. */
function parametric(type: number, [g, a = 1, b = 0, c = 0, d = 0, e = 0, f = 0]: readonly number[]): ToneCurve {
  const power = (v: number): number => Math.max(0, a * v + b) ** g!;
  switch (type) {
    case 0:
      return (v) => v ** g!;
    case 1:
      return (v) => (v >= -b / a ? power(v) : 0);
    case 2:
      return (v) => (v >= -b / a ? power(v) + c : c);
    case 3:
      return (v) => (v >= d ? power(v) : c * v);
    case 4:
      return (v) => (v >= d ? power(v) + e : c * v + f);
    default:
      throw broken('its curve is of an unknown kind');
  }
}
const PARAMETERS = [1, 3, 4, 5, 7] as const;

function curveAt(file: ProfileReader, at: number): { readonly curve: ToneCurve; readonly size: number } {
  const type = file.text(at, 4);
  if (type === 'para') {
    const kind = file.u16(at + 8);
    const count = PARAMETERS[kind];
    if (count === undefined) throw broken('its curve is of an unknown kind');
    const curve = parametric(
      kind,
      Array.from({ length: count }, (_, i) => file.fixed(at + 12 + 4 * i)),
    );
    return { curve, size: 12 + 4 * count };
  }
  if (type !== 'curv') throw broken('it has no tone curve');
  const count = file.u32(at + 8);
  if (count === 0) return { curve: (v) => v, size: 12 };
  if (count === 1) {
    const gamma = file.u16(at + 12) / 256;
    return { curve: (v) => v ** gamma, size: 14 };
  }
  if (count > 65_536) throw broken('its tone curve is too long');
  const table = Float64Array.from({ length: count }, (_, i) => file.u16(at + 12 + 2 * i) / 65535);
  const curve: ToneCurve = (v) => {
    const place = Math.min(1, Math.max(0, v)) * (count - 1);
    const i = Math.min(count - 2, Math.floor(place));
    return table[i]! + (place - i) * (table[i + 1]! - table[i]!);
  };
  return { curve, size: 12 + 2 * count };
}

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
  if (device === 'GRAY' && tags.has('kTRC')) return { kind: 'grey', name, curve: curveAt(file, tags.get('kTRC')!).curve };
  if (!['rXYZ', 'gXYZ', 'bXYZ', 'rTRC', 'gTRC', 'bTRC'].every((tag) => tags.has(tag))) throw broken('it has no primaries');
  const curves = ['rTRC', 'gTRC', 'bTRC'].map((tag) => curveAt(file, tags.get(tag)!).curve) as [ToneCurve, ToneCurve, ToneCurve];
  return { kind: 'matrix', name, space: rgbSpace(name, curves, primariesOf(file, tags)) };
}
