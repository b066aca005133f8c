import { show, shownBeside, type Lab, type Shown, type Sight } from '@dusk/core';
import type { LabDto, Operation } from '@dusk/wire';
import { labDto, labOfDto } from '@dusk/wire/written';
import { useLocalStorage, useNow } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { newId } from './ids.ts';

/** A screen's white, set to look like white paper in the painter's light. */
interface White {
  readonly lab: LabDto;
  readonly at: string;
}

/** Looks of one kind in one light, once one was recorded: they are off alike. */
interface SightingNow {
  readonly id: string;
  readonly at: string;
}

/** Daylight moves: after so long the white is asked for again, and looks are off in another way. */
const DRIFTED_MS = 90 * 60_000;
/** A screen's own white. */
const PLAIN: Lab = [100, 0, 0];

/**
 * The white of this screen beside this painter's paper. A screen is not a lamp: until it is set, and
 * once the light has drifted, an eye cannot match by it.
 */
export const useWhite = defineStore('white', () => {
  const white = useLocalStorage<White | null>('dusk.white', null, { serializer: { read: JSON.parse, write: JSON.stringify } });
  const sightings = useLocalStorage<Partial<Record<Sight, SightingNow>>>('dusk.sightings', {});
  /** Paper outshines the screen, as outdoors: words and neighbours are then surer. */
  const outshone = useLocalStorage('dusk.outshone', false);
  const setting = ref(false);
  const now = useNow({ interval: 60_000 });

  const hasDrifted = (at: string): boolean => now.value.getTime() - Date.parse(at) > DRIFTED_MS;
  const drifted = computed(() => white.value !== null && hasDrifted(white.value.at));
  const isSet = computed(() => white.value !== null && !drifted.value && !outshone.value);
  const lab = computed((): Lab => (white.value && !outshone.value ? labOfDto(white.value.lab) : PLAIN));

  function set(to: Lab): void {
    white.value = { lab: labDto(to), at: new Date().toISOString() };
    sightings.value = {};
    outshone.value = false;
    setting.value = false;
  }
  function giveUp(): void {
    outshone.value = true;
    setting.value = false;
  }

  /** A chip as it is shown beside real paint. */
  const shown = (colour: Lab): Shown => show(shownBeside(colour, lab.value));

  /** The sighting that looks of a kind belong to now, if there is one. */
  function sightingNow(kind: Sight): string | undefined {
    const known = sightings.value[kind];
    return known && !hasDrifted(known.at) ? known.id : undefined;
  }

  /**
   * The sighting that looks of a kind belong to now: one for each way of looking under one white.
   * @returns its id, and the operations that have to be done first
   */
  function sightingOf(kind: Sight): { readonly id: string; readonly ops: readonly Operation[]; readonly done: () => void } {
    const known = sightingNow(kind);
    if (known) return { id: known, ops: [], done: () => undefined };
    const id = newId();
    const ops: Operation[] = [{ do: 'sighting.add', id, kind, ...(kind === 'eye' && white.value && { white: white.value.lab }) }];
    const done = (): void => {
      sightings.value = { ...sightings.value, [kind]: { id, at: new Date().toISOString() } };
    };
    return { id, ops, done };
  }

  return { white, outshone, setting, drifted, isSet, lab, set, giveUp, shown, sightingNow, sightingOf };
});
