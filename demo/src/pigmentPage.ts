// npm run pigment-page: docs/PIGMENTS.md and its picture, every pigment of the catalogue as it is predicted.
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { CATALOGUE, flatSpectrum, labOf, labToHex, mixCurves, reflectance, type Pigment, type Spectrum } from '@dusk/core';
import sharp from 'sharp';

const WHITE = CATALOGUE.get('titanium-white')!;
const TINTS = [1, 4, 9, 49] as const;
/** A thinly brushed film. */
const FILM_UM = 12;
const OVER_WHITE: Spectrum = flatSpectrum(0.9);
const OVER_BLACK: Spectrum = flatSpectrum(0.03);

const ROW = 44;
const NAME = 232;
const CELL = 78;
const GAP = 24;
const HEAD = 56;
const COLUMNS = ['masstone', ...TINTS.map((n) => `1 : ${n}`), 'film'];

function colours(pigment: Pigment): string[] {
  const tint = (white: number) =>
    labOf(
      reflectance(
        mixCurves([
          { paint: pigment, parts: 1 },
          { paint: WHITE, parts: white },
        ]),
      ),
    );
  return [labOf(reflectance(pigment)), ...TINTS.map(tint)].map(labToHex);
}

/** A film over a ground that is half white, half black. */
const film = (pigment: Pigment): string[] =>
  [OVER_WHITE, OVER_BLACK].map((ground) => labToHex(labOf(reflectance(pigment, { film: { thicknessUm: FILM_UM, ground } }))));

function row(pigment: Pigment, x: number, y: number): string {
  const cell = (fill: string, at: number, width: number) =>
    `<rect x="${x + NAME + at}" y="${y}" width="${width}" height="${ROW - 6}" fill="${fill}"/>`;
  const chips = colours(pigment).map((fill, i) => cell(fill, i * CELL, CELL));
  const films = film(pigment).map((fill, i) => cell(fill, 5 * CELL + 10 + (i * CELL) / 2, CELL / 2));
  const label = `<text x="${x}" y="${y + 17}" font-size="16">${pigment.name.replace('&', '&amp;')}</text><text x="${x}" y="${y + 34}" font-size="12">${pigment.colourIndex}</text>`;
  return label + chips.join('') + films.join('');
}

const pigments = [...CATALOGUE.values()];
const perColumn = Math.ceil(pigments.length / 2);
const width = 2 * (NAME + 6 * CELL + 10) + 3 * GAP;
const height = HEAD + perColumn * ROW + GAP;
const heads = [0, 1].flatMap((side) => {
  const x = GAP + side * (NAME + 6 * CELL + 10 + GAP) + NAME;
  return COLUMNS.map((text, i) => `<text x="${x + i * CELL + (i === 5 ? 12 : 4)}" y="36" font-size="14">${text}</text>`);
});
const rows = pigments.map((p, i) => row(p, GAP + Math.floor(i / perColumn) * (NAME + 6 * CELL + 10 + GAP), HEAD + (i % perColumn) * ROW));
const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" font-family="sans-serif"><rect width="100%" height="100%" fill="#7b7b7b"/><g fill="#000">${heads.join('')}</g>${rows.join('')}</svg>`;
await sharp(Buffer.from(svg))
  .png({ palette: false, compressionLevel: 9 })
  .toFile(fileURLToPath(new URL('../../docs/pigments.png', import.meta.url)));

const table = pigments.map((p) => `| ${p.name} | ${p.colourIndex} | ${p.basis} | ${p.drying} | ${p.lightfastness} | ${p.caution} |`);
writeFileSync(
  new URL('../../docs/PIGMENTS.md', import.meta.url),
  `# The pigments

Written by \`npm run pigment-page\`. Every pigment of the catalogue as typical tube paint: masstone, tints in titanium white by volume, and a film of ${FILM_UM} µm over white (left half) and over black (right half). Colours beyond the screen are shown duller. N5 grey around them.

![Masstone, tints and films of every pigment](pigments.png)

Curves are derived from published features (absorption bands and edges, scattering, typical masstone and tint) in \`core/src/paint/pigments\`; \`npm run pigments\` derives them anew. They are typical, not anybody's tube. Cautions are reminders: the label and the safety data sheet decide.

| pigment | Colour Index | what its curves rest on | drying | lightfastness | caution |
| --- | --- | --- | --- | --- | --- |
${table.join('\n')}
`,
);
