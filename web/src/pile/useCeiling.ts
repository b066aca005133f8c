import { CraftError, strengthOf, underCeiling } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { computed, type Ref } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useNotices } from '../floor/notices.ts';
import { useSettings } from '../stores/settings.ts';
import { useMothers } from '../kin/mothers.ts';

/** So little above it is none. */
const HARDLY = 0.05;

/** A planned pile and the painting's ceiling of strength: whether it lies above, and how it comes under. */
export function useCeiling(pile: Ref<PileDto>) {
  const paintings = usePaintings();
  const desk = useDesk();
  const settings = useSettings();
  const mothers = useMothers();
  const notices = useNotices();
  const target = computed(() => pile.value.target && labOfDto(pile.value.target.lab));
  /** Its strength, where that is more than the painting bears. */
  const above = computed(() => {
    const ceiling = paintings.onEasel?.ceiling ?? undefined;
    if (ceiling === undefined || !target.value) return undefined;
    const strength = strengthOf(target.value);
    return strength > ceiling + HARDLY ? strength : undefined;
  });

  /** The same value and hue, as strong as the painting bears, from the palette's tubes. */
  async function bringUnder(): Promise<void> {
    const laid = desk.desk;
    if (!laid || !target.value) return;
    const under = underCeiling(target.value, paintings.onEasel?.ceiling ?? undefined);
    try {
      const { dulling } = settings.settings;
      const found = await unlessGivenUp(engine().ask('solve', { target: under, wishes: { ...(dulling && { dulling }) } }, { desk: laid }));
      const plan = found?.proposals[0]?.mixture;
      if (plan) await mothers.change(pile.value, plan, `Brought “${pile.value.name}” to how bright it may get`, under);
    } catch (cause) {
      if (!(cause instanceof CraftError)) throw cause;
      notices.refused(cause.message);
    }
  }
  return { above, bringUnder };
}
