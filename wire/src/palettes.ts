import { ArrayMaxSize, ArrayMinSize, ArrayUnique, IsArray, IsInt, IsOptional, IsString, IsUUID, Length, Min } from 'class-validator';

export const PALETTE_MOST_TUBES = 12;

const tubeIds = { message: `A palette holds 1 to ${PALETTE_MOST_TUBES} different tubes` };

export class NewPalette {
  @IsString({ message: 'A palette needs a name' })
  @Length(1, 80, { message: 'The name of a palette has 1 to 80 letters' })
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

  @IsOptional()
  @IsString({ message: 'A palette needs a name' })
  @Length(1, 80, { message: 'The name of a palette has 1 to 80 letters' })
  name?: string;

  @IsOptional()
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
