import { expect } from 'chai';
import http from 'node:http';
import type { Operation, PaintingDto, PileDto } from '@dusk/wire';
import { aPainting, aPile, change, idOf, lightBlue, newId, openBench, read, readPainting, refused, send, type Bench } from './studio.ts';

describe('bad input to the server', () => {
  let bench: Bench;
  let painting: PaintingDto;
  let pile: PileDto;
  before(async () => {
    bench = await openBench();
    painting = await aPainting(bench);
    pile = await aPile(bench, painting.id);
  });
  after(() => bench.close());
  const everything = async () => JSON.stringify([await read(bench), await readPainting(bench, painting.id)]);
  let before_: string;
  beforeEach(async () => (before_ = await everything()));
  afterEach(async () => expect(await everything()).to.equal(before_));

  const white = () => idOf(bench, 'titanium-white');
  const sending = (op: unknown) => send(bench, [op as Operation]);

  it('refuses palettes that are none', async () => {
    const right = { do: 'palette.add', id: newId(), name: 'x', tubeIds: [white()] };
    for (const more of [
      { id: 'x' },
      { id: null },
      { name: '' },
      { name: 7 },
      { name: 'x'.repeat(200) },
      { tubeIds: undefined },
      { tubeIds: [] },
      { tubeIds: 'white' },
      { tubeIds: [white(), white()] },
      { tubeIds: [newId()] },
      { tubeIds: ['not-an-id'] },
      { tubeIds: Array.from({ length: 500 }, () => white()) },
      { colour: 'red' },
    ])
      await refused(sending({ ...right, ...more }), 422);
  });

  it('refuses samples whose place is none, and views that cannot be', async () => {
    const lab = { L: 50, a: 0, b: 0 };
    const right = { do: 'sample.add', id: newId(), paintingId: painting.id, seen: lab, paint: lab };
    const disc = { x: 5, y: 5, radius: 2 };
    for (const outline of [
      null,
      [],
      { x: 5, y: 5 },
      { ...disc, radius: -1 },
      { ...disc, x: 1e9 },
      { ...disc, points: [1, 2, 3, 4] },
      { ...disc, points: [1, 2, 3, 4, 5, 6, 7] },
      { ...disc, points: Array.from({ length: 600 }, () => 1) },
      { ...disc, points: ['1', 2, 3, 4, 5, 6] },
      { ...disc, more: [] },
      { ...disc, more: [{ ...disc, more: [disc] }] },
      { ...disc, more: Array.from({ length: 40 }, () => disc) },
    ])
      await refused(sending({ ...right, outline }), 422);
    await refused(sending({ ...right, valueOnly: 1 }), 422);
    for (const canvas of [{}, { widthMm: 0, heightMm: 100 }, { widthMm: 100 }, 'large', { widthMm: 1e9, heightMm: 1 }])
      await refused(sending({ do: 'painting.change', id: painting.id, version: painting.version, canvas }), 422);
  });

  it('refuses piles that are none', async () => {
    const right = lightBlue(bench, painting.id);
    const plan = (...ingredients: unknown[]) => ({ plan: { form: 1, heaps: [{ ingredients }] } });
    const tube = white();
    for (const more of [
      { plan: undefined },
      { plan: null },
      { plan: { heaps: right.plan.heaps } },
      { plan: { form: 2, heaps: right.plan.heaps } },
      { plan: { form: 1, heaps: [] } },
      { plan: { form: 1, heaps: [{ ingredients: [] }] } },
      { plan: { form: 1, heaps: [[]] } },
      { plan: { form: 1, heaps: [right.plan.heaps[0], right.plan.heaps[0]] } },
      plan({ tube, parts: 0 }),
      plan({ tube, parts: -1 }),
      plan({ tube, parts: null }),
      plan({ tube, parts: '3' }),
      plan({ tube: newId(), parts: 1 }),
      plan({ tube, state: newId(), parts: 1 }),
      plan({ tube, state: bench.tubes.get('viridian')!.stateId, parts: 1 }),
      plan({ parts: 1 }),
      plan(null),
      plan('white'),
      plan({ tube, parts: 1, colour: 'red' }),
      plan({ tube, heap: 0, parts: 1 }),
      plan({ heap: 0, parts: 1 }),
      plan({ heap: 0.5, parts: 1 }),
      plan({ tube, stage: newId(), parts: 1 }),
      plan({ tube, parts: 1, range: [2, 3] }),
      plan({ tube, parts: 1, range: [1] }),
      plan({ tube, parts: 1, range: 'wide' }),
      plan({ pile: pile.id, stage: newId(), parts: 1 }),
      plan(...Array.from({ length: 100 }, () => ({ tube, parts: 1 }))),
      { name: ' ' },
      { name: null },
      { target: { kind: 'absolute', lab: { L: 500, a: 0, b: 0 } } },
      { target: { kind: 'absolute' } },
      { target: { kind: 'by guess', lab: { L: 5, a: 0, b: 0 } } },
      { target: { kind: 'relative', lab: { L: 5, a: 0, b: 0 } } },
      { target: { kind: 'relative', lab: { L: 5, a: 0, b: 0 }, pileId: newId(), by: { value: 1 } } },
      { target: 'brown' },
      { target: [] },
      { target: [[]] },
      { sampleId: newId() },
      { ml: 0 },
      { ml: null },
      { predicted: { L: 1, a: 2, b: 3 } },
    ])
      await refused(sending({ ...right, id: newId(), ...more }), 422);
    await refused(sending({ ...right, id: newId(), ...plan({ pile: newId(), parts: 1 }) }), 404);
  });

  it('says which field is wrong, in words', async () => {
    const right = lightBlue(bench, painting.id);
    const wrong = { ...right, plan: { form: 1, heaps: [{ ingredients: [{ tube: white(), parts: -1 }] }] } };
    const { body } = await refused(sending(wrong), 422);
    const { fields, detail } = body as { fields: { field: string; message: string }[]; detail: string };
    expect(fields[0]).to.deep.equal({
      field: 'ops.0.plan.heaps.0.ingredients.0.parts',
      message: 'Parts is a number from 0.0001 to 1000.',
    });
    expect(detail).to.equal('Parts is a number from 0.0001 to 1000.');
  });

  it('refuses what is not JSON, and too much of it', async () => {
    const post = () => bench.http.post('/api/changes');
    await refused(post().set('Content-Type', 'application/json').send('{"id": '), 400);
    await refused(post().set('Content-Type', 'application/json').send('"text"'), 400);
    await refused(post().send({ id: 'x'.repeat(2_000_000) }), 413);
    await refused(post().set('Content-Type', 'text/plain').send('hello'), 422);
    await refused(bench.http.get('/api/nothing'), 404);
    await refused(bench.http.get(`/api/pictures/${newId()}`), 404);
  });

  it('answers to its own name only, and to no other page', async () => {
    await refused(bench.http.get('/api/studio').set('Host', 'paint.example'), 421);
    await refused(bench.http.get('/api/studio').set('Host', '127.0.0.1.paint.example:80'), 421);
    await refused(bench.http.post('/api/changes').set('Origin', 'http://paint.example').send({}), 403);
    const { hostname, port } = new URL(bench.running.address);
    expect(hostname).to.equal('127.0.0.1');
    const status = await new Promise((done) =>
      http.get({ host: '127.0.0.1', port, path: '/api/studio', headers: { host: `localhost:${port}` } }, (r) => done(r.statusCode)),
    );
    expect(status).to.equal(200);
  });
});

describe('what a script would call poison', () => {
  it('is kept as plain words', async () => {
    const bench = await openBench();
    const name = `<script>alert(1)</script> "; DROP TABLE pile; --`;
    const id = newId();
    await change(bench, { do: 'palette.add', id, name, tubeIds: [idOf(bench, 'titanium-white')] });
    expect((await read(bench)).rows.palettes!.find((p) => p.id === id)!.name).to.equal(name);
    await bench.close();
  });
});
