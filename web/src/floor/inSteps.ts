import { onMounted, onUnmounted, ref, type Ref } from 'vue';

/** A place opens in steps, each a task of its own: what it is for first, then what stands around it. @returns how many steps have been made */
export function inSteps(most: number): Readonly<Ref<number>> {
  const made = ref(0);
  let timer: ReturnType<typeof setTimeout> | undefined;
  function step(): void {
    made.value++;
    if (made.value < most) timer = setTimeout(step);
  }
  onMounted(() => (timer = setTimeout(step)));
  onUnmounted(() => clearTimeout(timer));
  return made;
}
