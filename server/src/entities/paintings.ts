import type { PaintingDto, PassingOn, PictureSpace, ViewDto } from '@dusk/wire';
import { Column, Entity, Index, JoinColumn, ManyToOne, OneToMany, PrimaryColumn, type Relation } from 'typeorm';
import { Palette } from './palettes.ts';

@Entity({ name: 'painting' })
export class Painting {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_painting' })
  id!: string;

  @Column('integer')
  version!: number;

  @Column('text')
  title!: string;

  @Index('ix_painting_palette')
  @Column('text')
  paletteId!: string;

  @ManyToOne(() => Palette, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'paletteId', foreignKeyConstraintName: 'fk_painting_palette' })
  palette?: Relation<Palette>;

  /** Colour of the toned ground, `#rrggbb`. */
  @Column('text')
  ground!: string;

  /** Its sides in mm, where they are known. */
  @Column('simple-json', { nullable: true })
  canvas!: PaintingDto['canvas'];

  /** The layer that is being painted, from 1. */
  @Column('integer', { default: 1 })
  layer!: number;

  /** Munsell chroma that no pile is to go above. */
  @Column('real', { nullable: true })
  ceiling!: number | null;

  /** The tube its ground was made of, and how far it was wiped back. */
  @Column('simple-json', { nullable: true })
  groundOf!: PaintingDto['groundOf'];

  /** How its paint is laid where nothing else is said. */
  @Column('text', { nullable: true })
  habit!: PaintingDto['habit'];

  /** How a day's piles are planned. */
  @Column('simple-json', { nullable: true })
  day!: PaintingDto['day'];

  /** Whether samples are of values alone unless they say otherwise. */
  @Column('boolean', { default: false })
  valueOnly!: boolean;

  /** Values that it keeps between. */
  @Column('simple-json', { nullable: true })
  between!: PaintingDto['between'];

  /** What it is painted on, when it has to hang, what is seen to. */
  @Column('simple-json', { default: '{}' })
  about!: PaintingDto['about'];

  @OneToMany(() => Reference, (reference) => reference.painting)
  references?: Relation<Reference[]>;

  @Column('text')
  createdAt!: string;

  @Column('text')
  updatedAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}

/** A picture by what it holds: the id is the SHA-256 of its bytes. */
@Entity({ name: 'picture' })
export class Picture {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_picture' })
  id!: string;

  @Column('text')
  mime!: string;

  @Column('integer')
  width!: number;

  @Column('integer')
  height!: number;

  /** How its bytes are to be turned, 1–8 (EXIF). */
  @Column('integer', { default: 1 })
  orientation!: number;

  /** What the numbers of its working copy mean. */
  @Column('text', { default: 'srgb' })
  space!: PictureSpace;

  @Column('text', { default: '' })
  colours!: string;

  @Column('text')
  createdAt!: string;
}

/** The own pixels of a picture as it came, apart so that they are not loaded with the row. */
@Entity({ name: 'picture_bytes' })
export class PictureBytes {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_picture_bytes' })
  pictureId!: string;

  @ManyToOne(() => Picture, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'pictureId', foreignKeyConstraintName: 'fk_picture_bytes_picture' })
  picture?: Relation<Picture>;

  @Column('blob')
  bytes!: Buffer;
}

/** A picture made smaller, to be looked at (`working`) or chosen by (`small`). One that came no larger has no working copy: its bytes are it. */
@Entity({ name: 'picture_copy' })
export class PictureCopy {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_picture_copy' })
  pictureId!: string;

  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_picture_copy' })
  kind!: 'working' | 'small';

  @ManyToOne(() => Picture, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'pictureId', foreignKeyConstraintName: 'fk_picture_copy_picture' })
  picture?: Relation<Picture>;

  @Column('text')
  mime!: string;

  @Column('blob')
  bytes!: Buffer;
}

/** A picture that a painting is made from. */
@Entity({ name: 'reference' })
export class Reference {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_reference' })
  id!: string;

  @Column('integer')
  version!: number;

  @Index('ix_reference_painting')
  @Column('text')
  paintingId!: string;

  @ManyToOne(() => Painting, (painting) => painting.references, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'paintingId', foreignKeyConstraintName: 'fk_reference_painting' })
  painting?: Relation<Painting>;

  @Index('ix_reference_picture')
  @Column('text')
  pictureId!: string;

  @ManyToOne(() => Picture, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'pictureId', foreignKeyConstraintName: 'fk_reference_picture' })
  picture?: Relation<Picture>;

  @Column('text')
  name!: string;

  /** The pixels that samples count in; 0: those of its picture. */
  @Column('integer', { default: 0 })
  width!: number;

  @Column('integer', { default: 0 })
  height!: number;

  @Column('simple-json', { default: '{}' })
  view!: ViewDto;

  /** Where the picture is from. */
  @Column('text', { default: '' })
  source!: string;

  @Column('text', { default: 'ask' })
  passing!: PassingOn;

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
