import { deltaE00, type Lab } from '@dusk/core';
import { labOfDto, MOST_FOUND, type CardQuery, type CardsFound } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { CardPlace, PaletteTube, Settings, type CardFound } from '../entities/index.ts';
import { CardIndex } from './cardIndex.ts';
import { cardRows } from './cards.ts';
import { newestSeq } from './changes.ts';

type Test = (row: CardFound, list: number) => boolean;

/** What is neither warm nor cool. */
const NEUTRAL = 0.5;

/** Which lists of pigments hold and lack what they are to, and of which a palette has all, or all but one. */
async function pigmentTest(db: EntityManager, lists: readonly (readonly string[])[], query: CardQuery): Promise<Test | undefined> {
  const { within = [], without = [], paletteId, reach } = query;
  if (within.length === 0 && without.length === 0 && !reach) return undefined;
  const places = reach ? await db.find(PaletteTube, { where: { paletteId: paletteId ?? '' }, relations: { tube: true } }) : [];
  const there = new Set(places.map(({ tube }) => tube!.pigment));
  const reached = (list: readonly string[]): boolean =>
    !reach || list.filter((pigment) => !there.has(pigment)).length === (reach === 'mixable' ? 0 : 1);
  const fits = lists.map((list) => within.every((one) => list.includes(one)) && !without.some((one) => list.includes(one)) && reached(list));
  return (_, list) => fits[list]!;
}

async function warmthTest(db: EntityManager, temperature: CardQuery['temperature']): Promise<Test | undefined> {
  if (!temperature) return undefined;
  const { warmBlue } = await db.findOneByOrFail(Settings, { id: 1 });
  const column = warmBlue === 'green-leaning' ? 'warmGreen' : 'warmRed';
  if (temperature === 'neutral') return (row) => Math.abs(row[column]) < NEUTRAL;
  return temperature === 'warm' ? (row) => row[column] >= NEUTRAL : (row) => row[column] <= -NEUTRAL;
}

/** Everything that must hold of a card, the cheapest first. */
async function testsOf(db: EntityManager, index: CardIndex, query: CardQuery, places: ReadonlyMap<string, number> | undefined): Promise<Test[]> {
  const { darkest, lightest, words = '', thing, zone, painting, since, until } = query;
  const tests: (Test | undefined | false)[] = [
    (row) => !row.away,
    darkest !== undefined && ((row) => row.value >= darkest),
    lightest !== undefined && ((row) => row.value <= lightest),
    await pigmentTest(db, index.lists, query),
    await warmthTest(db, query.temperature),
    places && ((row) => places.has(row.cardId)),
    Boolean(thing) && ((row) => row.thing === thing),
    Boolean(zone) && ((row) => row.zone === zone),
    Boolean(painting) && ((row) => row.painting === painting),
    since !== undefined && ((row) => row.createdAt >= since),
    until !== undefined && ((row) => row.createdAt <= until),
    ...words
      .toLowerCase()
      .split(/\s+/)
      .filter(Boolean)
      .map((word): Test => (row) => row.words.includes(word)),
  ];
  return tests.filter((test): test is Test => typeof test === 'function');
}

/** The few rows of the lowest rank, in its order. */
class Lowest {
  private readonly kept: { readonly row: CardFound; readonly rank: number }[] = [];
  constructor(private readonly most: number) {}
  offer(row: CardFound, rank: number): void {
    const { kept, most } = this;
    const last = kept[kept.length - 1];
    if (last && kept.length === most && rank >= last.rank) return;
    let [low, high] = [0, kept.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (kept[middle]!.rank <= rank) low = middle + 1;
      else high = middle;
    }
    kept.splice(low, 0, { row, rank });
    if (kept.length > most) kept.pop();
  }
  get rows(): CardFound[] {
    return this.kept.map(({ row }) => row);
  }
}

const USUAL = 60;

/** How cards are laid out: nearest to a colour first, in the order of a set, or dark to light. */
function rankBy(near: Lab | undefined, places: ReadonlyMap<string, number> | undefined): (row: CardFound) => number {
  if (near) return ({ L, a, b }) => (L - near[0]) ** 2 + (a - near[1]) ** 2 + (b - near[2]) ** 2;
  return places ? ({ cardId }) => places.get(cardId)! : ({ value }) => value;
}

/** Cards that are as wanted. */
export async function findCards(db: EntityManager, query: CardQuery): Promise<CardsFound> {
  const index = CardIndex.of(db);
  const all = await index.read(db);
  const places = query.setId
    ? new Map((await db.findBy(CardPlace, { setId: query.setId })).map(({ cardId, position }) => [cardId, position]))
    : undefined;
  const near = query.near && labOfDto(query.near);
  const tests = await testsOf(db, index, query, places);
  const rank = rankBy(near, places);
  const lowest = new Lowest(Math.min(query.most ?? USUAL, MOST_FOUND));
  let [total, of] = [0, 0];
  all.forEach((row, at) => {
    if (!row.away) of++;
    const list = index.listOf[at]!;
    for (const test of tests) if (!test(row, list)) return;
    total++;
    lowest.offer(row, rank(row));
  });
  const { rows } = lowest;
  // The nearest few are put in order by the difference an eye sees.
  if (near) rows.sort((one, other) => deltaE00(near, [one.L, one.a, one.b]) - deltaE00(near, [other.L, other.a, other.b]));
  const ids = rows.map(({ cardId }) => cardId);
  const cards = new Map((await cardRows(db, ids)).map((card) => [card.id, card]));
  return { seq: await newestSeq(db), total, of, cards: ids.map((id) => cards.get(id)!) };
}
