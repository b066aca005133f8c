import { ArrayUnique, IsUUID } from 'class-validator';
import { Id, ListOf, Moment, Note, Nullable, Optional, Version } from './fields.ts';

const GUESTS = 'The tubes that joined a sitting';

/** What may be said of a sitting; all of it later, nothing of it need be. */
class SittingSaid {
  @Nullable()
  @Id('The palette of a sitting')
  paletteId?: string | null;

  @Optional()
  @Note('The light', 40)
  light?: string;

  /** Tubes that joined the palette for this sitting alone. */
  @Optional()
  @ListOf(GUESTS, 0, 24)
  @ArrayUnique({ message: `${GUESTS} are named once each` })
  @IsUUID(undefined, { each: true, message: 'Each tube is named by its id' })
  guests?: string[];

  @Optional()
  @Note('A note', 2000)
  note?: string;
}

/** A sitting that is said to begin; one begins by itself with the first deed of a day. */
export class NewSitting extends SittingSaid {
  @Id('A sitting')
  id!: string;

  @Optional()
  @Moment()
  openedAt?: string;
}

export class SittingChange extends SittingSaid {
  @Id('A sitting')
  id!: string;

  @Version()
  version!: number;

  /** Null for one that goes on. */
  @Nullable()
  @Moment()
  closedAt?: string | null;
}

export interface SittingDto {
  readonly id: string;
  readonly version: number;
  readonly paletteId: string | null;
  readonly openedAt: string;
  /** Null until somebody says that it is over; it is over as well when nothing was done for some hours. */
  readonly closedAt: string | null;
  readonly light: string;
  readonly guests: readonly string[];
  readonly note: string;
  readonly deletedAt: string | null;
}
