import type { Lab } from '../colour/spaces.ts';
import type { Spectrum } from '../colour/spectrum.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixCurves, reflectance } from '../paint/mix.ts';
import { endToEnd, eyeFor, type Viewing } from '../paint/viewing.ts';
import { partsInWords } from '../mixing/words.ts';
import { coatsToCover, pickedUp, type Coverage } from './inPlace.ts';

/** How paint is laid, in a painter's words, the thinnest first; and what it is laid with. */
export const LAID_HOW = ['wash', 'glaze', 'scumble', 'thin', 'normal', 'loaded'] as const;
export type LaidHow = (typeof LAID_HOW)[number];
export const LAID_WITH = ['nothing', 'oil', 'medium', 'alkyd medium', 'thinner', 'chalk', 'marble dust'] as const;
export type LaidWith = (typeof LAID_WITH)[number];
const RAGS = 'Oily rags can ignite by themselves: dry them flat outdoors, or keep them in a lidded metal can with water.';
const VAPOURS = `Open the window and keep the lid on. ${RAGS} Mind its label and safety data sheet.`;
const POWDER =
  'Dry powder only with a respirator: stir it in wet, and wipe up what is spilt with a damp cloth. Mind its label and safety data sheet.';

interface WithSays {
  readonly called: string;
  readonly does: string;
  /** What is due at the step where it goes in; labels, safety data sheets and local rules come first. */
  readonly caution: string;
}

/** What a painter calls them, and what each does to a paint's colour, body and cover. */
export const WITH_SAYS: Readonly<Record<LaidWith, WithSays>> = {
  nothing: { called: 'nothing', does: '', caution: '' },
  oil: { called: 'oil', does: 'Flows, a little clearer and deeper; fatter, and dries later.', caution: `${RAGS} Mind its label.` },
  medium: { called: 'resin and oil', does: 'Clearer, deeper and glossy, levels its strokes; fatter.', caution: VAPOURS },
  'alkyd medium': { called: 'alkyd', does: 'Clearer, deeper and glossy; tacky within the sitting, dry next day.', caution: VAPOURS },
  thinner: {
    called: 'thinner',
    does: 'Runs and lies thinner, so that more shows through; leaner, and may sink.',
    caution: `${VAPOURS} It goes by local rules, not down the drain.`,
  },
  chalk: { called: 'chalk', does: 'More body, a little clearer and paler where it lies thin; leaner, and matt.', caution: POWDER },
  'marble dust': { called: 'marble dust', does: 'Stiff and grainy body for thick strokes, a little clearer; leaner.', caution: POWDER },
};
/** How much of the wet paint below goes into what is laid over it. */
export const LAID_TAKING = ['a hint', 'some', 'a lot'] as const;
export type LaidTaking = (typeof LAID_TAKING)[number];
/** So many layers one over another are told as a way to cover; more are another painting. */
export const MOST_LAID = 6;

/**
 * Films as they lie once they have set, µm: glazes 5 to 20, thin paint 20 to 40, normal 50 to 120, loaded 200 to 500;
 * of a wash what its thinner leaves.
 */
const FILM_UM: Readonly<Record<LaidHow, number>> = { wash: 6, glaze: 12, scumble: 15, thin: 30, normal: 80, loaded: 300 };

/** What goes into paint besides paint: the share of the film that is clear for it, and what it makes of the film's thickness. */
interface Along {
  readonly clear: number;
  readonly thicker: number;
}
/** Chalk and marble dust are all but clear in oil (their index is near its own) and give body; thinner leaves, and the film is thinner for it. */
const ALONG: Readonly<Record<LaidWith, Along>> = {
  nothing: { clear: 0, thicker: 1 },
  oil: { clear: 0.1, thicker: 1 },
  medium: { clear: 0.2, thicker: 1 },
  'alkyd medium': { clear: 0.2, thicker: 1 },
  thinner: { clear: 0, thicker: 0.6 },
  chalk: { clear: 0.2, thicker: 1.3 },
  'marble dust': { clear: 0.3, thicker: 1.5 },
};
/** A glaze is mostly its medium. */
const GLAZE_TIMES = 2.5;
/** Shares of wet paint below that are taken up; a clean brush takes some. */
const TAKEN: Readonly<Record<LaidTaking, number>> = { 'a hint': 0.05, some: 0.15, 'a lot': 0.35 };
const USUALLY_TAKEN: LaidTaking = 'some';
/** Of what a brush lays, so much is what was left in it. */
const LEFT_IN_BRUSH = 0.06;

/** How paint is laid, in words; over wet paint also how much of that is taken up; in how many layers. */
export interface LaidSo {
  readonly how: LaidHow;
  readonly with?: LaidWith | undefined;
  readonly takes?: LaidTaking | undefined;
  readonly layers?: number | undefined;
}

/** What paint is laid over: a surface as it reflects, or paint that is still wet. */
export type Below = { readonly dry: Spectrum } | { readonly wet: PaintCurves };

/** Where and how paint lands. */
export interface Landing {
  readonly so: LaidSo;
  readonly below: Below;
  /** Paint that was left in the brush. */
  readonly inBrush?: PaintCurves | undefined;
}

/** A film as words say it. @returns its thickness, µm, and the share of it that is clear, 0–1 */
export function filmOf({ how, with: along = 'nothing', layers = 1 }: LaidSo): { readonly thicknessUm: number; readonly medium: number } {
  const { clear, thicker } = ALONG[along];
  const isMedium = along === 'oil' || along === 'medium' || along === 'alkyd medium';
  return {
    thicknessUm: FILM_UM[how] * thicker * layers,
    medium: how === 'glaze' && isMedium ? Math.min(0.8, clear * GLAZE_TIMES) : clear,
  };
}

/** What is below as it reflects. */
export const surfaceOf = (below: Below): Spectrum => ('dry' in below ? below.dry : reflectance(below.wet));

/** What is taken up from below and out of the brush, as one paint and its share of what lies there; nothing where both are clean. */
function takenUp({ so, below, inBrush }: Landing): { readonly below: PaintCurves; readonly share: number } | undefined {
  const sources = [
    ...('wet' in below ? [{ paint: below.wet, parts: TAKEN[so.takes ?? USUALLY_TAKEN] }] : []),
    ...(inBrush ? [{ paint: inBrush, parts: LEFT_IN_BRUSH }] : []),
  ];
  if (sources.length === 0) return undefined;
  return { below: mixCurves(sources), share: sources.reduce((sum, { parts }) => sum + parts, 0) };
}

/** Where paint lands, as recipes are looked for in it: a palette laid out in this viewing is matched there, not in the pile. */
export function viewingThere(landing: Landing): Viewing {
  const { thicknessUm, medium } = filmOf(landing.so);
  const pickUp = takenUp(landing);
  return { laying: { medium, film: { thicknessUm, ground: surfaceOf(landing.below) } }, ...(pickUp && { pickUp }) };
}

/** What paint looks like where it is laid. */
export function asLaid(paint: PaintCurves, landing: Landing): Lab {
  const eye = eyeFor(viewingThere(landing));
  return eye.see(endToEnd(eye.curvesOf(paint)));
}

/** How many such layers cover what is below: see {@link coatsToCover}. Wet paint below is worked into the first of them. */
export function coversLaid(paint: PaintCurves, { so, below, inBrush }: Landing): Coverage {
  const { thicknessUm, medium } = filmOf({ ...so, layers: 1 });
  const taken = takenUp({ so, below, inBrush });
  return coatsToCover(taken ? pickedUp(paint, taken.below, taken.share) : paint, surfaceOf(below), thicknessUm, medium);
}

const DROP_ML = 0.05;
/** Drops of a fluid that go into so much paint for it to be laid so; nothing for what is not dropped. */
export function dropsInto(ml: number, so: LaidSo): number | undefined {
  const along = so.with ?? 'nothing';
  if (along === 'nothing' || along === 'chalk' || along === 'marble dust') return undefined;
  if (along === 'thinner') return Math.max(1, Math.round((ml * (1 / ALONG.thinner.thicker - 1)) / DROP_ML));
  const { medium } = filmOf(so);
  return Math.max(1, Math.round((ml * medium) / (1 - medium) / DROP_ML));
}

/** How a painting's paint is usually laid, said once for all of it. */
export const HABITS = ['thin', 'normal', 'loaded', 'thin darks, thick lights'] as const;
export type Habit = (typeof HABITS)[number];
/** Below the one value paint is dark, above the other it is light. */
const DARK = 4;
const LIGHT = 6.5;

/** How a pile of some value is laid by a habit. */
export function laidByHabit(habit: Habit, value: number): LaidHow {
  if (habit !== 'thin darks, thick lights') return habit;
  if (value < DARK) return 'thin';
  return value > LIGHT ? 'loaded' : 'normal';
}

/** How a pile is laid: as was said of it, else by the painting's habit; nothing where neither says. */
export const howLaid = (said: LaidHow | undefined, habit: Habit | null | undefined, value: number): LaidHow | undefined =>
  said ?? (habit ? laidByHabit(habit, value) : undefined);

/** What paint lies over, as it is called. */
export interface OverWords {
  readonly over: string;
  readonly isWet?: boolean;
  /** What is left in the brush. */
  readonly inBrush?: string | undefined;
}

/** How paint is laid, in a line: `glaze over the ground`, `thin over wet copper, taking up a lot, in 2 layers`. */
export function laidInWords({ how, takes, layers = 1 }: LaidSo, { over, isWet = false, inBrush }: OverWords): string {
  const parts = [
    `${how} over ${isWet ? 'wet ' : ''}${over}`,
    isWet && takes ? `taking up ${takes}` : '',
    layers > 1 ? `in ${layers} layers` : '',
    inBrush ? `with what is left of ${inBrush} in the brush` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

/** How much of something goes into a pile on the canvas, in words for amounts in a pile of some twelve parts. */
export const IN_PLACE = ['a speck', 'a touch', 'a little', 'some'] as const;
export type InPlace = (typeof IN_PLACE)[number];
const PARTS_OF_A_PILE = 12;

/** A pile with something added to it in place. */
export const addedInPlace = (pile: PaintCurves, added: PaintCurves, said: InPlace): PaintCurves =>
  pickedUp(pile, added, partsInWords(said).parts / PARTS_OF_A_PILE);
