import { readCard, temperature, type Card as CoreCard } from '@dusk/core';
import { In, type EntityManager } from 'typeorm';
import { Card, CardFound } from '../entities/index.ts';
import { cardOf } from './cards.ts';

/** Rows written in one statement: SQLite takes so many values at once. */
const AT_ONCE = 500;

const foundBy = (card: CoreCard, away: boolean): CardFound => {
  const { lab, value } = readCard(card);
  const said = [card.name, card.note, card.thing, card.zone, card.painting, ...card.tubes.flatMap(({ name, colourIndex }) => [name, colourIndex])];
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
  for (;;) {
    const missing = await db
      .createQueryBuilder(Card, 'card')
      .where('NOT EXISTS (SELECT 1 FROM "card_found" WHERE "cardId" = "card"."id")')
      .take(AT_ONCE)
      .getMany();
    if (missing.length === 0) break;
    await letBeFound(db, missing);
  }
  await CardIndex.of(db).read(db);
}

/** More changed cards than this and all are read anew. */
const MOST_AGAIN = 2000;

/**
 * What all cards are found by, in memory: gone through in a few milliseconds however many there are. It
 * is read from the file, and read again where a change was under way, whether that came through or not.
 */
export class CardIndex {
  private static readonly known = new WeakMap<object, CardIndex>();
  private rows: CardFound[] | undefined;
  private readonly places = new Map<string, number>();
  private readonly changed = new Set<string>();
  /** Distinct lists of pigments, and which of them each row has. */
  readonly lists: string[][] = [];
  private readonly listAt = new Map<string, number>();
  readonly listOf: number[] = [];

  /** The index of the studio that is being read. */
  static of({ connection }: EntityManager): CardIndex {
    const known = CardIndex.known.get(connection) ?? new CardIndex();
    CardIndex.known.set(connection, known);
    return known;
  }

  isChanged(ids: readonly string[]): void {
    for (const id of ids) this.changed.add(id);
  }

  private put(row: CardFound): void {
    const at = this.places.get(row.cardId) ?? this.rows!.length;
    this.places.set(row.cardId, at);
    this.rows![at] = row;
    let list = this.listAt.get(row.pigments);
    if (list === undefined) {
      list = this.lists.push(row.pigments.split(' ')) - 1;
      this.listAt.set(row.pigments, list);
    }
    this.listOf[at] = list;
  }

  /** Every card as it is now, put away or not. */
  async read(db: EntityManager): Promise<readonly CardFound[]> {
    if (!this.rows || this.changed.size > MOST_AGAIN) {
      this.places.clear();
      this.rows = [];
      for (const row of await db.query<CardFound[]>('SELECT * FROM "card_found"')) this.put(row);
    } else if (this.changed.size > 0) for (const row of await db.findBy(CardFound, { cardId: In([...this.changed]) })) this.put(row);
    this.changed.clear();
    return this.rows;
  }
}
