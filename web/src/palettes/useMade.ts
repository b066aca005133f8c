// What the tubes of a palette make: asked of the engine, kept as piles or cards.
import { mixtureOf, wordForParts, type Lab } from '@dusk/core';
import { mixtureDto } from '@dusk/wire/written';
import { computed, ref, shallowRef, watch, type ShallowRef } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { Made, MadeSheet, MadeShow, RackTube } from '../engine/rack.ts';
import { firstName } from '../floor/words.ts';
import { recipeFrom } from '../stores/laid.ts';
import { useCards } from '../stores/cards.ts';
import { usePaintings } from '../stores/paintings.ts';
import { usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';

export const rackTube = ({ id, stateId, paint: { K, S } }: Tube): RackTube => ({ id, state: stateId, K, S });

/** Chips of some tubes, live; the newest question alone is answered. */
export function useChips(
  tubes: () => readonly Tube[],
  show: () => MadeShow,
  without: () => readonly string[] = () => [],
  near: () => Lab | undefined = () => undefined,
): ShallowRef<MadeSheet | undefined> {
  const sheet = shallowRef<MadeSheet>();
  let asking: AbortController | undefined;
  watch(
    () => JSON.stringify([tubes().map(({ id, stateId }) => [id, stateId]), show(), without(), near()]),
    async () => {
      asking?.abort();
      const own = (asking = new AbortController());
      const of = tubes();
      if (of.length === 0) return void (sheet.value = undefined);
      const started = performance.now();
      const lab = near();
      const found = await unlessGivenUp(
        engine().ask(
          'made',
          { tubes: of.map(rackTube), show: show(), without: without(), ...(lab && { near: lab }) },
          { signal: own.signal },
        ),
      );
      if (own.signal.aborted) return;
      sheet.value = found;
      performance.measure('chips', { start: started, end: performance.now() });
    },
    { immediate: true },
  );
  return sheet;
}

export function useKeepMade() {
  const tubes = useTubes();
  const piles = usePiles();
  const paintings = usePaintings();
  const cards = useCards();
  const settings = useSettings();
  const isKeeping = ref(false);

  /** `mostly titanium white, a little yellow ochre`. */
  function says({ parts }: Made): string {
    const whole = parts.reduce((sum, one) => sum + one.parts, 0);
    const name = (id: string): string => (tubes.byId.get(id)?.name ?? 'a tube').toLowerCase();
    if (parts.length === 1) return `${name(parts[0]!.id)} as it comes`;
    return parts.map((one) => `${wordForParts((12 * one.parts) / whole)} ${name(one.id)}`).join(', ');
  }

  /** Keeps it: a pile of the painting on the easel, mixed as a hand measures it from these very tubes; a card where nothing is on the easel. */
  async function keep({ lab, parts }: Made): Promise<boolean> {
    if (isKeeping.value) return false;
    isKeeping.value = true;
    try {
      const of = parts.flatMap(({ id }) => tubes.byId.get(id) ?? []);
      const ml = settings.settings.amountMl;
      const name = firstName(lab, piles.names);
      const best = await recipeFrom(of, lab, ml);
      const plan =
        best?.mixture ?? mixtureOf(parts.map((one) => ({ tube: one.id, state: tubes.byId.get(one.id)!.stateId, parts: one.parts })));
      if (paintings.onEasel) return (await piles.keep({ name, lab, plan: mixtureDto(plan), ml })) !== undefined;
      return (await cards.makeOf([{ name, mixture: plan, ml }], 'palette', name)) !== undefined;
    } finally {
      isKeeping.value = false;
    }
  }
  const where = computed(() => (paintings.onEasel ? `a pile for “${paintings.onEasel.title}”` : 'a card'));
  return { says, keep, isKeeping, where };
}
