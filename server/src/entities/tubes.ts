import type { Basis } from '@dusk/core';
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

  /** Slug of the generic pigment it is of. */
  @Index('ix_tube_pigment')
  @Column('text')
  pigment!: string;

  @Column('real')
  nozzleMm!: number;

  @Column('text')
  createdAt!: string;
}

/** What was known of a tube's curves from some day on. Rows are added, never changed. */
@Entity({ name: 'tube_state' })
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

  @Column('simple-json')
  K!: number[];

  @Column('simple-json')
  S!: number[];

  @Column('text')
  createdAt!: string;
}
