import type { Needs, Operation, OperationName, OpOf, PuttingAway, RowKind } from '@dusk/wire';
import type { EntityTarget } from 'typeorm';
import { ProblemError, stale } from '../refusing/problems.ts';
import { any, present, type Deletable } from './rows.ts';
import type { Doing, Work } from './work.ts';

interface Versioned extends Deletable {
  readonly id: string;
  readonly version: number;
}

/** What it takes to put rows of a kind away and bring them back. */
interface Kind {
  readonly what: OpOf<PuttingAway>;
  readonly rows: RowKind;
  readonly entity: EntityTarget<Versioned>;
  /** What else is different then. */
  readonly touches?: (work: Work, row: Versioned) => void;
  /** Says no when a row cannot be put away, or cannot be brought back. */
  readonly check?: (work: Work, row: Versioned, back: boolean) => Promise<void>;
}

type ByVersion = Needs<'pile.delete'>;

/** Operations that mark rows of one kind as put away, and that bring them back; each undoes the other. */
export function puttingAway({ what, rows, entity, touches, check }: Kind): {
  readonly away: Doing<ByVersion>;
  readonly back: Doing<ByVersion>;
} {
  const mark =
    (deleting: boolean): Doing<ByVersion> =>
    async (work, { id, version }) => {
      const found = await work.db.findOneBy(entity, { id });
      const row = deleting ? present(what, found) : any(what, found);
      if (!deleting && row.deletedAt === null)
        throw new ProblemError(409, 'There already', `This ${what} is there already; nothing needs bringing back.`);
      if (row.version !== version) throw stale(what, version, row);
      await check?.(work, row, !deleting);
      await work.db.update(entity, { id }, { deletedAt: deleting ? work.at : null, version: version + 1 });
      work.touch(rows, id);
      touches?.(work, row);
      const inverse: OperationName = `${what}.${deleting ? 'restore' : 'delete'}`;
      return [{ do: inverse, id, version: version + 1 } as Operation];
    };
  return { away: mark(true), back: mark(false) };
}
