import { mlText, mmText, SHORTEST_BEAD_MM, show } from '@dusk/core';
import { cautionsOf, RAGS, squeezedFor, valueOn, type Saying, type SheetMixture } from './contents.ts';
import { BODY, HEAD, SMALL, STRONG, type Flow } from './flow.ts';
import { drawStrip, drawTitle } from './mixtures.ts';

/** Beads of this length are counted: they are drawn once, to be held against. */
const BEAD_MM = 40;

/** `3 beads and 12 mm`; what is less than a hand squeezes is taken with the knife's tip. */
export function beadsInWords(mm: number): string {
  if (mm < SHORTEST_BEAD_MM) return 'a touch';
  const whole = Math.floor((mm + 0.5) / BEAD_MM);
  const rest = Math.max(0, mm - whole * BEAD_MM);
  const beads = whole === 0 ? '' : `${whole} ${whole === 1 ? 'bead' : 'beads'}`;
  return rest < 1 && beads ? beads : [beads, `${Math.round(rest)} mm`].filter(Boolean).join(' and ');
}

/** What to take along, on one page: tubes, how many beads of each, and the piles they are for. */
export function drawKit(flow: Flow, title: string, mixtures: readonly SheetMixture[], saying: Saying): void {
  const { paper, left, room } = flow;
  const tubes = squeezedFor(mixtures);
  drawTitle(flow, title, [
    `${tubes.length} tubes for ${mixtures.length} ${mixtures.length === 1 ? 'pile' : 'piles'}. A bead is ${BEAD_MM} mm, as long as this:`,
  ]);
  paper.field(left, flow.y, BEAD_MM, 5, '#777777');
  flow.gap(8);
  for (const tube of tubes) {
    flow.need(8);
    paper.field(left, flow.y, 10, 6, show(tube.colour).css);
    paper.rule(left, flow.y + 6, left + 10, flow.y + 6, 0.15);
    paper.line(tube.name, left + 13, flow.y, STRONG);
    const says = `${beadsInWords(tube.mm)} from a mouth of ${mmText(tube.nozzleMm)} (${mlText(tube.ml)})`;
    paper.line(says, left + room - paper.widthOf(says, BODY), flow.y, BODY);
    flow.gap(7.5);
  }
  flow.gap(3);
  drawStrip(flow, mixtures, saying, 12);
  flow.text('For', HEAD);
  for (const mixture of mixtures) flow.text(`${valueOn(mixture.lab, saying)}  ${mixture.name}, ${mlText(mixture.ml)}`, BODY);
  flow.gap(2);
  flow.text('Besides: white, knives, rags, a lidded can, medium, something for the reference.', SMALL);
  for (const caution of [...cautionsOf(tubes), RAGS]) flow.text(caution, SMALL);
}
