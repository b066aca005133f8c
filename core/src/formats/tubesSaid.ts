import Papa from 'papaparse';
import { CraftError } from '../errors.ts';
import { CATALOGUE, type Pigment } from '../paint/catalogue.ts';
import { folded } from './folded.ts';

/** A tube as a painter says it, and what it may be. */
export interface TubeSaid {
  readonly said: string;
  readonly name: string;
  /** What stands on it besides its name, as a maker's. */
  readonly maker: string;
  /** Slugs of the catalogue, the likeliest first; none where nothing there is like it. */
  readonly pigments: readonly string[];
  /** Slugs of all that it is made of, where several Colour Index names stand on it; none where it is of one. */
  readonly contains: readonly string[];
  readonly sizeMl: number | undefined;
  readonly leftMl: number | undefined;
}

/** Tubes that are read in one go. */
export const MOST_SAID = 60;
const LONGEST_NAME = 80;

/** What painters say for a word of a name. */
const ALSO: Readonly<Record<string, string>> = {
  ult: 'ultramarine',
  ultra: 'ultramarine',
  fr: 'ultramarine',
  french: 'ultramarine',
  cad: 'cadmium',
  cd: 'cadmium',
  ti: 'titanium',
  tit: 'titanium',
  zn: 'zinc',
  az: 'alizarin',
  oc: 'ochre',
  ocher: 'ochre',
  phtalo: 'phthalo',
  thalo: 'phthalo',
  pthalo: 'phthalo',
  phthalocyanine: 'phthalo',
  quin: 'quinacridone',
  diox: 'dioxazine',
  trans: 'transparent',
  transp: 'transparent',
  chrome: 'chromium',
  paynes: "payne's",
  vandyke: 'van',
  bt: 'burnt',
  flake: 'lead',
  cremnitz: 'lead',
  earth: 'terre',
};
/** Words of a tube that say nothing of what it is. */
const SAYS_NOTHING: ReadonlySet<string> = new Set([
  'oil',
  'oils',
  'paint',
  'colour',
  'color',
  'tube',
  'of',
  'the',
  'a',
  'ml',
  'series',
  'artists',
  'artist',
  'pigment',
  'and',
  'old',
  'new',
  'my',
]);

/** Words of a kind of paint, not of a maker. */
const KINDS: ReadonlySet<string> = new Set(['hue', 'genuine', 'light', 'deep', 'medium', 'dark', 'pale']);

const SIZE = /(\d+(?:[.,]\d+)?)\s*ml\b/i;
const COLOUR_INDEX = /\bp\s?(?:b[kr]?|[gorvwy])\s?\d{1,3}(?::\d)?\b/gi;

const words = (text: string): string[] =>
  folded(text)
    .replace(/[^a-z'’]+/g, ' ')
    .replaceAll('’', "'")
    .split(' ')
    .filter(Boolean);
const indexOf = (text: string): string[] => (text.match(COLOUR_INDEX) ?? []).map((one) => one.replace(/\s/g, '').toUpperCase());

/** How well a pigment answers to words and Colour Index names: 0 not at all. */
function fits(
  { name, colourIndex }: Pigment,
  said: readonly string[],
  indices: readonly string[],
): { readonly score: number; readonly used: ReadonlySet<string> } {
  const own = words(name);
  const codes = colourIndex.toUpperCase().split('+');
  const used = new Set<string>();
  const met = new Set<number>();
  let score = 0;
  let last = -1;
  for (const word of said) {
    const meant = ALSO[word] ?? word;
    const at = own.findIndex((one, i) => !met.has(i) && (one === meant || (one.startsWith(meant) && one.length > meant.length)));
    if (at < 0) continue;
    met.add(at);
    used.add(word);
    // A whole word says more than its beginning, and a beginning of a letter next to nothing by itself.
    score += own[at] === meant ? 1 : Math.min(0.85, 0.25 + 0.15 * meant.length);
    if (at > last) score += 0.05;
    last = at;
  }
  const meets = indices.filter((index) => codes.includes(index)).length;
  if (indices.length > 0) score += meets === indices.length && codes.length === indices.length ? 2.5 : meets > 0 ? 0.6 : -2;
  // What of its name was not said counts against it, so that `cadmium red` is not the light one.
  return { score: score - 0.12 * (own.length - met.size), used };
}

/** Pigments of several Colour Index names, as far as the catalogue has them each by itself; none where it lacks one. */
function containedIn(indices: readonly string[]): string[] {
  if (indices.length < 2) return [];
  const found = indices.flatMap(
    (index) => [...CATALOGUE.values()].find(({ colourIndex }) => colourIndex.toUpperCase() === index)?.slug ?? [],
  );
  return found.length === indices.length && new Set(found).size === found.length ? found : [];
}

/** The least that a pigment must answer by. */
const ANSWERS = 0.75;
/** What answers nearly as well may be meant. */
const NEARLY = 0.6;
const MOST_OTHERS = 5;

/** A tube by what is written of it in one line. */
function tubeOf(said: string, more: Partial<Pick<TubeSaid, 'maker' | 'sizeMl' | 'leftMl'>> = {}): TubeSaid {
  const size = SIZE.exec(said);
  const plain = said.replace(SIZE, ' ');
  const indices = indexOf(plain);
  const own = words(plain.replace(COLOUR_INDEX, ' ')).filter((word) => !SAYS_NOTHING.has(word));
  const all = [...CATALOGUE.values()]
    .map((pigment, order) => ({ pigment, order, ...fits(pigment, own, indices) }))
    .filter(({ score }) => score >= ANSWERS)
    .sort((one, other) => other.score - one.score || one.order - other.order);
  const best = all[0];
  const likely = all.filter(({ score }) => score >= best!.score - NEARLY).slice(0, MOST_OTHERS);
  const isShort = best !== undefined && own.every((word) => best.used.has(word) || KINDS.has(word));
  const rest = best ? own.filter((word) => !KINDS.has(word) && !likely.some(({ used }) => used.has(word))) : [];
  const contains = best?.pigment.colourIndex.includes('+') === true ? [] : containedIn(indices);
  const name =
    contains.length > 0 && own.length > 0
      ? tidy(plain.replace(COLOUR_INDEX, ' '))
      : isShort || indices.length > 0 || best === undefined
        ? best && (isShort || own.length === 0)
          ? best.pigment.name
          : tidy(plain)
        : tidy(plain);
  return {
    said: said.trim(),
    name: name.slice(0, LONGEST_NAME),
    maker: more.maker ?? (rest.length > 0 && best ? rest.join(' ').slice(0, LONGEST_NAME) : ''),
    pigments: likely.length > 0 && contains.length === 0 ? likely.map(({ pigment }) => pigment.slug) : contains,
    contains,
    sizeMl: more.sizeMl ?? (size ? Number(size[1]!.replace(',', '.')) : undefined),
    leftMl: more.leftMl,
  };
}
const tidy = (text: string): string => {
  const plain = text.replace(/\s+/g, ' ').trim();
  return plain.charAt(0).toUpperCase() + plain.slice(1);
};

/** Columns of a table of tubes, by what they may be called. */
const COLUMNS = {
  name: /^(name|tube|colou?r|paint)$/i,
  pigment: /^(pigments?|colou?r index|ci|code)$/i,
  maker: /^(maker|brand|make)$/i,
  size: /^(size|ml|size[ _]?ml)$/i,
  left: /^(left|left[ _]?ml|remaining)$/i,
} as const;

function fromTable(text: string): TubeSaid[] | undefined {
  const [head = ''] = text.split(/\r?\n/, 1);
  if (!/[,;\t]/.test(head)) return undefined;
  const [header = [], ...rows] = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true }).data;
  const at = (name: keyof typeof COLUMNS): number => header.findIndex((field) => COLUMNS[name].test(field.trim()));
  if (at('name') < 0) return undefined;
  const figure = (value: string | undefined): number | undefined => {
    const number = Number((value ?? '').replace(',', '.').replace(/[^\d.]/g, ''));
    return value && Number.isFinite(number) && number > 0 ? number : undefined;
  };
  const of = (row: readonly string[], name: keyof typeof COLUMNS): string => (row[at(name)] ?? '').trim();
  return rows
    .filter((row) => of(row, 'name') !== '')
    .map((row) => ({
      ...tubeOf(`${of(row, 'name')} ${of(row, 'pigment')}`, {
        maker: of(row, 'maker'),
        sizeMl: figure(of(row, 'size')),
        leftMl: figure(of(row, 'left')),
      }),
      name: tidy(of(row, 'name')).slice(0, LONGEST_NAME),
    }));
}

/**
 * Tubes as they are typed, said or pasted: `ult blue, y ochre, burnt s`, a line each, or a table with a column of names.
 * @throws CraftError for more than sixty
 */
export function tubesSaid(text: string): TubeSaid[] {
  const list =
    fromTable(text) ??
    text
      .split(/[,;\n\r]+/)
      .map((one) => one.trim())
      .filter((one) => one !== '')
      .map((one) => tubeOf(one));
  if (list.length > MOST_SAID) throw new CraftError('input', `At most ${MOST_SAID} tubes come in one go; these are ${list.length}.`);
  return list;
}
