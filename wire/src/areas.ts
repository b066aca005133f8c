import { FELT, LAID_HOW, LAID_TAKING, LAID_WITH, MOST_LAID, type Felt, type LaidHow, type LaidTaking, type LaidWith } from '@dusk/core';
import { IsIn, IsInt } from 'class-validator';
import { Id, Moment, Note, Nullable, ObjectOf, ObjectsOf, Optional, Version, Within, Words } from './fields.ts';
import { AdditionSent, type AdditionDto } from './stages.ts';

/** What can be done with an area of a painting. */
export const AREA_DEEDS = ['laid', 'wiped back', 'lifted', 'scraped back', 'oiled out', 'touched'] as const;
export type AreaDeed = (typeof AREA_DEEDS)[number];
/** What paint is laid over. */
export const LAID_OVER = ['the ground', 'dry', 'wet'] as const;

/** A point in shares of the canvas, from its upper left corner. */
export class PointSent {
  @Within('A point of an area', 0, 1)
  x!: number;

  @Within('A point of an area', 0, 1)
  y!: number;
}

const OUTLINE = 'The points of an area';

/** A part of a painting that is painted and dries as one. */
export class NewArea {
  @Id('An area')
  id!: string;

  @Id('A painting')
  paintingId!: string;

  @Words('The name of an area', 80)
  name!: string;

  /** Left out for the whole of the painting. */
  @Optional()
  @ObjectsOf(OUTLINE, 3, 500, () => PointSent)
  outline?: PointSent[];
}

export class AreaChange {
  @Id('An area')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The name of an area', 80)
  name?: string;

  @Nullable()
  @ObjectsOf(OUTLINE, 3, 500, () => PointSent)
  outline?: PointSent[] | null;
}

/** How paint lies: all of it in words, any of it unsaid. */
export class LaidSent {
  @Optional()
  @IsIn(LAID_HOW, { message: `Paint is laid as ${LAID_HOW.join(', ')}` })
  how?: LaidHow;

  @Optional()
  @IsIn(LAID_WITH, { message: `Paint is laid with ${LAID_WITH.join(', ')}` })
  with?: LaidWith;

  @Optional()
  @IsIn(LAID_OVER, { message: `Paint is laid over ${LAID_OVER.join(', ')}` })
  over?: (typeof LAID_OVER)[number];

  /** How much of wet paint below goes into it. */
  @Optional()
  @IsIn(LAID_TAKING, { message: `Wet paint below is taken up by ${LAID_TAKING.join(', ')}` })
  takes?: LaidTaking;

  /** The pile that is left in the brush; a clean brush without it. */
  @Optional()
  @Id('What is left in the brush')
  brushId?: string;

  @Optional()
  @IsInt({ message: 'Layers are a whole number' })
  @Within('Layers', 1, MOST_LAID)
  layers?: number;

  @Optional()
  @Note('What was said', 200)
  said?: string;

  /** Advice that it was laid against: what it then was to what is below. */
  @Optional()
  @Note('The advice', 60)
  against?: string;
}

export interface LaidDto {
  readonly how?: LaidHow;
  readonly with?: LaidWith;
  readonly over?: (typeof LAID_OVER)[number];
  readonly takes?: LaidTaking;
  readonly brushId?: string;
  readonly layers?: number;
  readonly said?: string;
  readonly against?: string;
}

/** Something that was done with an area; it stands in one order with what was done with piles, and never changes. */
export class NewAreaDeed {
  @Id('A deed')
  id!: string;

  @Id('An area')
  areaId!: string;

  @IsIn(AREA_DEEDS, { message: `An area is ${AREA_DEEDS.join(', ')}` })
  kind!: AreaDeed;

  /** Paint that went onto it: of piles as they were, or straight from tubes. */
  @ObjectsOf('What was laid', 0, 24, () => AdditionSent)
  additions!: AdditionSent[];

  @Optional()
  @ObjectOf('How paint was laid is said in words', () => LaidSent)
  laid?: LaidSent;

  @Optional()
  @IsIn(FELT, { message: `A layer is ${FELT.join(', ')}` })
  touch?: Felt;

  @Optional()
  @Moment()
  at?: string;
}

/** A point of an outline as it crosses the wire. */
export type AreaOutline = readonly { readonly x: number; readonly y: number }[];

export interface AreaDeedDto {
  readonly id: string;
  readonly n: number;
  readonly kind: AreaDeed;
  readonly at: string;
  readonly sittingId: string | null;
  readonly laid: LaidDto | null;
  readonly touch: Felt | null;
  readonly additions: readonly AdditionDto[];
}

export interface AreaDto {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string;
  readonly name: string;
  /** Null for the whole of the painting. */
  readonly outline: AreaOutline | null;
  readonly createdAt: string;
  readonly deletedAt: string | null;
  /** What was done with it and stands, in order. */
  readonly deeds: readonly AreaDeedDto[];
}
