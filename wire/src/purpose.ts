import { IN_PLACE, type InPlace } from '@dusk/core';
import { ArrayUnique, IsBoolean, IsIn, IsUUID, ValidateIf } from 'class-validator';
import { LaidSent, PointSent, type AreaOutline, type LaidDto } from './areas.ts';
import { Id, ListOf, Note, ObjectOf, ObjectsOf, Optional, Within } from './fields.ts';
import { MOST_BROKEN, MOST_IN_PLACE, MOST_NEIGHBOURS, MOST_PLACES } from './limits.ts';

/** A pile that another is to stand beside: barely off it, or clear of it, in ΔE00; or so many values apart. */
export class NeighbourSent {
  @Id('A neighbour')
  pileId!: string;

  @Optional()
  @Within('The least difference', 0, 60)
  least?: number;

  @Optional()
  @Within('The most difference', 0, 60)
  most?: number;

  /** Least distance in value steps. */
  @Optional()
  @Within('How many values apart', 0, 10)
  apart?: number;
}

/** A passage that a pile is to be enough for. */
export class PassageSent {
  @Within('The size of a passage in cm²', 0.1, 4_000_000)
  cm2!: number;

  /** Where it was drawn round on the picture, in shares of its sides; left out where its size was said. */
  @Optional()
  @ObjectsOf('The points of a passage', 3, 500, () => PointSent)
  outline?: PointSent[];

  /** Share of it that is left open on purpose, so that what is below shows. */
  @Optional()
  @Within('What is left open', 0, 0.9)
  open?: number;

  /** Share of the paint that is held back. */
  @Optional()
  @Within('What is held back', 0, 0.9)
  heldBack?: number;
}

/** What is added to a pile not on the palette but where it lies: a tube, or another pile, and how much in words. */
export class InPlaceSent {
  @ValidateIf(({ tubeId, pileId }: InPlaceSent) => tubeId !== undefined || pileId === undefined)
  @Id('What is added in place')
  tubeId?: string;

  @Optional()
  @Id('What is added in place')
  pileId?: string;

  @IsIn(IN_PLACE, { message: `In place is added ${IN_PLACE.join(', ')}` })
  said!: InPlace;
}

/** What a pile is for. All absent: nothing is said. */
export class PurposeSent {
  @Optional()
  @Note('The thing', 80)
  thing?: string;

  @Optional()
  @Note('The zone', 40)
  zone?: string;

  /** Samples where it serves besides the one it was kept for. */
  @Optional()
  @ListOf('Places', 0, MOST_PLACES)
  @ArrayUnique({ message: 'A place is named once' })
  @IsUUID(undefined, { each: true, message: 'A place is named by its sample' })
  also?: string[];

  @Optional()
  @ObjectsOf('Neighbours', 0, MOST_NEIGHBOURS, () => NeighbourSent)
  neighbours?: NeighbourSent[];

  /** The pile, long dry or still wet, that it is laid over. */
  @Optional()
  @Id('What it covers')
  overId?: string;

  /** How it is laid there. */
  @Optional()
  @ObjectOf('How it is laid is said in words', () => LaidSent)
  laid?: LaidSent;

  /** What it is to be enough for. */
  @Optional()
  @ObjectOf('A passage is said by its size', () => PassageSent)
  passage?: PassageSent;

  @Optional()
  @ObjectsOf('What is added in place', 1, MOST_IN_PLACE, () => InPlaceSent)
  inPlace?: InPlaceSent[];

  /** The pile that it was mixed first for: what is left of it is a small thing beside that one. */
  @Optional()
  @Id('What it was mixed for')
  leftOf?: string;

  /** What is left of it is kept covered and cold. */
  @Optional()
  @IsBoolean({ message: 'A pile is kept covered or not' })
  covered?: boolean;

  /** Mixed through, or left broken so that streaks show. */
  @Optional()
  @IsBoolean({ message: 'A pile is left broken or not' })
  leftBroken?: boolean;

  /** Tubes and piles of the plan that are to show in it. */
  @Optional()
  @ListOf('What shows in a broken pile', 0, MOST_BROKEN)
  @ArrayUnique({ message: 'What shows is named once' })
  @IsUUID(undefined, { each: true, message: 'What shows is a tube or a pile' })
  showing?: string[];
}

export interface NeighbourDto {
  readonly pileId: string;
  readonly least?: number;
  readonly most?: number;
  readonly apart?: number;
}

export interface PassageDto {
  readonly cm2: number;
  readonly outline?: AreaOutline;
  readonly open?: number;
  readonly heldBack?: number;
}

export interface PurposeDto {
  readonly thing?: string;
  readonly zone?: string;
  readonly also?: readonly string[];
  readonly neighbours?: readonly NeighbourDto[];
  readonly overId?: string;
  readonly laid?: LaidDto;
  readonly passage?: PassageDto;
  readonly inPlace?: readonly { readonly tubeId?: string; readonly pileId?: string; readonly said: InPlace }[];
  readonly leftOf?: string;
  readonly covered?: boolean;
  readonly leftBroken?: boolean;
  readonly showing?: readonly string[];
}
