import type { Lab } from '../colour/spaces.ts';
import type { Millimetres } from '../mixing/units.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import type { Reading } from './doubt.ts';

/** Something that can be added to a pile: a tube, or another pile. */
export interface Addable extends PaintCurves {
  readonly id: string;
  /** The bore it is squeezed from; taken up with the knife unless it is said. */
  readonly nozzleMm?: Millimetres;
}

/** One addition to a pile, as it was meant. */
export interface Dose {
  readonly id: string;
  readonly parts: number;
  /** Parts that are not known exactly, as those logged in words, lie about anywhere in this range. */
  readonly range?: readonly [least: number, most: number];
}

/** A stage of a pile: what was added, and how it looked then if that was observed. */
export interface Stage {
  readonly additions: readonly Dose[];
  readonly observed?: Lab;
  /** How it was observed; {@link UNSAID} unless said. */
  readonly reading?: Reading;
  /** Half-width of what a dose may be off, as a share of itself: the painter's knife; {@link KNIFE} unless said. */
  readonly knife?: number;
}

/** Evidence about tubes: a pile's additions in order, with its looks. */
export interface Evidence {
  readonly stages: readonly Stage[];
}
