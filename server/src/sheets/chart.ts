import { masstoneOf, pairSteps, show, type Lab, type PaintCurves } from '@dusk/core';
import { valueOn, type Saying } from './contents.ts';
import { drawTitle } from './mixtures.ts';
import { BODY, SMALL, type Flow } from './flow.ts';
import { partsOnPaper } from './recipe.ts';

export interface ChartTube extends PaintCurves {
  readonly name: string;
}

const STEPS = 5;
const HIGH_MM = 9;

/** Every pair of a palette's tubes in steps that look even, each with room for the real dab beneath. */
export function drawChart(flow: Flow, title: string, tubes: readonly ChartTube[], saying: Saying): void {
  const { paper, left, room } = flow;
  drawTitle(flow, title, ['Every pair in steps that look even; lay the real dab beneath each.']);
  const wide = room / (STEPS + 2);
  const cell = (at: number, lab: Lab, over: string): void => {
    const x = left + at * wide;
    paper.line(over, x, flow.y, SMALL);
    const top = flow.y + paper.lineMm(SMALL);
    paper.field(x, top, wide, HIGH_MM, show(lab).css);
    paper.square(x, top + HIGH_MM, wide, HIGH_MM);
    paper.line(valueOn(lab, saying), x, top + 2 * HIGH_MM + 0.5, SMALL);
  };
  for (const [i, one] of tubes.entries())
    for (const other of tubes.slice(i + 1)) {
      flow.need(paper.lineMm(BODY) + 2 * HIGH_MM + 3 * paper.lineMm(SMALL) + 2);
      paper.line(one.name, left, flow.y, BODY);
      paper.line(other.name, left + room - paper.widthOf(other.name, BODY), flow.y, BODY);
      flow.gap(paper.lineMm(BODY));
      cell(0, masstoneOf(one), '');
      pairSteps(one, other, STEPS).forEach(({ parts, lab }, step) => cell(step + 1, lab, parts.map(partsOnPaper).join(' : ')));
      cell(STEPS + 1, masstoneOf(other), '');
      flow.gap(2 * HIGH_MM + 2 * paper.lineMm(SMALL) + 3);
    }
}
