// npm run bench: size of the book, time to make it, time to look a target up, each beside full
// enumeration and a general optimiser on the same targets in the same run. Seeded, so that runs can
// be compared. With -- --write it also runs the simulated painters and writes docs/BENCHMARKS.md.
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { closingRows, type ClosingRow } from './closing.ts';
import { lookingRows, type LookingRow } from './looking.ts';
import { puttingRows, type PuttingRow } from './putting.ts';

const ms = (v: number): string => (v < 10 ? v.toFixed(2) : v.toFixed(0));
const table = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  [heads, heads.map(() => '---'), ...rows].map((row) => `| ${row.join(' | ')} |`).join('\n');

const bookTable = (rows: readonly LookingRow[]): string =>
  table(
    [
      'tubes',
      'recipes',
      'memory',
      'book made in',
      'made again in',
      'of it, colouring without SIMD would take',
      'look-up p50',
      'look-up p99',
      'enumeration p50',
      'worse than enumeration',
    ],
    rows.map((r) => [
      String(r.tubes),
      r.recipes.toLocaleString('en'),
      `${r.megabytes.toFixed(1)} MB`,
      `${ms(r.bookMs)} ms`,
      `${ms(r.againMs)} ms`,
      `${ms(r.plainMs)} ms`,
      `${ms(r.p50)} ms`,
      `${ms(r.p99)} ms`,
      `${ms(r.allP50)} ms (${(r.allP50 / r.p50).toFixed(0)} times)`,
      r.worst.toFixed(6),
    ]),
  );

const optimiserTable = (rows: readonly LookingRow[]): string =>
  table(
    [
      'tubes',
      'score of the book’s recipe',
      'of the optimiser’s, rounded to parts',
      'mismatch after polishing the book’s',
      'of the optimiser’s exact shares',
      'time: look-up and polish',
      'time: optimiser',
    ],
    rows.map((r) => [
      String(r.tubes),
      r.bookScore.toFixed(2),
      r.optimiserScore.toFixed(2),
      r.polishCost.toFixed(2),
      r.optimiserCost.toFixed(2),
      `${ms(r.p50 + r.polishMs)} ms`,
      `${ms(r.optimiserMs)} ms`,
    ]),
  );

const closingTable = (rows: readonly ClosingRow[]): string =>
  table(
    [
      'studio',
      'painters',
      'first pile: corrections, median',
      'p90',
      'ΔE00 before correcting',
      'after ten piles: corrections, mean',
      'p90',
      'ΔE00 before correcting',
      'never within ΔE00 2',
    ],
    rows.map((r) => [
      r.studio,
      String(r.painters),
      String(r.firstMedian),
      String(r.firstP90),
      r.firstError.toFixed(2),
      r.lateMean.toFixed(2),
      String(r.lateP90),
      r.lateError.toFixed(2),
      r.failed,
    ]),
  );

const puttingTable = (rows: readonly PuttingRow[]): string =>
  table(
    ['what', 'p50', 'p95', 'asked, p95'],
    rows.map((r) => [r.what, `${ms(r.p50)} ms`, `${ms(r.p95)} ms`, `≤ ${r.asked} ms`]),
  );

const rows = lookingRows();
console.log(bookTable(rows));
console.log(optimiserTable(rows));
const putting = puttingRows();
console.log(puttingTable(putting));

if (process.argv.includes('--write')) {
  const closing = closingRows(30);
  console.log(closingTable(closing));
  writeFileSync(
    new URL('../../docs/BENCHMARKS.md', import.meta.url),
    `# Figures of the engine

Written by \`npm run bench -- --write\` on ${cpus().length} × ${cpus()[0]!.model}, Node ${process.versions.node}. Run it to have your own; \`npm run bench\` prints the first two tables. Compare figures within one run, not between machines.

## The book

Recipes of at most 4 tubes and 12 parts, let-downs included. 2,000 seeded targets, half near what the palette mixes, half anywhere in Lab 15–90, ±60; enumeration on 200 of them. “Worse” is the largest difference in ranking score.

${bookTable(rows)}

“Made in” is the first book of that size in the run, after one of four tubes. Look-ups are timed after one pass over the same targets.

Asked for: book ≤ 1 s at 12 tubes and ≤ 0.1 s at 6, look-up p99 ≤ 2 ms, worse by at most 0.01, memory at 12 tubes ≤ 60 MB.

What was tried for the look-up, and what each gave, is in [decisions/0002](decisions/0002-bounds-on-ciede2000.md); for making the book, in [decisions/0003](decisions/0003-simd-kernel.md).

## Beside a general optimiser

Quasi-Newton search (BFGS, uncmin of the package numeric) over all tubes’ shares at once, from as many starts as there are tubes and one more, on 40 of the same targets. The score counts value, ΔE00 and effort (tubes, parts); mismatch counts value and ΔE00 alone. The optimiser may use every tube for its exact shares; the polished recipe keeps to four.

${optimiserTable(rows)}

## Putting a pile right

${puttingTable(putting)}

On the page and over HTTP: see [PAGE.md](PAGE.md).

## Painters with unknown tubes

Simulated: hidden tubes differ from the typical ones (usual: strength ×0.7–1.3, ±5 nm, a quarter extender, 5–8 % of shape; harsh: ±8 nm, 40 %, 8–15 %), each dose is off by up to 10 %, the eye by ΔE 0.5. Targets are mixtures of the hidden tubes. A pile is corrected by additions only, to at most four times its size, until its true colour is within ΔE00 2.

${closingTable(closing)}

Asked for: median ≤ 1 and p90 ≤ 2 corrections at first; mean ≤ 0.25 (usual) and 0.4 (harsh), p90 ≤ 1 after ten piles.
`,
  );
}
