import type { Lab } from '@dusk/core';
import type { NewPile, PileChange, PileDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api.ts';
import { useNotices } from './notices.ts';

export const labOfDto = ({ L, a, b }: { L: number; a: number; b: number }): Lab => [L, a, b];

/** The piles of the open painting, dark to light. */
export const usePiles = defineStore('piles', () => {
  const paintingId = ref<string>();
  const list = ref<readonly PileDto[]>([]);
  const byValue = computed(() => [...list.value].sort((a, b) => a.value - b.value));
  const byId = computed(() => new Map(list.value.map((p) => [p.id, p])));
  const notices = useNotices();

  async function load(id: string): Promise<void> {
    if (paintingId.value !== id) list.value = [];
    paintingId.value = id;
    const loaded = await notices.attempt(() => api.piles(id));
    if (loaded && paintingId.value === id) list.value = loaded;
  }
  const put = (pile: PileDto): void => {
    if (pile.paintingId === paintingId.value) list.value = [...list.value.filter((p) => p.id !== pile.id), pile];
  };

  async function keep(pile: NewPile): Promise<PileDto | undefined> {
    const kept = await notices.attempt(() => api.addPile(paintingId.value!, pile));
    if (kept) {
      put(kept);
      notices.undoable(`Kept “${kept.name}”`, async () => {
        await api.deletePile(kept.id);
        list.value = list.value.filter((p) => p.id !== kept.id);
      });
    }
    return kept;
  }

  async function change(id: string, part: Omit<PileChange, 'version'>): Promise<void> {
    const { version } = byId.value.get(id)!;
    const changed = await notices.attempt(() => api.changePile(id, { ...part, version }));
    if (changed) {
      put(changed);
      notices.saved('Saved');
    } else if (paintingId.value) await load(paintingId.value);
  }

  async function remove(id: string): Promise<boolean> {
    const { name } = byId.value.get(id)!;
    const done = await notices.attempt(async () => (await api.deletePile(id), true));
    if (!done) return false;
    list.value = list.value.filter((p) => p.id !== id);
    notices.undoable(`“${name}” scraped off`, async () => put(await api.restorePile(id)));
    return true;
  }

  return { list, byValue, byId, load, keep, change, remove };
});
