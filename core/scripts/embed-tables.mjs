// Writes the published tables in core/data as TypeScript modules, since core reads no files.
import { readFileSync, writeFileSync, mkdirSync } from 'node:fs';
const here = new URL('../', import.meta.url);
const rows = (name) =>
  readFileSync(new URL(`data/${name}`, here), 'utf8')
    .trim()
    .split('\n')
    .map((line) => line.split(','));
mkdirSync(new URL('src/colour/tables/', here), { recursive: true });
const write = (name, text) =>
  writeFileSync(
    new URL(`src/colour/tables/${name}.ts`, here),
    `// Written by core/scripts/embed-tables.mjs from core/data; do not edit by hand.\n${text}`,
  );
const column = (table, i) => table.slice(1).map((r) => Number(r[i]));

const cmf = rows('cie1931-2deg-5nm.csv');
write(
  'observer1931',
  `/** CIE 1931 2° colour matching functions, 380–780 nm by 5 nm. */\nexport const OBSERVER_1931 = {\n  x: ${JSON.stringify(column(cmf, 1))},\n  y: ${JSON.stringify(column(cmf, 2))},\n  z: ${JSON.stringify(column(cmf, 3))},\n} as const;\n`,
);
const ill = rows('illuminants-5nm.csv');
const body = ill[0]
  .slice(1)
  .map((name, i) => `  ${name}: ${JSON.stringify(column(ill, i + 1))},`)
  .join('\n');
write(
  'illuminants',
  `/** Relative spectral power, 380–780 nm by 5 nm (CIE 15). */\nexport const ILLUMINANT_POWER = {\n${body}\n} as const;\n`,
);
const chips = rows('munsell-renotation.csv').slice(1);
const groups = {};
for (const [h, v, c, x, y] of chips) {
  const key = `${h} ${v}`;
  (groups[key] ??= []).push([Number(c), Number(x), Number(y)].join(','));
}
write(
  'munsellRenotation',
  `/** Munsell renotation (Newhall, Nickerson and Judd 1943), real chips under illuminant C:\n * "hue value" → chroma,x,y triples separated by spaces. */\nexport const MUNSELL_RENOTATION: Readonly<Record<string, string>> = {\n${Object.entries(
    groups,
  )
    .map(([k, v]) => `  '${k}': '${v.join(' ')}',`)
    .join('\n')}\n};\n`,
);

const pigments = readFileSync(new URL('data/pigments.csv', here), 'utf8').trim().split('\n').slice(1);
const cells = (line) => line.match(/("([^"]*)"|[^,]*)(,|$)/g).map((c) => c.replace(/,$/, '').replace(/^"|"$/g, ''));
mkdirSync(new URL('src/paint/tables/', here), { recursive: true });
writeFileSync(
  new URL('src/paint/tables/genericPigments.ts', here),
  `// Written by core/scripts/embed-tables.mjs from core/data; do not edit by hand.\n/** slug, name, Colour Index, character, caution. */\nexport const GENERIC_PIGMENTS = [\n${pigments
    .map((line) => `  ${JSON.stringify(cells(line).slice(0, 5))},`)
    .join('\n')}\n] as const;\n`,
);
