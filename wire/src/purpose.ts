import { ArrayUnique, IsBoolean, IsUUID } from 'class-validator';
import { Id, ListOf, Note, ObjectsOf, Optional, Within } from './fields.ts';
import { MOST_BROKEN, MOST_NEIGHBOURS, MOST_PLACES } from './limits.ts';

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

  /** The pile that it was mixed first for: what is left of it is a small thing beside that one. */
  @Optional()
  @Id('What it was mixed for')
  leftOf?: string;

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

export interface PurposeDto {
  readonly thing?: string;
  readonly zone?: string;
  readonly also?: readonly string[];
  readonly neighbours?: readonly NeighbourDto[];
  readonly overId?: string;
  readonly leftOf?: string;
  readonly leftBroken?: boolean;
  readonly showing?: readonly string[];
}
