import { drawnOutline, resized, type Lab, type Outline } from '@dusk/core';
import type { Needs, Operation, PileDto, SampleDto } from '@dusk/wire';
import { labDto, labOfDto, mixtureSent } from '@dusk/wire/written';
import type { Mixture } from '@dusk/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { usePiles } from './piles.ts';
import { usePaintings } from './paintings.ts';
import { present } from '../studio/rows.ts';
import { before, useStudio } from '../studio/useStudio.ts';
import { useLooking } from './looking.ts';
import { useReference } from './reference.ts';

type OutlineSent = NonNullable<Needs<'sample.add'>['outline']>;

/** A sample with the pile that was kept from it. */
export interface Mark {
  readonly sample: SampleDto;
  readonly pile: PileDto | undefined;
  /** In the pixels of the copy that is read. */
  readonly outline: Outline;
  readonly name: string;
  readonly lab: Lab;
}

/** What was read for a mark once more. */
interface ReadAnew {
  readonly outline: Outline;
  readonly seen: Lab;
  readonly paint: Lab;
  readonly plan: Mixture | undefined;
  readonly valueOnly?: boolean;
}

/** `halftone of copper`, or what is known of it. */
export const placeName = (zone: string, thing: string): string => (zone && thing ? `${zone} of ${thing}` : zone || thing);

/** What was sampled from the picture that is looked at, and which of it is held. */
export const useSamples = defineStore('samples', () => {
  const studio = useStudio();
  const paintings = usePaintings();
  const reference = useReference();
  const piles = usePiles();
  const looking = useLooking();

  const all = computed(() => present(studio.rows.samples).filter((s) => s.paintingId === paintings.onEasel?.id));
  const marks = computed<Mark[]>(() => {
    // A pile may serve in more places than the one it was kept for.
    const byPile = new Map([
      ...piles.list.flatMap((pile) => (pile.purpose.also ?? []).map((id) => [id, pile] as const)),
      ...piles.list.flatMap((pile) => (pile.sampleId ? [[pile.sampleId, pile] as const] : [])),
    ]);
    return all.value.flatMap((sample) => {
      if (sample.referenceId !== reference.reference?.id || !sample.outline) return [];
      const pile = byPile.get(sample.id);
      const name = pile?.name ?? (placeName(sample.zone, sample.thing) || 'a sample');
      return [{ sample, pile, outline: resized(sample.outline, reference.perOwn), name, lab: labOfDto(sample.paint) }];
    });
  });
  const selected = computed(() => marks.value.find(({ sample }) => sample.id === looking.selectedId));
  /** Things that were named in this painting, each once. */
  const things = computed(() => [...new Set(all.value.map(({ thing }) => thing).filter((thing) => thing !== ''))].sort());

  const sent = (outline: Outline): OutlineSent => resized(outline, 1 / reference.perOwn) as unknown as OutlineSent;

  /** What was drawn round, by corners in the pixels of the copy that is read. */
  const drawn = (points: readonly number[]): OutlineSent => sent(drawnOutline(points));

  const change = (id: string, part: Omit<Needs<'sample.change'>, 'id' | 'version'>, says: string, meanwhile = false): Promise<boolean> =>
    studio.make([{ do: 'sample.change', id, ...part, version: before(studio.rows.samples.get(id)!.version, meanwhile) }], says);

  /** What was read anew for a sample; what its pile is meant to be goes along, and its plan as long as nothing of it was mixed. */
  function readAnew(
    { sample, pile }: Mark,
    { outline, seen, paint, plan, valueOnly = sample.valueOnly }: ReadAnew,
    says: string,
  ): Promise<boolean> {
    const ops: Operation[] = [
      {
        do: 'sample.change',
        id: sample.id,
        version: sample.version,
        outline: sent(outline),
        seen: labDto(seen),
        paint: labDto(paint),
        ...(valueOnly !== sample.valueOnly && { valueOnly }),
      },
    ];
    const isMixed = (pile?.stages.length ?? 0) > 0;
    // A pile that only serves here too keeps the colour of the place it is for.
    if (pile?.sampleId === sample.id && (isMixed || plan))
      ops.push({
        do: 'pile.change',
        id: pile.id,
        version: pile.version,
        target: { kind: valueOnly ? 'value' : 'absolute', lab: labDto(paint) },
        ...(!isMixed && plan && { plan: mixtureSent(plan) }),
      });
    return studio.make(ops, says);
  }

  const remove = (id: string): Promise<boolean> =>
    studio.make([{ do: 'sample.delete', id, version: studio.rows.samples.get(id)!.version }], 'Put a mark away');

  return { all, marks, selected, things, sent, drawn, change, readAnew, remove };
});
