import { IsBoolean, IsIn, IsNumber, Matches, Max, Min } from 'class-validator';
import { LabSent } from './colours.ts';
import { Id, ListOf, Note, ObjectOf, ObjectsOf, Optional, Version, Within, Words } from './fields.ts';
import { MOST_CORNERS, MOST_JOINED, PASSING_ON, type PassingOn, type PictureSpace } from './limits.ts';
import { View, type ViewDto } from './views.ts';
import type { LabDto } from './written.ts';

const PICTURE_ID = { message: 'A picture is named by what it holds' };

/** A picture that has been sent becomes a painting's reference. */
export class NewReference {
  @Id('A reference')
  id!: string;

  @Id('A painting')
  paintingId!: string;

  @Matches(/^[0-9a-f]{64}$/, PICTURE_ID)
  pictureId!: string;

  @Words('The name of a picture', 120)
  name!: string;
}

/** How a reference is called and seen, where it is from; or another picture in its place, with its samples kept. */
export class ReferenceChange {
  @Id('A reference')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The name of a picture', 120)
  name?: string;

  @Optional()
  @Matches(/^[0-9a-f]{64}$/, PICTURE_ID)
  pictureId?: string;

  @Optional()
  @ObjectOf('A view says how a picture is seen', () => View)
  view?: View;

  @Optional()
  @Note('Where a picture is from', 300)
  source?: string;

  @Optional()
  @IsIn(PASSING_ON, { message: `What may be done with a picture is one of ${PASSING_ON.join(', ')}` })
  passing?: PassingOn;
}

/** A picture as it is kept. A copy to look at is at `/api/pictures/{id}`, its own pixels at `/own` below that, a small one at `/small`. */
export interface PictureDto {
  readonly id: string;
  /** Upright, in its own pixels. */
  readonly width: number;
  readonly height: number;
  readonly space: PictureSpace;
  /** What its colours rest on, for the painter. */
  readonly colours: string;
}

export interface ReferenceDto {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string;
  readonly pictureId: string;
  readonly name: string;
  /** The pixels that samples count in: those of the picture it was begun with. */
  readonly width: number;
  readonly height: number;
  /** How wide the picture itself is, in its own pixels; 0 until the studio has seen it. */
  readonly ownWidth: number;
  readonly space: PictureSpace;
  readonly colours: string;
  readonly view: ViewDto;
  readonly source: string;
  readonly passing: PassingOn;
  readonly createdAt: string;
  readonly deletedAt: string | null;
}

const SIDE = 100_000;

/** A disc in a reference picture, in its pixels, or what a hand drew round. */
export class Area {
  @Within('The x of a place', 0, SIDE)
  x!: number;

  @Within('The y of a place', 0, SIDE)
  y!: number;

  @Within('The radius', 0, SIDE)
  radius!: number;

  /** x, y, x, y, … */
  @Optional()
  @ListOf('The corners of a drawn area', 6, 2 * MOST_CORNERS)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'A corner is two numbers' })
  @Min(-SIDE, { each: true, message: 'A corner lies in the picture' })
  @Max(SIDE, { each: true, message: 'A corner lies in the picture' })
  points?: number[];
}

/** An area, perhaps with others that it was joined with. */
export class Outline extends Area {
  @Optional()
  @ObjectsOf('Areas joined to one', 1, MOST_JOINED - 1, () => Area)
  more?: Area[];
}

const OUTLINE = 'An outline is x, y and a radius';
const COLOUR = 'A colour is three numbers, L, a and b';

/** A colour read from a picture: as it was seen, and as it is to be painted. */
export class NewSample {
  @Id('A sample')
  id!: string;

  @Id('A painting')
  paintingId!: string;

  @Optional()
  @Id('A reference')
  referenceId?: string;

  @Optional()
  @ObjectOf(OUTLINE, () => Outline)
  outline?: Outline;

  @ObjectOf(COLOUR, () => LabSent)
  seen!: LabSent;

  @ObjectOf(COLOUR, () => LabSent)
  paint!: LabSent;

  @Optional()
  @Note('A zone', 40)
  zone?: string;

  @Optional()
  @Note('A thing', 80)
  thing?: string;

  /** Whether only its value is meant: hue and chroma are taken from elsewhere. */
  @Optional()
  @IsBoolean({ message: 'A sample is of a value alone, or not' })
  valueOnly?: boolean;

  /** In what light it was noted before the view. */
  @Optional()
  @Note('A light', 60)
  light?: string;
}

export class SampleChange {
  @Id('A sample')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @ObjectOf(OUTLINE, () => Outline)
  outline?: Outline;

  @Optional()
  @ObjectOf(COLOUR, () => LabSent)
  seen?: LabSent;

  @Optional()
  @ObjectOf(COLOUR, () => LabSent)
  paint?: LabSent;

  @Optional()
  @Note('A zone', 40)
  zone?: string;

  @Optional()
  @Note('A thing', 80)
  thing?: string;

  @Optional()
  @IsBoolean({ message: 'A sample is of a value alone, or not' })
  valueOnly?: boolean;
}

export interface SpotDto {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly points?: readonly number[];
}
export interface OutlineDto extends SpotDto {
  readonly more?: readonly SpotDto[];
}

export interface SampleDto {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string;
  readonly referenceId: string | null;
  readonly outline: OutlineDto | null;
  readonly seen: LabDto;
  readonly paint: LabDto;
  readonly zone: string;
  readonly thing: string;
  readonly valueOnly: boolean;
  /** In what light it was noted before the view; empty for what is from a picture. */
  readonly light: string;
  readonly createdAt: string;
  readonly deletedAt: string | null;
}
