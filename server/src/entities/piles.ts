import type { MixtureDto, OutlineDto, PileDto, PredictionDto, PurposeDto, TargetDto } from '@dusk/wire';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { Painting, Reference } from './paintings.ts';

interface LabColumn {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

/** A colour read from a picture, as it was seen and as it is to be painted. */
@Entity({ name: 'sample' })
export class Sample {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_sample' })
  id!: string;

  @Column('integer')
  version!: number;

  @Index('ix_sample_painting')
  @Column('text')
  paintingId!: string;

  @ManyToOne(() => Painting, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'paintingId', foreignKeyConstraintName: 'fk_sample_painting' })
  painting?: Relation<Painting>;

  @Index('ix_sample_reference')
  @Column('text', { nullable: true })
  referenceId!: string | null;

  @ManyToOne(() => Reference, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'referenceId', foreignKeyConstraintName: 'fk_sample_reference' })
  reference?: Relation<Reference>;

  /** In the picture's own pixels. */
  @Column('simple-json', { nullable: true })
  outline!: OutlineDto | null;

  @Column('simple-json')
  seen!: LabColumn;

  @Column('simple-json')
  paint!: LabColumn;

  @Column('text')
  zone!: string;

  @Column('text')
  thing!: string;

  /** In what light it was noted before the view. */
  @Column('text', { default: '' })
  light!: string;

  @Column('boolean', { default: false })
  valueOnly!: boolean;

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}

/** An amount of mixed paint: what it is meant to be and how it is to be made. What was done with it are its stages. */
@Entity({ name: 'pile' })
export class Pile {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_pile' })
  id!: string;

  @Column('integer')
  version!: number;

  @Index('ix_pile_painting')
  @Column('text', { nullable: true })
  paintingId!: string | null;

  @ManyToOne(() => Painting, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'paintingId', foreignKeyConstraintName: 'fk_pile_painting' })
  painting?: Relation<Painting>;

  @Index('ix_pile_remake_of')
  @Column('text', { nullable: true })
  remakeOfId!: string | null;

  @ManyToOne(() => Pile, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'remakeOfId', foreignKeyConstraintName: 'fk_pile_remake_of' })
  remakeOf?: Relation<Pile>;

  /** The card it is mixed by. */
  @Index('ix_pile_card')
  @Column('text', { nullable: true })
  cardId!: string | null;

  @Column('text')
  name!: string;

  @Column('simple-json', { nullable: true })
  target!: TargetDto | null;

  @Index('ix_pile_sample')
  @Column('text', { nullable: true })
  sampleId!: string | null;

  @ManyToOne(() => Sample, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'sampleId', foreignKeyConstraintName: 'fk_pile_sample' })
  sample?: Relation<Sample>;

  /** What it is for. */
  @Column('simple-json', { default: '{}' })
  purpose!: PurposeDto;

  @Column('integer', { default: 1 })
  layer!: number;

  @Column('text', { default: '' })
  note!: string;

  @Column('simple-json', { nullable: true })
  string!: PileDto['string'];

  /** Replaced freely; names tubes in their states, piles at their stages. */
  @Column('simple-json')
  plan!: MixtureDto;

  /** How large it is meant to be. */
  @Column('real')
  ml!: number;

  /** What the plan gives, as predicted when it was kept. */
  @Column('simple-json')
  predicted!: PredictionDto;

  @Column('text')
  createdAt!: string;

  @Column('text')
  updatedAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
