import { pilesIn, type Mixture } from '@dusk/core';
import type { Answer, TubeDto } from '@dusk/wire';
import { ROW_KINDS, type RowKind, type RowOf } from '@dusk/wire/kinds';
import { statesSpokenOf } from '@dusk/wire/records';
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

/**
 * Lets go of what belongs to paintings that are not looked at: their piles, but for those that others take from,
 * their samples and areas, and curves of which nothing speaks any more. Whoever opens such a painting loads it again.
 * @param kept paintings that stay
 */
export function letGoOf(rows: RowMaps, heard: Map<string, number>, kept: ReadonlySet<string>): void {
  const pileOfStage = new Map([...rows.piles.values()].flatMap(({ id, stages }) => stages.map((stage) => [stage.id, id] as const)));
  const staying = new Set<string>();
  const stay = (id: string): void => {
    const pile = staying.has(id) ? undefined : rows.piles.get(id);
    if (!pile) return;
    staying.add(id);
    pilesIn(pile.plan as Mixture).forEach(stay);
    for (const { additions } of pile.stages)
      for (const { stageId } of additions) if (stageId !== null) stay(pileOfStage.get(stageId) ?? '');
  };
  for (const { id, paintingId } of rows.piles.values()) if (paintingId === null || kept.has(paintingId)) stay(id);
  const states = new Set(statesSpokenOf([...staying].map((id) => rows.piles.get(id)!)));
  for (const tube of rows.tubes.values()) for (const { id } of statesWith(tube)) states.add(id);
  const going: { readonly [K in RowKind]?: (row: RowOf<K>) => boolean } = {
    piles: ({ id }) => !staying.has(id),
    samples: ({ paintingId }) => !kept.has(paintingId),
    areas: ({ paintingId }) => !kept.has(paintingId),
    states: ({ id }) => !states.has(id),
  };
  for (const [kind, goes] of Object.entries(going) as [RowKind, (row: { readonly id: string }) => boolean][])
    for (const row of [...rows[kind].values()])
      if (goes(row)) {
        rows[kind].delete(row.id);
        heard.delete(`${kind} ${row.id}`);
      }
}

/** Rows that were not put away, oldest first. */
export const present = <T extends { readonly deletedAt: string | null; readonly createdAt: string }>(rows: ReadonlyMap<string, T>): T[] =>
  [...rows.values()]
    .filter((row) => row.deletedAt === null)
    .sort((a, b) => (a.createdAt < b.createdAt ? -1 : a.createdAt > b.createdAt ? 1 : 0));
