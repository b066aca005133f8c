import { Column, Entity, Index, JoinColumn, ManyToOne, OneToMany, PrimaryColumn, type Relation } from 'typeorm';
import { Tube } from './tubes.ts';

@Entity({ name: 'palette' })
export class Palette {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_palette' })
  id!: string;

  @Column('integer')
  version!: number;

  @Column('text')
  name!: string;

  /** The white that is laid thick in the lights; the others are for tints. */
  @Column('text', { nullable: true })
  lightsWhiteId!: string | null;

  /** Darks are mixed, although a black may lie there. */
  @Column('boolean', { default: false })
  mixedDarks!: boolean;

  /** Tubes that lie there for one sitting. */
  @Column('simple-json', { default: '[]' })
  guestIds!: readonly string[];

  @OneToMany(() => PaletteTube, (place) => place.palette)
  tubes?: Relation<PaletteTube[]>;

  @Column('text')
  createdAt!: string;

  @Column('text')
  updatedAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}

/** A tube's place on a palette. */
@Entity({ name: 'palette_tube' })
export class PaletteTube {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_palette_tube' })
  paletteId!: string;

  @Index('ix_palette_tube_tube')
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_palette_tube' })
  tubeId!: string;

  @ManyToOne(() => Palette, (palette) => palette.tubes, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'paletteId', foreignKeyConstraintName: 'fk_palette_tube_palette' })
  palette?: Relation<Palette>;

  @ManyToOne(() => Tube, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'tubeId', foreignKeyConstraintName: 'fk_palette_tube_tube' })
  tube?: Relation<Tube>;

  @Column('integer')
  position!: number;
}
