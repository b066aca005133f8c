import { deltaE00 } from '../colour/difference.ts';
import { labToLch, type Lab, type LinearRgb } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import { CraftError } from '../errors.ts';
import type { InSteps } from '../matching/inSteps.ts';
import { readOutline } from '../reference/area.ts';
import type { Outline } from '../reference/outline.ts';
import type { Pixels } from '../reference/pixels.ts';
import { awayFrom, depths, labAt, smaller, type SmallPicture } from './smaller.ts';

export const PROPOSED_FOR = ['colour', 'accent', 'darkest', 'lightest'] as const;
/** A colour of a picture that matters, and where it is seen best. */
export interface ProposedColour {
  readonly outline: Outline;
  readonly lab: Lab;
  /** Share of the picture that it stands for. */
  readonly share: number;
  readonly as: (typeof PROPOSED_FOR)[number];
}

/** Fewest and most colours that are proposed. */
export const FEWEST_PROPOSED = 2;
export const MOST_PROPOSED = 12;
export const USUAL_PROPOSED = 6;

/** Places along the longer side of the picture that is looked through. */
const LONGEST = 280;
/** Sides of the cells that colours are counted in. */
const CELL_L = 4;
const CELL_AB = 5;
/** Colours nearer than this are one, ΔE76. */
const ONE = 7;
/** A colour that lies further off than this from all that were chosen is wanted as much as can be, ΔE00. */
const FAR = 25;
/** Small colours count for more than their share: by this power of it. */
const SMALL = 0.35;
/** Chroma at which a colour counts twice. */
const LOUD = 35;
/** Share of the picture that a colour takes at least in places that are wholly of it. */
const LEAST_SHARE = 0.0015;
/** A colour nearer than this to one that was chosen says nothing new, ΔE00. */
const NEW = 5;
/** A colour that takes so much of the picture is large, and is unlike another from so far, ΔE00. */
const LARGE = 0.08;
const UNLIKE = 7;
/** What takes less than this of the picture and is far from the rest is an accent. */
const ACCENT = 0.03;
const ACCENT_AWAY = 18;
/** How many values from an end its place may lie. */
const END_WITHIN = 0.35;
/** Share of places that are stray at either end. */
const STRAY = 0.002;
/** Of the depth of a place so much is its spot; no more than this share of the picture's longer side. */
const OF_DEPTH = 0.6;
const MOST_SPOT = 0.02;
const LEAST_SPOT = 2;

/** Places that are wholly of one colour: what only stands between two others does not count. */
function wholes(small: SmallPicture): Uint8Array {
  const { width, height } = small;
  const whole = new Uint8Array(width * height);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const at = labAt(small, i);
      const apart = Math.max(...[i - 1, i + 1, i - width, i + width].map((j) => awayFrom(small, j, at)));
      whole[i] = apart < ONE ? 1 : 0;
    }
  return whole;
}

interface Heap {
  readonly lab: Lab;
  readonly count: number;
}

/** Colours that many places gather round: each cell climbs to the fullest of those about it. */
function heaps(small: SmallPicture, whole: Uint8Array): Heap[] {
  const keyOf = (l: number, a: number, b: number): number => (l * 128 + a) * 128 + b;
  interface Cell {
    n: number;
    sum: [number, number, number];
    readonly at: Lab;
  }
  const cells = new Map<number, Cell>();
  for (let i = 0; i < whole.length; i++) {
    if (whole[i] === 0) continue;
    const [L, a, b] = labAt(small, i);
    const at: Lab = [Math.floor(L / CELL_L), Math.floor(a / CELL_AB) + 64, Math.floor(b / CELL_AB) + 64];
    const key = keyOf(...(at as unknown as [number, number, number]));
    const cell = cells.get(key) ?? { n: 0, sum: [0, 0, 0], at };
    cell.n++;
    cell.sum[0] += L;
    cell.sum[1] += a;
    cell.sum[2] += b;
    cells.set(key, cell);
  }
  const parent = new Map<number, number>();
  for (const [key, cell] of cells) {
    let [best, bestN] = [key, cell.n];
    const [l, a, b] = cell.at;
    for (let dl = -1; dl <= 1; dl++)
      for (let da = -1; da <= 1; da++)
        for (let db = -1; db <= 1; db++) {
          const other = keyOf(l + dl, a + da, b + db);
          const n = cells.get(other)?.n ?? 0;
          if (n > bestN || (n === bestN && other < best)) [best, bestN] = [other, n];
        }
    parent.set(key, best);
  }
  const topOf = (key: number): number => {
    let at = key;
    while (parent.get(at) !== at) at = parent.get(at)!;
    return at;
  };
  const tops = new Map<number, { n: number; sum: [number, number, number] }>();
  for (const [key, cell] of cells) {
    const top = topOf(key);
    const heap = tops.get(top) ?? { n: 0, sum: [0, 0, 0] };
    heap.n += cell.n;
    for (let c = 0; c < 3; c++) heap.sum[c]! += cell.sum[c]!;
    tops.set(top, heap);
  }
  return [...tops.entries()]
    .sort(([one, a], [other, b]) => b.n - a.n || one - other)
    .map(([, { n, sum }]) => ({ count: n, lab: [sum[0] / n, sum[1] / n, sum[2] / n] as Lab }));
}

/** Where a mask is deepest, and how deep it is there. */
function deepest(mask: Uint8Array, { width, height }: SmallPicture): { readonly i: number; readonly depth: number } | undefined {
  const depth = depths(mask, width, height);
  let best = -1;
  for (let i = 0; i < depth.length; i++) if (mask[i] === 1 && (best < 0 || depth[i]! > depth[best]!)) best = i;
  return best < 0 ? undefined : { i: best, depth: depth[best]! };
}

/** The spot that shows what a mask marks. */
function spotIn(mask: Uint8Array, small: SmallPicture, picture: Pixels): Outline | undefined {
  const found = deepest(mask, small);
  if (!found) return undefined;
  const { per, width } = small;
  const most = MOST_SPOT * Math.max(picture.width, picture.height);
  return {
    x: Math.round(((found.i % width) + 0.5) * per),
    y: Math.round((Math.floor(found.i / width) + 0.5) * per),
    radius: Math.max(Math.min(LEAST_SPOT, per), Math.min(most, OF_DEPTH * Math.max(0.5, found.depth - 0.5) * per)),
  };
}

/** Which of the heaps are to be chosen: again and again the one that stands for most that is not stood for yet. */
function chosen(all: readonly Heap[], places: number, most: number): Heap[] {
  const worth = all.map(({ lab, count }) => (count / places) ** SMALL * (1 + labToLch(lab)[1] / LOUD));
  const apart = all.map((one) => all.map((other) => Math.min(FAR, deltaE00(one.lab, other.lab))));
  const away = all.map(() => FAR);
  const list: Heap[] = [];
  const take = (at: number): void => {
    list.push(all[at]!);
    for (let j = 0; j < all.length; j++) away[j] = Math.min(away[j]!, apart[at]![j]!);
  };
  // What is large comes first, each unlike the others; a third is kept for what is small.
  all.forEach(({ count }, i) => {
    if (count >= LARGE * places && away[i]! >= UNLIKE && list.length < Math.ceil((2 / 3) * most)) take(i);
  });
  while (list.length < most) {
    let [best, bestGain] = [-1, 0];
    for (let i = 0; i < all.length; i++) {
      if (away[i]! < NEW) continue;
      // What is near counts for little: its square, so that one colour's own shades do not drown another's.
      let gain = 0;
      for (let j = 0; j < all.length; j++) gain += worth[j]! * Math.max(0, away[j]! ** 2 - apart[i]![j]! ** 2);
      if (gain > bestGain * (1 + 1e-9)) [best, bestGain] = [i, gain];
    }
    if (best < 0) break;
    take(best);
  }
  return list;
}

/** Values that all but stray places lie between. */
function endsOf(small: SmallPicture, whole: Uint8Array): readonly [MunsellValue, MunsellValue] {
  const lightness = Float32Array.from({ length: whole.length }, (_, i) => small.lab[3 * i]!)
    .filter((_, i) => whole[i] === 1)
    .sort();
  if (lightness.length === 0) return [0, 10];
  const at = (share: number): MunsellValue => valueOfLightness(lightness[Math.round(share * (lightness.length - 1))]!);
  return [at(STRAY), at(1 - STRAY)];
}

/**
 * The few colours of a picture that matter, dark to light, with the darkest and the lightest: each with
 * the spot that shows it best. Big areas, edges between them and grain do not drown what is small and
 * apart: what only blends two colours is left out, small colours count by a root of their share, and the
 * next is always what the others stand for least. The same picture gives the same answer.
 * @param most colours besides the two ends
 * @throws CraftError unless 2 to 12 are asked for
 */
export function* proposeInSteps(
  picture: Pixels,
  gains: LinearRgb = [1, 1, 1],
  most: number = USUAL_PROPOSED,
): InSteps<readonly ProposedColour[]> {
  if (!(Number.isInteger(most) && most >= FEWEST_PROPOSED && most <= MOST_PROPOSED))
    throw new CraftError('input', `${FEWEST_PROPOSED} to ${MOST_PROPOSED} colours can be proposed.`);
  const small = smaller(picture, gains, LONGEST);
  yield 0.4;
  const whole = wholes(small);
  const places = small.width * small.height;
  const all = heaps(small, whole).filter(({ count }) => count >= LEAST_SHARE * places);
  yield 0.5;
  const found: ProposedColour[] = [];
  const kept = chosen(all, places, most);
  for (const heap of kept) {
    const mask = new Uint8Array(places);
    let count = 0;
    for (let i = 0; i < places; i++) {
      const own = awayFrom(small, i, heap.lab);
      if (own >= 2 * ONE || kept.some((other) => other !== heap && awayFrom(small, i, other.lab) < own)) continue;
      count++;
      if (own < ONE) mask[i] = 1;
    }
    const outline = spotIn(mask, small, picture);
    yield 0.5 + (0.4 * found.length) / kept.length;
    if (!outline) continue;
    const share = count / places;
    const isApart = kept.every((other) => other === heap || deltaE00(other.lab, heap.lab) >= ACCENT_AWAY);
    found.push({
      outline,
      lab: readOutline(picture, outline, gains).lab,
      share,
      as: share < ACCENT && isApart ? 'accent' : 'colour',
    });
  }
  const [darkest, lightest] = endsOf(small, whole);
  for (const [as, end] of [
    ['darkest', darkest],
    ['lightest', lightest],
  ] as const) {
    const mask = whole.map((is, i) => (is === 1 && Math.abs(valueOfLightness(small.lab[3 * i]!) - end) <= END_WITHIN ? 1 : 0));
    const outline = spotIn(mask, small, picture);
    if (!outline) continue;
    const { lab } = readOutline(picture, outline, gains);
    const same = found.findIndex((one) => deltaE00(one.lab, lab) < NEW);
    const share = mask.reduce((sum, is) => sum + is, 0) / places;
    // One colour is proposed once: it is what is darkest, too.
    if (same >= 0) found[same] = { ...found[same]!, as };
    else found.push({ outline, lab, share, as });
    yield 0.95;
  }
  return found.sort((one, other) => one.lab[0] - other.lab[0]);
}
