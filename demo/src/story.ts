import { randomUUID } from 'node:crypto';
import {
  correct,
  deviate,
  drawDeviation,
  evidenceOf,
  heapColour,
  heapName,
  labOf,
  mixCurves,
  reflectance,
  throughStages,
  USUAL_SPREAD,
  type Beliefs,
  type Leaf,
  type Lab,
  type PaintCurves,
} from '@dusk/core';
import { makeChange, pilesOf, type Studio } from '@dusk/server';
import { labDto, labOfDto, operationsToMix, recordsOf, type Operation, type PileDto, type TubeDto } from '@dusk/wire';
import { seeded } from '@dusk/core/random';
import type { SampleDeed } from './sampleStudio.ts';

const KNIFE_DENSITY = 1.5;
const KNIFE_BORE_MM = 6;

/** The sample painter's own tubes, which differ from the typical ones as any maker's do. */
function ownTubes(tubes: readonly TubeDto[]): ReadonlyMap<string, PaintCurves> {
  return new Map(
    tubes.map(({ id, pigment, curves }) => {
      const random = seeded([...pigment].reduce((sum, letter) => sum * 31 + letter.charCodeAt(0), 7) >>> 0);
      const typical = { K: Float64Array.from(curves.K), S: Float64Array.from(curves.S) };
      return [id, deviate(typical, drawDeviation(USUAL_SPREAD, random))];
    }),
  );
}

/** Works through what the sample painter did with some piles: mixed, looked at, corrected, scraped off. */
export async function tellStory(
  studio: Studio,
  paintingId: string,
  tubes: readonly TubeDto[],
  deeds: readonly SampleDeed[],
): Promise<void> {
  const own = ownTubes(tubes);
  const byId = new Map(tubes.map((t) => [t.id, t]));
  const tubeOf = (leaf: Leaf): TubeDto => byId.get((leaf as { tube: string }).tube)!;
  const make = (...ops: readonly Operation[]) => makeChange(studio, { id: randomUUID(), device: 'the sample studio', ops });
  const piles = (): Promise<PileDto[]> => pilesOf(studio, paintingId);
  const trueLook = async (pile: PileDto): Promise<Lab> => {
    const { tubes: shares } = throughStages(recordsOf(await piles())).now.get(pile.id)!;
    return labOf(reflectance(mixCurves(Object.entries(shares).map(([id, parts]) => ({ paint: own.get(id)!, parts })))));
  };
  const mixIt = async (pile: PileDto) =>
    make(
      ...operationsToMix(pile.id, pile.plan, pile.ml, {
        paintingId,
        newId: randomUUID,
        stateOf: (tube) => byId.get(tube)!.stateId,
        stageOf: () => '',
        handlingOf: (source) => ('tube' in source ? byId.get(source.tube)! : { density: KNIFE_DENSITY, nozzleMm: KNIFE_BORE_MM }),
        nameOf: (heap, plan) => {
          const colour = heapColour(plan, heap, (leaf) => own.get(tubeOf(leaf).id)!);
          const isPale = (leaf: Leaf) => /white/i.test(tubeOf(leaf).name);
          return `${heapName(heap, colour, (leaf) => tubeOf(leaf).name, isPale)} for ${pile.name}`;
        },
      }),
    );
  const lookAt = async (pile: PileDto) => {
    const sightingId = randomUUID();
    const stageId = pile.stages.at(-1)!.id;
    await make(
      { do: 'sighting.add', id: sightingId, kind: 'eye', light: 'daylight', white: { L: 94, a: 0, b: 4 } },
      { do: 'look.add', id: randomUUID(), sightingId, stageId, lab: labDto(await trueLook(pile)) },
    );
  };
  const correctIt = async (pile: PileDto) => {
    const records = recordsOf(await piles());
    const own = records.filter((r) => r.pile === pile.id);
    const stages = evidenceOf(own, throughStages(records))!;
    const palette = tubes.map(({ id, curves }) => ({ id, K: Float64Array.from(curves.K), S: Float64Array.from(curves.S) }));
    const nothing: Beliefs = { ids: [], mean: [], covariance: [] };
    const { ways } = correct({ stages, target: labOfDto(pile.target!.lab), beliefs: nothing, palette });
    if (!ways[0]) return;
    const additions = ways[0].add.map(({ id: tubeId, parts: ml }) => ({
      id: randomUUID(),
      tubeId,
      stateId: byId.get(tubeId)!.stateId,
      ml,
      low: ml,
      high: ml,
    }));
    await make({ do: 'stage.add', id: randomUUID(), pileId: pile.id, kind: 'added', additions });
  };
  const scrape = (pile: PileDto) => make({ do: 'stage.add', id: randomUUID(), pileId: pile.id, kind: 'scraped', additions: [] });
  const DO = { mixed: mixIt, 'looked at': lookAt, corrected: correctIt, scraped: scrape } as const;
  for (const { pile, did } of deeds) for (const deed of did) await DO[deed]((await piles()).find((p) => p.name === pile)!);
}
