import { deltaE00 } from '../colour/difference.ts';
import { labToLch, type Lab } from '../colour/spaces.ts';
import { temperature } from '../colour/temperature.ts';
import { valueOfColour } from '../colour/value.ts';
import { CraftError, finite } from '../errors.ts';
import { inWorkOrder } from '../mixing/workOrder.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixerOf } from '../paint/mixer.ts';

/** Orders that painters mix and paint in. */
export const DAY_ORDERS = [
  'darks first',
  'lights first',
  'back to front',
  'background first',
  'background last',
  'least cleaning',
] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

/** A pile that is to be mixed. */
export interface DayPile extends PaintCurves {
  readonly id: string;
  readonly lab: Lab;
  /** Piles it takes from. */
  readonly mothers: readonly string[];
  /** Tubes that are squeezed out for it. */
  readonly tubes: readonly string[];
  /** Things to measure, heaps mixed first among them. */
  readonly measurings: number;
  readonly isBackground: boolean;
}

/** A pile of the day, in its turn. */
export interface DayStep {
  readonly id: string;
  /** From the beginning of the day. */
  readonly startsAt: number;
  readonly minutes: number;
}

/** A pile that can wait: it is had in one step from another. */
export interface LaterPile {
  readonly id: string;
  readonly from: string;
  /** The tube that is put into it. */
  readonly by: string;
  /** How near it comes, ΔE00. */
  readonly deltaE00: number;
}

export interface DayPlan {
  readonly steps: readonly DayStep[];
  readonly later: readonly LaterPile[];
  /** Piles that there is no time for. */
  readonly left: readonly string[];
  /** What the steps take together. */
  readonly minutes: number;
}

export interface DayWishes {
  readonly order: DayOrder;
  /** Time there is; all of it is planned where none is said. */
  readonly minutes?: number | undefined;
  /** How this painter's time stands to what is guessed, 1 unless it was learnt. */
  readonly pace?: number | undefined;
}

/** Things that lie behind the others, as painters call them. */
const BEHIND = /\b(background|backdrop|sky|clouds?|wall|distance|far|hills?|horizon|behind)\b/i;
/** Whether a thing that was named lies in the background. */
export const isBehind = (thing: string): boolean => BEHIND.test(thing);

/** Guesses to begin with, minutes: to clean the knife and look, and for each thing that is measured and worked in. */
const FOR_A_PILE = 1;
const FOR_A_MEASURING = 0.7;
const LEAST_MINUTES = 1;
const MOST_MINUTES = 24 * 60;

/** What a pile takes by the first guess, minutes. */
export const minutesFor = ({ measurings }: { readonly measurings: number }): number => FOR_A_PILE + FOR_A_MEASURING * measurings;

/** Piles from which a pace is learnt, and how far from the guess it may be. */
const LEARNT_FROM = 4;
const PACES = [0.35, 4] as const;
/** A pause of this many times the guess was not spent mixing. */
const PAUSE = 5;

/**
 * A painter's own pace: the middle of how long piles took against what was guessed for them.
 * @param took minutes from one pile mixed to the next, with what was guessed
 * @returns nothing from too few of them
 */
export function paceFrom(took: readonly { readonly minutes: number; readonly guessed: number }[]): number | undefined {
  const ratios = took
    .filter(({ minutes, guessed }) => minutes > 0 && minutes < PAUSE * guessed)
    .map(({ minutes, guessed }) => minutes / guessed)
    .sort((a, b) => a - b);
  if (ratios.length < LEARNT_FROM) return undefined;
  const at = (ratios.length - 1) / 2;
  const middle = (ratios[Math.floor(at)]! + ratios[Math.ceil(at)]!) / 2;
  return Math.min(PACES[1], Math.max(PACES[0], middle));
}

/** What is further off is paler, duller and bluer. */
const farness = (lab: Lab): number => valueOfColour(lab) - 0.08 * labToLch(lab)[1] - 0.03 * temperature(lab);

/** Each pile after the one that has most of its tubes, so that the knife is wiped least; from the palest on. */
function leastCleaning(piles: readonly DayPile[]): Map<string, number> {
  const left = [...piles].sort((a, b) => valueOfColour(b.lab) - valueOfColour(a.lab));
  const rank = new Map<string, number>();
  let last: DayPile | undefined;
  while (left.length > 0) {
    const near = (pile: DayPile): number => {
      if (!last) return 0;
      const shared = pile.tubes.filter((tube) => last!.tubes.includes(tube)).length;
      return shared / new Set([...pile.tubes, ...last.tubes]).size - deltaE00(last.lab, pile.lab) / 200;
    };
    const [next] = [...left].sort((a, b) => near(b) - near(a));
    left.splice(left.indexOf(next!), 1);
    rank.set(next!.id, rank.size);
    last = next;
  }
  return rank;
}

function rankIn(order: DayOrder, piles: readonly DayPile[]): (pile: DayPile) => number {
  const value = ({ lab }: DayPile): number => valueOfColour(lab);
  const cleaning = order === 'least cleaning' ? leastCleaning(piles) : undefined;
  const BEFORE = 100;
  const by: Readonly<Record<DayOrder, (pile: DayPile) => number>> = {
    'darks first': value,
    'lights first': (pile) => -value(pile),
    'back to front': ({ lab }) => -farness(lab),
    'background first': (pile) => value(pile) - (pile.isBackground ? BEFORE : 0),
    'background last': (pile) => value(pile) + (pile.isBackground ? BEFORE : 0),
    'least cleaning': ({ id }) => cleaning!.get(id)!,
  };
  return by[order];
}

/** What may be put into a pile of one part, in parts, a quarter more each time. */
const PUT_IN = Array.from({ length: 28 }, (_, i) => 0.012 * 1.25 ** i);
/** How near one step must come for a pile to wait, ΔE00. */
const NEAR = 4;

/** The one tube that brings a pile nearest to another's colour. */
export function oneStep(
  from: PaintCurves,
  wanted: Lab,
  tubes: readonly (PaintCurves & { readonly id: string })[],
): { readonly by: string; readonly deltaE00: number } | undefined {
  let found: { by: string; deltaE00: number } | undefined;
  for (const tube of tubes) {
    const mix = mixerOf([from, tube]);
    for (const parts of PUT_IN) {
      const apart = deltaE00(wanted, mix([1, parts]));
      if (!found || apart < found.deltaE00) found = { by: tube.id, deltaE00: apart };
    }
  }
  return found;
}

/** Every pile that comes in one step from another, the nearest first. */
const waysLater = (piles: readonly DayPile[], tubes: Parameters<typeof oneStep>[2]): LaterPile[] =>
  piles
    .flatMap((pile) =>
      piles.flatMap((from) => {
        const step = from === pile ? undefined : oneStep(from, pile.lab, tubes);
        return step && step.deltaE00 <= NEAR ? [{ id: pile.id, from: from.id, ...step }] : [];
      }),
    )
    .sort((a, b) => a.deltaE00 - b.deltaE00);

/**
 * Piles in the order of a painter's school, what others take from before those, as many as fit the time. What does not
 * fit is first what can be had later in one step from a pile that is there, then what stands last.
 * @param tubes what may be put into a pile later
 * @throws CraftError for no time, or more than a day
 */
export function planDay(
  piles: readonly DayPile[],
  tubes: readonly (PaintCurves & { readonly id: string })[],
  { order, minutes, pace = 1 }: DayWishes,
): DayPlan {
  if (minutes !== undefined && !(finite('input', 'The time there is', minutes) >= LEAST_MINUTES && minutes <= MOST_MINUTES))
    throw new CraftError('input', 'Say a time from one minute to a day.');
  const known = new Map(piles.map((pile) => [pile.id, pile]));
  const mothersOf = (id: string): readonly string[] => known.get(id)?.mothers.filter((mother) => known.has(mother)) ?? [];
  const takes = (pile: DayPile): number => pace * minutesFor(pile);
  const ordered = inWorkOrder(piles, mothersOf, rankIn(order, piles));
  const stays = new Set(ordered.map(({ id }) => id));
  const later: LaterPile[] = [];
  const total = (): number => ordered.reduce((sum, pile) => sum + (stays.has(pile.id) ? takes(pile) : 0), 0);
  const restsOn = (id: string): boolean => ordered.some((pile) => stays.has(pile.id) && pile.mothers.includes(id));

  const left: string[] = [];
  if (minutes !== undefined && total() > minutes) {
    // The two ends are mixed as long as anything is: values are judged between them.
    const byValue = [...piles].sort((a, b) => valueOfColour(a.lab) - valueOfColour(b.lab));
    const ends = new Set([byValue[0]!.id, byValue.at(-1)!.id]);
    const drawnOn = new Set<string>();
    for (const way of waysLater(ordered, tubes)) {
      if (total() <= minutes) break;
      if (!stays.has(way.id) || !stays.has(way.from) || ends.has(way.id) || drawnOn.has(way.id) || restsOn(way.id)) continue;
      stays.delete(way.id);
      drawnOn.add(way.from);
      later.push(way);
    }
    /** What goes first: the last in order that nothing is drawn from, then what something is, then an end. */
    const next = (): DayPile | undefined => {
      const free = [...ordered].reverse().filter(({ id }) => stays.has(id) && !restsOn(id));
      const kept = free.filter(({ id }) => !ends.has(id));
      return kept.find(({ id }) => !later.some(({ from }) => from === id)) ?? kept[0] ?? free[0];
    };
    while (total() > minutes && stays.size > 1) {
      const { id } = next()!;
      stays.delete(id);
      left.unshift(id);
      // What was to be had from it is not had now.
      for (const { id: gone } of later.filter(({ from }) => from === id)) left.push(gone);
      later.splice(0, later.length, ...later.filter(({ from }) => from !== id));
    }
  }
  let startsAt = 0;
  const steps = ordered
    .filter(({ id }) => stays.has(id))
    .map((pile): DayStep => {
      const step = { id: pile.id, startsAt, minutes: takes(pile) };
      startsAt += step.minutes;
      return step;
    });
  return { steps, later, left, minutes: startsAt };
}
