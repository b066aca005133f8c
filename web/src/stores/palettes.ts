import type { Needs, Operation } from '@dusk/wire';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { present } from '../studio/rows.ts';
import { before, useStudio } from '../studio/useStudio.ts';
import { newId } from '../floor/ids.ts';

export const usePalettes = defineStore('palettes', () => {
  const studio = useStudio();
  const all = computed(() => present(studio.rows.palettes));
  const byId = computed(() => new Map(all.value.map((p) => [p.id, p])));

  /** A name that no palette has yet. */
  function freeName(first: string): string {
    const taken = new Set(all.value.map(({ name }) => name));
    return [first, ...all.value.map((_, i) => `${first} ${i + 2}`)].find((one) => !taken.has(one))!;
  }

  /** @returns the id of the new palette, if it was made */
  async function add(name: string, tubeIds: string[], mixedDarks = false): Promise<string | undefined> {
    const id = newId();
    const ops: Operation[] = [{ do: 'palette.add', id, name, tubeIds }];
    if (mixedDarks) ops.push({ do: 'palette.change', id, version: 1, mixedDarks });
    return (await studio.make(ops, `Laid out “${name}”`)) ? id : undefined;
  }

  /** @param meanwhile it was changed elsewhere since the hand was laid on it: the studio is to say no, and both sides are shown */
  const change = (id: string, part: Omit<Needs<'palette.change'>, 'id' | 'version'>, meanwhile = false): Promise<boolean> => {
    const { name, version } = byId.value.get(id)!;
    return studio.make([{ do: 'palette.change', id, ...part, version: before(version, meanwhile) }], `Changed “${name}”`);
  };

  const remove = (id: string): Promise<boolean> =>
    studio.make([{ do: 'palette.delete', id, version: byId.value.get(id)!.version }], `“${byId.value.get(id)!.name}” put away`);

  return { all, byId, freeName, add, change, remove };
});
