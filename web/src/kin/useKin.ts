import {
  betweenNeighbours,
  compareColours,
  firstWay,
  masstoneOf,
  paintOfMixture,
  wetBlend,
  type Lab,
  type Mixture,
  type NextPile,
  type WayOn,
} from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { until } from '@vueuse/core';
import { computed, onScopeDispose, reactive, ref, shallowRef, watch, type Ref } from 'vue';
import { useRoute } from 'vue-router';
import { engine, unlessGivenUp, type Desk } from '../engine/engine.ts';
import { useNotices } from '../floor/notices.ts';
import { useDesk } from '../stores/useDesk.ts';
import { usePaintings } from '../stores/paintings.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import { A_PRESS, childName, childOps, isMoved, madeLarger, kinOf, noSteps, poured, type KinStep } from './kin.ts';
import { madeInto } from '../recipe/deeds.ts';
import { useMothers } from './mothers.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { newId } from '../floor/ids.ts';

/** How the next pile is got: in one of the ways from the pile, from tubes alone, or as comes first. */
export type MadeFrom = WayOn | 'tubes' | '';
type Found = Pick<NextPile, 'mixture' | 'lab' | 'deltaE00' | 'valueError'>;
/** How large the next pile is planned. */
export const NEXT_ML = 3;
/** Piles that lie there and may be the one thing that is added, those nearest in value. */
const MOST_BESIDE = 6;
/** An answer that has not come by then was given up. */
const ANSWER_MS = 20_000;

/**
 * What is wanted of a pile by steps (darker, in shadow, toward another), and the additions that do it,
 * live; or the pile and another one into one. Taken as a child, or as a change to the pile itself.
 */
export function useKin(pile: Ref<PileDto>, active: Ref<boolean>) {
  const route = useRoute();
  const piles = usePiles();
  const desk = useDesk();
  const tubes = useTubes();
  const paintings = usePaintings();
  const settings = useSettings();
  const mothers = useMothers();
  const steps = reactive(noSteps());
  /** What it is stepped toward: a pile or a tube. */
  const aimId = ref('');
  /** The pile that this one is poured into one with, and how many parts of each. */
  const withId = ref('');
  const ratio = ref<readonly [number, number]>([1, 1]);
  const from = ref<MadeFrom>('');

  const lab = computed(() => lookNow(pile.value));
  const labOf = (id: string): Lab | undefined => {
    const other = piles.byId.get(id);
    return other ? lookNow(other) : tubes.byId.get(id)?.masstone;
  };
  const ceiling = computed(() => paintings.onEasel?.ceiling ?? undefined);
  const other = computed(() => piles.byId.get(withId.value));
  const pouring = computed<Mixture | undefined>(() => {
    if (!other.value) return undefined;
    const leaf = ({ id, stages }: PileDto) => ({ pile: id, ...(stages.length > 0 && { stage: stages.at(-1)!.id }) });
    return poured(leaf(pile.value), leaf(other.value), ratio.value);
  });

  /** What a brush makes of the two, wet into wet. */
  const blend = computed(() => {
    if (!other.value || !active.value) return undefined;
    const [one, another] = [pile.value, other.value].map(({ id }) => desk.paintOfPile(id));
    return one && another ? wetBlend(one, another) : undefined;
  });

  /** Distances to its neighbours hold whatever else is changed. */
  const neighbours = computed(() =>
    (pile.value.purpose.neighbours ?? []).flatMap(({ pileId, least, most, apart }) => {
      const at = labOf(pileId);
      return at ? [{ id: pileId, name: piles.byId.get(pileId)?.name ?? '', lab: at, least, most, apart }] : [];
    }),
  );
  const between = computed(() => {
    const wished = kinOf(lab.value, steps, labOf(aimId.value), ceiling.value);
    const bound = neighbours.value.filter(({ least, most, apart }) => least !== undefined || most !== undefined || apart !== undefined);
    return bound.length === 0 || !isMoved(steps) ? undefined : betweenNeighbours(wished, bound);
  });
  const wanted = computed<Lab>(() => between.value?.lab ?? kinOf(lab.value, steps, labOf(aimId.value), ceiling.value));
  const moves = computed(() => isMoved(steps));
  /** How what is wanted stands to each neighbour, in the painter's figures. */
  const distances = computed(() =>
    neighbours.value.map(({ name, lab: at }) => ({ name, ...compareColours(wanted.value, at, settings.settings.warmBlue) })),
  );

  /** What lies on the palette, does not come from this pile, and is near it. */
  const beside = computed(() =>
    piles.byValue
      .filter((one) => one.id !== pile.value.id && one.there > 0 && !piles.restsOn(one.id, pile.value.id))
      .sort((one, another) => Math.abs(lookNow(one)[0] - lab.value[0]) - Math.abs(lookNow(another)[0] - lab.value[0]))
      .slice(0, MOST_BESIDE)
      .map(({ id }) => id),
  );
  const withPile = shallowRef<Desk>();
  let laying: AbortController | undefined;
  const clear = (): void => {
    laying?.abort();
    if (withPile.value) engine().clear(withPile.value);
    withPile.value = undefined;
  };
  watch(
    [
      active,
      () => pile.value.id,
      () => pile.value.stages.at(-1)?.id,
      () => pile.value.plan,
      () => desk.desk,
      () => beside.value.join(),
    ] as const,
    async ([isActive]) => {
      clear();
      if (!isActive || !desk.desk) return;
      const own = (laying = new AbortController());
      const laid = await desk.layWith([pile.value.id, ...beside.value], own.signal);
      if (laid && own.signal.aborted) engine().clear(laid);
      else withPile.value = laid;
    },
    { immediate: true },
  );

  /** Every way to it from the pile, its own tubes first; the one that was chosen, or the first that comes there. */
  const ways = shallowRef<readonly NextPile[]>([]);
  const fromTubes = shallowRef<Found>();
  const way = computed<MadeFrom>(() => from.value || (firstWay(ways.value)?.way ?? ''));
  const found = computed<Found | undefined>(() =>
    from.value === 'tubes' ? fromTubes.value : ways.value.find((one) => one.way === way.value),
  );
  /** What the answer that is shown was asked for: a step that was just pressed may not be answered yet. */
  const answered = ref('');
  const askedNow = computed(() => `${pile.value.id} ${wanted.value.join()} ${from.value}`);
  /** Nothing that is added brings it nearer. */
  const failed = ref(false);
  let asking: AbortController | undefined;
  watch(
    [withPile, () => desk.desk, () => wanted.value.join(), from, moves, () => settings.settings.dulling] as const,
    async ([laid, palette, , made, isWanted, dulling]) => {
      asking?.abort();
      if (!laid || !palette || !isWanted) {
        ways.value = [];
        fromTubes.value = undefined;
        return;
      }
      const own = (asking = new AbortController());
      const since = performance.now();
      const target = wanted.value;
      const isFor = askedNow.value;
      const asked = { signal: own.signal };
      if (made === 'tubes') {
        const wishes = { dulling, amountMl: NEXT_ML };
        const answer = await unlessGivenUp(engine().ask('solve', { target, wishes }, { ...asked, desk: palette }));
        if (own.signal.aborted || !answer) return;
        fromTubes.value = answer.proposals[0];
      } else {
        const needs = { pileId: pile.value.id, target, amountMl: NEXT_ML };
        const answer = await unlessGivenUp(engine().ask('next', needs, { ...asked, desk: laid }));
        if (own.signal.aborted || !answer) return;
        ways.value = answer;
        failed.value = answer.length === 0;
      }
      answered.value = isFor;
      performance.measure('kin follows', { start: since, end: performance.now() });
    },
  );
  onScopeDispose(() => {
    asking?.abort();
    clear();
  });

  /** The colour that is shown beside the pile: of the recipe once there is one. */
  const pouredLab = computed(() => pouring.value && masstoneOf(paintOfMixture(pouring.value, (source) => desk.paintOf(source).paint)));
  const plan = computed<Mixture | undefined>(() => (moves.value ? found.value?.mixture : pouring.value));
  const shown = computed<Lab | undefined>(() => (moves.value ? (found.value?.lab ?? wanted.value) : pouredLab.value));
  const words = computed(() => (shown.value ? compareColours(shown.value, lab.value, settings.settings.warmBlue).words : []));
  const comesOf = computed(() => {
    if (!moves.value && other.value) return `${pile.value.name} and ${other.value.name}`.slice(0, 80);
    return childName(pile.value.name, words.value, steps);
  });

  function step(by: KinStep, way: number): void {
    withId.value = '';
    from.value = '';
    const next = steps[by] + A_PRESS[by] * way;
    steps[by] = by === 'shadow' || by === 'off' ? Math.max(0, Math.min(12, next)) : next;
  }
  function aimAt(id: string): void {
    aimId.value = id;
    steps.toward = id === '' ? 0 : steps.toward || 3;
    withId.value = '';
  }
  function pourWith(id: string): void {
    Object.assign(steps, noSteps());
    withId.value = id;
    ratio.value = [1, 1];
  }
  function reset(): void {
    Object.assign(steps, noSteps());
    aimId.value = withId.value = '';
  }
  watch(() => pile.value.id, reset);
  watch(
    () => String(route.query['with'] ?? ''),
    (id) => id && id !== pile.value.id && piles.byId.has(id) && pourWith(id),
    { immediate: true },
  );

  /** What is kept is what was pressed last, not what stood there before. @returns whether it stands there */
  async function settled(): Promise<boolean> {
    if (!moves.value) return true;
    await until(() => answered.value === askedNow.value).toBe(true, { timeout: ANSWER_MS });
    if (answered.value === askedNow.value) return true;
    useNotices().refused('The recipe for this did not come, so nothing was kept. Press again.');
    return false;
  }

  /** @returns the id of the child, where it was kept */
  async function keepChild(): Promise<string | undefined> {
    if (!(await settled()) || !plan.value || !shown.value) return undefined;
    const id = newId();
    const target = moves.value ? wanted.value : shown.value;
    const child = { id, name: comesOf.value, lab: target, plan: plan.value, ml: NEXT_ML, steps: { ...steps } };
    const larger = madeLarger(pile.value, child.plan, NEXT_ML);
    if (!(await piles.make([...larger, ...childOps(pile.value, child)], `Kept “${child.name}”`))) return undefined;
    reset();
    return id;
  }

  const isMixed = computed(() => pile.value.there > 0);
  /** Changes the pile itself: what is planned is planned anew, to what lies there the additions are recorded. */
  async function changeItself(): Promise<boolean> {
    if (!(await settled()) || !plan.value || !shown.value) return false;
    const target = moves.value ? wanted.value : shown.value;
    if (isMixed.value) {
      const { id, version, name } = pile.value;
      const to = { kind: 'absolute' as const, lab: { L: target[0], a: target[1], b: target[2] } };
      const made = await piles.make(
        [
          { do: 'pile.change', id, version, target: to },
          ...madeInto(pile.value, plan.value, settings.settings.measure, tubes.byId, piles.byId),
        ],
        `Changed “${name}” itself`,
      );
      if (made) reset();
      return made;
    }
    const { proposals } = await engine().ask('solve', { target }, { desk: desk.desk! });
    const changed = await mothers.change(pile.value, proposals[0]!.mixture, `Changed “${pile.value.name}” itself`, target);
    if (changed || mothers.asked) reset();
    return changed;
  }

  return {
    steps,
    aimId,
    withId,
    other,
    blend,
    ratio,
    from,
    way,
    ways,
    moves,
    wanted,
    between,
    neighbours,
    distances,
    found,
    failed,
    plan,
    shown,
    words,
    comesOf,
    isMixed,
    step,
    aimAt,
    pourWith,
    reset,
    keepChild,
    changeItself,
  };
}
export type KinState = ReturnType<typeof useKin>;
