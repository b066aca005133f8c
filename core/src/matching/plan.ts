import type { Palette } from './palette.ts';
import { eachDivision, rungsAbout, thinRungsAbout, type Ratio } from './divisions.ts';
import { heapEffort, LETDOWN_RATIOS, measuringEffort, sharesIn, type Plan, type PlanPart } from './measuring.ts';
import { mixInto, type Desktop, type Shares } from './shares.ts';
import { WORTH } from './worth.ts';

/** The same, coarser, where two let-downs are tried together. */
const COARSE_RATIOS = [3, 5, 9, 14, 24, 39, 69, 99] as const;
/** Parts of a whole heap below which a tube may be let down, alone and beside another. */
const SCARCE = 2.5;
const VERY_SCARCE = 1.3;
/** Parts of a whole heap that a let-down may come to: at least, at most, and at most where several are tried together. */
const FEWEST = 0.6;
const MANY = 6;
const FEW = 3.4;
/** What a plan must be good at: how it scores a colour that is off by so much, effort left out. */
export interface Judging {
  /** Most parts in a heap. */
  readonly most: number;
  /** Score of a colour by what is missing in the ellipsoid's measure. */
  readonly score: (l: number, c: number, h: number) => number;
  /** Plans that score no lower than this are of no use. */
  readonly below: number;
}

/** Plans on trial that are looked at closely. */
const LOOKED_AT = 2;

/** A more laborious kind of plan is tried where it may gain so much, ΔE00. */
const WORTH_TRYING = 0.12;

/** A plan on trial. */
interface Trial {
  readonly score: number;
  readonly heaps: readonly (readonly PlanPart[])[];
}

/** Three numbers of colour. */
type Pull = readonly [number, number, number];

/** What stands in the last heap: an ingredient or a heap mixed first, where it pulls, and how much of it is wanted. */
interface Member {
  readonly of: PlanPart['of'];
  readonly at: number;
  readonly pull: Pull;
  readonly wanted: number;
}

/** A let-down on trial. */
interface Down {
  readonly tube: number;
  readonly base: number;
  readonly ratio: number;
}

/**
 * Draws up measuring plans for one set of ingredients whose exact shares are known. About these the
 * colour moves in straight lines, so a plan on trial is a weighted mean of pulls.
 */
class Drawing {
  private readonly n: number;
  private readonly shares: Float64Array;
  private readonly trials: Trial[] = [];
  /** What a further trial must score below. */
  private worst: number;
  /** Where the straight lines meet: what is missing when nothing pulls. */
  private readonly from: Pull;
  /** Ingredients, the most plentiful first. */
  private readonly byShare: readonly number[];
  private readonly most: number;
  /** Pulls of the members of the heap in hand, and how much of each is wanted. */
  private readonly pulls = new Float64Array(18);
  private readonly wanted = new Float64Array(6);

  constructor(
    private readonly exact: Shares,
    private readonly judging: Judging,
  ) {
    const { set, shares, off, pulls } = exact;
    this.n = set.length;
    this.shares = shares;
    this.most = judging.most;
    this.worst = judging.below;
    const from: [number, number, number] = [...off];
    for (let k = 0; k < this.n; k++) for (let row = 0; row < 3; row++) from[row]! -= shares[k]! * pulls[3 * k + row]!;
    this.from = from;
    this.byShare = [...shares.keys()].sort((a, b) => shares[b]! - shares[a]!);
  }

  /** Every kind of plan, simple ones first, as long as a more laborious kind can still be better. */
  draw(): readonly Trial[] {
    const ideal = this.judging.score(...this.exact.off);
    const hopeless = (heaps: number): boolean => {
      const least = ideal + WORTH.heap * heaps + WORTH.part * (this.n + 4 * heaps);
      return least + WORTH_TRYING >= Math.min(this.judging.below, this.trials[0]?.score ?? Infinity);
    };
    this.divide(
      [],
      this.exact.set.map((_, k) => this.ingredient(k, this.shares[k]!)),
    );
    if (this.n === 1 || hopeless(1)) return this.trials;
    for (const down of this.letDowns(this.byShare.slice(0, 2))) this.withLetDowns([down]);
    if (this.n > 2) this.bodies();
    if (this.n > 2 && !hopeless(1)) this.scarcePairs(1);
    if (hopeless(2)) return this.trials;
    const downs = this.letDowns(this.byShare.slice(0, 1), COARSE_RATIOS, VERY_SCARCE, FEW);
    for (const one of downs) for (const other of downs) if (one.tube < other.tube) this.withLetDowns([one, other]);
    if (this.n > 2) this.letDownBodies();
    this.bodiesLetDown();
    if (this.n > 2 && !hopeless(2)) this.scarcePairs(2);
    return this.trials;
  }

  private pullOf(k: number): Pull {
    const { pulls } = this.exact;
    return [pulls[3 * k]!, pulls[3 * k + 1]!, pulls[3 * k + 2]!];
  }

  private readonly ingredient = (k: number, wanted: number): Member => ({ of: 'ingredient', at: k, pull: this.pullOf(k), wanted });

  /** Where a let-down pulls. */
  private downPull({ tube, base, ratio }: Down): Pull {
    const [one, other] = [this.pullOf(tube), this.pullOf(base)];
    return [0, 1, 2].map((row) => (one[row]! + ratio * other[row]!) / (1 + ratio)) as unknown as Pull;
  }

  private readonly downHeap = ({ tube, base, ratio }: Down): PlanPart[] => [
    { of: 'ingredient', at: base, parts: ratio },
    { of: 'ingredient', at: tube, parts: 1 },
  ];

  /** Let-downs that are of use: of scarce tubes, at ratios that make whole parts of a heap and leave the base what it needs. */
  private letDowns(bases: readonly number[], ratios: readonly number[] = LETDOWN_RATIOS, scarce = SCARCE, fewAtMost = MANY): Down[] {
    const { shares, most } = this;
    const found: Down[] = [];
    for (const tube of this.byShare) {
      const share = shares[tube]!;
      if (share * most >= scarce) continue;
      for (const base of bases) {
        if (base === tube) continue;
        for (const ratio of ratios) {
          const taken = share * (1 + ratio);
          if (taken * most >= FEWEST && taken * most <= fewAtMost && share * ratio <= shares[base]! * 1.15)
            found.push({ tube, base, ratio });
        }
      }
    }
    return found;
  }

  /** The last heap with some tubes replaced by their let-downs; a base is left out where they bring all of it. */
  private withLetDowns(downs: readonly Down[]): void {
    const { shares, most } = this;
    const members = downs.map((down, at): Member => {
      const wanted = shares[down.tube]! * (1 + down.ratio);
      return { of: 'heap', at, pull: this.downPull(down), wanted };
    });
    for (let k = 0; k < this.n; k++) {
      if (downs.some(({ tube }) => tube === k)) continue;
      let left = shares[k]!;
      let isBase = false;
      for (const { tube, base, ratio } of downs)
        if (base === k) {
          isBase = true;
          left -= ratio * shares[tube]!;
        }
      if (left * most > 0.4) members.push(this.ingredient(k, left));
      // Without another ingredient it is a smaller set.
      else if (!isBase) return;
    }
    this.divide(downs.map(this.downHeap), members);
  }

  /** Tries every division of the last heap. */
  private divide(first: readonly (readonly PlanPart[])[], members: readonly Member[]): void {
    const m = members.length;
    const effort = this.effortOf(first);
    const [x, y, z] = this.from;
    const { pulls: p, wanted, judging } = this;
    for (let j = 0, q = 0; j < m; j++, q += 3) {
      const { pull } = members[j]!;
      p[q] = pull[0];
      p[q + 1] = pull[1];
      p[q + 2] = pull[2];
      wanted[j] = members[j]!.wanted;
    }
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
        const score = judging.score(x + l / total, y + c / total, z + h / total) + effort + WORTH.part * total;
        if (score < this.worst) this.keep(score, [...first, members.map(({ of, at }, j) => ({ of, at, parts: parts[j]! }))]);
      },
      1,
    );
  }

  /** What heaps mixed first cost, and having a pile at all. */
  private effortOf(first: readonly (readonly PlanPart[])[]): number {
    let effort = WORTH.heap * first.length - WORTH.part;
    for (const heap of first) {
      let whole = 0;
      for (const { parts } of heap) whole += parts;
      effort += heapEffort(whole);
    }
    return effort;
  }

  /** A body of all but the base, mixed strong, then let into it. */
  private bodies(): void {
    this.letInto(this.byShare.slice(1), this.shares, this.byShare[0]!);
  }

  /**
   * Two scarce tubes weakened together, then used beside the rest: in one heap with a base, or as a body
   * of their own that is then let down.
   */
  private scarcePairs(heaps: 1 | 2): void {
    const { shares, most } = this;
    const scarce = this.byShare.filter((k) => shares[k]! * most < VERY_SCARCE);
    for (let i = 0; i < scarce.length; i++)
      for (let j = i + 1; j < scarce.length; j++)
        for (const base of this.byShare.slice(0, heaps === 1 ? 1 : 2)) {
          const pair = [scarce[i]!, scarce[j]!] as const;
          if (!pair.includes(base)) this.weakenTogether(pair, base, heaps);
        }
  }

  private weakenTogether(pair: readonly [number, number], base: number, heaps: 1 | 2): void {
    const { shares, most } = this;
    const amount = shares[pair[0]]! + shares[pair[1]]!;
    const pulls = pair.map((k) => this.pullOf(k));
    const basePull = this.pullOf(base);
    const divided = (division: ArrayLike<number>, total: number): void => {
      const body = pair.map((k, j): PlanPart => ({ of: 'ingredient', at: k, parts: division[j]! }));
      const ratios = heaps === 1 ? Array.from({ length: most - total }, (_, q) => (q + 1) / total) : COARSE_RATIOS;
      for (const ratio of ratios) {
        const wanted = amount * (1 + ratio);
        if (wanted * most < FEWEST || wanted * most > FEW || amount * ratio > shares[base]! * 1.15) continue;
        const pull = [0, 1, 2].map((row) => {
          const strong = (body[0]!.parts * pulls[0]![row]! + body[1]!.parts * pulls[1]![row]!) / total;
          return (strong + ratio * basePull[row]!) / (1 + ratio);
        }) as unknown as Pull;
        const members: Member[] = [{ of: 'heap', at: heaps - 1, pull, wanted }];
        for (let k = 0; k < this.n; k++) {
          if (pair.includes(k)) continue;
          const left = shares[k]! - (k === base ? amount * ratio : 0);
          if (left * most > 0.4) members.push(this.ingredient(k, left));
          else if (k !== base) return;
        }
        const first: PlanPart[][] =
          heaps === 1
            ? [[{ of: 'ingredient', at: base, parts: Math.round(ratio * total) }, ...body]]
            : [
                body,
                [
                  { of: 'ingredient', at: base, parts: ratio },
                  { of: 'heap', at: 0, parts: 1 },
                ],
              ];
        this.divide(first, members);
      }
    };
    eachDivision([shares[pair[0]]!, shares[pair[1]]!], 2, heaps === 1 ? Math.min(5, most - 2) : most, divided);
    // The scarcer may be far scarcer: let down in the other first.
    if (heaps === 2)
      for (const { body: few, base: many } of thinRungsAbout(shares[pair[0]]! / shares[pair[1]]!, most)) divided([many, few], few + many);
  }

  /** A body in which the scarcest tube is let down first, with the base or with the most of the body. */
  private letDownBodies(): void {
    const { shares, byShare } = this;
    const tube = byShare.at(-1)!;
    for (const weak of byShare.slice(0, 2)) {
      if (weak === tube) continue;
      for (const ratio of COARSE_RATIOS) {
        const taken = shares[tube]! * ratio;
        if (taken > shares[weak]! * 0.9) break;
        const weights = Float64Array.from(shares);
        weights[weak]! -= taken;
        weights[tube]! += taken;
        this.letInto(byShare.slice(1), weights, byShare[0]!, { tube, base: weak, ratio });
      }
    }
  }

  /**
   * Tries a body of whole parts let into its base at the ratios about the one wanted.
   * @param down of a tube in the body, which is mixed before it
   */
  private letInto(inside: readonly number[], weights: Float64Array, base: number, down?: Down): void {
    const m = inside.length;
    const before = down ? [this.downHeap(down)] : [];
    const pulls = inside.map((k) => (k === down?.tube ? this.downPull(down) : this.pullOf(k)));
    const wanted = inside.map((k) => weights[k]!);
    let body = 0;
    for (const weight of wanted) body += weight;
    const rungs = rungsAbout(weights[base]! / body, this.most);
    const [bl, bc, bh] = this.pullOf(base);
    const [x, y, z] = this.from;
    const effort = this.effortOf(before) + WORTH.heap;
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
        const colour = this.judging.score(x + bl + share * (l - bl), y + bc + share * (c - bc), z + bh + share * (h - bh));
        const score = colour + effort + WORTH.part * total + heapEffort(rung.body + rung.base);
        if (score >= this.worst) continue;
        const heap = inside.map((k, j): PlanPart =>
          k === down?.tube ? { of: 'heap', at: before.length - 1, parts: parts[j]! } : { of: 'ingredient', at: k, parts: parts[j]! },
        );
        this.keep(score, [...before, heap, this.intoBase(base, rung, before.length)]);
      }
    });
  }

  private readonly intoBase = (base: number, { body, base: parts }: Ratio, heap: number): PlanPart[] => [
    { of: 'ingredient', at: base, parts },
    { of: 'heap', at: heap, parts: body },
  ];

  /** A body let down once in the base, and its let-down let into more of it: near-whites. */
  private bodiesLetDown(): void {
    const { byShare, shares } = this;
    const base = byShare[0]!;
    const inside = byShare.slice(1);
    const strength = (1 - shares[base]!) / shares[base]!;
    if (strength > 1 / 8) return;
    const wanted = inside.map((k) => shares[k]!);
    const m = inside.length;
    const [bl, bc, bh] = this.pullOf(base);
    const [x, y, z] = this.from;
    const pulls = inside.map((k) => this.pullOf(k));
    for (const ratio of [9, 11, 19, 29, 49, 99]) {
      const rest = (1 / strength + 1) / (ratio + 1) - 1;
      if (rest < 0.08) break;
      const rungs = rungsAbout(rest, this.most);
      eachDivision(wanted, m, m === 1 ? 1 : this.most, (parts, total) => {
        let l = 0;
        let c = 0;
        let h = 0;
        for (let j = 0; j < m; j++) {
          l += (parts[j]! / total) * pulls[j]![0];
          c += (parts[j]! / total) * pulls[j]![1];
          h += (parts[j]! / total) * pulls[j]![2];
        }
        for (const rung of rungs) {
          const share = rung.body / (rung.body + rung.base) / (1 + ratio);
          const colour = this.judging.score(x + bl + share * (l - bl), y + bc + share * (c - bc), z + bh + share * (h - bh));
          const effort = WORTH.heap * (m === 1 ? 1 : 2) - WORTH.part + (m === 1 ? 0 : heapEffort(total)) + heapEffort(1 + ratio);
          const score = colour + effort + heapEffort(rung.body + rung.base);
          if (score >= this.worst) continue;
          const body = inside.map((k, j): PlanPart => ({ of: 'ingredient', at: k, parts: parts[j]! }));
          const weak: PlanPart[] = [
            { of: 'ingredient', at: base, parts: ratio },
            m === 1 ? { of: 'ingredient', at: inside[0]!, parts: 1 } : { of: 'heap', at: 0, parts: 1 },
          ];
          const first = m === 1 ? [weak] : [body, weak];
          this.keep(score, [...first, this.intoBase(base, rung, first.length - 1)]);
        }
      });
    }
  }

  private keep(score: number, heaps: readonly (readonly PlanPart[])[]): void {
    const { trials } = this;
    let at = trials.length;
    while (at > 0 && trials[at - 1]!.score > score) at--;
    trials.splice(at, 0, { score, heaps });
    if (trials.length > LOOKED_AT) trials.pop();
    if (trials.length === LOOKED_AT) this.worst = Math.min(this.worst, trials[LOOKED_AT - 1]!.score);
  }
}

/**
 * The measuring plans that come nearest to exact shares for the least effort, each seen by the eye.
 */
export function drawPlans(palette: Palette, exact: Shares, judging: Judging, desk: Desktop): Plan[] {
  return new Drawing(exact, judging).draw().map(({ heaps }) => {
    const shares = sharesIn(heaps, exact.set.length);
    mixInto(desk, palette, exact.set, shares);
    return { set: exact.set, heaps, shares, lab: palette.eye.see(desk.mixed), effort: measuringEffort(heaps) };
  });
}
