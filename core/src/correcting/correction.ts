import { deltaE00, type Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { givesWay } from '../matching/outOfReach.ts';
import { againstTarget } from '../matching/recipe.ts';
import { layPalette } from '../laying/palette.ts';
import { closeness } from '../matching/closeness.ts';
import { NEAR_REACH, reachOf, type Reach } from '../matching/passing.ts';
import { best } from '../matching/solve.ts';
import { IN_REACH } from '../laying/worth.ts';
import { mixCurves } from '../paint/mix.ts';
import { mixerOf } from '../paint/mixer.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import type { Millilitres } from '../mixing/units.ts';
import { mixingOrder } from '../mixing/order.ts';
import { MOST_GROWTH, waysToAdd, type Additions, type LyingPile, type MeasuredDose } from './additions.ts';
import { asSeen } from './asSeen.ts';
import { believed, type Beliefs } from './beliefs.ts';
import type { Addable, Dose, Stage } from './evidence.ts';
import { learn } from './learn.ts';

/** A pile that came out wrong, and what there is to put it right with. */
export interface WrongPile {
  /** What was added so far, with the looks that were observed. */
  readonly stages: readonly Stage[];
  readonly target: Lab;
  /** What is believed of the tubes before this pile. */
  readonly beliefs: Beliefs;
  /** Tubes that may be added. */
  readonly palette: readonly Addable[];
  /** Piles that may be added, as they look. */
  readonly piles?: readonly Addable[];
  /** Tubes that are in the pile but not on the palette. */
  readonly others?: readonly Addable[];
  /** Largest size of the new pile, in sizes of the old. */
  readonly mostGrowth?: number;
  /** How much paint a part is; that of a pile of the usual amount unless it is said. */
  readonly partMl?: Millilitres | undefined;
  /** Whether the painter says that it is off: then there is something to add, however little the reckoning makes of it. */
  readonly insists?: boolean;
}

/** One thing that is added, in mixing order, and what the pile looks like then. */
export interface AddingStep extends MeasuredDose {
  readonly lab: Lab;
}

/** One way of putting a pile right. */
export interface Way extends Additions {
  /** Its additions in mixing order. */
  readonly steps: readonly AddingStep[];
  /** ΔE00 from the target once it is done. */
  readonly deltaE00: number;
  readonly reach: Reach;
  /** What gives way where the tubes do not reach, largest first. */
  readonly givesWay: readonly string[];
  /** How near it comes, in words: a way that ends as far off, or on the other side, says so. */
  readonly comes: string;
  /** What this way is better at than the first. */
  readonly betterAt: string;
  /** Taking only part of the pile, when the whole would grow too large: how much to keep and what to add to that. */
  readonly part?: { readonly keep: number; readonly add: readonly Dose[] };
}

/** What to do with a pile that came out wrong. */
export interface Correction extends Additions {
  /** ΔE00 between what was seen and the target. */
  readonly off: number;
  /** The same as it is believed to be, the reading's own offset and noise taken off. */
  readonly believedOff: number;
  readonly advice: 'leave it' | 'add' | 'start again with part of it';
  /** Whether the look is further off than tubes, knife and reading allow: this pile, this light? It teaches little until it is confirmed. */
  readonly isStrange?: boolean;
  /** Whether it would be left but for the painter's word: a touch, perhaps; it may be the screen. */
  readonly onlySaid?: boolean;
  readonly part?: Way['part'];
  readonly reach: Reach;
  readonly givesWay: readonly string[];
  /** Whether these tubes reach the target from the start, where no addition brings the pile to it: mix it anew, and make this a different pile. */
  readonly anew?: Reach;
  /** Really different ways, the best first; none when the pile is to be left. */
  readonly ways: readonly Way[];
  /** What is now believed of the tubes, for the next pile. */
  readonly beliefs: Beliefs;
}

/** Within this ΔE00 a pile passes; adding more would only chase the reading's noise. */
const GOOD_ENOUGH = 1;
/** Read to be off by more than this, a pile is not left, whatever is believed of the reading. */
const MOST_READ = 3;
/** Standard deviations of what is unsure that a pile must come nearer by: about one addition in ten then makes it worse. */
const SURELY = 1.28;
/** Share of the way it goes that an addition is off by: strengths and doses. */
const STRAYING = 0.15;
/** From this size on part of the pile with its additions is less paint. */
const TOO_LARGE = 2;
/** Shares of a pile that may be kept, and the size that what is kept grows to, in sizes of the whole. */
const SHARES = [1 / 2, 1 / 3, 1 / 4, 1 / 6, 1 / 8] as const;
const GROWS_TO = 1.5;
/** ΔE00 that taking only part of a pile must gain. */
const WORTH_PARTING = 0.5;
/** Ways on offer, and ways that are looked through for them. */
const OFFERED = 3;
const LOOKED_THROUGH = 40;
/** ΔE00 another way may stay further off than the first. */
const WORSE_AT_MOST = 1.5;
/** How much a dose may be off, as a share of itself, where steadiness is reckoned. */
const DOSING = 0.1;

/** A pile that is there, as it is believed to be. */
interface PileThere extends LyingPile {
  readonly id: string;
}

const tubesOf = ({ add }: Additions): string =>
  add
    .map((dose) => dose.id)
    .sort()
    .join();

/** Curves of what is measured: a tube, a pile, or a tube let down. */
function paintOfDose({ id, letDown }: MeasuredDose, addables: readonly Addable[]): PaintCurves {
  const paint = addables.find((t) => t.id === id)!;
  if (!letDown) return paint;
  const base = addables.find((t) => t.id === letDown.base)!;
  return mixCurves([
    { paint: base, parts: letDown.ratio },
    { paint, parts: 1 },
  ]);
}

/** A pile with some additions: its colour for any parts of them, what cannot be explained carried along. */
function withAdditions(pile: PileThere, doses: readonly MeasuredDose[], addables: readonly Addable[]): (parts: readonly number[]) => Lab {
  const mix = mixerOf([pile, ...doses.map((dose) => paintOfDose(dose, addables))]);
  const [rL, ra, rb] = pile.residual ?? [0, 0, 0];
  return (parts) => {
    const share = pile.parts / parts.reduce((sum, n) => sum + n, pile.parts);
    const [L, a, b] = mix([pile.parts, ...parts]);
    return [L + rL * share, a + ra * share, b + rb * share];
  };
}

/** How far the pile's colour moves when each dose in turn is a tenth too much. */
function unsteadiness(pile: PileThere, { measured, lab }: Additions, addables: readonly Addable[]): number {
  const look = withAdditions(pile, measured, addables);
  const squares = measured.map((_, i) => deltaE00(lab, look(measured.map((dose, k) => dose.parts * (k === i ? 1 + DOSING : 1)))) ** 2);
  return Math.sqrt(squares.reduce((s, v) => s + v, 0));
}

/** What another way can be better at, and by how much it must be to say so. */
const MERITS: readonly { readonly name: string; readonly gain: (other: Judged, first: Judged) => number }[] = [
  { name: 'fewer tubes', gain: (a, b) => b.way.add.length - a.way.add.length },
  { name: 'less paint', gain: (a, b) => (b.way.growth - 1) * 0.7 - (a.way.growth - 1) },
  { name: 'steadier', gain: (a, b) => b.unsteady * 0.7 - a.unsteady },
];

interface Judged {
  readonly way: Additions;
  readonly unsteady: number;
}

/** How much of what was said an addition does: 1 is the target, 2 as far off on the other side. */
function doneOf(seen: Lab, target: Lab, then: Lab): number {
  const said = target.map((v, k) => v - seen[k]!);
  return said.reduce((sum, v, k) => sum + v * (then[k]! - seen[k]!), 0) / said.reduce((sum, v) => sum + v * v, 0);
}

/** Share of what a pile was off by that an addition may leave and still be called nearer; what ends nearer than this needs no such word. */
const HARDLY = 0.85;
const NEAR_ENOUGH: Delta = 0.5;
/** How much of the way to the target is past it. */
const PAST = 1.5;

/** How near a way comes, in words. */
function comesTo(pile: Lab, target: Lab, then: Lab): string {
  const after = deltaE00(target, then);
  if (after <= NEAR_ENOUGH) return closeness(after);
  const isNearer = after < HARDLY * deltaE00(target, pile);
  if (doneOf(pile, target, then) > PAST) return isNearer ? `${closeness(after)}, a little past it` : 'as far off on the other side';
  return isNearer ? closeness(after) : 'hardly nearer';
}

/** The best way and others that are better at something, of different tubes. */
function offers(found: readonly Additions[], pile: PileThere, addables: readonly Addable[], target: Lab): Way[] {
  const judged = found
    .filter((way) => way.add.length > 0)
    .slice(0, LOOKED_THROUGH)
    .map((way): Judged => ({ way, unsteady: unsteadiness(pile, way, addables) }));
  const [first] = judged;
  if (!first) return [];
  const taken = [{ way: first.way, betterAt: 'nearest' }];
  const now = withAdditions(pile, [], [])([]);
  const near = judged.filter(
    ({ way }) => way.mismatchAfter <= first.way.mismatchAfter + WORSE_AT_MOST && deltaE00(target, way.lab) < NEAR_REACH,
  );
  for (const { name, gain } of MERITS) {
    if (taken.length >= OFFERED) break;
    const other = near.find((one) => gain(one, first) > 0 && taken.every((t) => tubesOf(t.way) !== tubesOf(one.way)));
    if (other) taken.push({ way: other.way, betterAt: name });
  }
  return taken.map(({ way, betterAt }): Way => {
    const keep = SHARES.find((share) => share * way.growth <= GROWS_TO) ?? SHARES.at(-1)!;
    const part = { keep, add: way.add.map(({ id, parts }) => ({ id, parts: parts * keep })) };
    return {
      ...way,
      steps: stepsOf(pile, way.measured, addables),
      deltaE00: deltaE00(target, way.lab),
      ...standing(way.lab, target),
      comes: comesTo(now, target, way.lab),
      betterAt,
      ...(way.growth > TOO_LARGE && { part }),
    };
  });
}

/** Additions in the order in which they are best made, with the pile's colour after each. */
function stepsOf(pile: PileThere, add: readonly MeasuredDose[], addables: readonly Addable[]): AddingStep[] {
  const portions = [{ paint: pile, parts: pile.parts }, ...add.map((dose) => ({ paint: paintOfDose(dose, addables), parts: dose.parts }))];
  const ordered = mixingOrder(portions, 0)
    .slice(1)
    .map((i) => add[i - 1]!);
  const look = withAdditions(pile, ordered, addables);
  return ordered.map((dose, step) => ({ ...dose, lab: look(ordered.map(({ parts }, i) => (i <= step ? parts : 0))) }));
}

/** How a colour stands to a target: whether it reaches it, and what gives way where it does not. */
function standing(lab: Lab, target: Lab): { readonly reach: Reach; readonly givesWay: readonly string[] } {
  const against = againstTarget(lab, target);
  return { reach: reachOf(against), givesWay: against.deltaE00 > IN_REACH ? givesWay(against) : [] };
}

/** ΔE00 from which what the painter says is told from nothing. */
const SAID_FROM = 0.2;

/** How far beyond the target additions are sought, in differences from it, where none towards it can be laid. */
const BEYOND = [0, 1, 2, 4, 8] as const;
/** Least share of what was said that an addition does, and ΔE00 that it may come out off by where it does more. */
const MOVES = 0.3;
const MAY_MISS = 1.5;

/**
 * What to add to a pile as it was seen, whatever is believed of it: what the painter says gets an addition. Where
 * nothing that a knife can lay comes nearer, the least that goes the way that was said.
 */
function offersAsSeen(pile: PileThere, believedTo: Lab, seen: Lab, addables: readonly Addable[], target: Lab, mostGrowth: number): Way[] {
  const residual = [0, 1, 2].map((k) => (pile.residual?.[k] ?? 0) + seen[k]! - believedTo[k]!) as unknown as Lab;
  const asSeenNow = { ...pile, residual };
  for (const beyond of BEYOND) {
    const aim = target.map((v, k) => v + beyond * (v - seen[k]!)) as unknown as Lab;
    const { ways } = waysToAdd(asSeenNow, addables, aim, mostGrowth, undefined, true);
    const moving = ways.filter(({ lab }) => {
      const done = doneOf(seen, target, lab);
      return done >= MOVES && (done <= 2 || deltaE00(target, lab) <= MAY_MISS);
    });
    const nearest = moving.sort((one, other) => (beyond === 0 ? 0 : deltaE00(target, one.lab) - deltaE00(target, other.lab)));
    const found = offers(nearest, asSeenNow, addables, target);
    if (found.length > 0) return found;
  }
  return [];
}

/** What to do with a pile that is there, beside what was learnt from it. */
function advise(
  pile: PileThere,
  addables: readonly Addable[],
  palette: readonly Addable[],
  target: Lab,
  seen: Lab | undefined,
  mostGrowth: number,
  unsure: number,
  insists = false,
): Omit<Correction, 'beliefs'> {
  const { ways: whole, mismatchBefore, lab } = waysToAdd(pile, addables, target, mostGrowth);
  const believedOff = deltaE00(target, lab);
  const off = seen ? deltaE00(target, seen) : believedOff;
  // What passes for the target is left where what may be added would as soon make it worse.
  const isUnsure = believedOff <= IN_REACH && !surelyNearer(lab, whole[0]?.lab ?? lab, target, unsure);
  const passes = off <= MOST_READ && (believedOff <= GOOD_ENOUGH || isUnsure);
  const mended = (ways: readonly Additions[]): boolean => ways[0] !== undefined && ways[0].mismatchAfter <= IN_REACH;
  // Where the whole cannot be mended within its room, part of it has more.
  const found = passes || mended(whole) ? whole : better(whole, waysToAdd(pile, addables, target, mostGrowth / SHARES.at(-1)!, whole).ways);
  // What ends as far off on the other side, or hardly nearer, is no correction.
  const nearer = found.filter(({ mismatchAfter }) => mismatchAfter <= Math.max(HARDLY * mismatchBefore, NEAR_ENOUGH));
  const own = passes ? [] : offers(nearer, pile, addables, target);
  // The eye's word holds: where the reckoning would leave it, the pile is taken as it was seen.
  const onlySaid = insists && own.length === 0 && seen !== undefined && off > SAID_FROM;
  const ways = onlySaid ? offersAsSeen(pile, lab, seen, addables, target, mostGrowth) : own;
  const [first] = ways;
  const stays = first ? first.deltaE00 : believedOff;
  const anew =
    stays > IN_REACH ? { anew: best(layPalette(palette), target).deltaE00 <= IN_REACH ? ('in' as const) : ('out' as const) } : {};
  const nothing = { add: [], measured: [], growth: 1, lab, mismatchBefore, mismatchAfter: mismatchBefore };
  if (!first) return { ...nothing, off, believedOff, advice: 'leave it', ...standing(lab, target), ...anew, ways: [] };
  const { add, measured, growth, lab: then, mismatchAfter, reach, givesWay } = first;
  return {
    ...{ add, measured, growth, lab: then, mismatchBefore, mismatchAfter, off, believedOff, reach, givesWay, ...anew, ways },
    advice: first.part ? 'start again with part of it' : 'add',
    ...(onlySaid && { onlySaid }),
    ...(first.part && { part: first.part }),
  };
}

/**
 * Whether a pile that goes from one colour to another truly comes nearer to a target in nine of ten
 * cases. With an error e of the colours along the way, |t − to| < |t − from| while
 * |from|² − |to|² > 2 |way| e, differences taken from the target.
 */
function surelyNearer(from: Lab, to: Lab, target: Lab, unsure: Delta): boolean {
  const way = deltaE00(from, to);
  const error = Math.hypot(unsure, STRAYING * way);
  return deltaE00(target, from) ** 2 - deltaE00(target, to) ** 2 > 2 * SURELY * way * error;
}

/** The ways that come nearer, those of the whole where they do as well. */
const better = (whole: readonly Additions[], part: readonly Additions[]): readonly Additions[] =>
  part[0] && part[0].mismatchAfter < (whole[0]?.mismatchAfter ?? Infinity) - WORTH_PARTING ? part : whole;

/**
 * Corrects a pile by additions only, from what was mixed and how it looks. The observation first
 * corrects what is believed of the tubes and of what really went in.
 * @throws CraftError for a tube whose curves are not given, an empty palette or an empty pile
 */
export function correct({
  stages,
  target,
  beliefs,
  palette,
  piles = [],
  others = [],
  mostGrowth = MOST_GROWTH,
  insists = false,
  partMl,
}: WrongPile): Correction {
  const known = [...palette, ...others];
  const learnt = learn(beliefs, known, stages);
  const asBelieved = (tube: Addable): Addable => ({ ...tube, ...believed(tube, learnt.beliefs, tube.id) });
  const inPile = Object.entries(learnt.parts);
  const curves = mixCurves(inPile.map(([id, parts]) => ({ paint: asBelieved(known.find((t) => t.id === id)!), parts })));
  const pile = { id: 'the pile', ...curves, parts: inPile.reduce((sum, [, n]) => sum + n, 0), residual: learnt.residual, partMl };
  const seen = stages.findLast((s) => s.observed)?.observed;
  const tubes = palette.map(asBelieved);
  return {
    ...advise(pile, [...tubes, ...piles], tubes, target, seen, mostGrowth, learnt.unsure, insists),
    ...(learnt.isStrange && { isStrange: true }),
    beliefs: learnt.beliefs,
  };
}

/**
 * How a pile that was looked at should look after what was added since: what is promised before paint
 * is added, and what is kept of it after, by the same reckoning.
 * @param stages all of them, those after the last look without one
 * @throws CraftError for a tube whose curves are not given, or an empty pile
 */
export function lookAfter(stages: readonly Stage[], beliefs: Beliefs, tubes: readonly Addable[]): Lab {
  const learnt = learn(beliefs, tubes, stages);
  const looked = stages.findLastIndex((s) => s.observed);
  const added = stages.slice(looked + 1).reduce((sum, s) => sum + s.additions.reduce((n, d) => n + d.parts, 0), 0);
  const inPile = Object.entries(learnt.parts);
  const whole = inPile.reduce((sum, [, n]) => sum + n, 0);
  const mix = mixerOf(
    inPile.map(([id]) =>
      believed(
        tubes.find((t) => t.id === id)!,
        learnt.beliefs,
        id,
      ),
    ),
  );
  const [L, a, b] = mix(inPile.map(([, n]) => n));
  const share = (whole - added) / whole;
  return [L + learnt.residual[0] * share, a + learnt.residual[1] * share, b + learnt.residual[2] * share];
}

/** A pile of which nobody knows any more what went in, but how it looks. */
export interface UnknownPile extends Pick<WrongPile, 'target' | 'palette' | 'piles' | 'mostGrowth' | 'beliefs' | 'insists' | 'partMl'> {
  /** Its curves as far as they are known; the look corrects them. */
  readonly paint: PaintCurves;
  readonly parts: number;
  readonly seen: Lab;
}

/**
 * Corrects a pile from its look alone; it teaches nothing.
 * @throws CraftError for an empty palette or an empty pile
 */
export function correctAsSeen({
  paint,
  parts,
  seen,
  target,
  palette,
  piles = [],
  beliefs,
  mostGrowth = MOST_GROWTH,
  insists = false,
  partMl,
}: UnknownPile): Correction {
  const pile = { id: 'the pile', ...asSeen(paint, seen), parts, partMl };
  const tubes = palette.map((tube) => ({ ...tube, ...believed(tube, beliefs, tube.id) }));
  return { ...advise(pile, [...tubes, ...piles], tubes, target, seen, mostGrowth, 0, insists), beliefs };
}
