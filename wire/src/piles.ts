import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  IsNumber,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { Optional } from './optional.ts';
import type { Basis } from '@dusk/core';

const NAME = { message: 'The name of a pile has 1 to 80 letters' };
const PARTS = { message: 'Parts are a number above 0 and at most 1000' };
const AMOUNT = { message: 'A pile is 0.1 to 500 ml' };
const number = { allowNaN: false, allowInfinity: false };

/** A place in a reference picture, in its pixels. */
export class SampledArea {
  @IsUUID(undefined, { message: 'A reference is named by its id' })
  referenceId!: string;

  @IsNumber(number, { message: 'x is a number of pixels' })
  @Min(0)
  @Max(100_000)
  x!: number;

  @IsNumber(number, { message: 'y is a number of pixels' })
  @Min(0)
  @Max(100_000)
  y!: number;

  @IsNumber(number, { message: 'The radius is a number of pixels' })
  @Min(0)
  @Max(2000)
  radius!: number;
}

/** The colour a pile is meant to have: CIELAB under D65. */
export class TargetColour {
  @IsNumber(number, { message: 'L is a number from 0 to 100' })
  @Min(0)
  @Max(100, { message: 'L is a number from 0 to 100' })
  L!: number;

  @IsNumber(number, { message: 'a is a number from −150 to 150' })
  @Min(-150)
  @Max(150)
  a!: number;

  @IsNumber(number, { message: 'b is a number from −150 to 150' })
  @Min(-150)
  @Max(150)
  b!: number;
}

/** Parts of a tube inside a let-down. */
export class LetdownMeasure {
  @IsUUID(undefined, { message: 'A tube is named by its id' })
  tubeId!: string;

  @IsNumber(number, PARTS)
  @Min(0.0001, PARTS)
  @Max(1000, PARTS)
  parts!: number;
}

/** Parts of one ingredient: a tube, or a let-down made of tubes first. */
export class PileMeasure {
  @IsNumber(number, PARTS)
  @Min(0.0001, PARTS)
  @Max(1000, PARTS)
  parts!: number;

  @ValidateIf((m: PileMeasure) => m.letdown === undefined)
  @IsUUID(undefined, { message: 'An ingredient is a tube, named by its id, or a let-down' })
  tubeId?: string;

  @Optional()
  @IsArray({ message: 'A let-down is a list of tubes and parts' })
  @ArrayMinSize(1)
  @ArrayMaxSize(6, { message: 'A let-down is made of at most 6 tubes' })
  @ValidateNested({ each: true })
  @Type(() => LetdownMeasure)
  letdown?: LetdownMeasure[];
}

export class NewPile {
  @IsString({ message: 'A pile needs a name' })
  @Length(1, 80, NAME)
  @Matches(/\S/, NAME)
  name!: string;

  @ValidateNested()
  @Optional()
  @Type(() => TargetColour)
  target?: TargetColour;

  @ValidateNested()
  @Optional()
  @Type(() => SampledArea)
  sampled?: SampledArea;

  @IsArray({ message: 'A pile is made of tubes' })
  @ArrayMinSize(1, { message: 'A pile is made of at least one tube' })
  @ArrayMaxSize(24, { message: 'A pile is made of at most 24 ingredients' })
  @ValidateNested({ each: true })
  @Type(() => PileMeasure)
  measures!: PileMeasure[];

  @Optional()
  @IsNumber(number, AMOUNT)
  @Min(0.1, AMOUNT)
  @Max(500, AMOUNT)
  amountMl?: number;
}

export class PileChange {
  @IsInt({ message: 'A change says which version it changes' })
  @Min(1, { message: 'Versions start at 1' })
  version!: number;

  @Optional()
  @IsString({ message: 'A pile needs a name' })
  @Length(1, 80, NAME)
  @Matches(/\S/, NAME)
  name?: string;

  @Optional()
  @IsNumber(number, AMOUNT)
  @Min(0.1, AMOUNT)
  @Max(500, AMOUNT)
  amountMl?: number;

  /** Another recipe for the same target, as chosen among the alternatives. */
  @Optional()
  @IsArray({ message: 'A pile is made of tubes' })
  @ArrayMinSize(1, { message: 'A pile is made of at least one tube' })
  @ArrayMaxSize(24, { message: 'A pile is made of at most 24 ingredients' })
  @ValidateNested({ each: true })
  @Type(() => PileMeasure)
  measures?: PileMeasure[];
}

export interface LabDto {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

/** A measure as it was recorded, with the state of each tube's curves it rested on. */
export interface PileMeasureDto {
  readonly parts: number;
  readonly tubeId?: string;
  readonly stateId?: string;
  readonly letdown?: readonly { readonly tubeId: string; readonly stateId: string; readonly parts: number }[];
}

export interface PileDto {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string;
  readonly name: string;
  readonly amountMl: number;
  readonly target: LabDto | null;
  readonly sampled: { readonly referenceId: string; readonly x: number; readonly y: number; readonly radius: number } | null;
  readonly measures: readonly PileMeasureDto[];
  /** As predicted when the recipe was kept. */
  readonly predicted: LabDto;
  /** Munsell value of the prediction. */
  readonly value: number;
  readonly temperature: number;
  readonly deltaE00: number | null;
  readonly steadiness: number;
  /** The least sure of the curves it rests on. */
  readonly basis: Basis;
  readonly createdAt: string;
  readonly updatedAt: string;
}
