import { colourName } from '../colour/names.ts';
import { deltaE00, type Delta } from '../colour/difference.ts';
import { hueDifference, labToLch, type Lab } from '../colour/spaces.ts';
import { valueOfColour } from '../colour/value.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixerOf } from '../paint/mixer.ts';

/** What two wet colours become where a brush joins them. */
export interface WetBlend {
  /** From the one to the other, both among them. */
  readonly steps: readonly Lab[];
  /** Where it goes that lies between neither: mud, or another hue. */
  readonly warns?: 'mud' | 'another hue';
  /** The colour that is warned of, and what a painter calls it. */
  readonly by?: { readonly lab: Lab; readonly name: string };
}

/** Shares of the other that are looked at: a brush makes all of them. */
const LOOKED_AT = 16;
/** Chroma that both must have for what lies between to be called mud, and the share of it that is left then. */
const COLOURED = 12;
const MUD_LEAVES = 0.45;
/** Hues further apart than this dull one another on purpose or not; nearer ones never go to mud. */
const OPPOSED = 60;
/** Chroma and degrees beyond either end from which a hue is another. */
const HUED = 9;
const STRAYS = 28;

/** A colour between two, wet paint into wet paint, at shares of the other. */
const between = (one: PaintCurves, other: PaintCurves): ((share: number) => Lab) => {
  const mix = mixerOf([one, other]);
  return (share) => mix([1 - share, share]);
};

/** How far a hue lies outside the way from one to another, the shorter way round; degrees. */
function astray(hue: number, from: number, to: number): number {
  const way = hueDifference(from, to);
  const at = hueDifference(from, hue);
  if (way * at >= 0 && Math.abs(at) <= Math.abs(way)) return 0;
  return Math.min(Math.abs(at), Math.abs(hueDifference(to, hue)));
}

/**
 * The strip that a brush makes of two wet colours laid side by side, and what it warns of: mud, where two
 * strong colours lose themselves in a grey; another hue, where a third colour comes up between them.
 * @param n steps that are given, both ends among them
 */
export function wetBlend(one: PaintCurves, other: PaintCurves, n = 9): WetBlend {
  const at = between(one, other);
  const steps = Array.from({ length: n }, (_, i) => at(i / (n - 1)));
  const [, C1, h1] = labToLch(at(0));
  const [, C2, h2] = labToLch(at(1));
  const inside = Array.from({ length: LOOKED_AT - 1 }, (_, i) => at((i + 1) / LOOKED_AT)).map((lab) => ({ lab, lch: labToLch(lab) }));
  const [dullest] = [...inside].sort((a, b) => a.lch[1] - b.lch[1]);
  const isMud = Math.min(C1, C2) > COLOURED && Math.abs(hueDifference(h1, h2)) > OPPOSED && dullest!.lch[1] < MUD_LEAVES * Math.min(C1, C2);
  if (isMud) return { steps, warns: 'mud', by: { lab: dullest!.lab, name: colourName(dullest!.lab) } };
  // A nearly grey end has no hue to stray from.
  const from = C1 < HUED ? h2 : h1;
  const to = C2 < HUED ? h1 : h2;
  const strays = inside
    .filter(({ lch: [, C] }) => C > HUED && Math.max(C1, C2) > HUED)
    .map((one) => ({ ...one, by: astray(one.lch[2], from, to) }))
    .sort((a, b) => b.by - a.by)[0];
  if (strays && strays.by > STRAYS) return { steps, warns: 'another hue', by: { lab: strays.lab, name: colourName(strays.lab) } };
  return { steps };
}

/** Steps of a row that a brush makes between two piles of it. */
export interface Joined {
  readonly from: number;
  readonly to: number;
  /** For each place between: the share of the pile at `to`, and the colour. */
  readonly steps: readonly { readonly at: number; readonly share: number; readonly lab: Lab }[];
  readonly warns?: WetBlend['warns'];
  readonly by?: WetBlend['by'];
}

/** A row of which only some piles are mixed; a brush does the rest. */
export interface Brushed {
  /** Places of the piles that are mixed. */
  readonly piles: readonly number[];
  readonly joins: readonly Joined[];
}

/** ΔE00 and value steps by which what a brush makes may be off from the step that was planned. */
const OFF_BY: Delta = 3;
const VALUE_OFF_BY = 0.2;
/** Halvings by which the share of a step is found. */
const HALVINGS = 24;

/** The share of the other at which a blend has a value; blends go evenly from light to dark, or nearly. */
function shareAt(at: (share: number) => Lab, value: number): number {
  const rises = valueOfColour(at(1)) > valueOfColour(at(0));
  let low = 0;
  let high = 1;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (valueOfColour(at(middle)) > value === rises) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/** What a brush makes between two piles of a row, a step for each place between them, by value. */
export function joinBetween(one: PaintCurves, other: PaintCurves, targets: readonly Lab[], from: number, to: number): Joined {
  const at = between(one, other);
  const ends = Math.abs(valueOfColour(at(1)) - valueOfColour(at(0)));
  const steps = Array.from({ length: to - from - 1 }, (_, i) => {
    const place = from + 1 + i;
    // Of one value, the way goes by places alone.
    const share = ends < VALUE_OFF_BY ? (place - from) / (to - from) : shareAt(at, valueOfColour(targets[place]!));
    return { at: place, share, lab: at(share) };
  });
  const { warns, by } = wetBlend(one, other);
  return { from, to, steps, ...(warns && { warns, by }) };
}

/** The same, where it comes near every step that was planned; else nothing. */
function joined(paints: readonly PaintCurves[], targets: readonly Lab[], from: number, to: number): Joined | undefined {
  const join = joinBetween(paints[from]!, paints[to]!, targets, from, to);
  const isNear = join.steps.every(({ at, lab }) => {
    const target = targets[at]!;
    return deltaE00(lab, target) <= OFF_BY && Math.abs(valueOfColour(lab) - valueOfColour(target)) <= VALUE_OFF_BY;
  });
  return isNear ? join : undefined;
}

/**
 * The fewest piles of a row from which a brush makes the others, its ends and whatever must be mixed among
 * them; every step comes within ΔE00 3 and a fifth of a value of what was planned.
 * @param paints of each place; the same length as `targets`
 * @param mustMix places that are mixed in any case: stops of the row
 */
export function brushed(paints: readonly PaintCurves[], targets: readonly Lab[], mustMix: readonly number[] = []): Brushed {
  const n = targets.length;
  // Fewest piles up to each place, and the join that it comes by.
  const fewest: { readonly piles: number; readonly by?: Joined }[] = [{ piles: 1 }];
  for (let to = 1; to < n; to++) {
    let best: { readonly piles: number; readonly by?: Joined } | undefined;
    for (let from = to - 1; from >= 0; from--) {
      const piles = fewest[from]!.piles + 1;
      if (!best || piles < best.piles) {
        const join = joined(paints, targets, from, to);
        if (join) best = { piles, by: join };
      }
      // What is mixed in any case is not brushed over.
      if (mustMix.includes(from)) break;
    }
    fewest.push(best!);
  }
  const joins: Joined[] = [];
  for (let at = n - 1; at > 0; at = fewest[at]!.by!.from) joins.unshift(fewest[at]!.by!);
  return { piles: [0, ...joins.map(({ to }) => to)].slice(0, n), joins };
}
