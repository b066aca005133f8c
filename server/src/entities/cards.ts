import type { SetKind } from '@dusk/core';
import type { CardBody, DabDto, StandsDto } from '@dusk/wire';
import { Column, Entity, Index, JoinColumn, ManyToOne, OneToMany, PrimaryColumn, type Relation } from 'typeorm';
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

  /** A real dab of it, read later. */
  @Column('simple-json', { nullable: true })
  dab!: DabDto | null;

  /** One's own tubes that were chosen to stand for its. */
  @Column('simple-json', { default: '{}' })
  stands!: StandsDto;

  @Index('ix_card_bringing')
  @Column('text', { nullable: true })
  bringingId!: string | null;

  @ManyToOne(() => Bringing, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'bringingId', foreignKeyConstraintName: 'fk_card_bringing' })
  bringing?: Relation<Bringing>;

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}

/** What a card is found by, beside it: rows so narrow that all can be gone through while a hand waits. */
@Entity({ name: 'card_found' })
export class CardFound {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_card_found' })
  cardId!: string;

  @ManyToOne(() => Card, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'cardId', foreignKeyConstraintName: 'fk_card_found_card' })
  card?: Relation<Card>;

  @Column('real')
  value!: number;

  @Column('real')
  L!: number;

  @Column('real')
  a!: number;

  @Column('real')
  b!: number;

  /** By each convention of the warm blue. */
  @Column('real')
  warmRed!: number;

  @Column('real')
  warmGreen!: number;

  /** All that is said on it, in small letters. */
  @Column('text')
  words!: string;

  /** Its pigments, sorted, each once, a space between them. */
  @Column('text')
  pigments!: string;

  @Column('text')
  thing!: string;

  @Column('text')
  zone!: string;

  @Column('text')
  painting!: string;

  @Column('text')
  createdAt!: string;

  @Column('boolean')
  away!: boolean;
}

/** Cards that are kept together. */
@Entity({ name: 'card_set' })
export class CardSet {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_card_set' })
  id!: string;

  @Column('integer')
  version!: number;

  @Column('text')
  name!: string;

  @Column('text')
  kind!: SetKind;

  @Column('text', { default: '' })
  note!: string;

  @OneToMany(() => CardPlace, (place) => place.set)
  places?: Relation<CardPlace[]>;

  @Index('ix_card_set_bringing')
  @Column('text', { nullable: true })
  bringingId!: string | null;

  @ManyToOne(() => Bringing, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'bringingId', foreignKeyConstraintName: 'fk_card_set_bringing' })
  bringing?: Relation<Bringing>;

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}

/** A card's place in a set. */
@Entity({ name: 'card_place' })
export class CardPlace {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_card_place' })
  setId!: string;

  @Index('ix_card_place_card')
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_card_place' })
  cardId!: string;

  @ManyToOne(() => CardSet, (set) => set.places, { onDelete: 'CASCADE' })
  @JoinColumn({ name: 'setId', foreignKeyConstraintName: 'fk_card_place_set' })
  set?: Relation<CardSet>;

  @ManyToOne(() => Card, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'cardId', foreignKeyConstraintName: 'fk_card_place_card' })
  card?: Relation<Card>;

  @Column('integer')
  position!: number;
}

/** A file of cards as it came, by what it holds. */
@Entity({ name: 'card_file' })
export class CardFile {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_card_file' })
  id!: string;

  @Column('text')
  name!: string;

  @Column('blob')
  bytes!: Buffer;

  @Column('text')
  createdAt!: string;
}

/** A file of cards that was brought in as one step. */
@Entity({ name: 'bringing' })
export class Bringing {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_bringing' })
  id!: string;

  @Column('integer')
  version!: number;

  @Index('ix_bringing_file')
  @Column('text')
  fileId!: string;

  @ManyToOne(() => CardFile, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'fileId', foreignKeyConstraintName: 'fk_bringing_file' })
  file?: Relation<CardFile>;

  @Column('text')
  name!: string;

  /** How many cards came with it. */
  @Column('integer')
  cards!: number;

  /** Cards that were put away here and came back with it, and palettes that were made for it. */
  @Column('simple-json')
  besides!: {
    readonly back: readonly string[];
    readonly palettes: readonly string[];
    readonly of?: number;
    readonly stands?: readonly { readonly tube: string; readonly tubeId: string }[];
  };

  @Column('text')
  createdAt!: string;

  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
