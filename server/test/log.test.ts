import { expect } from 'chai';
import type { Answer, LogDto, Operation, Problem } from '@dusk/wire';
import { aPainting, aPile, change, idOf, mixed, newId, openBench, readPainting, refused, send, undo, type Bench } from './studio.ts';

describe('the log', () => {
  let bench: Bench;
  let paintingId: string;
  let today = '2026-11-30T18:00:00.000Z';
  beforeEach(async () => {
    today = '2026-11-30T18:00:00.000Z';
    bench = await openBench(undefined, () => today);
    paintingId = (await aPainting(bench)).id;
  });
  afterEach(() => bench.close());
  const log = async (): Promise<LogDto> => (await bench.http.get('/api/log').expect(200)).body as LogDto;
  const detail = async (ops: readonly Operation[], status: number): Promise<string> =>
    ((await refused(send(bench, ops), status)).body as Problem).detail;
  const anArea = async (name: string): Promise<string> =>
    (await change(bench, { do: 'area.add', id: newId(), paintingId, name })).areas![0]!.id;
  const laid = (areaId: string, stageIds: readonly string[], id = newId(), more: object = {}): Operation => ({
    do: 'deed.add',
    id,
    areaId,
    kind: 'laid',
    laid: { how: 'thin', ...more },
    additions: stageIds.map((stageId) => ({ id: newId(), stageId, ml: 0.5, low: 0.2, high: 1 })),
  });

  it('opens what was laid to tubes, piles of piles too, and each layer is a thing of its own', async () => {
    const [mother, child, stage, then] = [await aPile(bench, paintingId), await aPile(bench, paintingId), newId(), newId()];
    await change(bench, mixed(bench, mother.id, { 'titanium-white': 3, 'ultramarine-blue': 1 }, stage));
    const grown = mixed(bench, child.id, { 'yellow-ochre': 1 }, then);
    await change(bench, {
      ...grown,
      additions: [...grown.additions, { id: newId(), stageId: stage, ml: 1, low: 1, high: 1 }],
    } as Operation);
    const area = await anArea('sky');
    const [first, second] = [newId(), newId()];
    await change(bench, laid(area, [stage], first));
    await change(bench, laid(area, [then], second, { with: 'oil', against: 'tacky below' }));
    const { laid: told, rows } = await log();
    const partsOf = (deed: string) =>
      Object.fromEntries(told.find(({ deedId }) => deedId === deed)!.parts.map(({ tubeId, share }) => [tubeId, share]));
    const [white, blue, ochre] = ['titanium-white', 'ultramarine-blue', 'yellow-ochre'].map((one) => idOf(bench, one)) as [
      string,
      string,
      string,
    ];
    expect(partsOf(first)[white]).to.be.closeTo(0.75, 1e-9);
    expect(partsOf(first)[blue]).to.be.closeTo(0.25, 1e-9);
    expect(partsOf(second)[white]).to.be.closeTo(0.375, 1e-9);
    expect(partsOf(second)[ochre]).to.be.closeTo(0.5, 1e-9);
    expect(rows.areas!.map(({ deeds }) => deeds.map(({ laid: how }) => how!.against ?? ''))).to.deep.equal([['', 'tacky below']]);
  });

  it('what a wrong clock says is done now, and the clock is told; the log keeps what was sent', async () => {
    const pile = await aPile(bench, paintingId);
    const sent = {
      id: newId(),
      device: newId(),
      ops: [{ ...mixed(bench, pile.id, { 'titanium-white': 3 }), at: '2029-12-03T18:00:00.000Z' }],
    };
    const first = (await bench.http.post('/api/changes').send(sent).expect(201)).body as Answer;
    expect(first.ahead! / 86_400_000).to.equal(1099);
    expect(first.rows.piles![0]!.stages[0]!.at).to.equal(today);
    // Sent again, it is known, and told again.
    const again = (await bench.http.post('/api/changes').send(sent).expect(200)).body as Answer;
    expect([again.seq, again.ahead]).to.deep.equal([first.seq, first.ahead]);
    // Another zone's tomorrow is no wrong clock.
    const tomorrow = '2026-12-01T17:00:00.000Z';
    const other = await aPile(bench, paintingId);
    const soon = { id: newId(), device: newId(), ops: [{ ...mixed(bench, other.id, { 'titanium-white': 3 }), at: tomorrow }] };
    const told = (await bench.http.post('/api/changes').send(soon).expect(201)).body as Answer;
    expect([told.ahead, told.rows.piles![0]!.stages[0]!.at]).to.deep.equal([undefined, tomorrow]);
    const opened = await change(bench, { do: 'sitting.add', id: newId(), openedAt: '2099-01-01T00:00:00Z' } as Operation);
    expect(opened.sittings![0]!.openedAt).to.equal(today);
  });

  it('is written by what is done anyway: sittings of a day, told by their piles, areas and hours', async () => {
    const [one, two] = [await aPile(bench, paintingId), await aPile(bench, paintingId)];
    const stage = newId();
    await change(bench, mixed(bench, one.id, { 'titanium-white': 3 }, stage));
    today = '2026-11-30T19:30:00.000Z';
    await change(bench, mixed(bench, two.id, { 'titanium-white': 2 }));
    const area = await anArea('bowl');
    await change(bench, laid(area, [stage]));
    today = '2026-12-03T09:00:00.000Z';
    await change(bench, { do: 'deed.add', id: newId(), areaId: area, kind: 'touched', touch: 'tacky', additions: [] });
    const { sittings, rows } = await log();
    expect(sittings.map(({ piles, areas }) => [piles.length, areas.map(({ kind, name }) => `${kind} ${name}`)])).to.deep.equal([
      [0, ['touched bowl']],
      [2, ['laid bowl']],
    ]);
    const [newest, first] = rows.sittings!.slice().sort((a, b) => b.openedAt.localeCompare(a.openedAt));
    expect(newest!.openedAt).to.equal('2026-12-03T09:00:00.000Z');
    expect(first!.openedAt).to.equal('2026-11-30T18:00:00.000Z');
    expect(sittings[1]!.lastAt).to.equal('2026-11-30T19:30:00.000Z');
    expect(sittings[1]!.piles[0]!.lab!.L).to.be.above(80);
  });

  it('survives a restart, and a clock that is set back writes into the sitting of its hour', async () => {
    const pile = await aPile(bench, paintingId);
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3 }));
    bench = await bench.restart();
    today = '2026-11-29T10:00:00.000Z';
    const other = await aPile(bench, paintingId);
    await change(bench, mixed(bench, other.id, { 'titanium-white': 3 }));
    const { sittings } = await log();
    expect(sittings).to.have.length(2);
    expect(sittings.every(({ piles }) => piles.length === 1)).to.equal(true);
  });

  it('comes by pages, newest first, each sitting once', async () => {
    for (let day = 0; day < 70; day++) {
      today = new Date(Date.parse('2026-01-01T10:00:00Z') + day * 86_400_000).toISOString();
      await change(bench, { do: 'sitting.add', id: newId() });
    }
    const first = await log();
    const pages = [first.sittings];
    for (let next = first.next; next !== undefined;) {
      const { body } = await bench.http.get(`/api/sittings-before/${next}`).expect(200);
      pages.push((body as LogDto).sittings);
      next = (body as LogDto).next;
    }
    const ids = pages.flat().map(({ id }) => id);
    expect(ids).to.have.length(70);
    expect(new Set(ids).size).to.equal(70);
    expect(pages.map((page) => page.length)).to.deep.equal([30, 30, 10]);
    await refused(bench.http.get(`/api/sittings-before/${newId()}`), 404);
  });

  it('leaves out what was put away, and what was undone', async () => {
    const pile = await aPile(bench, paintingId);
    const stage = newId();
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3 }, stage));
    const [kept, away] = [await anArea('sky'), await anArea('field')];
    const changeId = newId();
    await change(bench, laid(kept, [stage]));
    await send(bench, [laid(away, [stage])], changeId).expect(201);
    expect((await log()).laid).to.have.length(2);
    await undo(bench, changeId).expect(201);
    expect((await log()).laid).to.have.length(1);
    await change(bench, { do: 'area.delete', id: kept, version: 1 });
    expect((await log()).laid).to.have.length(0);
    expect((await log()).rows.areas!.map(({ name }) => name)).to.deep.equal(['field']);
  });

  it('takes paint off again only where some was laid, and knows a painting as a thing that has to be ready', async () => {
    const area = await anArea('sky');
    const deed = (kind: string, more: object = {}) =>
      ({ do: 'deed.add', id: newId(), areaId: area, kind, additions: [], ...more }) as Operation;
    for (const kind of ['wiped back', 'lifted', 'scraped back']) expect(await detail([deed(kind)], 409)).to.include(kind);
    expect(await detail([deed('touched', { touch: 'dry' })], 409)).to.match(/touched/);
    const pile = await aPile(bench, paintingId);
    const stage = newId();
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3 }, stage), laid(area, [stage]), deed('lifted'), deed('scraped back'));
    const about = (of: object, version = 1) => ({ do: 'painting.change', id: paintingId, version, about: of }) as Operation;
    const all = {
      support: 'panel',
      priming: 'acrylic, two layers',
      dueOn: '2026-12-24',
      varnish: 'breathing',
      toCome: 2,
      seenTo: ['edges'],
      finishedAt: today,
    };
    await change(bench, about(all));
    const { paintings } = (await bench.http.get('/api/studio')).body.rows;
    expect(paintings[0].about).to.deep.equal(all);
    for (const [of, says] of [
      [{ dueOn: '24.12.2026' }, /day looks like/],
      [{ varnish: 'soon' }, /varnish/i],
      [{ toCome: -1 }, /to come/],
      [{ seenTo: ['a', 'a'] }, /once/],
      [{ support: 'x'.repeat(81) }, /80 letters/],
    ] as const)
      expect(await detail([about(of, 2)], 422)).to.match(says);
    expect(await detail([about({ followsId: paintingId }, 2)], 422)).to.match(/itself/);
    expect(await detail([about({ followsId: newId() }, 2)], 422)).to.match(/not in this studio/);
    expect((await readPainting(bench, paintingId)).rows.areas![0]!.deeds.map(({ kind }) => kind)).to.deep.equal([
      'laid',
      'lifted',
      'scraped back',
    ]);
    expect(await detail([{ do: 'settings.change', version: 1, temperatureC: 90 }], 422)).to.match(/room/i);
    await change(bench, { do: 'settings.change', version: 1, temperatureC: 17, finishing: ['Squint', 'Edges'] });
  });
});
