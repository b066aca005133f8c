/** A disc on the ledge, in pixels. */
export interface Disc {
  readonly x: number;
  readonly y: number;
  readonly size: number;
}

const ROUNDS = 60;
/** Discs may overlap a little, as piles do; their middles must stay free. */
const APART = 0.92;

/**
 * Moves discs sideways, as little as needed, until none hides another. The order from left to right
 * and every height stay.
 * @param discs from left to right
 * @returns the new x of each
 */
export function spreadDiscs(discs: readonly Disc[], width: number): number[] {
  const xs = discs.map((d) => d.x);
  for (let round = 0; round < ROUNDS; round++) {
    let moved = false;
    for (let i = 0; i < discs.length; i++) {
      for (let j = i + 1; j < discs.length; j++) {
        const wanted = ((discs[i]!.size + discs[j]!.size) / 2) * APART;
        const dy = discs[j]!.y - discs[i]!.y;
        if (Math.abs(dy) >= wanted) continue;
        const gap = Math.sqrt(wanted * wanted - dy * dy) - (xs[j]! - xs[i]!);
        if (gap <= 0.5) continue;
        xs[i]! -= gap / 2;
        xs[j]! += gap / 2;
        moved = true;
      }
    }
    for (let i = 0; i < xs.length; i++) xs[i] = Math.min(width - discs[i]!.size / 2, Math.max(discs[i]!.size / 2, xs[i]!));
    if (!moved) break;
  }
  return xs;
}
