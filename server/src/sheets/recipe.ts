import { heapTitle, mlText, mmText, partsText, show, type HeapSteps, type Step } from '@dusk/core';
import { BODY, STRONG, type Flow } from './flow.ts';

/** Rows of a bead that are drawn before it is told by how many times it is laid. */
const MOST_ROWS = 5;

/** A bead too long for its sheet, cut into rows that are as long together; or one row and how many times it is laid. */
export interface BeadRows {
  readonly rows: readonly number[];
  /** The first row so many times, the last once; 1 where every row is drawn. */
  readonly times: number;
}

/** @param room mm that a row may be long */
export function beadRows(mm: number, room: number): BeadRows {
  const full = Math.floor(mm / room + 1e-9);
  const rest = mm - full * room;
  const last = rest > 0.05 || full === 0 ? [rest] : [];
  if (full + last.length <= MOST_ROWS) return { rows: [...Array.from({ length: full }, () => room), ...last], times: 1 };
  return { rows: [room, ...last], times: full };
}

/** Fractions the face on paper does not have. */
const WRITTEN: Readonly<Record<string, string>> = { '⅛': '1/8', '⅙': '1/6', '⅓': '1/3', '⅔': '2/3' };
/** Parts in letters that the face has: `2 1/3`. */
export const partsOnPaper = (parts: number): string =>
  partsText(parts).replace(/[⅛⅙⅓⅔]/u, (sign, at: number) => (at > 0 ? ' ' : '') + WRITTEN[sign]!);

/** Beads are drawn as wide as their mouth, on small paper narrower: their length is the measure. */
const WIDEST_MM = { A4: 9, Letter: 9, A6: 5 } as const;
/** A number stays with its unit. */
const held = (text: string): string => text.replace(/(\d) (mm|ml)/g, '$1\u00a0$2');
const PARTS_MM = 13;

/** Beads up to this share of the width have their words beside them. */
const BESIDE = 0.45;

function drawBead(flow: Flow, step: Step, row: number, high: number): void {
  const { paper, left } = flow;
  paper.field(left, flow.y, row, high, show(step.paint).css);
  // A pale bead on white paper is told by its edge.
  paper.edge(left, flow.y, row, high);
}

function drawStep(flow: Flow, step: Step, beside: number | undefined): void {
  const { paper, left, room } = flow;
  const { rows, times } = beadRows(step.beadMm, room);
  const high = Math.min(step.nozzleMm, WIDEST_MM[paper.size]);
  const caution = step.caution === 'none' ? '' : ` · ${step.caution}`;
  const told = times > 1 ? `, ${times} times the long row and the short one once` : rows.length > 1 ? ', row by row' : '';
  const words = held(`${step.name}${caution}, ${mmText(step.beadMm)}${told} (${mlText(step.ml)})`);
  const parts = partsOnPaper(step.parts);
  if (beside !== undefined) {
    const x = left + beside + 2.5;
    const x2 = x + Math.max(PARTS_MM - 4, paper.widthOf(parts, STRONG) + 2);
    const tall = Math.max(high, paper.heightOf(words, left + room - x2, BODY));
    flow.need(tall + 1);
    const top = flow.y;
    drawBead(flow, step, rows[0]!, high);
    paper.line(parts, x, top, STRONG);
    paper.text(words, x2, top, left + room - x2, BODY);
    flow.gap(tall + 1);
    return;
  }
  flow.need(paper.lineMm(BODY) + rows.length * (high + 1) + 1);
  paper.line(parts, left, flow.y, STRONG);
  flow.text(words, BODY, left + PARTS_MM);
  flow.gap(0.5);
  for (const row of rows) {
    drawBead(flow, step, row, high);
    flow.gap(high + 1);
  }
  flow.gap(0.5);
}

/** A recipe as beads to squeeze along: heap by heap, let-downs first, each in mixing order. */
export function drawRecipe(flow: Flow, heaps: readonly HeapSteps[]): void {
  heaps.forEach((heap, at) => {
    const last = at === heaps.length - 1;
    flow.need(24);
    const more = heap.batch > 1.05 ? ', more than is needed' : '';
    if (heaps.length > 1) flow.text(held(`${heapTitle(heaps, at)}${last ? '' : more}:`), STRONG);
    const short = heap.steps.map(({ beadMm }) => beadMm).filter((mm) => mm <= BESIDE * flow.room);
    const longest = Math.max(...short);
    for (const step of heap.steps) drawStep(flow, step, step.beadMm <= BESIDE * flow.room ? longest : undefined);
    if (!last) flow.gap(1.5);
  });
}
