import { CraftError } from '../errors.ts';
import { NAMED_COLOURS } from './names.ts';
import { labToLch, lchToLab, type Lab } from './spaces.ts';
import { WARM_POLE } from './temperature.ts';
import { lightnessOfValue } from './value.ts';
import { colourFromText } from './written.ts';

/** What a word does to a colour: L*, share of chroma, and Lab towards the warm pole. */
interface Shade {
  readonly lightness?: number;
  readonly chroma?: number;
  readonly warmth?: number;
}

const SHADES: Readonly<Record<string, Shade>> = {
  light: { lightness: 14 },
  lighter: { lightness: 8 },
  pale: { lightness: 22, chroma: 0.6 },
  dark: { lightness: -16, chroma: 0.85 },
  darker: { lightness: -8 },
  deep: { lightness: -12, chroma: 1.1 },
  mid: {},
  middle: {},
  dull: { chroma: 0.55 },
  duller: { chroma: 0.75 },
  greyed: { chroma: 0.4 },
  muted: { chroma: 0.55 },
  broken: { chroma: 0.5 },
  dusty: { chroma: 0.5, lightness: 6 },
  strong: { chroma: 1.35 },
  stronger: { chroma: 1.2 },
  brighter: { chroma: 1.2, lightness: 3 },
  bright: { chroma: 1.35, lightness: 6 },
  warm: { warmth: 7 },
  warmer: { warmth: 4 },
  cool: { warmth: -7 },
  cooler: { warmth: -4 },
};
/** How much a word before another makes of it. */
const DEGREES: Readonly<Record<string, number>> = { very: 1.7, quite: 1.2, rather: 0.8, fairly: 0.7, slightly: 0.5, 'a-breath': 0.3 };
/** Words that say nothing of a colour. */
const FILLERS: ReadonlySet<string> = new Set(['a', 'an', 'the', 'and', 'of', 'colour', 'at', 'in', 'with', 'but']);

/** Everyday words that stand for a name. */
const PLAIN: Readonly<Record<string, string>> = { brown: 'nut brown', beige: 'sand', gold: 'golden yellow', gray: 'grey', skin: 'flesh' };

const VALUE = /\bvalue\s*(\d+(?:[.,]\d+)?)/;
const WARM = (WARM_POLE * Math.PI) / 180;
const SORTED = [...NAMED_COLOURS].sort((one, other) => other[0].length - one[0].length);

/**
 * A colour as a painter says it: a name with what is to be minded of it, perhaps its value, as `dull warm
 * green, value 4`, `very pale sky blue`, `slate`; or written in a notation.
 * @throws CraftError that names the word it does not know
 */
export function colourFromWords(text: string): Lab {
  const spoken = text.toLowerCase().replace(/a breath/g, 'a-breath');
  if (/\d/.test(spoken.replace(VALUE, ''))) return colourFromText(text);
  const value = VALUE.exec(spoken)?.[1]?.replace(',', '.');
  if (value !== undefined && Number(value) > 10) throw new CraftError('colour', `Values run from 0 to 10; this says ${value}.`);
  let rest = ` ${spoken.replace(VALUE, ' ').replace(/[,.;]/g, ' ').replace(/\s+/g, ' ').trim()} `;
  for (const [plain, name] of Object.entries(PLAIN)) if (!rest.includes(` ${name} `)) rest = rest.replace(` ${plain} `, ` ${name} `);
  // The longest name first, so that `blue grey` is not the grey of something blue.
  const named = SORTED.find(([name]) => rest.includes(` ${name} `));
  if (!named && value === undefined)
    throw new CraftError(
      'colour',
      `Say a colour as “dull warm green, value 4”, “slate”, or write #8a6b4f, 7.5YR 4/6, N 5; this is ${JSON.stringify(text)}.`,
    );
  if (named) rest = rest.replace(` ${named[0]} `, ' ');
  const h = named?.[3] ?? 0;
  let L = named?.[1] ?? 50;
  let C = named?.[2] ?? 0;
  let warmth = 0;
  let degree = 1;
  for (const word of rest.trim().split(' ').filter(Boolean)) {
    if (FILLERS.has(word)) continue;
    const more = DEGREES[word];
    if (more !== undefined) {
      degree = more;
      continue;
    }
    const shade = SHADES[word];
    if (!shade) throw new CraftError('colour', `“${word}” is not a word for a colour that is known here.`);
    L += (shade.lightness ?? 0) * degree;
    C *= (shade.chroma ?? 1) ** degree;
    warmth += (shade.warmth ?? 0) * degree;
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
