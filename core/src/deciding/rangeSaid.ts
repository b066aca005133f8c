import type { Glints } from '../reference/glints.ts';
import type { Key } from '../reference/key.ts';
import type { ValueRange } from '../reference/valueRange.ts';

/** What is to be known of a picture's ends before its piles are mixed. */
export interface RangeSaid {
  /** No place of it comes near the darkest that paint can be. */
  readonly noTrueDark: boolean;
  /** Its things are as light as paint gets, and there are highlights yet to come. */
  readonly isUsedUp: boolean;
  /** Nothing in it is light. */
  readonly noTrueLight: boolean;
}

/** A dark that is so many values lighter than paint's own is no true dark. */
const TRUE_DARK = 1.2;
const TRUE_LIGHT = 2;
/** Less than this between the lightest thing and paint's lightest leaves nothing for a highlight. */
const LEFT = 0.3;
/** Glints that take less than this are none. */
const ANY_GLINTS = 2e-5;

/** Whether a picture has a true dark, and whether its range is used up before its highlights, as it is to be painted. */
export function rangeSaid(seen: ValueRange, paint: ValueRange, glints: Glints | undefined, key: Key | undefined): RangeSaid {
  const [dark, light] = [seen.darkest, seen.lightest].map((value) => (key ? key.valueOf(value) : value)) as [number, number];
  return {
    noTrueDark: dark > paint.darkest + TRUE_DARK,
    isUsedUp: light > paint.lightest - LEFT && (glints?.share ?? 0) > ANY_GLINTS,
    noTrueLight: light < paint.lightest - TRUE_LIGHT,
  };
}
