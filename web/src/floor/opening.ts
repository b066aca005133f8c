import { ref, watch, type Ref } from 'vue';

/** A sheet that has not come by then does not come. */
const MOST_MS = 3000;
let until = 0;

/** A sheet was asked for: until it is there, keys are nobody's. It may have to be fetched first. */
export const sheetOpens = (): void => void (until = performance.now() + MOST_MS);
/** It is there, or is not wanted any more. */
export const sheetIsThere = (): void => void (until = 0);
export const isSheetOpening = (): boolean => performance.now() < until;

/** Whether something was ever true. */
export function onceTrue(now: Readonly<Ref<boolean>>): Readonly<Ref<boolean>> {
  const once = ref(now.value);
  watch(
    now,
    (is) => {
      if (is) sheetOpens();
      if (is) once.value = true;
    },
    { flush: 'sync' },
  );
  return once;
}
