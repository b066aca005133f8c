import { CraftError, finite } from '../errors.ts';
import { beadLength } from '../mixing/hand.ts';
import { filmOf, type LaidSo } from './laid.ts';

/** Sizes on a canvas that painters say, cm². */
const SAID_CM2: Readonly<Record<string, number>> = {
  thumbnail: 2,
  fingertip: 2,
  thumb: 12,
  finger: 10,
  palm: 80,
  hand: 150,
  page: 620,
};
const COUNTS: Readonly<Record<string, number>> = {
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  half: 0.5,
  quarter: 0.25,
};
/** No canvas here is larger, cm². */
const MOST_CM2 = 4_000_000;

const number = (text: string): number => Number(text.replace(',', '.'));

/**
 * How large a passage is, as a painter says it: `a hand`, `two palms`, `half a thumb`, `120 cm²`, `12 x 8`, `0.5 m²`.
 * @returns cm²
 * @throws CraftError for words that name no size, and for sizes that no canvas has
 */
export function passageFromWords(said: string): number {
  const text = said.trim().toLowerCase().replaceAll('²', '2');
  const sides = /^(\d+(?:[.,]\d+)?)\s*(?:cm)?\s*[x×*]\s*(\d+(?:[.,]\d+)?)\s*(?:cm)?$/.exec(text);
  const measured = /^(\d+(?:[.,]\d+)?)\s*(cm2|m2|square centimetres|)$/.exec(text);
  const named =
    /^(?:about\s+)?(?:(\d+(?:[.,]\d+)?|half|quarter|an?|one|two|three|four|five|six)\s+)?(?:of\s+)?(?:an?\s+)?([a-z]+?)s?$/.exec(text);
  let cm2: number | undefined;
  if (sides) cm2 = number(sides[1]!) * number(sides[2]!);
  else if (measured) cm2 = number(measured[1]!) * (measured[2] === 'm2' ? 10_000 : 1);
  else if (named && named[2]! in SAID_CM2)
    cm2 = SAID_CM2[named[2]!]! * (named[1] === undefined ? 1 : (COUNTS[named[1]] ?? number(named[1])));
  if (cm2 === undefined)
    throw new CraftError('input', `“${said.trim().slice(0, 40)}” is no size: say a thumb, a palm, two hands, 120 cm² or 12 x 8.`);
  if (!(cm2 > 0)) throw new CraftError('input', 'A passage of nothing needs no paint: say how large it is.');
  if (cm2 > MOST_CM2) throw new CraftError('input', 'No canvas is that large: say it in cm² or m².');
  return cm2;
}

/** Share of a canvas that an outline encloses, by its points in shares of the sides (shoelace formula). */
export function shareEnclosed(outline: readonly { readonly x: number; readonly y: number }[]): number {
  let twice = 0;
  outline.forEach(({ x, y }, i) => {
    const next = outline[(i + 1) % outline.length]!;
    twice += x * next.y - next.x * y;
  });
  return Math.min(1, Math.abs(twice) / 2);
}

/** A passage that is to be painted: how large, how it is laid, how much of what is below shows in it, and what is kept back. */
export interface Passage {
  readonly cm2: number;
  readonly so: LaidSo;
  /** Share of it that is left open on purpose, 0 to below 1. */
  readonly open?: number;
  /** Share of the paint that is held back, for cutting in and mending, 0 to below 1. */
  readonly heldBack?: number;
}

/** cm² by µm in ml. */
const ML_PER_CM2_UM = 1e-4;
/** What brush, knife and palette keep of a pile: a share of it, and what never comes off. */
const KEPT_SHARE = 0.15;
const KEPT_ML = 0.3;

/**
 * Paint that a passage takes: its surface by the film it is laid in, without what is clear in that, by the layers; and what
 * brush and palette keep. Not rounded.
 * @returns ml of paint as it is mixed
 */
export function paintFor({ cm2, so, open = 0, heldBack = 0 }: Passage): number {
  if (!(finite('input', 'The size of a passage', cm2) > 0))
    throw new CraftError('input', 'A passage of nothing needs no paint: say how large it is.');
  for (const share of [open, heldBack])
    if (!(finite('input', 'A share', share) >= 0 && share < 1)) throw new CraftError('input', 'A share lies from 0 to below 1.');
  const { thicknessUm, medium } = filmOf(so);
  const lies = cm2 * (1 - open) * thicknessUm * ML_PER_CM2_UM * (1 - medium);
  return lies / (1 - KEPT_SHARE) / (1 - heldBack) + KEPT_ML;
}

/** The mouth of an ordinary tube, mm. */
const USUAL_BORE_MM = 9;
/** The length of a thumb, as paint is squeezed along it, mm. */
const THUMB_MM = 60;
const TUBE_ML = 37;
const IN_WORDS = ['', 'a', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'] as const;

/** An amount of paint as a painter lays it out: small, a thumb’s length of bead, two; of very much, in tubes. */
export function amountInWords(ml: number): string {
  const thumbs = beadLength(ml, USUAL_BORE_MM) / THUMB_MM;
  if (thumbs < 0.3) return 'small';
  if (thumbs < 0.75) return 'half a thumb’s length of bead';
  const n = Math.round(thumbs);
  if (n === 1) return 'a thumb’s length of bead';
  if (n < IN_WORDS.length) return `${IN_WORDS[n]!} thumbs’ lengths of bead`;
  const tubes = ml / TUBE_ML;
  if (tubes < 1.25) return 'a whole tube';
  return `${(Math.round(tubes * 2) / 2).toString().replace('.5', '½')} tubes`;
}

/** What a plan takes from each tube. @returns ml by tube */
export function takenFromTubes(
  piles: readonly { readonly ml: number; readonly flat: Readonly<Record<string, number>> }[],
): ReadonlyMap<string, number> {
  const taken = new Map<string, number>();
  for (const { ml, flat } of piles) {
    const whole = Object.values(flat).reduce((sum, part) => sum + part, 0);
    if (whole > 0) for (const [tube, part] of Object.entries(flat)) taken.set(tube, (taken.get(tube) ?? 0) + (ml * part) / whole);
  }
  return taken;
}
