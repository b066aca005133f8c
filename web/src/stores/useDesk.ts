import {
  CraftError,
  leavesOf,
  openToTubes,
  paintOfMixture,
  throughStages,
  type Beliefs,
  type FromTube,
  type LaidHow,
  type Leaf,
  type Mixture,
  type PaintCurves,
  type Viewing,
} from '@dusk/core';
import type { MixtureDto } from '@dusk/wire';
import { recordsOf } from '@dusk/wire/records';
import { defineStore } from 'pinia';
import { computed, shallowRef, watch } from 'vue';
import { usePaintings } from './paintings.ts';
import { usePalettes } from './palettes.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useStates, type StatePaint } from './states.ts';
import { isWhite, mixedDarks, useTubes, type Tube } from './tubes.ts';
import { engine, unlessGivenUp, type Desk } from '../engine/engine.ts';
import { leafKey, type Jobs } from '../engine/jobs.ts';
import { laidTube, useLaid } from './laid.ts';

/** A place that paint is mixed for: how it is looked at there, and how it is laid. */
export interface There {
  readonly viewing: Viewing;
  readonly how: LaidHow;
}

/** The palette of the painting on the easel, laid out in the engine, and the curves of whatever is mixed from. */
export const useDesk = defineStore('desk', () => {
  const paintings = usePaintings();
  const palettes = usePalettes();
  const tubes = useTubes();
  const studio = useStudio();

  const palette = computed(() => (paintings.onEasel ? palettes.byId.get(paintings.onEasel.paletteId) : undefined));
  const paletteTubes = computed(() => palette.value?.tubeIds.flatMap((id) => tubes.byId.get(id) ?? []) ?? []);
  /** One pigment each: every tube of the studio that is not on the palette. */
  const rack = computed(() => {
    const pigments = new Set(paletteTubes.value.map((t) => t.pigment));
    return tubes.all.filter((t) => !pigments.has(t.pigment) && pigments.add(t.pigment));
  });

  /**
   * Tubes that paint is mixed from which is laid so: where one white is for the lights, loaded paint takes that one, and all
   * other paint the others.
   */
  function mixedFrom(how?: LaidHow): readonly Tube[] {
    const lights = palette.value?.lightsWhiteId;
    const all = mixedDarks(palette.value?.mixedDarks === true, paletteTubes.value);
    const whites = all.filter(isWhite);
    // A white that was taken off the palette is for nothing there.
    if (whites.length < 2 || !whites.some(({ id }) => id === lights)) return all;
    return all.filter((tube) => !isWhite(tube) || (tube.id === lights) === (how === 'loaded'));
  }

  const { desk, failure } = useLaid(() => mixedFrom());

  /** How unsure the palette's tubes are together, where piles have taught some of them. */
  const doubts = shallowRef<Beliefs>();
  watch(
    () =>
      paletteTubes.value.some((t) => t.basis === 'learnt') ? `${palette.value?.id} ${paletteTubes.value.map((t) => t.stateId).join()}` : '',
    async (key) => {
      doubts.value = undefined;
      if (key === '' || !palette.value) return;
      const { id } = palette.value;
      const found = await studio.ask('doubts', id);
      if (palette.value?.id === id) doubts.value = found;
    },
    { immediate: true },
  );

  const stateOf = useStates();
  /** Curves of a tube in a state, or as it is today; nothing where they are not known here. */
  const paintOfTube = ({ tube, state }: FromTube): StatePaint | undefined => {
    const id = state ?? tubes.byId.get(tube)?.stateId;
    return id === undefined ? undefined : stateOf(id);
  };
  /**
   * Curves of what a mixture takes from; a pile as it was at its stage.
   * @throws CraftError where they are not known here: nothing is put in their place
   */
  function paintOf(source: Leaf): StatePaint {
    if ('tube' in source) {
      const known = paintOfTube(source);
      if (!known)
        throw new CraftError(
          'pigment',
          `The curves of ${tubes.byId.get(source.tube)?.name ?? 'a tube'} as it was then are not known here. Load the page again.`,
        );
      return known;
    }
    const content = source.stage === undefined ? through.value.now.get(source.pile) : through.value.at.get(source.stage);
    return { paint: content?.paint ?? plannedPaint(source.pile), basis: 'learnt' };
  }
  /** What was done with all piles that are known here. */
  const through = computed(() =>
    throughStages(recordsOf([...studio.rows.piles.values()], [...studio.rows.areas.values()]), (tube) => paintOfTube(tube)?.paint),
  );
  /** Curves of planned piles, reckoned once until a plan or a tube is another. */
  const planned = computed(() => {
    for (const { plan } of studio.rows.piles.values()) void plan;
    void tubes.byId;
    return new Map<MixtureDto, PaintCurves>();
  }) as { readonly value: Map<MixtureDto, PaintCurves> };
  /** A pile that is not mixed yet is what it is planned to be; the server sees to it that none rests on itself. */
  function plannedPaint(pileId: string): PaintCurves {
    const plan = studio.rows.piles.get(pileId)?.plan;
    if (!plan) throw new CraftError('palette', 'A pile that this takes from is not known here. Load the page again.');
    const known = planned.value.get(plan) ?? paintOfMixture(plan, (source) => paintOf(source).paint);
    planned.value.set(plan, known);
    return known;
  }
  /** Curves of a pile as it lies there, or as it is planned. */
  const paintOfPile = (id: string): PaintCurves => paintOf({ pile: id }).paint;
  /** Share of volume of each tube in a pile, piles and heaps opened. */
  function flatOfPile(id: string): Readonly<Record<string, number>> {
    const content = through.value.now.get(id);
    if (content && Object.keys(content.tubes).length > 0) return content.tubes;
    const plan = studio.rows.piles.get(id)?.plan;
    return plan ? openToTubes(plan, flatOfPile) : {};
  }

  /** Lays the palette out with some piles beside its tubes, for as long as it is wanted; seen where its paint lands, where that is said. */
  const layWith = (pileIds: readonly string[], signal: AbortSignal, there?: There): Promise<Desk | undefined> =>
    unlessGivenUp(
      engine().lay(
        {
          tubes: mixedFrom(there?.how).map(laidTube),
          piles: pileIds.map((id) => {
            const { K, S } = paintOfPile(id);
            const stage = studio.rows.piles.get(id)?.stages.at(-1)?.id;
            return { id, K, S, flat: flatOfPile(id), ...(stage !== undefined && { stage }) };
          }),
          ...(there && { viewing: there.viewing }),
        },
        { signal, prepared: false },
      ),
    );

  /** Lays other tubes out, as those of another palette, for as long as they are wanted. */
  const layTubes = (tubeIds: readonly string[], signal: AbortSignal): Promise<Desk | undefined> =>
    unlessGivenUp(
      engine().lay({ tubes: tubeIds.flatMap((id) => tubes.byId.get(id) ?? []).map(laidTube), piles: [] }, { signal, prepared: false }),
    );

  /** How far the prediction of a mixture can be trusted; a moment later than the mixture itself. */
  function trust(mixture: Mixture, signal?: AbortSignal): Promise<Jobs['trust']['answers'] | undefined> {
    const paints = leavesOf(mixture).map(({ source }) => {
      const { paint, basis } = paintOf(source);
      return [leafKey(source), { K: paint.K, S: paint.S }, basis] as const;
    });
    const known = doubts.value && { joint: { ids: doubts.value.ids, covariance: doubts.value.covariance } };
    return unlessGivenUp(engine().ask('trust', { mixture, paints, ...(known && { doubts: known }) }, { ...(signal && { signal }) }));
  }

  return {
    desk,
    failure,
    through,
    palette,
    paletteTubes,
    mixedFrom,
    rack,
    paintOf,
    paintOfTube,
    paintOfPile,
    flatOfPile,
    layWith,
    layTubes,
    trust,
  };
});
