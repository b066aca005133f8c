import { IsHexColor, IsInt, IsString, IsUUID, Length, Matches, Min } from 'class-validator';
import { Optional } from './optional.ts';

const TITLE = { message: 'The title of a painting has 1 to 120 letters' };
const GROUND = { message: 'The ground is a colour like #b5a48c' };

export class NewPainting {
  @IsString({ message: 'A painting needs a title' })
  @Length(1, 120, TITLE)
  @Matches(/\S/, TITLE)
  title!: string;

  @IsUUID(undefined, { message: 'A painting is made from a palette, named by its id' })
  paletteId!: string;

  @Optional()
  @IsHexColor(GROUND)
  @Matches(/^#[0-9a-f]{6}$/i, GROUND)
  ground?: string;
}

export class PaintingChange {
  @IsInt({ message: 'A change says which version it changes' })
  @Min(1, { message: 'Versions start at 1' })
  version!: number;

  @Optional()
  @IsString({ message: 'A painting needs a title' })
  @Length(1, 120, TITLE)
  @Matches(/\S/, TITLE)
  title?: string;

  @Optional()
  @IsUUID(undefined, { message: 'A palette is named by its id' })
  paletteId?: string;

  @Optional()
  @IsHexColor(GROUND)
  @Matches(/^#[0-9a-f]{6}$/i, GROUND)
  ground?: string;
}

/** A reference picture of a painting. Its bytes are at `/api/pictures/{pictureId}`. */
export interface ReferenceDto {
  readonly id: string;
  readonly pictureId: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly createdAt: string;
}

export interface PaintingDto {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly paletteId: string;
  /** Colour of the toned ground, `#rrggbb`. */
  readonly ground: string;
  readonly references: readonly ReferenceDto[];
  readonly pileCount: number;
  readonly createdAt: string;
  readonly updatedAt: string;
}

/** Largest file that may be sent, in bytes, and most pixels it may hold. */
export const UPLOAD_MOST_BYTES = 40 * 1024 * 1024;
export const UPLOAD_MOST_PIXELS = 64_000_000;
/** Longest side a picture is kept at. */
export const PICTURE_LONGEST_SIDE = 2400;
