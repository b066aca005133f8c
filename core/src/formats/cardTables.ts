import { bandNm, BANDS } from '../colour/spectrum.ts';
import { leavesOf } from '../mixing/open.ts';
import { reflectance } from '../paint/mix.ts';
import { paintOfCard, readCard, type Card } from './card.ts';

/**
 * What a spreadsheet may take for a formula: its signs, wide ones too, after whatever leaves no mark, or after what it
 * takes for the end of a cell where lists are separated otherwise.
 */
const FORMULA = /^(?:[;,|\s\p{Cf}\p{Cc}\p{M}\u115f\u1160\u3164\uffa0]*[=+\-@＝＋－＠﹦﹢﹣﹫]|[\t\r])/u;

/** A cell of a table: quoted where it must be, and never taken for a formula. */
function cell(value: string | number): string {
  if (typeof value === 'number') return String(value);
  const text = FORMULA.test(value) ? `'${value}` : value;
  return /[",;|\t\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

const HEAD = [
  'name',
  'value',
  'temperature',
  'munsell',
  'L',
  'a',
  'b',
  'colour',
  'thing',
  'zone',
  'painting',
  'made',
  'ml',
  'recipe',
  'in tubes',
  'note',
];

/** The recipe in a line: `First 9 Titanium white + 1 Viridian (A); 3 Titanium white + 1 A`. */
export function recipeLine(
  { recipe, tubes }: Pick<Card, 'recipe' | 'tubes'>,
  partsSaid: (parts: number) => string = (parts) => String(Number(parts.toFixed(3))),
): string {
  const nameOf = new Map(tubes.map(({ key, name }) => [key, name]));
  const letter = (at: number): string => String.fromCharCode(65 + at);
  return recipe.heaps
    .map(({ ingredients }, at) => {
      const line = ingredients
        .map((one) => `${partsSaid(one.parts)} ${'heap' in one ? letter(one.heap) : nameOf.get((one as { tube: string }).tube)}`)
        .join(' + ');
      return at < recipe.heaps.length - 1 ? `First ${line} (${letter(at)})` : line;
    })
    .join('; ');
}

/** What the colour of a card rests on. */
const colourIs = ({ dab, seen }: Pick<Card, 'dab' | 'seen'>): string =>
  dab ? 'seen on a dab' : seen ? 'seen on the pile' : 'reckoned from its tubes';

/** Cards as a table that a spreadsheet reads: UTF-8 with its mark, commas, CRLF (RFC 4180). */
export function cardsToCsv(cards: readonly Card[]): string {
  const rows = cards.map((card) => {
    const { lab, value, temperature, munsell } = readCard(card);
    const names = new Map(card.tubes.map(({ key, name }) => [key, name]));
    const shares = leavesOf(card.recipe)
      .map(({ source, share }) => `${(100 * share).toFixed(1)} % ${names.get((source as { tube: string }).tube)}`)
      .join(', ');
    const figures = [...lab].map((v) => Number(v.toFixed(2)));
    const said = [
      Number(value.toFixed(2)),
      Number(temperature.toFixed(1)),
      munsell,
      ...figures,
      colourIs(card),
      card.thing,
      card.zone,
      card.painting,
      card.madeAt,
    ];
    return [card.name, ...said, Number(card.ml.toFixed(2)), recipeLine(card), shares, card.note];
  });
  return `\uFEFF${[HEAD, ...rows].map((row) => row.map(cell).join(',')).join('\r\n')}\r\n`;
}

const quoted = (text: string): string => `"${text.replaceAll('"', "'").replaceAll(/[\r\n\t]/g, ' ')}"`;

/** Reflectance of what cards make, thick and by their own tubes, as a CGATS.17 file (ISO 28178): 380–730 nm by 10, in per cent. */
export function cardsToCgats(cards: readonly Card[]): string {
  const bands = Array.from({ length: BANDS }, (_, i) => bandNm(i));
  const fields = ['SAMPLE_ID', 'SAMPLE_NAME', ...bands.map((nm) => `SPEC_${nm}`)];
  const rows = cards.map((card, at) => {
    const seen = reflectance(paintOfCard(card));
    return [String(at + 1), quoted(card.name), ...Array.from(seen, (r) => (100 * r).toFixed(4))].join('\t');
  });
  return [
    'CGATS.17',
    'ORIGINATOR\t"Auburn Dusk"',
    'DESCRIPTOR\t"Reflectance of mixed paint, reckoned from its tubes"',
    'KEYWORD\t"SPECTRAL_BANDS"',
    `SPECTRAL_BANDS\t"${BANDS}"`,
    'KEYWORD\t"SPECTRAL_START_NM"',
    `SPECTRAL_START_NM\t"${bands[0]!.toFixed(6)}"`,
    'KEYWORD\t"SPECTRAL_END_NM"',
    `SPECTRAL_END_NM\t"${bands.at(-1)!.toFixed(6)}"`,
    'KEYWORD\t"SPECTRAL_NORM"',
    'SPECTRAL_NORM\t"100.000000"',
    '',
    `NUMBER_OF_FIELDS\t${fields.length}`,
    'BEGIN_DATA_FORMAT',
    fields.join('\t'),
    'END_DATA_FORMAT',
    '',
    `NUMBER_OF_SETS\t${rows.length}`,
    'BEGIN_DATA',
    ...rows,
    'END_DATA',
    '',
  ].join('\n');
}
