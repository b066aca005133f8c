import { createHash } from 'node:crypto';
import { contentOf, CraftError, masstoneOf, onesOwn, readCards, standInFor, type Card as CoreCard, type CardsRead, type CardTube, type OwnTube } from '@dusk/core';
import { labDto, PALETTE_MOST_TUBES, type BringingDto, type FilePreview, type FileTubeDto, type Needs } from '@dusk/wire';
import { isUUID } from 'class-validator';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Bringing, Card, CardFile, CardFound, CardPlace, CardSet, Palette, PaletteTube, Tube } from '../entities/index.ts';
import { notFound, ProblemError } from '../problems.ts';
import { CardIndex } from './cardIndex.ts';
import { cardOf, cardsById, keepCards } from './cards.ts';
import { puttingAway } from './putAway.ts';
import { checkTubes, paintOfState } from './tubes.ts';
import { now, type Doing, type Work } from './work.ts';

/** A file of cards with what it holds. */
interface FileRead extends CardsRead {
  readonly id: string;
  readonly name: string;
}

/** @throws ProblemError, a sentence, where the file is none of cards */
function readFile(id: string, name: string, bytes: Buffer): FileRead {
  try {
    return { id, name, ...readCards(bytes.toString('utf8')) };
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

/** Meets what is here: a card that is the same is known; one that is written otherwise comes to stand beside it. */
async function meet(db: EntityManager, { cards }: FileRead): Promise<Meeting> {
  const own = new Map(
    cards.map((card) => [card, isUUID(card.id) ? card.id.toLowerCase() : idFrom('card', card.id, contentOf(card))] as const),
  );
  const here = await cardsById(db, [...own.values()]);
  // What each says is asked only of those that are met.
  const differs = (card: CoreCard): boolean => {
    const there = here.get(own.get(card)!);
    return there !== undefined && contentOf(cardOf(there)) !== contentOf(card);
  };
  const beside = new Map(cards.filter(differs).map((card) => [card, idFrom('beside', own.get(card)!, contentOf(card))]));
  for (const [id, card] of await cardsById(db, [...beside.values()])) here.set(id, card);
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

async function preview(db: EntityManager, file: FileRead): Promise<FilePreview> {
  const { fresh, both, known, back } = await meet(db, file);
  const own = await ownTubes(db);
  const tubes = [...tubesOf(file)].slice(0, MOST_TOLD).map(
    ([id, { tube, cards }]): FileTubeDto => ({
      tube: id,
      name: tube.name,
      pigment: tube.pigment,
      colourIndex: tube.colourIndex,
      lab: labDto(masstoneOf(tube)),
      cards,
      standsIn: stand(tube, own),
    }),
  );
  return {
    fileId: file.id,
    name: file.name,
    fresh: fresh.length - both,
    both,
    known: known.length - back.length,
    back: back.length,
    sets: (await newOf(db, CardSet, 'set', file.sets)).length,
    palettes: (await newOf(db, Palette, 'palette', file.palettes)).length,
    tubes,
    shown: fresh.slice(0, SHOWN).map(({ name, seen, predicted }) => ({ name, lab: labDto(seen ?? predicted) })),
    notes: file.notes,
  };
}

/** Sets or palettes of a file that are not here: by the id they came with, and what they hold. */
async function newOf<T extends { readonly id: string }>(db: EntityManager, entity: typeof CardSet | typeof Palette, what: string, all: readonly T[]) {
  const named = all.map((one) => ({ one, id: isUUID(one.id) ? one.id.toLowerCase() : idFrom(what, JSON.stringify(one)) }));
  const here = new Set((await db.find<{ id: string }>(entity, { where: { id: In(named.map(({ id }) => id)) }, select: { id: true } })).map(({ id }) => id));
  return named.filter(({ id }) => !here.has(id));
}

/** A file that was looked at and not brought in is let go after this, ms: a change that waits in a browser may still speak of it. */
const LOOKED_AT_MS = 2 * 24 * 3600 * 1000;
const letGo = (db: EntityManager) =>
  db.query(`DELETE FROM "card_file" WHERE "createdAt" < ? AND "id" NOT IN (SELECT "fileId" FROM "bringing")`, [
    new Date(Date.now() - LOOKED_AT_MS).toISOString(),
  ]);

/** Keeps a file of cards until it is brought in, and says what that would do. @throws ProblemError where it is none; nothing is kept then */
export async function keepFile(db: EntityManager, name: string, bytes: Buffer): Promise<FilePreview> {
  const id = hashOf(bytes);
  const file = readFile(id, name, bytes);
  await letGo(db);
  if (!(await db.existsBy(CardFile, { id }))) await db.insert(CardFile, { id, name, bytes, createdAt: now() });
  return preview(db, file);
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

export const addBringing: Doing<Needs<'bringing.add'>> = async (work, { id, fileId, stands = [] }) => {
  const { db, at, touch } = work;
  const kept = await db.findOneBy(CardFile, { id: fileId });
  if (!kept) throw notFound('file of cards');
  const file = readFile(kept.id, kept.name, kept.bytes);
  const { fresh, back, ids } = await meet(db, file);
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
    besides: { back, palettes: palettes.map((one) => one.id) },
    createdAt: at,
    deletedAt: null,
  });
  await keepCards(
    db,
    fresh.map((card) => ({
      ...card,
      pileId: null,
      bringingId: id,
      stands: Object.fromEntries(
        card.tubes.flatMap((tube) => {
          const own = standFor(tube);
          return own === undefined ? [] : [[tube.key, own]];
        }),
      ),
    })),
  );
  for (const set of sets) {
    await db.insert(CardSet, { id: set.id, version: 1, name: set.one.name, kind: set.one.kind, note: set.one.note, bringingId: id, createdAt: at, deletedAt: null });
    const places = set.one.cards.map((card, position) => ({ setId: set.id, cardId: ids.get(card)!, position }));
    for (let from = 0; from < places.length; from += AT_ONCE) await db.insert(CardPlace, places.slice(from, from + AT_ONCE));
    touch('sets', set.id);
  }
  for (const { id: paletteId, one } of palettes) {
    const tubeIds = [...new Set(one.tubes.flatMap((tube) => standFor(tube) ?? []))].slice(0, PALETTE_MOST_TUBES);
    await db.insert(Palette, { id: paletteId, version: 1, name: one.name, createdAt: at, updatedAt: at, deletedAt: null });
    await db.insert(PaletteTube, tubeIds.map((tube, position) => ({ paletteId, tubeId: tube, position })));
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
    (await db.find<{ id: string; bringingId: string | null }>(entity, { where: { bringingId: id }, select: { id: true } })).map((row) => row.id);
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
    if (inUse) throw new ProblemError(409, 'In use', `“${inUse.title}” is painted from a palette of this file. Give it another palette first.`);
  }
  await setAway(work, row, back);
}

export const { away: deleteBringing, back: restoreBringing } = puttingAway({ what: 'bringing', rows: 'bringings', entity: Bringing, check: checkUnused });
