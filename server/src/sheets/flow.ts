import type { PaperSize } from '@dusk/wire';
import { Paper, type Type } from './paper.ts';

export const TITLE: Type = { size: 17, weight: 'bold' };
export const VALUE: Type = { size: 30, weight: 'bold' };
/** Parts, read while the tube is squeezed. */
export const PARTS: Type = { size: 15, weight: 'bold' };
export const HEAD: Type = { size: 13.5, weight: 'bold' };
export const BODY: Type = { size: 10.5 };
export const STRONG: Type = { size: 10.5, weight: 'bold' };
export const SMALL: Type = { size: 8.5 };
const QUIET = '#444444';

/** The line that a ruler is laid along. */
export const CHECK_MM = 100;
const EDGE_MM = 7;
/** What the check line takes of the width. */
const CHECK_STRIP_MM = 9;

/** Sizes that are tried so that what belongs together stands on one page: the largest that does. */
export interface Fit {
  /** Of all type. */
  readonly scale: number;
  /** How high a bead is drawn at most, mm. */
  readonly beadMm: number;
  /** Side of a colour, mm. */
  readonly sideMm: number;
  /** Whether what is not read at the easel is left out. */
  readonly brief: boolean;
}
const fit = (scale: number, beadMm: number, sideMm: number, brief = false): Fit => ({ scale, beadMm, sideMm, brief });
/** From the largest to the smallest, by paper: one mixture alone on it, and many. */
export const FITS: Readonly<Record<'alone' | 'many' | 'small', readonly Fit[]>> = {
  alone: [fit(1.9, 9, 44), fit(1.6, 9, 36), fit(1.35, 9, 30), fit(1.15, 9, 24), fit(1, 8, 20), fit(0.9, 6, 16)],
  many: [fit(1.25, 9, 20), fit(1.12, 7, 17), fit(1, 5.5, 14), fit(0.92, 4.5, 12), fit(0.92, 4.5, 12, true)],
  small: [fit(1, 5, 13), fit(0.92, 4.5, 12), fit(0.85, 4, 10), fit(0.85, 4, 10, true), fit(0.78, 3.5, 9, true)],
};

/** Lets whoever else asks the server be answered: between two mixtures of a long sheet. */
export const othersTurn = (): Promise<void> => new Promise((turn) => setImmediate(turn));

/** Sheets that are filled from above; what has no room any more begins the next. */
export class Flow {
  readonly paper: Paper;
  readonly left = EDGE_MM;
  /** Width that can be drawn on, mm: the check line stands beside it. */
  readonly room: number;
  y = 0;
  /** What is being drawn: a page that it goes on to begins with its name. */
  of = '';
  fit: Fit;
  private page = 0;

  /** @param title stands on every page after the first, small */
  constructor(
    size: PaperSize,
    private readonly title: string,
    profile: Buffer,
  ) {
    this.paper = new Paper(size, title, profile);
    this.fit = FITS[size === 'A6' ? 'small' : 'many'][0]!;
    this.paper.scale = this.fit.scale;
    this.room = this.paper.widthMm - 2 * EDGE_MM - CHECK_STRIP_MM;
    this.turn();
  }

  /** Whether nothing stands on this page yet. */
  get isFresh(): boolean {
    return this.y <= EDGE_MM + 12;
  }

  /** Draws nothing and tells how many pages it would go on to, and how far down it would end. */
  async trial(draw: () => Promise<void> | void): Promise<{ readonly pages: number; readonly y: number }> {
    const { y, page, of } = this;
    const { isTrial } = this.paper;
    this.paper.isTrial = true;
    try {
      await draw();
      return { pages: this.page - page, y: this.y };
    } finally {
      this.paper.isTrial = isTrial;
      Object.assign(this, { y, page, of });
    }
  }

  /** Draws at the largest size at which all stands on this page; at the smallest where none does. */
  async fitted(fits: readonly Fit[], draw: () => Promise<void> | void): Promise<void> {
    let chosen = fits.at(-1)!;
    for (const one of fits) {
      this.take(one);
      if ((await this.trial(draw)).pages > 0) continue;
      chosen = one;
      break;
    }
    this.take(chosen);
    await draw();
  }
  take(one: Fit): void {
    this.fit = one;
    this.paper.scale = one.scale;
  }

  /** Draws what belongs together on one page: on the next where this one has no room for it. */
  async together(draw: () => Promise<void> | void): Promise<void> {
    if (!this.isFresh && (await this.trial(draw)).pages > 0) this.turn();
    await draw();
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
    const fits = Math.min(SMALL.size, (SMALL.size * this.room) / this.paper.widthOf(foot, SMALL));
    this.paper.line(foot, this.left, y, { ...SMALL, size: fits, ink: QUIET });
    if (this.page > 1) {
      this.paper.line(this.cut(`${this.title}, ${this.page}`, SMALL), this.left, this.y, SMALL);
      this.y += this.paper.lineMm(SMALL) + 2;
      if (this.of !== '') {
        this.paper.line(this.cut(`${this.of}, continued`, HEAD), this.left, this.y, HEAD);
        this.y += this.paper.lineMm(HEAD) + 1;
      }
    }
  }

  /** What of a line has room. */
  private cut(text: string, type: Type): string {
    return this.paper.lines(text, this.room, type)[0] ?? '';
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
    if (this.y + heightMm > this.bottom && !this.isFresh) this.turn();
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

  /** A line between two that share a page. */
  divide(): void {
    this.gap(3);
    this.paper.rule(this.left, this.y, this.left + this.room, this.y, 0.4);
    this.gap(3);
  }

  gap(mm: number): void {
    this.y += mm;
  }

  bytes(): Promise<Buffer> {
    return this.paper.bytes();
  }
}
