import { leavesOf, pilesIn, type Lab, type PileContent } from '@dusk/core';
import type { MixtureDto, Needs, Operation, PileDto } from '@dusk/wire';
import { recordsOf } from '@dusk/wire/records';
import { labDto, labOfDto, mixtureSent } from '@dusk/wire/written';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useDesk } from './useDesk.ts';
import { underLamp } from '../floor/lamps.ts';
import { usePaintings } from './paintings.ts';
import { useSight } from '../floor/sight.ts';
import { useWhite } from '../floor/white.ts';
import { useTubes } from './tubes.ts';
import { present } from '../studio/rows.ts';
import { before, useStudio } from '../studio/useStudio.ts';
import { newId } from '../floor/ids.ts';

/** How a pile looks as far as is known: its newest look, what was predicted of its newest stage, or its plan. */
export function lookNow(pile: PileDto): Lab {
  const newest = pile.stages.at(-1);
  const looked = newest?.looks.at(-1)?.lab ?? newest?.predicted;
  if (looked) return labOfDto(looked);
  const earlier = pile.stages.findLast((s) => s.looks.length > 0 || s.predicted);
  return labOfDto(earlier?.looks.at(-1)?.lab ?? earlier?.predicted ?? pile.predicted.lab);
}

/** Less than this of a mix is not worth telling as left over, ml. */
const LEFT_ML = 0.03;

/** What is left of a mix, as it is called beside its pile: which pile it was for need not be said there. */
export const nameBeside = ({ name }: PileDto, pile: PileDto): string => {
  const said = ` for ${pile.name}`;
  return name.endsWith(said) ? name.slice(0, -said.length) : name;
};

/** A pile that is to be kept: what it is meant to be, how it is to be made, where it was seen. */
interface ToKeep {
  readonly name: string;
  readonly lab: Lab;
  readonly plan: MixtureDto;
  readonly ml: number;
  readonly sample?: Omit<Needs<'sample.add'>, 'id' | 'paintingId' | 'seen' | 'paint'> & { readonly seen: Lab };
}

/** The piles of the painting on the easel. */
export const usePiles = defineStore('piles', () => {
  const studio = useStudio();
  const paintings = usePaintings();
  const desk = useDesk();
  const tubes = useTubes();
  const paintingId = computed(() => paintings.onEasel?.id);
  const list = computed(() => present(studio.rows.piles).filter((p) => p.paintingId === paintingId.value));
  const byId = computed(() => new Map(list.value.map((p) => [p.id, p])));
  /** Dark to light. */
  const byValue = computed(() => [...list.value].sort((a, b) => lookNow(a)[0] - lookNow(b)[0]));
  /** What was left of a mix that was made first for another pile: a small thing beside that pile. */
  const leftOverOf = ({ purpose }: PileDto): string | undefined =>
    purpose.leftOf !== undefined && byId.value.has(purpose.leftOf) ? purpose.leftOf : undefined;
  /** Dark to light, without what is left over of others. */
  const ofRank = computed(() => byValue.value.filter((pile) => leftOverOf(pile) === undefined));
  const leftBy = computed(() => {
    const all = new Map<string, PileDto[]>();
    for (const pile of byValue.value) {
      const of = pile.there > LEFT_ML ? leftOverOf(pile) : undefined;
      if (of !== undefined) all.set(of, [...(all.get(of) ?? []), pile]);
    }
    return all;
  });
  const leftOf = (id: string): readonly PileDto[] => leftBy.value.get(id) ?? [];
  const names = computed(() => new Set(list.value.map(({ name }) => name)));
  const records = computed(() => recordsOf(list.value));
  const contentOf = (pileId: string): PileContent | undefined => desk.through.now.get(pileId);

  /** @returns its id and that of its sample, where it was kept */
  async function keep({
    name,
    lab,
    plan,
    ml,
    sample,
  }: ToKeep): Promise<{ readonly pileId: string; readonly sampleId: string } | undefined> {
    const pileId = newId();
    const sampleId = newId();
    const target = { kind: sample?.valueOnly ? ('value' as const) : ('absolute' as const), lab: labDto(lab) };
    const paintingId = paintings.onEasel!.id;
    const kept = await studio.make(
      [
        ...(sample
          ? [{ do: 'sample.add' as const, id: sampleId, paintingId, ...sample, seen: labDto(sample.seen), paint: labDto(lab) }]
          : []),
        {
          do: 'pile.add',
          id: pileId,
          paintingId,
          name,
          target,
          ...(sample && { sampleId }),
          plan: mixtureSent(plan),
          ml,
        },
      ],
      `Kept “${name}”`,
    );
    return kept ? { pileId, sampleId } : undefined;
  }

  /** @param meanwhile it was changed elsewhere since the hand was laid on it: the studio is to say no, and both sides are shown */
  const change = (id: string, part: Omit<Needs<'pile.change'>, 'id' | 'version'>, says: string, meanwhile = false): Promise<boolean> =>
    studio.make([{ do: 'pile.change', id, ...part, version: before(byId.value.get(id)!.version, meanwhile) }], says);

  const remove = (id: string): Promise<boolean> => {
    const { version, name } = byId.value.get(id)!;
    return studio.make([{ do: 'pile.delete', id, version }], `“${name}” put away`);
  };

  /** Piles that a pile's plan takes from. */
  const mothersOf = (id: string): string[] => {
    const plan = byId.value.get(id)?.plan;
    return plan ? pilesIn(plan) : [];
  };
  /** Piles whose plans take from a pile. */
  const childrenOf = (id: string): PileDto[] => list.value.filter((pile) => mothersOf(pile.id).includes(id));
  /** Whether a pile is planned from another, through whatever lies between. */
  function restsOn(id: string, other: string): boolean {
    const seen = new Set<string>();
    const rests = (at: string): boolean =>
      mothersOf(at).some((mother) => mother === other || (!seen.has(mother) && (seen.add(mother), rests(mother))));
    return rests(id);
  }

  /** Names of tubes that a pile is still to be mixed of and that do not lie on the palette, by the pile's id. */
  const stranded = computed(() => {
    const lies = new Set(desk.palette?.tubeIds);
    const missing = ({ stages, plan }: PileDto): string[] => {
      if (stages.length > 0) return [];
      const needed = leavesOf(plan).flatMap(({ source }) => ('tube' in source ? source.tube : []));
      return [...new Set(needed)].filter((id) => !lies.has(id)).map((id) => tubes.byId.get(id)?.name ?? 'a tube');
    };
    return new Map(list.value.map((pile) => [pile.id, missing(pile)] as const).filter(([, gone]) => gone.length > 0));
  });

  const sight = useSight();
  /** Piles as they look by the lamp that is chosen, reckoned once for each. */
  const byLamp = computed(() => {
    const { lamp } = sight;
    void list.value;
    const known = new Map<string, Lab>();
    return (pile: PileDto): Lab => {
      if (lamp === 'D65') return lookNow(pile);
      const seen = known.get(pile.id) ?? underLamp(lookNow(pile), lamp, desk.paintOfPile(pile.id));
      known.set(pile.id, seen);
      return seen;
    };
  });
  /** How a pile looks by the lamp that is chosen. */
  const seenNow = (pile: PileDto): Lab => byLamp.value(pile);
  const white = useWhite();
  /** The same, as this screen shows it. */
  const shownNow = (pile: PileDto): string => white.shown(seenNow(pile)).css;

  /** A colour, as this screen shows it. */
  const shown = (lab: Lab): string => white.shown(lab).css;

  const make = (ops: readonly Operation[], says: string): Promise<boolean> => studio.make(ops, says);

  return {
    list,
    byId,
    byValue,
    ofRank,
    leftOf,
    names,
    stranded,
    records,
    contentOf,
    mothersOf,
    childrenOf,
    restsOn,
    seenNow,
    shownNow,
    shown,
    keep,
    change,
    remove,
    make,
  };
});

/** The piles of the string that a pile stands in, in their order; none where it stands in none. */
export const stringOf = ({ string }: PileDto, piles: readonly PileDto[]): PileDto[] =>
  string === null ? [] : piles.filter((one) => one.string?.id === string.id).sort((one, other) => one.string!.at - other.string!.at);
