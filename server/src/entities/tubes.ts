import type { Basis, Drying, Lightfastness } from '@dusk/core';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';

/** A tube as bought, or a generic pigment of the catalogue (maker empty). */
@Entity({ name: 'tube' })
export class Tube {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_tube' })
  id!: string;

  @Column('text')
  name!: string;

  @Column('text')
  maker!: string;

  @Column('integer', { default: 1 })
  version!: number;

  /** The first of its pigments, by which it is looked for. */
  @Index('ix_tube_pigment')
  @Column('text')
  pigment!: string;

  /** Slugs of the catalogue, or what stands on the label. */
  @Column('simple-json', { default: '[]' })
  pigments!: readonly string[];

  @Column('real')
  nozzleMm!: number;

  /** Of this very tube; null where it is as its pigment usually is. */
  @Column('real', { nullable: true })
  density!: number | null;

  @Column('text', { nullable: true })
  drying!: Drying | null;

  @Column('text', { nullable: true })
  lightfastness!: Lightfastness | null;

  @Column('text', { nullable: true })
  caution!: string | null;

  @Column('real', { nullable: true })
  sizeMl!: number | null;

  @Column('real', { nullable: true })
  leftMl!: number | null;

  @Column('text', { default: '' })
  note!: string;

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;

  /** The state it is reckoned with today. */
  @Index('ix_tube_state_today')
  @Column('text', { nullable: true })
  stateId!: string | null;

  @ManyToOne(() => TubeState, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'stateId', foreignKeyConstraintName: 'fk_tube_state_today' })
  state?: Relation<TubeState>;
}

/** What piles taught of a tube, beside the curves that follow from it. */
export interface LearntNumbers {
  readonly strength: number;
  readonly within: number;
  readonly shiftNm: number;
  readonly piles: number;
}

/** What was known of a tube's curves from some day on. Rows are added, never changed: a trigger says so. */
@Entity({ name: 'tube_state' })
@Index('ix_tube_state_beneath', ['tubeId'], { where: `"basis" <> 'learnt'` })
export class TubeState {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_tube_state' })
  id!: string;

  @Index('ix_tube_state_tube')
  @Column('text')
  tubeId!: string;

  @ManyToOne(() => Tube, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'tubeId', foreignKeyConstraintName: 'fk_tube_state_tube' })
  tube?: Relation<Tube>;

  @Column('text')
  basis!: Basis;

  /** Where the curves come from, as `catalogue typical-1`. */
  @Column('text')
  source!: string;

  /** The state it was learnt over, itself not learnt; only of a learnt state. */
  @Index('ix_tube_state_base')
  @Column('text', { nullable: true })
  baseId!: string | null;

  @ManyToOne(() => TubeState, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'baseId', foreignKeyConstraintName: 'fk_tube_state_base' })
  base?: Relation<TubeState>;

  /** What taught it last; only of a learnt state. */
  @Index('ix_tube_state_belief')
  @Column('text', { nullable: true })
  beliefId!: string | null;

  @ManyToOne('Belief', { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'beliefId', foreignKeyConstraintName: 'fk_tube_state_belief' })
  belief?: Relation<{ readonly id: string }>;

  @Column('simple-json', { nullable: true })
  learnt!: LearntNumbers | null;

  @Column('simple-json')
  K!: number[];

  @Column('simple-json')
  S!: number[];

  /** What is still open of a taught tube; null of any other. */
  @Column('simple-json', { nullable: true })
  doubt!: readonly (readonly number[])[] | null;

  @Column('text')
  createdAt!: string;
}
