// npm run bench:landing: how soon a place's desk is ready and how closely it follows, coats, a day of twenty piles, photos of
// palettes. With -- --write the table in docs/LANDING.md is written anew.
import { readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import {
  asCameraSees,
  best,
  CATALOGUE,
  coatsToCover,
  deltaE00,
  labOf,
  layPalette,
  matchPalette,
  mixCurves,
  photographed,
  planDay,
  readPalettePhoto,
  reflectance,
  viewingThere,
  type DayPile,
  type Lab,
  type LaidSo,
  type PaletteScene,
} from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { everydayLabs } from './everyday.ts';
import { ADVICE_PALETTES, knownTubes } from './advicePalettes.ts';
import { at, timed } from './palettes.ts';

const tubesOf = (name: string) => knownTubes(ADVICE_PALETTES[name]!);
const rows: (readonly [what: string, got: string, asked: string])[] = [];
const ms = (v: number): string => `${v.toFixed(v < 10 ? 1 : 0)} ms`;

const targets = everydayLabs();
const umber = CATALOGUE.get('burnt-umber')!;
const WAYS: readonly (readonly [string, LaidSo, boolean])[] = [
  ['a glaze over a dry umber', { how: 'glaze', with: 'medium' }, false],
  ['thin over a dry umber', { how: 'thin' }, false],
  ['loaded into wet umber', { how: 'loaded', takes: 'some' }, true],
];
const twelve = tubesOf('twelve, ordinary');
const pileTimes = ((): number[] => {
  const palette = layPalette(twelve);
  for (const target of targets) best(palette, target);
  return targets.map((target) => timed(() => best(palette, target)).ms).sort((a, b) => a - b);
})();
rows.push(['twelve tubes, in the pile: look-up p50, p95', `${ms(at(pileTimes, 0.5))}, ${ms(at(pileTimes, 0.95))}`, '']);
for (const [says, so, isWet] of WAYS) {
  const viewing = viewingThere({ so, below: isWet ? { wet: umber } : { dry: reflectance(umber) } });
  const { result: palette, ms: ready } = timed(() => layPalette(twelve, undefined, viewing));
  for (const target of targets) best(palette, target);
  const times = targets.map((target) => timed(() => best(palette, target)).ms).sort((a, b) => a - b);
  rows.push([`twelve tubes, ${says}: desk ready`, ms(ready), '≤ 1000 ms']);
  rows.push([
    'its look-up p50, p95',
    `${ms(at(times, 0.5))}, ${ms(at(times, 0.95))} (${(at(times, 0.95) / at(pileTimes, 0.95)).toFixed(1)} × the pile)`,
    'p95 ≤ 50 ms',
  ]);
}

const black = reflectance(CATALOGUE.get('ivory-black')!);
const { coats, unseen } = coatsToCover(CATALOGUE.get('titanium-white')!, black, 40);
rows.push([
  'coats of titanium white, 40 µm each, over black',
  `${coats}; ${unseen} until an eye that looks for it finds nothing`,
  '4 to 6',
]);

const random = seeded(20);
const piles: DayPile[] = Array.from({ length: 20 }, (_, i) => {
  const parts = twelve.map((tube) => ({ tube, parts: random() < 0.7 ? 0 : random() })).filter(({ parts: n }) => n > 0);
  const used = parts.length > 0 ? parts : [{ tube: twelve[0]!, parts: 1 }];
  const paint = mixCurves(used.map(({ tube, parts: n }) => ({ paint: tube, parts: n })));
  const tubes = used.map(({ tube }) => tube.id);
  return {
    id: String(i),
    ...paint,
    lab: labOf(reflectance(paint)),
    mothers: [],
    tubes,
    measurings: tubes.length,
    isBackground: i % 5 === 0,
  };
});
const day = timed(() => planDay(piles, twelve, { order: 'darks first', minutes: 40 }));
rows.push([
  'a day of twenty piles, forty minutes: planned in',
  `${ms(day.ms)} (${day.result.steps.length} mixed, ${day.result.later.length} later in one step, ${day.result.left.length} left)`,
  '≤ 2000 ms',
]);

const SURFACES: readonly Lab[] = [
  [62, 1, 4],
  [38, 8, 16],
  [86, 0, 3],
];
const off: number[] = [];
const reading: number[] = [];
let [there, found, matched] = [0, 0, 0];
for (let seed = 101; seed <= 140; seed++) {
  const own = seeded(seed);
  const laid: Lab[] = [];
  while (laid.length < 6 + (seed % 9)) {
    const lab = labOf(reflectance(mixCurves(twelve.map((paint) => ({ paint, parts: own() < 0.6 ? 1e-6 : own() ** 2 })))));
    if (laid.every((other) => deltaE00(other, lab) > 6)) laid.push(lab);
  }
  const scene: PaletteScene = {
    piles: laid,
    surface: SURFACES[seed % 3]!,
    light: seed % 2 === 0 ? 'window' : 'lamp',
    tilt: (seed % 4) / 3,
    glare: (seed % 3) / 2,
    seed,
  };
  const photo = photographed(scene);
  const { result, ms: took } = timed(() => readPalettePhoto(photo));
  reading.push(took);
  const { matches } = matchPalette(
    result.paint,
    laid.map((lab, i) => ({ id: String(i), lab })),
  );
  there += laid.length;
  found += Math.min(result.paint.length, laid.length);
  for (const { id, paint } of matches) {
    const beyond = deltaE00(paint.lab, asCameraSees(laid[Number(id)]!, scene));
    off.push(beyond);
    if (beyond < 6) matched++;
  }
}
off.sort((a, b) => a - b);
reading.sort((a, b) => a - b);
rows.push([
  `forty photos of palettes, ${there} piles: found, matched`,
  `${((100 * found) / there).toFixed(1)} %, ${((100 * matched) / there).toFixed(1)} %`,
  '95 %',
]);
rows.push([
  'looks beyond the camera’s own error, ΔE00 p50, p95, most',
  `${at(off, 0.5).toFixed(2)}, ${at(off, 0.95).toFixed(2)}, ${off.at(-1)!.toFixed(2)}`,
  '≤ 2',
]);
rows.push(['a photo is read in, p50, most', `${ms(at(reading, 0.5))}, ${ms(reading.at(-1)!)}`, '≤ 2000 ms']);

const text = [
  `Written by \`npm run bench:landing -- --write\` on ${cpus().length} × ${cpus()[0]!.model.trim()}, Node ${process.versions.node}.`,
  '',
  '| what | got | asked |',
  '| --- | --- | --- |',
  ...rows.map((row) => `| ${row.join(' | ')} |`),
].join('\n');
console.log(text);
if (process.argv.includes('--write')) {
  const file = new URL('../../docs/LANDING.md', import.meta.url);
  const page = readFileSync(file, 'utf8');
  writeFileSync(
    file,
    page.replace(/(<!-- measured -->\n)[^]*?(<!-- \/measured -->)/, (_, from: string, to: string) => `${from}\n${text}\n\n${to}`),
  );
}
