// What a file of cards would bring: its cards met with those that are here, told before anything is kept.
import { contentOf, masstoneOf, onesOwn, standInFor, type Card as CoreCard, type CardTube, type OwnTube } from '@dusk/core';
import { labDto, type FilePreview, type FileTubeDto } from '@dusk/wire';
import { isUUID } from 'class-validator';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Bringing, Card, CardFile, CardSet, Palette, Tube } from '../entities/index.ts';
import { cardOf, cardsById } from './kept.ts';
import type { Studio } from '../change/studio.ts';
import { paintOfState } from '../tubes/tubes.ts';
import { othersTurn, readFile, hashOf, idFrom, tubeId, type FileRead } from './reading.ts';

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
export const AT_ONCE = 500;

/** One read of the studio, in its turn: what takes long is asked in several, so that others have theirs. */
type Look = Studio['look'];
async function found(look: Look, ids: readonly string[]): Promise<Map<string, Card>> {
  const all = new Map<string, Card>();
  for (let at = 0; at < ids.length; at += AT_ONCE)
    for (const [id, card] of await look((db) => cardsById(db, ids.slice(at, at + AT_ONCE)))) all.set(id, card);
  return all;
}

/** Meets what is here: a card that is the same is known; one that is written otherwise comes to stand beside it. */
export async function meet(look: Look, { cards }: FileRead): Promise<Meeting> {
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
export async function ownTubes(db: EntityManager): Promise<OwnTube[]> {
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

export const stand = (tube: CardTube, own: readonly OwnTube[]): FileTubeDto['standsIn'] => {
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
export async function newOf<T extends { readonly id: string }>(
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
