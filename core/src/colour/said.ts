import { CraftError } from '../errors.ts';
import { NAMED_COLOURS } from './names.ts';
import { nudged, type Nudge } from './nudge.ts';
import { ALSO_SAID } from './saidNames.ts';
import { labToLch, lchToLab, type Lab, type Lch } from './spaces.ts';
import { WARM_POLE } from './temperature.ts';
import { lightnessOfValue } from './value.ts';
import { colourFromText } from './written.ts';

/** What a word does to a colour: L* towards an end by a share of the way there, share of chroma, Lab towards the warm pole. */
interface Shade {
  readonly towards?: readonly [L: number, share: number];
  readonly chroma?: number;
  readonly warmth?: number;
}

const SHADES: Readonly<Record<string, Shade>> = {
  // Light and dark are values: a light blue is a blue of value 7 or so, not one that is a little lighter than blue.
  light: { towards: [86, 0.72], chroma: 0.68 },
  lighter: { towards: [90, 0.28], chroma: 0.9 },
  pale: { towards: [91, 0.85], chroma: 0.5 },
  faint: { towards: [93, 0.9], chroma: 0.35 },
  dark: { towards: [14, 0.6], chroma: 0.8 },
  darker: { towards: [12, 0.28] },
  deep: { towards: [16, 0.45], chroma: 1.05 },
  mid: { towards: [52, 0.7] },
  middle: { towards: [52, 0.7] },
  medium: { towards: [52, 0.7] },
  dull: { chroma: 0.45 },
  duller: { chroma: 0.75 },
  dirty: { chroma: 0.5, towards: [40, 0.25] },
  greyed: { chroma: 0.4 },
  muted: { chroma: 0.55 },
  soft: { chroma: 0.65, towards: [75, 0.25] },
  broken: { chroma: 0.5 },
  dusty: { chroma: 0.5, towards: [75, 0.3] },
  faded: { chroma: 0.5, towards: [80, 0.4] },
  strong: { chroma: 1.35 },
  stronger: { chroma: 1.2 },
  rich: { chroma: 1.25, towards: [35, 0.15] },
  vivid: { chroma: 1.5 },
  clear: { chroma: 1.2 },
  pure: { chroma: 1.4 },
  brighter: { chroma: 1.2, towards: [80, 0.1] },
  bright: { chroma: 1.35, towards: [80, 0.2] },
  warm: { warmth: 7 },
  warmer: { warmth: 4 },
  cool: { warmth: -7 },
  cooler: { warmth: -4 },
  cold: { warmth: -9 },
};
/** How much a word before another makes of it. */
const DEGREES: Readonly<Record<string, number>> = {
  very: 1.7,
  much: 1.7,
  quite: 1.2,
  rather: 0.8,
  fairly: 0.7,
  slightly: 0.5,
  a_little: 0.5,
  a_touch: 0.3,
  a_breath: 0.3,
};
/** Words that say nothing of a colour. */
const FILLERS: ReadonlySet<string> = new Set([
  'a',
  'an',
  'the',
  'and',
  'of',
  'colour',
  'coloured',
  'shade',
  'tint',
  'at',
  'in',
  'with',
  'but',
]);

/** Everyday words that stand for a name. */
const PLAIN: Readonly<Record<string, string>> = { brown: 'nut brown', beige: 'sand', gold: 'golden yellow', gray: 'grey', skin: 'flesh' };
/** Hues that colours lean to: `bluish grey`, `a reddish brown`. */
const LEANING: Readonly<Record<string, string>> = {
  reddish: 'red',
  orangey: 'orange',
  brownish: 'nut brown',
  yellowish: 'yellow',
  greenish: 'green',
  bluish: 'blue',
  purplish: 'purple',
  violety: 'violet',
  pinkish: 'pink',
  greyish: 'grey',
  whitish: 'white',
  blackish: 'black',
};

const VALUE = /\bvalue\s*(\d+(?:[.,]\d+)?)/;
const WARM = (WARM_POLE * Math.PI) / 180;
const ALL = [...NAMED_COLOURS, ...ALSO_SAID];

/** Chroma below which a colour is a grey, black or white, and what a grey has that leans to a hue. */
const GREY = 12;
const LEANS: readonly [least: number, most: number] = [9, 16];
/** How much a hue that is named before another, or only leaned to, makes of it. */
const BEFORE = 0.4;
const LEANED = 0.28;

/** A colour that is named by two: the second is what it is, the first what it leans to. */
function leaning([L, C, h]: Lch, [towardsL, towardsC, towardsH]: Lch, share: number): Lch {
  if (C < GREY) {
    // A grey of some hue is still a grey.
    if (towardsC < GREY) return [L + (towardsL - L) * share, (C + towardsC) / 2, h];
    return [L + (towardsL - L) * share * 0.3, Math.min(LEANS[1], Math.max(LEANS[0], towardsC * share * 0.4)), towardsH];
  }
  // Greyed: duller, its hue kept.
  if (towardsC < GREY) return [L + (towardsL - L) * share * 0.5, C * (1 - 1.4 * share), h];
  const [, a, b] = lchToLab([L, C, h]);
  const [, towardsA, towardsB] = lchToLab([L, towardsC, towardsH]);
  const [, , hue] = labToLch([L, a + (towardsA - a) * share, b + (towardsB - b) * share]);
  return [L + (towardsL - L) * share * 0.6, (C * (1 - share) + towardsC * share) * 0.92, hue];
}

/** A name as one word, however it is joined. */
const joined = (name: string): string => name.replace(/[- ]/g, '_');
const BY_WORD: ReadonlyMap<string, Lch> = new Map(ALL.map(([name, L, C, h]) => [joined(name), [L, C, h]]));
/** Names of several words, the longest first, so that `blue grey` is one colour and not the grey of something blue. */
const OF_SEVERAL = [...BY_WORD.keys()].filter((name) => name.includes('_')).sort((one, other) => other.length - one.length);

/** Words of a sentence, a name of several as one. */
function wordsOf(text: string): string[] {
  let rest = ` ${text
    .replace(/[,.;:!-]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()} `;
  for (const [plain, name] of Object.entries(PLAIN)) if (!rest.includes(` ${name} `)) rest = rest.replaceAll(` ${plain} `, ` ${name} `);
  for (const name of OF_SEVERAL) {
    const said = ` ${name.replaceAll('_', ' ')} `;
    const isShaded = name.split('_')[0]! in SHADES;
    rest = rest.replaceAll(said, (found: string, at: number) => {
      // `pale yellow green` is a yellow green that is pale, not a green that leans to pale yellow.
      const next = rest.slice(at + said.length).split(' ')[0]!;
      return isShaded && (BY_WORD.has(next) || next in PLAIN) ? found : ` ${name} `;
    });
  }
  return rest.trim().split(' ').filter(Boolean);
}
const lchOf = (name: string): Lch | undefined => BY_WORD.get(joined(name));

/** What can be spoken of besides names of colours: things and piles by their names, and the two that are meant by `these`. */
export interface SpokenOf {
  readonly named?: ReadonlyMap<string, Lab>;
  readonly these?: readonly Lab[];
  readonly last?: Lab | undefined;
}

const SAY = 'Say a colour as “dull warm green, value 4”, “slate”, “a little darker than the wall”, or write #8a6b4f, 7.5YR 4/6, N 5';

/** A thing that is spoken of: a pile or a thing by its name, the last one, or a colour in words. */
function thingSaid(text: string, of: SpokenOf): Lab {
  const name = text
    .trim()
    .replace(/^(?:the|that|this|my)\s+/, '')
    .replace(/\s+(?:pile|one|colour)$/, '');
  if (/^(?:last|last one|one before|before|it)$/.test(name) && of.last) return of.last;
  const known = [...(of.named ?? [])].map(([called, lab]) => [called.toLowerCase(), lab] as const);
  const found =
    known.find(([called]) => called === name) ??
    known.find(([called]) => called.startsWith(`${name},`) || called.startsWith(`${name} `)) ??
    known.find(([called]) => ` ${called.replaceAll(',', '')} `.includes(` ${name} `));
  if (found) return found[1];
  try {
    return colourFromWords(name);
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    const some = known.slice(0, 4).map(([called]) => called);
    throw new CraftError(
      'colour',
      `“${name}” is no pile, thing or colour that is known here${some.length > 0 ? `; there is ${some.join('; ')}` : ''}.`,
    );
  }
}

/** Steps that a colour is moved by from another: a value, or as much to an eye of hue and strength. */
const MOVES: Readonly<Record<string, readonly [by: Nudge, steps: number]>> = {
  darker: ['value', -10],
  lighter: ['value', 10],
  warmer: ['temperature', 5],
  cooler: ['temperature', -5],
  colder: ['temperature', -5],
  duller: ['chroma', -8],
  greyer: ['chroma', -8],
  brighter: ['chroma', 8],
  stronger: ['chroma', 8],
  browner: ['brown', 6],
};
/** Hues that a colour is turned to, as `redder`. */
const TURNED: Readonly<Record<string, string>> = {
  redder: 'red',
  yellower: 'yellow',
  greener: 'green',
  bluer: 'blue',
  pinker: 'pink',
  purpler: 'purple',
};
const TURN = 0.25;

/** A colour as it stands to another that is spoken of; nothing where none is. */
function relativeTo(text: string, of: SpokenOf): Lab | undefined {
  const between = /^(?:half ?way )?between (.+)$/.exec(text);
  if (between) {
    const said = between[1]!;
    const two = /^(?:these|the|those)(?: two)?$/.test(said) ? of.these : said.split(/ and /).map((one) => thingSaid(one, of));
    if (!two || two.length < 2)
      throw new CraftError('colour', 'Between which two? Say “between the wall and the door”; “these two” are the last two piles.');
    const [one, other] = two as [Lab, Lab];
    return [0, 1, 2].map((i) => (one[i]! + other[i]!) / 2) as unknown as Lab;
  }
  const same = /^(?:the same as|same as|as|like) (.+)$/.exec(text);
  if (same) return thingSaid(same[1]!, of);
  const than = /^(.+?) than (.+)$/.exec(text);
  if (!than) return undefined;
  let lab = thingSaid(than[2]!, of);
  let degree = 1;
  for (const word of than[1]!.replace(/[,]/g, ' ').split(/\s+/).filter(Boolean)) {
    if (FILLERS.has(word) || word === 'just' || word === 'step' || word === 'one') continue;
    const more = DEGREES[word];
    const move = MOVES[word];
    const turned = TURNED[word];
    if (more !== undefined) degree = more;
    else if (move) {
      lab = nudged(lab, move[0], move[1] * degree);
      degree = 1;
    } else if (turned) {
      const hue = lchOf(turned)!;
      lab = lchToLab(leaning(labToLch(lab), [lab[0], hue[1], hue[2]], TURN * degree));
      degree = 1;
    } else throw new CraftError('colour', `“${word}” is not a way in which a colour can differ from another here.`);
  }
  return lab;
}

/**
 * A colour as a painter says it: a name with what is to be minded of it, perhaps its value, as `dull warm
 * green, value 4`, `very pale sky blue`, `purple grey`; as it stands to another, as `a little darker than the wall`,
 * `between these two`; or written in a notation.
 * @throws CraftError that names the word it does not know
 */
export function colourFromWords(text: string, of: SpokenOf = {}): Lab {
  const spoken = text
    .toLowerCase()
    .trim()
    .replace(/’/g, "'")
    .replace(/\ba (breath|little|touch|bit)\b/g, (_, word: string) => `a_${word === 'bit' ? 'little' : word}`);
  const relative = relativeTo(spoken, of);
  if (relative) return relative;
  if (/\d/.test(spoken.replace(VALUE, ''))) return colourFromText(text);
  const value = VALUE.exec(spoken)?.[1]?.replace(',', '.');
  if (value !== undefined && Number(value) > 10) throw new CraftError('colour', `Values run from 0 to 10; this says ${value}.`);
  const words = wordsOf(spoken.replace(VALUE, ' '));
  const names = words.flatMap((word, at) => {
    const lch = lchOf(word);
    return lch ? [{ at, lch, share: BEFORE }] : LEANING[word] ? [{ at, lch: lchOf(LEANING[word]!)!, share: LEANED }] : [];
  });
  // What it is stands last; what stands before it, it leans to.
  const base = names.findLast(({ share }) => share === BEFORE);
  if (!base && value === undefined) throw new CraftError('colour', `${SAY}; this is ${JSON.stringify(text)}.`);
  let [L, C, h] = base?.lch ?? ([50, 0, 0] as Lch);
  for (const { at, lch, share } of names) if (at !== base?.at) [L, C, h] = leaning([L, C, h], lch, share);
  let warmth = 0;
  let degree = 1;
  function shaded({ towards, chroma = 1, warmth: by = 0 }: Shade, much: number): void {
    if (towards) L += (towards[0] - L) * Math.min(0.98, 1 - (1 - towards[1]) ** much);
    C *= chroma ** much;
    warmth += by * much;
  }
  for (const [at, word] of words.entries()) {
    if (FILLERS.has(word)) continue;
    if (names.some((one) => one.at === at)) {
      // `very dark red`: what a name has of it already is said once more.
      const own = SHADES[word.split('_')[0]!];
      if (own && degree > 1) shaded(own, degree - 1);
      degree = 1;
      continue;
    }
    const more = DEGREES[word];
    if (more !== undefined) {
      degree = more;
      continue;
    }
    const shade = SHADES[word];
    if (!shade) throw new CraftError('colour', `“${word}” is not a word for a colour that is known here.`);
    shaded(shade, degree);
    degree = 1;
  }
  const [, a, b] = lchToLab([L, C, h]);
  const lightness = value === undefined ? Math.min(98, Math.max(4, L)) : lightnessOfValue(Number(value));
  const lab: Lab = [lightness, a + warmth * Math.cos(WARM), b + warmth * Math.sin(WARM)];
  const [, chroma, hue] = labToLch(lab);
  // Nothing is strong that is nearly black or nearly white.
  const most = 4 + 2.6 * Math.min(lab[0], 3 * (100 - lab[0]));
  return lchToLab([lab[0], Math.min(chroma, most), hue]);
}
