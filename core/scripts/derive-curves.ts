// Derives the catalogue's K and S curves from the published features in core/src/paint/pigments
// and writes them to core/src/paint/tables. Prints how far each typical colour was missed.
import { writeFileSync } from 'node:fs';
import { BANDS } from '../src/colour/spectrum.ts';
import { deltaE00 } from '../src/colour/difference.ts';
import { labToLch } from '../src/colour/spaces.ts';
import { derive, thickLab, withoutStrayLight, type Curves } from '../src/paint/pigments/derive.ts';
import { DEFINITIONS } from '../src/paint/pigments/index.ts';

const SCALE = 1e5;
const done = new Map<string, Curves>();

function blend(shares: Readonly<Record<string, number>>): Curves {
  const K = new Float64Array(BANDS);
  const S = new Float64Array(BANDS);
  for (const [slug, share] of Object.entries(shares)) {
    const part = done.get(slug)!;
    for (let i = 0; i < BANDS; i++) {
      K[i]! += share * part.K[i]!;
      S[i]! += share * part.S[i]!;
    }
  }
  return { K, S };
}

const white = DEFINITIONS.find((d) => d.slug === 'titanium-white')!;
if (!('absorb' in white)) throw new Error('titanium white needs curves of its own');
done.set('titanium-white', derive(white));
for (const d of DEFINITIONS) if ('absorb' in d && d !== white) done.set(d.slug, derive(d, done.get('titanium-white')));
for (const d of DEFINITIONS) if ('blend' in d) done.set(d.slug, blend(d.blend));

const say = (n: readonly number[]) => n.map((v) => v.toFixed(1).padStart(6)).join('');
for (const d of DEFINITIONS) {
  const c = done.get(d.slug)!;
  const top = thickLab(c, c, 1);
  const tint = thickLab(c, done.get('titanium-white')!, 0.1);
  const miss =
    'absorb' in d ? `  off ${deltaE00(top, withoutStrayLight(d.masstone)).toFixed(2)} ${deltaE00(tint, d.tint).toFixed(2)}` : '  blend';
  const peak = Math.max(...c.K.subarray(2, 34)).toFixed(2);
  console.log(`${d.slug.padEnd(28)}${say(labToLch(top))} |${say(labToLch(tint))}  K ${peak.padStart(6)}  S ${c.S[18]!.toFixed(2)}${miss}`);
}

const integers = (a: Float64Array) => JSON.stringify(Array.from(a, (v) => Math.round(v * SCALE)));
const header = '// Written by core/scripts/derive-curves.ts from core/src/paint/pigments; do not edit by hand.\n';
const curves = DEFINITIONS.map((d) => {
  const c = done.get(d.slug)!;
  return `  '${d.slug}': {\n    K: ${integers(c.K)},\n    S: ${integers(c.S)},\n  },`;
}).join('\n');
writeFileSync(
  new URL('../src/paint/tables/curves.ts', import.meta.url),
  `${header}/** K and S times 100,000 of each pigment as tube paint, 380–730 nm by 10 nm. */\nexport const CURVES: Readonly<Record<string, { readonly K: readonly number[]; readonly S: readonly number[] }>> = {\n${curves}\n};\n`,
);
const handling = DEFINITIONS.map(({ slug, density, oil, drying, lightfastness, basis }) => [
  slug,
  { density, oil, drying, lightfastness, basis },
]);
writeFileSync(
  new URL('../src/paint/tables/handling.ts', import.meta.url),
  `${header}import type { Drying, Lightfastness } from '../pigments/definition.ts';\n\nexport const HANDLING: Readonly<\n  Record<string, { density: number; oil: number; drying: Drying; lightfastness: Lightfastness; basis: string }>\n> = {\n${handling.map(([slug, row]) => `  ${JSON.stringify(slug)}: ${JSON.stringify(row)},`).join('\n')}\n};\n`,
);
