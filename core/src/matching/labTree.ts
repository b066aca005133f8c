/**
 * A tree of boxes over Lab, kept in flat arrays: the points are sorted along a Morton curve, cut
 * into leaves of equal length, and boxes are joined two by two upward (linear bounding volume
 * hierarchy, Lauterbach et al. 2009). Node `n` has children `2n + 1` and `2n + 2`; growing it is
 * linear in the points.
 */
export interface LabTree {
  /** Six numbers a node: least and most L, a, b; empty leaves have least above most. */
  readonly boxes: Float32Array;
  /** Least effort of any recipe below a node. */
  readonly effort: Float32Array;
  readonly nodes: number;
  readonly firstLeaf: number;
  readonly leaf: number;
}

const LEAF = 12;
const BITS = 7;

/** Puts two zero bits behind each of the lowest seven bits. */
function spread(v: number): number {
  let spaced = 0;
  for (let bit = 0; bit < BITS; bit++) spaced |= ((v >> bit) & 1) << (3 * bit);
  return spaced;
}

/** Position along a Morton curve over L 0–100 and a, b −128…128, cells of 1 × 2 × 2. */
function mortonCodes(L: Float32Array, a: Float32Array, b: Float32Array): Uint32Array {
  const spaced = Uint32Array.from({ length: 1 << BITS }, (_, v) => spread(v));
  const cell = (v: number): number => (v < 0 ? 0 : v > 127 ? 127 : v | 0);
  const codes = new Uint32Array(L.length);
  for (let i = 0; i < codes.length; i++)
    codes[i] = (spaced[cell(L[i]! * 1.27)]! << 2) | (spaced[cell(a[i]! / 2 + 64)]! << 1) | spaced[cell(b[i]! / 2 + 64)]!;
  return codes;
}

/** Order of the points by a 21-bit code: radix sort in two passes. */
function sortedBy(codes: Uint32Array): Uint32Array {
  const RADIX = 11;
  let from = Uint32Array.from({ length: codes.length }, (_, i) => i);
  let into = new Uint32Array(codes.length);
  for (let shift = 0; shift < 3 * BITS; shift += RADIX) {
    const starts = new Uint32Array((1 << RADIX) + 1);
    const mask = (1 << RADIX) - 1;
    for (let i = 0; i < codes.length; i++) starts[((codes[i]! >>> shift) & mask) + 1]!++;
    for (let i = 1; i < starts.length; i++) starts[i]! += starts[i - 1]!;
    for (let i = 0; i < from.length; i++) {
      const point = from[i]!;
      into[starts[(codes[point]! >>> shift) & mask]!++] = point;
    }
    [from, into] = [into, from];
  }
  return from;
}

/** The order in which points lie along the curve. */
export const curveOrder = (L: Float32Array, a: Float32Array, b: Float32Array): Uint32Array => sortedBy(mortonCodes(L, a, b));

function join(boxes: Float32Array, node: number, one: number, other: number): void {
  for (let side = 0; side < 6; side++) {
    const v = boxes[one * 6 + side]!;
    const w = boxes[other * 6 + side]!;
    boxes[node * 6 + side] = side % 2 === 0 ? Math.min(v, w) : Math.max(v, w);
  }
}

/** Grows the tree over points that already lie in {@link curveOrder}. */
export function growTree(L: Float32Array, a: Float32Array, b: Float32Array, troubles: Float32Array): LabTree {
  let leaves = 1;
  while (leaves * LEAF < L.length) leaves *= 2;
  const firstLeaf = leaves - 1;
  const nodes = 2 * leaves - 1;
  const boxes = new Float32Array(nodes * 6);
  const effort = new Float32Array(nodes).fill(Infinity);
  for (let side = 0; side < nodes * 6; side++) boxes[side] = side % 2 === 0 ? Infinity : -Infinity;
  for (let i = 0; i < L.length; i++) {
    const node = firstLeaf + Math.floor(i / LEAF);
    const at = node * 6;
    const l = L[i]!;
    const x = a[i]!;
    const y = b[i]!;
    if (l < boxes[at]!) boxes[at] = l;
    if (l > boxes[at + 1]!) boxes[at + 1] = l;
    if (x < boxes[at + 2]!) boxes[at + 2] = x;
    if (x > boxes[at + 3]!) boxes[at + 3] = x;
    if (y < boxes[at + 4]!) boxes[at + 4] = y;
    if (y > boxes[at + 5]!) boxes[at + 5] = y;
    if (troubles[i]! < effort[node]!) effort[node] = troubles[i]!;
  }
  for (let node = firstLeaf - 1; node >= 0; node--) {
    join(boxes, node, 2 * node + 1, 2 * node + 2);
    effort[node] = Math.min(effort[2 * node + 1]!, effort[2 * node + 2]!);
  }
  return { boxes, effort, nodes, firstLeaf, leaf: LEAF };
}
