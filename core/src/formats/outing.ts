import { CraftError } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';
import { bad, fieldsOf, isObject } from './fields.ts';

/** A pile as it is taken out: all that is shown of it is worked out before it leaves. */
export interface OutingPile {
  readonly id: string;
  readonly name: string;
  /** In the studio's scale, and its place from black (0) to white (1). */
  readonly value: string;
  readonly at: number;
  /** How warm (to 1) or cool (to −1). */
  readonly warmth: number;
  readonly words: string;
  readonly lab: Lab;
  readonly target?: Lab | undefined;
  readonly note: string;
  readonly isMixed: boolean;
  readonly heaps: readonly {
    readonly says: string;
    readonly steps: readonly {
      readonly parts: string;
      readonly name: string;
      readonly says: string;
      readonly mm: number;
      readonly lab: Lab;
    }[];
  }[];
}

/** A painting as it is taken out of the studio, in one page. */
export interface Outing {
  readonly id: string;
  readonly paintingId: string;
  readonly title: string;
  readonly madeAt: string;
  readonly ground: Lab;
  /** `data:` addresses. */
  readonly pictures: readonly { readonly name: string; readonly src: string }[];
  readonly piles: readonly OutingPile[];
  readonly tubes: readonly string[];
  readonly cautions: readonly string[];
}

/** What was done with one pile out there; the ids are made there, so that it comes home once. */
export interface OutingNews {
  readonly pileId: string;
  readonly stageId: string;
  readonly sightingId: string;
  readonly lookId: string;
  /** When its last step was ticked, and which steps were. */
  readonly mixedAt?: string | undefined;
  readonly ticked: readonly number[];
  readonly look?: { readonly lab: Lab; readonly said: string; readonly at: string } | undefined;
  readonly note: string;
}

/** What comes home. */
export interface OutingReturn {
  readonly outing: string;
  readonly paintingId: string;
  readonly title: string;
  readonly news: readonly OutingNews[];
}

export const OUTING_FORMAT = 'auburn-dusk-outing';
export const OUTING_VERSION = 1;
const MOST_PILES = 400;
const MOST_STEPS = 200;
const MOST_LETTERS = 5_000_000;
const ID = /^[0-9a-f-]{36}$/i;

/** What comes home, as a file. */
export const writeReturn = ({ outing, paintingId, title, news }: OutingReturn): string =>
  `${JSON.stringify({ format: OUTING_FORMAT, version: OUTING_VERSION, outing, paintingId, title, news }, null, 1)}\n`;

function newsFrom(value: unknown, at: number, strange: Set<string>): OutingNews {
  const where = `Pile ${at + 1} of this file`;
  const fields = fieldsOf(value, where, strange);
  const id = (name: string): string => {
    const text = fields.text(name, 36);
    if (!ID.test(text)) throw bad(where, `has no ${name}`);
    return text;
  };
  const ticked = fields.has('ticked') ? fields.list('ticked', 0, MOST_STEPS) : [];
  if (!ticked.every((step) => Number.isInteger(step) && (step as number) >= 0)) throw bad(where, 'has ticks that are none');
  let look: OutingNews['look'];
  if (fields.has('look')) {
    const seen = fieldsOf(fields.any('look'), where, strange);
    look = { lab: seen.lab('lab'), said: seen.line('said', 120), at: seen.moment('at') };
    seen.rest();
  }
  const news = {
    pileId: id('pileId'),
    stageId: id('stageId'),
    sightingId: id('sightingId'),
    lookId: id('lookId'),
    ticked: ticked as readonly number[],
    mixedAt: fields.has('mixedAt') ? fields.moment('mixedAt') : undefined,
    look,
    note: fields.text('note'),
  };
  fields.rest();
  return news;
}

/**
 * Reads what comes home; all of it or nothing.
 * @throws CraftError, a sentence that says what is wrong with it
 */
export function readReturn(text: string): OutingReturn {
  if (text.length > MOST_LETTERS) throw bad('This file', 'is larger than any that comes home');
  let json: unknown;
  try {
    json = JSON.parse(text.charCodeAt(0) === 0xfeff ? text.slice(1) : text);
  } catch {
    throw bad('This file', 'is not whole, or is none that was taken out');
  }
  if (!isObject(json) || json['format'] !== OUTING_FORMAT) throw bad('This file', 'is none that was taken out and comes home');
  if (json['version'] !== OUTING_VERSION)
    throw new CraftError('input', 'This file was written by another program version. Nothing of this file was taken.');
  const strange = new Set<string>();
  const fields = fieldsOf(json, 'This file', strange);
  const read = {
    outing: fields.text('outing', 36),
    paintingId: fields.text('paintingId', 36),
    title: fields.line('title', 120),
    news: fields.list('news', 0, MOST_PILES).map((one, at) => newsFrom(one, at, strange)),
  };
  if (!ID.test(read.outing) || !ID.test(read.paintingId)) throw bad('This file', 'does not say which painting it is of');
  return read;
}
