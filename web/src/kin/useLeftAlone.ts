import { ref, watch, type WatchSource } from 'vue';

/** Piles of a row that stay as they are: a press leaves one alone or takes it in again; what is offered anew is offered whole. */
export function useLeftAlone(offered: readonly WatchSource[]) {
  const left = ref<ReadonlySet<string>>(new Set());
  watch([...offered], () => (left.value = new Set()));
  function toggle(id: string): void {
    const now = new Set(left.value);
    if (!now.delete(id)) now.add(id);
    left.value = now;
  }
  const isIn = (id: string): boolean => !left.value.has(id);
  return { isIn, toggle };
}
