import { heapTitle, mlText, mmText, partsText, show, type HeapSteps, type Step } from '@dusk/core';
import { BODY, PARTS, STRONG, type Flow } from './flow.ts';

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

/** A number stays with its unit. */
const held = (text: string): string => text.replace(/(\d) (mm|ml)/g, '$1\u00a0$2');
/** What parts take at the left of every step, as they are read; more where they are long. */
const PARTS_MM = 11;
/** Words beside their beads have at least this room, and stand in few lines. */
const LEAST_WORDS_MM = 30;
const MOST_LINES = 1.6;
const GAP_MM = 2.5;

/** Where a recipe's columns stand, mm from the left: the same for all its heaps, so that numbers and beads are under one another. */
interface Columns {
  readonly beads: number;
  /** Beside the longest bead; nothing where words stand above theirs. */
  readonly words: number | undefined;
}

function columnsOf(flow: Flow, heaps: readonly HeapSteps[]): Columns {
  const steps = heaps.flatMap((heap) => heap.steps);
  const { paper, room } = flow;
  const beads = Math.max(PARTS_MM * paper.scale, ...steps.map(({ told }) => paper.widthOf(told.parts, PARTS) + GAP_MM));
  const longest = Math.max(...steps.map(({ beadMm }) => beadMm));
  const words = beads + longest + GAP_MM;
  const left = room - words;
  const fits = left >= LEAST_WORDS_MM && steps.every((step) => paper.widthOf(wordsOf(step, ''), BODY) <= MOST_LINES * left);
  return { beads, words: fits ? words : undefined };
}

/** `Cadmium red · cadmium, 12 mm (0.3 ml)`. @param told what is said of a bead that is cut into rows */
function wordsOf({ name, caution, beadMm, ml, touches }: Step, told: string): string {
  const called = `${name}${caution === 'none' ? '' : ` · ${caution}`}`;
  // What the knife's tip takes up is no bead.
  return touches === undefined ? held(`${called}, ${mmText(beadMm)}${told} (${mlText(ml)})`) : held(`${called} (${mlText(ml)})`);
}

function drawBead(flow: Flow, step: Step, x: number, row: number, high: number): void {
  if (step.touches !== undefined) return;
  const { paper } = flow;
  paper.field(x, flow.y, row, high, show(step.paint).css);
  // A pale bead on white paper is told by its edge.
  paper.edge(x, flow.y, row, high);
}

function drawStep(flow: Flow, step: Step, columns: Columns): void {
  const { paper, left, room, fit } = flow;
  const x = left + columns.beads;
  const { rows, times } = beadRows(step.beadMm, room - columns.beads);
  const high = Math.min(step.nozzleMm, fit.beadMm);
  const told = times > 1 ? `, ${times} times the long row and the short one once` : rows.length > 1 ? ', row by row' : '';
  const words = wordsOf(step, told);
  const { parts } = step.told;
  const wordsAt = columns.words === undefined ? x : left + columns.words;
  const wide = left + room - wordsAt;
  const tall = Math.max(paper.lineMm(PARTS), paper.heightOf(words, wide, BODY));
  const below = columns.words === undefined ? rows.length * (high + 1) : 0;
  flow.need(Math.max(tall, columns.words === undefined ? 0 : high) + below + 0.6);
  const top = flow.y;
  paper.line(parts, x - GAP_MM - paper.widthOf(parts, PARTS), top, PARTS);
  paper.text(words, wordsAt, top + (paper.lineMm(PARTS) - paper.lineMm(BODY)) / 2, wide, BODY);
  if (columns.words !== undefined) {
    drawBead(flow, step, x, rows[0]!, high);
    flow.gap(Math.max(tall, high) + 0.6);
    return;
  }
  flow.gap(tall + 0.4);
  for (const row of rows) {
    drawBead(flow, step, x, row, high);
    flow.gap(high + 1);
  }
}

/** A recipe as beads to squeeze along: heap by heap, let-downs first, each in mixing order. */
export function drawRecipe(flow: Flow, heaps: readonly HeapSteps[]): void {
  const columns = columnsOf(flow, heaps);
  heaps.forEach((heap, at) => {
    const last = at === heaps.length - 1;
    const more = heap.batch > 1.05 ? ', more than is needed' : '';
    if (heaps.length > 1) flow.text(held(`${heapTitle(heaps, at)}${last ? '' : more}:`), STRONG);
    for (const step of heap.steps) drawStep(flow, step, columns);
    if (!last) flow.gap(1);
  });
}
