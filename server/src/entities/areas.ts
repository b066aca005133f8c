import type { AreaOutline } from '@dusk/wire';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { Painting } from './paintings.ts';

/** A part of a painting that is painted and dries as one. */
@Entity({ name: 'area' })
export class Area {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_area' })
  id!: string;

  @Column('integer')
  version!: number;

  @Index('ix_area_painting')
  @Column('text')
  paintingId!: string;

  @ManyToOne(() => Painting, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'paintingId', foreignKeyConstraintName: 'fk_area_painting' })
  painting?: Relation<Painting>;

  @Column('text')
  name!: string;

  /** In shares of the canvas; null for the whole of it. */
  @Column('simple-json', { nullable: true })
  outline!: AreaOutline | null;

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
