import { computed, onMounted, onUnmounted, ref, type ComputedRef } from 'vue';

/** A long list is laid in slices, each a task of its own: what is seen first is there at once, and no press waits for the rest. */
export function bySlices<T>(list: () => readonly T[], slice: number): ComputedRef<readonly T[]> {
  const most = ref(slice);
  let timer: ReturnType<typeof setTimeout> | undefined;
  function more(): void {
    const isWhole = most.value >= list().length;
    most.value = isWhole ? Infinity : most.value + slice;
    if (!isWhole) timer = setTimeout(more);
  }
  onMounted(() => (timer = setTimeout(more)));
  onUnmounted(() => clearTimeout(timer));
  return computed(() => (list().length > most.value ? list().slice(0, most.value) : list()));
}
