import { copyFileSync, existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect } from 'chai';
import { change, mixed, newId, openBench, read, readPainting, some, type Bench } from './studio.ts';

const FIXTURE = new URL('./fixtures/first-light.sqlite', import.meta.url);
/** What the release that made the file answered of it. */
const THEN = JSON.parse(readFileSync(new URL('./fixtures/first-light-piles.json', import.meta.url), 'utf8')) as {
  paintings: { id: string; title: string; ground: string; references: { id: string; pictureId: string }[] }[];
  palettes: { id: string; name: string; tubeIds: string[] }[];
  settings: { valueScale: string; surround: string; version: number };
  piles: Record<string, OldPile[]>;
};

const LAST = new URL('./fixtures/many-rooms.sqlite', import.meta.url);
/** What the last release answered of that file, by path. */
const SAID = JSON.parse(readFileSync(new URL('./fixtures/many-rooms-reads.json', import.meta.url), 'utf8')) as Record<string, unknown>;

interface OldPile {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly amountMl: number;
  readonly target: object | null;
  readonly sampled: { referenceId: string; x: number; y: number; radius: number } | null;
  readonly measures: readonly {
    parts: number;
    tubeId?: string;
    stateId?: string;
    letdown?: readonly { tubeId: string; stateId: string; parts: number }[];
  }[];
  readonly predicted: { L: number; a: number; b: number };
  readonly steadiness: number;
  readonly basis: string;
  readonly createdAt: string;
}

describe('a studio of the release before', () => {
  let bench: Bench;
  let folder: string;
  before(async () => {
    folder = mkdtempSync(join(tmpdir(), 'dusk-before-'));
    copyFileSync(FIXTURE, join(folder, 'studio.sqlite'));
    bench = await openBench(folder);
  });
  after(() => bench.close());

  it('opens with its paintings, palettes, references and settings as they were', async () => {
    const { rows } = await read(bench);
    expect(rows.paintings!.map(({ id, title, ground }) => ({ id, title, ground }))).to.deep.equal(
      THEN.paintings.map(({ id, title, ground }) => ({ id, title, ground })),
    );
    expect(rows.palettes!.map(({ id, name, tubeIds }) => ({ id, name, tubeIds }))).to.deep.equal(
      THEN.palettes.map(({ id, name, tubeIds }) => ({ id, name, tubeIds })),
    );
    expect(rows.references!.map((r) => r.id)).to.deep.equal(THEN.paintings.flatMap((p) => p.references.map((r) => r.id)));
    expect(rows.settings![0]).to.include({
      valueScale: THEN.settings.valueScale,
      surround: THEN.settings.surround,
      version: THEN.settings.version,
    });
    const [reference] = rows.references!;
    await bench.http.get(`/api/pictures/${reference!.pictureId}`).expect(200).expect('Content-Type', /png/);
    expect(rows.tubes!.every((t) => t.stateId && t.curves.K.length === 36)).to.equal(true);
  });

  it('opens with every pile as it was: name, target, recipe with its states, prediction, place in the picture', async () => {
    for (const painting of THEN.paintings) {
      const { rows } = await readPainting(bench, painting.id);
      const old = THEN.piles[painting.title]!;
      expect(rows.piles!.map((p) => p.id)).to.have.members(old.map((p) => p.id));
      for (const was of old) {
        const is = rows.piles!.find((p) => p.id === was.id)!;
        expect(is).to.include({
          name: was.name,
          ml: was.amountMl,
          version: was.version,
          createdAt: was.createdAt,
          there: 0,
          remakeOfId: null,
        });
        expect(is.target?.lab ?? null).to.deep.equal(was.target);
        expect(is.predicted).to.deep.equal({ lab: was.predicted, steadiness: was.steadiness, basis: was.basis });
        expect(is.stages).to.deep.equal([]);
        const letdowns = was.measures.filter((m) => m.letdown);
        expect(is.plan.heaps).to.have.length(letdowns.length + 1);
        const ingredient = ({ parts, tubeId, stateId }: { parts: number; tubeId?: string; stateId?: string }) => ({
          tube: tubeId,
          state: stateId,
          parts,
        });
        letdowns.forEach((m, i) => expect(is.plan.heaps[i]!.ingredients).to.deep.equal(m.letdown!.map(ingredient)));
        let heap = 0;
        const last = was.measures.map((m) => (m.letdown ? { heap: heap++, parts: m.parts } : ingredient(m)));
        expect(is.plan.heaps.at(-1)!.ingredients).to.deep.equal(last);
        const sample = rows.samples!.find((s) => s.id === is.sampleId);
        expect(Boolean(sample)).to.equal(was.sampled !== null);
        if (was.sampled && sample) {
          const { referenceId, ...outline } = was.sampled;
          expect(sample).to.deep.include({ referenceId, outline, seen: was.target });
        }
      }
    }
  });

  it('keeps what was put away', async () => {
    const away = await bench.running.studio.look((db) => db.query('SELECT name FROM pile WHERE deletedAt IS NOT NULL'));
    expect(away).to.deep.equal([{ name: 'scraped' }]);
    const inAway = await bench.running.studio.look((db) =>
      db.query('SELECT COUNT(*) AS n FROM pile JOIN painting ON painting.id = pile.paintingId WHERE painting.deletedAt IS NOT NULL'),
    );
    expect(inAway).to.deep.equal([{ n: 1 }]);
  });

  it('was laid beside before, whole', () => {
    const copy = join(folder, 'studio before PilesThatRemember.sqlite');
    expect(existsSync(copy)).to.equal(true);
    const opened = new Database(copy, { readonly: true });
    expect(opened.prepare('SELECT COUNT(*) AS n FROM pile_measure').get()).to.deep.equal({ n: 19 });
    opened.close();
  });

  it('goes on: its piles are mixed like any', async () => {
    const [painting] = THEN.paintings;
    const [pile] = THEN.piles[painting!.title]!;
    const rows = await change(bench, mixed(bench, pile!.id, { 'titanium-white': 3, 'yellow-ochre': 1 }));
    expect(rows.piles![0]!.there).to.equal(4);
    bench = await bench.restart();
    expect((await readPainting(bench, painting!.id)).rows.piles!.find((p) => p.id === pile!.id)!.there).to.equal(4);
  });
});

describe('a studio of the last release', () => {
  let bench: Bench;
  let folder: string;
  before(async () => {
    folder = mkdtempSync(join(tmpdir(), 'dusk-last-'));
    copyFileSync(LAST, join(folder, 'studio.sqlite'));
    bench = await openBench(folder);
  });
  after(() => bench.close());

  it('opens with every row of every table as it was, in every column it had', () => {
    const [then, now] = [new Database(LAST.pathname, { readonly: true }), new Database(join(folder, 'studio.sqlite'), { readonly: true })];
    const tables = then.prepare(`SELECT "name" FROM "sqlite_master" WHERE "type" = 'table' AND "name" NOT LIKE 'sqlite%'`).all() as {
      name: string;
    }[];
    expect(tables.length).to.be.above(20);
    for (const { name } of tables) {
      const rows = then.prepare(`SELECT * FROM "${name}" ORDER BY 1, 2`).all() as object[];
      expect(rows.length, `${name} has rows`).to.be.above(0);
      const columns = Object.keys(rows[0]!).map((column) => `"${column}"`);
      const kept = now.prepare(`SELECT ${columns.join(', ')} FROM "${name}" ORDER BY 1, 2`).all();
      // Migrations are added to, and so is what was folded.
      if (name === 'migration') expect(kept.slice(0, rows.length)).to.deep.equal(rows);
      else expect(kept, name).to.deep.equal(rows);
    }
    then.close();
    now.close();
  });

  const RECKONED = /\/beliefs\.(mean|covariance)\./;
  it('answers all that it answered', async () => {
    /** Where an answer lacks something it had, or says it otherwise. */
    const lacking = (is: unknown, was: unknown, at: string): string[] => {
      // What is reckoned of the tubes may be told more truly; what is recorded may not change.
      if (RECKONED.test(at) && typeof was === 'number') return Number.isFinite(is) ? [] : [at];
      if (was === null || typeof was !== 'object') return is === was ? [] : [at];
      return Object.entries(was).flatMap(([key, value]) => lacking((is as Record<string, unknown> | null)?.[key], value, `${at}.${key}`));
    };
    for (const [path, was] of Object.entries(SAID)) {
      const { body } = await bench.http.get(path).expect(200);
      expect(lacking(body, was, path)).to.deep.equal([]);
    }
  });

  it('goes on: a pile is added to, and a tube of several pigments joins', async () => {
    const { rows } = await read(bench);
    const { rows: painted } = await readPainting(bench, rows.paintings![0]!.id);
    const pile = painted.piles!.find(({ stages }) => stages.length > 0)!;
    await change(bench, {
      do: 'stage.add',
      id: newId(),
      pileId: pile.id,
      kind: 'added',
      additions: [some(bench.tubes.get('viridian')!, 0.1)],
    });
    await change(bench, { do: 'tube.add', id: newId(), name: 'Deep green', pigments: ['viridian', 'yellow-ochre'] });
    expect((await readPainting(bench, rows.paintings![0]!.id)).rows.sittings).to.have.length(1);
  });
});
