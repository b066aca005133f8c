import { BODY_RATIOS, DOZEN, LETDOWN_RATIOS, LONG_HEAPS } from './measuring.ts';

/** Which members of a heap are rounded up, by how many members there are and how many are. */
const ROUNDED_UP: readonly (readonly (readonly number[])[])[] = Array.from({ length: 7 }, (_, members) =>
  Array.from({ length: members + 1 }, (_, up) =>
    Array.from({ length: 1 << members }, (_, mask) => mask).filter((mask) => bitsOf(mask) === up),
  ),
);

function bitsOf(mask: number): number {
  let count = 0;
  for (let rest = mask; rest > 0; rest >>= 1) count += rest & 1;
  return count;
}

const LOW = [new Int32Array(8), new Int32Array(8)] as const;
const DIVISION = [new Int32Array(8), new Int32Array(8)] as const;

/**
 * Visits the divisions of up to `most` whole parts about what is wanted: each part rounded down or up,
 * at least one of each.
 * @param wanted how much of each member, in any unit
 * @param visit hears the parts (the same array each time) and how many there are
 * @param level 1 within a visit of level 0
 * @param longest most parts of the long heaps that are tried, too, beyond what is counted at a glance
 */
export function eachDivision(
  wanted: ArrayLike<number>,
  members: number,
  most: number,
  visit: (parts: Int32Array, total: number) => void,
  level: 0 | 1 = 0,
  longest = 0,
): void {
  const low = LOW[level]!;
  const division = DIVISION[level]!;
  let whole = 0;
  for (let j = 0; j < members; j++) whole += wanted[j]!;
  let longer = 0;
  while (longer < LONG_HEAPS.length && LONG_HEAPS[longer]! <= longest) longer++;
  for (let step = members; step <= most + longer; step++) {
    const total = step <= most ? step : LONG_HEAPS[step - most - 1]!;
    if (step > most && total <= most) continue;
    let left = total;
    let fixed = 0;
    for (let j = 0; j < members; j++) {
      const floor = Math.floor((wanted[j]! / whole) * total);
      if (floor < 1) fixed |= 1 << j;
      low[j] = floor < 1 ? 1 : floor;
      left -= low[j]!;
    }
    if (left < 0 || left > members) continue;
    for (const mask of ROUNDED_UP[members]![left]!) {
      if ((mask & fixed) !== 0) continue;
      for (let j = 0; j < members; j++) division[j] = low[j]! + ((mask >> j) & 1);
      visit(division, total);
    }
  }
}

/** A ratio of body to base. */
export interface Ratio {
  readonly body: number;
  readonly base: number;
}

const ladders = new Map<number, readonly Ratio[]>();
/** Ratios of body to base that can be measured: whole parts within a heap, or one to many; by how much base. */
function ladder(most: number): readonly Ratio[] {
  let known = ladders.get(most);
  if (!known) {
    const whole = Array.from({ length: most - 1 }, (_, i) => i + 1).flatMap((body) =>
      Array.from({ length: most - body }, (_, i): Ratio => ({ body, base: i + 1 })).filter(({ base }) => gcd(body, base) === 1),
    );
    const many = most < DOZEN ? [] : BODY_RATIOS.map((base): Ratio => ({ body: 1, base }));
    known = [...whole, ...many].sort((a, b) => a.base / a.body - b.base / b.body);
    ladders.set(most, known);
  }
  return known;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** The rungs of the ladder about a ratio: two below, two above. */
export function rungsAbout(wanted: number, most: number): readonly Ratio[] {
  const all = ladder(most);
  let at = 0;
  while (at < all.length && all[at]!.base / all[at]!.body < wanted) at++;
  return all.slice(Math.max(0, at - 2), at + 2);
}

/** Let-downs of more parts than a heap has, about a ratio of base to tube. */
export function thinRungsAbout(wanted: number, most: number): readonly Ratio[] {
  const thin = LETDOWN_RATIOS.filter((ratio) => ratio >= most).map((base): Ratio => ({ body: 1, base }));
  const at = thin.findIndex(({ base }) => base > wanted);
  return wanted < most - 1 ? [] : thin.slice(Math.max(0, at < 0 ? thin.length - 1 : at - 1), at < 0 ? thin.length : at + 1);
}
