import type { Lab, LinearRgb } from '../colour/spaces.ts';
import { eachPixel, type Outline } from './outline.ts';
import { linearReader, linearToLab, SRGB, type Pixels } from './pixels.ts';

/** What was read from an area of a picture. */
export interface AreaReading {
  /** Mean in linear light, of the main colour where little else is in the area. */
  readonly lab: Lab;
  readonly pixels: number;
  /** Share of pixels whose brightest channel is at the top, where the photo has lost the light. */
  readonly clipped: number;
  /** Share of pixels wholly at the bottom, where the photo has lost the dark. */
  readonly crushed: number;
  /** Share of pixels as strong as their space can say: a channel at nothing beside one that is not. What they stand for may be stronger. */
  readonly atEdge: number;
  /** How far the pixels lie from the colour, as ΔE76: the median. */
  readonly spread: number;
  /** Share of pixels that are of another colour and were left out. */
  readonly leftOut: number;
  /** The two colours it falls into, larger first, where it is not one. */
  readonly parts?: readonly [AreaPart, AreaPart];
}

export interface AreaPart {
  readonly lab: Lab;
  readonly share: number;
}

/** What a file has lost at a pixel, by its own numbers. */
export type LostHere = 'light' | 'dark' | 'edge';
/** How a pixel says in its alpha what its file has lost there, where its numbers went through a wider space. */
export const LOST_ALPHA: Readonly<Record<LostHere, number>> = { light: 254, dark: 253, edge: 252 };

/** Steps of 255 from which a channel counts as full, and up to which a pixel counts as empty. */
export const TOP = 254;
export const BOTTOM = 3;
/** A channel up to this is at nothing, beside one from {@link LIT} on. */
const NOTHING = 1;
const LIT = 40;
/** Pixels that are looked at one by one to tell whether an area is one colour. */
const LOOKED_AT = 400;
/** ΔE76 from the middle from which a pixel may be of another colour, and how many medians off it must be. */
const OTHER = 7;
const OTHER_MEDIANS = 4;
/** As long as no more than this is of another colour, it is left out. */
const LITTLE = 0.3;
/** Two colours of an area are apart by so much, ΔE76. */
const APART = 12;

/**
 * What is lost at a pixel, by its largest and least number.
 * @param full what a channel is at its top
 */
export function lostAt(most: number, least: number, full: number): LostHere | undefined {
  const step = full / 255;
  if (most >= LIT * step && least <= NOTHING * step) return 'edge';
  if (most >= TOP * step) return 'light';
  return most <= BOTTOM * step ? 'dark' : undefined;
}
const BY_ALPHA = new Map(Object.entries(LOST_ALPHA).map(([lost, alpha]) => [alpha, lost as LostHere]));

const off = (one: Lab, other: Lab): number => Math.hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2]);
function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)]!;
}

/** Linear light of some of an area's pixels, three numbers each. */
class Handful {
  private readonly rgb: number[] = [];
  private readonly lab: Lab[] = [];
  private every = 1;
  private met = 0;

  constructor(private readonly space = SRGB) {}

  take(r: number, g: number, b: number): void {
    if (this.met++ % this.every !== 0) return;
    this.rgb.push(r, g, b);
    this.lab.push(linearToLab(this.space, r, g, b));
    if (this.lab.length < 2 * LOOKED_AT) return;
    // Too many: every second goes, and from now on half as many are taken.
    for (let i = 0; 2 * i < this.lab.length; i++) {
      this.lab[i] = this.lab[2 * i]!;
      for (let c = 0; c < 3; c++) this.rgb[3 * i + c] = this.rgb[6 * i + c]!;
    }
    this.lab.length /= 2;
    this.rgb.length /= 2;
    this.every *= 2;
  }

  private meanOf(chosen: (i: number) => boolean): { readonly lab: Lab; readonly share: number } {
    const sum = [0, 0, 0];
    let count = 0;
    for (let i = 0; i < this.lab.length; i++) {
      if (!chosen(i)) continue;
      for (let c = 0; c < 3; c++) sum[c]! += this.rgb[3 * i + c]!;
      count++;
    }
    const [r, g, b] = sum.map((v) => v / Math.max(1, count)) as [number, number, number];
    return { lab: linearToLab(this.space, r, g, b), share: count / this.lab.length };
  }

  /** How the pixels lie: round one colour, perhaps with a few of another among them, or about two. */
  judged(): {
    readonly spread: number;
    readonly main?: { readonly lab: Lab; readonly share: number };
    readonly parts?: readonly [AreaPart, AreaPart];
  } {
    const { lab } = this;
    const middle: Lab = [median(lab.map(([L]) => L)), median(lab.map(([, a]) => a)), median(lab.map(([, , b]) => b))];
    const away = lab.map((one) => off(one, middle));
    const spread = median(away);
    const far = Math.max(OTHER, OTHER_MEDIANS * spread);
    const others = away.filter((d) => d > far).length / lab.length;
    if (others > 0 && others <= LITTLE) {
      const parts = others > 0.12 ? this.halved() : undefined;
      return { spread, main: this.meanOf((i) => away[i]! <= far), ...(parts && { parts }) };
    }
    const parts = this.halved();
    return { spread, ...(parts && { parts }) };
  }

  /** Two colours about which the pixels lie, larger first; nothing where they are not apart (two means, Lloyd 1982). */
  private halved(): readonly [AreaPart, AreaPart] | undefined {
    const { lab } = this;
    const byL = [...lab.keys()].sort((i, j) => lab[i]![0] - lab[j]![0]);
    let [one, two] = [lab[byL[Math.floor(0.1 * byL.length)]!]!, lab[byL[Math.floor(0.9 * byL.length)]!]!];
    let mine: boolean[] = [];
    for (let round = 0; round < 8; round++) {
      mine = lab.map((p) => off(p, one) <= off(p, two));
      const first = this.meanOf((i) => mine[i]!);
      const second = this.meanOf((i) => !mine[i]!);
      if (first.share === 0 || second.share === 0) return undefined;
      [one, two] = [first.lab, second.lab];
    }
    const parts = [this.meanOf((i) => mine[i]!), this.meanOf((i) => !mine[i]!)].sort((a, b) => b.share - a.share) as [AreaPart, AreaPart];
    const within = (part: AreaPart, own: boolean): number => median(lab.filter((_, i) => mine[i] === own).map((p) => off(p, part.lab)));
    const apart = off(parts[0].lab, parts[1].lab);
    const loose = Math.max(within({ lab: one, share: 0 }, true), within({ lab: two, share: 0 }, false));
    return apart > APART && apart > 3 * loose && parts[1].share > 0.12 ? parts : undefined;
  }
}

/**
 * Colour of an area, as its pixels blend in linear light; a few of quite another colour are left out.
 * @param outline in the picture's pixels, clamped to it
 * @param gains what each channel's light is multiplied with
 */
export function readOutline(picture: Pixels, outline: Outline, gains: LinearRgb = [1, 1, 1]): AreaReading {
  const { data, space = SRGB } = picture;
  const read = linearReader(picture);
  const [gr, gg, gb] = gains;
  const handful = new Handful(space);
  let red = 0;
  let green = 0;
  let blue = 0;
  let pixels = 0;
  let clipped = 0;
  let crushed = 0;
  let atEdge = 0;
  const full = data instanceof Uint16Array ? 65_535 : 255;
  eachPixel(outline, picture.width, picture.height, (x, y) => {
    const at = (y * picture.width + x) * 4;
    const [r, g, b] = [gr * read(at, 0), gg * read(at, 1), gb * read(at, 2)];
    red += r;
    green += g;
    blue += b;
    handful.take(r, g, b);
    const [one, two, three] = [data[at]!, data[at + 1]!, data[at + 2]!];
    const lost = picture.marksLost ? BY_ALPHA.get(data[at + 3]!) : lostAt(Math.max(one, two, three), Math.min(one, two, three), full);
    if (lost === 'light') clipped++;
    else if (lost === 'dark') crushed++;
    else if (lost === 'edge') atEdge++;
    pixels++;
  });
  const { spread, main, parts } = handful.judged();
  return {
    lab: main?.lab ?? linearToLab(space, red / pixels, green / pixels, blue / pixels),
    pixels,
    clipped: clipped / pixels,
    crushed: crushed / pixels,
    atEdge: atEdge / pixels,
    spread,
    leftOut: main ? 1 - main.share : 0,
    ...(parts && { parts }),
  };
}

/** Colour of an area as its pixels blend, whatever is in it. */
export function meanOf(picture: Pixels, outline: Outline, [gr, gg, gb]: LinearRgb = [1, 1, 1]): Lab {
  const { space = SRGB } = picture;
  const read = linearReader(picture);
  const sum = [0, 0, 0] as [number, number, number];
  let pixels = 0;
  eachPixel(outline, picture.width, picture.height, (x, y) => {
    const at = (y * picture.width + x) * 4;
    sum[0] += read(at, 0);
    sum[1] += read(at, 1);
    sum[2] += read(at, 2);
    pixels++;
  });
  return linearToLab(space, (gr * sum[0]) / pixels, (gg * sum[1]) / pixels, (gb * sum[2]) / pixels);
}

/**
 * Colour of a disc.
 * @param x @param y centre in pixels, clamped to the picture
 * @param radius in pixels; 0 reads a single one
 */
export const readArea = (picture: Pixels, x: number, y: number, radius: number): AreaReading => readOutline(picture, { x, y, radius });

/** Share of lost pixels from which a reading is not to be trusted. */
const LOST_SHARE = 0.15;

/** What is wrong with a reading, if anything, as a sentence. */
export function areaWarning({ clipped, crushed, atEdge }: AreaReading): string | undefined {
  if (clipped > LOST_SHARE) return 'Clipped: the photo has lost the light here; the subject is lighter or stronger than it shows.';
  if (crushed > LOST_SHARE) return 'Crushed: the photo has lost the dark here; trust the subject, not this.';
  if (atEdge > LOST_SHARE) return 'As strong as this picture can say: the subject may be stronger still.';
  return undefined;
}
