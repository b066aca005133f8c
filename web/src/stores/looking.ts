import type { LookName } from '@dusk/wire/looks';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { useSight } from '../floor/sight.ts';

/** What the panel beside the picture is for. */
export type Panel = 'colour' | 'prepare' | 'key' | 'pictures' | 'propose' | 'plan' | 'canvas' | 'try';

/** What a drag over the picture does. */
export type Hand = 'points' | 'draws' | 'crops';

const LEAST_SQUINT = 2;
const MOST_SQUINT = 40;
const SQUINT_STEP = 1.35;

/** How one picture is looked at. */
interface Look {
  readonly look: LookName;
  readonly asPaint: boolean;
  readonly mirror: boolean;
  readonly lost: boolean;
}
const AS_SEEN: Look = { look: 'colour', asPaint: false, mirror: false, lost: false };
/** Of so many pictures it is remembered how they were looked at. */
const MOST_LOOKS = 100;

/** How pictures are looked at: kept in this browser and shared by its windows. A look belongs to its picture. */
export const useLooking = defineStore('looking', () => {
  const sight = useSight();
  const looks = useLocalStorage<Record<string, Partial<Look>>>('dusk.looks', {});
  /** The picture that is looked at. */
  const pictureId = ref('');
  const own = <K extends keyof Look>(part: K) =>
    computed<Look[K]>({
      get: () => looks.value[pictureId.value]?.[part] ?? AS_SEEN[part],
      set: (to) => {
        const { [pictureId.value]: was, ...others } = looks.value;
        looks.value = Object.fromEntries([...Object.entries(others), [pictureId.value, { ...was, [part]: to }]].slice(-MOST_LOOKS));
      },
    });
  const look = own('look');
  /** Deviation of the squint, px on the screen. */
  const squint = useLocalStorage('dusk.squint', 8);
  const asPaint = own('asPaint');
  const mirror = own('mirror');
  const grid = useLocalStorage('dusk.grid', false);
  const marks = useLocalStorage('dusk.marks', true);
  const lost = own('lost');
  /** Whether the picture is shown plain for a moment, to compare. */
  const without = ref(false);
  const panel = ref<Panel>('colour');
  const hand = ref<Hand>('points');
  const selectedId = ref<string>();
  /** The pile whose places are lit. */
  const lit = ref<string>();
  /** A pile that was dropped on the picture: which, and where in the window. */
  const dropped = ref<{ readonly pileId: string; readonly x: number; readonly y: number }>();

  /** Pressing the look that is on leaves it. */
  const turn = (to: LookName): void => void (look.value = look.value === to ? 'colour' : to);
  function squintBy(way: 1 | -1): void {
    squint.value = Math.round(Math.min(MOST_SQUINT, Math.max(LEAST_SQUINT, squint.value * SQUINT_STEP ** way)));
  }
  const isPlain = computed(
    () => lit.value === undefined && look.value === 'colour' && !sight.grey && !sight.squint && !asPaint.value && !lost.value,
  );

  /** The picture as it is: every look is taken off it. */
  function plain(): void {
    look.value = 'colour';
    lit.value = undefined;
    sight.grey = sight.squint = asPaint.value = lost.value = false;
  }

  return {
    pictureId,
    look,
    squint,
    asPaint,
    mirror,
    grid,
    marks,
    lost,
    without,
    panel,
    hand,
    selectedId,
    lit,
    dropped,
    turn,
    squintBy,
    isPlain,
    plain,
  };
});
