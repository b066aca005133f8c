import { createHash } from 'node:crypto';
import {
  contentOf,
  CraftError,
  masstoneOf,
  onesOwn,
  readCardsInSteps,
  standInFor,
  type Card as CoreCard,
  type CardsRead,
  type CardTube,
  type OwnTube,
} from '@dusk/core';
import { labDto, PALETTE_MOST_TUBES, type BringingDto, type FilePreview, type FileTubeDto, type Needs } from '@dusk/wire';
import { isUUID } from 'class-validator';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Bringing, Card, CardFile, CardFound, CardPlace, CardSet, Palette, PaletteTube, Tube } from '../entities/index.ts';
import { notFound, ProblemError } from '../refusing/problems.ts';
import { CardIndex } from './cardIndex.ts';
import { keepCards } from './cards.ts';
import { cardOf, cardsById } from './kept.ts';
import { newestSeq } from '../change/newestSeq.ts';
import { puttingAway } from '../change/putAway.ts';
import type { Studio } from '../change/studio.ts';
import { checkTubes, paintOfState } from '../tubes/tubes.ts';
import { type Doing, type Work } from '../change/work.ts';

/** A file of cards with what it holds. */
interface FileRead extends CardsRead {
  readonly id: string;
  readonly name: string;
}

/** Lets whoever else asks be answered. */
const othersTurn = (): Promise<void> => new Promise((turn) => setImmediate(turn));

/** The files that were read last: whoever looks at one brings it in next. */
const lately = new Map<string, FileRead>();
const MOST_LATELY = 2;

/** Reads a file, others having their turn between its cards. @throws ProblemError, a sentence, where it is none of cards */
async function readFile(id: string, name: string, bytes: Buffer): Promise<FileRead> {
  const known = lately.get(id);
  if (known) return { ...known, name };
  try {
    const reading = readCardsInSteps(bytes.toString('utf8'));
    for (;;) {
      const { done, value } = reading.next();
      if (!done) {
        await othersTurn();
        continue;
      }
      const file = { id, name, ...value };
      lately.set(id, file);
      if (lately.size > MOST_LATELY) lately.delete(lately.keys().next().value!);
      return file;
    }
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    throw new ProblemError(422, 'No file of cards', cause.message);
  }
}

const hashOf = (...parts: readonly (string | Buffer)[]): string => {
  const hash = createHash('sha256');
  for (const part of parts) hash.update(part).update('\0');
  return hash.digest('hex');
};
/** An id made of what a thing is: the same thing always has the same. */
const idFrom = (...parts: readonly string[]): string => {
  const hex = hashOf(...parts);
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-5${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
};
/** What a tube of a file is, whatever it is called by there. */
function tubeId({ name, pigment, colourIndex, K, S }: CardTube): string {
  // All cards of a file that take from a tube share its curves.
  let id = tubeIds.get(K);
  if (id === undefined) {
    id = hashOf(JSON.stringify([name, pigment, colourIndex]), JSON.stringify([Array.from(K), Array.from(S)]));
    tubeIds.set(K, id);
  }
  return id;
}
const tubeIds = new WeakMap<Float64Array, string>();

/** What becomes of each card of a file. */
interface Meeting {
  /** New here, under the ids they are to have. */
  readonly fresh: readonly CoreCard[];
  /** Of these, how many stand beside one that is written otherwise. */
  readonly both: number;
  readonly known: readonly string[];
  /** Known, and put away. */
  readonly back: readonly string[];
  /** The id each card of the file has here. */
  readonly ids: ReadonlyMap<string, string>;
}

/** Rows written or marked at once. */
const AT_ONCE = 500;

/** One read of the studio, in its turn: what takes long is asked in several, so that others have theirs. */
type Look = Studio['look'];
async function found(look: Look, ids: readonly string[]): Promise<Map<string, Card>> {
  const all = new Map<string, Card>();
  for (let at = 0; at < ids.length; at += AT_ONCE)
    for (const [id, card] of await look((db) => cardsById(db, ids.slice(at, at + AT_ONCE)))) all.set(id, card);
  return all;
}

/** Meets what is here: a card that is the same is known; one that is written otherwise comes to stand beside it. */
async function meet(look: Look, { cards }: FileRead): Promise<Meeting> {
  const own = new Map(
    cards.map((card) => [card, isUUID(card.id) ? card.id.toLowerCase() : idFrom('card', card.id, contentOf(card))] as const),
  );
  const here = await found(look, [...own.values()]);
  // What each says is asked only of those that are met.
  const differs = (card: CoreCard): boolean => {
    const there = here.get(own.get(card)!);
    return there !== undefined && contentOf(cardOf(there)) !== contentOf(card);
  };
  const otherwise: CoreCard[] = [];
  for (const [at, card] of cards.entries()) {
    if (differs(card)) otherwise.push(card);
    if (at % AT_ONCE === AT_ONCE - 1) await othersTurn();
  }
  const beside = new Map(otherwise.map((card) => [card, idFrom('beside', own.get(card)!, contentOf(card))]));
  for (const [id, card] of await found(look, [...beside.values()])) here.set(id, card);
  const idOf = (card: CoreCard): string => beside.get(card) ?? own.get(card)!;
  const fresh = cards.filter((card) => !here.has(idOf(card)));
  const known = cards.map(idOf).filter((id) => here.has(id));
  return {
    fresh: fresh.map((card) => ({ ...card, id: idOf(card) })),
    both: fresh.filter((card) => beside.has(card)).length,
    known,
    back: known.filter((id) => here.get(id)!.deletedAt !== null),
    ids: new Map(cards.map((card) => [card.id, idOf(card)])),
  };
}

/** Tubes of this studio that may stand for another's. */
async function ownTubes(db: EntityManager): Promise<OwnTube[]> {
  const tubes = await db.find(Tube, { relations: { state: true } });
  return onesOwn(tubes).map(({ id, name, pigment, state }) => ({ id, name, pigment, ...paintOfState(state!) }));
}

/** The tubes of a file, each once, and in how many cards. */
function tubesOf({ cards, palettes }: FileRead): Map<string, { readonly tube: CardTube; cards: number }> {
  const tubes = new Map<string, { readonly tube: CardTube; cards: number }>();
  const add = (tube: CardTube, n: number): void => {
    const id = tubeId(tube);
    const known = tubes.get(id);
    if (known) known.cards += n;
    else tubes.set(id, { tube, cards: n });
  };
  for (const card of cards) for (const tube of card.tubes) add(tube, 1);
  for (const palette of palettes) for (const tube of palette.tubes) add(tube, 0);
  return tubes;
}

const stand = (tube: CardTube, own: readonly OwnTube[]): FileTubeDto['standsIn'] => {
  const found = standInFor(tube, { palette: [], own, all: own });
  return found ? { tubeId: found.id, by: found.by, difference: found.difference } : null;
};

const SHOWN = 60;
/** Tubes told of one file; more would be told by nobody. */
const MOST_TOLD = 400;

async function preview(look: Look, file: FileRead): Promise<FilePreview> {
  const { fresh, both, known, back } = await meet(look, file);
  const own = await look(ownTubes);
  const tubes = [...tubesOf(file)].slice(0, MOST_TOLD).map(([id, { tube, cards }]): FileTubeDto => ({
    tube: id,
    name: tube.name,
    pigment: tube.pigment,
    colourIndex: tube.colourIndex,
    lab: labDto(masstoneOf(tube)),
    cards,
    standsIn: stand(tube, own),
  }));
  return {
    fileId: file.id,
    name: file.name,
    fresh: fresh.length - both,
    both,
    known: known.length - back.length,
    back: back.length,
    sets: (await look((db) => newOf(db, CardSet, 'set', file.sets))).length,
    palettes: (await look((db) => newOf(db, Palette, 'palette', file.palettes))).length,
    tubes,
    shown: fresh.slice(0, SHOWN).map(({ name, seen, predicted }) => ({ name, lab: labDto(seen ?? predicted) })),
    notes: file.notes,
  };
}

/** Sets or palettes of a file that are not here: by the id they came with, and what they hold. */
async function newOf<T extends { readonly id: string }>(
  db: EntityManager,
  entity: typeof CardSet | typeof Palette,
  what: string,
  all: readonly T[],
) {
  const named = all.map((one) => ({ one, id: isUUID(one.id) ? one.id.toLowerCase() : idFrom(what, JSON.stringify(one)) }));
  const here = new Set(
    (await db.find<{ id: string }>(entity, { where: { id: In(named.map(({ id }) => id)) }, select: { id: true } })).map(({ id }) => id),
  );
  return named.filter(({ id }) => !here.has(id));
}

/** A file that was looked at and not brought in is let go after this, ms: a change that waits in a browser may still speak of it. */
const LOOKED_AT_MS = 2 * 24 * 3600 * 1000;
const letGo = (db: EntityManager, at: string) =>
  db.query(`DELETE FROM "card_file" WHERE "createdAt" < ? AND "id" NOT IN (SELECT "fileId" FROM "bringing")`, [
    new Date(Date.parse(at) - LOOKED_AT_MS).toISOString(),
  ]);

/** A file that was brought in, and all of it is here still: known by its hash, without reading it. */
async function knownWhole(db: EntityManager, fileId: string, name: string): Promise<FilePreview | undefined> {
  const [brought] = await db.find(Bringing, { where: { fileId, deletedAt: IsNull() }, order: { createdAt: 'DESC' }, take: 1 });
  if (!brought || brought.besides.of !== brought.cards) return undefined;
  // All that came with it stands as it came; what is still coming will.
  const all = await db.countBy(Card, { bringingId: brought.id });
  if ((await db.countBy(Card, { bringingId: brought.id, deletedAt: IsNull(), version: 1 })) !== all) return undefined;
  const rest = { fresh: 0, both: 0, back: 0, sets: 0, palettes: 0, tubes: [], shown: [], notes: [] };
  return { ...rest, fileId, name, known: brought.cards };
}

/** Keeps a file of cards until it is brought in, and says what that would do. @throws ProblemError where it is none; nothing is kept then */
export async function keepFile(
  { look, change, now }: Pick<Studio, 'look' | 'change' | 'now'>,
  name: string,
  bytes: Buffer,
): Promise<FilePreview> {
  const id = hashOf(bytes);
  const known = await look((db) => knownWhole(db, id, name));
  if (known) return known;
  const file = await readFile(id, name, bytes);
  await change(async (db) => {
    const at = now();
    await letGo(db, at);
    if (!(await db.existsBy(CardFile, { id }))) await db.insert(CardFile, { id, name, bytes, createdAt: at });
  });
  return preview(look, file);
}

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
