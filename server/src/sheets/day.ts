import { heapTitle, show } from '@dusk/core';
import type { DayShown } from '@dusk/wire';
import { squeezedFor, valueOn, type Saying, type SheetMixture } from './contents.ts';
import { BODY, FITS, HEAD, SMALL, type Fit, type Flow } from './flow.ts';
import { due, type PileFound } from './gather.ts';
import { beadsInWords } from './kit.ts';
import { drawTitle } from './mixtures.ts';

interface OfDay {
  readonly piles: readonly PileFound[];
  /** What the tubes are called that go into piles later. */
  readonly names: ReadonlyMap<string, string>;
  readonly saying: Saying;
}

/** A recipe in a line, as this studio measures: `4 Titanium white, a touch of Ivory black`. */
const recipeLine = ({ heaps }: SheetMixture, { measure }: Saying): string =>
  heaps
    .map((heap, at) => {
      const line = heap.steps.map(({ told, name }) => `${told[measure]} ${name}`).join(', ');
      return heaps.length > 1 ? `${heapTitle(heaps, at)}: ${line}` : line;
    })
    .join('; ');

/** Piles of a day in rows, each whole: when, colour, value, name, where it goes, its recipe in a line. */
function drawRows(flow: Flow, day: DayShown, { piles, names, saying }: OfDay): void {
  const { paper, left, room, fit } = flow;
  const byId = new Map(piles.map((one) => [one.pile.id, one]));
  const side = fit.sideMm * 0.7;
  const x = left + side + 15 * paper.scale;
  const tallOf = (lines: readonly (readonly [string, typeof BODY])[]): number =>
    lines.reduce((sum, [text, type]) => sum + (text === '' ? 0 : paper.heightOf(text, left + room - x, type)), 0);
  const row = (when: string, found: PileFound, lines: readonly (readonly [string, typeof BODY])[]): void => {
    flow.need(Math.max(side, tallOf(lines)) + 2);
    paper.rule(left, flow.y, left + room, flow.y, 0.3);
    flow.gap(0.8);
    const top = flow.y;
    paper.line(when, left, top, HEAD);
    paper.field(left + 13 * paper.scale, top, side, side, show(found.mixture.lab).css);
    for (const [text, type] of lines) flow.text(text, type, x);
    flow.y = Math.max(flow.y, top + side) + 0.8;
  };
  for (const { id, startsAt } of day.steps) {
    const found = byId.get(id);
    if (!found) continue;
    const { mixture, pile } = found;
    const where = [pile.purpose.zone, pile.purpose.thing].filter(Boolean).join(' of ');
    row(`${Math.round(startsAt)}′`, found, [
      [`${valueOn(mixture.lab, saying)}  ${mixture.name}`, HEAD],
      [fit.brief ? '' : where, SMALL],
      [recipeLine(mixture, saying), BODY],
    ]);
  }
  if (day.later.length > 0) flow.text('Later, in one step:', HEAD);
  for (const { id, fromId, tubeId } of day.later) {
    const found = byId.get(id);
    const from = byId.get(fromId)?.mixture.name;
    if (!found || from === undefined) continue;
    row('', found, [
      [`${valueOn(found.mixture.lab, saying)}  ${found.mixture.name}`, HEAD],
      [`from ${from}, with ${names.get(tubeId) ?? 'a tube'}`, BODY],
    ]);
  }
  const left_ = day.leftIds.flatMap((id) => byId.get(id)?.mixture.name ?? []);
  if (left_.length > 0) flow.text(`No time for: ${left_.join(', ')}.`, BODY);
}

/** The smallest that is still read at arm’s length, for many piles. */
const SMALLEST: Fit = { scale: 0.74, beadMm: 3, sideMm: 9, brief: true };

/** A day as it is planned, on one page where that can be; no pile is split over two. */
export function drawDay(flow: Flow, title: string, day: DayShown, of: OfDay): Promise<void> {
  const isSmall = flow.paper.size === 'A6';
  const minutes = Math.round(day.minutes);
  const shown = new Set(day.steps.map(({ id }) => id));
  const squeezed = squeezedFor(of.piles.filter(({ pile }) => shown.has(pile.id)).map(({ mixture }) => mixture));
  return flow.fitted([...FITS[isSmall ? 'small' : 'many'], SMALLEST], () => {
    drawTitle(flow, `A day on ${title}`, [
      `${day.steps.length} ${day.steps.length === 1 ? 'pile' : 'piles'}, ${day.order}, about ${minutes} minutes`,
    ]);
    drawRows(flow, day, of);
    flow.gap(1);
    flow.text(`To squeeze out: ${squeezed.map(({ name, mm }) => `${name} ${beadsInWords(mm)}`).join('; ')}.`, SMALL);
    for (const caution of due(of.piles.filter(({ pile }) => shown.has(pile.id)))) flow.text(caution, SMALL);
  });
}
