// How the picture is looked at goes from window to window, in whatever browser they are open.
import type { Looked } from '@dusk/wire';
import { watchDebounced } from '@vueuse/core';
import { computed, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useSight } from '../floor/sight.ts';
import { useLooking } from '../stores/looking.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useReference } from '../stores/reference.ts';
import { useStudio } from '../studio/useStudio.ts';
import { usePoints } from './points.ts';

/** A hand that moves is told of where it comes to rest. */
const REST_MS = 120;

/** Tells other windows how this one looks at its picture, as long as it is the one that is worked in. */
export function useTelling(): void {
  const studio = useStudio();
  const sight = useSight();
  const looking = useLooking();
  const paintings = usePaintings();
  const reference = useReference();
  const points = usePoints();
  const now = computed<Omit<Looked, 'device'> | undefined>(() => {
    const paintingId = paintings.onEasel?.id;
    if (paintingId === undefined) return undefined;
    const referenceId = reference.reference?.id ?? null;
    const { look, squint: squintPx, asPaint, mirror, grid, marks, lost } = looking;
    const { grey, squint } = sight;
    const at = (referenceId !== null && points.value[referenceId]) || null;
    return { paintingId, referenceId, look, squintPx, grey, squint, asPaint, mirror, grid, marks, lost, at };
  });
  watchDebounced(
    () => JSON.stringify(now.value),
    () => {
      if (now.value && document.hasFocus()) studio.tellLooked(now.value);
    },
    { debounce: REST_MS },
  );
}

/** Looks at the picture as the window does that is worked in. */
export function useFollowing(): void {
  const studio = useStudio();
  const sight = useSight();
  const looking = useLooking();
  const reference = useReference();
  const points = usePoints();
  const route = useRoute();
  const router = useRouter();
  watch(
    () => studio.lookedElsewhere,
    async (looked) => {
      if (!looked) return;
      const { paintingId, referenceId, look, squintPx, grey, squint, asPaint, mirror, grid, marks, lost, at } = looked;
      if (route.params['paintingId'] !== paintingId) await router.replace({ name: 'picture', params: { paintingId } });
      if (referenceId !== null) reference.choose(referenceId);
      Object.assign(sight, { grey, squint });
      Object.assign(looking, { look, asPaint, mirror, grid, marks, lost, squint: squintPx });
      if (referenceId !== null && at) points.value = { ...points.value, [referenceId]: { x: at.x, y: at.y } };
    },
    { immediate: true },
  );
}
