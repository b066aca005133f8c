import { nudged, type Lab, type Nudge, type Sight } from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { labDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { lookNow } from '../stores/piles.ts';
import { useWhite } from '../floor/white.ts';
import { newId } from '../floor/ids.ts';

/** A look that is not recorded yet: the chip as it stands, and how it came to it. */
interface Draft {
  readonly lab: Lab;
  readonly sight: Sight;
  readonly said?: string;
  /** It is this pile, in this light, however strange. */
  readonly confirmed?: boolean;
}

/** Small steps of a coarse word: half a value, and about as much to the eye of hue and strength. */
const COARSE = 5;
const VERY = 2;

/**
 * What the painter says a pile looks like: the chip is nudged, from what it is believed to look like,
 * until it looks like the paint on the knife.
 */
export function useLook(pile: Ref<PileDto>) {
  const white = useWhite();
  const draft = shallowRef<Draft>();
  const words = ref<string[]>([]);
  const stage = computed(() => pile.value.stages.at(-1));
  const now = computed(() => lookNow(pile.value));
  const lab = computed(() => draft.value?.lab ?? now.value);
  const clear = (): void => {
    draft.value = undefined;
    words.value = [];
  };
  watch(() => [pile.value.id, stage.value?.id, stage.value?.looks.length], clear);

  /** By an eye that was set to paper; else what a screen shows is no more than words. */
  const byEye = (): Sight => (white.isSet ? 'eye' : 'words');

  function nudge(by: Nudge, steps: number): void {
    draft.value = { lab: nudged(lab.value, by, steps), sight: byEye(), ...(words.value.length > 0 && { said: words.value.join(', ') }) };
  }
  /** A coarse step in words, as `a good deal lighter`. */
  function say(word: string, by: Nudge, way: 1 | -1, much: boolean): void {
    words.value = [...words.value, much ? `a good deal ${word}` : word];
    draft.value = { lab: nudged(lab.value, by, way * COARSE * (much ? VERY : 1)), sight: 'words', said: words.value.join(', ') };
  }
  const read = (colour: Lab, sight: 'typed' | 'photo'): void => void (draft.value = { lab: colour, sight });

  const confirm = (): void => void (draft.value &&= { ...draft.value, confirmed: true });

  /** The operations that record a look at the newest stage. */
  function record(look: Draft): { readonly ops: Operation[]; readonly done: () => void } {
    const { id: sightingId, ops, done } = white.sightingOf(look.sight);
    return {
      ops: [
        ...ops,
        {
          do: 'look.add',
          id: newId(),
          sightingId,
          stageId: stage.value!.id,
          lab: labDto(look.lab),
          ...(look.said && { said: look.said.slice(0, 120) }),
          ...(look.confirmed && { confirmed: true }),
        },
      ],
      done,
    };
  }

  return { stage, now, lab, draft, nudge, say, read, confirm, clear, record, byEye };
}
export type LookState = ReturnType<typeof useLook>;
