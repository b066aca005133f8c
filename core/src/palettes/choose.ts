import { CraftError } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import type { InSteps } from '../matching/inSteps.ts';
import { fewer, meritAt, reach, type Cover, type Reached, type WeightedColour } from './cover.ts';
import { layBench, type Bench } from './nearest.ts';

/** A tube that may be laid out. */
export interface Choosable extends PaintCurves {
  readonly id: string;
}

/** What is asked of the few. */
export interface FewWish {
  readonly count: number;
  /** Tubes that are to be among them, and that are not. */
  readonly must?: readonly string[];
  readonly mustNot?: readonly string[];
}

/** The few that come to most of a picture. */
export interface Few {
  readonly ids: readonly string[];
  readonly cover: Cover;
  /** What each adds to the others. */
  readonly adds: readonly Earning[];
  /** What one more of the rack would add, the best first. */
  readonly more: readonly Earning[];
}

export interface Earning {
  readonly id: string;
  /** Share of the picture that is matched with it and not without, and what it is worth by merit. */
  readonly match: number;
  readonly merit: number;
  /** The largest of the colours that are lost without it; none where none is. */
  readonly lost: Lab | null;
}

/** Colours a choice is made by; what is told of it is reckoned from all. */
const CHOSEN_BY = 110;
/** Sets that are gone on with after each tube that joins. */
const BEAM = 3;
const MOST_SWAPS = 6;
const GAINING = 1e-4;
const MORE_TOLD = 3;

class Choosing {
  private readonly known = new Map<string, Reached>();
  readonly bench: Bench;

  constructor(
    tubes: readonly Choosable[],
    private readonly colours: readonly WeightedColour[],
  ) {
    this.bench = layBench(tubes);
  }

  of(set: readonly number[], before?: Reached): Reached {
    const sorted = [...set].sort((a, b) => a - b);
    const key = sorted.join();
    const found = this.known.get(key) ?? reach(this.bench, sorted, this.colours, before);
    this.known.set(key, found);
    return found;
  }
}

const byMerit = (one: Reached, other: Reached): number => other.cover.merit - one.cover.merit;

/** @throws CraftError for a wish that nothing can fulfil */
function checked(tubes: readonly Choosable[], { count, must = [], mustNot = [] }: FewWish): { from: number[]; free: number[] } {
  const at = new Map(tubes.map(({ id }, i) => [id, i]));
  const from = [...new Set(must)].map((id) => at.get(id));
  if (from.some((i) => i === undefined)) throw new CraftError('palette', 'A tube that must be among them is not in the rack.');
  if (must.some((id) => mustNot.includes(id))) throw new CraftError('palette', 'A tube cannot both be among them and not.');
  const free = tubes.flatMap(({ id }, i) => (mustNot.includes(id) || must.includes(id) ? [] : [i]));
  if (!(Number.isInteger(count) && count >= 1)) throw new CraftError('palette', 'So many tubes cannot be chosen.');
  if (from.length > count) throw new CraftError('palette', `${from.length} tubes must be among them, and only ${count} are wanted.`);
  if (from.length + free.length < count)
    throw new CraftError('palette', `Only ${from.length + free.length} tubes may be chosen from; ${count} are wanted.`);
  return { from: from as number[], free };
}

/** What each tube of a set adds to the others, and the largest colour that is lost without it. */
export function earnings(tubes: readonly Choosable[], colours: readonly WeightedColour[], kept: readonly string[] = []): Earning[] {
  const bench = layBench(tubes);
  const all = tubes.map((_, i) => i);
  const whole = reach(bench, all, colours);
  return all.flatMap((i) => (kept.includes(tubes[i]!.id) || all.length < 2 ? [] : [earning(bench, whole, i, tubes[i]!.id, colours)]));
}

function earning(bench: Bench, whole: Reached, without: number, id: string, colours: readonly WeightedColour[]): Earning {
  const set = whole.set.filter((i) => i !== without);
  const less = reach(bench, set, colours, whole);
  return compared(id, less, whole, colours);
}

function compared(id: string, less: Reached, more: Reached, colours: readonly WeightedColour[]): Earning {
  let lost: Lab | null = null;
  let most = 0;
  colours.forEach(({ lab, weight }, c) => {
    const by = weight * (meritAt(more.nearest[c]!.distance) - meritAt(less.nearest[c]!.distance));
    if (by > most) [lost, most] = [lab, by];
  });
  return {
    id,
    match: Math.max(0, more.cover.match - less.cover.match),
    merit: Math.max(0, more.cover.merit - less.cover.merit),
    lost: most > GAINING ? lost : null,
  };
}

/** What one more tube would add to some, the best first. */
export function* oneMore(
  tubes: readonly Choosable[],
  rack: readonly Choosable[],
  colours: readonly WeightedColour[],
): InSteps<readonly Earning[]> {
  const has = new Set(tubes.map(({ id }) => id));
  const others = rack.filter(({ id }) => !has.has(id));
  const bench = layBench([...tubes, ...others]);
  const own = tubes.map((_, i) => i);
  const now = reach(bench, own, colours);
  const found: Earning[] = [];
  for (const [n, { id }] of others.entries()) {
    found.push(compared(id, now, reach(bench, [...own, tubes.length + n], colours, now), colours));
    yield (n + 1) / others.length;
  }
  return found.sort((one, other) => other.merit - one.merit);
}

/**
 * The few of a rack that come to most of a picture: tubes join one after the other, a few sets beside one another, and
 * are then exchanged one for one while that gains.
 * @throws CraftError for a wish that nothing can fulfil
 */
export function* bestFew(tubes: readonly Choosable[], colours: readonly WeightedColour[], wish: FewWish): InSteps<Few> {
  const { from, free } = checked(tubes, wish);
  if (colours.length === 0) throw new CraftError('input', 'There is no picture to choose for.');
  const chosenBy = fewer(colours, CHOSEN_BY);
  const choosing = new Choosing(tubes, chosenBy);
  const joins = wish.count - from.length;
  const steps = joins + MOST_SWAPS + 1;
  let beam: Reached[] = from.length > 0 ? [choosing.of(from)] : [];
  for (let n = 0; n < joins; n++) {
    const next = new Map<string, Reached>();
    const sets = beam.length > 0 ? beam : [undefined];
    for (const [s, one] of sets.entries())
      for (const [f, i] of free.entries()) {
        if (one?.set.includes(i)) continue;
        const own = choosing.of([...(one?.set ?? []), i], one);
        next.set(own.set.join(), own);
        if (f % 2 === 0) yield (n + (s + f / free.length) / sets.length) / steps;
      }
    beam = [...next.values()].sort(byMerit).slice(0, BEAM);
  }
  let best = beam[0]!;
  for (let round = 0; round < MOST_SWAPS; round++) {
    let better = best;
    const out = best.set.filter((i) => !from.includes(i));
    for (const [o, i] of out.entries())
      for (const j of free) {
        if (best.set.includes(j)) continue;
        const own = choosing.of([...best.set.filter((one) => one !== i), j], best);
        if (own.cover.merit > better.cover.merit + GAINING) better = own;
        yield (joins + round + o / out.length) / steps;
      }
    if (better === best) break;
    best = better;
  }
  yield (steps - 1) / steps;
  const { bench } = choosing;
  const whole = reach(bench, best.set, colours);
  const adds = best.set.filter(() => best.set.length > 1).map((i) => earning(bench, whole, i, tubes[i]!.id, colours));
  const more: Earning[] = [];
  for (const i of free) {
    if (best.set.includes(i)) continue;
    const one = compared(tubes[i]!.id, best, choosing.of([...best.set, i], best), chosenBy);
    more.push(one);
    yield (steps - 0.5) / steps;
  }
  return {
    ids: best.set.map((i) => tubes[i]!.id),
    cover: whole.cover,
    adds,
    more: more.sort((one, other) => other.merit - one.merit).slice(0, MORE_TOLD),
  };
}
