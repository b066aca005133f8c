import { ellipsoidAt, type Matrix3 } from '../colour/ellipse.ts';
import type { Lab } from '../colour/spaces.ts';
import type { Palette } from '../laying/palette.ts';
import { USUAL_AMOUNT_ML, USUAL_HAND, type Hand } from '../mixing/hand.ts';
import { tabletop, type Plan, type Tabletop } from '../measuring/measuring.ts';
import { rankingFor, type Ranking } from '../laying/ranking.ts';
import { desktop, MOST_TOGETHER, type Desktop } from '../laying/shares.ts';
import { CLOSEST, HABIT, inHeaps, NEAR_IN_ONE, noCosts, setCosts, type Dulling, type SetCosts } from '../laying/worth.ts';

/** What is held while the rest gives way: the value, the hue, the chroma, or the least difference of all. */
export const HOLDS = ['value', 'hue', 'chroma', 'all'] as const;
export type Hold = (typeof HOLDS)[number];

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
  /** Most parts in a heap, when less than the palette's limits. */
  readonly parts?: number | undefined;
  readonly dulling?: Dulling | undefined;
  /** Whether tubes that dry slowly are looked for last. */
  readonly soonDry?: boolean | undefined;
  /**
   * Out of reach: what is held while the rest gives way. `all` is the least ΔE00. What cannot be promised
   * and what recipes cost then does not count.
   */
  readonly hold?: Hold | undefined;
  /** How much is to be mixed, in ml, and by what hand: as usual unless said. */
  readonly amountMl?: number | undefined;
  readonly hand?: Hand | undefined;
  /** Most heaps, the pile's own counted. */
  readonly mostHeaps?: number | undefined;
  /** Whether the closest is asked for, whatever work it is, or the closest that one heap gives. */
  readonly closest?: boolean | 'in one heap' | undefined;
}

/** A measuring plan and how it is judged. */
export interface Found {
  readonly plan: Plan;
  /** ΔE00 of what the plan gives. */
  readonly deltaE00: number;
  /** Root mean square of ΔE00 by which true tubes may be expected to miss the prediction. */
  readonly error: number;
  /** Root mean square of ΔE00 by which the hand may be expected to miss it. */
  readonly dosing: number;
  /** Ranking score, ΔE00, lower is better: the expected true difference, value beyond tolerance, and what the recipe costs. */
  readonly score: number;
}

/** How much more weighs what is held while the rest gives way. */
const HELD = 8;

/** Rows of the measure of differences by what they measure. */
const ROW_OF = { value: 0, chroma: 3, hue: 6 } as const;

export function heldIn(U: Matrix3, hold: Sought['hold']): Matrix3 {
  if (hold === undefined || hold === 'all') return U;
  for (let i = ROW_OF[hold]; i < ROW_OF[hold] + 3; i++) U[i]! *= HELD;
  return U;
}

/** What a search goes by from its first step to its last: a target, its measure, and room to reckon. */
export interface Quest {
  readonly palette: Palette;
  readonly sought: Sought;
  readonly ranking: Ranking;
  /** The measure of differences from the target: |U·ΔLab| ≈ ΔE00, what is held weighing more. */
  readonly U: Matrix3;
  readonly costs: SetCosts;
  readonly desk: Desktop;
  /** Most parts in a heap, and most ingredients in a recipe. */
  readonly parts: number;
  readonly most: number;
  readonly usable: readonly number[];
  readonly mustUse: readonly number[];
  readonly table: Tabletop;
}

/** Sets out to find recipes. */
export function questFor(palette: Palette, sought: Sought): Quest {
  const { target, valueTolerance, usable, mustUse = [], most, parts = palette.limits.parts, dulling, hold } = sought;
  const { amountMl = USUAL_AMOUNT_ML, hand = USUAL_HAND, closest = false } = sought;
  const ordinary = closest === 'in one heap' ? NEAR_IN_ONE : closest || hold ? CLOSEST : HABIT;
  const worth = sought.mostHeaps === undefined ? ordinary : inHeaps(ordinary, sought.mostHeaps);
  return {
    palette,
    sought,
    ranking: rankingFor(target, valueTolerance),
    U: heldIn(ellipsoidAt(target), hold),
    costs: hold ? noCosts(palette) : setCosts(palette, target, dulling, sought.soonDry, worth),
    desk: desktop(),
    parts: Math.min(palette.limits.parts, parts),
    most: Math.min(palette.limits.tubes, palette.limits.parts, parts, most ?? MOST_TOGETHER, MOST_TOGETHER),
    usable: usable ?? palette.ingredients.map((_, i) => i),
    mustUse,
    table: tabletop(palette, amountMl, hand, worth),
  };
}

/** The best plans found, so many as are asked for; some more stand behind them. */
export class Best {
  readonly found: Found[] = [];
  constructor(readonly count: number) {}

  /** Score that a further plan must stay below; anything does while there are too few. */
  get worst(): number {
    return this.found[this.count - 1]?.score ?? Infinity;
  }
  offer(one: Found): void {
    const { found, count } = this;
    let at = found.length;
    while (at > 0 && found[at - 1]!.score > one.score) at--;
    found.splice(at, 0, one);
    if (found.length > 2 * count) found.length = 2 * count;
  }
}
