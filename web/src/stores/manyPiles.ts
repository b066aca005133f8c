// Several colours become piles in one step; what they share may be mixed once.
import {
  COMMON_HEAP,
  colourName,
  commonHeapMl,
  LEAST_PILES,
  leavesOf,
  openToTubes,
  shareOfPile,
  withPileRenamed,
  type CommonHeap,
  type Lab,
  type Mixture,
} from '@dusk/core';
import type { Needs, Operation } from '@dusk/wire';
import { labDto, mixtureSent } from '@dusk/wire/written';
import { MOST_OPERATIONS } from '@dusk/wire/limits';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { newId } from '../floor/ids.ts';
import { firstName } from '../floor/words.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useLanding } from './landing.ts';
import { usePaintings } from './paintings.ts';
import { usePiles } from './piles.ts';
import { useSettings } from './settings.ts';
import { useDesk } from './useDesk.ts';

/** A colour that is to become a pile, and where it was seen. */
export interface ToBecome {
  /** As it is to be painted. */
  readonly paint: Lab;
  readonly name?: string;
  /** The sample it is of, where that is kept already. */
  readonly sampleId?: string;
  readonly sample?: Omit<Needs<'sample.add'>, 'id' | 'paintingId' | 'seen' | 'paint'> & { readonly seen: Lab };
}

interface Planned extends ToBecome {
  readonly of: ToBecome;
  readonly id: string;
  readonly name: string;
  readonly mixture: Mixture;
  readonly lab: Lab;
}

/** As many as one change holds, each with its sample, and what is done beside. */
export const MOST_AT_ONCE = Math.floor(MOST_OPERATIONS / 2) - 2;

export function useManyPiles() {
  const studio = useStudio();
  const landing = useLanding();
  const paintings = usePaintings();
  const piles = usePiles();
  const settings = useSettings();
  const desk = useDesk();

  /** The best recipe of this palette for each; what none was found for is left out. */
  async function planned(wanted: readonly ToBecome[], signal: AbortSignal | undefined): Promise<Planned[]> {
    const { dulling, amountMl } = settings.settings;
    const taken = new Set(piles.names);
    const list: Planned[] = [];
    // Of this palette, though another painting may be on the easel before all are found.
    for (const { one, laid } of wanted.map((one) => ({ one, laid: landing.deskFor(one.paint) }))) {
      if (!laid) break;
      const found = await unlessGivenUp(
        engine().ask('solve', { target: one.paint, wishes: { dulling, amountMl } }, { desk: laid, ...(signal && { signal }) }),
      );
      const best = found?.proposals[0];
      if (!best) continue;
      const name = one.name && !taken.has(one.name) ? one.name : firstName(one.paint, taken);
      taken.add(name);
      list.push({ ...one, of: one, id: newId(), name, mixture: best.mixture, lab: best.lab });
    }
    return list;
  }

  /** One heap that they can begin with, where that saves measuring; not where they are laid each in its own way. */
  async function shared(list: readonly Planned[]): Promise<CommonHeap | undefined> {
    if (list.length < LEAST_PILES || paintings.onEasel?.habit || !desk.desk) return undefined;
    const amountMl = settings.settings.amountMl;
    const some = list.flatMap(({ id, paint, lab, mixture }) =>
      leavesOf(mixture).every(({ source }) => 'tube' in source)
        ? [{ id, target: paint, lab, mixture, flat: openToTubes(mixture, () => ({})), amountMl }]
        : [],
    );
    return unlessGivenUp(engine().ask('common', { piles: some }, { desk: desk.desk }));
  }

  /**
   * Keeps them all in one change.
   * @param once whether what they share is mixed once
   * @param also what is done in the same change, told which pile is of what
   * @returns ids of the piles, in the order of what was wanted
   */
  async function keep(
    wanted: readonly ToBecome[],
    {
      once = false,
      signal,
      also = () => [],
    }: { once?: boolean; signal?: AbortSignal; also?: (made: ReadonlyMap<ToBecome, string>) => Operation[] } = {},
  ): Promise<readonly string[]> {
    // Another may be on the easel by the time that recipes are found.
    const paintingId = paintings.onEasel!.id;
    const list = await planned(wanted.slice(0, MOST_AT_ONCE), signal);
    if (list.length === 0 || signal?.aborted) return [];
    const common = once ? await shared(list) : undefined;
    const ml = settings.settings.amountMl;
    const heapId = newId();
    const ops: Operation[] = [];
    if (common)
      ops.push({
        do: 'pile.add',
        id: heapId,
        paintingId,
        name: firstName(common.lab, new Set([...piles.names, ...list.map(({ name }) => name)])),
        target: { kind: 'absolute', lab: labDto(common.lab) },
        plan: mixtureSent(common.mixture),
        ml: commonHeapMl(common.piles.reduce((sum, { recipe }) => sum + ml * shareOfPile(recipe.mixture, COMMON_HEAP), 0)),
      });
    for (const { id, name, paint, mixture, sample, sampleId: known } of list) {
      const from = common?.piles.find((one) => one.id === id);
      const sampleId = newId();
      if (sample) ops.push({ do: 'sample.add', id: sampleId, paintingId, ...sample, seen: labDto(sample.seen), paint: labDto(paint) });
      ops.push({
        do: 'pile.add',
        id,
        paintingId,
        name,
        target: { kind: sample?.valueOnly ? 'value' : 'absolute', lab: labDto(paint) },
        ...((sample ?? known) && { sampleId: known ?? sampleId }),
        plan: mixtureSent(from ? withPileRenamed(from.recipe.mixture, COMMON_HEAP, heapId) : mixture),
        ml,
      });
    }
    const ids = list.map(({ id }) => id);
    const says = common ? `Kept ${list.length} piles, ${colourName(common.lab)} mixed once for them` : `Kept ${list.length} piles`;
    return (await studio.make([...ops, ...also(new Map(list.map(({ of, id }) => [of, id])))], says)) ? ids : [];
  }

  return { keep };
}
