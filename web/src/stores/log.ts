// The log: what lies on the paintings of this studio, how it dries, what may be painted over, and sittings.
import {
  layerAsLaid,
  layerPartOf,
  learntFrom,
  lyingOn,
  mayPaintOver,
  momentsAhead,
  overlapsOf,
  verdictsFor,
  windowSaid,
  type Layer,
  type LayerPart,
  type LayerVerdict,
  type Lying,
  type MayPaint,
} from '@dusk/core';
import type {
  AreaDeedDto,
  AreaDto,
  LaidDto,
  LaidOfTubes,
  Needs,
  Operation,
  PaintingDto,
  PileDto,
  SittingDto,
  SittingTold,
} from '@dusk/wire';
import { SITTING_REST_MS } from '@dusk/wire/limits';
import { soOfLaid, storyOf } from '@dusk/wire/stories';
import { useLocalStorage, useNow } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../floor/notices.ts';
import { newId } from '../floor/ids.ts';
import { present } from '../studio/rows.ts';
import { useStudio } from '../studio/useStudio.ts';
import { usePaintings } from './paintings.ts';
import { usePiles } from './piles.ts';
import { useSettings } from './settings.ts';
import { useTubes } from './tubes.ts';

const MINUTE_MS = 60_000;
const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** What a painter may do with an area besides laying paint on it. */
export type AreaKind = AreaDeedDto['kind'];
type Addition = Needs<'deed.add'>['additions'][number];

/** An area, what lies there and what it answers at the moments that are asked about. */
export interface Passage {
  readonly area: AreaDto;
  /** Layers of its own, the newest last. */
  readonly own: readonly Lying[];
  readonly answers: readonly { readonly name: string; readonly may: MayPaint }[];
  /** When it is dry to touch, as it is said; nothing where nothing lies there. */
  readonly dries: string;
  /** When all that lies under it is dry to touch, ms since 1970. */
  readonly dryAt: readonly [number, number] | undefined;
}

/** What is advised of a layer over one below. */
export interface Advice {
  readonly verdict: LayerVerdict;
  readonly says: string;
  /** The area of what lies below. */
  readonly over: string;
}

export const useLog = defineStore('log', () => {
  const studio = useStudio();
  const paintings = usePaintings();
  const piles = usePiles();
  const tubes = useTubes();
  const settings = useSettings();
  const now = useNow({ interval: MINUTE_MS });
  const at = computed(() => now.value.getTime());

  /** When to stop today, ms since 1970, where that is wanted; said once when it has come, in whatever place. */
  const stopAt = useLocalStorage<number>('dusk.stopAt', 0);
  watch(at, (moment, before) => {
    if (stopAt.value > before && stopAt.value <= moment)
      useNotices().saved('It is time to stop. What is left, what is next, the rags: End the day, in the Log.');
  });

  const laid = shallowRef<ReadonlyMap<string, LaidOfTubes['parts']>>(new Map());
  const told = shallowRef<readonly SittingTold[]>([]);
  const next = ref<string>();
  const isLoaded = ref(false);

  async function load(): Promise<void> {
    const answer = await studio.load('log').catch(() => undefined);
    if (!answer) return;
    laid.value = new Map(answer.laid.map(({ deedId, parts }) => [deedId, parts]));
    told.value = answer.sittings;
    next.value = answer.next;
    isLoaded.value = true;
  }
  async function loadOlder(): Promise<void> {
    if (next.value === undefined) return;
    const answer = await studio.load('sittings', next.value).catch(() => undefined);
    if (!answer) return;
    told.value = [...told.value, ...answer.sittings];
    next.value = answer.next;
  }

  const partOf = (tubeId: string, share: number): LayerPart[] => {
    const tube = tubes.byId.get(tubeId);
    return tube ? [layerPartOf(tube, share)] : [];
  };
  const warmth = computed(() => settings.settings.temperatureC ?? undefined);
  /** The pile that paint was taken from. */
  const pileAt = (stageId: string | null | undefined): PileDto | undefined =>
    piles.list.find(({ stages }) => stages.some(({ id }) => id === stageId));
  /** A layer of some piles and tubes as they are now. */
  function layerOf(said: LaidDto, additions: readonly Pick<Addition, 'tubeId' | 'stageId' | 'ml'>[], when: number): Layer {
    const parts = additions.flatMap(({ tubeId, stageId, ml }) => {
      if (tubeId !== undefined) return partOf(tubeId, ml);
      const pile = pileAt(stageId);
      const content = pile && piles.contentOf(pile.id);
      return Object.entries(content?.tubes ?? {}).flatMap(([id, share]) => partOf(id, share * ml));
    });
    return layerAsLaid(soOfLaid(said), parts, when, warmth.value);
  }

  const areas = computed(() => present(studio.rows.areas));
  const stories = computed(() => new Map(areas.value.map((area) => [area.id, storyOf(area, laid.value, partOf, warmth.value)])));
  /** What touches taught of this room, this hand and these tubes. */
  const learnt = computed(() => learntFrom([...stories.value.values()]));
  const byPainting = computed(() => {
    const all = new Map<string, { areas: AreaDto[]; lying: Lying[]; overlaps: ReadonlyMap<string, ReadonlySet<string>> }>();
    for (const { id } of paintings.all) {
      const own = areas.value.filter(({ paintingId }) => paintingId === id);
      if (own.length === 0) continue;
      const of = own.map((area) => stories.value.get(area.id)!);
      all.set(id, { areas: own, lying: lyingOn(of, learnt.value), overlaps: overlapsOf(of) });
    }
    return all;
  });
  const moments = computed(() => momentsAhead(at.value, ZONE));

  /** Areas of a painting with what they answer. */
  function passagesOf(paintingId: string): Passage[] {
    const found = byPainting.value.get(paintingId);
    if (!found) return [];
    return found.areas.map((area): Passage => {
      const over = found.overlaps.get(area.id)!;
      const below = found.lying.filter(({ areaId }) => over.has(areaId));
      const dryAt =
        below.length === 0
          ? undefined
          : ([Math.max(...below.map(({ touchDry }) => touchDry[0])), Math.max(...below.map(({ touchDry }) => touchDry[1]))] as const);
      return {
        area,
        own: found.lying.filter(({ areaId }) => areaId === area.id),
        answers: moments.value.map(({ name, at: when }) => ({ name, may: mayPaintOver(found.lying, over, when) })),
        dries: dryAt ? windowSaid(dryAt, at.value, ZONE) : '',
        dryAt,
      };
    });
  }

  const nameOf = (areaId: string): string => studio.rows.areas.get(areaId)?.name ?? 'the whole';
  /** What is to be said of a layer on an area, laid now. */
  function adviceFor(area: Pick<AreaDto, 'id' | 'paintingId'>, layer: Layer): Advice[] {
    const found = byPainting.value.get(area.paintingId);
    if (!found) return [];
    return verdictsFor(layer, area.id, found.lying, found.overlaps, learnt.value).map(({ verdict, says, over }) => ({
      verdict,
      says,
      over: nameOf(over.areaId),
    }));
  }

  /** The last layer of an area, as it would be laid again: of the same paint as it is now. */
  function lastOf({ deeds }: AreaDto): { readonly laid: LaidDto; readonly additions: Addition[] } | undefined {
    const last = deeds.findLast(({ kind }) => kind === 'laid');
    if (!last) return undefined;
    // What it was laid against was said of that day.
    const { how, with: along, layers } = last.laid ?? {};
    const said: LaidDto = { ...(how && { how }), ...(along && { with: along }), ...(layers && { layers }) };
    const additions = last.additions.map(({ tubeId, stateId, stageId, ml, low, high }): Addition => {
      if (tubeId !== null) return { id: newId(), tubeId, stateId: stateId!, ml, low, high };
      const pile = pileAt(stageId);
      return { id: newId(), stageId: pile?.stages.at(-1)?.id ?? stageId!, ml, low, high };
    });
    return { laid: said, additions };
  }

  /** Something that is done with an area, now. */
  const deed = (areaId: string, kind: AreaKind, more: Partial<Needs<'deed.add'>> = {}): Operation => ({
    do: 'deed.add',
    id: newId(),
    areaId,
    kind,
    additions: [],
    ...more,
  });
  const make = (ops: readonly Operation[], says: string): Promise<boolean> => studio.make(ops, says);
  const ofPainting = (paintingId: string): AreaDto[] => areas.value.filter((area) => area.paintingId === paintingId);

  const sittings = computed(() =>
    told.value.flatMap((one) => {
      const row = studio.rows.sittings.get(one.id);
      return row && row.deletedAt === null ? [{ ...one, row }] : [];
    }),
  );
  const changeSitting = (row: SittingDto, part: Omit<Needs<'sitting.change'>, 'id' | 'version'>, says: string): Promise<boolean> =>
    make([{ do: 'sitting.change', id: row.id, version: row.version, ...part }], says);
  /** The sitting that goes on: the newest, as long as nobody ended it and something was done in it lately. */
  const current = computed(() => {
    const newest = sittings.value[0];
    if (!newest || newest.row.closedAt !== null) return undefined;
    const last = Math.max(Date.parse(newest.row.openedAt), newest.lastAt === null ? 0 : Date.parse(newest.lastAt));
    return at.value - last < SITTING_REST_MS ? newest : undefined;
  });

  const changeAbout = (painting: PaintingDto, part: Partial<PaintingDto['about']>): Promise<boolean> => {
    const about = Object.fromEntries(
      Object.entries({ ...painting.about, ...part }).filter(([, value]) => value !== undefined && value !== ''),
    );
    return paintings.change(painting.id, { about: about as Needs<'painting.change'>['about'] & object });
  };

  return {
    at,
    stopAt,
    isLoaded,
    load,
    loadOlder,
    next,
    byPainting,
    learnt,
    moments,
    pileAt,
    layerOf,
    passagesOf,
    adviceFor,
    lastOf,
    deed,
    make,
    ofPainting,
    sittings,
    current,
    changeSitting,
    changeAbout,
    partOf,
  };
});

/** The zone whose calendar is spoken. */
export const zone = ZONE;
