import type { Lab } from '@dusk/core';
import type { CardsFound } from '@dusk/wire';
import { labDto } from '@dusk/wire/written';
import { refDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, reactive, ref, shallowRef, watch } from 'vue';
import { usePaintings } from './paintings.ts';
import { useNotices } from '../floor/notices.ts';
import { findCards } from '../studio/api.ts';
import { useStudio } from '../studio/useStudio.ts';

/** A colour that cards are to be near to, and what it is the colour of. */
export interface Near {
  readonly lab: Lab;
  readonly says: string;
}

const nothing = () => ({
  words: '',
  darkest: 0,
  lightest: 10,
  temperature: 'any' as 'any' | 'warm' | 'neutral' | 'cool',
  reach: 'any' as 'any' | 'mixable' | 'nearly',
  /** Pigments that must be in it, and that must not. */
  within: [] as string[],
  without: [] as string[],
  thing: '',
  zone: '',
  painting: '',
  since: '',
});

/** A hand on a slider asks no more often than this. */
const WAIT_MS = 80;

/** What cards are looked for by, and what was found; asked of the studio, which goes through all of them. */
export const useFinding = defineStore('finding', () => {
  const studio = useStudio();
  const paintings = usePaintings();
  const notices = useNotices();
  const by = reactive(nothing());
  const near = shallowRef<Near>();
  const setId = ref<string>();
  const found = shallowRef<CardsFound>();
  const wants = ref(false);

  const query = computed(() => ({
    ...(near.value && { near: labDto(near.value.lab) }),
    ...(by.darkest > 0 || by.lightest < 10
      ? { darkest: Math.min(by.darkest, by.lightest), lightest: Math.max(by.darkest, by.lightest) }
      : {}),
    ...(by.temperature !== 'any' && { temperature: by.temperature }),
    ...(by.words.trim() && { words: by.words.trim().slice(0, 200) }),
    ...(by.within.length > 0 && { within: [...by.within] }),
    ...(by.without.length > 0 && { without: [...by.without] }),
    ...(by.reach !== 'any' && paintings.onEasel && { reach: by.reach, paletteId: paintings.onEasel.paletteId }),
    ...(by.thing && { thing: by.thing }),
    ...(by.zone && { zone: by.zone }),
    ...(by.painting && { painting: by.painting }),
    ...(by.since && { since: `${by.since}T00:00:00Z` }),
    ...(setId.value && { setId: setId.value }),
  }));
  const isNarrowed = computed(() => Object.keys(query.value).length > 0);

  /** What was written or brought since makes another answer. */
  const written = computed(() =>
    [studio.rows.cards, studio.rows.sets, studio.rows.bringings]
      .flatMap((rows) => [...rows.values()].map(({ id, version }) => `${id} ${version}`))
      .join(),
  );
  const asked = refDebounced(
    computed(() => JSON.stringify(query.value)),
    WAIT_MS,
  );
  let newest = 0;
  async function find(): Promise<void> {
    const own = ++newest;
    const answer = await notices.attempt(() => findCards(query.value));
    if (answer && own === newest) found.value = answer;
  }
  // A studio that answers again is asked again.
  watch([asked, written, wants, () => studio.away], () => wants.value && !studio.away && void find());

  function clear(): void {
    Object.assign(by, nothing());
    near.value = undefined;
    setId.value = undefined;
  }

  return { by, near, setId, found, wants, query, isNarrowed, clear };
});
