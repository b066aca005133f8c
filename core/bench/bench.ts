// npm run bench: size of the book, time to make it, time to look a target up, each beside full
// enumeration of the same targets in the same run. Seeded, so that runs can be compared.
import { CATALOGUE, lookUp, makeBook, rankingFor, tryAll, USUAL_LIMITS, type Book, type Lab } from '../src/index.ts';

const PALETTES: readonly (readonly string[])[] = [
  ['titanium-white', 'yellow-oxide', 'pyrrole-orange', 'transparent-oxide-red', 'ultramarine-blue', 'viridian'],
  [
    'titanium-white',
    'cadmium-yellow',
    'yellow-ochre',
    'cadmium-red',
    'alizarin-permanent',
    'ultramarine-blue',
    'phthalo-blue',
    'burnt-umber',
  ],
  [
    'titanium-white',
    'cadmium-yellow',
    'yellow-ochre',
    'cadmium-red',
    'alizarin-permanent',
    'ultramarine-blue',
    'phthalo-blue',
    'burnt-umber',
    'viridian',
    'burnt-sienna',
    'cobalt-blue',
    'ivory-black',
  ],
];
const LOOK_UPS = 2000;
const ENUMERATED = 200;

/** Mulberry32. */
function seeded(seed: number): () => number {
  let s = seed;
  return () => {
    s = (s + 0x6d2b79f5) | 0;
    let t = Math.imul(s ^ (s >>> 15), 1 | s);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function timed<T>(work: () => T): { result: T; ms: number } {
  const from = performance.now();
  const result = work();
  return { result, ms: performance.now() - from };
}

const at = (list: number[], share: number): number =>
  list.sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))]!;

/** Half what the palette can mix, moved a little as a picture's colours are; half any colour, most of it out of reach. */
function targets(book: Book, count: number): Lab[] {
  const random = seeded(20);
  const near = (v: number, spread: number) => v + (random() - 0.5) * spread;
  return Array.from({ length: count }, (_, i): Lab => {
    const any = Math.floor(random() * book.count);
    return i % 2
      ? [near(book.L[any]!, 3), near(book.a[any]!, 3), near(book.b[any]!, 3)]
      : [15 + 75 * random(), -55 + 115 * random(), -55 + 115 * random()];
  });
}

function bytes(book: Book): number {
  const columns = [book.L, book.a, book.b, book.value, book.trouble, book.setOf, book.divisionOf, book.tree.boxes, book.tree.trouble];
  return columns.reduce((sum, column) => sum + column.byteLength, 0);
}

for (const palette of PALETTES) {
  const tubes = palette.map((id) => ({ ...CATALOGUE.get(id)!, id }));
  makeBook(tubes.slice(0, 4), USUAL_LIMITS);
  const { result: book, ms } = timed(() => makeBook(tubes, USUAL_LIMITS));
  const wanted = targets(book, LOOK_UPS);
  for (const target of wanted.slice(0, 300)) lookUp(book, rankingFor(target));
  const looked = wanted.map((target) => timed(() => lookUp(book, rankingFor(target))[0]!));
  const all = wanted.slice(0, ENUMERATED).map((target) => timed(() => tryAll(book, rankingFor(target))));
  const worst = Math.max(...all.map(({ result }, i) => looked[i]!.result.score - result.score));
  const lookMs = looked.map((l) => l.ms);
  const allMs = all.map((a) => a.ms);
  console.log(
    [
      `${palette.length} tubes, ≤ ${USUAL_LIMITS.tubes} each, ≤ ${USUAL_LIMITS.parts} parts`,
      `  book ${book.count.toLocaleString('en')} recipes (${book.ingredients.length - palette.length} let-downs), ${(bytes(book) / 1e6).toFixed(1)} MB, made in ${ms.toFixed(0)} ms`,
      `  look-up p50 ${at(lookMs, 0.5).toFixed(2)} ms, p99 ${at(lookMs, 0.99).toFixed(2)} ms (${LOOK_UPS} targets)`,
      `  full enumeration p50 ${at(allMs, 0.5).toFixed(1)} ms, p99 ${at(allMs, 0.99).toFixed(1)} ms (${ENUMERATED} targets): ${(at(allMs, 0.5) / at(lookMs, 0.5)).toFixed(0)} times the look-up at p50`,
      `  worse than enumeration by at most ${worst.toFixed(6)} in score on ${ENUMERATED} targets`,
    ].join('\n'),
  );
}
