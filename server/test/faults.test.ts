import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import type { Answer } from '@dusk/wire';
import { connectionOf } from '../src/file/transactions.ts';
import { aPainting, aPalette, change, idOf, lightBlue, newId, openBench, read, readPainting, refused, send, type Bench } from './studio.ts';

interface Torn {
  prepare(sql: string): object;
  exec(sql: string): unknown;
  pragma(text: string): unknown;
}

const driver = (bench: Bench): Torn => connectionOf(bench.running.studio.data) as unknown as Torn;

/** Lets a commit fail once, with or without SQLite rolling back by itself first, or after it was written. */
function failCommit(bench: Bench, how: 'before' | 'rolled back' | 'after'): void {
  const connection = driver(bench);
  const exec = connection.exec.bind(connection);
  connection.exec = (sql) => {
    if (sql !== 'COMMIT') return exec(sql);
    connection.exec = exec;
    if (how !== 'before') exec(how === 'after' ? 'COMMIT' : 'ROLLBACK');
    throw Object.assign(new Error('disk I/O error'), { code: 'SQLITE_IOERR' });
  };
}

/** Lets the nth thing that a change asks of the file fail, as a disk does. @returns whether it came to that */
function failAt(bench: Bench, n: number, code: string): () => boolean {
  const connection = driver(bench);
  const { exec, prepare } = connection;
  let asked = 0;
  let failed = false;
  const fail = (): void => {
    if (++asked !== n) return;
    failed = true;
    throw Object.assign(new Error('database or disk is full'), { code });
  };
  connection.exec = (sql) => {
    if (sql !== 'ROLLBACK') fail();
    return exec.call(connection, sql);
  };
  connection.prepare = (sql) => {
    fail();
    return prepare.call(connection, sql);
  };
  return () => {
    Object.assign(connection, { exec, prepare });
    return failed;
  };
}

describe('a studio', () => {
  it('whose disk is full lets the program stop: the journal stays beside the studio, and is taken in at the next start', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'dusk-faults-'));
    const bench = await openBench(folder);
    const { id } = await aPalette(bench);
    const connection = driver(bench);
    const { pragma } = connection;
    connection.pragma = (asked) => {
      if (asked.startsWith('wal_checkpoint')) throw Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' });
      return pragma.call(connection, asked);
    };
    expect(await bench.running.stop()).to.equal(false);
    const again = await openBench(folder);
    expect((await read(again)).rows.palettes!.some((palette) => palette.id === id)).to.equal(true);
    expect(await again.running.stop()).to.equal(true);
    rmSync(folder, { recursive: true, force: true });
  });
});

describe('a studio in trouble', () => {
  let bench: Bench;
  let paintingId: string;
  const acknowledged: string[] = [];
  beforeEach(async () => {
    bench = await openBench();
    paintingId = (await aPainting(bench)).id;
    acknowledged.length = 0;
  });
  afterEach(() => bench.close());

  /** Keeps piles, remembering which were acknowledged. */
  async function keep(n: number): Promise<void> {
    for (let i = 0; i < n; i++) {
      const id = newId();
      const { status } = await send(bench, [lightBlue(bench, paintingId, id)]);
      if (status === 201) acknowledged.push(id);
    }
  }
  /** What was acknowledged is what the file holds, also for whoever opens it next. */
  async function allThere(): Promise<void> {
    const listed = async () => (await readPainting(bench, paintingId)).rows.piles!.map((p) => p.id).sort();
    expect(await listed()).to.deep.equal([...acknowledged].sort());
    bench = await bench.restart();
    expect(await listed()).to.deep.equal([...acknowledged].sort());
  }
  const refusal = () => refused(send(bench, [{ do: 'painting.change', id: paintingId, version: 99, title: 'x' }]), 409);

  for (const how of ['before', 'rolled back'] as const)
    it(`whose commit fails (${how}) keeps nothing of that change, and everything after it`, async () => {
      await keep(2);
      failCommit(bench, how);
      // No refusal: what was sent waits in the browser, and goes again.
      await refused(send(bench, [lightBlue(bench, paintingId)]), 503);
      await refusal();
      await keep(5);
      await refusal();
      await keep(2);
      expect(acknowledged).to.have.length(9);
      await allThere();
    });

  it('whose commit is in the file although it failed says so, and does not do it twice', async () => {
    failCommit(bench, 'after');
    const id = newId();
    const op = lightBlue(bench, paintingId);
    const { body } = await send(bench, [op], id).expect(201);
    acknowledged.push((body as Answer).rows.piles![0]!.id);
    await send(bench, [op], id).expect(200);
    await keep(2);
    await allThere();
  });

  it('whose disk is full says so, goes on reading, and keeps everything once there is room', async () => {
    await keep(2);
    const pages = (driver(bench).pragma('page_count') as { page_count: number }[])[0]!.page_count;
    driver(bench).pragma(`max_page_count = ${pages}`);
    const name = 'x'.repeat(80);
    const large = { ...lightBlue(bench, paintingId), name };
    let full = 0;
    for (let i = 0; i < 40; i++) {
      driver(bench).pragma(`max_page_count = ${pages}`);
      const id = newId();
      const answer = await send(
        bench,
        Array.from({ length: 8 }, (_, k) => ({ ...large, id: k === 0 ? id : newId() })),
      );
      if (answer.status === 201) acknowledged.push(...(answer.body as Answer).rows.piles!.map((p) => p.id));
      else {
        full++;
        expect(answer.status).to.equal(507);
        expect((answer.body as { detail: string }).detail).to.match(/disk is full; nothing of this was kept/);
        expect((await readPainting(bench, paintingId)).rows.piles).to.have.length(acknowledged.length);
      }
      if (full === 3) break;
    }
    expect(full).to.equal(3);
    driver(bench).pragma('max_page_count = 1073741823');
    await refusal();
    await keep(21);
    await refusal();
    await keep(1);
    await allThere();
  });

  for (const [code, status] of [
    ['SQLITE_FULL', 507],
    ['SQLITE_IOERR_FSYNC', 503],
    ['SQLITE_IOERR_WRITE', 503],
  ] as const)
    it(`that fails at any step of a change (${code}) keeps nothing of that change, and everything else`, async () => {
      await keep(1);
      let steps = 0;
      for (let n = 1; ; n++) {
        const before = JSON.stringify(await readPainting(bench, paintingId));
        const stop = failAt(bench, n, code);
        const [one, other] = [newId(), newId()];
        const answer = await send(bench, [lightBlue(bench, paintingId, one), lightBlue(bench, paintingId, other)]);
        if (!stop()) {
          expect(answer.status).to.equal(201);
          acknowledged.push(one, other);
          break;
        }
        steps++;
        // A failure after the last write of the commit may be in the file all the same: then it is acknowledged.
        if (answer.status === 201) acknowledged.push(one, other);
        else {
          expect(answer.status, `step ${n}`).to.equal(status);
          if (code === 'SQLITE_FULL') expect((answer.body as { detail: string }).detail).to.match(/nothing of this was kept/);
          expect(JSON.stringify(await readPainting(bench, paintingId)), `step ${n}`).to.equal(before);
        }
      }
      expect(steps).to.be.above(8);
      await keep(1);
      await allThere();
    });

  it('keeps apart what is refused and what is done, whatever the mapper thinks of its depth', async () => {
    await aPalette(bench);
    for (let i = 0; i < 6; i++) {
      await refusal();
      await keep(1);
    }
    expect(acknowledged).to.have.length(6);
    await allThere();
  });

  it('undoes nothing of others when an operation fails in the middle', async () => {
    const palette = await aPalette(bench);
    const before = JSON.stringify((await read(bench)).rows);
    await refused(
      send(bench, [
        { do: 'palette.change', id: palette.id, version: 1, name: 'half' },
        { do: 'palette.add', id: palette.id, name: 'taken', tubeIds: [idOf(bench, 'viridian')] },
      ]),
      409,
    );
    expect(JSON.stringify((await read(bench)).rows)).to.equal(before);
    await change(bench, { do: 'palette.change', id: palette.id, version: 1, name: 'whole' });
  });
});
