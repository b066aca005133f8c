import { CraftError } from '../errors.ts';
import type { Lab } from '../colour/spaces.ts';

const MOST_TEXT = 2000;
const WHEN = /^\d{4}-\d\d-\d\dT\d\d:\d\d/;
/** A letter that leaves a mark: neither a space nor one of the fillers that count as letters. */
const SEEN = /[^\p{Z}\p{C}\p{M}\u115f\u1160\u3164\uffa0\u2800]/u;
const HALF_A_LETTER = /\p{Cs}/u;
/** Control characters but for those that space words and end lines. */
const NO_MARK = /(?![\t\n\r])\p{Cc}/gu;

/** A refusal of a whole file that says where and why. */
export const bad = (where: string, what: string): CraftError =>
  new CraftError('input', `${where} ${what}. Nothing of this file was taken.`);

/** Reads one object of a file field by field; what it does not know is passed over and told once. */
export class Fields {
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
  /** Words over as many lines as there are; letters that leave no mark and end no line are dropped. */
  text(name: string, most = MOST_TEXT): string {
    const value = this.take(name) ?? '';
    if (typeof value !== 'string' || value.length > most) throw bad(this.where, `has no ${name} of at most ${most} letters`);
    // It could not be kept as it is, and would be another at the next reading.
    if (HALF_A_LETTER.test(value)) throw bad(this.where, `has half a letter in its ${name}`);
    return value.replace(NO_MARK, '');
  }
  /** A time, UTC ISO 8601. */
  moment(name: string): string {
    const text = this.line(name, 40);
    if (!WHEN.test(text) || Number.isNaN(Date.parse(text))) throw bad(this.where, `does not say when (${name})`);
    return text;
  }
  /** A name: words on one line, of which something is seen. */
  name(name: string, most: number): string {
    const text = this.line(name, most);
    if (!SEEN.test(text)) throw bad(this.where, `has no ${name} that can be seen`);
    return text;
  }
  /** Words on one line. */
  line(name: string, most: number): string {
    return this.text(name, most).replace(/[\r\n\t]+/g, ' ');
  }
  /** One of a list of words; the usual one where the field is missing. */
  oneOf<T extends string>(name: string, words: readonly T[], usual: T): T {
    const value = this.take(name) ?? usual;
    if (!words.includes(value as T)) throw bad(this.where, `has a ${name} that is none of ${words.join(', ')}`);
    return value as T;
  }
  any(name: string): unknown {
    return this.take(name);
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

export const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
export function fieldsOf(value: unknown, where: string, strange: Set<string>): Fields {
  if (!isObject(value)) throw bad(where, 'is not written as one');
  return new Fields(value, where, strange);
}
