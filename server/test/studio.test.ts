import { expect } from 'chai';
import { CATALOGUE, deltaE00, labOf, mixCurves, reflectance } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { addTube, openStudio } from '../src/index.ts';
import { testClock } from './clock.ts';
import { dataSourceFor } from '../src/studio/openStudio.ts';
import { TubeState } from '../src/entities/index.ts';
import { TRIGGERS } from '../src/migrations/1764000000000-triggers.ts';
import { CARD_TRIGGERS } from '../src/migrations/1764600000000-Cards.ts';
import { FILE_TRIGGERS } from '../src/migrations/1764700000000-CardsFound.ts';
import {
  aPainting,
  aPalette,
  aPile,
  change,
  idOf,
  lightBlue,
  mixed,
  newId,
  openBench,
  read,
  readPainting,
  refused,
  send,
  some,
  undo,
  type Bench,
} from './studio.ts';

/** Hears every query of the mapper's one connection. */
function onQuery(bench: Bench, hear: (sql: string) => void): void {
  const runner = bench.running.studio.data.createQueryRunner();
  const query = runner.query.bind(runner);
  runner.query = (sql: string, ...more: unknown[]) => {
    hear(sql);
    return (query as (...all: unknown[]) => Promise<never>)(sql, ...more);
  };
}

const tint = (parts: Readonly<Record<string, number>>) =>
  labOf(reflectance(mixCurves(Object.entries(parts).map(([id, n]) => ({ paint: CATALOGUE.get(id)!, parts: n })))));

describe('the studio over HTTP', () => {
  let bench: Bench;
  beforeEach(async () => (bench = await openBench()));
  afterEach(() => bench.close());

  it('holds every generic pigment with its curves', () => {
    expect(bench.tubes.size).to.equal(CATALOGUE.size);
    const white = bench.tubes.get('titanium-white')!;
    expect(white.curves.K).to.have.length(36);
    expect(white).to.include({ basis: 'typical', learnt: null });
  });

  it('keeps palettes: made, renamed, tubes exchanged, put away and brought back', async () => {
    const palette = await aPalette(bench);
    expect(palette.tubeIds).to.have.length(4);
    const tubeIds = [...palette.tubeIds.slice(1), idOf(bench, 'ivory-black')];
    const [changed] = (await change(bench, { do: 'palette.change', id: palette.id, version: 1, name: 'By lamp', tubeIds })).palettes!;
    expect(changed).to.include({ name: 'By lamp', version: 2 });
    expect(changed!.tubeIds).to.deep.equal(tubeIds);
    const [away] = (await change(bench, { do: 'palette.delete', id: palette.id, version: 2 })).palettes!;
    expect(away!.deletedAt).to.be.a('string');
    expect((await read(bench)).rows.palettes).to.deep.equal([]);
    await change(bench, { do: 'palette.restore', id: palette.id, version: 3 });
    expect((await read(bench)).rows.palettes).to.have.length(1);
  });

  it('does not put away a palette that a painting needs, nor bring a painting back to one that is gone', async () => {
    const painting = await aPainting(bench);
    await refused(send(bench, [{ do: 'palette.delete', id: painting.paletteId, version: 1 }]), 409);
    await change(
      bench,
      { do: 'painting.delete', id: painting.id, version: 1 },
      { do: 'palette.delete', id: painting.paletteId, version: 1 },
    );
    const { body } = await refused(send(bench, [{ do: 'painting.restore', id: painting.id, version: 2 }]), 409);
    expect((body as { detail: string }).detail).to.match(/Bring the palette back first/);
  });

  it('tells an unknown palette as that, and another failure as that', async () => {
    const { body } = await refused(send(bench, [{ do: 'painting.add', id: newId(), title: 'x', paletteId: newId() }]), 422);
    expect((body as { title: string }).title).to.equal('Unknown palette');
    const { id } = await aPalette(bench);
    onQuery(bench, (sql) => {
      if (/FROM "palette" "Palette"/.test(sql)) throw new Error('the file is torn');
    });
    const torn = await refused(send(bench, [{ do: 'painting.add', id: newId(), title: 'x', paletteId: id }]), 500);
    expect((torn.body as { title: string }).title).to.equal('Something broke');
    await change(bench, { do: 'painting.add', id: newId(), title: 'x', paletteId: id });
  });

  it('keeps a pile with what was predicted and what that rested on, over a restart', async () => {
    const painting = await aPainting(bench);
    const pile = await aPile(bench, painting.id);
    const { lab } = pile.predicted;
    expect(deltaE00(tint({ 'titanium-white': 9, 'ultramarine-blue': 1 }), [lab.L, lab.a, lab.b])).to.be.below(1e-6);
    const [ingredient] = pile.plan.heaps[0]!.ingredients as unknown as { state: string }[];
    expect(ingredient!.state).to.equal(bench.tubes.get('titanium-white')!.stateId);
    bench = await bench.restart();
    expect((await readPainting(bench, painting.id)).rows.piles).to.deep.equal([pile]);
    expect((await read(bench)).rows.paintings![0]!.pileCount).to.equal(1);
  });

  it('opens let-downs in what it predicts', async () => {
    const painting = await aPainting(bench);
    const [white, blue] = [idOf(bench, 'titanium-white'), idOf(bench, 'ultramarine-blue')];
    const plan = {
      form: 1,
      heaps: [
        {
          ingredients: [
            { tube: white, parts: 9 },
            { tube: blue, parts: 1 },
          ],
        },
        {
          ingredients: [
            { tube: white, parts: 3 },
            { heap: 0, parts: 1 },
          ],
        },
      ],
    };
    const [pile] = (await change(bench, { ...lightBlue(bench, painting.id), plan })).piles!;
    const { lab } = pile!.predicted;
    expect(deltaE00(tint({ 'titanium-white': 39, 'ultramarine-blue': 1 }), [lab.L, lab.a, lab.b])).to.be.below(1e-6);
    expect(pile!.plan.heaps).to.have.length(2);
  });

  it('renames a pile, gives it another plan, puts it away and brings it back', async () => {
    const painting = await aPainting(bench);
    const { id } = await aPile(bench, painting.id);
    const [renamed] = (await change(bench, { do: 'pile.change', id, version: 1, name: 'shadow on the wall', ml: 8 })).piles!;
    expect(renamed).to.include({ name: 'shadow on the wall', ml: 8, version: 2 });
    const plan = { form: 1, heaps: [{ ingredients: [{ tube: idOf(bench, 'ultramarine-blue'), parts: 1 }] }] };
    const [other] = (await change(bench, { do: 'pile.change', id, version: 2, plan, target: null })).piles!;
    expect(other!.predicted.lab.L).to.be.below(30);
    expect(other!.target).to.equal(null);
    await change(bench, { do: 'pile.delete', id, version: 3 });
    expect((await readPainting(bench, painting.id)).rows.piles).to.deep.equal([]);
    await refused(send(bench, [{ do: 'pile.change', id, version: 4, name: 'x' }]), 404);
    expect((await change(bench, { do: 'pile.restore', id, version: 4 })).piles![0]!.name).to.equal('shadow on the wall');
  });

  it('does all of a change or nothing', async () => {
    const painting = await aPainting(bench);
    const before = JSON.stringify([await read(bench), await readPainting(bench, painting.id)]);
    await refused(send(bench, [lightBlue(bench, painting.id), { do: 'painting.change', id: painting.id, version: 7, title: 'x' }]), 409);
    expect(JSON.stringify([await read(bench), await readPainting(bench, painting.id)])).to.equal(before);
  });

  it('answers a stale write with both versions and changes nothing', async () => {
    const painting = await aPainting(bench);
    await change(bench, { do: 'painting.change', id: painting.id, version: 1, title: 'One' });
    const { body } = await refused(send(bench, [{ do: 'painting.change', id: painting.id, version: 1, title: 'Two' }]), 409);
    expect(body).to.deep.include({ sentVersion: 1 });
    expect((body as { current: object }).current).to.include({ title: 'One', version: 2 });
    expect((await read(bench)).rows.paintings![0]!.title).to.equal('One');
  });

  it('keeps changes that come at the same moment apart', async () => {
    const palette = await aPalette(bench);
    const answers = await Promise.all(
      Array.from({ length: 12 }, (_, i) => send(bench, [{ do: 'palette.change', id: palette.id, version: 1, name: `name ${i}` }])),
    );
    expect(answers.filter((a) => a.status === 201)).to.have.length(1);
    expect(answers.filter((a) => a.status === 409)).to.have.length(11);
  });

  it('keeps settings', async () => {
    const [settings] = (await read(bench)).rows.settings!;
    await change(bench, { do: 'settings.change', version: settings!.version, valueScale: 'nine-steps', surround: 'N7' });
    bench = await bench.restart();
    expect((await read(bench)).rows.settings![0]).to.include({ valueScale: 'nine-steps', surround: 'N7', room: settings!.room });
  });

  it('reads lists in a fixed number of queries, whatever their length', async () => {
    const painting = await aPainting(bench);
    let count = 0;
    onQuery(bench, () => count++);
    const queries = async (path: string): Promise<number> => {
      count = 0;
      await bench.http.get(path).expect(200);
      return count;
    };
    const many = async (n: number) => {
      for (let i = 0; i < n; i++) {
        const pileId = newId();
        await change(
          bench,
          lightBlue(bench, painting.id, pileId),
          mixed(bench, pileId, { 'titanium-white': 3, 'ultramarine-blue': 0.3 }),
          { do: 'palette.add', id: newId(), name: 'x', tubeIds: [idOf(bench, 'viridian')] },
          { do: 'painting.add', id: newId(), title: 'x', paletteId: painting.paletteId },
        );
      }
    };
    await many(2);
    const before = [await queries('/api/studio'), await queries(`/api/paintings/${painting.id}`)];
    await many(12);
    expect([await queries('/api/studio'), await queries(`/api/paintings/${painting.id}`)]).to.deep.equal(before);
    expect(before.every((n) => n > 0)).to.equal(true);
  });

  it('answers a window that asks for the same again as it answered before, until something was changed', async () => {
    const painting = await aPainting(bench);
    const all = async () => [(await bench.http.get('/api/studio')).text, (await bench.http.get(`/api/paintings/${painting.id}`)).text];
    const first = await all();
    let count = 0;
    onQuery(bench, () => count++);
    expect(await all()).to.deep.equal(first);
    expect(count, 'queries of two reads').to.be.at.most(4);
    const { id, version } = painting;
    const op = { do: 'painting.change', id, version, title: 'Another' } as const;
    const made = newId();
    await send(bench, [op], made).expect(201);
    const titleNow = async () => (await read(bench)).rows.paintings!.find((one) => one.id === id)!.title;
    expect(await titleNow()).to.equal('Another');
    await undo(bench, made).expect(201);
    expect(await titleNow()).to.equal(painting.title);
    await bench.http.get(`/api/paintings/${newId()}`).expect(404);
  });
});

describe('what was done with a pile', () => {
  let bench: Bench;
  let paintingId: string;
  before(async () => {
    bench = await openBench();
    paintingId = (await aPainting(bench)).id;
  });
  after(() => bench.close());
  const pile = async (id: string): Promise<PileDto> => (await readPainting(bench, paintingId)).rows.piles!.find((p) => p.id === id)!;
  const anew = async (): Promise<string> => (await aPile(bench, paintingId)).id;
  const white = () => bench.tubes.get('titanium-white')!;
  const stage = (
    pileId: string,
    kind: 'added' | 'changed' | 'left' | 'scraped',
    more: { additions?: ReturnType<typeof some>[]; left?: number } = {},
  ) => ({
    do: 'stage.add' as const,
    id: newId(),
    pileId,
    kind,
    additions: [],
    ...more,
  });

  it('is kept as stages, and how much there is follows from them', async () => {
    const id = await anew();
    expect((await pile(id)).there).to.equal(0);
    await change(bench, mixed(bench, id, { 'titanium-white': 3.6, 'ultramarine-blue': 0.4 }));
    await change(bench, stage(id, 'added', { additions: [some(white(), 1)] }));
    expect((await pile(id)).there).to.be.closeTo(5, 1e-9);
    await change(bench, stage(id, 'left', { left: 2 }));
    await change(bench, stage(id, 'changed'));
    const now = await pile(id);
    expect(now.there).to.equal(2);
    expect(now.stages.map((s) => s.kind)).to.deep.equal(['mixed', 'added', 'left', 'changed']);
    const first = now.stages[0]!.predicted!;
    expect(deltaE00([first.L, first.a, first.b], tint({ 'titanium-white': 3.6, 'ultramarine-blue': 0.4 }))).to.be.below(1e-6);
    expect(now.stages[3]!.predicted).to.equal(null);
    await change(bench, stage(id, 'scraped'));
    expect((await pile(id)).there).to.equal(0);
    await change(bench, mixed(bench, id, { 'titanium-white': 1 }));
    expect((await pile(id)).there).to.equal(1);
  });

  it('takes from other piles, which then hold less, and opens to their tubes', async () => {
    const [mother, child] = [await anew(), await anew()];
    const motherStage = newId();
    await change(bench, mixed(bench, mother, { 'titanium-white': 3, 'cadmium-red': 3 }, motherStage));
    const added = { id: newId(), stageId: motherStage, ml: 2, low: 2, high: 2 };
    const rows = await change(bench, { do: 'stage.add', id: newId(), pileId: child, kind: 'mixed', additions: [added, some(white(), 2)] });
    expect(new Set(rows.piles!.map((p) => p.id))).to.deep.equal(new Set([mother, child]));
    expect((await pile(mother)).there).to.equal(4);
    const lab = (await pile(child)).stages[0]!.predicted!;
    expect(deltaE00([lab.L, lab.a, lab.b], tint({ 'titanium-white': 3, 'cadmium-red': 1 }))).to.be.below(1e-6);
    const { body } = await refused(send(bench, [{ do: 'stage.withdraw', id: motherStage }]), 409);
    expect((body as { detail: string }).detail).to.match(/was mixed from this pile/);
  });

  it('is undone step by step, newest first, and stays in the record', async () => {
    const id = await anew();
    const [one, two] = [newId(), newId()];
    await send(bench, [mixed(bench, id, { 'titanium-white': 2 })], one).expect(201);
    await send(bench, [stage(id, 'added', { additions: [some(white(), 1)] })], two).expect(201);
    const first = (await pile(id)).stages[0]!.id;
    await refused(send(bench, [{ do: 'stage.withdraw', id: first }]), 409);
    await undo(bench, two).expect(201);
    expect((await pile(id)).there).to.equal(2);
    await undo(bench, one).expect(201);
    expect(await pile(id)).to.include({ there: 0 });
    const kept = await bench.running.studio.look((db) =>
      db.query('SELECT COUNT(*) AS n FROM stage WHERE pileId = ? AND withdrawnAt IS NOT NULL', [id]),
    );
    expect(kept).to.deep.equal([{ n: 2 }]);
    await refused(undo(bench, one), 409);
  });

  it('is refused out of order, in a sentence', async () => {
    const id = await anew();
    await refused(send(bench, [stage(id, 'added', { additions: [some(white(), 1)] })]), 409);
    await change(bench, mixed(bench, id, { 'titanium-white': 2 }));
    for (const [op, status] of [
      [mixed(bench, id, { 'titanium-white': 2 }), 409],
      [stage(id, 'added'), 422],
      [stage(id, 'left'), 422],
      [stage(id, 'changed', { additions: [some(white(), 1)] }), 422],
      [stage(id, 'added', { additions: [{ ...some(white(), 1), low: 2 }] }), 422],
      [stage(id, 'added', { additions: [{ ...some(white(), 1), stateId: bench.tubes.get('viridian')!.stateId }] }), 422],
      [stage(newId(), 'changed'), 404],
    ] as const)
      await refused(send(bench, [op]), status);
    const own = (await pile(id)).stages[0]!.id;
    const itself = { id: newId(), stageId: own, ml: 1, low: 1, high: 1 };
    await refused(send(bench, [{ do: 'stage.add', id: newId(), pileId: id, kind: 'added', additions: [itself] }]), 422);
  });

  it('cannot be changed in the file either', async () => {
    const id = await anew();
    await change(bench, mixed(bench, id, { 'titanium-white': 2 }));
    const { studio } = bench.running;
    const run = (sql: string) =>
      studio
        .look((db) => db.query(sql, []))
        .then(
          () => 'done',
          (cause: Error) => cause.message,
        );
    expect(await run(`UPDATE "stage" SET "left" = 9`)).to.match(/never changed/);
    expect(await run(`UPDATE "addition" SET "ml" = 9`)).to.match(/never changed/);
    expect(await run(`UPDATE "tube_state" SET "K" = '[]'`)).to.match(/never changed/);
    expect(await run(`UPDATE "tube_state" SET "doubt" = '[]'`)).to.match(/never changed/);
    expect(await run(`UPDATE "change" SET "device" = ''`)).to.match(/never changed/);
    expect(await run(`DELETE FROM "stage"`)).to.match(/never deleted/);
    expect(await run(`UPDATE "pile" SET "version" = "version" + 2`)).to.match(/goes up by one/);
    expect(
      await run(
        `INSERT INTO "tube_state" SELECT 'x', "tubeId", 'learnt', "source", "K", "S", "createdAt", NULL, NULL, NULL, NULL FROM "tube_state" LIMIT 1`,
      ),
    ).to.match(/learnt state/);
  });
});

/** Cards, sets and files of cards, and tubes, have one each for their versions; what came with areas has more. */
const VERSIONED_SINCE = 4;
const WITH_AREAS = 9;
/** What swatches told is never changed. */
const OF_SWATCHES = 2;

describe('the studio file', () => {
  it('has the schema its entities describe, and every trigger, after migrations alone', async () => {
    const bench = await openBench();
    const { folder, running } = bench;
    await running.stop();
    const data = dataSourceFor(`${folder}/studio.sqlite`);
    await data.initialize();
    const { upQueries } = await data.driver.createSchemaBuilder().log();
    expect(upQueries.map((q) => q.query)).to.deep.equal([]);
    const triggers = (await data.query(`SELECT name FROM sqlite_master WHERE type = 'trigger'`)) as { name: string }[];
    expect(triggers).to.have.length(
      TRIGGERS.length + CARD_TRIGGERS.length + FILE_TRIGGERS.length + VERSIONED_SINCE + WITH_AREAS + OF_SWATCHES,
    );
    await data.destroy();
  });

  it('is in WAL mode with foreign keys on', async () => {
    const bench = await openBench();
    const db = bench.running.studio.data.manager;
    expect(await db.query('PRAGMA journal_mode')).to.deep.equal([{ journal_mode: 'wal' }]);
    expect(await db.query('PRAGMA foreign_keys')).to.deep.equal([{ foreign_keys: 1 }]);
    await bench.close();
  });

  it('keeps older states of a tube when the catalogue moves on, and reckons with the newest', async () => {
    const bench = await openBench();
    const { studio } = bench.running;
    const tubeId = await studio.change((db) => addTube(db, CATALOGUE.get('viridian')!, 'Viridian', 'Someone', 5, testClock()));
    await studio.look(async (db) => {
      await db.query('DROP TRIGGER "tr_tube_state_fixed"');
      await db.update(TubeState, { tubeId }, { source: 'catalogue of old' });
    });
    await bench.running.stop();
    const again = await openStudio(bench.folder, testClock);
    const states = await again.look((db) => db.find(TubeState, { where: { tubeId }, order: { createdAt: 'ASC' } }));
    expect(states.map((s) => s.source)).to.deep.equal(['catalogue of old', 'catalogue typical-1']);
    expect(await again.look((db) => db.query('SELECT stateId FROM tube WHERE id = ?', [tubeId]))).to.deep.equal([
      { stateId: states[1]!.id },
    ]);
    await again.close();
  });
});
