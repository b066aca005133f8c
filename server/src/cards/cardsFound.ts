import { deltaE00From, folded, type Lab } from '@dusk/core';
import { labOfDto, MOST_FOUND, type CardQuery, type CardsFound } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { CardPlace, PaletteTube, Settings } from '../entities/index.ts';
import { CardIndex, type CardColumns } from './cardIndex.ts';
import { cardRows } from './cards.ts';
import { newestSeq } from '../change/newestSeq.ts';

/** Whether something holds of the card at a place. */
type Test = (at: number) => boolean;

/** What is neither warm nor cool. */
const NEUTRAL = 0.5;

/** Which lists of pigments hold and lack what they are to, and of which a palette has all, or all but one. */
async function pigmentTest(db: EntityManager, { list, lists }: CardColumns, query: CardQuery): Promise<Test | undefined> {
  const { within = [], without = [], paletteId, reach } = query;
  if (within.length === 0 && without.length === 0 && !reach) return undefined;
  const places = reach ? await db.find(PaletteTube, { where: { paletteId: paletteId ?? '' }, relations: { tube: true } }) : [];
  const there = new Set(places.map(({ tube }) => tube!.pigment));
  const reached = (pigments: readonly string[]): boolean =>
    !reach || pigments.filter((pigment) => !there.has(pigment)).length === (reach === 'mixable' ? 0 : 1);
  const fits = lists.map(
    (pigments) => within.every((one) => pigments.includes(one)) && !without.some((one) => pigments.includes(one)) && reached(pigments),
  );
  return (at) => fits[list[at]!]!;
}

async function warmthTest(
  db: EntityManager,
  { warmRed, warmGreen }: CardColumns,
  temperature: CardQuery['temperature'],
): Promise<Test | undefined> {
  if (!temperature) return undefined;
  const { warmBlue } = await db.findOneByOrFail(Settings, { id: 1 });
  const warmth = warmBlue === 'green-leaning' ? warmGreen : warmRed;
  if (temperature === 'neutral') return (at) => Math.abs(warmth[at]!) < NEUTRAL;
  return temperature === 'warm' ? (at) => warmth[at]! >= NEUTRAL : (at) => warmth[at]! <= -NEUTRAL;
}

const isText = (column: readonly string[], wanted: string | undefined): Test | false => Boolean(wanted) && ((at) => column[at] === wanted);

/** Everything that must hold of a card, the cheapest first. */
async function testsOf(
  db: EntityManager,
  cards: CardColumns,
  query: CardQuery,
  places: ReadonlyMap<string, number> | undefined,
): Promise<Test[]> {
  const { darkest, lightest, words = '', since, until } = query;
  const { value, createdAt } = cards;
  const tests: (Test | undefined | false)[] = [
    darkest !== undefined && ((at) => value[at]! >= darkest),
    lightest !== undefined && ((at) => value[at]! <= lightest),
    await pigmentTest(db, cards, query),
    await warmthTest(db, cards, query.temperature),
    places && ((at) => places.has(cards.cardId[at]!)),
    isText(cards.thing, query.thing),
    isText(cards.zone, query.zone),
    isText(cards.painting, query.painting),
    since !== undefined && ((at) => createdAt[at]! >= since),
    until !== undefined && ((at) => createdAt[at]! <= until),
    ...folded(words)
      .split(/\s+/)
      .filter(Boolean)
      .map(
        (word): Test =>
          (at) =>
            cards.words[at]!.includes(word),
      ),
  ];
  return tests.filter((test): test is Test => typeof test === 'function');
}

/** The few places of the lowest rank, in its order. */
class Lowest {
  private readonly kept: { readonly at: number; readonly rank: number }[] = [];
  constructor(private readonly most: number) {}
  /** Rank from which on nothing comes among them. */
  get worst(): number {
    return this.kept.length === this.most ? this.kept[this.most - 1]!.rank : Infinity;
  }
  offer(at: number, rank: number): void {
    const { kept, most } = this;
    const last = kept[kept.length - 1];
    if (last && kept.length === most && rank >= last.rank) return;
    let [low, high] = [0, kept.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (kept[middle]!.rank <= rank) low = middle + 1;
      else high = middle;
    }
    kept.splice(low, 0, { at, rank });
    if (kept.length > most) kept.pop();
  }
  get places(): number[] {
    return this.kept.map(({ at }) => at);
  }
}

const USUAL = 40;

/** ΔE00 is never less than the difference of L* over this: the most that its weight of lightness comes to. */
const MOST_OF_LIGHTNESS = 1.75;

/**
 * How cards are laid out: nearest to a colour first, in the order of a set, or dark to light.
 * @returns of a card at a place, where nothing of a rank from `worst` on is wanted
 */
function rankBy(
  { L, a, b, value, cardId }: CardColumns,
  near: Lab | undefined,
  places: ReadonlyMap<string, number> | undefined,
): (at: number, worst: number) => number {
  if (near) {
    const difference = deltaE00From(near);
    return (at, worst) => {
      const far = Math.abs(L[at]! - near[0]) / MOST_OF_LIGHTNESS;
      return far >= worst ? far : difference(L[at]!, a[at]!, b[at]!);
    };
  }
  return places ? (at) => places.get(cardId[at]!)! : (at) => value[at]!;
}

/** Cards that are as wanted. */
export async function findCards(db: EntityManager, query: CardQuery): Promise<CardsFound> {
  const all = await CardIndex.of(db).read(db);
  const places = query.setId
    ? new Map((await db.findBy(CardPlace, { setId: query.setId })).map(({ cardId, position }) => [cardId, position]))
    : undefined;
  const near = query.near && labOfDto(query.near);
  const tests = await testsOf(db, all, query, places);
  const rank = rankBy(all, near, places);
  const lowest = new Lowest(Math.min(query.most ?? USUAL, MOST_FOUND));
  let [total, of] = [0, 0];
  // A plain loop: a hundred thousand are gone through while a hand waits.
  cards: for (let at = 0; at < all.count; at++) {
    if (all.away[at]) continue;
    of++;
    for (let i = 0; i < tests.length; i++) if (!tests[i]!(at)) continue cards;
    total++;
    lowest.offer(at, rank(at, lowest.worst));
  }
  const ids = lowest.places.map((at) => all.cardId[at]!);
  const cards = new Map((await cardRows(db, ids)).map((card) => [card.id, card]));
  return { seq: await newestSeq(db), total, of, cards: ids.map((id) => cards.get(id)!) };
}
