// npm run bench:studio: a studio of many years: its start, a look, an old pile, memory. Over HTTP, on a real file.
import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { fileURLToPath } from 'node:url';
import { CATALOGUE, deviate, labOf, masstoneOf, mixCurves, mixtureOf, paintOfCard, reflectance, type CardTube } from '@dusk/core';
import type { Answer, TubeDto } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { replace } from '../src/beliefs/order.ts';
import { Addition, Belief, Look, Painting, Palette, PaletteTube, Pile, Sighting, Stage } from '../src/entities/index.ts';
import { startServer } from '../src/index.ts';
import { testClock } from '../test/clock.ts';
import { keepCards } from '../src/cards/cards.ts';
import { tubeRows } from '../src/tubes/tubes.ts';

interface Years {
  readonly paintings: number;
  readonly piles: number;
  readonly looks: number;
  readonly cards: number;
}
const FOUR_YEARS: Years = { paintings: 150, piles: 3000, looks: 10_000, cards: 2500 };
const TEN_YEARS: Years = { paintings: 300, piles: 6000, looks: 20_000, cards: 5000 };
const RUNS = 40;

/** The same numbers each time. */
let seed = 11;
const random = (): number => ((seed = (seed * 48271) % 2147483647), seed / 2147483647);
const id = (): string => crypto.randomUUID();
const PIGMENTS = [...CATALOGUE.keys()].slice(0, 24);
const plain = { strength: 1, shiftNm: 0, extender: 0, shapeK: new Float64Array(36), shapeS: new Float64Array(36) };
const TRUE = new Map(
  PIGMENTS.map((slug) => [slug, deviate(CATALOGUE.get(slug)!, { ...plain, strength: 0.8 + 0.5 * random(), shiftNm: 4 * random() - 2 })]),
);
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** A pile of two to four tubes, looked at as often as is said, with what that says about its tubes. */
async function layPile(
  db: EntityManager,
  paintingId: string,
  tubes: ReadonlyMap<string, TubeDto>,
  n: number,
  looks: number,
  at: string,
): Promise<void> {
  const slugs = [
    ...new Set([
      'titanium-white',
      ...Array.from({ length: 1 + Math.floor(3 * random()) }, () => PIGMENTS[Math.floor(random() * PIGMENTS.length)]!),
    ]),
  ];
  const doses = slugs.map((slug) => ({ slug, tube: tubes.get(slug)!, parts: 0.5 + 4 * random() }));
  const plan = { form: 1 as const, heaps: [{ ingredients: doses.map(({ tube, parts }) => ({ tube: tube.id, parts })) }] };
  const [L, a, b] = labOf(
    reflectance(mixCurves(doses.map(({ slug, parts }) => ({ paint: TRUE.get(slug)!, parts: parts * (0.95 + 0.1 * random()) })))),
  );
  const pileId = id();
  const stageId = id();
  const lab = { L, a, b };
  const predicted = { lab, value: L / 10, basis: 'typical' as const };
  const common = { createdAt: at, updatedAt: at, deletedAt: null, version: 1 };
  await db.insert(Pile, {
    id: pileId,
    paintingId,
    name: `pile ${n}`,
    target: { kind: 'absolute', lab },
    plan,
    ml: 4,
    predicted,
    ...common,
  } as never);
  await db.insert(Stage, { id: stageId, n, pileId, kind: 'mixed', left: null, at, predicted: lab, withdrawnAt: null });
  await db.insert(
    Addition,
    doses.map(({ tube, parts }, position) => ({
      id: id(),
      stageId,
      position,
      tubeId: tube.id,
      stateId: tube.stateId,
      sourceId: null,
      ml: parts,
      low: parts,
      high: parts,
      said: null,
    })),
  );
  for (let k = 0; k < looks; k++) {
    const [sightingId, lookId] = [id(), id()];
    const seen = { L: L + random() - 0.5, a: a + random() - 0.5, b: b + random() - 0.5 };
    await db.insert(Sighting, { id: sightingId, kind: 'reader', light: null, white: null, at });
    await db.insert(Look, { id: lookId, sightingId, stageId, ...seen, said: null, confirmed: false, at, withdrawnAt: null });
    const evidence = [
      { additions: doses.map(({ tube, parts }) => ({ id: tube.id, parts })), knife: 0.1, observed: [seen.L, seen.a, seen.b], lookId },
    ];
    await db.insert(Belief, { id: id(), lookId, evidence, at, refusedAt: null } as never);
  }
  await replace(db, pileId);
}

/** Lays out a studio of years in a folder. */
async function fill(folder: string, years: Years): Promise<void> {
  const running = await startServer(folder, 0, undefined, testClock);
  const { studio } = running;
  const tubes = new Map((await studio.look((db) => tubeRows(db))).filter((t) => t.maker === '').map((t) => [t.pigment, t]));
  const at = (n: number): string => new Date(Date.UTC(2016, 0, 1) + (n * 3650 * 86_400_000) / years.piles).toISOString();
  let [piles, looks, n] = [0, 0, 0];
  const paletteId = id();
  await studio.change(async (db) => {
    await db.insert(Palette, { id: paletteId, version: 1, name: 'All', createdAt: at(0), updatedAt: at(0), deletedAt: null });
    await db.insert(
      PaletteTube,
      PIGMENTS.slice(0, 12).map((slug, position) => ({ paletteId, tubeId: tubes.get(slug)!.id, position })),
    );
  });
  for (let p = 0; p < years.paintings; p++)
    await studio.change(async (db) => {
      const paintingId = id();
      const common = { createdAt: at(piles), updatedAt: at(piles), deletedAt: null, version: 1 };
      await db.insert(Painting, {
        id: paintingId,
        title: `painting ${p}`,
        paletteId,
        ground: '#808080',
        canvas: null,
        layer: 1,
        ceiling: null,
        ...common,
      });
      for (const upTo = Math.round((years.piles * (p + 1)) / years.paintings); piles < upTo; piles++) {
        const upToLooks = Math.round((years.looks * (piles + 1)) / years.piles);
        await layPile(db, paintingId, tubes, ++n, upToLooks - looks, at(piles));
        looks = upToLooks;
      }
    });
  const cardTubes = PIGMENTS.map((slug): CardTube => {
    const { name, colourIndex, caution, density, K, S } = CATALOGUE.get(slug)!;
    return { key: slug, name, pigment: slug, colourIndex, caution, density, nozzleMm: 6, basis: 'typical', K, S };
  });
  for (let from = 0; from < years.cards; from += 2500)
    await studio.change((db) =>
      keepCards(
        db,
        Array.from({ length: Math.min(2500, years.cards - from) }, (_, k) => {
          const own = [cardTubes[0]!, cardTubes[1 + Math.floor(random() * 23)]!];
          const recipe = mixtureOf(own.map(({ key }) => ({ tube: key, parts: 1 + Math.floor(9 * random()) })));
          const known = {
            thing: 'jug',
            zone: '',
            painting: '',
            light: '',
            film: 'full' as const,
            medium: '',
            basis: 'typical' as const,
            steadiness: 1,
            within: 3,
          };
          return {
            id: id(),
            name: `card ${from + k}`,
            note: '',
            recipe,
            tubes: own,
            ml: 3,
            predicted: masstoneOf(paintOfCard({ recipe, tubes: own })),
            ...known,
            madeAt: at(0),
            pileId: null,
            stands: {},
            bringingId: null,
          };
        }),
      ),
    );
  await running.stop();
}

const p = (took: number[], share: number): string =>
  [...took].sort((x, y) => x - y)[Math.min(took.length - 1, Math.floor(share * took.length))]!.toFixed(0);
const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const began = performance.now();
  await work();
  return performance.now() - began;
};

/** A server in a process of its own, so that its memory is its own; it is asked over the channel between the two. */
class Served {
  private constructor(
    private readonly child: ChildProcess,
    readonly address: string,
    readonly took: number,
  ) {}

  static async start(folder: string): Promise<Served> {
    const child = fork(fileURLToPath(import.meta.url), ['serve', folder]);
    const [{ address, took }] = (await once(child, 'message')) as [{ address: string; took: number }];
    return new Served(child, address, took);
  }

  async ask(what: 'settle' | 'memory' | 'stop'): Promise<string> {
    this.child.send(what);
    const [answer] = (await once(this.child, 'message')) as [string];
    return answer;
  }
}

async function serve(folder: string): Promise<void> {
  const began = performance.now();
  const running = await startServer(folder, 0, undefined, testClock);
  process.send!({ address: running.address, took: performance.now() - began });
  process.on('message', (what) => {
    if (what === 'memory') process.send!(`${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`);
    if (what === 'settle') void running.studio.folding.settled().then(() => process.send!('settled'));
    if (what === 'stop') void running.stop().then(() => process.send!('stopped', () => process.exit(0)));
  });
}

/** Measures a studio that lies there. */
async function measure(folder: string): Promise<void> {
  let running = await Served.start(folder);
  console.log(`| start, until it listens | ${running.took.toFixed(0)} ms |`);
  console.log(`| memory then, resident | ${await running.ask('memory')} |`);
  const get = async <T>(path: string): Promise<T> => (await (await fetch(`${running.address}api/${path}`)).json()) as T;
  let first!: Answer;
  console.log(`| all that the first page shows | ${(await timed(async () => (first = await get<Answer>('studio')))).toFixed(0)} ms |`);
  const folding = performance.now();
  const waits: number[] = [];
  let isDone = false;
  void running.ask('settle').then(() => (isDone = true));
  while (!isDone) {
    waits.push(await timed(() => get('sets')));
    await pause(20);
  }
  if (waits.length > 1)
    console.log(
      `| all evidence folded, off the queue | ${((performance.now() - folding) / 1000).toFixed(1)} s; others wait p95 ${p(waits, 0.95)}, at most ${p(waits, 1)} ms |`,
    );
  console.log(`| memory, with the thread that folds | ${await running.ask('memory')} |`);
  await running.ask('stop');
  running = await Served.start(folder);
  console.log(`| start again | ${running.took.toFixed(0)} ms |`);
  const { paintings, palettes } = first.rows;
  console.log(
    `| what is believed of a palette, first after a start | ${(await timed(() => get(`palettes/${palettes![0]!.id}/doubts`))).toFixed(0)} ms |`,
  );
  const pilesIn = async (at: number) => (await get<Answer>(`paintings/${paintings![at]!.id}`)).rows.piles!;
  const order = [...paintings!.keys()];
  const old: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const piles = await pilesIn(order[Math.floor(random() * order.length)]!);
    old.push(await timed(() => get(`piles/${piles[0]!.id}/beliefs`)));
  }
  console.log(`| what is believed without an old pile | p50 ${p(old, 0.5)}, p95 ${p(old, 0.95)} ms |`);
  const send = async (...ops: readonly object[]): Promise<Answer> => {
    const body = JSON.stringify({ id: id(), device: 'bench', ops });
    const response = await fetch(`${running.address}api/changes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body,
    });
    if (!response.ok) throw new Error(await response.text());
    return (await response.json()) as Answer;
  };
  const look = (stageId: string, lab: { readonly L: number }): Promise<number> => {
    const sightingId = id();
    return timed(() =>
      send(
        { do: 'sighting.add', id: sightingId, kind: 'reader' },
        { do: 'look.add', id: id(), sightingId, stageId, lab: { ...lab, L: lab.L + random() } },
      ),
    );
  };
  const tubes = first.rows.tubes!.filter(({ maker, pigment }) => maker === '' && PIGMENTS.includes(pigment));
  const fresh: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const [pileId, stageId] = [id(), id()];
    const chosen = [tubes[0]!, tubes[1 + (run % (tubes.length - 1))]!];
    const plan = { form: 1, heaps: [{ ingredients: chosen.map((tube, k) => ({ tube: tube.id, parts: 3 - k })) }] };
    const additions = chosen.map((tube, k) => ({ id: id(), tubeId: tube.id, stateId: tube.stateId, ml: 3 - k, low: 3 - k, high: 3 - k }));
    const target = { kind: 'absolute', lab: { L: 50, a: 0, b: 0 } };
    const { rows } = await send(
      { do: 'pile.add', id: pileId, paintingId: paintings![0]!.id, name: 'new', target, plan, ml: 5 },
      { do: 'stage.add', id: stageId, pileId, kind: 'mixed', additions },
    );
    fresh.push(await look(stageId, rows.piles![0]!.predicted.lab));
  }
  console.log(`| a look at a pile just mixed | p50 ${p(fresh, 0.5)}, p95 ${p(fresh, 0.95)} ms |`);
  const aged: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const { stages, predicted } = (await pilesIn(Math.floor(random() * paintings!.length)))[0]!;
    aged.push(await look(stages.at(-1)!.id, predicted.lab));
  }
  console.log(`| one more look at any pile, others being folded | p50 ${p(aged, 0.5)}, p95 ${p(aged, 0.95)} ms |`);
  console.log(`| memory after all that | ${await running.ask('memory')} |`);
  await running.ask('stop');
}

const [what, folder] = process.argv.slice(2);
if (what === 'serve') await serve(folder!);
else {
  for (const years of [FOUR_YEARS, TEN_YEARS].slice(0, what === 'four' ? 1 : 2)) {
    const own = mkdtempSync(join(tmpdir(), 'dusk-years-'));
    await fill(own, years);
    const { paintings, piles, looks, cards } = years;
    const size = (statSync(join(own, 'studio.sqlite')).size / 1e6).toFixed(0);
    console.log(`\n${paintings} paintings, ${piles} piles, ${looks} looks, ${cards} cards; ${size} MB\n\n| what | took |\n| --- | --- |`);
    await measure(own);
    rmSync(own, { recursive: true, force: true });
  }
  process.exit(0);
}
