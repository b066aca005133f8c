import { CraftError } from '../errors.ts';
import { BANDS } from '../colour/spectrum.ts';
import type { Lab } from '../colour/spaces.ts';
import type { Heap, Ingredient } from '../mixing/mixture.ts';
import { checkCard, type Card, type CardTube } from './card.ts';

/** What a file of cards calls itself, and the newest form that is read. */
export const CARDS_FORMAT = 'auburn-dusk-cards';
export const CARDS_VERSION = 1;

/** Most cards and letters in one file. */
export const MOST_CARDS = 20_000;
export const MOST_LETTERS = 200_000_000;
const MOST_TUBES = 30;
const MOST_TEXT = 2000;

/** Cards that were read, and what of the file was passed over. */
export interface CardsRead {
  readonly cards: readonly Card[];
  readonly notes: readonly string[];
}

const rounded = (v: number, digits: number): number => Number(v.toFixed(digits));
const labList = (lab: Lab): number[] => lab.map((v) => rounded(v, 4));
const curve = (list: Float64Array): number[] => Array.from(list, (v) => Number(v.toPrecision(7)));

/** Cards as a file that any program can read; described by docs/cards.schema.json. */
export function writeCards(cards: readonly Card[]): string {
  const written = cards.map(({ id, name, note, recipe, tubes, ml, target, predicted, seen, thing, zone, painting, madeAt }) => ({
    id,
    name,
    note,
    recipe: recipe.heaps.map(({ ingredients }) =>
      ingredients.map((one) =>
        'heap' in one ? { heap: one.heap, parts: one.parts } : { tube: (one as { tube: string }).tube, parts: one.parts },
      ),
    ),
    tubes: tubes.map(({ K, S, ...tube }) => ({ ...tube, K: curve(K), S: curve(S) })),
    ml: rounded(ml, 4),
    ...(target && { target: labList(target) }),
    predicted: labList(predicted),
    ...(seen && { seen: labList(seen) }),
    thing,
    zone,
    painting,
    madeAt,
  }));
  return `${JSON.stringify({ format: CARDS_FORMAT, version: CARDS_VERSION, cards: written }, null, 1)}\n`;
}

const bad = (where: string, what: string): CraftError => new CraftError('input', `${where} ${what}. Nothing of this file was taken.`);

/** Reads one object of a file field by field; what it does not know is passed over and told once. */
class Fields {
  private readonly taken = new Set<string>();
  constructor(
    private readonly from: Readonly<Record<string, unknown>>,
    private readonly where: string,
    private readonly strange: Set<string>,
  ) {}

  private take(name: string): unknown {
    this.taken.add(name);
    return this.from[name];
  }
  has(name: string): boolean {
    return this.from[name] !== undefined && this.from[name] !== null;
  }
  text(name: string, most = MOST_TEXT): string {
    const value = this.take(name) ?? '';
    if (typeof value !== 'string' || value.length > most) throw bad(this.where, `has no ${name} of at most ${most} letters`);
    return value;
  }
  number(name: string, least: number, most: number): number {
    const value = this.take(name);
    if (typeof value !== 'number' || !(value >= least && value <= most)) throw bad(this.where, `has no ${name} from ${least} to ${most}`);
    return value;
  }
  list(name: string, least: number, most: number): readonly unknown[] {
    const value = this.take(name);
    if (!Array.isArray(value) || value.length < least || value.length > most)
      throw bad(this.where, `has no ${name}, ${least} to ${most} of them`);
    return value as readonly unknown[];
  }
  numbers(name: string, count: number, least: number, most: number): number[] {
    const list = this.list(name, count, count);
    if (!list.every((v) => typeof v === 'number' && v >= least && v <= most))
      throw bad(this.where, `has a ${name} that is no list of numbers`);
    return list as number[];
  }
  lab(name: string): Lab {
    const [L, a, b] = this.numbers(name, 3, -200, 200);
    if (L! < 0 || L! > 100.5) throw bad(this.where, `has a ${name} whose lightness is not from 0 to 100`);
    return [L!, a!, b!];
  }
  /** Remembers what was not asked for. */
  rest(): void {
    for (const name of Object.keys(this.from)) if (!this.taken.has(name)) this.strange.add(name);
  }
}

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
function fieldsOf(value: unknown, where: string, strange: Set<string>): Fields {
  if (!isObject(value)) throw bad(where, 'is not written as one');
  return new Fields(value, where, strange);
}

function tubeFrom(value: unknown, where: string, strange: Set<string>): CardTube {
  const fields = fieldsOf(value, where, strange);
  const tube = {
    key: fields.text('key', 80),
    name: fields.text('name', 80),
    pigment: fields.text('pigment', 80),
    colourIndex: fields.text('colourIndex', 80),
    caution: fields.text('caution', 80) || 'none',
    density: fields.number('density', 0.2, 20),
    nozzleMm: fields.number('nozzleMm', 0.5, 40),
    K: Float64Array.from(fields.numbers('K', BANDS, 0, 1000)),
    S: Float64Array.from(fields.numbers('S', BANDS, 1e-9, 1000)),
  };
  fields.rest();
  if (tube.key === '' || tube.name === '') throw bad(where, 'has a tube without a name');
  return tube;
}

function ingredientFrom(value: unknown, where: string, strange: Set<string>): Ingredient {
  const fields = fieldsOf(value, where, strange);
  const parts = fields.number('parts', 1e-6, 1e6);
  const ingredient = fields.has('heap') ? { heap: fields.number('heap', 0, 100), parts } : { tube: fields.text('tube', 80), parts };
  fields.rest();
  return ingredient;
}

const WHEN = /^\d{4}-\d\d-\d\dT\d\d:\d\d/;

function cardFrom(value: unknown, at: number, strange: Set<string>): Card {
  const where = `Card ${at + 1}${isObject(value) && typeof value['name'] === 'string' ? `, “${value['name'].slice(0, 60)}”,` : ''}`;
  const fields = fieldsOf(value, where, strange);
  const heaps = fields.list('recipe', 1, 12).map((heap): Heap => {
    if (!Array.isArray(heap) || heap.length < 1 || heap.length > 24) throw bad(where, 'has a heap with nothing, or too much, in it');
    return { ingredients: heap.map((one) => ingredientFrom(one, where, strange)) };
  });
  const card: Card = {
    id: fields.text('id', 80),
    name: fields.text('name', 120),
    note: fields.text('note'),
    recipe: { heaps },
    tubes: fields.list('tubes', 1, MOST_TUBES).map((tube) => tubeFrom(tube, where, strange)),
    ml: fields.number('ml', 0.01, 5000),
    target: fields.has('target') ? fields.lab('target') : undefined,
    predicted: fields.lab('predicted'),
    seen: fields.has('seen') ? fields.lab('seen') : undefined,
    thing: fields.text('thing', 80),
    zone: fields.text('zone', 40),
    painting: fields.text('painting', 120),
    madeAt: fields.text('madeAt', 40),
  };
  fields.rest();
  if (card.id === '' || card.name === '') throw bad(where, 'has no name');
  if (!WHEN.test(card.madeAt)) throw bad(where, 'does not say when it was made');
  try {
    return checkCard(card);
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    throw new CraftError('input', `${cause.message} Nothing of this file was taken.`);
  }
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

/**
 * Reads a file of cards; all of it or nothing.
 * @throws CraftError, a sentence that says which card and what is wrong with it
 */
export function readCards(text: string): CardsRead {
  const json = parsed(text);
  const { version, cards } = json;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw bad('This file', 'does not say in which form it is written');
  if (version > CARDS_VERSION)
    throw bad('This file', `was written by a newer program (form ${version}; up to ${CARDS_VERSION} is read here)`);
  if (!Array.isArray(cards) || cards.length > MOST_CARDS) throw bad('This file', `holds no list of at most ${MOST_CARDS} cards`);
  const strange = new Set<string>();
  for (const name of Object.keys(json)) if (!['format', 'version', 'cards'].includes(name)) strange.add(name);
  const read = cards.map((card, at) => cardFrom(card, at, strange));
  const met = new Set<string>();
  const twice = read.find(({ id }) => met.has(id) || !met.add(id));
  if (twice) throw bad('This file', `holds the card “${twice.name}” twice`);
  const notes = strange.size > 0 ? [`Not known here, and passed over: ${[...strange].sort().slice(0, 12).join(', ')}.`] : [];
  return { cards: read, notes };
}
