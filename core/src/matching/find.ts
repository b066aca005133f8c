import { ellipsoidAt, type Matrix3 } from '../colour/ellipse.ts';
import type { Lab } from '../colour/spaces.ts';
import { valueOfLightness } from '../colour/value.ts';
import type { Palette } from './palette.ts';
import { MOST_INGREDIENTS } from './limits.ts';
import { drawPlans, type Judging, type Plan } from './plan.ts';
import { rankingFor, valueCost, type Ranking } from './ranking.ts';
import { errorVariances, screen, straighten, type Candidate, type Straightened } from './screen.ts';
import { desktop, mixInto, MOST_TOGETHER, nearestShares, offFrom, sharesAt, type Desktop, type Shares } from './shares.ts';
import { searchFactors } from './search.ts';
import { costOfSet, noCosts, setCosts, WORTH, worthOf, type Dulling, type SetCosts } from './worth.ts';

/** What is sought. */
export interface Sought {
  readonly target: Lab;
  readonly valueTolerance?: number | undefined;
  /** Ingredients that may be used, by index; all unless said. */
  readonly usable?: readonly number[];
  /** Ingredients each of which must be in it, by index. */
  readonly mustUse?: readonly number[];
  /** Most ingredients in a recipe, when less than the palette's limits. */
  readonly most?: number | undefined;
  readonly dulling?: Dulling | undefined;
  /**
   * Out of reach: what is held while the rest gives way. `all` is the least ΔE00. What cannot be promised
   * and what recipes cost then does not count.
   */
  readonly hold?: 'value' | 'hue' | 'all';
}

/** A measuring plan and how it is judged. */
export interface Found {
  readonly plan: Plan;
  /** ΔE00 of what the plan gives. */
  readonly deltaE00: number;
  /** Root mean square of ΔE00 by which true tubes may be expected to miss the prediction. */
  readonly error: number;
  /** ΔE00 when the doses are off by a tenth. */
  readonly dosing: number;
  /** Ranking score, ΔE00, lower is better: the expected true difference, value beyond tolerance, and what the recipe costs. */
  readonly score: number;
}

/** Candidates whose shares are sought exactly. */
const REFINED = 40;
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
const OUT_OF_REACH = 1.5;
/** How much more lightness then weighs: a value step costs 12 beyond the 8 to 10 ΔE00 it is. */
const VALUE_FIRST = 2.2;

/** How much more weighs what is held while the rest gives way. */
const HELD = 8;

function heldIn(U: Matrix3, hold: Sought['hold']): Matrix3 {
  const first = hold === 'value' ? 0 : 6;
  if (hold === 'value' || hold === 'hue') for (let i = first; i < first + 3; i++) U[i]! *= HELD;
  return U;
}

/** One search: a target, its measure, and room to reckon. */
class Search {
  private readonly ranking: Ranking;
  private readonly U: Matrix3;
  private readonly costs: SetCosts;
  private readonly desk: Desktop = desktop();
  private readonly most: number;
  private readonly usable: readonly number[];
  private readonly mustUse: readonly number[];
  private settled = 0;

  constructor(
    private readonly palette: Palette,
    private readonly sought: Sought,
  ) {
    const { target, valueTolerance, usable, mustUse = [], most, dulling, hold } = sought;
    this.ranking = rankingFor(target, valueTolerance);
    this.U = heldIn(ellipsoidAt(target), hold);
    this.costs = hold ? noCosts(palette) : setCosts(palette, target, dulling);
    this.most = Math.min(palette.limits.tubes, palette.limits.parts, most ?? MOST_TOGETHER, MOST_TOGETHER);
    this.usable = usable ?? palette.ingredients.map((_, i) => i);
    this.mustUse = mustUse;
  }

  /** The best plan of each of the best sets, best first. */
  find(count: number): Found[] {
    const { straight, U, known } = this.goBy();
    const seen = new Map<string, Shares>();
    for (const exact of known) {
      const key = exact.set.join();
      if (exact.distance < (seen.get(key)?.distance ?? Infinity)) seen.set(key, exact);
    }
    const found: Found[] = [];
    const beyond = known.length > 0 && Math.min(...known.map(({ distance }) => distance)) > OUT_OF_REACH;
    // Sets that were met on the way, as they look from here.
    const met = [...seen.values()].map((exact) => this.judge(exact, straight)).sort(byIdeal);
    for (const rough of met) {
      if (!beyond && this.isHopeless(rough.ideal, found, count)) break;
      this.plan(this.settle(rough.exact, this.hopeOf(found, count)), count, found);
    }
    let about = straight;
    for (let look = 0; look < LOOKS; look++) {
      const before = found[0];
      this.lookAround(about, U, seen, beyond, count, found);
      if (found[0] === before && look > 0) break;
      // Seen from the best so far others may look better.
      mixInto(this.desk, this.palette, found[0]!.plan.set, found[0]!.plan.shares);
      about = this.straightenBoth(U);
    }
    return found.slice(0, count);
  }

  /** The best plan of one set. */
  planOf(set: readonly number[]): Found | undefined {
    const { palette, desk } = this;
    const evenly = set.map((i) => 1 / palette.strengths[i]!);
    const whitely = set.map((i, k) => (palette.tints[i]!.lightness > 88 ? 20 : 1) * evenly[k]!);
    const darkly = set.map((i, k) => (palette.tints[i]!.lightness > 88 ? 0.2 : 1) * evenly[k]!);
    let best: Shares | undefined;
    for (const start of [evenly, whitely, darkly]) {
      const exact = nearestShares(palette, set, start, this.ranking.target, this.U, desk);
      if (exact && (!best || exact.distance < best.distance)) best = exact;
    }
    if (!best) return undefined;
    const found: Found[] = [];
    this.plan(this.settle(best), 1, found);
    return found[0];
  }

  /** Whether a set that scores so much, roughly, cannot be among the best. */
  private isHopeless(score: number, found: readonly Found[], count: number): boolean {
    return found.length >= count && score > found[count - 1]!.score + ROUGHLY;
  }

  /** Score above which settling a set will not bring it among the best. */
  private readonly hopeOf = (found: readonly Found[], count: number): number =>
    found.length < count || this.settled < SETTLED_ANYWAY ? Infinity : 2 * found[count - 1]!.score + SETTLING_GAINS;

  /** Finds plans for the sets that look promising from one mixture, until no further one can be better. */
  private lookAround(about: Straightened, U: Matrix3, seen: Map<string, Shares>, beyond: boolean, count: number, found: Found[]): void {
    const { palette, desk } = this;
    let settled = 0;
    const hopeless = beyond || found.length < count ? Infinity : found[count - 1]!.score + ROUGHLY;
    for (const { set, shares, score } of this.screen(about, U, Math.max(REFINED, 2 * count), this.sought.hold === undefined, hopeless)) {
      // Out of reach, a set may still gain much by being settled.
      if (beyond ? settled > MOST_SETTLED + 2 * count : this.isHopeless(score, found, count)) break;
      const key = set.join();
      if (seen.has(key)) continue;
      const exact = nearestShares(palette, set, shares, this.ranking.target, U, desk);
      if (!exact) continue;
      seen.set(key, exact);
      settled++;
      this.plan(this.settle(exact, this.hopeOf(found, count)), count, found);
    }
  }

  /** The palette straightened about the mixture on the desk, doubt reckoned in the plain measure. */
  private straightenBoth(U: Matrix3): Straightened {
    const { palette, desk, ranking } = this;
    const plain = straighten(palette, ranking.target, this.U, desk, true);
    return U === this.U ? plain : { ...straighten(palette, ranking.target, U, desk, false), error: plain.error };
  }

  private screen(straight: Straightened, U: Matrix3, keep: number, judged: boolean, below = Infinity): Candidate[] {
    const { palette, costs, most, usable, mustUse } = this;
    return screen({ palette, target: this.ranking.target, U, costs, most, usable, mustUse, keep, judged, below }, straight);
  }

  /** The mixtures reckoned beforehand that lie nearest, of those that may be used. */
  private nearestStarts(): number[] {
    const { usable, mustUse, ranking } = this;
    const { hold } = this.sought;
    const { sets, lab } = this.palette.starts;
    const L = ranking.target[0];
    const may = new Uint8Array(this.palette.ingredients.length);
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
  private goBy(): { straight: Straightened; U: Matrix3; known: Shares[] } {
    const { palette, desk, ranking } = this;
    const { target } = ranking;
    const { sets, shares } = palette.starts;
    const known: Shares[] = [];
    let U = this.U;
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
      for (const candidate of this.screen(straight, U, SCOUTED, false)) {
        tryFrom(candidate.set, candidate.shares);
        if (best && best.distance < NEAR_ENOUGH) break;
      }
      if (best && best.distance >= NEAR_ENOUGH) this.climb(best, tryFrom);
    }
  }

  /**
   * The measure for a target that is out of reach: CIEDE2000 weighs by the mean of the two colours, so
   * the ellipsoid half way to the nearest is the better one. Value is held first unless something else is.
   */
  private fromAfar(lab: Lab): Matrix3 {
    const { target } = this.ranking;
    const { hold } = this.sought;
    const U = heldIn(ellipsoidAt([0, 1, 2].map((k) => (target[k]! + lab[k]!) / 2) as unknown as Lab), hold);
    if (!hold) U[0]! *= VALUE_FIRST;
    return U;
  }

  private isAllowed(set: readonly number[]): boolean {
    return set.length <= this.most && this.mustUse.every((i) => set.includes(i));
  }

  /** Tries a little of each further ingredient beside a set that is not near enough. */
  private climb({ set, shares }: Shares, tryFrom: (set: readonly number[], start: ArrayLike<number>) => void): void {
    if (set.length >= this.most) return;
    const { strengths } = this.palette;
    let whole = 0;
    for (let k = 0; k < set.length; k++) whole += shares[k]! * strengths[set[k]!]!;
    for (const t of this.usable) {
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

  /**
   * Judges a set about its own mixture. Where it does not come to the target, least distance is not yet
   * least score, since value counts on its own: there its shares are sought once more by score.
   */
  private settle(exact: Shares, hope = Infinity): Judged {
    const judged = this.judge(exact, this.straightenedAt(exact));
    if (exact.distance < UNSETTLED || judged.ideal > hope) return judged;
    this.settled++;
    const { palette, desk } = this;
    const { hold } = this.sought;
    const { set } = exact;
    // Its pulls may be in the measure for targets that are out of reach.
    const plainly = sharesAt(palette, set, exact.shares, this.ranking.target, this.U, desk);
    const onValue = hold || valueCost(this.ranking, valueOfLightness(Math.min(100, Math.max(0, exact.lab[0])))) === 0;
    if (set.length === 1 || (onValue && exact.distance < FAR)) return { ...judged, exact: plainly };
    const { numbers, cost } = searchFactors(
      (shares) => {
        let whole = 0;
        for (let k = 0; k < shares.length; k++) whole += shares[k]!;
        this.trial.fill(0);
        for (let k = 0; k < shares.length; k++) this.trial[k] = shares[k]! / whole;
        mixInto(desk, palette, set, this.trial);
        return this.score(palette.eye.see(desk.mixed), judged);
      },
      exact.shares,
      { factor: 1.2, smallest: 1.01, rounds: 16 },
    );
    if (cost >= judged.ideal - SETTLED) return { ...judged, exact: plainly };
    const whole = numbers.reduce((sum, share) => sum + share, 0);
    const settled = sharesAt(
      palette,
      set,
      numbers.map((share) => share / whole),
      this.ranking.target,
      this.U,
      desk,
    );
    return { ...judged, exact: settled, ideal: cost };
  }

  private readonly trial = new Float64Array(MOST_TOGETHER);

  /** Doubt about the ingredients of one set, reckoned about its own mixture. */
  private straightenedAt({ set, shares }: Shares): Pick<Straightened, 'error' | 'scatter'> {
    const { palette, desk } = this;
    mixInto(desk, palette, set, shares);
    palette.eye.seeWithSlopes(desk.mixed, this.U, desk.slopes);
    return { error: errorVariances(palette, desk, set), scatter: ONES };
  }

  private judge(exact: Shares, { error: variances, scatter }: Pick<Straightened, 'error' | 'scatter'>): Judged {
    const { set, shares, pulls, lab } = exact;
    // Slopes were taken at another mixture: what scatters less answers more.
    let scattering = 0;
    for (let k = 0; k < set.length; k++) scattering += shares[k]! * scatter[set[k]!]!;
    let error = 0;
    let dosing = 0;
    let [x, y, z] = [0, 0, 0];
    for (let k = 0, p = 0; k < set.length; k++, p += 3) {
      x += shares[k]! * pulls[p]!;
      y += shares[k]! * pulls[p + 1]!;
      z += shares[k]! * pulls[p + 2]!;
    }
    for (let k = 0, p = 0; k < set.length; k++, p += 3) {
      const square = shares[k]! * shares[k]!;
      error += square * variances[set[k]!]!;
      dosing += square * ((pulls[p]! - x) ** 2 + (pulls[p + 1]! - y) ** 2 + (pulls[p + 2]! - z) ** 2);
    }
    const cost = costOfSet(this.costs, set);
    const known = { error: Math.sqrt(error) / scattering, dosing: DOSING * Math.sqrt(dosing), cost };
    return { exact, ...known, ideal: this.score(lab, known) };
  }

  /** Score of a colour from a set, what measuring costs left out. */
  private score(lab: Lab, { error, dosing, cost }: Pick<Judged, 'error' | 'dosing' | 'cost'>): number {
    const { ranking, sought, U } = this;
    const [L, a, b] = lab;
    if (sought.hold === 'all') return ranking.deltaE(L, a, b);
    if (sought.hold) return Math.hypot(...offFrom(U, lab, ranking.target));
    const value = valueCost(ranking, valueOfLightness(Math.min(100, Math.max(0, L))));
    return worthOf(ranking.deltaE(L, a, b), error, dosing) + value + cost;
  }

  /** Draws up plans for a set and puts the best among what was found, if it is among the best. */
  private plan(one: Judged, count: number, found: Found[]): void {
    const { palette, desk, ranking } = this;
    const worst = found.length < count ? Infinity : found[count - 1]!.score;
    if (one.ideal + WORTH.part * (one.exact.set.length - 1) >= worst) return;
    let best: Found | undefined;
    for (const plan of drawPlans(palette, one.exact, this.judging(one, worst - one.cost + STRAIGHT_IS_OFF), desk)) {
      const score = this.score(plan.lab, one) + plan.effort;
      if (best && best.score <= score) continue;
      best = { plan, score, deltaE00: ranking.deltaE(plan.lab[0], plan.lab[1], plan.lab[2]), error: one.error, dosing: one.dosing };
    }
    if (!best) return;
    let at = found.length;
    while (at > 0 && found[at - 1]!.score > best.score) at--;
    found.splice(at, 0, best);
    if (found.length > 2 * count) found.length = 2 * count;
  }

  /** How a plan of a set is scored by what is missing. */
  private judging(one: Judged, below: number): Judging {
    const { ranking, U } = this;
    const { target, valueTolerance } = ranking;
    const most = this.palette.limits.parts;
    const { error, dosing, exact } = one;
    if (exact.distance >= UNSETTLED) {
      // Far from the target its ellipsoid measures badly: back to Lab, and by the formula.
      const over = U[4]! * U[8]! - U[5]! * U[7]!;
      const free = { error, dosing, cost: 0 };
      const score = (l: number, c: number, h: number): number =>
        this.score([target[0] + l / U[0]!, target[1] + (U[8]! * c - U[5]! * h) / over, target[2] + (U[4]! * h - U[7]! * c) / over], free);
      return { most, below, score };
    }
    // Lightness is turned to value along its slope at the target.
    const slope = valueOfLightness(Math.min(100, target[0] + 0.5)) - valueOfLightness(Math.max(0, target[0] - 0.5));
    const perOff = slope / U[0]!;
    const { hold } = this.sought;
    const score = (l: number, c: number, h: number): number => {
      const distance = Math.sqrt(l * l + c * c + h * h);
      if (hold) return distance;
      const beyond = Math.abs(l * perOff) - valueTolerance;
      return worthOf(distance, error, dosing) + (beyond > 0 ? beyond * WORTH.value : 0);
    };
    return { most, below, score };
  }
}

interface Judged {
  readonly exact: Shares;
  readonly error: number;
  readonly dosing: number;
  readonly cost: number;
  /** Score if the exact shares could be measured for nothing. */
  readonly ideal: number;
}

const DOSING = 0.1;
const ONES = new Float64Array(MOST_INGREDIENTS + 1).fill(1);
/** How often the palette is looked through, each time about the best found so far. */
const LOOKS = 3;
const byIdeal = (a: Judged, b: Judged): number => a.ideal - b.ideal;
/** How far off the score of a set may be as long as its doubt is reckoned about another mixture. */
const ROUGHLY = 0.4;
const MOST_SETTLED = 18;
/** ΔE00 from which a set is settled by score, and what that must gain. */
const UNSETTLED = 0.5;
const SETTLED = 0.01;
/** So many sets are settled anyway; others where settling gains so much, ΔE00. */
const SETTLED_ANYWAY = 6;
const SETTLING_GAINS = 8;
/** ΔE00 from which the ellipsoid no longer measures well. */
const FAR = 4;
/** Reckoning plans along straight lines is off by less than this. */
const STRAIGHT_IS_OFF = 0.1;

/** The best measuring plan of one set of ingredients, by their indices; nothing where it leaves one of them out. */
export function planFor(palette: Palette, set: readonly number[], sought: Sought): Found | undefined {
  return new Search(palette, sought).planOf(set);
}

/**
 * The best measuring plans for a target, one of each set of tubes, best first: which sets can reach it
 * (reckoned along straight lines for all of them), how much of each (Gauss–Newton), and how to measure
 * it (whole parts, let-downs, bodies). Deterministic; follows a pointer when `count` is 1.
 */
export const findPlans = (palette: Palette, sought: Sought, count = 1): Found[] => new Search(palette, sought).find(count);
