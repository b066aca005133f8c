import { labDto } from '@dusk/wire/written';
import { ref } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';

/** A study of the picture in a few flat shapes becomes its plan, and is looked at. */
export function useStudy() {
  const reference = useReference();
  const looking = useLooking();
  const isLooking = ref(false);

  async function make(values: number): Promise<void> {
    const { pixels, gains } = reference;
    if (!pixels || isLooking.value) return;
    isLooking.value = true;
    try {
      const found = await unlessGivenUp(engine().ask('study', { pictureId: pixels.id, gains, values }));
      if (!found || reference.pixels !== pixels) return;
      const shapes = found.shapes.map(({ points, lab }) => ({ points: [...points], lab: labDto(lab) }));
      await reference.see({ shapes }, `Blocked in with ${shapes.length} shapes of ${values} values`);
      looking.look = 'piles';
      looking.panel = 'colour';
    } finally {
      isLooking.value = false;
    }
  }
  return { isLooking, make };
}
