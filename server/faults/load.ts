import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Answer, Operation } from '@dusk/wire';
import sharp from 'sharp';
import { start } from '../test/program.ts';

export interface LoadRow {
  readonly clients: number;
  readonly seconds: number;
  readonly requests: number;
  readonly errors: number;
  readonly lost: number;
  readonly p50: number;
  readonly p95: number;
  readonly p99: number;
  readonly uploadP95: number;
}

const at = (times: readonly number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(share * times.length))] ?? 0;

/** Many clients at once: reads, changes and now and then a picture; every acknowledged change is looked for at the end. */
export async function loaded(clients: number, seconds: number): Promise<LoadRow> {
  const folder = mkdtempSync(join(tmpdir(), 'dusk-load-'));
  const program = start(folder);
  const address = await program.address;
  const { rows } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
  const tubeIds = rows.tubes!.slice(0, 4).map((t) => t.id);
  const picture = await sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#8a6b4f' } })
    .jpeg()
    .toBuffer();
  const times: number[] = [];
  const uploads: number[] = [];
  const acknowledged: string[] = [];
  let errors = 0;
  const until = performance.now() + seconds * 1000;
  const client = async (n: number): Promise<void> => {
    for (let turn = 0; performance.now() < until; turn++) {
      const since = performance.now();
      const kind = (n + turn) % 20;
      if (kind === 0) {
        const form = new FormData();
        form.append('picture', new Blob([new Uint8Array(picture)], { type: 'image/jpeg' }), 'a.jpg');
        const { ok } = await fetch(`${address}/api/pictures`, { method: 'POST', body: form });
        if (!ok) errors++;
        uploads.push(performance.now() - since);
        continue;
      }
      if (kind % 2 === 0) {
        const id = randomUUID();
        const ops: Operation[] = [{ do: 'palette.add', id, name: `palette ${id}`, tubeIds }];
        const body = JSON.stringify({ id: randomUUID(), device: 'a client', ops });
        const { status } = await fetch(`${address}/api/changes`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
        if (status === 201) acknowledged.push(id);
        else errors++;
      } else if (!(await fetch(`${address}/api/copies`)).ok) errors++;
      times.push(performance.now() - since);
    }
  };
  await Promise.all(Array.from({ length: clients }, (_, n) => client(n)));
  const { rows: end } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
  const there = new Set(end.palettes!.map((p) => p.id));
  program.child.kill('SIGINT');
  await program.ended;
  rmSync(folder, { recursive: true, force: true });
  return {
    clients,
    seconds,
    requests: times.length + uploads.length,
    errors,
    lost: acknowledged.filter((id) => !there.has(id)).length,
    p50: at(times, 0.5),
    p95: at(times, 0.95),
    p99: at(times, 0.99),
    uploadP95: at(uploads, 0.95),
  };
}
