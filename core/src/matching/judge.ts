import { valueOfLightness } from '../colour/value.ts';
import type { Lab } from '../colour/spaces.ts';
import { MOST_INGREDIENTS } from '../laying/limits.ts';
import type { Judging } from '../measuring/drawing.ts';
import { drawPlans } from '../measuring/plan.ts';
import { doseError, LEAST_TOUCH_ML } from '../mixing/hand.ts';
import { heapsFirst, NEARLY_A_TOUCH } from '../measuring/measuring.ts';
import { valueCost } from '../laying/ranking.ts';
import { errorVariances, type Straightened } from './screen.ts';
import { searchFactors } from './search.ts';
import { mixInto, MOST_TOGETHER, nearestShares, offFrom, sharesAt, type Shares } from '../laying/shares.ts';
import type { Best, Found, Quest } from './sought.ts';
import { costOfSet, WORTH, worthOf } from '../laying/worth.ts';

/** A set with its exact shares, and what is known of it. */
export interface Judged {
  readonly exact: Shares;
  readonly error: number;
  readonly dosing: number;
  readonly cost: number;
  /** Score if the exact shares could be measured for nothing. */
  readonly ideal: number;
}

const ONES = new Float64Array(MOST_INGREDIENTS + 1).fill(1);
/** ΔE00 from which a set is settled by score, and what that must gain. */
const UNSETTLED = 0.5;
const SETTLED = 0.01;
/** So many sets are settled anyway; others where settling gains so much, ΔE00. */
const SETTLED_ANYWAY = 6;
const SETTLING_GAINS = 8;
/** ΔE00 from which the ellipsoid no longer measures well. */
const FAR = 4;
/** ΔE00 from which a pair is also settled from evenly divided pulls and from eight times as much of either. */
const VERY_FAR = 8;
const FURTHER_STARTS = [
  [1, 1],
  [8, 1],
  [1, 8],
] as const;
/** Reckoning plans along straight lines is off by less than this. */
const STRAIGHT_IS_OFF = 0.1;

/** Judges sets for one quest: what their mixtures are worth, and how they are best measured. */
export class Judge {
  private settled = 0;
  private readonly trial = new Float64Array(MOST_TOGETHER);

  constructor(private readonly quest: Quest) {}

  /**
   * Judges a set about its own mixture. Where it does not come to the target, least distance is not yet
   * least score, since value counts on its own: there its shares are sought once more by score.
   */
  settle(exact: Shares, best?: Best): Judged {
    const judged = this.judge(exact, this.straightenedAt(exact));
    if (exact.distance < UNSETTLED || this.isHopeless(judged, best)) return judged;
    this.settled++;
    const { palette, desk, ranking, U, sought } = this.quest;
    const { hold } = sought;
    const { set } = exact;
    // Its pulls may be in the measure for targets that are out of reach.
    const plainly = sharesAt(palette, set, exact.shares, ranking.target, U, desk);
    if (hold !== undefined && hold !== 'all') {
      // Here least distance is least score: it only has to be sought in the measure that counts.
      const sooner = nearestShares(palette, set, exact.shares, ranking.target, U, desk, SETTLED);
      const nearest = sooner && sooner.distance < plainly.distance ? sooner : plainly;
      return { ...judged, exact: nearest, ideal: nearest.distance };
    }
    const onValue = hold || valueCost(ranking, valueOfLightness(Math.min(100, Math.max(0, exact.lab[0])))) === 0;
    if (set.length === 1 || (onValue && exact.distance < FAR)) return { ...judged, exact: plainly };
    const { numbers, cost } = this.leastScore(exact, judged);
    if (cost >= judged.ideal - SETTLED) return { ...judged, exact: plainly };
    const whole = numbers.reduce((sum, share) => sum + share, 0);
    const shares = numbers.map((share) => share / whole);
    return { ...judged, exact: sharesAt(palette, set, shares, ranking.target, U, desk), ideal: cost };
  }

  /** Shares of a set, of any sum, that score least, by pattern search. */
  private leastScore({ set, shares: from, distance }: Shares, judged: Judged): ReturnType<typeof searchFactors> {
    const { palette, desk } = this.quest;
    const scoreOf = (shares: Float64Array): number => {
      let whole = 0;
      for (let k = 0; k < shares.length; k++) whole += shares[k]!;
      this.trial.fill(0);
      for (let k = 0; k < shares.length; k++) this.trial[k] = shares[k]! / whole;
      mixInto(desk, palette, set, this.trial);
      return this.score(palette.eye.see(desk.mixed), judged);
    };
    // Far away the formula has hollows of its own, neutral targets above all; pairs fall into them.
    const further = set.length === 2 && distance > VERY_FAR ? FURTHER_STARTS : [];
    const starts = [from, ...further.map((start) => set.map((i, k) => start[k]! / palette.strengths[i]!))];
    return starts
      .map((start) => searchFactors(scoreOf, start, { factor: 1.2, smallest: 1.01, rounds: 16 }))
      .reduce((best, other) => (other.cost < best.cost ? other : best));
  }

  /** Doubt about the ingredients of one set, reckoned about its own mixture. */
  private straightenedAt({ set, shares }: Shares): Pick<Straightened, 'error' | 'scatter'> {
    const { palette, desk } = this.quest;
    mixInto(desk, palette, set, shares);
    palette.eye.seeWithSlopes(desk.mixed, this.quest.U, desk.slopes);
    return { error: errorVariances(palette, desk, set), scatter: ONES };
  }

  judge(exact: Shares, { error: variances, scatter }: Pick<Straightened, 'error' | 'scatter'>): Judged {
    const { set, shares, pulls, lab } = exact;
    // Slopes were taken at another mixture: what scatters less answers more.
    let scattering = 0;
    for (let k = 0; k < set.length; k++) scattering += shares[k]! * scatter[set[k]!]!;
    let error = 0;
    let dosing = 0;
    let byHand = 0;
    let canBeOneHeap = true;
    const { table } = this.quest;
    const { amountMl, bores, hand } = table;
    let [x, y, z] = [0, 0, 0];
    for (let k = 0, p = 0; k < set.length; k++, p += 3) {
      x += shares[k]! * pulls[p]!;
      y += shares[k]! * pulls[p + 1]!;
      z += shares[k]! * pulls[p + 2]!;
    }
    for (let k = 0, p = 0; k < set.length; k++, p += 3) {
      const square = shares[k]! * shares[k]!;
      error += square * variances[set[k]!]!;
      const one = square * ((pulls[p]! - x) ** 2 + (pulls[p + 1]! - y) ** 2 + (pulls[p + 2]! - z) ** 2);
      dosing += one;
      const ml = shares[k]! * amountMl;
      byHand += one * doseError(ml, bores[set[k]!]!, hand) ** 2;
      if (ml < LEAST_TOUCH_ML * NEARLY_A_TOUCH) canBeOneHeap = false;
    }
    const cost = costOfSet(this.quest.costs, set);
    const known = { error: Math.sqrt(error) / scattering, dosing: hand.bead * Math.sqrt(dosing), cost };
    // In one heap every dose is as good as a hand lays it; heaps mixed first may be better, and are work.
    const first = this.score(lab, known) + heapsFirst(table.worth, 1);
    const inOne = canBeOneHeap ? this.score(lab, { ...known, dosing: Math.sqrt(byHand) }) : Infinity;
    return { exact, ...known, ideal: Math.min(first, inOne) };
  }

  /** Score of a colour from a set, what measuring costs left out. */
  private score(lab: Lab, { error, dosing, cost }: Pick<Judged, 'error' | 'dosing' | 'cost'>): number {
    const { ranking, sought, U, table } = this.quest;
    const [L, a, b] = lab;
    if (sought.hold === 'all') return ranking.deltaE(L, a, b);
    if (sought.hold) return Math.hypot(...offFrom(U, lab, ranking.target));
    const value = valueCost(ranking, valueOfLightness(Math.min(100, Math.max(0, L))));
    return worthOf(ranking.deltaE(L, a, b), error, table.worth.hand * dosing, table.worth) + value + cost;
  }

  /** Whether settling a set will not bring it among the best. */
  private isHopeless({ ideal }: Judged, best: Best | undefined): boolean {
    return best !== undefined && this.settled >= SETTLED_ANYWAY && ideal > 2 * best.worst + SETTLING_GAINS;
  }

  /** Draws up plans for a set and puts the best of them among the best found, if it belongs there. */
  plan(one: Judged, best: Best): void {
    const { palette, desk, ranking } = this.quest;
    if (one.ideal + WORTH.part >= best.worst) return;
    let first: Found | undefined;
    for (const plan of drawPlans(palette, one.exact, this.judging(one, best.worst - one.cost + STRAIGHT_IS_OFF), desk)) {
      const { dosing } = plan;
      const score = this.score(plan.lab, { ...one, dosing }) + plan.effort;
      if (first && first.score <= score) continue;
      first = { plan, score, deltaE00: ranking.deltaE(plan.lab[0], plan.lab[1], plan.lab[2]), error: one.error, dosing };
    }
    if (first) best.offer(first);
  }

  /** How a plan of a set is scored by what is missing. */
  private judging(one: Judged, below: number): Judging {
    const { ranking, U } = this.quest;
    const { target, valueTolerance } = ranking;
    const most = this.quest.parts;
    const { error, exact } = one;
    const { table } = this.quest;
    if (exact.distance >= UNSETTLED) {
      // Far from the target its ellipsoid measures badly: back to Lab, and by the formula.
      const over = U[4]! * U[8]! - U[5]! * U[7]!;
      const score = (l: number, c: number, h: number, variance: number): number =>
        this.score([target[0] + l / U[0]!, target[1] + (U[8]! * c - U[5]! * h) / over, target[2] + (U[4]! * h - U[7]! * c) / over], {
          error,
          dosing: Math.sqrt(variance),
          cost: 0,
        });
      return { most, below, table, score };
    }
    // Lightness is turned to value along its slope at the target.
    const slope = valueOfLightness(Math.min(100, target[0] + 0.5)) - valueOfLightness(Math.max(0, target[0] - 0.5));
    const perOff = slope / U[0]!;
    const { hold } = this.quest.sought;
    const score = (l: number, c: number, h: number, variance: number): number => {
      const distance = Math.sqrt(l * l + c * c + h * h);
      if (hold) return distance;
      const beyond = Math.abs(l * perOff) - valueTolerance;
      return worthOf(distance, error, table.worth.hand * Math.sqrt(variance), table.worth) + (beyond > 0 ? beyond * WORTH.value : 0);
    };
    return { most, below, table, score };
  }
}
