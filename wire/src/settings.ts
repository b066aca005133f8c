import { IsIn, IsInt } from 'class-validator';
import { ListOfWords, Note, Nullable, Optional, Version, Within } from './fields.ts';
import { ROOMS, SURROUNDS, type Room, type Surround } from './limits.ts';
import {
  COARSEST_KNIFE,
  DULLING,
  FINEST_KNIFE,
  LEAST_AMOUNT_ML,
  MEASURES,
  MOST_AMOUNT_ML,
  VALUE_SCALES,
  type Dulling,
  type Measure,
  type ValueScale,
  type WarmBlue,
} from '@dusk/core';

const WARM_BLUES = ['red-leaning', 'green-leaning'] as const;

/** How this painter thinks; every field may be changed alone. */
export class SettingsChange {
  @Version()
  version!: number;

  @Optional()
  @IsIn(VALUE_SCALES, { message: `The value scale is one of ${VALUE_SCALES.join(', ')}` })
  valueScale?: ValueScale;

  @Optional()
  @IsIn(WARM_BLUES, { message: `The warm blue is one of ${WARM_BLUES.join(', ')}` })
  warmBlue?: WarmBlue;

  @Optional()
  @IsIn(SURROUNDS, { message: `The surround is one of ${SURROUNDS.join(', ')}` })
  surround?: Surround;

  @Optional()
  @IsIn(ROOMS, { message: `The room is one of ${ROOMS.join(', ')}` })
  room?: Room;

  /** Half-width of what a dose by knife may be off, as a share of itself. */
  @Optional()
  @Within('The knife', FINEST_KNIFE, COARSEST_KNIFE)
  knife?: number;

  @Optional()
  @IsIn(DULLING, { message: `A way of dulling is one of ${DULLING.join(', ')}` })
  dulling?: Dulling;

  /** The way of measuring in which recipes are told. */
  @Optional()
  @IsIn(MEASURES, { message: `A way of measuring is one of ${MEASURES.join(', ')}` })
  measure?: Measure;

  /** How large a pile is unless it is said, ml. */
  @Optional()
  @Within('The usual pile', LEAST_AMOUNT_ML, MOST_AMOUNT_ML)
  amountMl?: number;

  /** Difference between two steps of a string that an eye can tell, and one that it does not jump, ΔE00. */
  @Optional()
  @Within('The least step', 0, 20)
  stepLeast?: number;

  @Optional()
  @Within('The largest step', 1, 60)
  stepMost?: number;

  /** Folder of the daily copies; empty: beside the studio. */
  @Optional()
  @Note('The folder of copies', 400)
  copiesFolder?: string;

  @Optional()
  @Within('How many copies are kept', 0, 365)
  @IsInt({ message: 'How many copies are kept is a whole number' })
  copiesKept?: number;

  /** How warm the room is in which paint dries, °C; null where nobody knows. */
  @Nullable()
  @Within('The room', -5, 45)
  temperatureC?: number | null;

  /** The painter's own short list of what is seen to before a painting is finished; empty for the usual one. */
  @Optional()
  @ListOfWords('The lines of the list for a finished painting', 0, 40, 'A line of the list', 120)
  finishing?: readonly string[];
}

export interface SettingsDto {
  readonly id: string;
  readonly version: number;
  readonly valueScale: ValueScale;
  readonly warmBlue: WarmBlue;
  readonly surround: Surround;
  readonly room: Room;
  readonly knife: number;
  readonly dulling: Dulling;
  readonly measure: Measure;
  readonly amountMl: number;
  readonly stepLeast: number;
  readonly stepMost: number;
  readonly copiesFolder: string;
  readonly copiesKept: number;
  readonly temperatureC: number | null;
  readonly finishing: readonly string[];
}
