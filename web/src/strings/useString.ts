import {
  keyedTo,
  MOST_IN_STRING,
  stepsBeyond,
  valueOfLightness,
  withPlacesAs,
  type HeldInString,
  type Lab,
  type Route,
  type StringWish,
} from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { labDto, mixtureSent } from '@dusk/wire/written';
import { until } from '@vueuse/core';
import { computed, nextTick, onScopeDispose, reactive, ref, shallowRef, watch, type Ref } from 'vue';
import { engine, unlessGivenUp, type Desk } from '../engine/engine.ts';
import type { ProposedString } from '../engine/proposal.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { newId } from '../floor/ids.ts';

/** How a string is set out, as the painter last had it. */
export interface StringSet {
  n: number;
  route: Route;
  held: HeldInString;
  /** Warm and cool by turns, or each step as a pair. */
  kind: 'plain' | 'brush' | 'turns' | 'pairs';
  by: number;
  ml: number;
}

/** A string that is not laid out by then was given up. */
const ANSWER_MS = 6000;
/** Piles that are carried to light and dark come so near to white and black. */
const CARRIED = { darkest: 1.5, lightest: 8.8 } as const;

/** A string from this pile through others, as one plan; kept as piles that stand in it. */
export function useString(pile: Ref<PileDto>, active: Ref<boolean>) {
  const piles = usePiles();
  const desk = useDesk();
  const paintings = usePaintings();
  const settings = useSettings();
  const set = reactive<StringSet>({ n: 5, route: 'straight', held: 'nothing', kind: 'plain', by: 3, ml: 3 });
  /** The stops after this pile, in order. */
  const stops = ref<string[]>([]);
  /** This pile carried to dark and to light, instead of through stops. */
  const carried = ref(false);
  const proposed = shallowRef<ProposedString>();
  const busy = ref(false);

  const through = computed(() => [pile.value, ...stops.value.flatMap((id) => piles.byId.get(id) ?? [])]);
  const wish = computed<StringWish | undefined>(() => {
    const shape = {
      n: set.n,
      routes: [set.route],
      held: set.held,
      ...(set.kind === 'brush' && { brush: true }),
      ...(set.kind === 'turns' && { turns: set.by }),
      ...(set.kind === 'pairs' && { pairs: set.by }),
      ceiling: paintings.onEasel?.ceiling ?? undefined,
    };
    if (carried.value) {
      const lab = lookNow(pile.value);
      const value = valueOfLightness(lab[0]);
      const ends = [Math.min(value - 0.5, CARRIED.darkest), Math.max(value + 0.5, CARRIED.lightest)].map((to) =>
        keyedTo(lab, Math.min(9.6, Math.max(0.4, to))),
      );
      return { ...shape, n: Math.max(3, set.n), stops: [ends[0]!, lab, ends[1]!], piles: [undefined, pile.value.id, undefined] };
    }
    if (through.value.length < 2) return undefined;
    return {
      ...shape,
      n: Math.max(through.value.length, set.n),
      stops: through.value.map((one): Lab => lookNow(one)),
      piles: through.value.map(({ id }) => id),
    };
  });

  const onDesk = shallowRef<Desk>();
  let laying: AbortController | undefined;
  const clear = (): void => {
    laying?.abort();
    if (onDesk.value) engine().clear(onDesk.value);
    onDesk.value = undefined;
  };
  watch(
    [active, () => through.value.map((p) => `${p.id} ${p.version} ${p.stages.at(-1)?.id}`).join(), () => desk.desk] as const,
    async ([isActive]) => {
      clear();
      if (!isActive || !desk.desk) return;
      const own = (laying = new AbortController());
      const laid = await desk.layWith(
        through.value.map(({ id }) => id),
        own.signal,
      );
      if (laid && own.signal.aborted) engine().clear(laid);
      else onDesk.value = laid;
    },
    { immediate: true },
  );

  let asking: AbortController | undefined;
  watch([onDesk, wish, () => set.ml] as const, async ([laid, wished, ml]) => {
    asking?.abort();
    proposed.value = undefined;
    busy.value = false;
    if (!laid || !wished) return;
    const own = (asking = new AbortController());
    busy.value = true;
    const since = performance.now();
    const found = await unlessGivenUp(engine().ask('string', { wish: wished, ml }, { desk: laid, signal: own.signal }));
    if (own.signal.aborted) return;
    busy.value = false;
    proposed.value = found;
    performance.measure('string follows', { start: since, end: performance.now() });
  });
  onScopeDispose(() => {
    asking?.abort();
    clear();
  });
  watch(
    () => pile.value.id,
    () => {
      stops.value = [];
      carried.value = false;
    },
  );

  const beyond = computed(() =>
    proposed.value && !proposed.value.brush
      ? stepsBeyond(proposed.value.steps, settings.settings.stepLeast, settings.settings.stepMost)
      : [],
  );

  function toggle(id: string): void {
    carried.value = false;
    stops.value = stops.value.includes(id) ? stops.value.filter((one) => one !== id) : [...stops.value, id];
    set.n = Math.max(set.n, stops.value.length + 1);
  }
  function resize(n: number): void {
    set.n = Math.min(
      set.kind === 'pairs' ? MOST_IN_STRING / 2 : MOST_IN_STRING,
      Math.max(carried.value ? 3 : Math.max(2, through.value.length), n),
    );
  }

  const nameOf = (at: number, of: number): string => `${pile.value.name.slice(0, 68)}, ${at + 1} of ${of}`;

  /** Keeps the string: its piles as one change, those that are there already as they are. @returns the id of its first new pile */
  async function keep(): Promise<string | undefined> {
    await nextTick();
    if (wish.value) await until(proposed).toBeTruthy({ timeout: ANSWER_MS });
    const plan = proposed.value;
    const onEasel = paintings.onEasel;
    if (!plan || !onEasel) return undefined;
    const stringId = newId();
    const ids = plan.piles.map(({ isPile }) => isPile ?? newId());
    const ops = plan.order.flatMap((at): Operation[] => {
      const one = plan.piles[at]!;
      const string = { id: stringId, at: at + 1 };
      if (one.isPile !== undefined) {
        const { version, stages, ml } = piles.byId.get(one.isPile)!;
        // What is still to be mixed is planned larger by what the others take of it.
        const larger = stages.length === 0 && one.ml > plan.ml ? { ml: Math.min(500, Number((ml + one.ml - plan.ml).toFixed(1))) } : {};
        return [{ do: 'pile.change', id: one.isPile, version, string, ...larger }];
      }
      return [
        {
          do: 'pile.add',
          id: ids[at]!,
          paintingId: onEasel.id,
          name: nameOf(at, plan.piles.length),
          target: { kind: 'absolute', lab: labDto(one.target) },
          plan: mixtureSent(withPlacesAs(one.mixture, ids)),
          ml: Math.min(500, one.ml),
          layer: pile.value.layer,
          string,
        },
      ];
    });
    if (!(await piles.make(ops, plan.brush ? `Kept ${plan.piles.length} piles for the brush` : `Kept a row of ${plan.piles.length}`)))
      return undefined;
    stops.value = [];
    carried.value = false;
    return plan.piles.findIndex(({ isPile }) => isPile === undefined) < 0
      ? pile.value.id
      : ids[plan.order.find((at) => plan.piles[at]!.isPile === undefined)!];
  }

  return { set, stops, carried, proposed, busy, through, beyond, toggle, resize, keep };
}
export type StringState = ReturnType<typeof useString>;
