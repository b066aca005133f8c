// The picture of the painting on the easel, as palettes are judged by it.
import { computed } from 'vue';
import { usePaintings } from '../stores/paintings.ts';
import { useReference } from '../stores/reference.ts';

export function usePictured() {
  const paintings = usePaintings();
  const reference = useReference();
  const needs = computed(() => {
    const { pixels, gains, key, isKeyed } = reference;
    return pixels && { pictureId: pixels.id, gains, key: isKeyed && key ? { plan: key.plan, ends: key.ends } : undefined };
  });
  const why = computed(() => {
    if (!paintings.onEasel) return 'Put a painting on the easel: a palette is judged by its picture.';
    if (!reference.reference) return `“${paintings.onEasel.title}” has no picture yet. Bring one on Reference.`;
    return reference.pixels ? '' : 'The picture is on its way…';
  });
  return { needs, why, reference, title: computed(() => paintings.onEasel?.title ?? '') };
}
