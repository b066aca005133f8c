import { broken, type ProfileReader } from './profileReader.ts';
import type { Lab, Xyz } from '../colour/spaces.ts';
import { labToXyz } from '../colour/spaces.ts';

/** White of the space in which profiles connect: D50 as ICC.1 writes it. */
const D50: Xyz = [96.42, 100, 82.49];

/** A table of a profile: device numbers, 0–1 each, to XYZ under D50 with Y of white at 1. */
export type DeviceTable = (device: ArrayLike<number>, into: Float64Array) => void;

type Curve = (v: number) => number;
const clamp01 = (v: number): number => (v <= 0 ? 0 : v >= 1 ? 1 : v);
const MOST_NODES = 4_000_000;

function sampled(table: Float64Array): Curve {
  const last = table.length - 1;
  if (last < 1) return (v) => v;
  return (v) => {
    const place = clamp01(v) * last;
    const i = Math.min(last - 1, Math.floor(place));
    return table[i]! + (place - i) * (table[i + 1]! - table[i]!);
  };
}

/** A grid of nodes over device numbers, three numbers each; the last channel goes fastest. */
interface Grid {
  readonly sizes: readonly number[];
  readonly nodes: Float32Array;
}

/** Linear between all the nodes about a place: 2ⁿ corners. */
function throughGrid({ sizes, nodes }: Grid): (at: ArrayLike<number>, into: Float64Array) => void {
  const n = sizes.length;
  const strides = sizes.map((_, i) => 3 * sizes.slice(i + 1).reduce((product, size) => product * size, 1));
  const low = new Int32Array(n);
  const part = new Float64Array(n);
  const corners = 1 << n;
  return (at, into) => {
    for (let i = 0; i < n; i++) {
      const place = clamp01(at[i]!) * (sizes[i]! - 1);
      const floor = Math.min(sizes[i]! - 2, Math.floor(place));
      low[i] = Math.max(0, floor) * strides[i]!;
      part[i] = sizes[i]! > 1 ? place - Math.max(0, floor) : 0;
    }
    into.fill(0);
    for (let corner = 0; corner < corners; corner++) {
      let weight = 1;
      let from = 0;
      for (let i = 0; i < n && weight > 0; i++) {
        const up = (corner >> i) & 1;
        weight *= up ? part[i]! : 1 - part[i]!;
        from += low[i]! + (up ? strides[i]! : 0);
      }
      if (weight === 0) continue;
      for (let k = 0; k < 3; k++) into[k]! += weight * nodes[from + k]!;
    }
  };
}

/** How three encoded numbers mean a colour, by the space profiles connect in and how old the table is. */
type Decoding = (v: Float64Array) => void;
const fromLab = (L: number, a: number, b: number, v: Float64Array): void => {
  const xyz = labToXyz([L, a, b] as Lab, D50);
  for (let k = 0; k < 3; k++) v[k] = xyz[k]! / 100;
};
const XYZ_FULL = 1 + 32767 / 32768;

function decodingOf(space: string, kind: 'mft1' | 'mft2' | 'mAB '): Decoding {
  if (space === 'XYZ ') return (v) => void v.forEach((one, k) => (v[k] = one * XYZ_FULL));
  // Tables of 16 bits of the older form put L 100 at 0xFF00 (ICC.1, 6.3.4.2).
  const full = kind === 'mft2' ? 65535 / 65280 : 1;
  return (v) => fromLab(100 * full * v[0]!, 255 * full * v[1]! - 128, 255 * full * v[2]! - 128, v);
}

function checkGrid(sizes: readonly number[], outputs: number): void {
  const nodes = sizes.reduce((product, size) => product * size, 1);
  if (outputs !== 3 || sizes.length < 1 || sizes.length > 4 || sizes.some((size) => size < 1) || nodes > MOST_NODES)
    throw broken('its table is of a kind that is not known');
}

/** lut8Type and lut16Type (ICC.1, 10.10 and 10.11). The matrix in them is for XYZ input, which devices are not. */
function olderTable(file: ProfileReader, at: number, kind: 'mft1' | 'mft2', space: string): DeviceTable {
  const [inputs, outputs, points] = [file.u8(at + 8), file.u8(at + 9), file.u8(at + 10)];
  const sizes = Array.from({ length: inputs }, () => points);
  checkGrid(sizes, outputs);
  const wide = kind === 'mft2';
  const [entriesIn, entriesOut] = wide ? [file.u16(at + 48), file.u16(at + 50)] : [256, 256];
  if (entriesIn > 4096 || entriesOut > 4096) throw broken('its table is too long');
  let next = at + (wide ? 52 : 48);
  const numbers = (count: number): Float64Array => {
    const read = Float64Array.from({ length: count }, (_, i) => (wide ? file.u16(next + 2 * i) / 65535 : file.u8(next + i) / 255));
    next += count * (wide ? 2 : 1);
    return read;
  };
  const before = Array.from({ length: inputs }, () => sampled(numbers(entriesIn)));
  const grid = throughGrid({ sizes, nodes: Float32Array.from(numbers(3 * points ** inputs)) });
  const after = Array.from({ length: 3 }, () => sampled(numbers(entriesOut)));
  return composed(before, grid, after, decodingOf(space, kind));
}

/** lutAToBType (ICC.1, 10.12): A curves, grid, M curves, matrix, B curves. */
function newerTable(file: ProfileReader, at: number, space: string): DeviceTable {
  const [inputs, outputs] = [file.u8(at + 8), file.u8(at + 9)];
  const [b, matrix, m, clut, a] = [12, 16, 20, 24, 28].map((offset) => file.u32(at + offset)) as [number, number, number, number, number];
  if (outputs !== 3) throw broken('its table is of a kind that is not known');
  const curves = (offset: number, count: number): Curve[] => {
    let next = at + offset;
    return Array.from({ length: count }, () => {
      const { curve, size } = file.curve(next);
      next += Math.ceil(size / 4) * 4;
      return curve;
    });
  };
  const plain = Array.from({ length: 3 }, (): Curve => (v) => v);
  if (clut === 0 || a === 0) throw broken('its table is of a kind that is not known');
  const sizes = Array.from({ length: inputs }, (_, i) => file.u8(at + clut + i));
  checkGrid(sizes, outputs);
  const precision = file.u8(at + clut + 16);
  const count = 3 * sizes.reduce((product, size) => product * size, 1);
  const nodes = Float32Array.from({ length: count }, (_, i) =>
    precision === 1 ? file.u8(at + clut + 20 + i) / 255 : file.u16(at + clut + 20 + 2 * i) / 65535,
  );
  const middle = m === 0 ? plain : curves(m, 3);
  const last = curves(b, 3);
  const e = matrix === 0 ? undefined : Array.from({ length: 12 }, (_, i) => file.fixed(at + matrix + 4 * i));
  const decode = decodingOf(space, 'mAB ');
  return composed(curves(a, inputs), throughGrid({ sizes, nodes }), plain, (v) => {
    const [x, y, z] = [middle[0]!(v[0]!), middle[1]!(v[1]!), middle[2]!(v[2]!)];
    for (let k = 0; k < 3; k++) {
      const so = e ? e[3 * k]! * x + e[3 * k + 1]! * y + e[3 * k + 2]! * z + e[9 + k]! : [x, y, z][k]!;
      v[k] = last[k]!(clamp01(so));
    }
    decode(v);
  });
}

function composed(
  before: readonly Curve[],
  grid: (at: ArrayLike<number>, into: Float64Array) => void,
  after: readonly Curve[],
  decode: Decoding,
): DeviceTable {
  const at = new Float64Array(before.length);
  return (device, into) => {
    for (let i = 0; i < at.length; i++) at[i] = before[i]!(device[i]!);
    grid(at, into);
    for (let k = 0; k < 3; k++) into[k] = after[k]!(into[k]!);
    decode(into);
  };
}

/**
 * The table from device to colour at a place in a profile.
 * @throws CraftError, in a sentence, when it is broken or of an unknown kind
 */
export function deviceTable(file: ProfileReader, at: number, space: string): DeviceTable {
  if (space !== 'Lab ' && space !== 'XYZ ') throw broken('it connects in a space that is not known');
  const kind = file.text(at, 4);
  if (kind === 'mft1' || kind === 'mft2') return olderTable(file, at, kind, space);
  if (kind === 'mAB ') return newerTable(file, at, space);
  throw broken('its table is of a kind that is not known');
}
