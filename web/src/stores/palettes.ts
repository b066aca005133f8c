import type { PaletteChange, PaletteDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api.ts';
import { useNotices } from './notices.ts';

export const usePalettes = defineStore('palettes', () => {
  const all = ref<readonly PaletteDto[]>([]);
  const byId = computed(() => new Map(all.value.map((p) => [p.id, p])));
  const notices = useNotices();

  async function load(): Promise<void> {
    all.value = await api.palettes();
  }
  const put = (palette: PaletteDto): void => {
    const others = all.value.filter((p) => p.id !== palette.id);
    all.value = [...others, palette].sort((a, b) => a.createdAt.localeCompare(b.createdAt));
  };

  async function add(name: string, tubeIds: string[]): Promise<PaletteDto | undefined> {
    const made = await notices.attempt(() => api.addPalette({ name, tubeIds }));
    if (made) put(made);
    return made;
  }

  async function change(id: string, part: Omit<PaletteChange, 'version'>): Promise<void> {
    const before = byId.value.get(id)!;
    const changed = await notices.attempt(() => api.changePalette(id, { ...part, version: before.version }));
    if (changed) {
      put(changed);
      notices.saved('Saved');
    } else await notices.attempt(load);
  }

  async function remove(id: string): Promise<boolean> {
    const { name } = byId.value.get(id)!;
    const done = await notices.attempt(async () => (await api.deletePalette(id), true));
    if (!done) return false;
    all.value = all.value.filter((p) => p.id !== id);
    notices.undoable(`“${name}” put away`, async () => put(await api.restorePalette(id)));
    return true;
  }

  return { all, byId, load, add, change, remove };
});
