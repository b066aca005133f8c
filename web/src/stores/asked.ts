// What is asked for in one line: words, a colour, a value, tubes in and out.
import { colourFromText, colourFromWords, CraftError, type Lab } from '@dusk/core';

/** A line as it is understood; what is nothing else is words. */
export interface Asked {
  readonly words: string;
  readonly near?: { readonly lab: Lab; readonly says: string };
  readonly darkest?: number;
  readonly lightest?: number;
  readonly temperature?: 'warm' | 'neutral' | 'cool';
  readonly within: readonly string[];
  readonly without: readonly string[];
}

/** A tube as it is asked for. */
interface Named {
  readonly name: string;
  readonly pigment: string;
}

/** A value that is said alone is meant about so far, either way. */
const ABOUT = 0.5;
const VALUE = /\bvalue\s+(\d+(?:[.,]\d+)?)(?:\s*(?:-|–|to)\s*(\d+(?:[.,]\d+)?))?/i;
const HEX = /(^|\s)#[0-9a-f]{6}\b/i;
const MUNSELL = /\b\d+(?:\.\d+)?(?:R|YR|Y|GY|G|BG|B|PB|P|RP)\s+\d+(?:\.\d+)?\/\d+(?:\.\d+)?|\bN\s?\d+(?:\.\d+)?\//i;
const LIKE = /\b(?:like|near)\s+([^,]+)/i;
const TUBES = /\b(with(?:out)?)\s+([^,]+)/i;
const LEAN = /(^|\s)(warm|cool|neutral)(?=\s|,|$)/i;

const number = (text: string): number => Math.min(10, Math.max(0, Number(text.replace(',', '.'))));

function colourIn(text: string): Lab | undefined {
  for (const read of [colourFromText, colourFromWords])
    try {
      return read(text);
    } catch (cause) {
      if (!(cause instanceof CraftError)) throw cause;
    }
  return undefined;
}

/**
 * Understands a line such as “copper, value 3 to 5, without cadmium” or “like mint green”.
 * @param tubes those that are known by name; a name is found by its beginning or by any of its words
 */
export function askedFor(line: string, tubes: readonly Named[]): Asked {
  let rest = line;
  const take = (pattern: RegExp): RegExpExecArray | undefined => {
    const found = pattern.exec(rest);
    if (!found) return undefined;
    rest = `${rest.slice(0, found.index)} ${rest.slice(found.index + found[0].length)}`;
    return found;
  };
  const within: string[] = [];
  const without: string[] = [];
  for (let found = TUBES.exec(rest); found; found = TUBES.exec(rest)) {
    const named = pigmentsNamed(found[2]!, tubes);
    if (named.length === 0) break;
    take(TUBES);
    (found[1]!.toLowerCase() === 'with' ? within : without).push(...named);
  }
  const value = take(VALUE);
  const [from, to] = value ? [number(value[1]!), value[2] === undefined ? undefined : number(value[2])] : [];
  const range =
    from === undefined
      ? {}
      : to === undefined
        ? { darkest: Math.max(0, from - ABOUT), lightest: Math.min(10, from + ABOUT) }
        : { darkest: Math.min(from, to), lightest: Math.max(from, to) };
  const near = nearIn(rest, take);
  const lean = take(LEAN)?.[2]?.toLowerCase() as Asked['temperature'];
  const words = rest.replaceAll(',', ' ').replaceAll(/\s+/g, ' ').trim();
  return { words, within, without, ...range, ...(near && { near }), ...(lean && { temperature: lean }) };
}

/** A colour as it is written, or said after “like”. */
function nearIn(rest: string, take: (pattern: RegExp) => RegExpExecArray | undefined): Asked['near'] {
  for (const [pattern, group] of [
    [HEX, 0],
    [MUNSELL, 0],
    [LIKE, 1],
  ] as const) {
    const says = pattern.exec(rest)?.[group]?.trim();
    const lab = says === undefined ? undefined : colourIn(says);
    if (says === undefined || !lab) continue;
    take(pattern);
    return { lab, says };
  }
  return undefined;
}

/** Pigments of the tubes that are called so. */
function pigmentsNamed(said: string, tubes: readonly Named[]): string[] {
  const name = said.trim().toLowerCase();
  const is = (one: Named): boolean => {
    const own = one.name.toLowerCase();
    return own.startsWith(name) || own.split(/\s+/).includes(name);
  };
  return [...new Set(tubes.filter(is).map(({ pigment }) => pigment))];
}
