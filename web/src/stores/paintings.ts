import type { NewPainting, PaintingChange, PaintingDto } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api.ts';
import { useNotices } from './notices.ts';

const OPEN = 'dusk.openPainting';

export const usePaintings = defineStore('paintings', () => {
  const all = ref<readonly PaintingDto[]>([]);
  const openId = ref<string | null>(localStorage.getItem(OPEN));
  const byId = computed(() => new Map(all.value.map((p) => [p.id, p])));
  /** The painting whose reference, piles and ledge are shown. */
  const open = computed(() => (openId.value === null ? undefined : byId.value.get(openId.value)));
  const notices = useNotices();

  function openPainting(id: string): void {
    openId.value = id;
    localStorage.setItem(OPEN, id);
  }

  async function load(): Promise<void> {
    all.value = await api.paintings();
  }
  const put = (painting: PaintingDto): void => {
    const others = all.value.filter((p) => p.id !== painting.id);
    all.value = [...others, painting].sort((a, b) => a.createdAt.localeCompare(b.createdAt));
  };

  async function add(painting: NewPainting): Promise<PaintingDto | undefined> {
    const made = await notices.attempt(() => api.addPainting(painting));
    if (made) put(made);
    return made;
  }

  async function change(id: string, part: Omit<PaintingChange, 'version'>): Promise<void> {
    const { version } = byId.value.get(id)!;
    const changed = await notices.attempt(() => api.changePainting(id, { ...part, version }));
    if (changed) {
      put(changed);
      notices.saved('Saved');
    } else await notices.attempt(load);
  }

  async function remove(id: string): Promise<void> {
    const { title } = byId.value.get(id)!;
    const done = await notices.attempt(async () => (await api.deletePainting(id), true));
    if (!done) return;
    all.value = all.value.filter((p) => p.id !== id);
    notices.undoable(`“${title}” put away`, async () => put(await api.restorePainting(id)));
  }

  async function addReference(id: string, file: File): Promise<boolean> {
    const added = await notices.attempt(() => api.addReference(id, file));
    if (!added) return false;
    const painting = byId.value.get(id)!;
    put({ ...painting, references: [...painting.references, added] });
    return true;
  }

  async function removeReference(id: string, referenceId: string): Promise<void> {
    const done = await notices.attempt(async () => (await api.deleteReference(referenceId), true));
    if (!done) return;
    const painting = byId.value.get(id)!;
    put({ ...painting, references: painting.references.filter((r) => r.id !== referenceId) });
    notices.undoable('Picture put away', async () => {
      await api.restoreReference(referenceId);
      await load();
    });
  }

  return { all, byId, open, openId, openPainting, load, add, change, remove, addReference, removeReference };
});
