import { IsBoolean, IsIn, IsInt, IsNumber, Matches, Max, Min, ValidateIf } from 'class-validator';
import { LabSent } from './colours.ts';
import { Id, ListOf, ObjectOf, ObjectsOf, Optional, Within, Words } from './fields.ts';
import { MOST_CHANGES_TRIED, MOST_CORNERS, MOST_FLAT_SHAPES, MOST_TRIALS } from './limits.ts';
import type { LabDto } from './written.ts';

/** What is kept of a turned picture, in shares of its sides. */
export class CropSent {
  @Within('The left of a crop', 0, 1)
  x!: number;

  @Within('The top of a crop', 0, 1)
  y!: number;

  @Within('The width of a crop', 0.01, 1)
  width!: number;

  @Within('The height of a crop', 0.01, 1)
  height!: number;
}

/** Lines over a picture by which a drawing is placed. */
export class GridSent {
  @IsInt({ message: 'A grid has whole squares' })
  @Within('Squares across', 1, 40)
  across!: number;

  @IsInt({ message: 'A grid has whole squares' })
  @Within('Squares down', 1, 40)
  down!: number;

  @IsBoolean({ message: 'Diagonals are there or not' })
  diagonals!: boolean;

  @IsBoolean({ message: 'Thirds are there or not' })
  thirds!: boolean;
}

export const KEY_KINDS = ['as it is', 'fitted', 'moved'] as const;

/** How a picture's range is put onto paint. */
export class KeySent {
  @IsIn(KEY_KINDS, { message: `A key is one of ${KEY_KINDS.join(', ')}` })
  kind!: (typeof KEY_KINDS)[number];

  @ValidateIf(({ kind, held }: KeySent) => kind !== 'as it is' || held !== undefined)
  @Within('What is held back below white', 0, 5)
  held?: number;

  @Optional()
  @Within('What is held back above the darkest', 0, 5)
  heldDark?: number;

  @ValidateIf(({ kind, from }: KeySent) => kind === 'moved' || from !== undefined)
  @Within('The value that is picked', 0, 10)
  from?: number;

  @ValidateIf(({ kind, to }: KeySent) => kind === 'moved' || to !== undefined)
  @Within('The value it comes to', 0, 10)
  to?: number;
}

/** What a step of values is painted with: a pile by its id, the mean of what it has, or nothing yet. */
const DRESS = /^(?:|mean|[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12})$/;

/** A flat shape of a plan, later ones over earlier ones. */
export class ShapeSent {
  /** Corners in shares of the picture's sides: x, y, x, y, … */
  @ListOf('The corners of a shape', 6, 2 * MOST_CORNERS)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'A corner is two shares of the picture' })
  @Min(0, { each: true, message: 'A corner lies within the picture' })
  @Max(1, { each: true, message: 'A corner lies within the picture' })
  points!: number[];

  @ObjectOf('A colour is three numbers, L, a and b', () => LabSent)
  lab!: LabSent;

  /** The pile it is painted with. */
  @Optional()
  @Id('A pile')
  pileId?: string;

  /** What it is. */
  @Optional()
  @Words('What a shape is', 80)
  thing?: string;
}

/** A spot of a picture, in shares of its sides. */
export class SpotOfPhoto {
  @Within('A spot', 0, 1)
  x!: number;

  @Within('A spot', 0, 1)
  y!: number;
}

/** An outline in which a difference is meant so. */
export class MeantSent {
  @ListOf('The corners of what is meant so', 6, 2 * MOST_CORNERS)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'A corner is two shares of the canvas' })
  @Min(0, { each: true, message: 'A corner lies within the canvas' })
  @Max(1, { each: true, message: 'A corner lies within the canvas' })
  points!: number[];
}

/** A photo of the canvas: where the canvas stands in it, what is white, and what is meant so. */
export class CanvasPhotoSent {
  @Id('The picture that the canvas is held against')
  of!: string;

  /** Upper left, upper right, lower right, lower left, in shares of the photo's sides. */
  @ListOf('The corners of a canvas', 8, 8)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'A corner is two shares of the photo' })
  @Min(0, { each: true, message: 'A corner lies within the photo' })
  @Max(1, { each: true, message: 'A corner lies within the photo' })
  corners!: number[];

  @Optional()
  @ObjectOf('White is a spot of the photo', () => SpotOfPhoto)
  white?: SpotOfPhoto;

  @Optional()
  @ObjectsOf('What is meant so', 0, MOST_FLAT_SHAPES, () => MeantSent)
  meant?: MeantSent[];
}

/** What an outlined part of a picture is tried as. */
export class TrialChangeSent {
  @ListOf('The corners of a part', 6, 2 * MOST_CORNERS)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'A corner is two shares of the picture' })
  @Min(0, { each: true, message: 'A corner lies within the picture' })
  @Max(1, { each: true, message: 'A corner lies within the picture' })
  points!: number[];

  @Optional()
  @ObjectOf('A colour is three numbers, L, a and b', () => LabSent)
  to?: LabSent;

  /** The colour at its foot, where it fades. */
  @Optional()
  @ObjectOf('A colour is three numbers, L, a and b', () => LabSent)
  fades?: LabSent;

  @Optional()
  @Id('A pile')
  pileId?: string;

  @Optional()
  @Within('Values lighter', -8, 8)
  lighter?: number;

  /** Elsewhere, in shares of the picture's sides. */
  @Optional()
  @Within('How far it is moved', -1, 1)
  moveX?: number;

  @Optional()
  @Within('How far it is moved', -1, 1)
  moveY?: number;
}

/** A trial: some parts changed together. */
export class TrialSent {
  @ObjectsOf('Changes of a trial', 0, MOST_CHANGES_TRIED, () => TrialChangeSent)
  changes!: TrialChangeSent[];
}

/** How a picture is cut, turned, lit, keyed and lined; its own pixels are never written over. All absent: as it is. */
export class View {
  @Optional()
  @IsInt({ message: 'A picture is turned by whole quarters' })
  @Within('Quarter turns', 0, 3)
  turn?: number;

  @Optional()
  @Within('Degrees by which it is straightened', -45, 45)
  straighten?: number;

  @Optional()
  @IsBoolean({ message: 'A picture is mirrored or not' })
  mirror?: boolean;

  @Optional()
  @ObjectOf('A crop is what is kept of a picture', () => CropSent)
  crop?: CropSent;

  @Optional()
  @Within('Stops of exposure', -8, 8)
  exposure?: number;

  /** A place known to be white or grey, as the photo shows it. */
  @Optional()
  @ObjectOf('A colour is three numbers, L, a and b', () => LabSent)
  neutral?: LabSent;

  @Optional()
  @Within('The temperature of the light', 1700, 20_000)
  kelvin?: number;

  @Optional()
  @ObjectOf('A key says how a range is put onto paint', () => KeySent)
  key?: KeySent;

  @Optional()
  @ObjectOf('A grid is so many squares', () => GridSent)
  grid?: GridSent;

  /** Values at which it is cut into steps; they rise. */
  @Optional()
  @ListOf('The boundaries of steps', 1, 8)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'A boundary is a value' })
  @Min(0, { each: true, message: 'Values begin at 0' })
  @Max(10, { each: true, message: 'Values end at 10' })
  steps?: number[];

  /** Temperature against which warm is told from cool. */
  @Optional()
  @Within('The pivot of warm and cool', -150, 150)
  pivot?: number;

  /** What each step of its values is painted with, from the darkest on. */
  @Optional()
  @ListOf('What the steps are painted with', 1, 9)
  @Matches(DRESS, { each: true, message: 'A step is painted with a pile, with the mean of what it has, or with nothing yet' })
  dress?: string[];

  /** The value plan: a few flat shapes. */
  @Optional()
  @ObjectsOf('The shapes of a plan', 0, MOST_FLAT_SHAPES, () => ShapeSent)
  shapes?: ShapeSent[];

  /** Trials of another colour, value or place for parts of it, side by side. */
  @Optional()
  @ObjectsOf('Trials', 0, MOST_TRIALS, () => TrialSent)
  trials?: TrialSent[];

  /** The picture is a photo of the canvas, to be held against another. */
  @Optional()
  @ObjectOf('A photo of the canvas says what it is held against', () => CanvasPhotoSent)
  canvas?: CanvasPhotoSent;

  /** The picture is a photo taken at the end of a day, not one to paint from. */
  @Optional()
  @IsBoolean({ message: 'A picture is of a day’s end or not' })
  dayEnd?: boolean;

  /** A picture that is made of its shapes alone. */
  @Optional()
  @IsBoolean({ message: 'A picture is made of its shapes, or not' })
  blank?: boolean;
}

/** A view as plain data. */
export interface ViewDto {
  readonly turn?: number;
  readonly straighten?: number;
  readonly mirror?: boolean;
  readonly crop?: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly exposure?: number;
  readonly neutral?: LabDto;
  readonly kelvin?: number;
  readonly key?: {
    readonly kind: (typeof KEY_KINDS)[number];
    readonly held?: number;
    readonly heldDark?: number;
    readonly from?: number;
    readonly to?: number;
  };
  readonly grid?: { readonly across: number; readonly down: number; readonly diagonals: boolean; readonly thirds: boolean };
  readonly steps?: readonly number[];
  readonly pivot?: number;
  readonly dress?: readonly string[];
  readonly shapes?: readonly ShapeDto[];
  readonly blank?: boolean;
  readonly canvas?: CanvasPhotoDto;
  readonly dayEnd?: boolean;
  readonly trials?: readonly TrialDto[];
}

export interface TrialDto {
  readonly changes: readonly TrialChangeDto[];
}
export interface TrialChangeDto {
  readonly points: readonly number[];
  readonly to?: LabDto;
  readonly fades?: LabDto;
  readonly pileId?: string;
  readonly lighter?: number;
  readonly moveX?: number;
  readonly moveY?: number;
}

export interface CanvasPhotoDto {
  readonly of: string;
  readonly corners: readonly number[];
  readonly white?: { readonly x: number; readonly y: number };
  readonly meant?: readonly { readonly points: readonly number[] }[];
}

/** A flat shape of a plan as plain data. */
export interface ShapeDto {
  readonly points: readonly number[];
  readonly lab: LabDto;
  readonly pileId?: string;
  readonly thing?: string;
}
