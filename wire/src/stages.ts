import { SIGHTS, type Sight } from '@dusk/core';
import { IsBoolean, IsIn, ValidateIf } from 'class-validator';
import { LabSent } from './colours.ts';
import type { LabDto } from './written.ts';
import { Id, Moment, Note, ObjectOf, ObjectsOf, Optional, Within } from './fields.ts';

/** What can be done with a pile. */
export const STAGE_KINDS = ['mixed', 'added', 'changed', 'left', 'scraped'] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

const LEAST_ML = 1e-6;
const MOST_ML = 5000;

/** Paint that went into a pile: of a tube in a state, or of a pile at a stage. */
export class AdditionSent {
  @Id('An addition')
  id!: string;

  @Optional()
  @Id('A tube')
  tubeId?: string;

  @ValidateIf(({ tubeId, stateId }: AdditionSent) => tubeId !== undefined || stateId !== undefined)
  @Id('The state of a tube that was reckoned with')
  stateId?: string;

  @ValidateIf(({ tubeId, stageId }: AdditionSent) => tubeId === undefined || stageId !== undefined)
  @Id('What is added, a tube or a pile at its stage,')
  stageId?: string;

  @Within('Millilitres', LEAST_ML, MOST_ML)
  ml!: number;

  /** Between which amounts it lies, where it is not known exactly. */
  @Within('Millilitres at least', LEAST_ML / 100, MOST_ML)
  low!: number;

  @Within('Millilitres at most', LEAST_ML, MOST_ML * 20)
  high!: number;

  /** As the painter said it: `a touch`, `3 parts`, `12 mm`. */
  @Optional()
  @Note('What was said', 40)
  said?: string;
}

/** Something that was done with a pile; never changed once it is recorded. */
export class NewStage {
  @Id('A stage')
  id!: string;

  @Id('A pile')
  pileId!: string;

  @IsIn(STAGE_KINDS, { message: `What is done with a pile is ${STAGE_KINDS.join(', ')}` })
  kind!: StageKind;

  @ObjectsOf('The additions of a stage', 0, 24, () => AdditionSent)
  additions!: AdditionSent[];

  /** How much is left of the pile, where it is said. */
  @Optional()
  @Within('What is left', 0, MOST_ML)
  left?: number;

  @Optional()
  @Moment()
  at?: string;
}

/** A row that has no version: what was done or seen, or believed. */
export class ById {
  @Id('What is changed')
  id!: string;
}

/** One session of looking: a light, a way of looking, and the white that its looks share. */
export class NewSighting {
  @Id('A sighting')
  id!: string;

  @IsIn(SIGHTS, { message: `Piles are looked at by ${SIGHTS.join(', ')}` })
  kind!: Sight;

  @Optional()
  @Note('The light', 40)
  light?: string;

  /** What a blank chip on the screen had to be to look like white paper. */
  @Optional()
  @ObjectOf('The white is a colour', () => LabSent)
  white?: LabSent;

  @Optional()
  @Moment()
  at?: string;
}

/** How a pile looked at a stage. */
export class NewLook {
  @Id('A look')
  id!: string;

  @Id('A sighting')
  sightingId!: string;

  @Id('A stage of a pile')
  stageId!: string;

  @ObjectOf('A look is a colour', () => LabSent)
  lab!: LabSent;

  @Optional()
  @Note('What was said', 120)
  said?: string;

  /** It is this pile, in this light, however strange it looks. */
  @Optional()
  @IsBoolean({ message: 'A look is confirmed or not' })
  confirmed?: boolean;

  @Optional()
  @Moment()
  at?: string;
}

export interface AdditionDto {
  readonly id: string;
  readonly tubeId: string | null;
  readonly stateId: string | null;
  readonly stageId: string | null;
  readonly ml: number;
  readonly low: number;
  readonly high: number;
  readonly said: string | null;
}

export interface LookDto {
  readonly id: string;
  readonly sightingId: string;
  readonly kind: Sight;
  readonly lab: LabDto;
  readonly said: string | null;
  readonly confirmed: boolean;
  readonly at: string;
  /** What it taught, and whether that was refused; null where it could teach nothing. */
  readonly beliefId: string | null;
  readonly refused: boolean;
}

export interface StageDto {
  readonly id: string;
  readonly n: number;
  readonly kind: StageKind;
  readonly at: string;
  readonly left: number | null;
  /** The pile's colour after it, as predicted then; null where its tubes are not all known. */
  readonly predicted: LabDto | null;
  readonly additions: readonly AdditionDto[];
  readonly looks: readonly LookDto[];
}

export interface SightingDto {
  readonly id: string;
  readonly kind: Sight;
  readonly light: string | null;
  readonly white: LabDto | null;
  readonly at: string;
}
