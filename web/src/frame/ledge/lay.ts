/** A dab on the ledge before it has a height. */
export interface Dab {
  readonly id: string;
  /** Middle of the dab from the left, px: its value, which is never moved. */
  readonly x: number;
  /** How warm (to 1) or cool (to −1). */
  readonly warmth: number;
  /** Across, px. */
  readonly size: number;
}

/** A dab in its place. */
export interface Laid {
  readonly id: string;
  readonly x: number;
  /** Middle of the dab above (positive) or below the line, px. */
  readonly up: number;
  readonly size: number;
}

export interface Strip {
  readonly laid: readonly Laid[];
  /** Room above and below the line that they take, px. */
  readonly half: number;
}

/** Room above and below the line with few piles, and how it grows. */
const LEAST_HALF = 48;
const GROWS_BY = 6;
/** A dab may look over the edge of its room by the rest of its radius. */
const INSIDE = 0.35;
/** Heights that are tried, px apart. */
const STEP = 2;
/** Between two middles must lie this share of both radii, and a little more than the smaller one: then the smaller lies on the larger and neither hides the other's middle. */
const SHARE = 0.6;
const CLEAR = 3;

const apart = (one: number, other: number): number => Math.max(((one + other) / 2) * SHARE, Math.min(one, other) / 2 + CLEAR);

/** What is missing to the nearest neighbour if a dab lies so high; nothing or less where there is room. */
function lacking(dab: Dab, up: number, among: readonly Laid[]): number {
  let most = -Infinity;
  for (const other of among) {
    const wanted = apart(dab.size, other.size);
    const dx = other.x - dab.x;
    if (dx > wanted || dx < -wanted) continue;
    const dy = other.up - up;
    most = Math.max(most, wanted - Math.sqrt(dx * dx + dy * dy));
  }
  return most;
}

/** Lays dabs of one side; says whether all have room. */
function laySide(
  dabs: readonly Dab[],
  half: number,
  fixed: ReadonlyMap<string, number>,
): { readonly laid: Laid[]; readonly fits: boolean } {
  const laid: Laid[] = [];
  let fits = true;
  // What lies there already stays; then the large ones, which find room least easily.
  const order = [...dabs].sort(
    (a, b) => Number(fixed.has(b.id)) - Number(fixed.has(a.id)) || b.size - a.size || a.x - b.x || (a.id < b.id ? -1 : 1),
  );
  for (const dab of order) {
    const { id, x, size } = dab;
    const held = fixed.get(id);
    const sign = dab.warmth < 0 ? -1 : 1;
    if (held !== undefined && Math.sign(held || 1) === sign && Math.abs(held) <= half + 1e-6) {
      laid.push({ id, x, up: held, size });
      continue;
    }
    const low = Math.min(size / 2, half);
    const high = Math.max(low, half - size * INSIDE);
    const wanted = Math.min(high, Math.max(low, Math.abs(dab.warmth) * half));
    let best = wanted;
    let least = lacking(dab, sign * wanted, laid);
    // From where it belongs outwards, upwards and downwards by turns.
    for (let by = STEP; least > 0 && by <= high - low + STEP; by += STEP)
      for (const up of [wanted + by, wanted - by]) {
        if (up < low || up > high) continue;
        const missing = lacking(dab, sign * up, laid);
        if (missing < least) {
          least = missing;
          best = up;
          if (missing <= 0) break;
        }
      }
    if (least > 0) fits = false;
    laid.push({ id, x, up: sign * best, size });
  }
  return { laid, fits };
}

/**
 * Lays dabs on the ledge. Value is never moved: only height gives way where they would hide one another,
 * each on its own side of the line, and the strip grows for them as far as it may.
 * @param mostHalf room that may be taken above and below the line, px; with fixed heights it is taken
 * @param fixed heights that stay, by id: what is under a hand does not move
 */
export function layDabs(dabs: readonly Dab[], mostHalf: number, fixed: ReadonlyMap<string, number> = new Map()): Strip {
  const warm = dabs.filter((dab) => dab.warmth >= 0);
  const cool = dabs.filter((dab) => dab.warmth < 0);
  const least = fixed.size > 0 ? mostHalf : Math.min(LEAST_HALF, mostHalf);
  for (let half = least; ; half = Math.min(half + GROWS_BY, mostHalf)) {
    const above = laySide(warm, half, fixed);
    const below = laySide(cool, half, fixed);
    if ((above.fits && below.fits) || half >= mostHalf) return { laid: [...above.laid, ...below.laid], half };
  }
}

/**
 * As large as the amount; with many piles smaller, so that all are seen.
 * @param count piles on a strip as wide as a laptop's window
 */
export function sizeOf(ml: number, count: number): number {
  const crowd = Math.min(1, Math.max(0.62, Math.sqrt(24 / Math.max(1, count))));
  return Math.round(Math.min(56, Math.max(24, 16 + 7 * Math.sqrt(ml))) * crowd);
}

/** A press within this of a middle means it, px. */
const REACH = { mouse: 14, touch: 24 } as const;

/**
 * Which dabs a press may mean, the nearest first: one where it is clear, several where they share a place.
 * @param up above the line
 */
export function meantBy(laid: readonly Laid[], x: number, up: number, by: keyof typeof REACH): readonly string[] {
  const near = laid
    .map((dab) => ({ id: dab.id, away: Math.hypot(dab.x - x, dab.up - up), radius: dab.size / 2 }))
    .filter(({ away, radius }) => away <= Math.max(REACH[by], radius))
    .sort((a, b) => a.away - b.away);
  const [first, second] = near;
  if (!first) return [];
  // Twice as near as any other is clear enough.
  if (!second || second.away > 2 * first.away + 4) return [first.id];
  const meant = near.filter(({ away }) => away <= Math.max(REACH[by], 2 * first.away));
  return meant.map(({ id }) => id);
}
