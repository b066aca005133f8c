import { ArrayMaxSize, ArrayMinSize, ArrayUnique, IsArray, IsInt, IsString, IsUUID, Length, Matches, Min } from 'class-validator';
import { Optional } from './optional.ts';

export const PALETTE_MOST_TUBES = 12;

const NAME = { message: 'The name of a palette has 1 to 80 letters' };
const tubeIds = { message: `A palette holds 1 to ${PALETTE_MOST_TUBES} different tubes` };

export class NewPalette {
  @IsString({ message: 'A palette needs a name' })
  @Length(1, 80, NAME)
  @Matches(/\S/, NAME)
  name!: string;

  @IsArray(tubeIds)
  @ArrayMinSize(1, tubeIds)
  @ArrayMaxSize(PALETTE_MOST_TUBES, tubeIds)
  @ArrayUnique(tubeIds)
  @IsUUID(undefined, { each: true, message: 'Each tube is named by its id' })
  tubeIds!: string[];
}

export class PaletteChange {
  @IsInt({ message: 'A change says which version it changes' })
  @Min(1, { message: 'Versions start at 1' })
  version!: number;

  @Optional()
  @IsString({ message: 'A palette needs a name' })
  @Length(1, 80, NAME)
  @Matches(/\S/, NAME)
  name?: string;

  @Optional()
  @IsArray(tubeIds)
  @ArrayMinSize(1, tubeIds)
  @ArrayMaxSize(PALETTE_MOST_TUBES, tubeIds)
  @ArrayUnique(tubeIds)
  @IsUUID(undefined, { each: true, message: 'Each tube is named by its id' })
  tubeIds?: string[];
}

export interface PaletteDto {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly tubeIds: readonly string[];
  readonly createdAt: string;
  readonly updatedAt: string;
}
