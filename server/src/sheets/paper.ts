import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { PaperSize } from '@dusk/wire';
import type * as Fontkit from 'fontkit';
import type PdfDocument from 'pdfkit';
import sharp from 'sharp';
import { unpacked } from './sfnt.ts';

/** Points in a millimetre. */
const MM = 72 / 25.4;
export const PAPERS: Readonly<Record<PaperSize, readonly [widthMm: number, heightMm: number]>> = {
  A4: [210, 297],
  Letter: [215.9, 279.4],
  A6: [105, 148],
};

/** What draws letters takes a while to be read: it is read with the first sheet, not with the program. */
const require = createRequire(import.meta.url);
const fontkit = () => require('fontkit') as typeof Fontkit;
const pdfkit = () => require('pdfkit') as typeof PdfDocument;

/** The letters of the face lie in files by script, and those of Han and kana in another face: the first that has a letter draws it. */
const SCRIPTS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'cyrillic-ext', 'greek-ext', 'vietnamese', 'han'] as const;
type Script = (typeof SCRIPTS)[number];
const fileOf = (script: Script): string =>
  script === 'han'
    ? '@fontsource/noto-sans-sc/files/noto-sans-sc-chinese-simplified'
    : `@fontsource/alegreya-sans/files/alegreya-sans-${script}`;
const WEIGHTS = { plain: 400, bold: 700 } as const;
export type Weight = keyof typeof WEIGHTS;

interface Face {
  readonly bytes: Buffer;
  readonly has: (point: number) => boolean;
}
const faces = new Map<string, Face>();
function faceOf(script: Script, weight: Weight): Face {
  const name = `${script} ${weight}`;
  const known = faces.get(name);
  if (known) return known;
  const bytes = unpacked(readFileSync(require.resolve(`${fileOf(script)}-${WEIGHTS[weight]}-normal.woff`)));
  const font = fontkit().create(bytes) as Fontkit.Font;
  const face = { bytes, has: (point: number) => font.hasGlyphForCodePoint(point) };
  faces.set(name, face);
  return face;
}
const scriptOf = (letter: string, weight: Weight): Script | undefined =>
  SCRIPTS.find((script) => faceOf(script, weight).has(letter.codePointAt(0)!));

/** What stands for a letter that no file of the face has. */
const UNKNOWN = '?';
/** What leaves no mark is no letter that is missing. */
const NO_MARK = /[\s\p{Cf}\p{Cc}\p{M}]/u;
/** Whether some letters of a text cannot be printed: that is to be said. */
export const lacksLetters = (text: string): boolean =>
  [...text].some((letter) => !NO_MARK.test(letter) && scriptOf(letter, 'plain') === undefined);

/** Colours on paper are those of sRGB, and say so. */
let sRgb: Promise<Buffer> | undefined;
export const sRgbProfile = (): Promise<Buffer> =>
  (sRgb ??= sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } })
    .withIccProfile('srgb')
    .png()
    .toBuffer()
    .then(async (png) => (await sharp(png).metadata()).icc!));

export interface Type {
  /** Points. */
  readonly size: number;
  readonly weight?: Weight;
  /** `#rrggbb`. */
  readonly ink?: string;
}

const LINE = 1.25;
/** Figures that stand in columns, all of one height. */
const FIGURES: PDFKit.Mixins.TextOptions = { features: ['lnum', 'tnum', 'kern', 'liga'], lineBreak: false };

/** Paper that is drawn on in millimetres from its upper left corner; its faces travel with it. */
export class Paper {
  readonly pdf: PDFKit.PDFDocument;
  readonly widthMm: number;
  readonly heightMm: number;
  private readonly registered = new Set<string>();
  /** What every size of type is multiplied with: large paper is read from further off. */
  scale = 1;
  /** While it is only tried how much room something takes, nothing is drawn. */
  isTrial = false;
  private readonly space: PDFKit.PDFKitReference;

  /** @param profile of the space that colours are given in */
  constructor(
    readonly size: PaperSize,
    title: string,
    profile: Buffer,
  ) {
    [this.widthMm, this.heightMm] = PAPERS[size];
    const PDFDocument = pdfkit();
    this.pdf = new PDFDocument({
      size: [this.widthMm * MM, this.heightMm * MM],
      margin: 0,
      autoFirstPage: false,
      info: { Title: title, Creator: 'Auburn Dusk', Producer: 'Auburn Dusk' },
      font: faceOf('latin', 'plain').bytes as unknown as string,
    });
    // What a viewer prints is not to be fitted to the page: lengths are true. The library ends what stands here.
    (this.pdf as unknown as { _root: { data: Record<string, unknown> } })._root.data['ViewerPreferences'] = this.pdf.ref({
      PrintScaling: 'None',
      DisplayDocTitle: true,
    });
    const icc = this.pdf.ref({ N: 3, Alternate: 'DeviceRGB' });
    icc.end(profile);
    this.space = this.pdf.ref(['ICCBased', icc] as unknown as Record<string, unknown>);
    this.space.end('');
  }

  turn(): void {
    if (this.isTrial) return;
    this.pdf.addPage();
    // Colours without a space of their own are of this one (ISO 32000, 8.6.5.6).
    const { resources } = this.pdf.page as unknown as { resources: { data: Record<string, unknown> } };
    resources.data['ColorSpace'] = { ...(resources.data['ColorSpace'] as object), DefaultRGB: this.space };
  }

  private face(script: Script, weight: Weight): void {
    const name = `${script} ${weight}`;
    if (!this.registered.has(name)) {
      this.pdf.registerFont(name, faceOf(script, weight).bytes as unknown as string);
      this.registered.add(name);
    }
    this.pdf.font(name);
  }

  /** A line in runs, each of one file of the face. */
  private runs(text: string, weight: Weight): { readonly script: Script; text: string }[] {
    const runs: { readonly script: Script; text: string }[] = [];
    for (const letter of text) {
      const last = runs.at(-1);
      // A space or a stop goes with what is before it.
      const stays = last && /[\s.,;:]/.test(letter) && faceOf(last.script, weight).has(letter.codePointAt(0)!);
      const script = stays ? last.script : scriptOf(letter, weight);
      const drawn = script ? letter : UNKNOWN;
      if (last && last.script === (script ?? 'latin')) last.text += drawn;
      else runs.push({ script: script ?? 'latin', text: drawn });
    }
    return runs;
  }

  private readonly widths = new Map<string, number>();
  /** How wide a run is, points; each is measured once. */
  private widthOfRun(text: string, script: Script, weight: Weight, size: number): number {
    const key = `${script} ${weight} ${size} ${text}`;
    let width = this.widths.get(key);
    if (width === undefined) {
      this.face(script, weight);
      width = this.pdf.fontSize(size).widthOfString(text, FIGURES);
      this.widths.set(key, width);
    }
    return width;
  }

  /** How wide a line is, mm. */
  widthOf(text: string, { size, weight = 'plain' }: Type): number {
    return this.runs(text, weight).reduce((sum, run) => sum + this.widthOfRun(run.text, run.script, weight, size * this.scale), 0) / MM;
  }

  /** Text in lines no wider than so many mm; a word that is longer is broken. */
  lines(text: string, widthMm: number, type: Type): string[] {
    const lines: string[] = [];
    for (const paragraph of text.split('\n')) {
      let line = '';
      let wide = 0;
      const space = this.widthOf(' ', type);
      for (const word of paragraph.split(/[ \t]+/).filter(Boolean)) {
        const own = this.widthOf(word, type);
        if (line !== '' && wide + space + own <= widthMm) {
          line += ` ${word}`;
          wide += space + own;
          continue;
        }
        if (line !== '') lines.push(line);
        [line, wide] = [word, own];
        while (this.widthOf(line, type) > widthMm && line.length > 1) {
          let fits = line.length - 1;
          while (fits > 1 && this.widthOf(line.slice(0, fits), type) > widthMm) fits--;
          lines.push(line.slice(0, fits));
          line = line.slice(fits);
          wide = this.widthOf(line, type);
        }
      }
      lines.push(line);
    }
    return lines;
  }

  /** How high lines are, mm. */
  lineMm = ({ size }: Type): number => (size * this.scale * LINE) / MM;

  /** Draws one line, its upper left corner at (x, y). */
  line(text: string, x: number, y: number, type: Type): void {
    if (this.isTrial) return;
    const { weight = 'plain', ink = '#1d1a18' } = type;
    const size = type.size * this.scale;
    let at = x;
    for (const run of this.runs(text, weight)) {
      this.face(run.script, weight);
      this.pdf
        .fontSize(size)
        .fillColor(ink)
        .text(run.text, at * MM, y * MM, FIGURES);
      at += this.widthOfRun(run.text, run.script, weight, size) / MM;
    }
  }

  /** Draws text in lines. @returns where the next line would begin, mm */
  text(text: string, x: number, y: number, widthMm: number, type: Type): number {
    let at = y;
    for (const line of this.lines(text, widthMm, type)) {
      this.line(line, x, at, type);
      at += this.lineMm(type);
    }
    return at;
  }

  /** How high text would stand, mm. */
  heightOf(text: string, widthMm: number, type: Type): number {
    return text === '' ? 0 : this.lines(text, widthMm, type).length * this.lineMm(type);
  }

  /** A field of one colour: nothing around it. */
  field(x: number, y: number, width: number, height: number, colour: string): void {
    if (this.isTrial) return;
    this.pdf.rect(x * MM, y * MM, width * MM, height * MM).fill(colour);
  }

  /** A hair around a field, so that a pale one is seen on white paper: half of it lies within. */
  edge(x: number, y: number, width: number, height: number): void {
    if (this.isTrial) return;
    this.pdf
      .lineWidth(0.2)
      .strokeColor('#777777')
      .rect(x * MM, y * MM, width * MM, height * MM)
      .stroke();
  }

  /** An outline where paint is to go. */
  square(x: number, y: number, width: number, height: number): void {
    if (this.isTrial) return;
    this.pdf
      .lineWidth(0.5)
      .dash(2, { space: 2 })
      .strokeColor('#777777')
      .rect(x * MM, y * MM, width * MM, height * MM)
      .stroke()
      .undash();
  }

  rule(x1: number, y1: number, x2: number, y2: number, points = 0.5, ink = '#777777'): void {
    if (this.isTrial) return;
    this.pdf
      .lineWidth(points)
      .strokeColor(ink)
      .moveTo(x1 * MM, y1 * MM)
      .lineTo(x2 * MM, y2 * MM)
      .stroke();
  }

  picture(bytes: Buffer, x: number, y: number, width: number, height: number): void {
    if (this.isTrial) return;
    this.pdf.image(bytes, x * MM, y * MM, { fit: [width * MM, height * MM] });
  }

  /** The whole as a file. */
  bytes(): Promise<Buffer> {
    const parts: Buffer[] = [];
    return new Promise((done, failed) => {
      this.pdf.on('data', (part: Buffer) => parts.push(part));
      this.pdf.on('end', () => done(Buffer.concat(parts)));
      this.pdf.on('error', failed);
      this.pdf.end();
    });
  }
}
