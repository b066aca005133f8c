// npm run fonts: cuts the faces of the page to the letters that it writes by itself. What a painter writes beyond them
// comes from the whole faces, on demand (web/src/frame/theme/letters.css). Writes the licences of letters and icons into
// one file that the page shows (web/public/licences.txt).
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import subset from 'subset-font';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const folderOf = (name) => dirname(fileURLToPath(import.meta.resolve(`${name}/package.json`)));
const WHOLE = join(folderOf('@fontsource/alegreya-sans'), 'files');
const THEME = join(ROOT, 'web/src/frame/theme');
const WEIGHTS = [400, 500, 700];
/** How letters are joined and figures stand; small capitals, swashes and the like are not used. */
const FEATURES = ['kern', 'liga', 'lnum', 'tnum', 'ccmp', 'locl', 'mark', 'mkmk'];

/** Which code points the whole Latin face is for, as its own style says. */
const latin = /alegreya-sans-latin-400-normal[^}]*unicode-range:\s*([^;]+);/
  .exec(readFileSync(join(WHOLE, '../400.css'), 'utf8'))[1]
  .split(',')
  .map((one) => one.trim().replace('U+', '').split('-'))
  .map(([from, to = from]) => [parseInt(from, 16), parseInt(to, 16)]);
const isLatin = (letter) => latin.some(([from, to]) => letter.codePointAt(0) >= from && letter.codePointAt(0) <= to);

const filesBelow = (folder) =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((one) => one.isFile() && /\.(ts|vue)$/.test(one.name))
    .map((one) => join(one.parentPath, one.name));
const plain = Array.from({ length: 0x7f - 0x20 }, (_, i) => String.fromCharCode(0x20 + i));
const written = ['web/src', 'core/src', 'wire/src']
  .flatMap((folder) => filesBelow(join(ROOT, folder)))
  .filter((file) => !file.includes('/tables/'))
  .map((file) => readFileSync(file, 'utf8'))
  .join('');
const letters = [...new Set([...plain, ...written])].filter((one) => one >= ' ' && isLatin(one)).sort();

mkdirSync(join(THEME, 'letters'), { recursive: true });
for (const weight of WEIGHTS) {
  const whole = readFileSync(join(WHOLE, `alegreya-sans-latin-${weight}-normal.woff2`));
  const cut = await subset(whole, letters.join(''), { targetFormat: 'woff2', keepFeatures: FEATURES, noHinting: true });
  writeFileSync(join(THEME, 'letters', `${weight}.woff2`), cut);
  console.log(`${weight}: ${whole.length} to ${cut.length} bytes, ${letters.length} letters`);
}
const beyond = letters.filter((one) => one > '~').map((one) => `U+${one.codePointAt(0).toString(16).toUpperCase()}`);
const range = ['U+20-7E', ...beyond].join(', ');
writeFileSync(
  join(THEME, 'letters.css'),
  `/* Written by npm run fonts. The last face that has a letter is the one that is fetched. */\n` +
    WEIGHTS.map(
      (weight) => `@font-face {
  font-family: 'Alegreya Sans';
  font-style: normal;
  font-display: swap;
  font-weight: ${weight};
  src: url(./letters/${weight}.woff2) format('woff2');
  unicode-range: ${range};
}
`,
    ).join(''),
);

const licenceOf = (name) => readFileSync(join(folderOf(name), 'LICENSE'), 'utf8').trim();
const OURS = [
  ['@fontsource/alegreya-sans', 'The letters of page and paper. Those that the page writes by itself are cut from the whole faces.'],
  ['@fontsource/noto-sans-sc', 'The letters of sheets for names in Han and kana.'],
  ['@mdi/js', 'The icons.'],
];
writeFileSync(
  join(ROOT, 'web/public/licences.txt'),
  OURS.map(([name, says]) => `${says}\n(${name})\n\n${licenceOf(name)}\n`).join(`\n${'-'.repeat(80)}\n\n`),
);
