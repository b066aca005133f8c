// npm run checks: docs/CHECKS.md, what the engine gives against every published table and truth in core/data.
import { readFileSync, writeFileSync } from 'node:fs';
import { deltaE00, deltaE76, labOf, labToLch, munsellFromInput, valueFromY, xyzCToMunsell, type Lab } from '../src/index.ts';
import { labOfMix, measured, unmet, type Truth } from '../test/truths.ts';

const file = (name: string): string => readFileSync(new URL(`../data/${name}`, import.meta.url), 'utf8');
const lines = (name: string): string[] => file(name).trim().split('\n').slice(1);
const worst = (list: readonly number[]): number => Math.max(...list);
const mean = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / list.length;

type Judged = { readonly name: string; readonly r: readonly number[] } & Record<
  'D65' | 'D50' | 'A',
  { readonly L: number; readonly a: number; readonly b: number }
>;
const judged = JSON.parse(file('spectra-judged.json')) as Judged[];
const spectra = (['D65', 'D50', 'A'] as const).map((light) => {
  const off = judged.map((s) => deltaE76(labOf(Float64Array.from(s.r), light), [s[light].L, s[light].a, s[light].b]));
  return `| ${light} | ${judged.length} | ${mean(off).toFixed(4)} | ${worst(off).toFixed(4)} | 0.05 |`;
});

const pairs = lines('ciede2000-pairs.csv').map((line) => {
  const [L1, a1, b1, L2, a2, b2, dE] = line.split(',').map(Number) as [number, number, number, number, number, number, number];
  return Math.abs(deltaE00([L1, a1, b1], [L2, a2, b2]) - dE);
});

const chips = lines('munsell-renotation.csv').map((line) => {
  const [hue, value, chroma, x, y, Y] = line.split(',') as [string, string, string, string, string, string];
  const wanted = munsellFromInput(`${hue} ${value}/${chroma}`);
  const [cx, cy, cY] = [Number(x), Number(y), Number(Y)];
  const got = xyzCToMunsell([(cx * cY) / cy, cY, ((1 - cx - cy) * cY) / cy]);
  return {
    hue: Math.abs(((got.hue - wanted.hue + 150) % 100) - 50),
    value: Math.abs(valueFromY(cY) - wanted.value),
    chroma: Math.abs(got.chroma - wanted.chroma),
  };
});

const region = (lab: Lab): string => {
  const [L, C, h] = labToLch(lab);
  return `L ${L.toFixed(1)}, C ${C.toFixed(1)}, h ${h.toFixed(0)}`;
};
function result(truth: Truth): string {
  if (truth.kind === 'region') return region(labOfMix(truth.mix, truth.film));
  if (truth.kind === 'order') {
    const [of, than] = measured(truth);
    return `${truth.metric} ${of.toFixed(1)} against ${than.toFixed(1)}, by ${truth.by} at least`;
  }
  return 'some ratio from 1 : 6 to 6 : 1';
}
const truths = ['mixing-truths', 'more-truths'].flatMap((name) => (JSON.parse(file(`${name}.json`)) as { truths: Truth[] }).truths);
const rows = truths.map((truth) => `| ${truth.id} | ${result(truth)} | ${unmet(truth).length === 0 ? 'holds' : unmet(truth).join('; ')} |`);

writeFileSync(
  new URL('../../docs/CHECKS.md', import.meta.url),
  `# The engine against published tables

Written by \`npm run checks\` from the tables in \`core/data\`; the same are tests.

## Spectra under a light, ΔE*ab from an independent suite

| light | spectra | mean | worst | allowed |
| --- | --- | --- | --- | --- |
${spectra.join('\n')}

## CIEDE2000, the ${pairs.length} published pairs

Worst difference ${worst(pairs).toExponential(1)}; allowed 1e-4.

## Munsell, the ${chips.length} real chips

| | worst | allowed |
| --- | --- | --- |
| hue, in hue numbers (2.5 to a step of the table) | ${worst(chips.map((c) => c.hue)).toExponential(1)} | 0.1 step |
| value | ${worst(chips.map((c) => c.value)).toExponential(1)} | 0.02 |
| chroma | ${worst(chips.map((c) => c.chroma)).toExponential(1)} | 0.1 |

## What painters know of mixtures

${truths.length} truths, ${rows.filter((r) => r.endsWith('holds |')).length} hold.

| truth | what the engine gives | |
| --- | --- | --- |
${rows.join('\n')}
`,
);
