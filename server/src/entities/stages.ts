import type { Sight, Stage as EvidenceStage } from '@dusk/core';
import type { AreaDeed, LaidSent, MixtureDto, StageKind } from '@dusk/wire';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { Area } from './areas.ts';
import { Pile } from './piles.ts';
import { Sitting } from './sittings.ts';
import { Tube, TubeState } from './tubes.ts';

interface LabColumn {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

/** Something that was done with a pile or with an area, all in one order. Never changed but for `withdrawnAt`: a trigger says so. */
@Entity({ name: 'stage' })
export class Stage {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_stage' })
  id!: string;

  /** Its place in the order of all stages. */
  @Index('ux_stage_n', { unique: true })
  @Column('integer')
  n!: number;

  /** Of a pile, or else of an area. */
  @Index('ix_stage_pile')
  @Column('text', { nullable: true })
  pileId!: string | null;

  @ManyToOne(() => Pile, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'pileId', foreignKeyConstraintName: 'fk_stage_pile' })
  pile?: Relation<Pile>;

  @Index('ix_stage_area')
  @Column('text', { nullable: true })
  areaId!: string | null;

  @ManyToOne(() => Area, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'areaId', foreignKeyConstraintName: 'fk_stage_area' })
  area?: Relation<Area>;

  /** The sitting it was done in; null where nobody recorded sittings yet. */
  @Index('ix_stage_sitting')
  @Column('text', { nullable: true })
  sittingId!: string | null;

  @ManyToOne(() => Sitting, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'sittingId', foreignKeyConstraintName: 'fk_stage_sitting' })
  sitting?: Relation<Sitting>;

  @Column('text')
  kind!: StageKind | AreaDeed;

  /** How paint was laid on an area, in words. */
  @Column('simple-json', { nullable: true })
  laid!: Partial<LaidSent> | null;

  /** How an area was to the touch. */
  @Column('text', { nullable: true })
  touch!: string | null;

  /** Millilitres that are left, where it was said. */
  @Column('real', { nullable: true })
  left!: number | null;

  @Column('text')
  at!: string;

  /** The pile's colour after it, as predicted then; null where its tubes are not all known. */
  @Column('simple-json', { nullable: true })
  predicted!: LabColumn | null;

  @Column('text', { nullable: true })
  withdrawnAt!: string | null;
}

/** Paint that went into a pile at a stage: of a tube in a state, or of a pile at a stage. Never changed. */
@Entity({ name: 'addition' })
export class Addition {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_addition' })
  id!: string;

  @Index('ix_addition_stage')
  @Column('text')
  stageId!: string;

  @ManyToOne(() => Stage, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'stageId', foreignKeyConstraintName: 'fk_addition_stage' })
  stage?: Relation<Stage>;

  @Column('integer')
  position!: number;

  @Index('ix_addition_tube')
  @Column('text', { nullable: true })
  tubeId!: string | null;

  @ManyToOne(() => Tube, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'tubeId', foreignKeyConstraintName: 'fk_addition_tube' })
  tube?: Relation<Tube>;

  @Index('ix_addition_state')
  @Column('text', { nullable: true })
  stateId!: string | null;

  @ManyToOne(() => TubeState, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'stateId', foreignKeyConstraintName: 'fk_addition_state' })
  state?: Relation<TubeState>;

  @Index('ix_addition_source')
  @Column('text', { nullable: true })
  sourceId!: string | null;

  @ManyToOne(() => Stage, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'sourceId', foreignKeyConstraintName: 'fk_addition_source' })
  source?: Relation<Stage>;

  @Column('real')
  ml!: number;

  @Column('real')
  low!: number;

  @Column('real')
  high!: number;

  @Column('text', { nullable: true })
  said!: string | null;
}

/** One session of looking: a light, a way of looking, and the white all its looks share. Never changed. */
@Entity({ name: 'sighting' })
export class Sighting {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_sighting' })
  id!: string;

  @Column('text')
  kind!: Sight;

  @Column('text', { nullable: true })
  light!: string | null;

  @Column('simple-json', { nullable: true })
  white!: LabColumn | null;

  @Column('text')
  at!: string;
}

/** What a swatch that holds a tube looked like, CIELAB D65. Never changed but for `withdrawnAt`. */
@Entity({ name: 'reading' })
export class Reading {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_reading' })
  id!: string;

  @Index('ix_reading_sighting')
  @Column('text')
  sightingId!: string;

  @ManyToOne(() => Sighting, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'sightingId', foreignKeyConstraintName: 'fk_reading_sighting' })
  sighting?: Relation<Sighting>;

  @Index('ix_reading_tube')
  @Column('text')
  tubeId!: string;

  @ManyToOne(() => Tube, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'tubeId', foreignKeyConstraintName: 'fk_reading_tube' })
  tube?: Relation<Tube>;

  @Column('simple-json')
  patch!: MixtureDto;

  @Column('simple-json')
  lab!: LabColumn;

  /** 36 bands from 380 nm; null where only a colour was read. */
  @Column('simple-json', { nullable: true })
  spectrum!: readonly number[] | null;

  /** How thick it lies over white; null where it covers. */
  @Column('real', { nullable: true })
  filmUm!: number | null;

  @Column('text')
  at!: string;

  @Column('text', { nullable: true })
  withdrawnAt!: string | null;
}

/** How a pile looked at a stage, CIELAB D65. Never changed but for `withdrawnAt`. */
@Entity({ name: 'look' })
export class Look {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_look' })
  id!: string;

  @Index('ix_look_sighting')
  @Column('text')
  sightingId!: string;

  @ManyToOne(() => Sighting, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'sightingId', foreignKeyConstraintName: 'fk_look_sighting' })
  sighting?: Relation<Sighting>;

  @Index('ix_look_stage')
  @Column('text')
  stageId!: string;

  @ManyToOne(() => Stage, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'stageId', foreignKeyConstraintName: 'fk_look_stage' })
  stage?: Relation<Stage>;

  @Column('real')
  L!: number;

  @Column('real')
  a!: number;

  @Column('real')
  b!: number;

  @Column('text', { nullable: true })
  said!: string | null;

  /** The painter has confirmed it: it is this pile, in this light, however strange. */
  @Column('boolean', { default: false })
  confirmed!: boolean;

  @Column('text')
  at!: string;

  @Column('text', { nullable: true })
  withdrawnAt!: string | null;
}

/** A stage of evidence; the look that observed it is named, so that it can be left out. */
export interface EvidenceWithLooks extends EvidenceStage {
  readonly lookId?: string;
}

/**
 * What a look says about tubes: the doses of its pile so far with all its looks. Never changed but for
 * `refusedAt`. What is believed is the fold of all evidence that is not refused.
 */
@Entity({ name: 'belief' })
export class Belief {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_belief' })
  id!: string;

  @Index('ux_belief_look', { unique: true })
  @Column('text')
  lookId!: string;

  @ManyToOne(() => Look, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'lookId', foreignKeyConstraintName: 'fk_belief_look' })
  look?: Relation<Look>;

  @Column('simple-json')
  evidence!: readonly EvidenceWithLooks[];

  @Column('text')
  at!: string;

  @Column('text', { nullable: true })
  refusedAt!: string | null;
}
