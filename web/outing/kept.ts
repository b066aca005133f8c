import type { Lab, OutingNews } from '@dusk/core';
import { reactive, watch } from 'vue';

/** What was done with a pile out here, as it is kept while the day lasts. */
export interface Kept {
  ticked: number[];
  mixedAt?: string | undefined;
  look?: { lab: Lab; said: string; at: string } | undefined;
  note: string;
  readonly ids: { readonly stageId: string; readonly sightingId: string; readonly lookId: string };
}

const newId = (): string =>
  typeof crypto.randomUUID === 'function'
    ? crypto.randomUUID()
    : // A page that was opened as a file is not always trusted with the short way.
      '10000000-1000-4000-8000-100000000000'.replace(/[018]/g, (c) =>
        (Number(c) ^ (crypto.getRandomValues(new Uint8Array(1))[0]! & (15 >> (Number(c) / 4)))).toString(16),
      );

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
