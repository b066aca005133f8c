import Papa from 'papaparse';
import { BANDS, FIRST_NM, STEP_NM, type Spectrum } from '../colour/spectrum.ts';
import { adapt } from '../colour/adaptation.ts';
import { whiteOf } from '../colour/integrate.ts';
import { labToXyz, xyzToLab, type Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';

/** One reading of a file: a spectrum, or a colour alone. */
export interface FileReading {
  readonly name: string;
  /** 36 bands from 380 nm, 0–1. */
  readonly spectrum?: Spectrum;
  /** CIELAB D65; such files have it under D50, which is adapted. */
  readonly lab?: Lab;
}

/** Readings that are taken from one file. */
export const MOST_IN_FILE = 400;
const FULL = 100;
/** Percent, where the brightest of a file is above what reflects all. */
const IN_PERCENT = 1.5;
const LEAST_COVERED = { from: 420, to: 680 } as const;

/** A spectrum on 36 bands from one on others, straight between them and held at its ends. */
function onBands(nm: readonly number[], values: readonly number[]): Spectrum {
  return Float64Array.from({ length: BANDS }, (_, i) => {
    const at = FIRST_NM + i * STEP_NM;
    if (at <= nm[0]!) return values[0]!;
    const above = nm.findIndex((one) => one >= at);
    if (above < 0) return values.at(-1)!;
    const [low, high] = [nm[above - 1]!, nm[above]!];
    const t = (at - low) / (high - low);
    return values[above - 1]! * (1 - t) + values[above]! * t;
  });
}

const WAVELENGTH = /^(?:spec(?:tral)?_?|nm_?|r_?)?(\d{3})(?:\.0+)?(?:nm)?$/i;
const number = (text: string | undefined): number => Number((text ?? '').trim().replace(/^(-?\d+),(\d+)$/, '$1.$2'));

/** Rows under a header of column names. @param norm what reflects all in it, where the file says so */
function readTable(columns: readonly string[], rows: readonly (readonly string[])[], norm?: number): FileReading[] {
  const bands = columns
    .flatMap((name, at) => {
      const nm = WAVELENGTH.exec(name.trim())?.[1];
      return nm === undefined ? [] : [{ nm: Number(nm), at }];
    })
    .filter(({ nm }) => nm >= 300 && nm <= 830)
    .sort((one, other) => one.nm - other.nm);
  const find = (pattern: RegExp): number => columns.findIndex((name) => pattern.test(name.trim()));
  const names = [find(/^sample_?name$/i), find(/^name$/i), find(/^sample_?loc$/i), find(/^sample_?id$/i), find(/^id$/i)].find(
    (at) => at >= 0,
  );
  const labAt = [/^(lab_)?l\*?$/i, /^(lab_)?a\*?$/i, /^(lab_)?b\*?$/i].map(find);
  const nameOf = (row: readonly string[], i: number): string =>
    (names === undefined ? '' : (row[names] ?? '').trim()) || `reading ${i + 1}`;
  if (bands.length >= 10) {
    if (bands[0]!.nm > LEAST_COVERED.from || bands.at(-1)!.nm < LEAST_COVERED.to)
      throw new CraftError(
        'spectrum',
        `These readings go from ${bands[0]!.nm} to ${bands.at(-1)!.nm} nm; 420 to 680 nm at least are needed.`,
      );
    const values = rows.map((row) => bands.map(({ at }) => number(row[at])));
    values.forEach((row, i) => {
      if (!row.every(Number.isFinite)) throw new CraftError('spectrum', `Reading ${i + 1} of the file holds something that is no number.`);
    });
    const brightest = values.reduce((most, row) => row.reduce((m, v) => Math.max(m, v), most), 0);
    const by = norm ?? (brightest > IN_PERCENT ? FULL : 1);
    return rows.map((row, i) => ({
      name: nameOf(row, i),
      spectrum: onBands(
        bands.map(({ nm }) => nm),
        values[i]!.map((v) => v / by),
      ),
    }));
  }
  if (labAt.every((at) => at >= 0))
    return rows.map((row, i) => {
      const lab = labAt.map((at) => number(row[at])) as unknown as Lab;
      if (!lab.every(Number.isFinite)) throw new CraftError('colour', `Reading ${i + 1} of the file holds something that is no number.`);
      const [d50, d65] = [whiteOf('D50'), whiteOf('D65')];
      return { name: nameOf(row, i), lab: xyzToLab(adapt(labToXyz(lab, d50), d50, d65), d65) };
    });
  throw new CraftError('input', 'This file holds no spectra: its columns are to be wavelengths, as 380, 390 … 730, or L, a, b.');
}

/** Words of a line, what stands in quotes as one. */
const wordsOf = (line: string): string[] => [...line.matchAll(/"([^"]*)"|(\S+)/g)].map(([, quoted, bare]) => quoted ?? bare!);

/** The first table of a CGATS text (ANSI CGATS.17; ISO 28178). */
function readCgats(text: string): FileReading[] {
  const lines = text.split(/\r?\n/).map((line) => line.replace(/#.*$/, '').trim());
  const between = (from: string, to: string): string[] => {
    const start = lines.findIndex((line) => line.toUpperCase() === from);
    const end = lines.findIndex((line, i) => i > start && line.toUpperCase() === to);
    if (start < 0 || end < 0) throw new CraftError('input', `This file is cut short: ${from} or ${to} is not in it.`);
    return lines.slice(start + 1, end).filter((line) => line !== '');
  };
  const columns = between('BEGIN_DATA_FORMAT', 'END_DATA_FORMAT').flatMap(wordsOf);
  const words = between('BEGIN_DATA', 'END_DATA').flatMap(wordsOf);
  if (columns.length === 0 || words.length % columns.length !== 0)
    throw new CraftError('input', 'This file is cut short: its last reading is not whole.');
  const rows = Array.from({ length: words.length / columns.length }, (_, i) => words.slice(i * columns.length, (i + 1) * columns.length));
  const norm = lines.map((line) => /^SPECTRAL_NORM\s+"?([\d.]+)/i.exec(line)?.[1]).find(Boolean);
  return readTable(columns, rows, norm === undefined ? undefined : Number(norm));
}

/** Bands of one spectrum that are one under the other: a column of wavelengths, a column of values for each reading. */
function readUpright(rows: readonly (readonly string[])[]): FileReading[] | undefined {
  const body = rows.filter((row) => Number.isFinite(number(row[0])) && (row[0] ?? '').trim() !== '');
  const nm = body.map((row) => number(row[0]));
  if (nm.length < 10 || !nm.every((one, i) => one >= 300 && one <= 830 && (i === 0 || one > nm[i - 1]!))) return undefined;
  const head = rows[0] === body[0] ? undefined : rows[0];
  const count = Math.min(...body.map((row) => row.length)) - 1;
  if (count < 1) return undefined;
  return readTable(
    ['name', ...nm.map(String)],
    Array.from({ length: count }, (_, k) => [head?.[k + 1] ?? `reading ${k + 1}`, ...body.map((row) => row[k + 1]!)]),
  );
}

/**
 * Readings of a colour reader, from CGATS text or a table with a column a
 * wavelength; percent or shares. Spectra are brought to 36 bands from 380 nm.
 * @throws CraftError for what holds no readings
 */
export function readingsFromFile(text: string): FileReading[] {
  const plain = text.replace(/^\uFEFF/, '').trim();
  if (plain === '') throw new CraftError('input', 'This file is empty.');
  const isCgats = /^\s*BEGIN_DATA_FORMAT\s*$/im.test(plain);
  const found = isCgats ? readCgats(plain) : fromCsv(plain);
  if (found.length === 0) throw new CraftError('input', 'There is no reading in this file.');
  if (found.length > MOST_IN_FILE)
    throw new CraftError('input', `At most ${MOST_IN_FILE} readings are taken from one file; this one holds ${found.length}.`);
  return found;
}

function fromCsv(text: string): FileReading[] {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: true });
  const [header, ...rows] = data;
  if (!header) return [];
  return readUpright(data) ?? readTable(header, rows);
}

/** Readings as CGATS text: reflectance in percent, 36 bands. */
export function readingsToCgats(readings: readonly (FileReading & { readonly spectrum: Spectrum })[]): string {
  const nm = Array.from({ length: BANDS }, (_, i) => FIRST_NM + i * STEP_NM);
  const name = (text: string): string => `"${text.replace(/["\r\n]/g, ' ')}"`;
  return [
    'CTI3',
    '',
    'DESCRIPTOR "Readings of paint"',
    'ORIGINATOR "Auburn Dusk"',
    'DEVICE_CLASS "INPUT"',
    'KEYWORD "SPECTRAL_BANDS"',
    `SPECTRAL_BANDS "${BANDS}"`,
    'KEYWORD "SPECTRAL_START_NM"',
    `SPECTRAL_START_NM "${FIRST_NM}"`,
    'KEYWORD "SPECTRAL_END_NM"',
    `SPECTRAL_END_NM "${nm.at(-1)!}"`,
    'KEYWORD "SPECTRAL_NORM"',
    `SPECTRAL_NORM "${FULL}"`,
    '',
    `NUMBER_OF_FIELDS ${BANDS + 2}`,
    'BEGIN_DATA_FORMAT',
    ['SAMPLE_ID', 'SAMPLE_NAME', ...nm.map((one) => `SPEC_${one}`)].join(' '),
    'END_DATA_FORMAT',
    '',
    `NUMBER_OF_SETS ${readings.length}`,
    'BEGIN_DATA',
    ...readings.map((one, i) => [`${i + 1}`, name(one.name), ...Array.from(one.spectrum, (v) => (v * FULL).toFixed(4))].join(' ')),
    'END_DATA',
    '',
  ].join('\n');
}
