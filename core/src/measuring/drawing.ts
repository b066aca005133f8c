import { KNIFE_BORE_MM } from '../mixing/amounts.ts';
import { eachDivision, rungsAbout, type Ratio } from './divisions.ts';
import {
  DOZEN,
  heapEffort,
  heapsFirst,
  layOut,
  leastBead,
  leastTouch,
  NEARLY_A_TOUCH,
  type Layout,
  type PlanHeap,
  type PlanPart,
  type Pull,
  type Tabletop,
} from './measuring.ts';
import type { Shares } from '../laying/shares.ts';
import { WORTH } from '../laying/worth.ts';

/** What a plan must be good at: how it scores a colour that is off by so much, effort left out. */
export interface Judging {
  /** Most whole parts in a heap. */
  readonly most: number;
  readonly table: Tabletop;
  /** Score of a colour by what is missing in the ellipsoid's measure, and by the variance that the hand leaves. */
  readonly score: (l: number, c: number, h: number, variance: number) => number;
  /** Plans that score no lower than this are of no use. */
  readonly below: number;
}

/** A plan on trial. */
export interface Trial {
  readonly score: number;
  readonly heaps: readonly PlanHeap[];
  readonly laid: Layout;
}

/** What stands in the last heap: an ingredient or a heap mixed first, where it pulls, and how much of it is wanted. */
export interface Member {
  readonly of: PlanPart['of'];
  readonly at: number;
  readonly pull: Pull;
  readonly wanted: number;
}

/** A let-down on trial. */
export interface Down {
  readonly tube: number;
  readonly base: number;
  readonly ratio: number;
}

/** Plans on trial that are looked at closely. */
const LOOKED_AT = 2;
/** Heaps mixed first may leave less to the hand than the pile mixed in one: by this share, squared, at least so much is left. */
const LEAST_LEFT = 0.9;

/**
 * A sheet on which measuring plans for one set of ingredients are tried, whose exact shares are known. About
 * these the colour moves in straight lines, so a plan on trial is a weighted mean of pulls.
 */
export class Drawing {
  protected readonly n: number;
  protected readonly shares: Float64Array;
  protected readonly most: number;
  /** Ingredients, the most plentiful first. */
  protected readonly byShare: readonly number[];
  protected readonly pulls: readonly Pull[];
  protected readonly trials: Trial[] = [];
  /** What a further trial must score below. */
  private worst: number;
  /** Where the straight lines meet: what is missing when nothing pulls. */
  protected readonly from: Pull;
  /** Variance that any hand leaves. */
  private readonly leastVariance: number;
  /** Most parts of a heap of which one can be laid. */
  private readonly longest: number;
  /** Least share of the pile that is taken of a heap as a bead. */
  private readonly leastOfHeap: number;
  /** Pulls of the members of the heap in hand, and how much of each is wanted. */
  private readonly held = new Float64Array(3 * MOST_MEMBERS);
  private readonly wanted = new Float64Array(MOST_MEMBERS);

  constructor(
    protected readonly exact: Shares,
    protected readonly judging: Judging,
  ) {
    const { set, shares, off, pulls } = exact;
    this.n = set.length;
    this.shares = shares;
    this.most = judging.most;
    this.worst = judging.below;
    this.pulls = set.map((_, k): Pull => [pulls[3 * k]!, pulls[3 * k + 1]!, pulls[3 * k + 2]!]);
    const mean: [number, number, number] = [0, 0, 0];
    for (let k = 0; k < this.n; k++) for (let row = 0; row < 3; row++) mean[row]! += shares[k]! * this.pulls[k]![row]!;
    this.longest = Math.floor(1 / Math.min(...set.map((_, k) => this.leastBeadOf(k))));
    this.leastOfHeap = leastBead(judging.table, KNIFE_BORE_MM);
    this.from = [off[0] - mean[0], off[1] - mean[1], off[2] - mean[2]];
    let variance = 0;
    for (let k = 0; k < this.n; k++) for (let row = 0; row < 3; row++) variance += (shares[k]! * (this.pulls[k]![row]! - mean[row]!)) ** 2;
    this.leastVariance = LEAST_LEFT * judging.table.hand.bead ** 2 * variance;
    this.byShare = [...shares.keys()].sort((a, b) => shares[b]! - shares[a]!);
  }

  protected readonly ingredient = (k: number, wanted: number): Member => ({ of: 'ingredient', at: k, pull: this.pulls[k]!, wanted });

  /** Least share of the pile that an ingredient can be laid at as a bead. */
  protected leastBeadOf(k: number): number {
    const { table } = this.judging;
    return leastBead(table, table.bores[this.exact.set[k]!]!);
  }

  /** Whether so many heaps mixed first cannot be worth it. */
  protected isHopeless(heaps: number): boolean {
    const { off } = this.exact;
    const ideal = this.judging.score(off[0], off[1], off[2], this.leastVariance);
    const least = ideal + heapsFirst(this.judging.table.worth, heaps) + WORTH.part * (this.n + 2 * heaps);
    return least >= this.worst;
  }

  /** Tries every division of the last heap; what is less than a bead in it is laid as touches. */
  protected divide(first: readonly PlanHeap[], members: readonly Member[]): void {
    const { table } = this.judging;
    const counted: Member[] = [];
    const touched: Member[] = [];
    let whole = 0;
    for (const member of members) whole += member.wanted;
    let touches = 0;
    const touch = leastTouch(table);
    for (const member of members) {
      const share = member.wanted / whole;
      if (share >= (member.of === 'heap' ? this.leastOfHeap : this.leastBeadOf(member.at))) counted.push(member);
      else if (share < touch * NEARLY_A_TOUCH) return;
      else {
        touched.push({ ...member, wanted: Math.max(touch, share) });
        touches += Math.max(touch, share);
      }
    }
    const m = counted.length;
    if (m === 0) return;
    const [x, y, z] = this.from;
    const { held: p, wanted } = this;
    for (let j = 0, q = 0; j < m; j++, q += 3) {
      const { pull } = counted[j]!;
      p[q] = pull[0];
      p[q + 1] = pull[1];
      p[q + 2] = pull[2];
      wanted[j] = counted[j]!.wanted;
    }
    let [tl, tc, th] = [x, y, z];
    for (const { pull, wanted: share } of touched) {
      tl += share * pull[0];
      tc += share * pull[1];
      th += share * pull[2];
    }
    const left = 1 - touches;
    const least = heapsFirst(table.worth, first.length) + WORTH.touch * touched.length;
    eachDivision(
      wanted,
      m,
      this.most,
      (parts, total) => {
        let l = 0;
        let c = 0;
        let h = 0;
        for (let j = 0, q = 0; j < m; j++, q += 3) {
          const n = parts[j]!;
          l += n * p[q]!;
          c += n * p[q + 1]!;
          h += n * p[q + 2]!;
        }
        const by = left / total;
        const effort = least + heapEffort(total);
        this.consider(tl + l * by, tc + c * by, th + h * by, effort, () => [
          ...first,
          [
            ...counted.map(({ of, at }, j): PlanPart => ({ of, at, parts: parts[j]! })),
            ...touched.map(({ of, at, wanted: share }): PlanPart => ({
              of,
              at,
              parts: (share * total) / left,
              touchMl: share * table.amountMl,
            })),
          ],
        ]);
      },
      1,
      (first.length === 0 || m === 2 || table.worth.tries) && this.most >= DOZEN && m > 1 ? this.longest : 0,
    );
  }

  /**
   * Tries a body of whole parts let into its base at the ratios about the one wanted.
   * @param down of a tube in the body, which is mixed before it
   */
  protected letInto(inside: readonly number[], weights: Float64Array, base: number, down?: Down): void {
    const m = inside.length;
    const before = down ? [this.downHeap(down)] : [];
    const pulls = inside.map((k) => (k === down?.tube ? this.downPull(down) : this.pulls[k]!));
    const wanted = inside.map((k) => weights[k]!);
    let body = 0;
    for (const weight of wanted) body += weight;
    const rungs = rungsAbout(weights[base]! / body, this.most);
    const [bl, bc, bh] = this.pulls[base]!;
    const [x, y, z] = this.from;
    const least = heapsFirst(this.judging.table.worth, before.length + 1);
    eachDivision(wanted, m, this.most, (parts, total) => {
      let l = 0;
      let c = 0;
      let h = 0;
      for (let j = 0; j < m; j++) {
        const pull = pulls[j]!;
        l += (parts[j]! / total) * pull[0];
        c += (parts[j]! / total) * pull[1];
        h += (parts[j]! / total) * pull[2];
      }
      for (const rung of rungs) {
        const share = rung.body / (rung.body + rung.base);
        const effort = least + heapEffort(total) + heapEffort(rung.body + rung.base);
        this.consider(x + bl + share * (l - bl), y + bc + share * (c - bc), z + bh + share * (h - bh), effort, () => [
          ...before,
          inside.map((k, j): PlanPart =>
            k === down?.tube ? { of: 'heap', at: before.length - 1, parts: parts[j]! } : { of: 'ingredient', at: k, parts: parts[j]! },
          ),
          this.intoBase(base, rung, before.length),
        ]);
      }
    });
  }

  /** Where a let-down pulls. */
  protected downPull({ tube, base, ratio }: Down): Pull {
    const [one, other] = [this.pulls[tube]!, this.pulls[base]!];
    return [0, 1, 2].map((row) => (one[row]! + ratio * other[row]!) / (1 + ratio)) as unknown as Pull;
  }

  protected readonly downHeap = ({ tube, base, ratio }: Down): PlanPart[] => [
    { of: 'ingredient', at: base, parts: ratio },
    { of: 'ingredient', at: tube, parts: 1 },
  ];

  protected readonly intoBase = (base: number, { body, base: parts }: Ratio, heap: number): PlanPart[] => [
    { of: 'ingredient', at: base, parts },
    { of: 'heap', at: heap, parts: body },
  ];

  /** Looks closer at a plan that comes to a colour off by so much, at least effort: only then is it laid out. */
  protected consider(l: number, c: number, h: number, least: number, draw: () => readonly PlanHeap[]): void {
    const { score, table } = this.judging;
    if (score(l, c, h, this.leastVariance) + least - WORTH.part >= this.worst) return;
    const heaps = draw();
    const laid = layOut(heaps, this.exact.set, this.pulls, table);
    if (!laid) return;
    const own = score(l, c, h, laid.variance) + laid.effort;
    if (own < this.worst) this.keep({ score: own, heaps, laid });
  }

  private keep(trial: Trial): void {
    const { trials } = this;
    let at = trials.length;
    while (at > 0 && trials[at - 1]!.score > trial.score) at--;
    trials.splice(at, 0, trial);
    if (trials.length > LOOKED_AT) trials.pop();
    if (trials.length === LOOKED_AT) this.worst = Math.min(this.worst, trials[LOOKED_AT - 1]!.score);
  }
}

/** Most members of a heap that is divided. */
const MOST_MEMBERS = 7;
