import type { Lab, OutingNews } from '@dusk/core';
import { reactive, watch } from 'vue';
import { newId } from '../src/floor/ids.ts';

/** What was done with a pile out here, as it is kept while the day lasts. */
export interface Kept {
  ticked: number[];
  mixedAt?: string | undefined;
  look?: { lab: Lab; said: string; at: string } | undefined;
  note: string;
  readonly ids: { readonly stageId: string; readonly sightingId: string; readonly lookId: string };
}

/** Keeps what is done out here in this browser, where it lets a page that was opened as a file keep anything. */
export function useKept(outingId: string, pileIds: readonly string[]) {
  const place = `dusk outing ${outingId}`;
  const read = (): Record<string, Kept> => {
    try {
      return JSON.parse(localStorage.getItem(place) ?? '{}') as Record<string, Kept>;
    } catch {
      return {};
    }
  };
  const before = read();
  const kept = reactive(
    Object.fromEntries(
      pileIds.map((id): [string, Kept] => [
        id,
        before[id] ?? { ticked: [], note: '', ids: { stageId: newId(), sightingId: newId(), lookId: newId() } },
      ]),
    ),
  );
  watch(
    kept,
    () => {
      try {
        localStorage.setItem(place, JSON.stringify(kept));
      } catch {
        // It lasts as long as the page is open, and can be saved to a file.
      }
    },
    { deep: true },
  );
  const news = (): OutingNews[] =>
    Object.entries(kept).flatMap(([pileId, { ids, ticked, mixedAt, look, note }]) =>
      ticked.length > 0 || look || note ? [{ pileId, ...ids, ticked, mixedAt, look, note }] : [],
    );
  return { kept, news };
}
