import type { CardBody } from '@dusk/wire';
import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { Pile } from './piles.ts';

/** A mixture that stands for itself: what it holds is written once. */
@Entity({ name: 'card' })
export class Card {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_card' })
  id!: string;

  @Column('integer')
  version!: number;

  @Column('text')
  name!: string;

  @Column('text', { default: '' })
  note!: string;

  @Index('ix_card_pile')
  @Column('text', { nullable: true })
  pileId!: string | null;

  @ManyToOne(() => Pile, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'pileId', foreignKeyConstraintName: 'fk_card_pile' })
  pile?: Relation<Pile>;

  @Column('simple-json')
  body!: CardBody;

  /** Munsell value, by which cards are found first. */
  @Index('ix_card_value')
  @Column('real')
  value!: number;

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
