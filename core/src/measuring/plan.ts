import { KNIFE_BORE_MM } from '../mixing/amounts.ts';
import { dosingOf } from '../mixing/hand.ts';
import { eachDivision, rungsAbout, thinRungsAbout } from './divisions.ts';
import { Drawing, type Down, type Judging, type Member, type Trial } from './drawing.ts';
import {
  heapEffort,
  heapsFirst,
  leastTouch,
  LETDOWN_RATIOS,
  sharesIn,
  withTouches,
  type Plan,
  type PlanHeap,
  type PlanPart,
  type Pull,
} from './measuring.ts';
import type { Palette } from '../laying/palette.ts';
import { mixInto, type Desktop, type Shares } from '../laying/shares.ts';

/** Ratios of let-downs, coarser, where two are tried together. */
const COARSE_RATIOS = [3, 5, 9, 14, 19] as const;
/** Of the weakest let-down so little may be wanted that the knife's tip does. */
const WEAKEST = 19;
/** A tube of which no bead longer than this would be laid may be let down, alone and beside another, in shortest beads. */
const SCARCE = 3;
const VERY_SCARCE = 1.5;
/** Share of the pile that a let-down may come to: at least, at most, and at most where several are tried together. */
const FEWEST = 0.05;
const MANY = 0.5;
const FEW = 0.3;
/** A base is left out of the last heap where less than this share of it is still wanted. */
const NO_MORE_OF_IT = 0.035;
/** The base of a let-down may bring a little more of itself than is wanted. */
const MORE_OF_BASE = 1.15;

/** Draws up measuring plans for one set of ingredients whose exact shares are known. */
class Plans extends Drawing {
  /** Every kind of plan, simple ones first, as long as a more laborious kind can still be better. */
  draw(): readonly Trial[] {
    this.divide(
      [],
      this.exact.set.map((_, k) => this.ingredient(k, this.shares[k]!)),
    );
    if (this.n === 1 || this.n > MOST_WITH_HEAPS || this.isHopeless(1)) return this.trials;
    for (const down of this.letDowns(this.byShare.slice(0, 2))) this.withLetDowns([down]);
    if (this.n > 2) this.letInto(this.byShare.slice(1), this.shares, this.byShare[0]!);
    if (this.n > 2 && !this.isHopeless(1)) this.scarcePairs(1);
    if (this.isHopeless(2)) return this.trials;
    const downs = this.letDowns(this.byShare.slice(0, 1), COARSE_RATIOS, VERY_SCARCE, FEW);
    for (const one of downs) for (const other of downs) if (one.tube < other.tube) this.withLetDowns([one, other]);
    if (this.n > 2) this.letDownBodies();
    if (this.n > 2) this.bodiesLetDown();
    if (this.n > 2 && !this.isHopeless(2)) this.scarcePairs(2);
    return this.trials;
  }

  private isScarce = (k: number, scarce: number): boolean => this.shares[k]! < scarce * this.leastBeadOf(k);

  /** Let-downs that are of use: of scarce tubes, at ratios that make enough of them and leave the base what it needs. */
  private letDowns(bases: readonly number[], ratios: readonly number[] = LETDOWN_RATIOS, scarce = SCARCE, most = MANY): Down[] {
    const { shares } = this;
    const found: Down[] = [];
    const touch = leastTouch(this.judging.table);
    for (const tube of this.byShare) {
      if (!this.isScarce(tube, scarce)) continue;
      for (const base of bases) {
        if (base === tube) continue;
        for (const ratio of ratios) {
          const taken = shares[tube]! * (1 + ratio);
          if (taken < FEWEST && (ratio < WEAKEST || taken < touch)) continue;
          if (taken <= most && shares[tube]! * ratio <= shares[base]! * MORE_OF_BASE) found.push({ tube, base, ratio });
        }
      }
    }
    return found;
  }

  /** The last heap with some tubes replaced by their let-downs; a base is left out where they bring all of it. */
  private withLetDowns(downs: readonly Down[]): void {
    const { shares } = this;
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
      if (!isBase || left > NO_MORE_OF_IT) members.push(this.ingredient(k, left));
    }
    this.divide(downs.map(this.downHeap), members);
  }

  /**
   * Two scarce tubes weakened together, then used beside the rest: in one heap with a base, or as a body
   * of their own that is then let down.
   */
  private scarcePairs(heaps: 1 | 2): void {
    const scarce = this.byShare.filter((k) => this.isScarce(k, VERY_SCARCE));
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
    const pulls = pair.map((k) => this.pulls[k]!);
    const basePull = this.pulls[base]!;
    const divided = (division: ArrayLike<number>, total: number): void => {
      const body = pair.map((k, j): PlanPart => ({ of: 'ingredient', at: k, parts: division[j]! }));
      for (const ratio of COARSE_RATIOS) {
        const wanted = amount * (1 + ratio);
        if (
          (wanted < FEWEST && (ratio < WEAKEST || wanted < leastTouch(this.judging.table))) ||
          wanted > MANY ||
          amount * ratio > shares[base]! * MORE_OF_BASE
        )
          continue;
        const pull = [0, 1, 2].map((row) => {
          const strong = (body[0]!.parts * pulls[0]![row]! + body[1]!.parts * pulls[1]![row]!) / total;
          return (strong + ratio * basePull[row]!) / (1 + ratio);
        }) as unknown as Pull;
        const members: Member[] = [{ of: 'heap', at: heaps - 1, pull, wanted }];
        for (let k = 0; k < this.n; k++) {
          if (pair.includes(k)) continue;
          const left = shares[k]! - (k === base ? amount * ratio : 0);
          if (k !== base || left > NO_MORE_OF_IT) members.push(this.ingredient(k, left));
        }
        const first: PlanPart[][] =
          heaps === 1
            ? [[{ of: 'ingredient', at: base, parts: ratio * total }, ...body]]
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
    eachDivision([shares[pair[0]]!, shares[pair[1]]!], 2, heaps === 1 ? Math.min(4, most - 2) : Math.min(6, most), divided);
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

  /** A body let down once in the base, and its let-down let into more of it: near-whites. */
  private bodiesLetDown(): void {
    const { byShare, shares } = this;
    const base = byShare[0]!;
    const inside = byShare.slice(1);
    const strength = (1 - shares[base]!) / shares[base]!;
    if (strength > 1 / 8) return;
    const wanted = inside.map((k) => shares[k]!);
    const m = inside.length;
    const [bl, bc, bh] = this.pulls[base]!;
    const [x, y, z] = this.from;
    const pulls = inside.map((k) => this.pulls[k]!);
    const least = heapsFirst(this.judging.table.worth, 2);
    for (const ratio of COARSE_RATIOS) {
      const rest = (1 / strength + 1) / (ratio + 1) - 1;
      if (rest < 0.08) break;
      // Where hardly anything of it is wanted the knife's tip takes it up.
      const share = 1 / (rest + 1);
      if (share < leastTouch(this.judging.table)) continue;
      const touchMl = share * this.judging.table.amountMl;
      const isTouch = dosingOf(touchMl, KNIFE_BORE_MM).how === 'touch';
      const rungs = isTouch ? [{ body: 1, base: rest }] : rungsAbout(rest, this.most);
      eachDivision(wanted, m, this.most, (parts, total) => {
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
          const effort = least + heapEffort(total) + heapEffort(1 + ratio) + heapEffort(rung.body + rung.base);
          this.consider(x + bl + share * (l - bl), y + bc + share * (c - bc), z + bh + share * (h - bh), effort, (): PlanHeap[] => [
            inside.map((k, j): PlanPart => ({ of: 'ingredient', at: k, parts: parts[j]! })),
            [
              { of: 'ingredient', at: base, parts: ratio },
              { of: 'heap', at: 0, parts: 1 },
            ],
            isTouch
              ? [
                  { of: 'ingredient', at: base, parts: 1 },
                  { of: 'heap', at: 1, parts: 1 / rest, touchMl },
                ]
              : this.intoBase(base, rung, 1),
          ]);
        }
      });
    }
  }
}

/** Larger sets are measured in one heap. */
const MOST_WITH_HEAPS = 4;

/**
 * The measuring plans that come nearest to exact shares for the least effort, each seen by the eye.
 */
export function drawPlans(palette: Palette, exact: Shares, judging: Judging, desk: Desktop): Plan[] {
  const { set } = exact;
  return new Plans(exact, judging).draw().map(({ heaps, laid: { effort, variance } }) => {
    const shares = sharesIn(heaps, set.length);
    mixInto(desk, palette, set, shares);
    return {
      set,
      heaps: withTouches(heaps, set, judging.table),
      shares,
      lab: palette.eye.see(desk.mixed),
      effort,
      dosing: Math.sqrt(variance),
    };
  });
}
