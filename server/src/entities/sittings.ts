import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { Palette } from './palettes.ts';

/** A day's work, or a part of it: what was done in it names it. */
@Entity({ name: 'sitting' })
export class Sitting {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_sitting' })
  id!: string;

  @Column('integer')
  version!: number;

  @Index('ix_sitting_palette')
  @Column('text', { nullable: true })
  paletteId!: string | null;

  @ManyToOne(() => Palette, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'paletteId', foreignKeyConstraintName: 'fk_sitting_palette' })
  palette?: Relation<Palette>;

  @Index('ix_sitting_opened')
  @Column('text')
  openedAt!: string;

  @Column('text', { nullable: true })
  closedAt!: string | null;

  @Column('text', { default: '' })
  light!: string;

  /** Tubes that joined the palette for this sitting alone. */
  @Column('simple-json', { default: '[]' })
  guests!: readonly string[];

  @Column('text', { default: '' })
  note!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
