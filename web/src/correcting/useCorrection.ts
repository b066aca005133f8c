import { evidenceOf, readingOf, type Addable, type Beliefs, type Correction, type Lab, type Sight } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, shallowRef, watch, type Ref } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { Jobs } from '../engine/jobs.ts';
import { useLanding } from '../stores/landing.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useTubes, type Tube } from '../stores/tubes.ts';
import { useSettings } from '../stores/settings.ts';
import { usePiles } from '../stores/piles.ts';
import { useWhite } from '../floor/white.ts';

/** A correction, and how many ml a part of it is. */
export interface Corrected {
  readonly correction: Correction;
  readonly mlOfPart: number;
  /** The look it answers. */
  readonly seen: Lab;
}

/** How a pile looks, how that was read, and whether the painter has confirmed it. */
interface Looked {
  readonly lab: Lab;
  readonly sight: Sight;
  readonly confirmed?: boolean;
}

/** A sighting of which nothing was recorded yet. */
const NEW_SIGHTING = 'new';

const addable = (tube: Tube): Addable => ({ id: tube.id, K: tube.base.K, S: tube.base.S, nozzleMm: tube.nozzleMm });

/**
 * What to add to a pile, live: asked anew with every look, of which only the newest is answered. What
 * is believed of the tubes without this pile comes from the studio.
 */
export function useCorrection(pile: Ref<PileDto>, look: Ref<Looked | undefined>) {
  const studio = useStudio();
  const piles = usePiles();
  const desk = useDesk();
  const tubes = useTubes();
  const settings = useSettings();
  const white = useWhite();
  const beliefs = shallowRef<Beliefs>();
  const corrected = shallowRef<Corrected>();
  /** What it is to look like on the knife: what looks right once it is laid, where that is said. */
  const target = computed(() => useLanding().wantedOf(pile.value));

  watch(
    [() => pile.value.id, () => tubes.all.map((t) => t.stateId).join()],
    async ([id]) => {
      const found = await studio.ask('beliefs', id);
      if (pile.value.id === id) beliefs.value = found;
    },
    { immediate: true },
  );

  /** What the engine needs to know of the pile as it looks now. */
  function needs({ lab: seen, sight, confirmed }: Looked): { readonly job: Jobs['correct']['needs']; readonly parts: number } | undefined {
    const content = piles.contentOf(pile.value.id);
    if (!target.value || !beliefs.value || !content || content.ml <= 0 || desk.paletteTubes.length === 0) return undefined;
    const palette = desk.paletteTubes.map(addable);
    // What is said by eye holds; a reader or a photo is weighed.
    const insists = sight === 'eye';
    const common = { target: target.value, beliefs: beliefs.value, palette, insists };
    const own = piles.records.filter((r) => r.pile === pile.value.id);
    const stages = evidenceOf(own, desk.through, settings.settings.knife);
    if (!stages || stages.length === 0)
      return content.paint && { job: { ...common, paint: content.paint, parts: content.ml, partMl: 1, seen }, parts: content.ml };
    const last = stages.length - 1;
    const observed = stages.map((s, i) =>
      i === last ? { ...s, observed: seen, reading: readingOf(sight, white.sightingNow(sight) ?? NEW_SIGHTING, confirmed) } : s,
    );
    const onPalette = new Set(palette.map((t) => t.id));
    const others = Object.keys(content.tubes).flatMap((id) => (onPalette.has(id) ? [] : (tubes.byId.get(id) ?? [])));
    const parts = stages.reduce((sum, s) => sum + s.additions.reduce((n, d) => n + d.parts, 0), 0);
    const partMl = pile.value.there / parts;
    return { job: { ...common, stages: observed, others: others.map(addable), partMl }, parts };
  }

  let asking: AbortController | undefined;
  let busy = false;
  let again = false;
  async function ask(): Promise<void> {
    const seen = look.value;
    if (busy) return void (again = true);
    const needed = seen && needs(seen);
    if (!seen || !needed) return void (corrected.value = undefined);
    busy = true;
    const own = (asking = new AbortController());
    const since = performance.now();
    try {
      const correction = await unlessGivenUp(engine().ask('correct', needed.job, { signal: own.signal }));
      if (correction && look.value) {
        corrected.value = { correction, mlOfPart: pile.value.there / needed.parts, seen: seen.lab };
        performance.measure('correction follows', { start: since, end: performance.now() });
      }
    } finally {
      busy = false;
    }
    if (again) {
      again = false;
      await ask();
    }
  }
  watch([look, beliefs, () => desk.paletteTubes], () => void ask(), { immediate: true });
  watch(
    () => pile.value.id,
    () => {
      asking?.abort();
      corrected.value = undefined;
    },
  );

  return { corrected, target, beliefs };
}
