import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { heapTitle, hexToLab, mlText, temperature, valueOfLightness, type Lab, type Outing } from '@dusk/core';
import type { EntityManager } from 'typeorm';
import { ProblemError } from '../refusing/problems.ts';
import { cautionsOf, inWords, RAGS, squeezedFor, valueOn } from './contents.ts';
import { pilesFound, sayingOf } from './gather.ts';
import { beadsInWords } from './kit.ts';
import { copiesOf, hungBy, madeSmall } from './pictures.ts';

/** Longest side of a picture that is taken out, px: a phone's screen, held close. */
const TAKEN_PX = 1600;
const MOST_PICTURES = 4;
/** Temperature at which a dab lies at the edge of the ledge. */
const WARMEST = 30;

const asAddress = async (bytes: Buffer): Promise<string> =>
  `data:image/jpeg;base64,${(await madeSmall(bytes, TAKEN_PX, 85)).toString('base64')}`;

/** Reads a painting as it is taken out. @returns what finishes it, when the studio's turn is over */
export async function outingOf(db: EntityManager, paintingId: string, at: string): Promise<() => Promise<Outing>> {
  const saying = await sayingOf(db);
  const { title, ground, piles } = await pilesFound(db, { sheet: 'painting', paper: 'A4', paintingId });
  const pictures = await copiesOf(db, (await hungBy(db, paintingId)).slice(0, MOST_PICTURES));
  const mixtures = piles.map(({ mixture }) => mixture);
  const warmthOf = (lab: Lab): number => Math.max(-1, Math.min(1, temperature(lab, saying.warmBlue) / WARMEST));
  const tubes = squeezedFor(mixtures.filter((_, i) => piles[i]!.pile.stages.length === 0));
  return async () => ({
    id: randomUUID(),
    paintingId,
    title,
    madeAt: at,
    ground: hexToLab(ground),
    pictures: await Promise.all(pictures.map(async ({ name, bytes }) => ({ name, src: await asAddress(bytes) }))),
    piles: piles.map(({ pile, mixture }) => ({
      id: pile.id,
      name: pile.name,
      value: valueOn(mixture.lab, saying),
      at: Math.max(0, Math.min(1, valueOfLightness(Math.max(0, mixture.lab[0])) / 10)),
      warmth: warmthOf(mixture.lab),
      words: [inWords(mixture.lab, saying), mixture.said[0]].filter(Boolean).join('; '),
      lab: mixture.lab,
      ...(mixture.target && { target: mixture.target }),
      note: pile.note,
      isMixed: pile.stages.length > 0,
      heaps: mixture.heaps.map((heap, i) => ({
        says: heapTitle(mixture.heaps, i),
        steps: heap.steps.map(({ told, name, beadMm, paint, caution }) => ({
          parts: told[saying.measure],
          name: caution === 'none' ? name : `${name} · ${caution}`,
          says: saying.measure === 'beads' ? told.parts : saying.measure === 'eye' ? '' : told.eye,
          mm: Number(beadMm.toFixed(1)),
          lab: paint,
        })),
      })),
    })),
    tubes: tubes.map(({ name, mm, ml }) => `${name}: ${beadsInWords(mm)} (${mlText(ml)})`),
    cautions: [...cautionsOf(tubes), RAGS],
  });
}

/** What stands in a script must not end it. */
const inScript = (text: string): string => text.replace(/<\/(script|style)/gi, '<\\/$1').replace(/<!--/g, '<\\!--');
const inData = (value: unknown): string => JSON.stringify(value).replace(/</g, '\\u003c');
const escaped = (text: string): string => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/**
 * One file that works alone: the outing, and the page that shows it.
 * @param pages folder of the built interface
 */
export function outingPage(outing: Outing, pages: string | undefined): string {
  let script: string;
  let style: string;
  try {
    [script, style] = [
      readFileSync(join(pages ?? '', 'outing', 'outing.js'), 'utf8'),
      readFileSync(join(pages ?? '', 'outing', 'outing.css'), 'utf8'),
    ];
  } catch {
    throw new ProblemError(
      503,
      'Not built',
      'The page to go out is made with the interface, which is not built here: run npm run build first.',
    );
  }
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(outing.title)}</title>
<style>${style.replace(/<\/style/gi, '<\\/style')}</style>
</head>
<body>
<div id="app"></div>
<script type="application/json" id="outing">${inData(outing)}</script>
<script>${inScript(script)}</script>
</body>
</html>
`;
}
