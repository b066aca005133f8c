import { InvalidRequest } from './invalid.ts';

/** Bounds that hold for whatever is sent, whichever fields it has: seen before anything else is done with it. */
const DEEPEST = 12;
const MOST_FIELDS = 40;
const MOST_IN_A_LIST = 400;
const MOST_IN_ALL = 60_000;
const LONGEST_TEXT = 20_000;

/** Names that every object has: a field of such a name would be hidden by it, or hide it. */
const INHERITED: ReadonlySet<string> = new Set(Object.getOwnPropertyNames(Object.prototype));
/** Half of a letter that is written in two: it cannot be kept as it is. */
const HALF_A_LETTER = /\p{Cs}/u;

const shortened = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
const wrong = (field: string, message: string): InvalidRequest => new InvalidRequest([{ field, message }]);

/**
 * Sees that what was sent is of a size and shape that can be checked field by field in no time.
 * @throws InvalidRequest that says what is too large, too deep, or cannot be kept
 */
export function checkShape(sent: unknown): void {
  let seen = 0;
  const check = (value: unknown, path: string, depth: number): void => {
    if (++seen > MOST_IN_ALL) throw wrong('', `A request holds at most ${MOST_IN_ALL} things; this one holds more.`);
    if (typeof value === 'string') {
      if (value.length > LONGEST_TEXT) throw wrong(path, `A text has at most ${LONGEST_TEXT} letters; this one has ${value.length}.`);
      if (HALF_A_LETTER.test(value)) throw wrong(path, 'This text holds half a letter, which cannot be kept. Write it anew.');
      return;
    }
    if (typeof value !== 'object' || value === null) return;
    if (depth >= DEEPEST) throw wrong(path, `Lists and objects lie at most ${DEEPEST} deep in one another; these lie deeper.`);
    if (Array.isArray(value)) {
      if (value.length > MOST_IN_A_LIST) throw wrong(path, `A list holds at most ${MOST_IN_A_LIST}; this one holds ${value.length}.`);
      value.forEach((one, i) => check(one, path === '' ? String(i) : `${path}.${i}`, depth + 1));
      return;
    }
    const keys = Object.keys(value);
    if (keys.length > MOST_FIELDS) throw wrong(path, `An object has at most ${MOST_FIELDS} fields; this one has ${keys.length}.`);
    for (const key of keys) {
      const field = path === '' ? shortened(key) : `${path}.${shortened(key)}`;
      if (INHERITED.has(key) || HALF_A_LETTER.test(key)) throw wrong(field, `There is no field ${JSON.stringify(shortened(key))} here.`);
      check((value as Record<string, unknown>)[key], field, depth + 1);
    }
  };
  check(sent, '', 0);
}
