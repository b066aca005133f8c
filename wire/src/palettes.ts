import { ArrayUnique, IsBoolean, IsUUID } from 'class-validator';
import { PALETTE_MOST_TUBES } from './limits.ts';
import { Id, ListOf, Nullable, Optional, Version, Words } from './fields.ts';

const TUBES = `The tubes of a palette`;
const DIFFERENT = { message: 'A palette holds each tube once' };
const EACH = { each: true, message: 'Each tube is named by its id' };

export class NewPalette {
  @Id('A palette')
  id!: string;

  @Words('The name of a palette', 80)
  name!: string;

  @ListOf(TUBES, 1, PALETTE_MOST_TUBES)
  @ArrayUnique(DIFFERENT)
  @IsUUID(undefined, EACH)
  tubeIds!: string[];
}

export class PaletteChange {
  @Id('A palette')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The name of a palette', 80)
  name?: string;

  @Optional()
  @ListOf(TUBES, 1, PALETTE_MOST_TUBES)
  @ArrayUnique(DIFFERENT)
  @IsUUID(undefined, EACH)
  tubeIds?: string[];

  /** The white that is laid thick in the lights, where others are for tints; null for none. */
  @Nullable()
  @Id('The white for the lights')
  lightsWhiteId?: string | null;

  /** Darks are mixed: a tube black that lies there is for other things. */
  @Optional()
  @IsBoolean({ message: 'Darks are mixed, or not' })
  mixedDarks?: boolean;

  /** Tubes that lie there for one sitting. */
  @Optional()
  @ListOf('Tubes for one sitting', 0, PALETTE_MOST_TUBES)
  @ArrayUnique(DIFFERENT)
  @IsUUID(undefined, EACH)
  guestIds?: string[];
}

export interface PaletteDto {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly tubeIds: readonly string[];
  /** The white that is laid thick in the lights; the others are for tints. */
  readonly lightsWhiteId: string | null;
  readonly mixedDarks: boolean;
  /** Of its tubes those that lie there for one sitting. */
  readonly guestIds: readonly string[];
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}
