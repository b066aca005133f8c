import type { Basis } from '@dusk/core';
import { Column, Entity, Index, JoinColumn, ManyToOne, OneToMany, PrimaryColumn, type Relation } from 'typeorm';
import { Painting, Reference } from './paintings.ts';
import { Tube, TubeState } from './tubes.ts';

/** An amount of mixed paint: what it is made of, what it was meant to be, what was predicted then. */
@Entity({ name: 'pile' })
export class Pile {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_pile' })
  id!: string;

  @Column('integer')
  version!: number;

  @Index('ix_pile_painting')
  @Column('text')
  paintingId!: string;

  @ManyToOne(() => Painting, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'paintingId', foreignKeyConstraintName: 'fk_pile_painting' })
  painting?: Relation<Painting>;

  @Column('text')
  name!: string;

  @Column('real')
  amountMl!: number;

  /** CIELAB, D65. */
  @Column('real', { nullable: true })
  targetL!: number | null;

  @Column('real', { nullable: true })
  targetA!: number | null;

  @Column('real', { nullable: true })
  targetB!: number | null;

  @Index('ix_pile_sampled_reference')
  @Column('text', { nullable: true })
  sampledReferenceId!: string | null;

  @ManyToOne(() => Reference, { onDelete: 'SET NULL' })
  @JoinColumn({ name: 'sampledReferenceId', foreignKeyConstraintName: 'fk_pile_reference' })
  sampledReference?: Relation<Reference>;

  @Column('real', { nullable: true })
  sampledX!: number | null;

  @Column('real', { nullable: true })
  sampledY!: number | null;

  @Column('real', { nullable: true })
  sampledRadius!: number | null;

  @Column('real')
  predictedL!: number;

  @Column('real')
  predictedA!: number;

  @Column('real')
  predictedB!: number;

  @Column('real')
  value!: number;

  @Column('real')
  temperature!: number;

  @Column('real', { nullable: true })
  deltaE00!: number | null;

  @Column('real')
  steadiness!: number;

  @Column('text')
  basis!: Basis;

  @OneToMany(() => PileMeasure, (measure) => measure.pile)
  measures?: Relation<PileMeasure[]>;

  @Column('text')
  createdAt!: string;

  @Column('text')
  updatedAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}

/** Parts of a tube in a pile, or of a let-down whose own tubes point back at it. */
@Entity({ name: 'pile_measure' })
export class PileMeasure {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_pile_measure' })
  id!: string;

  @Index('ix_pile_measure_pile')
  @Column('text')
  pileId!: string;

  @ManyToOne(() => Pile, (pile) => pile.measures, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'pileId', foreignKeyConstraintName: 'fk_pile_measure_pile' })
  pile?: Relation<Pile>;

  @Column('integer')
  position!: number;

  @Column('real')
  parts!: number;

  @Index('ix_pile_measure_tube')
  @Column('text', { nullable: true })
  tubeId!: string | null;

  @ManyToOne(() => Tube, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'tubeId', foreignKeyConstraintName: 'fk_pile_measure_tube' })
  tube?: Relation<Tube>;

  /** The state of the tube's curves that the prediction rested on. */
  @Index('ix_pile_measure_state')
  @Column('text', { nullable: true })
  stateId!: string | null;

  @ManyToOne(() => TubeState, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'stateId', foreignKeyConstraintName: 'fk_pile_measure_state' })
  state?: Relation<TubeState>;

  /** The let-down this is a part of. */
  @Index('ix_pile_measure_letdown')
  @Column('text', { nullable: true })
  letdownId!: string | null;

  @ManyToOne(() => PileMeasure, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'letdownId', foreignKeyConstraintName: 'fk_pile_measure_letdown' })
  letdown?: Relation<PileMeasure>;
}
