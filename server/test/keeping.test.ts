import { randomUUID } from 'node:crypto';
import {
  appendFileSync,
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect } from 'chai';
import type { Answer } from '@dusk/wire';
import { copiesIn, copyName, prune } from '../src/keeping/copies.ts';
import { copyIfDue } from '../src/keeping/daily.ts';
import { lookAt } from '../src/keeping/look.ts';
import { restore } from '../src/keeping/restore.ts';
import { openStudio, STUDIO_FILE } from '../src/index.ts';
import { killed } from '../faults/kills.ts';
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
      expect(await failing(() => openStudio(folder))).to.match(says);
      expect(readFileSync(fileIn(folder)).equals(before)).to.equal(true);
      expect(readdirSync(folder)).to.deep.equal([STUDIO_FILE]);
    });

  it('that is damaged is told with the newest good copy', async () => {
    await filled(folder);
    const studio = await openStudio(folder);
    await studio.copy(join(folder, 'copies', copyName()));
    await studio.close();
    appendFileSync(join(folder, 'copies', copyName(new Date(Date.now() + 5000))), 'not a copy');
    const bytes = readFileSync(fileIn(folder));
    writeFileSync(fileIn(folder), bytes.subarray(0, 4096 * 20));
    const said = await failing(() => openStudio(folder));
    expect(said)
      .to.match(/damaged/)
      .and.to.match(/newest good copy is .*1 paintings, 2 piles/);
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
    const other = aFolder();
    await filled(other);
    const anothers = readFileSync(fileIn(other));
    await crashed(folder);
    for (const put of [yesterday, anothers]) {
      writeFileSync(copy, put);
      const now = new Date(Date.now() + 60_000);
      utimesSync(copy, now, now);
      renameSync(copy, fileIn(folder));
      const before = readFileSync(fileIn(folder));
      expect(await failing(() => openStudio(folder))).to.match(/journal|damaged/);
      expect(readFileSync(fileIn(folder)).equals(before)).to.equal(true);
    }
    rmSync(fileIn(folder));
    expect(await failing(() => openStudio(folder))).to.match(/is gone, but its journal/);
    rmSync(other, { recursive: true });
  });

  it('is open once: a second program is turned away, and one that crashed leaves no lock', async () => {
    const studio = await openStudio(folder);
    expect(await failing(() => openStudio(folder))).to.match(/open already/);
    const second = start(folder);
    expect((await second.ended).code).to.equal(1);
    expect((await second.ended).said).to.match(/open already/);
    await studio.close();
    const crashing = start(folder);
    await crashing.address;
    crashing.child.kill('SIGKILL');
    await crashing.ended;
    await (await openStudio(folder)).close();
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

describe('the program', () => {
  let folder: string;
  beforeEach(() => (folder = aFolder()));
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('closes the studio however often and however early it is told to stop', async () => {
    for (const early of [false, true]) {
      const program = start(folder);
      if (!early) await program.address;
      else await new Promise((done) => setTimeout(done, 900));
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
    expect(() => restore(bench.folder, bad)).to.throw(/damaged/);
    expect(() => restore(bench.folder, join(bench.folder, 'none'))).to.throw(/no file/);
    expect(readFileSync(fileIn(bench.folder)).equals(before)).to.equal(true);
    bench = await openBench(bench.folder);
  });

  it('are made once a day where something was done, as many as the painter keeps', async () => {
    const { studio } = bench.running;
    const folder = join(bench.folder, 'my copies');
    expect(await copyIfDue(studio)).to.equal(false);
    await aPalette(bench);
    await change(bench, { do: 'settings.change', version: 1, copiesFolder: 'my copies', copiesKept: 3 });
    const day = (n: number) => new Date(Date.now() + n * 25 * 3600_000);
    expect(await copyIfDue(studio, day(0))).to.equal(true);
    expect(await copyIfDue(studio, day(0))).to.equal(false);
    expect(await copyIfDue(studio, day(1)), 'nothing was done since').to.equal(false);
    expect((await bench.http.get('/api/copies').expect(200)).body).to.include({ folder, kept: 3, newestAt: copiesIn(folder)[0]!.at });
    for (let n = 2; n < 7; n++) writeFileSync(join(folder, copyName(day(-n))), 'x');
    writeFileSync(join(folder, 'a letter.txt'), 'not ours');
    prune(folder, 3);
    expect(copiesIn(folder)).to.have.length(3);
    expect(existsSync(join(folder, 'a letter.txt'))).to.equal(true);
  });
});

describe('a program that is killed', () => {
  // The long form is npm run faults.
  it('at random moments, also while it opens, loses nothing that it acknowledged', async () => {
    const row = await killed(6, Math.random);
    expect(row).to.include({ lost: 0, broken: 0 });
    expect(row.acknowledged).to.be.above(20);
  }).timeout(120_000);
});
