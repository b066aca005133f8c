// npm run bench:cards: how long it takes to find among 100,000 cards, over HTTP, and what an import takes.
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { CATALOGUE, masstoneOf, mixtureOf, paintOfCard, writeCards, type Card, type CardTube } from '@dusk/core';
import type { Answer, CardsFound, FilePreview } from '@dusk/wire';
import { startServer } from '../src/index.ts';
import { testClock } from '../test/clock.ts';
import { keepCards } from '../src/cards/cards.ts';

const COUNT = 100_000;
const ASKED_MS = 50;
const RUNS = 40;

/** The same numbers each time. */
let seed = 7;
const random = (): number => ((seed = (seed * 48271) % 2147483647), seed / 2147483647);
const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

const TUBES = new Map(
  [...CATALOGUE.values()].map(({ slug, name, colourIndex, caution, density, K, S }): [string, CardTube] => {
    const round = (curve: Float64Array): Float64Array => curve.map((v) => Number(v.toPrecision(7)));
    return [
      slug,
      { key: slug, name, pigment: slug, colourIndex, caution, density, nozzleMm: 6, basis: 'typical', K: round(K), S: round(S) },
    ];
  }),
);
const THINGS = ['jug', 'wall', 'sheet', 'hat', 'reed', 'door', 'sky', 'paving'];
const ZONES = ['light', 'shadow', 'half-light', 'reflected'];
const SLUGS = [...TUBES.keys()];

function card(at: number): Card {
  const pigments = [...new Set(['titanium-white', one(SLUGS), one(SLUGS), one(SLUGS)])].slice(0, 2 + Math.floor(random() * 2));
  const recipe = mixtureOf(pigments.map((tube) => ({ tube, parts: 1 + Math.floor(random() * 9) })));
  const tubes = pigments.map((pigment) => TUBES.get(pigment)!);
  const [thing, zone] = [one(THINGS), one(ZONES)];
  return {
    id: crypto.randomUUID(),
    name: `${thing}, ${zone} ${at}`,
    note: one(['', 'with a knife', 'thin', 'for the second layer']),
    recipe,
    tubes,
    ml: 3,
    predicted: masstoneOf(paintOfCard({ recipe, tubes })),
    thing,
    zone,
    painting: `Painting ${Math.floor(random() * 200)}`,
    light: '',
    film: 'full',
    medium: '',
    basis: 'typical',
    steadiness: 1,
    within: 3,
    madeAt: new Date(Date.UTC(2020 + Math.floor(random() * 6), Math.floor(random() * 12), 1)).toISOString(),
  };
}

const folder = mkdtempSync(join(tmpdir(), 'dusk-bench-'));
const running = await startServer(folder, 0, undefined, testClock);
const began = performance.now();
for (let at = 0; at < COUNT; at += 5000)
  await running.studio.change((db) =>
    keepCards(
      db,
      Array.from({ length: 5000 }, (_, i) => ({ ...card(at + i), pileId: null, stands: {}, bringingId: null })),
    ),
  );
console.log(
  `${COUNT} cards kept in ${((performance.now() - began) / 1000).toFixed(0)} s; ${(statSync(join(folder, 'studio.sqlite')).size / 1e6).toFixed(0)} MB`,
);

const { rows } = (await (await fetch(`${running.address}api/studio`)).json()) as Answer;
const tubeIds = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue', 'viridian'].map(
  (pigment) => rows.tubes!.find((tube) => tube.pigment === pigment)!.id,
);
const paletteId = crypto.randomUUID();
const makeChange = (op: object): Promise<Response> =>
  fetch(`${running.address}api/changes`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ id: crypto.randomUUID(), device: 'bench', ops: [op] }),
  });
await makeChange({ do: 'palette.add', id: paletteId, name: 'P', tubeIds });

const near = (): object => ({ L: 10 + 80 * random(), a: 60 * random() - 30, b: 60 * random() - 30 });
const QUERIES: Readonly<Record<string, () => object>> = {
  'all, dark to light': () => ({}),
  'near a colour': () => ({ near: near() }),
  'near a colour, mixable': () => ({ near: near(), paletteId, reach: 'mixable' }),
  'near a colour, nearly mixable': () => ({ near: near(), paletteId, reach: 'nearly' }),
  'a range of values': () => ({ darkest: 3 + random(), lightest: 5 + random() }),
  'three words': () => ({ words: `${one(THINGS)} white ${one(ZONES)}` }),
  'tubes in and out': () => ({ within: ['titanium-white'], without: ['ivory-black', 'viridian'] }),
  'value, words, temperature, thing': () => ({ darkest: 2, lightest: 8, words: 'knife', temperature: 'warm', thing: one(THINGS) }),
  'nowhere at all': () => ({ words: 'nowhere' }),
};
const ask = async (query: object): Promise<CardsFound> =>
  (await (await fetch(`${running.address}api/cards-found?wanted=${encodeURIComponent(JSON.stringify(query))}`)).json()) as CardsFound;
let since = performance.now();
await ask({});
console.log(`all of them read again, since all are new: ${(performance.now() - since).toFixed(0)} ms`);
console.log(`\n| what is asked | p50 ms | p95 ms | found |\n| --- | --- | --- | --- |`);
for (const [what, query] of Object.entries(QUERIES)) {
  const took: number[] = [];
  let total = 0;
  for (let run = 0; run < RUNS; run++) {
    const at = performance.now();
    ({ total } = await ask(query()));
    took.push(performance.now() - at);
  }
  took.sort((a, b) => a - b);
  const p95 = took[Math.floor(0.95 * RUNS)]!;
  console.log(`| ${what} | ${took[RUNS >> 1]!.toFixed(0)} | ${p95.toFixed(0)}${p95 > ASKED_MS ? ' (over 50)' : ''} | ${total} |`);
}

const file = writeCards({ cards: Array.from({ length: 4000 }, (_, i) => card(i)), sets: [], palettes: [] });
const form = new FormData();
form.append('file', new Blob([file]), 'cards.json');
since = performance.now();
const preview = (await (await fetch(`${running.address}api/card-files`, { method: 'POST', body: form })).json()) as FilePreview;
console.log(`\n4,000 cards, ${(file.length / 1e6).toFixed(0)} MB: looked at in ${(performance.now() - since).toFixed(0)} ms`);
since = performance.now();
await makeChange({ do: 'bringing.add', id: crypto.randomUUID(), fileId: preview.fileId });
console.log(`brought in ${(performance.now() - since).toFixed(0)} ms`);
await running.stop();
rmSync(folder, { recursive: true, force: true });
