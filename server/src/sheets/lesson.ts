import { show } from '@dusk/core';
import { cautionsOf, inWords, RAGS, valueOn, type Saying, type SheetMixture } from './contents.ts';
import { BODY, HEAD, othersTurn, SMALL, STRONG, type Flow } from './flow.ts';
import { drawLayers, type AreaOnPaper } from './drying.ts';
import { drawTitle } from './mixtures.ts';

/** The same colour from a reader's own tubes. */
export interface FromOwn {
  readonly lines: readonly string[];
  /** What the reader will see otherwise: `0.2 darker, slightly cooler`; empty where it is a match. */
  readonly differs: string;
}

export interface LessonPile {
  readonly mixture: SheetMixture;
  /** What was done to it, as `mixed`, `added to`, in words. */
  readonly stages: readonly string[];
  readonly own?: FromOwn | undefined;
}

const PICTURE_MM = 70;

/** A few pages for readers who have other tubes: pictures, then each pile with a column for theirs. */
export async function drawLesson(
  flow: Flow,
  title: string,
  said: readonly string[],
  pictures: readonly Buffer[],
  piles: readonly LessonPile[],
  saying: Saying,
  ownTitle: string,
  areas: readonly AreaOnPaper[],
): Promise<void> {
  const { paper, left, room } = flow;
  drawTitle(flow, title, said);
  const wide = pictures.length > 1 ? room / 2 - 2 : room;
  pictures.forEach((bytes, i) => {
    if (i % 2 === 0) flow.need(PICTURE_MM + 3);
    paper.picture(bytes, left + (i % 2) * (wide + 4), flow.y, wide, PICTURE_MM);
    if (i % 2 === 1 || i === pictures.length - 1) flow.gap(PICTURE_MM + 3);
  });
  for (const [i, pile] of piles.entries()) {
    drawPile(flow, i + 1, pile, saying, ownTitle);
    await othersTurn();
  }
  drawLayers(flow, areas);
  const steps = piles.flatMap(({ mixture }) => mixture.heaps.flatMap((heap) => heap.steps));
  for (const caution of [...cautionsOf(steps), RAGS]) flow.text(caution, SMALL);
}

const SIDE_MM = 16;
/** Paper on which patch, recipe and the reader's own stand beside one another. */
const WIDE_MM = 150;
const GAP_MM = 4;
/** The recipe's share of the width beside its patch. */
const RECIPE_SHARE = 0.58;
/** Room for what a reader writes: so many lines, so far apart. */
const LINES = 3;
const LINE_MM = 7;

/** A pile: its patch and an empty one for a dab, its recipe, and what it is from the reader's own tubes; in one row where the paper is wide. */
function drawPile(flow: Flow, number: number, { mixture, stages, own }: LessonPile, saying: Saying, ownTitle: string): void {
  const { paper, left, room } = flow;
  const isWide = room >= WIDE_MM;
  const beside = left + 2 * SIDE_MM + GAP_MM;
  const width = isWide ? RECIPE_SHARE * (room - 2 * SIDE_MM - 2 * GAP_MM) : room / 2 - GAP_MM / 2;
  flow.need(isWide ? Math.max(3 + LINES * LINE_MM, 14 + 5 * (2 * mixture.heaps.length + stages.length)) : 52);
  paper.rule(left, flow.y, left + room, flow.y);
  flow.gap(1.5);
  const top = flow.y;
  paper.field(left, top, SIDE_MM, SIDE_MM, show(mixture.lab).css);
  paper.square(left + SIDE_MM, top, SIDE_MM, SIDE_MM);
  const headWidth = isWide ? width : undefined;
  flow.text(`${number}. ${valueOn(mixture.lab, saying)}  ${mixture.name}`, HEAD, beside, headWidth);
  flow.text(inWords(mixture.lab, saying), isWide ? SMALL : BODY, beside, headWidth);
  for (const line of stages) flow.text(line, SMALL, beside, headWidth);
  if (!isWide) flow.y = Math.max(flow.y, top + SIDE_MM) + 1.5;
  const from = isWide ? top : flow.y;
  const x = isWide ? beside : left;
  if (!isWide) flow.text('Mixed from', SMALL, x, width);
  for (const [at, heap] of mixture.heaps.entries()) {
    const last = at === mixture.heaps.length - 1;
    if (mixture.heaps.length > 1) flow.text(last ? 'Then:' : `First ${heap.name}:`, SMALL, x, width);
    const said = heap.steps.map(({ name, told }) => `${told[saying.measure]} ${name}`);
    for (const line of isWide ? [said.join(', ')] : said) flow.text(line, last ? STRONG : BODY, x, width);
  }
  flow.text(mixture.note, SMALL, x, width);
  const end = Math.max(flow.y, top + SIDE_MM);
  flow.y = from;
  const ownX = x + width + GAP_MM;
  flow.text(ownTitle, SMALL, ownX);
  if (own) {
    for (const line of own.lines) flow.text(line, BODY, ownX);
    flow.text(own.differs, SMALL, ownX);
  } else
    for (let line = 0; line < LINES; line++) {
      flow.gap(LINE_MM);
      paper.rule(ownX, flow.y, left + room, flow.y, 0.4);
    }
  flow.y = Math.max(flow.y, end) + 2;
}
