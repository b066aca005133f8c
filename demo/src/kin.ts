import { randomUUID } from 'node:crypto';
import {
  inShadow,
  layPalette,
  masstoneOf,
  nextPiles,
  openToTubes,
  paintOfMixture,
  planString,
  USUAL_LIMITS,
  withPlacesAs,
} from '@dusk/core';
import { makeChange, pilesOf, type Studio } from '@dusk/server';
import { labDto, labOfDto, mixtureSent, type Operation, type PileDto, type TubeDto } from '@dusk/wire';
import type { SampleKin } from './sampleStudio.ts';

const KIN_ML = 3;

/** What grows from the sample painter's piles: a thing in shadow as a child, and a string between two. */
export async function growKin(studio: Studio, paintingId: string, tubes: readonly TubeDto[], kin: readonly SampleKin[]): Promise<void> {
  const laid = tubes.map(({ id, curves }) => ({ id, K: Float64Array.from(curves.K), S: Float64Array.from(curves.S) }));
  const byId = new Map(laid.map((tube) => [tube.id, tube]));
  const asPile = ({ id, plan }: PileDto) => {
    const paint = paintOfMixture(plan, (source) => byId.get((source as { readonly tube: string }).tube)!);
    return { id, ...paint, flat: openToTubes(plan, () => ({})) };
  };
  const make = (ops: readonly Operation[]) => makeChange(studio, { id: randomUUID(), device: 'the sample studio', ops });
  for (const one of kin) {
    const piles = await pilesOf(studio, paintingId);
    const named = (name: string): PileDto => piles.find((pile) => pile.name === name)!;
    const mother = asPile(named(one.of));
    if ('inShadow' in one) {
      const target = inShadow(labOfDto(named(one.of).predicted.lab), one.inShadow);
      const ways = nextPiles(layPalette(laid, USUAL_LIMITS, {}, [mother]), mother.id, target, { amountMl: KIN_ML });
      const child = ways.find(({ way }) => way === 'own tubes') ?? ways[0];
      const by = { value: 0, chroma: 0, temperature: 0 };
      const meant = { kind: 'relative' as const, lab: labDto(target), pileId: mother.id, by };
      const purpose = { thing: one.thing, zone: 'shadow' };
      await make([
        {
          do: 'pile.add',
          id: randomUUID(),
          paintingId,
          name: one.name,
          target: meant,
          plan: mixtureSent(child!.mixture),
          ml: KIN_ML,
          purpose,
        },
      ]);
      continue;
    }
    const end = asPile(named(one.to));
    const palette = layPalette(laid, USUAL_LIMITS, {}, [mother, end]);
    const plan = planString(palette, { stops: [masstoneOf(mother), masstoneOf(end)], n: one.n, piles: [mother.id, end.id] }, KIN_ML);
    const stringId = randomUUID();
    const ids = plan.piles.map(({ isPile }) => isPile ?? randomUUID());
    await make(
      plan.order.map((at): Operation => {
        const { isPile, mixture, target, ml } = plan.piles[at]!;
        const string = { id: stringId, at: at + 1 };
        if (isPile !== undefined) return { do: 'pile.change', id: isPile, version: piles.find(({ id }) => id === isPile)!.version, string };
        const name = `${one.of}, ${at + 1} of ${one.n}`;
        return {
          do: 'pile.add',
          id: ids[at]!,
          paintingId,
          name,
          target: { kind: 'absolute', lab: labDto(target) },
          plan: mixtureSent(withPlacesAs(mixture, ids)),
          ml,
          string,
        };
      }),
    );
  }
}
