// Files of cards are brought in, finished after a crash, put away with all that came with them.
import type { Card as CoreCard, CardTube } from '@dusk/core';
import { PALETTE_MOST_TUBES, type BringingDto, type Needs } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Bringing, Card, CardFile, CardFound, CardPlace, CardSet, Palette, PaletteTube } from '../entities/index.ts';
import { notFound, ProblemError } from '../refusing/problems.ts';
import { CardIndex } from './cardIndex.ts';
import { keepCards } from './cards.ts';
import { newestSeq } from '../change/newestSeq.ts';
import { puttingAway } from '../change/putAway.ts';
import type { Studio } from '../change/studio.ts';
import { checkTubes } from '../tubes/tubes.ts';
import type { Doing, Work } from '../change/work.ts';
import { AT_ONCE, meet, ownTubes, stand, newOf } from './meeting.ts';
import { othersTurn, readFile, tubeId } from './reading.ts';

/** Rows of files that were brought in. */
export async function bringingRows(db: EntityManager, ids?: readonly string[]): Promise<BringingDto[]> {
  const rows = await db.find(Bringing, { where: ids ? { id: In([...ids]) } : { deletedAt: IsNull() }, order: { createdAt: 'ASC' } });
  return rows.map(({ id, version, name, cards, createdAt, deletedAt }) => ({ id, version, name, cards, createdAt, deletedAt }));
}

/** What stands for each tube of a file: what the painter chose, else the likest. */
async function chosen(db: EntityManager, stands: NonNullable<Needs<'bringing.add'>['stands']>) {
  await checkTubes(
    db,
    stands.map((one) => one.tubeId),
  );
  const said = new Map(stands.map((one) => [one.tube, one.tubeId]));
  const own = await ownTubes(db);
  const known = new Map<string, string | undefined>();
  return (tube: CardTube): string | undefined => {
    const id = tubeId(tube);
    if (!known.has(id)) known.set(id, said.get(id) ?? stand(tube, own)?.tubeId);
    return known.get(id);
  };
}

/** Cards that a change brings in by itself; what a file holds beyond them follows it. */
const MOST_AT_ONCE = 300;

/** Cards of a piece: nobody waits longer than for these. */
const A_PIECE = 120;

/** Keeps cards of a file as its bringing says: there, or put away with it. */
const keepBrought = (
  db: EntityManager,
  cards: readonly CoreCard[],
  { id, deletedAt }: Pick<Bringing, 'id' | 'deletedAt'>,
  standFor: (tube: CardTube) => string | undefined,
): Promise<void> =>
  keepCards(
    db,
    cards.map((card) => ({
      ...card,
      pileId: null,
      bringingId: id,
      deletedAt,
      stands: Object.fromEntries(
        card.tubes.flatMap((tube) => {
          const own = standFor(tube);
          return own === undefined ? [] : [[tube.key, own]];
        }),
      ),
    })),
  );

/** Bringings of which not all cards are in the studio yet, as after a crash. */
export const unfinished = (db: EntityManager): Promise<{ id: string }[]> =>
  db.query(`SELECT "id" FROM "bringing" WHERE "cards" > (SELECT COUNT(*) FROM "card" WHERE "bringingId" = "bringing"."id")`);

/**
 * Brings in what a change that was answered left of its file, in pieces that are each a transaction of their own.
 * Taken back meanwhile, the rest comes to lie put away with it.
 */
export async function bringRest({ look, change, hearing }: Studio, id: string): Promise<void> {
  if (!(await look(unfinished)).some((one) => one.id === id)) return;
  const { kept, standFor } = await look(async (db) => {
    const bringing = await db.findOneByOrFail(Bringing, { id });
    return {
      kept: await db.findOneByOrFail(CardFile, { id: bringing.fileId }),
      standFor: await chosen(db, [...(bringing.besides.stands ?? [])]),
    };
  });
  const { fresh } = await meet(look, await readFile(kept.id, kept.name, kept.bytes));
  for (let at = 0; at < fresh.length; at += A_PIECE) {
    await change(async (db) => keepBrought(db, fresh.slice(at, at + A_PIECE), await db.findOneByOrFail(Bringing, { id }), standFor));
    await othersTurn();
  }
  // Whoever looks at cards looks again.
  const answer = await look(async (db) => ({ seq: await newestSeq(db), rows: { bringings: await bringingRows(db, [id]) } }));
  hearing.tell(answer);
}

export const addBringing: Doing<Needs<'bringing.add'>> = async (work, { id, fileId, stands = [] }) => {
  const { db, at, touch } = work;
  const kept = await db.findOneBy(CardFile, { id: fileId });
  if (!kept) throw notFound('file of cards');
  const file = await readFile(kept.id, kept.name, kept.bytes);
  const { fresh, back, ids } = await meet((read) => read(db), file);
  const sets = await newOf(db, CardSet, 'set', file.sets);
  const palettes = await newOf(db, Palette, 'palette', file.palettes);
  if (fresh.length + back.length + sets.length + palettes.length === 0)
    throw new ProblemError(409, 'Nothing new', 'Everything in this file is here already; nothing was added.');
  const standFor = await chosen(db, stands);
  await db.insert(Bringing, {
    id,
    version: 1,
    fileId,
    name: file.name,
    cards: fresh.length,
    besides: {
      back,
      palettes: palettes.map((one) => one.id),
      of: file.cards.length,
      stands: stands.map(({ tube, tubeId: own }) => ({ tube, tubeId: own })),
    },
    createdAt: at,
    deletedAt: null,
  });
  // Sets name their cards: those are there first. Of very many the rest follows in pieces, others having their turn between.
  const named = new Set(sets.flatMap((set) => set.one.cards.map((card) => ids.get(card))));
  const first = [...fresh]
    .sort((one, other) => Number(named.has(other.id)) - Number(named.has(one.id)))
    .slice(0, Math.max(MOST_AT_ONCE, named.size));
  await keepBrought(db, first, { id, deletedAt: null }, standFor);
  for (const set of sets) {
    await db.insert(CardSet, {
      id: set.id,
      version: 1,
      name: set.one.name,
      kind: set.one.kind,
      note: set.one.note,
      bringingId: id,
      createdAt: at,
      deletedAt: null,
    });
    const places = set.one.cards.map((card, position) => ({ setId: set.id, cardId: ids.get(card)!, position }));
    for (let from = 0; from < places.length; from += AT_ONCE) await db.insert(CardPlace, places.slice(from, from + AT_ONCE));
    touch('sets', set.id);
  }
  for (const { id: paletteId, one } of palettes) {
    const tubeIds = [...new Set(one.tubes.flatMap((tube) => standFor(tube) ?? []))].slice(0, PALETTE_MOST_TUBES);
    await db.insert(Palette, { id: paletteId, version: 1, name: one.name, createdAt: at, updatedAt: at, deletedAt: null });
    await db.insert(
      PaletteTube,
      tubeIds.map((tube, position) => ({ paletteId, tubeId: tube, position })),
    );
    touch('palettes', paletteId);
  }
  await markCards(db, back, null);
  touch('bringings', id);
  return [{ do: 'bringing.delete', id, version: 1 }];
};

/** Puts rows away, or brings them back. */
const mark = (db: EntityManager, entity: typeof Card | typeof CardSet | typeof Palette, ids: readonly string[], deletedAt: string | null) =>
  db.update<{ id: string; deletedAt: string | null; version: number }>(
    entity,
    { id: In([...ids]) },
    { deletedAt, version: () => 'version + 1' },
  );

async function markCards(db: EntityManager, cards: readonly string[], deletedAt: string | null): Promise<void> {
  for (let from = 0; from < cards.length; from += AT_ONCE) {
    const some = cards.slice(from, from + AT_ONCE);
    await mark(db, Card, some, deletedAt);
    await db.update(CardFound, { cardId: In(some) }, { away: deletedAt !== null });
    CardIndex.of(db).isChanged(some);
  }
}

/** All that came with a file is put away, or comes back, together; cards that came back with it go away again. */
async function setAway({ db, at, touch }: Work, { id }: { readonly id: string }, back: boolean): Promise<void> {
  const { besides } = await db.findOneByOrFail(Bringing, { id });
  const deletedAt = back ? null : at;
  const idsOf = async (entity: typeof Card | typeof CardSet): Promise<string[]> =>
    (await db.find<{ id: string; bringingId: string | null }>(entity, { where: { bringingId: id }, select: { id: true } })).map(
      (row) => row.id,
    );
  await markCards(db, [...(await idsOf(Card)), ...besides.back], deletedAt);
  for (const [entity, kind, ids] of [
    [CardSet, 'sets', await idsOf(CardSet)],
    [Palette, 'palettes', besides.palettes],
  ] as const) {
    await mark(db, entity, ids, deletedAt);
    for (const one of ids) touch(kind, one);
  }
}

/** A palette that came with a file and is painted from stays, and with it all that came. */
async function checkUnused(work: Work, row: { readonly id: string }, back: boolean): Promise<void> {
  if (!back) {
    const { besides } = await work.db.findOneByOrFail(Bringing, { id: row.id });
    const [inUse] = await work.db.query<{ title: string }[]>(
      `SELECT "title" FROM "painting" WHERE "deletedAt" IS NULL AND "paletteId" IN (SELECT value FROM json_each(?))`,
      [JSON.stringify(besides.palettes)],
    );
    if (inUse)
      throw new ProblemError(409, 'In use', `“${inUse.title}” is painted from a palette of this file. Give it another palette first.`);
  }
  await setAway(work, row, back);
}

export const { away: deleteBringing, back: restoreBringing } = puttingAway({
  what: 'bringing',
  rows: 'bringings',
  entity: Bringing,
  check: checkUnused,
});
