import { folded, readCard, temperature, type Card as CoreCard } from '@dusk/core';
import { In, type EntityManager } from 'typeorm';
import { CardFound, type Card } from '../entities/index.ts';
import { cardOf, cardsById } from './kept.ts';

/** Rows written in one statement: SQLite takes so many values at once. */
const AT_ONCE = 500;

const foundBy = (card: CoreCard, away: boolean): CardFound => {
  const { lab, value } = readCard(card);
  const said = [
    card.name,
    card.note,
    card.thing,
    card.zone,
    card.painting,
    ...card.tubes.flatMap(({ name, colourIndex }) => [name, colourIndex]),
  ];
  return {
    cardId: card.id,
    value,
    L: lab[0],
    a: lab[1],
    b: lab[2],
    warmRed: temperature(lab, 'red-leaning'),
    warmGreen: temperature(lab, 'green-leaning'),
    words: said.join(' ').toLowerCase(),
    pigments: [...new Set(card.tubes.map(({ pigment }) => pigment || UNKNOWN))].sort().join(' '),
    thing: card.thing,
    zone: card.zone,
    painting: card.painting,
    createdAt: card.madeAt,
    away,
  };
};
/** A pigment that nobody named. */
const UNKNOWN = '?';

/** Lets cards be found by what they are now. */
export async function letBeFound(db: EntityManager, cards: readonly Card[]): Promise<void> {
  for (let at = 0; at < cards.length; at += AT_ONCE)
    await db.upsert(
      CardFound,
      cards.slice(at, at + AT_ONCE).map((card) => foundBy(cardOf(card), card.deletedAt !== null)),
      ['cardId'],
    );
  CardIndex.of(db).isChanged(cards.map(({ id }) => id));
}

/** Lets cards of a studio of before be found, and has the index read before anybody asks. */
export async function findAll(db: EntityManager): Promise<void> {
  // By their ids alone: a card's own row is large, and there may be a hundred thousand.
  const missing = await db.query<{ id: string }[]>(
    'SELECT "id" FROM "card" WHERE NOT EXISTS (SELECT 1 FROM "card_found" WHERE "cardId" = "card"."id")',
  );
  for (let at = 0; at < missing.length; at += AT_ONCE) {
    const some = missing.slice(at, at + AT_ONCE).map(({ id }) => id);
    await letBeFound(db, [...(await cardsById(db, some)).values()]);
  }
  await CardIndex.of(db).read(db);
}

/** More changed cards than this and all are read anew. */
const MOST_AGAIN = 2000;

/** Numbers of a card, each in a column of its own: nothing for the collector of garbage to go through. */
const NUMBERS = ['value', 'L', 'a', 'b', 'warmRed', 'warmGreen'] as const;
const TEXTS = ['cardId', 'words', 'thing', 'zone', 'painting', 'createdAt'] as const;
type Numbers = { readonly [N in (typeof NUMBERS)[number]]: Float64Array };
type Texts = { readonly [T in (typeof TEXTS)[number]]: string[] };

/** Columns of all cards, by their places. */
export interface CardColumns extends Numbers, Texts {
  readonly count: number;
  readonly away: Uint8Array;
  /** Which of the distinct lists of pigments each has. */
  readonly list: Int32Array;
  readonly lists: readonly (readonly string[])[];
}

const ROOM = 1024;
const roomFor = (room: number) => ({
  numbers: Object.fromEntries(NUMBERS.map((name) => [name, new Float64Array(room)])) as unknown as Numbers,
  away: new Uint8Array(room),
  list: new Int32Array(room),
});

/**
 * What all cards are found by, in memory: gone through in a few milliseconds however many there are. It
 * is read from the file, and read again where a change was under way, whether that came through or not.
 */
export class CardIndex {
  private static readonly known = new WeakMap<object, CardIndex>();
  private isRead = false;
  private room = ROOM;
  private columns = roomFor(ROOM);
  private texts = Object.fromEntries(TEXTS.map((name) => [name, []])) as unknown as Texts;
  private readonly places = new Map<string, number>();
  private readonly changed = new Set<string>();
  private readonly lists: string[][] = [];
  private readonly listAt = new Map<string, number>();
  /** Things, zones and paintings are few: each is kept once. */
  private readonly once = new Map<string, string>();

  /** The index of the studio that is being read. */
  static of({ connection }: EntityManager): CardIndex {
    const known = CardIndex.known.get(connection) ?? new CardIndex();
    CardIndex.known.set(connection, known);
    return known;
  }

  isChanged(ids: readonly string[]): void {
    for (const id of ids) this.changed.add(id);
  }

  private grow(): void {
    const { numbers, away, list } = this.columns;
    this.room *= 2;
    this.columns = roomFor(this.room);
    for (const name of NUMBERS) this.columns.numbers[name].set(numbers[name]);
    this.columns.away.set(away);
    this.columns.list.set(list);
  }

  private kept(text: string): string {
    const known = this.once.get(text);
    if (known === undefined) this.once.set(text, text);
    return known ?? text;
  }

  private put(row: CardFound): void {
    const at = this.places.get(row.cardId) ?? this.places.size;
    if (at >= this.room) this.grow();
    this.places.set(row.cardId, at);
    for (const name of NUMBERS) this.columns.numbers[name][at] = row[name];
    for (const name of TEXTS)
      this.texts[name][at] = name === 'words' ? folded(row.words) : name === 'cardId' ? row[name] : this.kept(row[name]);
    this.columns.away[at] = Number(row.away);
    let list = this.listAt.get(row.pigments);
    if (list === undefined) {
      list = this.lists.push(row.pigments.split(' ')) - 1;
      this.listAt.set(row.pigments, list);
    }
    this.columns.list[at] = list;
  }

  /** Every card as it is now, put away or not. */
  async read(db: EntityManager): Promise<CardColumns> {
    if (!this.isRead || this.changed.size > MOST_AGAIN) {
      for (const row of await db.query<CardFound[]>('SELECT * FROM "card_found"')) this.put(row);
      this.isRead = true;
    } else if (this.changed.size > 0) for (const row of await db.findBy(CardFound, { cardId: In([...this.changed]) })) this.put(row);
    this.changed.clear();
    const { numbers, away, list } = this.columns;
    return { ...numbers, ...this.texts, away, list, lists: this.lists, count: this.places.size };
  }
}
