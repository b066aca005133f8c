// Where paint lands: the ground, how a pile is laid over it or over another, and what it looks like there.
import {
  asLaid,
  hexToLab,
  howLaid,
  labOf,
  laidByHabit,
  laidInWords,
  mixedByEye,
  paintFor,
  reflectance,
  smoothSpectrum,
  surfaceOf,
  valueOfColour,
  viewingThere,
  washOver,
  type Below,
  type Lab,
  type LaidHow,
  type LaidSo,
  type Landing,
  type Mixture,
  type Spectrum,
} from '@dusk/core';
import type { LaidDto, PileDto, PurposeDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { defineStore } from 'pinia';
import { computed, shallowRef, watch } from 'vue';
import { engine, unlessGivenUp, type Desk } from '../engine/engine.ts';
import { laidTube } from './laid.ts';
import { usePaintings } from './paintings.ts';
import { lookNow, usePiles } from './piles.ts';
import type { Part } from './purpose.ts';
import { useDesk } from './useDesk.ts';
import { useSettings } from './settings.ts';
import { useTubes } from './tubes.ts';

const NORMALLY: LaidSo = { how: 'normal' };
const SHORT_BY = 0.95;
const UNSAID_GROUND = '#7b7b7b';
/** A dark, a middle and a light value: a habit may lay each otherwise. */
const [DARK, MIDDLE, LIGHT] = [2, 5, 8] as const;

export const useLanding = defineStore('landing', () => {
  const paintings = usePaintings();
  const piles = usePiles();
  const tubes = useTubes();
  const desk = useDesk();
  const settings = useSettings();

  /** The ground as it reflects: of the tube it was made of, or as a thing of its colour mostly does. */
  const ground = computed((): Spectrum => {
    const { groundOf, ground: hex = UNSAID_GROUND } = paintings.onEasel ?? {};
    const tube = groundOf && tubes.byId.get(groundOf.tubeId);
    return tube ? washOver(tube.paint, groundOf.wiped) : smoothSpectrum(hexToLab(hex));
  });

  /** How a pile is laid: as was said of it, else by the painting's habit. */
  function soOf(pile: PileDto, { how, with: along, takes, layers }: LaidDto = pile.purpose.laid ?? {}): LaidSo | undefined {
    const laid = howLaid(how, paintings.onEasel?.habit, valueOfColour(pile.target ? labOfDto(pile.target.lab) : lookNow(pile)));
    return laid && { how: laid, with: along, takes, layers };
  }
  /** Where a pile lands, as it is said, or as it would be said; nothing where it is not said how it is laid. */
  function landingOf(pile: PileDto, { laid, overId }: Part<Pick<PurposeDto, 'laid' | 'overId'>> = pile.purpose): Landing | undefined {
    const so = soOf(pile, laid ?? {});
    if (!so) return undefined;
    const over = piles.byId.get(overId ?? '');
    const below = (): Below => {
      if (!over) return { dry: ground.value };
      const wet = desk.paintOfPile(over.id);
      return laid?.over === 'wet' ? { wet } : { dry: reflectance(wet) };
    };
    const inBrush = laid?.brushId !== undefined && piles.byId.has(laid.brushId) ? desk.paintOfPile(laid.brushId) : undefined;
    return { so, below: below(), ...(inBrush && { inBrush }) };
  }

  /** What a pile looks like once it is laid, and, where what is below is left open between strokes, from a distance. */
  function there(pile: PileDto): { readonly what: string; readonly lab: Lab; readonly distant?: Lab } | undefined {
    const landing = landingOf(pile);
    if (!landing) return undefined;
    const over = piles.byId.get(pile.purpose.overId ?? '');
    const lab = asLaid(desk.paintOfPile(pile.id), landing);
    const open = pile.purpose.passage?.open;
    return {
      what: `there: ${laidInWords({ how: landing.so.how }, { over: over?.name ?? 'the ground', isWet: 'wet' in landing.below })}`,
      lab,
      ...(open && { distant: mixedByEye(lab, labOf(surfaceOf(landing.below)), open) }),
    };
  }

  /** What a pile is to be enough for, ml; nothing where that is not said. */
  function neededFor(pile: PileDto, passage = pile.purpose.passage): number | undefined {
    return passage && paintFor({ ...passage, so: soOf(pile) ?? NORMALLY });
  }
  /** Whether there is too little of a pile, or too little planned, for what it is to be enough for; to a twentieth nobody can tell. */
  function willNotLast(pile: PileDto): boolean {
    const needed = neededFor(pile);
    return needed !== undefined && (pile.stages.length > 0 ? pile.there : pile.ml) < needed * SHORT_BY;
  }

  /** What a pile is to look like on the palette: what is wanted, or what looks so once it is laid. */
  function wantedOf(pile: PileDto): Lab | undefined {
    if (!pile.target) return undefined;
    return labOfDto(soOf(pile) ? pile.predicted.lab : pile.target.lab);
  }

  /** The palette laid out for a place, with piles beside its tubes, for as long as it is wanted. */
  const layThere = (landing: Landing, pileIds: readonly string[], signal: AbortSignal): Promise<Desk | undefined> =>
    pileIds.length > 0
      ? desk.layWith(pileIds, signal, { viewing: viewingThere(landing), how: landing.so.how })
      : unlessGivenUp(
          engine().lay(
            { tubes: desk.mixedFrom(landing.so.how).map(laidTube), piles: [], viewing: viewingThere(landing) },
            { signal, prepared: false },
          ),
        );

  const groundLab = computed(() => labOf(ground.value));

  /** A desk for where paint lands, for as long as some work on it takes; nothing where it was given up. */
  async function onDeskThere<T>(landing: Landing, signal: AbortSignal, work: (laid: Desk) => Promise<T>): Promise<T | undefined> {
    const laid = await layThere(landing, [], signal);
    if (!laid) return undefined;
    try {
      return await unlessGivenUp(work(laid));
    } finally {
      engine().clear(laid);
    }
  }

  /** The best recipe of this palette for a pile: what looks as is wanted where it is laid, or on the palette where that is not said. */
  async function recipeFor(
    pile: PileDto,
    target: Lab,
    at: Landing | undefined,
    signal = new AbortController().signal,
  ): Promise<Mixture | undefined> {
    const wishes = { dulling: settings.settings.dulling, amountMl: pile.ml };
    const solved = (laid: Desk) => engine().ask('solve', { target, wishes }, { desk: laid, signal });
    const found = at ? await onDeskThere(at, signal, solved) : desk.desk && (await unlessGivenUp(solved(desk.desk)));
    return found?.proposals[0]?.mixture;
  }

  /** Desks for the painting's habit, one for each way its paint is laid, over the ground. */
  const byHabit = shallowRef<ReadonlyMap<LaidHow, Desk>>(new Map());
  let laying: AbortController | undefined;
  watch(
    [() => paintings.onEasel?.habit, ground, () => desk.desk?.id] as const,
    async ([habit]) => {
      laying?.abort();
      for (const laid of byHabit.value.values()) engine().clear(laid);
      byHabit.value = new Map();
      if (!habit || !desk.desk) return;
      const { signal } = (laying = new AbortController());
      const ways = [...new Set([DARK, MIDDLE, LIGHT].map((value) => laidByHabit(habit, value)))];
      const desks = await Promise.all(
        ways.map(async (how) => [how, await layThere({ so: { how }, below: { dry: ground.value } }, [], signal)] as const),
      );
      const laid = new Map(desks.flatMap(([how, one]) => (one ? [[how, one] as const] : [])));
      if (!signal.aborted) byHabit.value = laid;
      else for (const one of laid.values()) engine().clear(one);
    },
    { immediate: true },
  );
  /** The desk on which a colour is looked for: where it will land by the painting's habit, or in the pile. */
  function deskFor(wanted: Lab): Desk | undefined {
    const habit = paintings.onEasel?.habit;
    return (habit && byHabit.value.get(laidByHabit(habit, valueOfColour(wanted)))) ?? desk.desk;
  }

  return {
    neededFor,
    willNotLast,
    onDeskThere,
    recipeFor,
    byHabit,
    deskFor,
    ground,
    groundLab,
    soOf,
    landingOf,
    there,
    wantedOf,
    layThere,
  };
});
