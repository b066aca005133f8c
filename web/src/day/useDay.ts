import {
  isBehind,
  measurings,
  minutesFor,
  isTube,
  leavesOf,
  paceFrom,
  takenFromTubes,
  type DayPlan,
  type DayPile,
  type DayWishes,
} from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { computed, onScopeDispose, shallowRef, watch, type Ref } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { usePaintings } from '../stores/paintings.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useSamples } from '../stores/samples.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useTubes } from '../stores/tubes.ts';

const MINUTE_MS = 60_000;

/** The day's plan of the piles that are still to be mixed in the layer that is painted now. */
export function useDay(active: Ref<boolean>) {
  const piles = usePiles();
  const samples = useSamples();
  const paintings = usePaintings();
  const desk = useDesk();
  const tubes = useTubes();
  const plan = shallowRef<DayPlan>();

  const planned = computed(() =>
    piles.list.filter(({ stages, layer }) => stages.length === 0 && layer === (paintings.onEasel?.layer ?? 1)),
  );
  const thingOf = ({ purpose, sampleId }: PileDto): string => {
    const own = samples.all.find(({ id }) => id === sampleId);
    return purpose.thing ?? own?.thing ?? '';
  };
  const zoneOf = ({ purpose, sampleId }: PileDto): string => purpose.zone ?? samples.all.find(({ id }) => id === sampleId)?.zone ?? '';
  /** Where a pile goes, as it is told beside its name. */
  const whereOf = (pile: PileDto): string => [zoneOf(pile), thingOf(pile)].filter(Boolean).join(' of ');

  /** How long piles took that were mixed one after another, against what is guessed for them. */
  const pace = computed(() => {
    const mixed = piles.list
      .flatMap((pile) => {
        const first = pile.stages.find(({ kind }) => kind === 'mixed');
        return first ? [{ at: Date.parse(first.at), guessed: minutesFor({ measurings: measurings(pile.plan) }) }] : [];
      })
      .sort((one, other) => one.at - other.at);
    return paceFrom(mixed.slice(1).map(({ at, guessed }, i) => ({ minutes: (at - mixed[i]!.at) / MINUTE_MS, guessed })));
  });
  const wishes = computed((): DayWishes => {
    const { order = 'darks first', minutes } = paintings.onEasel?.day ?? {};
    return { order, ...(minutes !== undefined && { minutes }), ...(pace.value !== undefined && { pace: pace.value }) };
  });

  const toMix = (): DayPile[] =>
    planned.value.map((pile) => {
      const { K, S } = desk.paintOfPile(pile.id);
      return {
        id: pile.id,
        K,
        S,
        lab: lookNow(pile),
        mothers: piles.mothersOf(pile.id),
        tubes: Object.keys(desk.flatOfPile(pile.id)),
        measurings: measurings(pile.plan),
        isBackground: isBehind(`${thingOf(pile)} ${pile.name}`),
      };
    });

  let asking: AbortController | undefined;
  watch(
    [active, () => desk.desk, wishes, () => planned.value.map(({ id, version }) => `${id} ${version}`).join()] as const,
    async ([isActive, laid, wished]) => {
      asking?.abort();
      if (!isActive || !laid || planned.value.length === 0) return void (plan.value = undefined);
      const own = (asking = new AbortController());
      const found = await unlessGivenUp(engine().ask('day', { piles: toMix(), wishes: wished }, { desk: laid, signal: own.signal }));
      if (!own.signal.aborted) plan.value = found;
    },
    { immediate: true },
  );
  onScopeDispose(() => asking?.abort());

  /** What the piles of the day take from each tube, what there is most of first, and whether the tube has it. */
  const taken = computed(() => {
    const shown = new Set(plan.value?.steps.map(({ id }) => id));
    // What comes from another pile was squeezed out for that one.
    const all = planned.value
      .filter(({ id }) => shown.has(id))
      .flatMap(({ plan: of, ml }) =>
        leavesOf(of).flatMap(({ source, share }) => (isTube(source) ? [{ ml: ml * share, flat: { [source.tube]: 1 } }] : [])),
      );
    return [...takenFromTubes(all)]
      .flatMap(([id, ml]) => {
        const tube = tubes.byId.get(id);
        return tube ? [{ tube, ml, isShort: tube.leftMl !== null && tube.leftMl < ml }] : [];
      })
      .sort((one, other) => other.ml - one.ml);
  });

  return { plan, planned, wishes, whereOf, taken, pace };
}
