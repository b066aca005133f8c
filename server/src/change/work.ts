import type { Operation, RowKind } from '@dusk/wire';
import type { EntityManager } from 'typeorm';

/** One change while it is being done. */
export interface Work {
  readonly db: EntityManager;
  /** When the change is done, UTC ISO. */
  readonly at: string;
  /** Says that a row is different now, so that the answer holds it. */
  touch(kind: RowKind, id: string): void;
  /** Says that what a pile teaches has changed: it is reckoned anew at the end of the change. */
  relearn(pileId: string): void;
  /** Says that what swatches tell of a tube has changed: it is fitted anew at the end of the change. */
  teach(tubeId: string): void;
}

/** Does one operation and answers with the operations that undo it, in the order in which they are to be done. */
export type Doing<Needs> = (work: Work, needs: Needs) => Promise<readonly Operation[]>;

/** Work that collects what it touched. */
export function workOn(db: EntityManager, at: string) {
  const touched = new Map<RowKind, Set<string>>();
  const toRelearn = new Set<string>();
  const toTeach = new Set<string>();
  const work: Work = {
    db,
    at,
    touch: (kind, id) => void touched.set(kind, (touched.get(kind) ?? new Set()).add(id)),
    relearn: (pileId) => void toRelearn.add(pileId),
    teach: (tubeId) => void toTeach.add(tubeId),
  };
  return {
    work,
    toRelearn: toRelearn as ReadonlySet<string>,
    toTeach: toTeach as ReadonlySet<string>,
    touched: (): Partial<Record<RowKind, readonly string[]>> => Object.fromEntries([...touched].map(([kind, ids]) => [kind, [...ids]])),
  };
}
