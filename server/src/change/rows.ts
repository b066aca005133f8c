import { In, type EntityManager, type EntityTarget } from 'typeorm';
import { notFound, ProblemError } from '../refusing/problems.ts';

/** The fields of a change that were given. */
export const given = <T extends object>(change: T): Partial<T> =>
  Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<T>;

/** The same fields as they were before: what undoes a change. */
export const changed = <T extends object>(news: T, before: object): T =>
  Object.fromEntries(Object.keys(news).map((key) => [key, (before as Record<string, unknown>)[key]])) as T;

/** A row that may have been put away. */
export interface Deletable {
  readonly deletedAt: string | null;
}

/**
 * The row that was asked for.
 * @throws ProblemError when there is none, or it was put away
 */
export function present<T extends Deletable>(what: string, row: T | null): T {
  if (!row) throw notFound(what);
  if (row.deletedAt) throw new ProblemError(404, 'Put away', `This ${what} was put away meanwhile. Bring it back first, or let this go.`);
  return row;
}

/** The row that was asked for, put away or not. */
export function any<T>(what: string, row: T | null): T {
  if (!row) throw notFound(what);
  return row;
}

/** Whether all rows of some ids are in the studio, put away or not. */
export async function areThere(db: EntityManager, what: EntityTarget<{ readonly id: string }>, ids: Iterable<string>): Promise<boolean> {
  const asked = new Set(ids);
  return asked.size === 0 || (await db.countBy(what, { id: In([...asked]) })) === asked.size;
}

/** Rows grouped by one of their columns. */
export function groupedBy<T>(rows: readonly T[], key: (row: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(key(row));
    if (group) group.push(row);
    else groups.set(key(row), [row]);
  }
  return groups;
}
