import { CraftError } from '../errors.ts';
import type { ToneCurve } from './pixels.ts';

export const broken = (what: string): CraftError => new CraftError('input', `The colour profile in this picture cannot be read: ${what}.`);

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
