import type { Lab } from '@dusk/core';
import type { CardsFound } from '@dusk/wire';
import { labDto } from '@dusk/wire/written';
import { refDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, reactive, ref, shallowRef, watch } from 'vue';
import { askedFor } from './asked.ts';
import { usePaintings } from './paintings.ts';
import { useTubes } from './tubes.ts';
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

  const tubes = useTubes();
  /** What the line of words says. */
  const said = computed(() => askedFor(by.words, tubes.all));
  const nearest = computed(() => near.value ?? said.value.near);
  const query = computed(() => {
    const darkest = Math.max(by.darkest, said.value.darkest ?? 0);
    const lightest = Math.min(by.lightest, said.value.lightest ?? 10);
    const temperature = by.temperature === 'any' ? said.value.temperature : by.temperature;
    const within = [...new Set([...by.within, ...said.value.within])];
    const without = [...new Set([...by.without, ...said.value.without])];
    return {
      ...(nearest.value && { near: labDto(nearest.value.lab) }),
      ...(darkest > 0 || lightest < 10 ? { darkest: Math.min(darkest, lightest), lightest: Math.max(darkest, lightest) } : {}),
      ...(temperature && { temperature }),
      ...(said.value.words && { words: said.value.words.slice(0, 200) }),
      ...(within.length > 0 && { within }),
      ...(without.length > 0 && { without }),
      ...(by.reach !== 'any' && paintings.onEasel && { reach: by.reach, paletteId: paintings.onEasel.paletteId }),
      ...(by.thing && { thing: by.thing }),
      ...(by.zone && { zone: by.zone }),
      ...(by.painting && { painting: by.painting }),
      ...(by.since && { since: `${by.since}T00:00:00Z` }),
      ...(setId.value && { setId: setId.value }),
    };
  });
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

  /** A colour that was taken from elsewhere is let go of; one that was written is taken out of the line. */
  function nearNothing(): void {
    if (near.value) near.value = undefined;
    else if (said.value.near) by.words = said.value.words;
  }
  function clear(): void {
    Object.assign(by, nothing());
    near.value = undefined;
    setId.value = undefined;
  }

  return { by, near, nearest, nearNothing, setId, found, wants, query, isNarrowed, clear };
});
