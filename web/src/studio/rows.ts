import type { Answer, TubeDto } from '@dusk/wire';
import { ROW_KINDS, type RowKind, type RowOf } from '@dusk/wire/kinds';
import { statesWith } from '@dusk/wire/states';
import { shallowReactive } from 'vue';

/** Rows by kind and id, as they were last heard of. */
export type RowMaps = { readonly [K in RowKind]: Map<string, RowOf<K>> };

export const emptyRows = (): RowMaps =>
  Object.fromEntries(ROW_KINDS.map((kind) => [kind, shallowReactive(new Map())])) as unknown as RowMaps;

/**
 * Takes an answer into rows; the one entrance, for what this window did and for whatever else is heard.
 * What was heard of a row as late in the log, or later, stands.
 * @param heard for every row the place in the log it was last heard at; written to
 */
export function applied(rows: RowMaps, heard: Map<string, number>, { seq, rows: news }: Answer): void {
  for (const kind of ROW_KINDS)
    for (const row of news[kind] ?? []) {
      const key = `${kind} ${row.id}`;
      if ((heard.get(key) ?? -1) >= seq) continue;
      heard.set(key, seq);
      (rows[kind] as Map<string, typeof row>).set(row.id, row);
      // What piles were reckoned with stays known when the tube has moved on.
      if (kind === 'tubes') for (const state of statesWith(row as TubeDto)) rows.states.set(state.id, rows.states.get(state.id) ?? state);
    }
}

/** Rows that were not put away, oldest first. */
export const present = <T extends { readonly deletedAt: string | null; readonly createdAt: string }>(rows: ReadonlyMap<string, T>): T[] =>
  [...rows.values()]
    .filter((row) => row.deletedAt === null)
    .sort((a, b) => (a.createdAt < b.createdAt ? -1 : a.createdAt > b.createdAt ? 1 : 0));
