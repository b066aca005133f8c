import { show } from '@dusk/core';
import { cautionsOf, inWords, RAGS, valueOn, type Saying, type SheetMixture } from './contents.ts';
import { BODY, HEAD, othersTurn, SMALL, STRONG, type Flow } from './flow.ts';
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
): Promise<void> {
  const { paper, left, room } = flow;
  drawTitle(flow, title, said);
  const wide = pictures.length > 1 ? room / 2 - 2 : room;
  pictures.forEach((bytes, i) => {
    if (i % 2 === 0) flow.need(PICTURE_MM + 3);
    paper.picture(bytes, left + (i % 2) * (wide + 4), flow.y, wide, PICTURE_MM);
    if (i % 2 === 1 || i === pictures.length - 1) flow.gap(PICTURE_MM + 3);
  });
  const half = room / 2 - 2;
  for (const [i, { mixture, stages, own }] of piles.entries()) {
    const side = 16;
    flow.need(52);
    paper.rule(left, flow.y, left + room, flow.y);
    flow.gap(1.5);
    paper.field(left, flow.y, side, side, show(mixture.lab).css);
    paper.square(left + side, flow.y, side, side);
    const top = flow.y;
    flow.text(`${i + 1}. ${valueOn(mixture.lab, saying)}  ${mixture.name}`, HEAD, left + 2 * side + 3);
    flow.text(inWords(mixture.lab, saying), BODY, left + 2 * side + 3);
    for (const line of stages) flow.text(line, SMALL, left + 2 * side + 3);
    flow.y = Math.max(flow.y, top + side) + 1.5;
    const from = flow.y;
    flow.text('Mixed from', SMALL, left, half);
    for (const [at, heap] of mixture.heaps.entries()) {
      const last = at === mixture.heaps.length - 1;
      if (mixture.heaps.length > 1) flow.text(last ? 'Then:' : `First ${heap.name}:`, SMALL, left, half);
      for (const { name, told } of heap.steps) flow.text(`${told[saying.measure]}  ${name}`, last ? STRONG : BODY, left, half);
    }
    flow.text(mixture.note, SMALL, left, half);
    const end = flow.y;
    flow.y = from;
    const x = left + half + 4;
    flow.text(ownTitle, SMALL, x);
    if (own) {
      for (const line of own.lines) flow.text(line, BODY, x);
      flow.text(own.differs, SMALL, x);
    } else
      for (let line = 0; line < 4; line++) {
        flow.gap(7);
        paper.rule(x, flow.y, left + room, flow.y, 0.4);
      }
    flow.y = Math.max(flow.y, end) + 3;
    await othersTurn();
  }
  const steps = piles.flatMap(({ mixture }) => mixture.heaps.flatMap((heap) => heap.steps));
  for (const caution of [...cautionsOf(steps), RAGS]) flow.text(caution, SMALL);
}
