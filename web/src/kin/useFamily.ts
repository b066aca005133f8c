import { AIDS, familySaid, firstWay, relativeOf, shareOfPile, shiftBetween, type Lab, type Mixture, type Shift } from '@dusk/core';
import type { Operation, PileDto } from '@dusk/wire';
import { labDto, mixtureSent } from '@dusk/wire/written';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, type Ref } from 'vue';
import { engine, unlessGivenUp } from '../engine/engine.ts';
import { newId } from '../floor/ids.ts';
import { useWithin } from '../stores/useWithin.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useDesk } from '../stores/useDesk.ts';
import { largerBy } from './kin.ts';
import { NEXT_ML } from './useKin.ts';

/** What the painter has changed of a relative, beside what the family says. */
type Own = Pick<Shift, 'value' | 'temperature' | 'chroma'>;

/** A family by knowledge: relatives of a pile, each as the painter has it, and how they become piles. */
export function useFamily(pile: Ref<PileDto>) {
  const piles = usePiles();
  const desk = useDesk();
  const within = useWithin();
  const chosen = useLocalStorage('dusk.family', AIDS[0]!.id);
  /** Of each family and relative, as this painter has them. */
  const own = useLocalStorage<Record<string, Own>>('dusk.families', {});
  const out = ref<readonly string[]>([]);

  const aid = computed(() => AIDS.find(({ id }) => id === chosen.value) ?? AIDS[0]!);
  const base = computed(() => lookNow(pile.value));
  const keyOf = (name: string): string => `${aid.value.id}: ${name}`;
  const members = computed(() =>
    aid.value.relatives.map((relative) => {
      const mine = own.value[keyOf(relative.name)] ?? {};
      const by = { ...relative.by };
      for (const name of ['value', 'temperature', 'chroma'] as const) if (mine[name]) by[name] = (by[name] ?? 0) + mine[name];
      const lab = within(relativeOf(base.value, { ...relative, by }));
      return { relative, lab, isOut: out.value.includes(relative.name), isOwn: Object.values(mine).some((v) => v !== 0) };
    }),
  );
  const remarks = computed(() => familySaid(base.value, members.value));
  const taken = computed(() => members.value.filter(({ isOut }) => !isOut));

  const MOST_OWN = 3;
  /** Changes one relative: it stays so for this family. */
  function nudge(name: string, by: keyof Own, step: number): void {
    const key = keyOf(name);
    const now = (own.value[key]?.[by] ?? 0) + step;
    own.value = {
      ...own.value,
      [key]: { ...own.value[key], [by]: Math.round(100 * Math.min(MOST_OWN * 4, Math.max(-MOST_OWN * 4, now))) / 100 },
    };
  }
  function asItWas(): void {
    own.value = Object.fromEntries(Object.entries(own.value).filter(([key]) => !key.startsWith(`${aid.value.id}: `)));
  }
  const toggle = (name: string): void =>
    void (out.value = out.value.includes(name) ? out.value.filter((one) => one !== name) : [...out.value, name]);

  const isKeeping = ref(false);
  /** Those that are taken become piles, each from the base by its own tubes, or by one thing. */
  async function keep(): Promise<boolean> {
    if (isKeeping.value || !desk.desk) return false;
    isKeeping.value = true;
    const mother = pile.value;
    const own = new AbortController();
    const laid = await desk.layWith([mother.id], own.signal);
    try {
      const found: { readonly name: string; readonly zone: string | undefined; readonly lab: Lab; readonly plan: Mixture }[] = [];
      for (const { relative, lab } of taken.value) {
        const ways =
          laid && (await unlessGivenUp(engine().ask('next', { pileId: mother.id, target: lab, amountMl: NEXT_ML }, { desk: laid })));
        const plan =
          (ways && firstWay(ways)?.mixture) ??
          (await unlessGivenUp(engine().ask('solve', { target: lab, wishes: { amountMl: NEXT_ML } }, { desk: desk.desk })))?.proposals[0]
            ?.mixture;
        if (plan) found.push({ name: relative.name, zone: relative.zone, lab, plan });
      }
      if (found.length === 0) return false;
      const larger = largerBy(
        mother,
        found.reduce((sum, { plan }) => sum + NEXT_ML * shareOfPile(plan, mother.id), 0),
      );
      const { thing } = mother.purpose;
      const ops = found.map(({ name, zone, lab, plan }): Operation => {
        const purpose = { ...(thing && { thing }), ...(zone && { zone }) };
        return {
          do: 'pile.add',
          id: newId(),
          ...(mother.paintingId !== null && { paintingId: mother.paintingId }),
          name: `${mother.name}, ${name}`.slice(0, 80),
          target: { kind: 'relative', lab: labDto(lab), pileId: mother.id, by: shiftBetween(base.value, lab) },
          plan: mixtureSent(plan),
          ml: NEXT_ML,
          layer: mother.layer,
          ...(Object.keys(purpose).length > 0 && { purpose }),
        };
      });
      return await piles.make([...larger, ...ops], `A family of “${mother.name}”`);
    } finally {
      if (laid) engine().clear(laid);
      isKeeping.value = false;
    }
  }

  return { chosen, aid, base, members, remarks, taken, nudge, asItWas, toggle, keep, isKeeping };
}
