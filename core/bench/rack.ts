// npm run bench:rack: how near taught tubes predict, how honest their doubt is, and how long what tubes make and the best few take.
import {
  alikeAmong,
  atOnce,
  bestFew,
  CATALOGUE,
  chipsAtValue,
  coloursOfPicture,
  coverOf,
  deltaE00,
  deviate,
  drawDeviation,
  fewer,
  fitTube,
  fitWhite,
  HARSH_SPREAD,
  labOf,
  layBench,
  mixCurves,
  mixturesOf,
  reach,
  readyMadeAmong,
  reflectance,
  trustIn,
  USUAL_SPREAD,
  USUAL_TINTS,
  type Lab,
  type PaintCurves,
  type Pixels,
  type Spread,
  type SwatchReading,
  type WeightedColour,
} from '../src/index.ts';
import { normal, seeded } from '../src/random.ts';
import { TWELVE_TUBES } from '../test/twelveTubes.ts';
import { ADVICE_PALETTES } from './advicePalettes.ts';
import { at, mean } from './palettes.ts';

const WHITE = 'titanium-white';
const curvesOf = (slug: string): PaintCurves => {
  const { K, S } = CATALOGUE.get(slug)!;
  return { K, S };
};
const tube = (id: string) => ({ id, ...curvesOf(id) });
const mixed = (parts: readonly { readonly paint: PaintCurves; readonly parts: number }[]): Lab => labOf(reflectance(mixCurves(parts)));

interface Outcome {
  readonly fitted: number;
  readonly typical: number;
  readonly estimate: number;
}

/** A hidden studio of a palette's tubes, each told by four swatches; what mixtures of two to four that nobody read miss by. */
function studio(slugs: readonly string[], seed: number, spread: Spread, kind: 'reader' | 'photo'): Outcome[] {
  const random = seeded(seed);
  const all = slugs.includes(WHITE) ? slugs : [WHITE, ...slugs];
  const hidden = new Map(all.map((slug) => [slug, deviate(curvesOf(slug), drawDeviation(spread, random))]));
  // A card's own error is the same for all its swatches, ΔE 1.24; each has as much of its own.
  const astray = [normal(random), normal(random), normal(random)];
  const by = 1.24 / Math.hypot(...astray);
  const read = (slug: string, white: number): SwatchReading => {
    const r = reflectance(
      mixCurves([
        { paint: hidden.get(slug)!, parts: 1 },
        { paint: hidden.get(WHITE)!, parts: white },
      ]),
    );
    const parts = { tube: 1, white };
    if (kind === 'reader') return { parts, spectrum: r.map((v) => v + 0.002 * normal(random)) };
    return { parts, lab: labOf(r).map((v, i) => v + astray[i]! * by + 0.71 * normal(random)) as unknown as Lab, by: 'photo' };
  };
  const white = fitWhite(curvesOf(WHITE), [read(WHITE, 0)]);
  const fitted = new Map(
    all.map((slug) => [
      slug,
      slug === WHITE
        ? white
        : fitTube(
            curvesOf(slug),
            white,
            USUAL_TINTS.map((n) => read(slug, n)),
          ),
    ]),
  );
  return Array.from({ length: 60 }, () => {
    const set = [...all].sort(() => random() - 0.5).slice(0, Math.min(all.length, 2 + Math.floor(random() * 3)));
    const parts = set.map((slug) => 1 + Math.floor(random() * (slug === WHITE ? 9 : 4)));
    const of = (paints: (slug: string) => PaintCurves) =>
      set.map((slug, i) => ({ paint: paints(slug), parts: parts[i]!, basis: 'fitted' as const }));
    const truth = mixed(of((slug) => hidden.get(slug)!));
    return {
      fitted: deltaE00(mixed(of((slug) => fitted.get(slug)!)), truth),
      typical: deltaE00(mixed(of(curvesOf)), truth),
      estimate: trustIn(of((slug) => fitted.get(slug)!)).errorEstimate,
    };
  });
}
/** Hidden studios of each palette: tubes of one are off together, so that many are needed. */
const STUDIOS = 6;
const percent = (share: number): string => `${(100 * share).toFixed(0)} %`;
const inside = (list: readonly Outcome[]): string =>
  percent(list.filter(({ fitted, estimate }) => fitted <= estimate).length / list.length);

console.log('| tubes | read by | mean ΔE00 | p95 | untaught | of it | stated errors cover | by palette |');
console.log('| --- | --- | --- | --- | --- | --- | --- | --- |');
for (const [studioName, spread] of [
  ['usual', USUAL_SPREAD],
  ['harsh', HARSH_SPREAD],
] as const)
  for (const kind of ['reader', 'photo'] as const) {
    const byPalette = Object.values(ADVICE_PALETTES).map((slugs) =>
      Array.from({ length: STUDIOS }, (_, i) => i + 1).flatMap((seed) =>
        studio(slugs.slice(0, 12), 97 * seed + slugs.length, spread, kind),
      ),
    );
    const all = byPalette.flat();
    const errors = all.map(({ fitted }) => fitted);
    const untaught = mean(all.map(({ typical }) => typical));
    console.log(
      `| ${studioName} | ${kind} | ${mean(errors).toFixed(2)} | ${at(errors, 0.95).toFixed(2)} | ${untaught.toFixed(2)} | ${percent(mean(errors) / untaught)} | ${inside(all)} | ${byPalette.map(inside).join(', ')} |`,
    );
  }

function timed<T>(what: string, times: number, work: () => T): T {
  let answer = work();
  const took = Array.from({ length: times }, () => {
    const since = performance.now();
    answer = work();
    return performance.now() - since;
  });
  console.log(`| ${what} | ${at(took, 0.5).toFixed(0)} | ${Math.max(...took).toFixed(0)} |`);
  return answer;
}

/** A picture of a megapixel, as photographs are: soft, with many dull colours and a few strong ones. */
function picture(seed: number): Pixels {
  const random = seeded(seed);
  const [width, height] = [1200, 840];
  const blobs = Array.from({ length: 40 }, () => ({
    x: random() * width,
    y: random() * height,
    r: 40 + 260 * random(),
    rgb: [0, 1, 2].map(() => 255 * random() ** 1.3),
    weight: 0.4 + random(),
  }));
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sums = [20, 20, 20];
      let whole = 0.2;
      for (const { x: bx, y: by, r, rgb, weight } of blobs) {
        const d = ((x - bx) ** 2 + (y - by) ** 2) / (r * r);
        if (d > 4) continue;
        const w = weight * Math.exp(-2 * d);
        whole += w;
        for (let c = 0; c < 3; c++) sums[c] = sums[c]! + w * rgb[c]!;
      }
      for (let c = 0; c < 3; c++) data[4 * (y * width + x) + c] = sums[c]! / whole + 6 * (random() - 0.5);
      data[4 * (y * width + x) + 3] = 255;
    }
  return { data, width, height };
}

const TWELVE = TWELVE_TUBES.map(tube);
const THIRTY = [
  ...TWELVE,
  ...[...CATALOGUE.keys()]
    .filter((slug) => !TWELVE.some(({ id }) => id === slug) && !slug.includes('white'))
    .slice(0, 18)
    .map(tube),
];
const seen = picture(11);

console.log('\n| what | ms, median | most |');
console.log('| --- | --- | --- |');
const table = timed('what twelve tubes make, all of it', 7, () => mixturesOf(TWELVE));
timed('its chips at one value', 20, () => chipsAtValue(table, 5));
timed('the same when a tube is taken away', 20, () => chipsAtValue(table, 5, new Set([6])));
timed('what twenty-four tubes make', 3, () => mixturesOf(THIRTY.slice(0, 24)));
const colours = timed(`the colours of a picture of ${((seen.width * seen.height) / 1e6).toFixed(1)} MP`, 5, () => coloursOfPicture(seen));
timed(`what share of it twelve tubes match (${colours.length} colours)`, 3, () => coverOf(TWELVE, colours, table));
timed('the best five of twelve', 2, () => atOnce(bestFew(TWELVE, colours, { count: 5, must: [WHITE] })));
timed('the best six of thirty', 1, () => atOnce(bestFew(THIRTY, colours, { count: 6, must: [WHITE] })));
const rack = [...CATALOGUE.keys()].map((slug) => ({ ...tube(slug), pigments: [slug] }));
timed(`alike among ${rack.length} tubes`, 3, () => alikeAmong(rack, curvesOf(WHITE)));
timed(`ready mixed among ${rack.length} tubes`, 2, () => atOnce(readyMadeAmong(rack, curvesOf(WHITE))));

const many = Array.from({ length: 400 }, (_, i) => ({ ...rack[i % rack.length]!, id: `tube ${i}` }));
timed('alike and ready mixed among 400 tubes', 1, () => [alikeAmong(many, curvesOf(WHITE)), atOnce(readyMadeAmong(many, curvesOf(WHITE)))]);

/** Against looking through all sets of four of nine. */
const losses = [21, 22, 23, 24, 25, 26].map((seed) => {
  const small: WeightedColour[] = fewer(coloursOfPicture(picture(seed)), 60);
  const nine = THIRTY.filter((_, i) => i === 0 || (i + seed) % 3 === 0).slice(0, 9);
  const bench = layBench(nine);
  let best = 0;
  for (let a = 1; a < 9; a++)
    for (let b = a + 1; b < 9; b++) for (let c = b + 1; c < 9; c++) best = Math.max(best, reach(bench, [0, a, b, c], small).cover.merit);
  const found = atOnce(bestFew(nine, small, { count: 4, must: [WHITE] })).cover.merit;
  return Math.max(0, 1 - found / best);
});
console.log(
  `\nof ${losses.length} racks of nine, the best four against all sets: loss at most ${(100 * Math.max(...losses)).toFixed(1)} %`,
);
