import { useElementSize } from '@vueuse/core';
import { computed, type Ref } from 'vue';
import { USUAL_PX_PER_MM, useScreen } from '../floor/screen.ts';

/** Scales that beads are drawn at: so many times smaller than they are. */
const SCALES = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000] as const;

/**
 * How many times smaller beads must be drawn for the longest to have room: 1 where they may be true.
 * @param longest px
 * @param room px
 */
export const beadScale = (longest: number, room: number): number => SCALES.find((scale) => longest / scale <= room) ?? SCALES.at(-1)!;

/**
 * Beads of one recipe, drawn at one scale: true, or so many times smaller, and that is said.
 * @param host what they stand in
 * @param besidePx what of its width they cannot have
 */
export function useBeads(host: Readonly<Ref<HTMLElement | null>>, besidePx: number, lengthsMm: () => readonly number[]) {
  const { width } = useElementSize(host, { width: 360, height: 0 });
  const pxPerMm = useScreen();
  const smaller = computed(() => {
    const longest = Math.max(0, ...lengthsMm()) * (pxPerMm.value || USUAL_PX_PER_MM);
    return beadScale(longest, Math.max(60, width.value - besidePx));
  });
  const widthOf = (mm: number): string => `max(3px, calc(${mm / smaller.value} * var(--mm)))`;
  const says = computed(() => (smaller.value === 1 ? 'beads at true length' : `beads drawn 1 : ${smaller.value}`));
  return { widthOf, says };
}
