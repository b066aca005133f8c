// npm run bench:page: how closely the recipe follows the pointer, how long a correction takes in the
// browser, a look at the studio with its learning, and long lists over HTTP. With -- --write it writes
// docs/PAGE.md. Needs the built pages.
import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { seeded } from '@dusk/core/random';
import { makeChange } from '@dusk/server';
import type { Answer, Operation } from '@dusk/wire';
import { layDabs, sizeOf } from '../web/src/frame/ledge/lay.ts';
import { firstSecond } from './firstSecond.ts';
import { kinTimes } from './kinBench.ts';
import { lookTimes } from './lookBench.ts';
import { closeBrowser, Sitting } from './studio.ts';

const at = (list: readonly number[], share: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))]!;
const rows: (readonly [what: string, p50: number, p95: number, asked: string])[] = [];
const note = (what: string, times: readonly number[], asked: string): void => {
  rows.push([what, at(times, 0.5), at(times, 0.95), asked]);
};

const first = await firstSecond();
for (const [what, times, asked] of await lookTimes()) note(what, times, asked);
const kin = await kinTimes();
for (const [what, times, asked] of kin.timed) note(what, times, asked);
const sitting = await Sitting.begin();
const { page } = sitting;
const measures = (name: string) => page.evaluate((n) => performance.getEntriesByName(n).map((entry) => entry.duration), name);

// A palette of eight tubes, as is asked.
await sitting.openReference();
const { palettes, paintings, tubes } = await sitting.rows();
const painting = paintings!.find((p) => p.id === sitting.paintingId)!;
const palette = palettes!.find((p) => p.id === painting.paletteId)!;
const more = tubes!.filter((t) => t.maker !== '' && !palette.tubeIds.includes(t.id)).slice(0, 8 - palette.tubeIds.length);
await sitting.elsewhere({
  do: 'palette.change',
  id: palette.id,
  version: palette.version,
  tubeIds: [...palette.tubeIds, ...more.map((t) => t.id)],
});
await sitting.openReference();
const follow = async (n: number): Promise<void> => {
  for (let i = 0; i < n; i++) {
    const t = i / n;
    await sitting.pointAt(0.5 + 0.45 * Math.cos(9 * t), 0.5 + 0.45 * Math.sin(14 * t));
  }
  await page.waitForTimeout(300);
};
await follow(120);
await page.evaluate(() => performance.clearMeasures());
await follow(300);
note('recipe after the pointer, 8 tubes', await measures('recipe follows'), '≤ 16 ms');

await sitting.openPile(/^bench in the light/);
await page.getByRole('button', { name: 'Set the white' }).click();
await page.getByRole('button', { name: 'It looks like the paper' }).click();
for (let i = 0; i < 60; i++) {
  await page.keyboard.press(['ArrowDown', 'ArrowLeft', 'ArrowDown', '-', 'ArrowUp', 'ArrowRight'][i % 6]!);
  await page.waitForTimeout(90);
}
note('correction after a nudge, in the browser', await measures('correction follows'), '≤ 50 ms');

// A look with its learning, over HTTP, with the whole catalogue in the studio.
const took: number[] = [];
const made = async (...ops: readonly Operation[]): Promise<void> => {
  await makeChange(sitting.running.studio, { id: randomUUID(), device: 'bench', ops });
};
const white = tubes!.find((t) => t.pigment === 'titanium-white' && t.maker === '')!;
const others = tubes!.filter((t) => t.maker === '' && t.pigment !== 'titanium-white');
const some = (t: { id: string; stateId: string }, ml: number) => ({
  id: randomUUID(),
  tubeId: t.id,
  stateId: t.stateId,
  ml,
  low: ml,
  high: ml,
});
for (let i = 0; i < 30; i++) {
  const [pileId, stageId, sightingId] = [randomUUID(), randomUUID(), randomUUID()];
  const used = [others[i]!, others[(i * 7 + 3) % others.length]!];
  const plan = { form: 1, heaps: [{ ingredients: [{ tube: white.id, parts: 5 }] }] };
  await made(
    { do: 'pile.add', id: pileId, paintingId: painting.id, name: `pile ${i}`, plan, ml: 4 },
    { do: 'stage.add', id: stageId, pileId, kind: 'mixed', additions: [some(white, 4), ...used.map((t) => some(t, 0.5))] },
    { do: 'sighting.add', id: sightingId, kind: 'reader' },
  );
  const from = performance.now();
  await sitting.elsewhere({ do: 'look.add', id: randomUUID(), sightingId, stageId, lab: { L: 55, a: 4, b: 8 } });
  took.push(performance.now() - from);
}
note('a look kept and learnt from, over HTTP, answer and disk included', took, '≤ 50 ms');

// Long lists: five hundred paintings, two thousand piles.
const plan = {
  form: 1,
  heaps: [
    {
      ingredients: [
        { tube: white.id, parts: 5 },
        { tube: others[3]!.id, parts: 1 },
      ],
    },
  ],
};
for (let i = 0; i < 5; i++)
  await made(
    ...Array.from({ length: 100 }, (_, k): Operation => ({
      do: 'painting.add',
      id: randomUUID(),
      title: `painting ${i} ${k}`,
      paletteId: palette.id,
    })),
  );
const crowded = randomUUID();
await made({ do: 'painting.add', id: crowded, title: 'crowded', paletteId: palette.id });
for (let i = 0; i < 10; i++)
  await made(
    ...Array.from({ length: 200 }, (_, k): Operation => ({
      do: 'pile.add',
      id: randomUUID(),
      paintingId: crowded,
      name: `pile ${i} ${k}`,
      plan,
      ml: 4,
    })),
  );
const read = async (path: string): Promise<number> => {
  const from = performance.now();
  (await (await fetch(`${sitting.running.address}api/${path}`)).json()) as Answer;
  return performance.now() - from;
};
const many = async (path: string): Promise<number[]> => {
  const times: number[] = [];
  for (let i = 0; i < 12; i++) times.push(await read(path));
  return times.slice(2);
};
note('the studio with 503 paintings', await many('studio'), '316 ms before');
note('a painting with 2,000 piles', await many(`paintings/${crowded}`), '1,000 ms before');
await sitting.end();
await closeBrowser();

// Laying the ledge.
const random = seeded(11);
for (const count of [60, 200]) {
  const dabs = Array.from({ length: count }, (_, i) => ({
    id: `pile ${i}`,
    x: 38 + 1203 * (0.15 + 0.7 * random()),
    warmth: 2 * random() - 1,
    size: sizeOf(1 + 12 * random(), count),
  }));
  const laying = Array.from({ length: 40 }, () => {
    const from = performance.now();
    layDabs(dabs, 100);
    return performance.now() - from;
  });
  note(`laying the ledge, ${count} piles`, laying.slice(5), '');
}

const ms = (v: number): string => `${v < 10 ? v.toFixed(1) : v.toFixed(0)} ms`;
const table = [
  '| what | p50 | p95 | asked |',
  '| --- | --- | --- | --- |',
  ...rows.map(([what, p50, p95, asked]) => `| ${what} | ${ms(p50)} | ${ms(p95)} | ${asked} |`),
].join('\n');
const kb = (bytes: number): string => `${(bytes / 1000).toFixed(0)} KB`;
const second = [
  `| the first view with everything but pictures, in ${first.requests} requests | ${kb(first.bytes)} | ≤ 220 KB |`,
  `| of these letters, and the sample studio's own rows | ${kb(first.fontBytes)}, ${kb(first.rowBytes)} | |`,
  `| all that came once nothing more is fetched ahead, in ${first.allRequests} requests (at most 40 asked) | ${kb(first.allBytes)} | ≤ 450 KB |`,
  `| until the first place is shown, the browser's own cache empty | ${first.shownMs.toFixed(0)} ms | |`,
  ...Object.entries(first.longest).map(
    ([what, longest]) => `| the page's own thread at most: ${what} | ${longest === 0 ? 'under 50 ms' : `${longest} ms`} | ≤ 50 ms |`,
  ),
  `| the page's own thread at most: leaving tubes out, stepping kin, strings | ${kin.longest === 0 ? 'under 50 ms' : `${kin.longest} ms`} | ≤ 50 ms |`,
];
const firstTable = ['| what | | asked |', '| --- | --- | --- |', ...second].join('\n');
console.log(`${firstTable}\n\n${table}`);
if (process.argv.includes('--write'))
  writeFileSync(
    new URL('../docs/PAGE.md', import.meta.url),
    `# Figures of the page and the studio\n\nWritten by \`npm run bench:page -- --write\` on ${cpus().length} × ${cpus()[0]!.model}, the browser and the server on the same machine. Compare figures within one run.\n\n## The first second\n\nA browser that has nothing of the product yet opens the paintings of the sample studio; bytes are counted on the wire (Chromium's own count), pictures left out, until the first place is shown; then a painting is opened, the pointer moves over its picture, a pile is kept, every other place is gone to. Long tasks are the browser's own: under 50 ms they are not told apart.\n\n${firstTable}\n\n## Following the hand, and long lists\n\n${table}\n\nLists are read in a fixed number of queries, whatever their length; a test counts them.\n`,
  );
