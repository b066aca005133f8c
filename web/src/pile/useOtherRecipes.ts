import { CraftError, deltaE00, keyOf, leavesOf, type Mixture } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { until } from '@vueuse/core';
import { computed, nextTick, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { engine, unlessGivenUp, type Desk } from '../engine/engine.ts';
import type { NearestProposed, Proposed } from '../engine/proposal.ts';
import { useLanding } from '../stores/landing.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useWished, wishesOf } from '../recipe/wished.ts';

/** Piles that may be ingredients beside the tubes. */
const MOST_LYING = 16;
/** An answer that has not come by then was given up. */
const ANSWER_MS = 4000;

/** What a mixture is made of, whatever it is called and however it is measured. */
export const madeOf = (mixture: Mixture): string =>
  leavesOf(mixture)
    .map(({ source, share }) => `${keyOf('tube' in source ? { tube: source.tube } : { pile: source.pile })} ${share.toFixed(4)}`)
    .sort()
    .join();

/** Recipes for a pile's target, as they are wished; asked anew with every wish, of which only the newest is answered. */
export function useOtherRecipes(pile: Ref<PileDto>) {
  const desk = useDesk();
  const piles = usePiles();
  const settings = useSettings();
  const store = useWished();
  const wished = computed(() => store.of(pile.value.id));
  const answer = shallowRef<Proposed>();
  const nearest = shallowRef<NearestProposed>();
  const failure = ref('');
  /** Whether what is shown answers what is wished now. */
  const isFresh = ref(false);
  const target = computed(() => pile.value.target && labOfDto(pile.value.target.lab));

  /** Piles that lie on the palette and do not come from this one, dark to light; of very many those nearest to the target. */
  const lying = computed(() => {
    const all = piles.byValue.filter((other) => other.id !== pile.value.id && other.there > 0 && !piles.restsOn(other.id, pile.value.id));
    const wanted = target.value;
    if (!wanted || all.length <= MOST_LYING) return all;
    const near = [...all].sort((one, other) => deltaE00(wanted, lookNow(one)) - deltaE00(wanted, lookNow(other))).slice(0, MOST_LYING);
    return all.filter((one) => near.includes(one));
  });
  const withPiles = shallowRef<Desk>();
  let laying: AbortController | undefined;
  /** What is looked for is what looks right there, where it is said how the pile is laid. */
  const landing = computed(() => useLanding().landingOf(pile.value));
  watch(
    [
      () => wished.value.from,
      () => lying.value.map((p) => `${p.id} ${p.stages.at(-1)?.id}`).join(),
      () => desk.desk,
      () => landing.value && JSON.stringify(landing.value, (_, v: unknown) => (ArrayBuffer.isView(v) ? [...(v as Float64Array)] : v)),
    ] as const,
    async ([from]) => {
      laying?.abort();
      if (withPiles.value) engine().clear(withPiles.value);
      withPiles.value = undefined;
      const there = landing.value;
      if ((from === 'tubes' && !there) || !desk.desk) return;
      const own = (laying = new AbortController());
      const beside = from === 'tubes' ? [] : lying.value.map((p) => p.id);
      const laid = await (there ? useLanding().layThere(there, beside, own.signal) : desk.layWith(beside, own.signal));
      if (laid && own.signal.aborted) engine().clear(laid);
      else withPiles.value = laid;
    },
    { immediate: true },
  );
  const onDesk = computed(() => (wished.value.from === 'tubes' && !landing.value ? desk.desk : withPiles.value));

  let asking: AbortController | undefined;
  watch(
    [
      onDesk,
      () => pile.value.id,
      target,
      () => JSON.stringify({ ...wished.value, pinned: undefined }),
      () => settings.settings.dulling,
      () => pile.value.ml,
    ] as const,
    async ([laid, , wanted, , dulling], was) => {
      asking?.abort();
      isFresh.value = false;
      failure.value = '';
      nearest.value = undefined;
      // Another pile's answer is none; of the same pile it stands until the new one is there.
      if (!laid || !wanted || was[1] !== pile.value.id) answer.value = undefined;
      if (!laid || !wanted) return;
      const own = (asking = new AbortController());
      const asked = { desk: laid, signal: own.signal };
      const there = new Set([...laid.laid.tubes, ...laid.laid.piles].map(({ id }) => id));
      const since = performance.now();
      try {
        const wishes = { ...wishesOf(wished.value, dulling, (id) => there.has(id)), amountMl: pile.value.ml };
        const found = await unlessGivenUp(engine().ask('solve', { target: wanted, wishes, exactly: wished.value.exactly }, asked));
        if (!found) return;
        answer.value = found;
        isFresh.value = true;
        performance.measure('alternatives follow', { start: since, end: performance.now() });
        if (found.reach !== 'out') return;
        const rack = desk.rack.map(({ id, paint }) => ({ id, K: paint.K, S: paint.S }));
        nearest.value = await unlessGivenUp(engine().ask('nearest', { target: wanted, rack }, asked));
      } catch (cause) {
        if (!(cause instanceof CraftError)) throw cause;
        answer.value = undefined;
        failure.value = cause.message;
      }
    },
    { immediate: true },
  );
  onScopeDispose(() => {
    asking?.abort();
    laying?.abort();
    if (withPiles.value) engine().clear(withPiles.value);
  });

  const own = computed(() => madeOf(pile.value.plan));
  const pinned = computed(() => wished.value.pinned);
  /** Really other recipes than the pile has, and none twice. */
  const others = computed(() => {
    const seen = new Set([own.value, ...(pinned.value ? [madeOf(pinned.value.mixture)] : [])]);
    return (answer.value?.proposals ?? []).filter(({ mixture }) => !seen.has(madeOf(mixture)) && seen.add(madeOf(mixture))).slice(0, 3);
  });
  /** The nearest in each way, each recipe once, and none that the pile has. */
  const ways = computed(() => {
    const byRecipe = new Map<string, { readonly names: string[]; readonly proposal: NearestProposed['kinds'][number]['proposal'] }>();
    for (const { by, proposal } of nearest.value?.kinds ?? []) {
      const key = madeOf(proposal.mixture);
      if (key === own.value) continue;
      const known = byRecipe.get(key);
      if (known) known.names.push(by);
      else byRecipe.set(key, { names: [by], proposal });
    }
    return [...byRecipe.values()];
  });

  /** Waits for the answer to what is wished now. */
  async function settled(): Promise<void> {
    // A wish that was just pressed is heard with the next turn.
    await nextTick();
    await until(isFresh).toBe(true, { timeout: ANSWER_MS });
  }

  return { settled, wished, answer, nearest, ways, others, pinned, target, lying, failure };
}
