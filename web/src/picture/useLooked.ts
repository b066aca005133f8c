import { type Affine, type Lab, type ReachMap } from '@dusk/core';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import type { KeySent, LookAsked, LookedAt, LookNeeds } from '../engine/pictures.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useDress } from '../stores/dress.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useSight } from '../floor/sight.ts';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';
import { useTrying } from '../stores/trying.ts';

export interface Shown {
  /** px. */
  readonly width: number;
  readonly height: number;
  /** Pixels of the screen to one of the picture as it is cut. */
  readonly scale: number;
  /** Where the part that is shown begins, pixels of the screen; the whole picture begins at 0. */
  readonly from?: readonly [number, number];
}

/**
 * What the picture is looked at as, worked out away from the page: only the newest is asked for.
 * @param isPart a part of the picture beside the whole, which looks for what is out of reach by itself
 */
export function useLooked(shown: Readonly<Ref<Shown | undefined>>, isPart = false) {
  const store = useReference();
  const looking = useLooking();
  const sight = useSight();
  const settings = useSettings();
  const desk = useDesk();
  const dress = useDress();
  const trying = useTrying();
  const piles = usePiles();
  const looked = shallowRef<LookedAt>();
  const reach = shallowRef<ReachMap>();
  /** How far the sweep for what is out of reach is, 0–1. */
  const sweeping = ref<number>();
  /** Whether it came to nothing, though nobody left it off. */
  const sweepFailed = ref(false);
  let isGone = false;

  const bounds = (): readonly number[] => dress.bounds;
  const keySent = (): KeySent | undefined => (store.isKeyed && store.key ? { plan: store.key.plan, ends: store.key.ends } : undefined);

  /** How the pile looks whose places are lit. */
  const litPile = (): Lab | undefined => {
    const pile = looking.lit === undefined ? undefined : piles.byId.get(looking.lit);
    return pile && lookNow(pile);
  };
  function asked(): LookAsked {
    if (looking.without) return { kind: 'colour' };
    const lit = litPile();
    if (lit) return { kind: 'serving', pile: lit };
    switch (looking.look) {
      case 'values':
        return { kind: 'values', bounds: bounds(), range: store.range ?? { darkest: 0, lightest: 10 } };
      case 'edges':
        return { kind: 'edges', bounds: bounds() };
      case 'warmth':
        return { kind: 'warmth', pivot: store.view.pivot ?? 0, warmBlue: settings.settings.warmBlue };
      case 'strength':
        return { kind: 'strength' };
      case 'reach':
        return reach.value ? { kind: 'reach', table: reach.value.table } : { kind: 'colour' };
      case 'piles':
        return dress.asked;
      case 'colour':
        return { kind: 'colour' };
    }
  }

  function needs(): LookNeeds | undefined {
    const { pixels, frame } = store;
    if (!pixels || !frame || !shown.value || shown.value.width < 1) return undefined;
    const { width, height, scale, from } = shown.value;
    const [a, b, c, d, e, f] = frame.toFrame.map((v) => v * scale) as unknown as Affine;
    const transform: Affine = [a, b, c, d, e - (from?.[0] ?? 0), f - (from?.[1] ?? 0)];
    const plain = looking.without;
    return {
      pictureId: pixels.id,
      gains: plain ? [1, 1, 1] : store.gains,
      // A pile is painted: what it serves is what is to be painted so.
      key: (looking.asPaint || litPile()) && !plain ? keySent() : undefined,
      look: asked(),
      width,
      height,
      transform,
      squint: !plain && (sight.squint || looking.look === 'edges') ? looking.squint : 0,
      lost: looking.lost && !plain,
      trial: plain ? undefined : trying.asked,
    };
  }

  let busy = false;
  let again = false;
  async function draw(): Promise<void> {
    if (busy) {
      again = true;
      return;
    }
    busy = true;
    do {
      again = false;
      const now = needs();
      if (!now) break;
      const started = performance.now();
      // A picture that was let go of is decoded again and then drawn.
      const found = await unlessGivenUp(engine().ask('look', now)).catch(() => undefined);
      if (isGone) break;
      if (found && now.pictureId === store.pixels?.id) {
        looked.value = found;
        performance.measure('look drawn', { start: started, end: performance.now() });
      }
    } while (again);
    busy = false;
  }

  const isReach = (): boolean => looking.look === 'reach' && !isPart;
  let sweep: AbortController | undefined;
  async function sweepReach(): Promise<void> {
    sweep?.abort();
    sweeping.value = undefined;
    sweepFailed.value = false;
    if (!isReach() || !store.pixels || !desk.desk) return;
    const own = (sweep = new AbortController());
    reach.value = undefined;
    sweeping.value = 0;
    const found = await unlessGivenUp(
      engine().ask(
        'reach',
        { pictureId: store.pixels.id, gains: store.gains, key: keySent() },
        { desk: desk.desk, signal: own.signal, progress: (done) => !own.signal.aborted && (sweeping.value = done) },
      ),
    ).catch(() => undefined);
    if (own.signal.aborted || isGone) return;
    sweeping.value = undefined;
    reach.value = found;
    sweepFailed.value = !found;
  }
  const cancelSweep = (): void => {
    sweep?.abort();
    sweeping.value = undefined;
    looking.look = 'colour';
  };
  watch([isReach, () => store.pixels, () => desk.desk, () => store.gains.join(), () => store.key], () => void sweepReach(), {
    immediate: true,
  });

  watch(
    [
      shown,
      () => store.pixels,
      () => store.frame,
      () => store.gains.join(),
      () => store.key,
      () => store.range,
      () => store.view.steps,
      () => store.view.pivot,
      reach,
      litPile,
      () => trying.asked,
      () => (looking.look === 'piles' ? dress.asked : undefined),
      () => settings.settings.warmBlue,
      () => sight.squint,
      () => looking.look,
      () => looking.squint,
      () => looking.asPaint,
      () => looking.lost,
      () => looking.without,
    ],
    () => void draw(),
    { immediate: true },
  );
  watch(
    () => store.pixels?.id,
    () => (looked.value = undefined),
  );
  onScopeDispose(() => {
    isGone = true;
    sweep?.abort();
  });

  return { looked, reach, sweeping, sweepFailed, sweepReach, cancelSweep, bounds };
}
