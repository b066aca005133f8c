import { CraftError } from '../errors.ts';
import { atOnce, type InSteps } from '../matching/inSteps.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { Lab } from '../colour/spaces.ts';
import { SIGHTS } from '../correcting/doubt.ts';
import type { Heap, Ingredient, Mixture } from '../mixing/mixture.ts';
import { BASES } from '../paint/catalogue.ts';
import { checkCard, type Card, type CardTube, type Dab } from './card.ts';
import { bad, fieldsOf, isObject } from './fields.ts';

/** What a file of cards calls itself, and the newest form that is read. */
export const CARDS_FORMAT = 'auburn-dusk-cards';
export const CARDS_VERSION = 1;

/** Most cards and letters in one file. */
export const MOST_CARDS = 20_000;
export const MOST_LETTERS = 200_000_000;
const MOST_TUBES = 5000;
/** Most tubes in one card or palette. */
const MOST_TUBES_OF_ONE = 30;
const MOST_SETS = 2000;

/** What cards may be kept together as. */
/** Letters in what a card was truly made of. */
export const MOST_MADE = 400;

export const SET_KINDS = ['chosen', 'layer', 'string', 'scheme', 'kit', 'palette'] as const;
export type SetKind = (typeof SET_KINDS)[number];

/** Cards that belong together, in an order. */
export interface CardSet {
  readonly id: string;
  readonly name: string;
  readonly kind: SetKind;
  readonly note: string;
  readonly cards: readonly string[];
}

/** A palette with its tubes as they were. */
export interface CardPalette {
  readonly id: string;
  readonly name: string;
  readonly tubes: readonly CardTube[];
}

/** What one file carries to another studio. */
export interface CardsFile {
  readonly cards: readonly Card[];
  readonly sets: readonly CardSet[];
  readonly palettes: readonly CardPalette[];
}

/** What was read, and what of the file was passed over. */
export interface CardsRead extends CardsFile {
  readonly notes: readonly string[];
}

const rounded = (v: number, digits: number): number => Number(v.toFixed(digits));
const labList = (lab: Lab): number[] => lab.map((v) => rounded(v, 4));
const curve = (list: Float64Array): number[] => Array.from(list, (v) => Number(v.toPrecision(7)));

/** Its fields by name: what else a studio keeps beside a tube, as which of its own it was, says nothing elsewhere. */
const writtenTube = ({ name, pigment, colourIndex, caution, density, nozzleMm, basis, K, S }: CardTube, key: string) => ({
  key,
  name,
  pigment,
  colourIndex,
  caution,
  density,
  nozzleMm,
  basis,
  K: curve(K),
  S: curve(S),
});

/** The tubes of a file, each written once, by the key it has there. */
class TubesWritten {
  readonly list: ReturnType<typeof writtenTube>[] = [];
  private readonly keys = new Map<string, string>();

  keyOf(tube: CardTube): string {
    const what = JSON.stringify(writtenTube(tube, ''));
    const known = this.keys.get(what);
    if (known !== undefined) return known;
    const key = `t${this.list.length + 1}`;
    this.keys.set(what, key);
    this.list.push(writtenTube(tube, key));
    return key;
  }
}

/** One card as it is written; its fields in the order of the schema. */
function writtenCard(card: Card, keyOf: (tube: CardTube) => string): Readonly<Record<string, unknown>> {
  const { recipe, tubes, ml, target, predicted, seen, dab, steadiness, within, ...said } = card;
  const keys = new Map(tubes.map((tube) => [tube.key, keyOf(tube)]));
  return {
    id: said.id,
    name: said.name,
    note: said.note,
    recipe: recipe.heaps.map(({ ingredients }) =>
      ingredients.map((one) =>
        'heap' in one ? { heap: one.heap, parts: one.parts } : { tube: keys.get((one as { tube: string }).tube), parts: one.parts },
      ),
    ),
    ml: rounded(ml, 4),
    ...(target && { target: labList(target) }),
    predicted: labList(predicted),
    ...(seen && { seen: labList(seen) }),
    ...(dab && { dab: { lab: labList(dab.lab), sight: dab.sight, at: dab.at } }),
    basis: said.basis,
    steadiness: rounded(steadiness, 4),
    within: rounded(within, 4),
    thing: said.thing,
    zone: said.zone,
    painting: said.painting,
    light: said.light,
    film: said.film,
    medium: said.medium,
    ...(said.made && { made: said.made }),
    madeAt: said.madeAt,
  };
}

/** All that a card says, whatever it and its tubes are called by: the same text for the same card. */
export function contentOf(card: Card): string {
  const tubes = new TubesWritten();
  const used = card.recipe.heaps.flatMap(({ ingredients }) => ingredients.flatMap((one) => ('tube' in one ? one.tube : [])));
  const inOrder = [...card.tubes].sort((one, other) => used.indexOf(one.key) - used.indexOf(other.key));
  const said = writtenCard({ ...card, id: '', tubes: inOrder }, (tube) => tubes.keyOf(tube));
  return JSON.stringify([said, tubes.list]);
}

/** Cards, with sets and palettes, as a file that any program can read; described by docs/cards.schema.json. */
export function writeCards({ cards, sets, palettes }: CardsFile): string {
  const tubes = new TubesWritten();
  const keyOf = (tube: CardTube): string => tubes.keyOf(tube);
  const lists = {
    cards: cards.map((card) => writtenCard(card, keyOf)),
    sets: sets.map(({ id, name, kind, note, cards: ids }) => ({ id, name, kind, note, cards: ids })),
    palettes: palettes.map(({ id, name, tubes: own }) => ({ id, name, tubes: own.map(keyOf) })),
  };
  // One thing a line: a file that can be read, and compared with another.
  const lines = (list: readonly object[]): string =>
    list.length === 0 ? '[]' : `[\n${list.map((one) => JSON.stringify(one)).join(',\n')}\n]`;
  const head = `"format": ${JSON.stringify(CARDS_FORMAT)},\n"version": ${CARDS_VERSION}`;
  return `{\n${head},\n"tubes": ${lines(tubes.list)},\n"cards": ${lines(lists.cards)},\n"sets": ${lines(lists.sets)},\n"palettes": ${lines(lists.palettes)}\n}\n`;
}

function tubeFrom(value: unknown, where: string, strange: Set<string>): CardTube {
  const fields = fieldsOf(value, where, strange);
  const tube = {
    key: fields.text('key', 80),
    name: fields.name('name', 80),
    pigment: fields.line('pigment', 80),
    colourIndex: fields.line('colourIndex', 80),
    caution: fields.line('caution', 80) || 'none',
    density: fields.number('density', 0.2, 20),
    nozzleMm: fields.number('nozzleMm', 0.5, 40),
    basis: fields.oneOf('basis', BASES, 'typical'),
    K: Float64Array.from(fields.numbers('K', BANDS, 0, 1000)),
    S: Float64Array.from(fields.numbers('S', BANDS, 1e-9, 1000)),
  };
  fields.rest();
  if (tube.key === '' || tube.name === '') throw bad(where, 'has a tube without a name');
  return tube;
}

function tubeOf(known: ReadonlyMap<string, CardTube>, key: unknown, where: string): CardTube {
  const tube = typeof key === 'string' ? known.get(key) : undefined;
  if (!tube) throw bad(where, 'takes from a tube that is none of the file’s');
  return tube;
}

/** A recipe by keys of the card's own, in the order in which its tubes are taken. */
function ofOwnTubes({ heaps }: Mixture, known: ReadonlyMap<string, CardTube>, where: string): Pick<Card, 'recipe' | 'tubes'> {
  const own = new Map<string, CardTube>();
  const keyOf = (key: string): string => {
    if (!own.has(key)) own.set(key, { ...tubeOf(known, key, where), key: `t${own.size + 1}` });
    if (own.size > MOST_TUBES_OF_ONE) throw bad(where, `takes from more than ${MOST_TUBES_OF_ONE} tubes`);
    return own.get(key)!.key;
  };
  const recipe = {
    heaps: heaps.map(({ ingredients }) => ({
      ingredients: ingredients.map((one) => ('tube' in one ? { tube: keyOf(one.tube), parts: one.parts } : one)),
    })),
  };
  return { recipe, tubes: [...own.values()] };
}

function ingredientFrom(value: unknown, where: string, strange: Set<string>): Ingredient {
  const fields = fieldsOf(value, where, strange);
  const parts = fields.number('parts', 1e-6, 1e6);
  const ingredient = fields.has('heap') ? { heap: fields.number('heap', 0, 100), parts } : { tube: fields.text('tube', 80), parts };
  fields.rest();
  return ingredient;
}

function dabFrom(value: unknown, where: string, strange: Set<string>): Dab {
  const fields = fieldsOf(value, where, strange);
  const dab = { lab: fields.lab('lab'), sight: fields.oneOf('sight', SIGHTS, 'words'), at: fields.moment('at') };
  fields.rest();
  return dab;
}

function cardFrom(value: unknown, at: number, known: ReadonlyMap<string, CardTube>, strange: Set<string>): Card {
  const where = `Card ${at + 1}${isObject(value) && typeof value['name'] === 'string' ? `, “${value['name'].slice(0, 60)}”,` : ''}`;
  const fields = fieldsOf(value, where, strange);
  const heaps = fields.list('recipe', 1, 12).map((heap): Heap => {
    if (!Array.isArray(heap) || heap.length < 1 || heap.length > 24) throw bad(where, 'has a heap with nothing, or too much, in it');
    return { ingredients: heap.map((one) => ingredientFrom(one, where, strange)) };
  });
  const card: Card = {
    id: fields.text('id', 80),
    name: fields.name('name', 120),
    note: fields.text('note'),
    ...ofOwnTubes({ heaps }, known, where),
    ml: fields.number('ml', 0.01, 5000),
    target: fields.has('target') ? fields.lab('target') : undefined,
    predicted: fields.lab('predicted'),
    seen: fields.has('seen') ? fields.lab('seen') : undefined,
    dab: fields.has('dab') ? dabFrom(fields.any('dab'), where, strange) : undefined,
    basis: fields.oneOf('basis', BASES, 'typical'),
    steadiness: fields.has('steadiness') ? fields.number('steadiness', 0, 200) : 0,
    within: fields.has('within') ? fields.number('within', 0, 200) : 0,
    thing: fields.line('thing', 80),
    zone: fields.line('zone', 40),
    painting: fields.line('painting', 120),
    light: fields.line('light', 120),
    film: fields.line('film', 120),
    medium: fields.line('medium', 120),
    ...(fields.has('made') && { made: fields.line('made', MOST_MADE) }),
    madeAt: fields.moment('madeAt'),
  };
  fields.rest();
  if (card.id === '' || card.name === '') throw bad(where, 'has no name');
  try {
    return checkCard(card);
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    throw new CraftError('input', `${cause.message} Nothing of this file was taken.`);
  }
}

function setFrom(value: unknown, at: number, known: ReadonlySet<string>, strange: Set<string>): CardSet {
  const where = `Set ${at + 1}`;
  const fields = fieldsOf(value, where, strange);
  const ids = fields.list('cards', 0, MOST_CARDS);
  const set = {
    id: fields.text('id', 80),
    name: fields.name('name', 120),
    kind: fields.oneOf('kind', SET_KINDS, 'chosen'),
    note: fields.text('note'),
    cards: ids as readonly string[],
  };
  fields.rest();
  if (set.id === '' || set.name === '') throw bad(where, 'has no name');
  if (!ids.every((id) => typeof id === 'string' && known.has(id)) || new Set(ids).size < ids.length)
    throw bad(where, `, “${set.name}”, names cards that are not in the file, or one twice`);
  return set;
}

function paletteFrom(value: unknown, at: number, known: ReadonlyMap<string, CardTube>, strange: Set<string>): CardPalette {
  const where = `Palette ${at + 1}`;
  const fields = fieldsOf(value, where, strange);
  const palette = {
    id: fields.text('id', 80),
    name: fields.name('name', 80),
    tubes: fields.list('tubes', 1, MOST_TUBES_OF_ONE).map((key) => tubeOf(known, key, where)),
  };
  fields.rest();
  if (palette.id === '' || palette.name === '') throw bad(where, 'has no name');
  return palette;
}

const listed = (json: Readonly<Record<string, unknown>>, name: string, most: number): readonly unknown[] => {
  const list = json[name] ?? [];
  if (!Array.isArray(list) || list.length > most) throw bad('This file', `holds no list of at most ${most} ${name}`);
  return list as readonly unknown[];
};

function checkOnce(read: readonly { readonly id: string; readonly name: string }[], what: string): void {
  const met = new Set<string>();
  const twice = read.find(({ id }) => met.has(id) || !met.add(id));
  if (twice) throw bad('This file', `holds the ${what} “${twice.name}” twice`);
}

function parsed(text: string): Readonly<Record<string, unknown>> {
  if (text.length > MOST_LETTERS) throw bad('This file', 'is larger than any that is read');
  // A mark of order that some programs write at the beginning.
  const clean = text.charCodeAt(0) === 0xfeff ? text.slice(1) : text;
  if (clean.includes('\uFFFD')) throw bad('This file', 'is not in UTF-8, or is damaged: save it as UTF-8');
  let json: unknown;
  try {
    json = JSON.parse(clean);
  } catch {
    throw bad('This file', 'is not whole, or is no file of cards');
  }
  if (!isObject(json) || json['format'] !== CARDS_FORMAT) throw bad('This file', 'is no file of cards');
  return json;
}

/** Cards that are read before others have their turn. */
const CARDS_A_STEP = 200;

/**
 * Reads a file of cards a little at a time; all of it or nothing.
 * @throws CraftError, a sentence that says which card and what is wrong with it
 */
export function* readCardsInSteps(text: string): InSteps<CardsRead> {
  const json = parsed(text);
  const { version, cards } = json;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw bad('This file', 'does not say in which form it is written');
  if (version > CARDS_VERSION)
    throw bad('This file', `was written by a newer program (form ${version}; up to ${CARDS_VERSION} is read here)`);
  if (!Array.isArray(cards) || cards.length > MOST_CARDS) throw bad('This file', `holds no list of at most ${MOST_CARDS} cards`);
  const strange = new Set<string>();
  for (const name of Object.keys(json)) if (!['format', 'version', 'tubes', 'cards', 'sets', 'palettes'].includes(name)) strange.add(name);
  const tubes = listed(json, 'tubes', MOST_TUBES).map((tube, at) => tubeFrom(tube, `Tube ${at + 1}`, strange));
  checkOnce(
    tubes.map(({ key, name }) => ({ id: key, name })),
    'tube',
  );
  const known = new Map(tubes.map((tube) => [tube.key, tube]));
  const read: Card[] = [];
  for (const [at, card] of cards.entries()) {
    read.push(cardFrom(card, at, known, strange));
    if (at % CARDS_A_STEP === CARDS_A_STEP - 1) yield at / cards.length;
  }
  checkOnce(read, 'card');
  const ids = new Set(read.map(({ id }) => id));
  const all = listed(json, 'sets', MOST_SETS).map((set, at) => setFrom(set, at, ids, strange));
  checkOnce(all, 'set');
  // A set of nothing is none.
  const sets = all.filter((set) => set.cards.length > 0);
  const palettes = listed(json, 'palettes', MOST_SETS).map((palette, at) => paletteFrom(palette, at, known, strange));
  checkOnce(palettes, 'palette');
  const notes = strange.size > 0 ? [`Not known here, and passed over: ${[...strange].sort().slice(0, 12).join(', ')}.`] : [];
  return { cards: read, sets, palettes, notes };
}

/** Reads a file of cards at once. @throws CraftError as in steps */
export const readCards = (text: string): CardsRead => atOnce(readCardsInSteps(text));
