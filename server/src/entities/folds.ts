import { Column, Entity, Index, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { Pile } from './piles.ts';

/**
 * Where a pile stands in the order in which evidence is folded, by its first look that counts. What was
 * reckoned there lies beside it: a cache, since it follows from the evidence up to here.
 */
@Entity({ name: 'fold' })
@Index('ix_fold_order', ['since', 'firstId'])
@Index('ix_fold_snapshot', ['since', 'firstId'], { where: '"snapshot" IS NOT NULL' })
export class Fold {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_fold' })
  pileId!: string;

  @ManyToOne(() => Pile, { onDelete: 'RESTRICT' })
  @JoinColumn({ name: 'pileId', foreignKeyConstraintName: 'fk_fold_pile' })
  pile?: Relation<Pile>;

  /** When the first of its beliefs that count came, and which that is. */
  @Column('text')
  since!: string;

  @Column('text')
  firstId!: string;

  /** The beliefs that count: while they are the same, so is what the pile says. */
  @Column('text')
  beliefs!: string;

  /** Piles that were folded up to here, where there is a snapshot. */
  @Column('integer', { nullable: true })
  piles!: number | null;

  /** Whether something before it has changed since it was reckoned. */
  @Column('boolean', { default: false })
  isStale!: boolean;

  /** What this pile added to what is believed of its tubes (`packed.ts`). */
  @Column('blob', { nullable: true })
  share!: Buffer | null;

  /** All that is believed after it (`packed.ts`); kept of the newest piles, and of others at intervals. */
  @Column('blob', { nullable: true })
  snapshot!: Buffer | null;
}
