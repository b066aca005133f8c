import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import {
  appendFileSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
  statSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { seeded } from '@dusk/core/random';
import { expect } from 'chai';
import type { Answer } from '@dusk/wire';
import { copiesIn, copyName, prune } from '../src/file/copies.ts';
import { copyIfDue } from '../src/settings/daily.ts';
import { lookAt } from '../src/file/look.ts';
import { restore } from '../src/file/restore.ts';
import { studioIdOf } from '../src/settings/settings.ts';
import { openStudio, STUDIO_FILE, type Studio } from '../src/index.ts';
import { killed } from '../faults/kills.ts';
import { later, testClock } from './clock.ts';
import { scriptOf, start } from './program.ts';
import {
  aPainting,
  aPalette,
  aPile,
  change,
  newId,
  openBench,
  read,
  readPainting,
  refused,
  send,
  lightBlue,
  type Bench,
} from './studio.ts';

const aFolder = (): string => mkdtempSync(join(tmpdir(), 'dusk-keeping-'));
const fileIn = (folder: string): string => join(folder, STUDIO_FILE);
/** A minute after a file was last written. */
const soonAfter = (file: string): Date => new Date(statSync(file).mtimeMs + 60_000);
const opened = (folder: string): Promise<Studio> => openStudio(folder, testClock);
const failing = (work: () => Promise<unknown>): Promise<string> =>
  work().then(
    () => 'nothing went wrong',
    (cause: Error) => cause.message,
  );

/** A studio with one painting and two piles, closed. */
async function filled(folder: string): Promise<void> {
  const bench = await openBench(folder);
  const painting = await aPainting(bench);
  await aPile(bench, painting.id);
  await aPile(bench, painting.id);
  await bench.running.stop();
}

describe('a studio file', () => {
  let folder: string;
  beforeEach(() => (folder = aFolder()));
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('is one file once the studio is closed, and a copy of it is all of it', async () => {
    await filled(folder);
    expect(readdirSync(folder)).to.deep.equal([STUDIO_FILE]);
    const other = aFolder();
    copyFileSync(fileIn(folder), fileIn(other));
    expect(lookAt(fileIn(other))).to.include({ paintings: 1, piles: 2, isCurrent: true });
    expect(readdirSync(other)).to.deep.equal([STUDIO_FILE]);
    rmSync(other, { recursive: true });
  });

  /** Each is laid in a folder; what it says; whether it may have been changed by a byte. */
  const WRONG: readonly (readonly [what: string, lay: (file: string) => void, says: RegExp])[] = [
    ['is empty', (file) => writeFileSync(file, ''), /is empty/],
    ['is no database', (file) => writeFileSync(file, 'a letter to a friend, long enough to be read'), /is no studio/],
    ['is a picture', (file) => writeFileSync(file, Buffer.from([0xff, 0xd8, 0xff, 0xe0, ...Array<number>(200).fill(7)])), /is no studio/],
    [
      'is another program’s',
      (file) => {
        rmSync(file);
        new Database(file).exec('CREATE TABLE recipe (id integer); INSERT INTO recipe VALUES (1)').close();
      },
      /holds other tables/,
    ],
    [
      'was written by a newer program',
      (file) => new Database(file).exec(`INSERT INTO migration (timestamp, name) VALUES (9999999999999, 'Tomorrow9999999999999')`).close(),
      /newer Auburn Dusk/,
    ],
    [
      'is cut short',
      (file) => {
        const bytes = readFileSync(file);
        writeFileSync(file, bytes.subarray(0, Math.floor(bytes.length / 2 / 4096) * 4096));
      },
      /damaged/,
    ],
    [
      'is overwritten in the middle',
      (file) => {
        const bytes = readFileSync(file);
        bytes.fill(0x5a, 4096 * 3, 4096 * 40);
        writeFileSync(file, bytes);
      },
      /damaged/,
    ],
    [
      'lost its first page’s tables and has no journal',
      (file) => {
        rmSync(file);
        new Database(file).exec('PRAGMA journal_mode = WAL').close();
        if (!existsSync(file)) writeFileSync(file, '');
      },
      /is empty|holds nothing/,
    ],
  ];
  for (const [what, lay, says] of WRONG)
    it(`that ${what} is told, and left as it is`, async () => {
      await filled(folder);
      lay(fileIn(folder));
      const before = readFileSync(fileIn(folder));
      expect(await failing(() => opened(folder))).to.match(says);
      expect(readFileSync(fileIn(folder)).equals(before)).to.equal(true);
      expect(readdirSync(folder)).to.deep.equal([STUDIO_FILE]);
    });

  it('that is damaged is told with the newest good copy', async () => {
    await filled(folder);
    const studio = await opened(folder);
    await studio.copy(join(folder, 'copies', copyName(testClock())));
    await studio.close();
    appendFileSync(join(folder, 'copies', copyName(later(testClock(), 0, 1))), 'not a copy');
    const bytes = readFileSync(fileIn(folder));
    writeFileSync(fileIn(folder), bytes.subarray(0, 4096 * 20));
    const said = await failing(() => opened(folder));
    expect(said)
      .to.match(/damaged/)
      .and.to.match(/newest good copy is .*1 paintings, 2 piles/);
  });

  for (const [what, sql] of [
    ['is no plan', `UPDATE "pile" SET "version" = "version" + 1, "plan" = '{"heaps":[' WHERE rowid = (SELECT MAX(rowid) FROM "pile")`],
    ['is a number where a list belongs', `UPDATE "palette" SET "version" = "version" + 1, "guestIds" = 'NaN'`],
  ] as const)
    it(`in which one row cannot be read, since it ${what}, is told as damaged with the newest good copy`, async () => {
      await filled(folder);
      const studio = await opened(folder);
      const good = copyName(testClock());
      await studio.copy(join(folder, 'copies', good));
      await studio.close();
      const db = new Database(fileIn(folder));
      expect(db.prepare(sql).run().changes).to.be.above(0);
      db.close();
      // A copy of what is damaged is no good copy.
      copyFileSync(fileIn(folder), join(folder, 'copies', copyName(later(testClock(), 0, 1))));
      expect(await failing(() => opened(folder)))
        .to.match(/damaged/)
        .and.to.match(new RegExp(`newest good copy is .*${good}`));
    });

  it('opens after a crash with all that was acknowledged, its journal being its own', async () => {
    const program = start(folder);
    const address = await program.address;
    const ids: string[] = [];
    for (let i = 0; i < 12; i++) {
      const id = newId();
      const studio = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
      const ops = [{ do: 'palette.add', id, name: `palette ${i}`, tubeIds: [studio.rows.tubes![0]!.id] }];
      const answer = await fetch(`${address}/api/changes`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ id: randomUUID(), device: 'x', ops }),
      });
      if (answer.status === 201) ids.push(id);
    }
    program.child.kill('SIGKILL');
    await program.ended;
    expect(existsSync(`${fileIn(folder)}-wal`)).to.equal(true);
    const bench = await openBench(folder);
    const there = new Set((await read(bench)).rows.palettes!.map((p) => p.id));
    for (const id of ids) expect(there.has(id)).to.equal(true);
    await bench.running.stop();
  });

  it('that was put beside an old journal is told, whether it is another studio’s or another day’s', async () => {
    /** A studio that was left open by a crash: its file, and a journal with more in it. */
    const crashed = async (at: string): Promise<void> => {
      const program = start(at);
      const address = await program.address;
      const { rows } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
      for (let i = 0; i < 3; i++) {
        const ops = [{ do: 'palette.add', id: newId(), name: `palette ${i}`, tubeIds: [rows.tubes![0]!.id] }];
        const body = JSON.stringify({ id: randomUUID(), device: 'x', ops });
        await fetch(`${address}/api/changes`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
      }
      program.child.kill('SIGKILL');
      await program.ended;
    };
    await filled(folder);
    const copy = join(folder, '..', `copy of ${randomUUID()}.sqlite`);
    const yesterday = readFileSync(fileIn(folder));
    // A day's work since then, that went into the file; what is in the journal was done after it.
    const between = await openBench(folder);
    for (let i = 0; i < 40; i++) await aPalette(between);
    await between.running.stop();
    const other = aFolder();
    await filled(other);
    const anothers = readFileSync(fileIn(other));
    await crashed(folder);
    for (const put of [yesterday, anothers]) {
      writeFileSync(copy, put);
      const now = soonAfter(copy);
      utimesSync(copy, now, now);
      renameSync(copy, fileIn(folder));
      const before = readFileSync(fileIn(folder));
      expect(await failing(() => opened(folder))).to.match(/journal|damaged/);
      expect(readFileSync(fileIn(folder)).equals(before)).to.equal(true);
    }
    rmSync(fileIn(folder));
    expect(await failing(() => opened(folder))).to.match(/is gone, but its journal/);
    rmSync(other, { recursive: true });
  });

  it('that was only touched after its journal was written opens with all that was acknowledged', async () => {
    await filled(folder);
    const program = start(folder);
    const address = await program.address;
    const { rows } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
    const ids: string[] = [];
    for (let i = 0; i < 5; i++) {
      ids.push(newId());
      const ops = [{ do: 'palette.add', id: ids[i], name: `palette ${i}`, tubeIds: [rows.tubes![0]!.id] }];
      const body = JSON.stringify({ id: randomUUID(), device: 'x', ops });
      const answer = await fetch(`${address}/api/changes`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
      expect(answer.status).to.equal(201);
    }
    program.child.kill('SIGKILL');
    await program.ended;
    const after = soonAfter(`${fileIn(folder)}-wal`);
    utimesSync(fileIn(folder), after, after);
    const bench = await openBench(folder);
    const there = new Set((await read(bench)).rows.palettes!.map((palette) => palette.id));
    for (const id of ids) expect(there.has(id)).to.equal(true);
    await bench.running.stop();
  });

  it('beside a journal that is not its own is put back by itself with restore, as is said', async () => {
    await filled(folder);
    const other = aFolder();
    await filled(other);
    const program = start(folder);
    const address = await program.address;
    const { rows } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
    const ops = [{ do: 'palette.add', id: newId(), name: 'late', tubeIds: [rows.tubes![0]!.id] }];
    const body = JSON.stringify({ id: randomUUID(), device: 'x', ops });
    await fetch(`${address}/api/changes`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
    program.child.kill('SIGKILL');
    await program.ended;
    copyFileSync(fileIn(other), fileIn(folder));
    expect(await failing(() => opened(folder))).to.match(/npm run restore/);
    const { aside } = restore(folder, fileIn(folder), testClock());
    expect(existsSync(`${aside!}-wal`), 'the journal is laid aside').to.equal(true);
    await (await opened(folder)).close();
    rmSync(other, { recursive: true });
  });

  it('that cannot be written is said at the start, and nothing of it is lost', async () => {
    await filled(folder);
    const before = readFileSync(fileIn(folder));
    const { chmodSync } = await import('node:fs');
    // Root may write whatever it likes: then SQLite is told that it may not.
    const asked = Database.prototype.exec;
    Database.prototype.exec = function (this: Database.Database, sql: string) {
      if (sql.includes('UPDATE "settings" SET "version" = "version" + 1')) this.pragma('query_only = ON');
      return asked.call(this, sql);
    };
    try {
      chmodSync(fileIn(folder), 0o444);
      expect(await failing(() => opened(folder))).to.match(/cannot be written/);
    } finally {
      Database.prototype.exec = asked;
      chmodSync(fileIn(folder), 0o644);
    }
    expect(readFileSync(fileIn(folder)).equals(before)).to.equal(true);
    await (await opened(folder)).close();
  });

  it('that was taken away and copied out is not begun anew in silence', async () => {
    const bench = await openBench(folder);
    await aPainting(bench);
    const away = `${fileIn(folder)} elsewhere`;
    renameSync(fileIn(folder), away);
    await refused(send(bench, [{ do: 'palette.add', id: newId(), name: 'late', tubeIds: [] }]), 503).catch(() => undefined);
    await send(bench, [{ do: 'palette.add', id: newId(), name: 'late', tubeIds: [[...bench.tubes.values()][0]!.id] }]);
    await bench.running.stop();
    const told = await failing(() => opened(folder));
    expect(told).to.match(/There is no .* any more, but what was in it lies in .*rescued/);
    expect(existsSync(fileIn(folder))).to.equal(false);
    const { restored } = restore(folder, /restore "(.*)"/.exec(told)![1]!, testClock());
    expect(restored.paintings).to.equal(1);
    await (await opened(folder)).close();
  });

  it('is open once although its lock was taken away by hand', async () => {
    const first = start(folder);
    await first.address;
    rmSync(join(folder, '.in-use'));
    const second = start(folder);
    expect((await second.ended).code).to.equal(1);
    expect((await second.ended).said).to.match(/open already/);
    first.child.kill('SIGINT');
    await first.ended;
    await (await opened(folder)).close();
  });

  it('is open once: a second program is turned away, and one that crashed leaves no lock', async () => {
    const studio = await opened(folder);
    expect(await failing(() => opened(folder))).to.match(/open already/);
    const second = start(folder);
    expect((await second.ended).code).to.equal(1);
    expect((await second.ended).said).to.match(/open already/);
    await studio.close();
    const crashing = start(folder);
    await crashing.address;
    crashing.child.kill('SIGKILL');
    await crashing.ended;
    await (await opened(folder)).close();
  });

  it('that is taken away under our hands is told at once, and what it held is copied out', async () => {
    const bench = await openBench(folder);
    const painting = await aPainting(bench);
    renameSync(fileIn(folder), `${fileIn(folder)} elsewhere`);
    const { body } = await refused(send(bench, [lightBlue(bench, painting.id)]), 503);
    const rescued = /lies in (.*rescued.*\.sqlite)/.exec((body as { detail: string }).detail)![1]!;
    expect(lookAt(rescued)).to.include({ paintings: 1 });
    await bench.running.stop();
  });
});

/** A disk of so many bytes, where this machine lets one be had. */
async function onDisk(bytes: number, work: (folder: string) => Promise<void>): Promise<boolean> {
  const disk = aFolder();
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${bytes}`, 'tmpfs', disk]).status !== 0) return false;
  try {
    await work(disk);
  } finally {
    spawnSync('umount', ['-l', disk]);
    rmSync(disk, { recursive: true, force: true });
  }
  return true;
}

describe('a full disk', () => {
  it('lets a studio be opened and read, and keeps what is done once there is room', async function () {
    const could = await onDisk(12_000_000, async (disk) => {
      await filled(disk);
      const ballast = join(disk, 'ballast');
      let size = 0;
      try {
        for (;;) {
          appendFileSync(ballast, Buffer.alloc(4096));
          size += 4096;
        }
      } catch {
        expect(size).to.be.above(0);
      }
      const program = start(disk);
      const address = await program.address;
      const { rows } = (await (await fetch(`${address}/api/studio`)).json()) as Answer;
      expect(rows.paintings).to.have.length(1);
      const send1 = () =>
        fetch(`${address}/api/changes`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({
            id: newId(),
            device: 'x',
            ops: [{ do: 'palette.add', id: newId(), name: 'new', tubeIds: [rows.tubes![0]!.id] }],
          }),
        });
      expect((await send1()).status).to.be.oneOf([507, 503]);
      rmSync(ballast);
      expect((await send1()).status).to.equal(201);
      program.child.kill('SIGINT');
      expect((await program.ended).said).to.match(/is full: all is there to be read/);
    });
    if (!could) this.skip();
  });

  it('of temporary files is told, and nothing of an upload is kept', async function () {
    const was = process.env['TMPDIR'];
    const could = await onDisk(100_000, async (disk) => {
      const folder = aFolder();
      process.env['TMPDIR'] = disk;
      let bench: Bench | undefined;
      try {
        bench = await openBench(folder);
        const { body } = await refused(bench.http.post('/api/pictures').attach('picture', Buffer.alloc(400_000, 7), 'large.jpg'), 507);
        expect((body as { detail: string }).detail).to.match(/no room to lay a file down/);
        await refused(bench.http.get('/api/backup'), 507);
      } finally {
        process.env['TMPDIR'] = was ?? '';
        if (was === undefined) delete process.env['TMPDIR'];
        await bench?.close();
        rmSync(folder, { recursive: true, force: true });
      }
    });
    if (!could) this.skip();
  });
});

describe('the program', () => {
  let folder: string;
  beforeEach(() => (folder = aFolder()));
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('closes the studio however often and however early it is told to stop', async () => {
    // Told at once, while it is read, while it opens: at no moment is what it is told lost.
    for (const early of [0, 700, 800, 900, 1000, 1100]) {
      const program = start(folder);
      if (!early) await program.address;
      else await new Promise((done) => setTimeout(done, early));
      for (let i = 0; i < 3; i++) program.child.kill(i === 1 ? 'SIGTERM' : 'SIGINT');
      const { code, said } = await program.ended;
      // Before the program itself runs, nothing is open that could be left.
      expect(early ? code || 0 : code, said).to.equal(0);
      expect(readdirSync(folder).filter((name) => name !== STUDIO_FILE)).to.deep.equal([]);
    }
  });

  it('leaves no studio behind where the port is taken, and says what is wrong with a folder', async () => {
    const bench = await openBench();
    const taken = new URL(bench.running.address).port;
    const program = start(join(folder, 'studio'), { port: taken });
    expect((await program.ended).said).to.match(/port is taken/);
    expect(existsSync(join(folder, 'studio'))).to.equal(false);
    await bench.close();
    const file = join(folder, 'a file');
    writeFileSync(file, 'x');
    expect((await start(file).ended).said).to.match(/is a file, not a folder/);
    expect((await start(folder, { port: 'many' }).ended).said).to.match(/^PORT must be/);
    expect((await start(folder, { script: scriptOf('restore') }).ended).said).to.match(/^Say which copy/);
  });
});

describe('copies', () => {
  let bench: Bench;
  beforeEach(async () => (bench = await openBench()));
  afterEach(() => bench.close());

  it('are made while changes go on, and are whole', async () => {
    const painting = await aPainting(bench);
    const keeping = (async () => {
      for (let i = 0; i < 30; i++) await aPile(bench, painting.id);
    })();
    const to = join(bench.folder, 'a copy.sqlite');
    const seen = await bench.running.studio.copy(to);
    await keeping;
    expect(seen.paintings).to.equal(1);
    expect(lookAt(to).piles).to.be.within(0, 30);
    expect(existsSync(`${to}-wal`)).to.equal(false);
    const { body } = await bench.http
      .get('/api/backup')
      .expect(200)
      .expect('Content-Disposition', /studio .*\.sqlite/)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });
    writeFileSync(to, body as Buffer);
    expect(lookAt(to).piles).to.equal(30);
  });

  it('put back bring everything back after the original was ruined; what was there is laid aside', async () => {
    const painting = await aPainting(bench);
    await aPile(bench, painting.id);
    const before = (await readPainting(bench, painting.id)).rows.piles;
    const folder = join(bench.folder, 'elsewhere');
    const made = start(bench.folder, { script: scriptOf('backup'), args: [join(folder, 'copy.sqlite')] });
    expect((await made.ended).said).to.match(/1 painting and 1 pile.*found whole/s);
    expect((await start(bench.folder, { script: scriptOf('restore'), args: [join(folder, 'copy.sqlite')] }).ended).said).to.match(
      /open already/,
    );
    await bench.running.stop();
    writeFileSync(fileIn(bench.folder), 'ruined');
    const again = start(bench.folder, { script: scriptOf('restore'), args: [join(folder, 'copy.sqlite')] });
    const { code, said } = await again.ended;
    expect(code, said).to.equal(0);
    expect(said)
      .to.match(/holds 1 painting and 1 pile/)
      .and.to.match(/What was there lies in/);
    expect(readdirSync(bench.folder).filter((name) => name.startsWith('studio laid aside'))).to.have.length(1);
    bench = await openBench(bench.folder);
    expect((await readPainting(bench, painting.id)).rows.piles).to.deep.equal(before);
  });

  it('that are none are not put back, and nothing is changed', async () => {
    await aPalette(bench);
    await bench.running.stop();
    const before = readFileSync(fileIn(bench.folder));
    const bad = join(bench.folder, 'bad.sqlite');
    writeFileSync(bad, before.subarray(0, 4096 * 10));
    expect(() => restore(bench.folder, bad, testClock())).to.throw(/damaged/);
    expect(() => restore(bench.folder, join(bench.folder, 'none'), testClock())).to.throw(/no file/);
    expect(readFileSync(fileIn(bench.folder)).equals(before)).to.equal(true);
    bench = await openBench(bench.folder);
  });

  it('that cannot be made are refused when their folder is set, and told where they fail later', async () => {
    const [settings] = (await read(bench)).rows.settings!;
    const file = join(bench.folder, 'no folder');
    writeFileSync(file, 'x');
    const set = (copiesFolder: string, version: number) => send(bench, [{ do: 'settings.change', version, copiesFolder }]);
    for (const where of [file, join(file, 'below')]) {
      const { body } = await refused(set(where, settings!.version), 422);
      expect(JSON.stringify(body)).to.match(/is a file/);
    }
    const chosen = join(bench.folder, 'other disk', 'copies');
    await set(chosen, settings!.version).expect(201);
    expect(existsSync(chosen), 'it is there at once').to.equal(true);
    rmSync(chosen, { recursive: true });
    writeFileSync(chosen, 'a file by now');
    const copies = async () =>
      (await bench.http.get('/api/copies').expect(200)).body as { trouble: string | null; newestAt: string | null };
    expect((await copies()).trouble).to.match(/There is no folder/);
    await aPainting(bench);
    await failing(() => copyIfDue(bench.running.studio));
    // A disk that is not there: its folder is not made anew on the studio's own disk, nor is another one taken for it.
    rmSync(chosen);
    expect(await copyIfDue(bench.running.studio)).to.equal(false);
    expect(existsSync(chosen)).to.equal(false);
    mkdirSync(chosen);
    expect(await copyIfDue(bench.running.studio)).to.equal(false);
    expect((await copies()).trouble).to.match(/There is no folder/);
    await set(chosen, settings!.version + 1).expect(201);
    expect(await copyIfDue(bench.running.studio)).to.equal(true);
    expect(await copies()).to.include({ trouble: null });
    // A studio that is ruined offers the newest copy of the folder that was chosen.
    await bench.running.stop();
    writeFileSync(fileIn(bench.folder), readFileSync(fileIn(bench.folder)).fill(7, 4096, 60_000));
    expect(await failing(() => opened(bench.folder))).to.contain(join(chosen, 'studio '));
    restore(bench.folder, copiesIn(chosen)[0]!.file, testClock());
    bench = await openBench(bench.folder);
  });

  it('are made once a day where something was done, as many as the painter keeps', async () => {
    const { studio } = bench.running;
    const folder = join(bench.folder, 'my copies');
    expect(await copyIfDue(studio)).to.equal(false);
    await aPalette(bench);
    await change(bench, { do: 'settings.change', version: 1, copiesFolder: 'my copies', copiesKept: 3 });
    const now = testClock();
    const day = (n: number) => later(now, 0, n * 25);
    expect(await copyIfDue(studio, day(0))).to.equal(true);
    expect(await copyIfDue(studio, day(0))).to.equal(false);
    expect(await copyIfDue(studio, day(1)), 'nothing was done since').to.equal(false);
    expect((await bench.http.get('/api/copies').expect(200)).body).to.include({ folder, kept: 3, newestAt: copiesIn(folder)[0]!.at });
    const id = await studio.look(studioIdOf);
    for (let n = 2; n < 7; n++) writeFileSync(join(folder, copyName(day(-n), id)), 'x');
    writeFileSync(join(folder, 'a letter.txt'), 'not ours');
    const anothers = join(folder, copyName(day(-9), randomUUID()));
    writeFileSync(anothers, 'nor this');
    prune(folder, 3, id);
    expect(copiesIn(folder)).to.have.length(4);
    expect(existsSync(join(folder, 'a letter.txt'))).to.equal(true);
    expect(existsSync(anothers)).to.equal(true);
  });

  it('go on being made after a clock was wrong: one from the future counts for nothing', async () => {
    const { studio } = bench.running;
    await aPalette(bench);
    const now = testClock();
    expect(await copyIfDue(studio, later(now, 400))).to.equal(true);
    await aPalette(bench);
    expect(await copyIfDue(studio, now)).to.equal(true);
    const { newestAt } = (await bench.http.get('/api/copies').expect(200)).body as { newestAt: string };
    expect(newestAt <= testClock()).to.equal(true);
    await aPalette(bench);
    expect(await copyIfDue(studio, later(now, 2))).to.equal(true);
  });

  it('go on being made after an older one was put back', async () => {
    await aPalette(bench);
    const now = testClock();
    expect(await copyIfDue(bench.running.studio, now)).to.equal(true);
    const [old] = copiesIn(join(bench.folder, 'copies'));
    for (let i = 0; i < 5; i++) await aPalette(bench);
    expect(await copyIfDue(bench.running.studio, later(now, 2))).to.equal(true);
    await bench.running.stop();
    restore(bench.folder, old!.file, testClock());
    bench = await openBench(bench.folder);
    await aPalette(bench);
    expect(await copyIfDue(bench.running.studio, later(now, 4))).to.equal(true);
  });

  it('of two studios in one folder are told apart, also where their names are of the old form', async () => {
    const shared = aFolder();
    // Laid out by itself: benches begin as one another, with one id.
    const other = await openBench(aFolder());
    for (const one of [bench, other]) {
      await aPalette(one);
      await change(one, { do: 'settings.change', version: 1, copiesFolder: shared, copiesKept: 7 });
    }
    const now = testClock();
    expect(await copyIfDue(bench.running.studio, now)).to.equal(true);
    expect(await copyIfDue(other.running.studio, now), 'the other’s is not taken for its own').to.equal(true);
    expect(copiesIn(shared)).to.have.length(2);
    const newest = async (one: Bench) => ((await one.http.get('/api/copies').expect(200)).body as { newestAt: string | null }).newestAt;
    const id = await bench.running.studio.look(studioIdOf);
    renameSync(join(shared, copyName(now, id)), join(shared, copyName(now)));
    expect(await newest(bench)).to.equal(now);
    for (const { file, of } of copiesIn(shared)) if (of !== undefined) rmSync(file);
    expect(await newest(other), 'what is in the other is not its own').to.equal(null);
    await other.close();
    rmSync(shared, { recursive: true });
  });
});

describe('a program that is killed', () => {
  // The long form is npm run faults.
  it('at random moments, also while it opens, loses nothing that it acknowledged', async () => {
    const row = await killed(6, seeded(41));
    expect(row).to.include({ lost: 0, broken: 0 });
    expect(row.acknowledged, 'what was written before the kills').to.be.above(5);
  }).timeout(120_000);
});
