// What stands beside an open pile: its recipe, or what leads on from it.
import { computed, nextTick, ref, watch, type ComputedRef, type Ref } from 'vue';
import { useRoute } from 'vue-router';

const PANELS = ['recipe', 'kin', 'string', 'for', 'laid'] as const;
export type Panel = (typeof PANELS)[number];
/** What leads on from what to put in, with the key that opens it. */
export const DOORS = [
  { id: 'kin', title: 'From it', says: 'the next pile from this one', key: '2' },
  { id: 'string', title: 'In steps', says: 'a row of steps from it', key: '3' },
  { id: 'for', title: 'For', says: 'what it is for', key: '4' },
  { id: 'laid', title: 'Laid', says: 'how it is laid, over what, and enough of it', key: '5' },
] as const;

export interface Doors {
  readonly panel: Ref<Panel>;
  /** The door that was gone through. */
  readonly behind: ComputedRef<(typeof DOORS)[number] | undefined>;
  readonly isKin: ComputedRef<boolean>;
  readonly isString: ComputedRef<boolean>;
  /** Goes through a door, or back. */
  toggle(door: Panel): void;
  /** The keys from 1 on, one for each. */
  readonly keys: readonly { readonly key: string; readonly run: () => void }[];
}

/** @param right what it is shown in; it has the focus once something was opened, so that Tab goes on in it */
export function useDoors(right: Readonly<Ref<HTMLElement | null>>): Doors {
  const route = useRoute();
  const panel = ref<Panel>(route.query['with'] ? 'kin' : 'recipe');
  watch(
    () => route.query['with'],
    (other) => other && (panel.value = 'kin'),
  );
  watch(panel, async () => {
    await nextTick();
    right.value?.focus({ preventScroll: true });
  });
  return {
    panel,
    behind: computed(() => DOORS.find(({ id }) => id === panel.value)),
    isKin: computed(() => panel.value === 'kin'),
    isString: computed(() => panel.value === 'string'),
    toggle: (door) => (panel.value = panel.value === door ? 'recipe' : door),
    keys: PANELS.map((name, i) => ({ key: String(i + 1), run: () => (panel.value = name) })),
  };
}
