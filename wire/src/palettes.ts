import { ArrayUnique, IsUUID } from 'class-validator';
import { PALETTE_MOST_TUBES } from './limits.ts';
import { Id, ListOf, Optional, Version, Words } from './fields.ts';

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
}

export interface PaletteDto {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly tubeIds: readonly string[];
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}
