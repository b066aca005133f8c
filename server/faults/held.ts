import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { randomUUID } from 'node:crypto';
import { startServer } from '../src/index.ts';
import { testClock } from '../test/clock.ts';

export interface HeldRow {
  readonly what: string;
  readonly status: number;
  /** Longest that the server's thread was held while it was answered, ms. */
  readonly heldMs: number;
}

/** Just below the body's limit of a megabyte. */
const LIMIT = 1_000_000;
const change = (op: object): string => JSON.stringify({ id: randomUUID(), device: 'x', ops: [op] });
const full = (piece: string, before: string, after: string): string => {
  const count = Math.floor((LIMIT - before.length - after.length) / (piece.length + 1));
  return before + Array.from({ length: count }, () => piece).join(',') + after;
};
const inside = (op: object, field: string, piece: string): string => {
  const [before, after] = change({ ...op, [field]: ['HERE'] }).split('"HERE"') as [string, string];
  return full(piece, before, after);
};

const PILE = { do: 'pile.add', id: randomUUID(), paintingId: randomUUID(), name: 'x', ml: 4, plan: { form: 1, heaps: [] } };
/** What a request of the largest size may be made of. */
const BODIES: Readonly<Record<string, () => string>> = {
  'tubes of a palette': () => inside({ do: 'palette.add', id: randomUUID(), name: 'x' }, 'tubeIds', '"t"'),
  'empty arrays for heaps': () => inside({ ...PILE, plan: undefined }, 'plan', '[]'),
  'empty measures': () => inside({ do: 'stage.add', id: randomUUID(), pileId: randomUUID(), kind: 'mixed' }, 'additions', '{}'),
  operations: () => full('{}', `{"id":"${randomUUID()}","device":"x","ops":[`, ']}'),
  'unknown fields': () => `{${Array.from({ length: 80_000 }, (_, i) => `"f${i}":1`).join(',')}}`,
  nesting: () => '['.repeat(LIMIT / 2 - 10) + ']'.repeat(LIMIT / 2 - 10),
  'a name': () => change({ do: 'palette.add', id: randomUUID(), name: 'x'.repeat(LIMIT - 300), tubeIds: ['t'] }),
  'one field of many names': () =>
    change({ do: 'palette.add', id: randomUUID(), name: Object.fromEntries(Array.from({ length: 80_000 }, (_, i) => [`f${i}`, 1])) }),
};

/** Sends the largest bodies there may be, and looks how long each holds the server's thread. */
export async function held(): Promise<HeldRow[]> {
  const folder = mkdtempSync(join(tmpdir(), 'dusk-held-'));
  const running = await startServer(folder, 0, undefined, testClock);
  const rows: HeldRow[] = [];
  for (const [what, make] of Object.entries(BODIES)) {
    const body = make();
    const delay = monitorEventLoopDelay({ resolution: 1 });
    await new Promise((done) => setTimeout(done, 50));
    delay.enable();
    const { status } = await fetch(`${running.address}api/changes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body,
    });
    await new Promise((done) => setTimeout(done, 50));
    delay.disable();
    rows.push({ what, status, heldMs: Math.round(delay.max / 1e6) });
  }
  await running.stop();
  rmSync(folder, { recursive: true, force: true });
  return rows;
}
