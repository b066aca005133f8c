import type { Operation, RowKind } from '@dusk/wire';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** One change to the studio, done in one transaction. Never changed: a trigger says so. */
@Entity({ name: 'change' })
export class Change {
  @PrimaryColumn('integer', { primaryKeyConstraintName: 'pk_change' })
  seq!: number;

  /** Made by whoever asked for it. */
  @Index('ux_change_id', { unique: true })
  @Column('text')
  id!: string;

  @Column('text')
  device!: string;

  @Column('text')
  at!: string;

  /** The change it undoes. */
  @Index('ix_change_undoes')
  @Column('integer', { nullable: true })
  undoes!: number | null;

  @Column('simple-json')
  ops!: readonly Operation[];

  /** Operations that undo it, in the order in which they are to be done. */
  @Column('simple-json')
  inverse!: readonly Operation[];

  /** Rows that are different now, by kind. */
  @Column('simple-json')
  touched!: Partial<Record<RowKind, readonly string[]>>;
}
