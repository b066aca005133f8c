import { ellipsoidAt, type Matrix3 } from '../colour/ellipse.ts';
import { valueOfLightness } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { valueCost } from '../laying/ranking.ts';
import { screen, straighten, type Straightened } from './screen.ts';
import { mixInto, nearestShares, type Shares } from '../laying/shares.ts';
import { heldIn, type Quest } from './sought.ts';

/** Candidates from which a first good mixture is sought. */
const SCOUTED = 20;
/** A first mixture this near is good enough to go by. */
const NEAR_ENOUGH = 0.4;
/** Starts that are tried, and rounds of looking about from the best mixture so far. */
const STARTS = 6;
const ROUNDS = 3;
/** How much of the whole pull a further ingredient begins with. */
const A_LITTLE = [0.05, 0.004] as const;
/** ΔE00 from which a target counts as out of reach, so that value is held first. */
export const OUT_OF_REACH = 1.5;
/** How much more lightness then weighs: a value step costs 12 beyond the 8 to 10 ΔE00 it is. */
const VALUE_FIRST = 2.2;

/** Finds a mixture to go by, about which a palette is straightened. */
export class Nearing {
  constructor(private readonly quest: Quest) {}

  /** The palette straightened about the mixture on the desk, doubt reckoned in the plain measure. */
  straightenBoth(U: Matrix3): Straightened {
    const { palette, desk, ranking } = this.quest;
    const plain = straighten(palette, ranking.target, this.quest.U, desk, true);
    return U === this.quest.U ? plain : { ...straighten(palette, ranking.target, U, desk, false), error: plain.error };
  }

  /** The mixtures reckoned beforehand that lie nearest, of those that may be used. */
  private nearestStarts(): number[] {
    const { usable, mustUse, ranking } = this.quest;
    const { hold } = this.quest.sought;
    const { sets, lab } = this.quest.palette.starts;
    const L = ranking.target[0];
    const may = new Uint8Array(this.quest.palette.ingredients.length);
    for (const i of [...usable, ...mustUse]) may[i] = 1;
    const nearest: number[] = [];
    const away: number[] = [];
    for (let s = 0; s < sets.length; s++) {
      const worst = nearest.length < STARTS ? Infinity : away[STARTS - 1]!;
      const l = lab[3 * s]!;
      if (Math.abs(l - L) / 1.75 >= worst) continue;
      const distance =
        ranking.deltaE(l, lab[3 * s + 1]!, lab[3 * s + 2]!) + (hold ? 0 : valueCost(ranking, valueOfLightness(Math.max(0, l))));
      if (distance >= worst || !sets[s]!.every((i) => may[i] === 1)) continue;
      let at = Math.min(nearest.length, STARTS - 1);
      while (at > 0 && away[at - 1]! > distance) {
        nearest[at] = nearest[at - 1]!;
        away[at] = away[at - 1]!;
        at--;
      }
      nearest[at] = s;
      away[at] = distance;
    }
    return nearest;
  }

  /**
   * A mixture near the target, about which the palette is straightened: from the nearest starts to the
   * best of the sets that look promising from there.
   */
  goBy(): { straight: Straightened; U: Matrix3; known: Shares[] } {
    const { palette, desk, ranking } = this.quest;
    const { target } = ranking;
    const { sets, shares } = palette.starts;
    const known: Shares[] = [];
    let U = this.quest.U;
    let best: Shares | undefined;
    const tryFrom = (set: readonly number[], start: ArrayLike<number>): void => {
      const exact = nearestShares(palette, set, start, target, U, desk);
      if (!exact) return;
      if (this.isAllowed(set)) known.push(exact);
      if (!best || exact.distance < best.distance) best = exact;
    };
    const starts = this.nearestStarts();
    for (const s of starts) {
      tryFrom(sets[s]!, shares[s]!);
      if (best && best.distance < NEAR_ENOUGH) break;
    }
    for (let round = 0; ; round++) {
      const about = best ?? { set: sets[starts[0]!]!, shares: shares[starts[0]!]! };
      mixInto(desk, palette, about.set, about.shares);
      const there = best !== undefined && best.distance < NEAR_ENOUGH;
      if (round === 2 && best && best.distance > OUT_OF_REACH) {
        U = this.fromAfar(best.lab);
        best = undefined;
      }
      const last = there || round === ROUNDS;
      if (last) return { straight: this.straightenBoth(U), U, known };
      const straight = straighten(palette, target, U, desk, false);
      for (const candidate of screen(this.quest, straight, { keep: SCOUTED, judged: false })) {
        tryFrom(candidate.set, candidate.shares);
        if (best && best.distance < NEAR_ENOUGH) break;
      }
      if (best && best.distance >= NEAR_ENOUGH && round !== 1) this.climb(best, tryFrom);
    }
  }

  /**
   * The measure for a target that is out of reach: CIEDE2000 weighs by the mean of the two colours, so
   * the ellipsoid half way to the nearest is the better one. Value is held first unless something else is.
   */
  private fromAfar(lab: Lab): Matrix3 {
    const { target } = this.quest.ranking;
    const { hold } = this.quest.sought;
    const U = heldIn(ellipsoidAt([0, 1, 2].map((k) => (target[k]! + lab[k]!) / 2) as unknown as Lab), hold);
    if (!hold) U[0]! *= VALUE_FIRST;
    return U;
  }

  private isAllowed(set: readonly number[]): boolean {
    return set.length <= this.quest.most && this.quest.mustUse.every((i) => set.includes(i));
  }

  /** Tries a little of each further ingredient beside a set that is not near enough. */
  private climb({ set, shares }: Shares, tryFrom: (set: readonly number[], start: ArrayLike<number>) => void): void {
    if (set.length >= this.quest.most) return;
    const { strengths } = this.quest.palette;
    let whole = 0;
    for (let k = 0; k < set.length; k++) whole += shares[k]! * strengths[set[k]!]!;
    for (const t of this.quest.usable) {
      if (set.includes(t)) continue;
      const at = set.filter((i) => i < t).length;
      const larger = [...set.slice(0, at), t, ...set.slice(at)];
      for (const little of A_LITTLE) tryFrom(larger, [...shares.slice(0, at), (little * whole) / strengths[t]!, ...shares.slice(at)]);
      tryFrom(
        larger,
        larger.map((i) => 1 / strengths[i]!),
      );
    }
  }
}
