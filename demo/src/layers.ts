import { randomUUID } from 'node:crypto';
import { makeChange, type Studio } from '@dusk/server';
import type { Operation, TubeDto } from '@dusk/wire';
import type { SampleArea } from './sampleStudio.ts';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** So much of each part is laid, ml. */
const PART_ML = 0.5;

/** Lays what the sample painter laid on the areas of a painting, on the days before this one. */
export async function layLayers(
  studio: Studio,
  paintingId: string,
  tubes: readonly TubeDto[],
  areas: readonly SampleArea[],
): Promise<void> {
  const byPigment = new Map(tubes.map((tube) => [tube.pigment, tube]));
  const make = (...ops: readonly Operation[]) => makeChange(studio, { id: randomUUID(), device: 'the sample studio', ops });
  const now = Date.parse(studio.now());
  const ids = new Map(areas.map(({ name }) => [name, randomUUID()]));
  for (const { name, outline } of areas)
    await make({
      do: 'area.add',
      id: ids.get(name)!,
      paintingId,
      name,
      ...(outline && { outline: outline.map(([x, y]) => ({ x, y })) }),
    });
  const deeds = areas.flatMap(({ name, did }) => did.map((deed) => ({ areaId: ids.get(name)!, deed })));
  // In the order of the days, as they were done.
  for (const { areaId, deed } of deeds.sort((one, other) => other.deed.daysAgo - one.deed.daysAgo)) {
    const at = new Date(now - deed.daysAgo * DAY_MS - HOUR_MS).toISOString();
    const own = { do: 'deed.add', id: randomUUID(), areaId, at } as const;
    if ('felt' in deed) await make({ ...own, kind: 'touched', touch: deed.felt, additions: [] });
    else
      await make({
        ...own,
        kind: 'laid',
        laid: deed.laid,
        additions: Object.entries(deed.of).map(([pigment, parts]) => {
          const tube = byPigment.get(pigment)!;
          const ml = PART_ML * parts;
          return { id: randomUUID(), tubeId: tube.id, stateId: tube.stateId, ml, low: ml / 2, high: ml * 2 };
        }),
      });
  }
}
