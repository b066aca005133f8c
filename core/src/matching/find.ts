import type { Matrix3 } from '../colour/ellipse.ts';
import { USUAL_AMOUNT_ML } from '../mixing/hand.ts';
import { Judge, type Judged } from './judge.ts';
import { Nearing, OUT_OF_REACH } from './nearing.ts';
import type { Palette } from '../laying/palette.ts';
import { screen, type Straightened } from './screen.ts';
import { mixInto, nearestShares, type Shares } from '../laying/shares.ts';
import { Best, questFor, type Found, type Quest, type Sought } from './sought.ts';

/** Candidates whose shares are sought exactly. */
const REFINED = 40;
/** Out of reach, where a set may still gain much by being settled: so many are. */
const MOST_SETTLED = 18;
/** How often the palette is looked through, each time about the best found so far. */
const LOOKS = 3;
/** How far off the score of a set may be as long as its doubt is reckoned about another mixture. */
const ROUGHLY = 0.4;
const byIdeal = (a: Judged, b: Judged): number => a.ideal - b.ideal;

/** One search: sets met while nearing the target, then those that look promising about the best mixture. */
class Search {
  private readonly judge: Judge;
  private readonly nearing: Nearing;
  private readonly best: Best;
  /** Sets that were gone into, with their exact shares. */
  private readonly seen = new Map<string, Shares>();

  constructor(
    private readonly quest: Quest,
    count: number,
  ) {
    this.judge = new Judge(quest);
    this.nearing = new Nearing(quest);
    this.best = new Best(count);
  }

  /** The best plan of each of the best sets, best first. */
  find(): Found[] {
    const { judge, nearing, best, seen, quest } = this;
    const { straight, U, known } = nearing.goBy();
    for (const exact of known) {
      const key = exact.set.join();
      if (exact.distance < (seen.get(key)?.distance ?? Infinity)) seen.set(key, exact);
    }
    const beyond = known.length > 0 && Math.min(...known.map(({ distance }) => distance)) > OUT_OF_REACH;
    const met = [...seen.values()].map((exact) => judge.judge(exact, straight)).sort(byIdeal);
    for (const { exact, ideal } of met) {
      if (!beyond && ideal > best.worst + ROUGHLY) break;
      judge.plan(judge.settle(exact, best), best);
    }
    let about = straight;
    for (let look = 0; look < LOOKS; look++) {
      const before = best.found[0];
      this.lookAround(about, U, beyond);
      const first = best.found[0];
      if (!first || (first === before && look > 0)) break;
      // Seen from the best so far others may look better.
      mixInto(quest.desk, quest.palette, first.plan.set, first.plan.shares);
      about = nearing.straightenBoth(U);
    }
    if (best.found.length === 0) this.withAll();
    return best.found.slice(0, best.count);
  }

  /** Where what must be in it leads away from the target no set comes near by itself: each with one or two things more, as near as it gets. */
  private withAll(): void {
    const { mustUse, usable, most } = this.quest;
    const free = usable.filter((i) => !mustUse.includes(i));
    const sets = [
      [...mustUse],
      ...free.map((i) => [...mustUse, i]),
      ...free.flatMap((i, k) => free.slice(k + 1).map((j) => [...mustUse, i, j])),
    ];
    for (const set of sets) if (set.length > 0 && set.length <= most) this.planOf([...set].sort((a, b) => a - b));
  }

  /** The best plan of one set. */
  planOf(set: readonly number[]): Found | undefined {
    const { palette, ranking, U, desk } = this.quest;
    const evenly = set.map((i) => 1 / palette.strengths[i]!);
    const whitely = set.map((i, k) => (palette.tints[i]!.lightness > 88 ? 20 : 1) * evenly[k]!);
    const darkly = set.map((i, k) => (palette.tints[i]!.lightness > 88 ? 0.2 : 1) * evenly[k]!);
    let nearest: Shares | undefined;
    for (const start of [evenly, whitely, darkly]) {
      const exact = nearestShares(palette, set, start, ranking.target, U, desk);
      if (exact && (!nearest || exact.distance < nearest.distance)) nearest = exact;
    }
    if (!nearest) return undefined;
    this.judge.plan(this.judge.settle(nearest), this.best);
    return this.best.found[0];
  }

  /** Finds plans for the sets that look promising from one mixture, until no further one can be better. */
  private lookAround(about: Straightened, U: Matrix3, beyond: boolean): void {
    const { judge, best, seen } = this;
    const { palette, ranking, desk, sought } = this.quest;
    const candidates = screen(this.quest, about, {
      keep: Math.max(REFINED, 2 * best.count),
      judged: sought.hold === undefined,
      below: beyond ? Infinity : best.worst + ROUGHLY,
    });
    let settled = 0;
    for (const { set, shares, score } of candidates) {
      if (beyond ? settled > MOST_SETTLED + 2 * best.count : score > best.worst + ROUGHLY) break;
      const key = set.join();
      if (seen.has(key)) continue;
      const exact = nearestShares(palette, set, shares, ranking.target, U, desk);
      if (!exact) continue;
      seen.set(key, exact);
      settled++;
      judge.plan(judge.settle(exact, best), best);
    }
  }
}

/** The best measuring plan of one set of ingredients, by their indices; nothing where it leaves one of them out. */
export const planFor = (palette: Palette, set: readonly number[], sought: Sought): Found | undefined =>
  new Search(questFor(palette, sought), 1).planOf(set);

/**
 * The best measuring plans for a target, one of each set of tubes, best first: which sets can reach it
 * (reckoned along straight lines for all of them), how much of each (Gauss–Newton), and how to measure
 * it (whole parts, let-downs, bodies). Deterministic; follows a pointer when `count` is 1.
 */
export function findPlans(palette: Palette, sought: Sought, count = 1): Found[] {
  const found = new Search(questFor(palette, sought), count).find();
  const heaps = found[0]?.plan.heaps.length ?? 1;
  if (heaps === 1 || sought.hold !== undefined || sought.closest) return found;
  // Who needs no heap first for a little needs none for more of it.
  const mostHeaps = mostHeapsFor(palette, sought);
  if (mostHeaps >= heaps) return found;
  const fewer = new Search(questFor(palette, { ...sought, mostHeaps }), count).find();
  return fewer[0] && fewer[0].score <= found[0]!.score + WORTH_A_HEAP ? fewer : found;
}

/** What a heap that a lesser amount has to do without must gain to be asked for, ΔE00. */
const WORTH_A_HEAP = 0.8;
/** Amounts by which it is judged how many heaps are called for, ml. */
const LESSER_AMOUNTS = [4, 1.5] as const;

/** The fewest heaps in which any lesser amount is best mixed. */
function mostHeapsFor(palette: Palette, sought: Sought): number {
  const { amountMl = USUAL_AMOUNT_ML } = sought;
  const lesser = LESSER_AMOUNTS.find((ml) => ml < amountMl);
  if (lesser === undefined) return Infinity;
  return findPlans(palette, { ...sought, amountMl: lesser }, 1)[0]?.plan.heaps.length ?? Infinity;
}
