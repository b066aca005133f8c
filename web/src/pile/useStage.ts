import { paintOfMixture, type Lab } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { labOfDto } from '@dusk/wire/written';
import { computed, ref, type Ref } from 'vue';
import { underLamp } from '../floor/lamps.ts';
import { useDesk } from '../stores/useDesk.ts';
import { useLanding } from '../stores/landing.ts';
import { useTubes } from '../stores/tubes.ts';
import { useSight } from '../floor/sight.ts';
import { usePiles } from '../stores/piles.ts';
import type { KinState } from '../kin/useKin.ts';

/** What a pile is judged on: the grey round it, the painting's ground, or what it will cover. */
export type LaidOn = 'grey' | 'ground' | 'over';

interface OfPile {
  readonly lab: Readonly<Ref<Lab>>;
  /** What the half with the pile shows: as planned, as it should be, as it is on the knife. */
  readonly knifeIs: Readonly<Ref<string>>;
  readonly target: Readonly<Ref<Lab | null | undefined>>;
  readonly kin: KinState;
  readonly isKin: Readonly<Ref<boolean>>;
}

/** What stands on the judging stage: what is wanted and the pile, or the pile and its kin, its neighbours beside; by the lamp that is chosen. */
export function useStage(pile: Ref<PileDto>, { lab, knifeIs, target, kin, isKin }: OfPile) {
  const piles = usePiles();
  const desk = useDesk();
  const tubes = useTubes();
  const sight = useSight();
  const landing = useLanding();
  const on = ref<LaidOn>('grey');
  /** A tube as it comes that is laid beside it: a tube black beside a mixed dark. */
  const besideId = ref('');
  const paint = computed(() => desk.paintOfPile(pile.value.id));
  const over = computed(() => piles.byId.get(pile.value.purpose.overId ?? ''));
  const laidOn = computed((): Lab | undefined => {
    if (on.value === 'ground') return landing.groundLab;
    return on.value === 'over' && over.value ? piles.seenNow(over.value) : undefined;
  });
  const there = computed(() => landing.there(pile.value));
  const thereIs = computed(() => {
    const now = there.value;
    if (!now) return [];
    return [now, ...(now.distant ? [{ what: 'from a distance', lab: now.distant }] : [])];
  });
  const ofPile = computed(() => underLamp(lab.value, sight.lamp, paint.value));
  const neighbours = computed(() => {
    const tube = tubes.byId.get(besideId.value);
    return [
      ...(tube ? [{ what: tube.name, lab: underLamp(tube.masstone, sight.lamp, tube.paint) }] : []),
      ...kin.neighbours.value.map(({ id, name }) => ({ what: name, lab: piles.seenNow(piles.byId.get(id)!) })),
    ];
  });

  const withKin = computed(() => {
    const { shown, plan, other, moves } = kin;
    if (!shown.value) return undefined;
    const own = plan.value && sight.lamp !== 'D65' ? paintOfMixture(plan.value, (source) => desk.paintOf(source).paint) : undefined;
    const poured = !moves.value && other.value ? [{ what: other.value.name, lab: piles.seenNow(other.value) }] : [];
    return {
      wanted: ofPile.value,
      wantedIs: 'this pile',
      knife: underLamp(shown.value, sight.lamp, own),
      knifeIs: moves.value ? 'the next one' : 'the two in one',
      beside: [...poured, ...neighbours.value],
    };
  });
  const isPlanned = computed(() => pile.value.stages.length === 0);
  /** Once it is said how it is laid, both stand there, touching: on the palette and there; what is wanted is wanted there. */
  const asLaid = computed(() => {
    const [here] = thereIs.value;
    if (!here || !isPlanned.value || !pile.value.target) return undefined;
    return {
      wanted: labOfDto(pile.value.target.lab),
      wantedIs: 'wanted there',
      knife: here.lab,
      knifeIs: here.what,
      beside: [{ what: 'on the palette', lab: ofPile.value }, ...thereIs.value.slice(1), ...neighbours.value],
    };
  });
  const stage = computed(
    () =>
      (isKin.value ? withKin.value : undefined) ??
      asLaid.value ?? {
        wanted: target.value ? underLamp(target.value, sight.lamp) : undefined,
        wantedIs: thereIs.value.length > 0 ? 'wanted on the palette' : 'wanted',
        knife: ofPile.value,
        knifeIs: knifeIs.value,
        beside: [...thereIs.value, ...neighbours.value],
      },
  );
  return { on, besideId, over, laidOn, paint, stage };
}
