// npm run bench:log: the log of forty paintings of thirty layers, and of ten years of sittings. Over HTTP, on a real file.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { layerPartOf, learntFrom, lyingOn, mayPaintOver, momentsAhead, overlapsOf } from '@dusk/core';
import { storyOf, type AreaDto, type LogDto } from '@dusk/wire';
import { Addition, Area, Painting, Palette, Pile, Sitting, Stage } from '../src/entities/index.ts';
import { startServer } from '../src/index.ts';
import { testClock } from '../test/clock.ts';
import { tubeRows } from '../src/tubes/tubes.ts';

const PAINTINGS = 40;
const LAYERS = 30;
const AREAS = 6;
const SITTINGS = 2000;
const RUNS = 9;
const DAY_MS = 86_400_000;
const ZONE = 'Europe/Berlin';

let seed = 7;
const random = (): number => ((seed = (seed * 48271) % 2147483647), seed / 2147483647);
const id = (): string => crypto.randomUUID();
const median = (all: readonly number[]): number => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]!;

const folder = mkdtempSync(join(tmpdir(), 'dusk-log-'));
const running = await startServer(folder, 0, undefined, testClock);
const now = Date.parse(testClock());
const at = (daysAgo: number): string => new Date(now - daysAgo * DAY_MS).toISOString();

await running.studio.change(async (db) => {
  const tubes = (await tubeRows(db)).slice(0, 20);
  const paletteId = id();
  await db.insert(Palette, { id: paletteId, version: 1, name: 'all', createdAt: at(4000), updatedAt: at(4000), deletedAt: null });
  const sittings = Array.from({ length: SITTINGS }, (_, i) => ({
    id: id(),
    version: 1,
    paletteId,
    openedAt: at(3650 - (3650 * i) / SITTINGS),
    closedAt: at(3650 - (3650 * i) / SITTINGS - 0.1),
    light: '',
    guests: [],
    note: '',
    deletedAt: null,
  }));
  for (const one of sittings) await db.insert(Sitting, one);
  let n = 0;
  for (let p = 0; p < PAINTINGS; p++) {
    const paintingId = id();
    await db.insert(Painting, {
      id: paintingId,
      version: 1,
      title: `painting ${p}`,
      paletteId,
      ground: '#a89b88',
      createdAt: at(3000 - p),
      updatedAt: at(100 - p),
      deletedAt: null,
    });
    const areas = Array.from({ length: AREAS }, (_, i) => ({ id: id(), name: `area ${i}`, x: (i % 3) / 4, y: Math.floor(i / 3) / 3 }));
    for (const { id: areaId, name, x, y } of areas)
      await db.insert(Area, {
        id: areaId,
        version: 1,
        paintingId,
        name,
        outline: Array.from({ length: 24 }, (_, k) => ({
          x: x + 0.2 + 0.2 * Math.cos((k * Math.PI) / 12),
          y: y + 0.2 + 0.2 * Math.sin((k * Math.PI) / 12),
        })),
        createdAt: at(90),
        deletedAt: null,
      });
    for (let l = 0; l < LAYERS; l++) {
      const pileId = id();
      const [stageId, deedId] = [id(), id()];
      const sittingId = sittings[Math.floor(random() * SITTINGS)]!.id;
      await db.insert(Pile, {
        id: pileId,
        version: 1,
        paintingId,
        name: `pile ${l}`,
        plan: { form: 1, heaps: [] } as never,
        purpose: {},
        ml: 4,
        layer: 1,
        note: '',
        target: null,
        string: null,
        predicted: { lab: { L: 50, a: 0, b: 0 }, steadiness: 0, basis: 'typical' } as never,
        createdAt: at(90 - l),
        updatedAt: at(90 - l),
        deletedAt: null,
      } as never);
      const stage = { left: null, predicted: null, withdrawnAt: null, laid: null, touch: null };
      await db.insert(Stage, { ...stage, id: stageId, n: ++n, pileId, areaId: null, sittingId, kind: 'mixed', at: at(90 - 2 * l) });
      for (let k = 0; k < 3; k++) {
        const tube = tubes[Math.floor(random() * tubes.length)]!;
        const dose = { ml: 1, low: 1, high: 1, said: null, sourceId: null, position: k };
        await db.insert(Addition, { ...dose, id: id(), stageId, tubeId: tube.id, stateId: tube.stateId });
      }
      const areaId = areas[l % AREAS]!.id;
      await db.insert(Stage, {
        ...stage,
        id: deedId,
        n: ++n,
        pileId: null,
        areaId,
        sittingId,
        kind: 'laid',
        laid: { how: 'thin' },
        at: at(89 - 2 * l),
      });
      await db.insert(Addition, {
        id: id(),
        stageId: deedId,
        tubeId: null,
        stateId: null,
        sourceId: stageId,
        ml: 0.5,
        low: 0.5,
        high: 0.5,
        said: null,
        position: 0,
      });
      if (l % 3 === 0)
        await db.insert(Stage, {
          ...stage,
          id: id(),
          n: ++n,
          pileId: null,
          areaId,
          sittingId,
          kind: 'touched',
          touch: 'dry',
          at: at(85 - 2 * l),
        });
    }
  }
});

const tubes = new Map((await running.studio.look((db) => tubeRows(db))).map((tube) => [tube.id, tube]));
const reads: number[] = [];
let log!: LogDto;
for (let run = 0; run <= RUNS; run++) {
  const began = performance.now();
  log = (await (await fetch(`${running.address}api/log`)).json()) as LogDto;
  if (run > 0) reads.push(performance.now() - began);
}
const reckoned: number[] = [];
let answers = 0;
for (let run = 0; run <= RUNS; run++) {
  const began = performance.now();
  const laid = new Map(log.laid.map(({ deedId, parts }) => [deedId, parts]));
  const partOf = (tubeId: string, share: number) => [layerPartOf(tubes.get(tubeId)!, share)];
  const stories = log.rows.areas!.map((area: AreaDto) => ({ area, story: storyOf(area, laid, partOf) }));
  const learnt = learntFrom(stories.map(({ story }) => story));
  const byPainting = new Map<string, typeof stories>();
  for (const one of stories) byPainting.set(one.area.paintingId, [...(byPainting.get(one.area.paintingId) ?? []), one]);
  answers = 0;
  const asked = momentsAhead(now, ZONE);
  for (const own of byPainting.values()) {
    const areas = own.map(({ story }) => story);
    const [lying, over] = [lyingOn(areas, learnt), overlapsOf(areas)];
    for (const { id: areaId } of areas)
      for (const { at: when } of asked) if (mayPaintOver(lying, over.get(areaId)!, when).stands) answers++;
  }
  if (run > 0) reckoned.push(performance.now() - began);
}
console.log(`${log.rows.areas!.length} areas, ${log.laid.length} layers, ${answers} answers, ${SITTINGS} sittings`);
console.log(`read over HTTP, p50: ${median(reads).toFixed(0)} ms (300 asked)`);
console.log(`reckoned: what touches teach, windows, overlaps, answers, p50: ${median(reckoned).toFixed(0)} ms (100 asked)`);
await running.stop();
rmSync(folder, { recursive: true, force: true });
process.exit(0);
