import { MOST_IN_STRING, type Basis } from '@dusk/core';
import { IsIn, IsInt, ValidateIf } from 'class-validator';
import { LabSent } from './colours.ts';
import type { LabDto } from './written.ts';
import { Id, Nullable, ObjectOf, Optional, PlainFields, Version, Within, Words } from './fields.ts';
import { MixtureSent } from './mixtures.ts';
import type { MixtureDto } from './written.ts';
import { PILE_FIELDS } from './pileFields.ts';
import type { PlainSent, PlainValues } from './plain.ts';
import { PurposeSent, type PurposeDto } from './purpose.ts';
import type { StageDto } from './stages.ts';

/** What a pile is meant to be: a colour, a value alone, or another pile moved by steps. */
export const TARGET_KINDS = ['absolute', 'value', 'relative'] as const;
export type TargetKind = (typeof TARGET_KINDS)[number];

/** Steps by which a relative target differs from its pile. */
export class ShiftSent {
  @Optional()
  @Within('Steps of value', -10, 10)
  value?: number;

  @Optional()
  @Within('Steps of chroma', -30, 30)
  chroma?: number;

  @Optional()
  @Within('Steps of hue', -20, 20)
  hue?: number;

  @Optional()
  @Within('Steps of temperature', -100, 100)
  temperature?: number;
}

/** The target of a pile, with the colour it comes to. */
export class TargetSent {
  @IsIn(TARGET_KINDS, { message: `A target is ${TARGET_KINDS.join(', ')}` })
  kind!: TargetKind;

  @ObjectOf('A target says which colour it comes to', () => LabSent)
  lab!: LabSent;

  /** Of a relative target: the pile it starts from, and the steps. */
  @ValidateIf(({ kind, pileId }: TargetSent) => kind === 'relative' || pileId !== undefined)
  @Id('The pile a target is relative to')
  pileId?: string;

  @ValidateIf(({ kind, by }: TargetSent) => kind === 'relative' || by !== undefined)
  @ObjectOf('A relative target says by which steps', () => ShiftSent)
  by?: ShiftSent;
}

export interface TargetDto {
  readonly kind: TargetKind;
  readonly lab: LabDto;
  readonly pileId?: string;
  readonly by?: { readonly value?: number; readonly chroma?: number; readonly hue?: number; readonly temperature?: number };
}

const ML = [0.1, 500] as const;

/* eslint-disable @typescript-eslint/no-unsafe-declaration-merging, @typescript-eslint/no-empty-object-type -- its plain fields are those of the table */
/** What is said of a pile beyond its colour and its plan. */
@PlainFields(PILE_FIELDS)
class Said {
  @Optional()
  @ObjectOf('What a pile is for', () => PurposeSent)
  purpose?: PurposeSent;
}
interface Said extends PlainSent<typeof PILE_FIELDS> {}

/** Where a pile stands in a string. */
export class InString {
  @Id('A string')
  id!: string;

  @IsInt({ message: 'A place in a string is a whole number' })
  @Within('A place in a string', 1, MOST_IN_STRING)
  at!: number;
}

export class NewPile extends Said {
  @Id('A pile')
  id!: string;

  @Nullable()
  @Id('A painting')
  paintingId?: string | null;

  /** The pile it is to be the same colour as, mixed anew. */
  @Optional()
  @Id('A pile')
  remakeOfId?: string;

  /** The card it is mixed by. */
  @Optional()
  @Id('A card')
  cardId?: string;

  @Words('The name of a pile', 80)
  name!: string;

  @Optional()
  @ObjectOf('A target is a colour', () => TargetSent)
  target?: TargetSent;

  @Optional()
  @Id('A sample')
  sampleId?: string;

  @ObjectOf('A pile has a plan', () => MixtureSent)
  plan!: MixtureSent;

  @Within('The millilitres of a pile', ...ML)
  ml!: number;

  @Optional()
  @ObjectOf('A pile stands in a string by its place', () => InString)
  string?: InString;
}

export class PileChange extends Said {
  @Id('A pile')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The name of a pile', 80)
  name?: string;

  @Nullable()
  @ObjectOf('A target is a colour', () => TargetSent)
  target?: TargetSent | null;

  @Optional()
  @ObjectOf('A pile has a plan', () => MixtureSent)
  plan?: MixtureSent;

  @Optional()
  @Within('The millilitres of a pile', ...ML)
  ml?: number;

  /** Null takes it out of its string. */
  @Nullable()
  @ObjectOf('A pile stands in a string by its place', () => InString)
  string?: InString | null;
}

/** What the plan gives, as predicted when it was kept. */
export interface PredictionDto {
  readonly lab: LabDto;
  /** How far ΔE00 moves when each part is a tenth too much. */
  readonly steadiness: number;
  /** The least sure of the curves it rests on. */
  readonly basis: Basis;
}

export interface PileDto extends PlainValues<typeof PILE_FIELDS> {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string | null;
  readonly remakeOfId: string | null;
  readonly cardId: string | null;
  readonly name: string;
  readonly target: TargetDto | null;
  readonly sampleId: string | null;
  readonly purpose: PurposeDto;
  readonly string: { readonly id: string; readonly at: number } | null;
  readonly plan: MixtureDto;
  /** How large it is meant to be. */
  readonly ml: number;
  readonly predicted: PredictionDto;
  /** What was done, living stages only, oldest first. */
  readonly stages: readonly StageDto[];
  /** How much of it there is now. */
  readonly there: number;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}
