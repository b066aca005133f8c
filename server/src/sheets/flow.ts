import type { PaperSize } from '@dusk/wire';
import { Paper, type Type } from './paper.ts';

export const TITLE: Type = { size: 17, weight: 'bold' };
export const VALUE: Type = { size: 26, weight: 'bold' };
export const HEAD: Type = { size: 12, weight: 'bold' };
export const BODY: Type = { size: 10.5 };
export const STRONG: Type = { size: 10.5, weight: 'bold' };
export const SMALL: Type = { size: 8.5 };
const QUIET = '#444444';

/** The line that a ruler is laid along. */
export const CHECK_MM = 100;
const EDGE_MM = 7;
/** What the check line takes of the width. */
const CHECK_STRIP_MM = 9;

/** Below this share of a page nothing new begins. */
const DEEP = 0.62;

/** Lets whoever else asks the server be answered: between two mixtures of a long sheet. */
export const othersTurn = (): Promise<void> => new Promise((turn) => setImmediate(turn));

/** Sheets that are filled from above; what has no room any more begins the next. */
export class Flow {
  readonly paper: Paper;
  readonly left = EDGE_MM;
  /** Width that can be drawn on, mm: the check line stands beside it. */
  readonly room: number;
  y = 0;
  private page = 0;

  /** @param title stands on every page after the first, small */
  constructor(
    size: PaperSize,
    private readonly title: string,
  ) {
    this.paper = new Paper(size, title);
    this.room = this.paper.widthMm - 2 * EDGE_MM - CHECK_STRIP_MM;
    this.turn();
  }

  private get bottom(): number {
    return this.paper.heightMm - EDGE_MM - 2 * this.paper.lineMm(SMALL);
  }

  turn(): void {
    this.paper.turn();
    this.page++;
    this.y = EDGE_MM;
    this.checkLine();
    const foot = 'Print at its true size (100 %). The line at the right is 100 mm long: lay a ruler along it.';
    const y = this.paper.heightMm - EDGE_MM - this.paper.lineMm(SMALL);
    this.paper.line(foot, this.left, y, { ...SMALL, size: Math.min(8.5, (8.5 * this.room) / this.paper.widthOf(foot, SMALL)), ink: QUIET });
    if (this.page > 1) {
      this.paper.line(`${this.title}, ${this.page}`, this.left, this.y, SMALL);
      this.y += this.paper.lineMm(SMALL) + 2;
    }
  }

  private checkLine(): void {
    const x = this.paper.widthMm - EDGE_MM - 2;
    const [top, bottom] = [EDGE_MM + 4, EDGE_MM + 4 + CHECK_MM];
    this.paper.rule(x, top, x, bottom, 0.6, '#000000');
    for (let mm = 0; mm <= CHECK_MM; mm += 10) {
      const long = mm % 50 === 0 ? 3 : 1.5;
      this.paper.rule(x - long, top + mm, x, top + mm, 0.4, '#000000');
    }
    this.paper.line('100 mm', x - this.paper.widthOf('100 mm', SMALL) + 2, top - this.paper.lineMm(SMALL) - 0.5, SMALL);
  }

  /** Sees that so much has room on this page. */
  need(heightMm: number): void {
    if (this.y + heightMm > this.bottom && this.y > EDGE_MM + 12) this.turn();
  }

  /** Writes text in lines, from page to page where it is long. */
  text(text: string, type: Type, x = this.left, width = this.room - (x - this.left)): void {
    if (text === '') return;
    for (const line of this.paper.lines(text, width, type)) {
      this.need(this.paper.lineMm(type));
      this.paper.line(line, x, this.y, type);
      this.y += this.paper.lineMm(type);
    }
  }

  /** A line between two that share a page; where the next would have little room it begins another. */
  divide(): void {
    this.gap(5);
    if (this.y > this.bottom * DEEP) return this.turn();
    this.paper.rule(this.left, this.y, this.left + this.room, this.y, 0.4);
    this.gap(4);
  }

  gap(mm: number): void {
    this.y += mm;
  }

  bytes(): Promise<Buffer> {
    return this.paper.bytes();
  }
}
