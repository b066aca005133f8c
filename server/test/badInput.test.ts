import { expect } from 'chai';
import http from 'node:http';
import type { PaintingDto, PaletteDto, PileDto } from '@dusk/wire';
import { aPainting, idOf, lightBlue, openBench, refused, type Bench } from './studio.ts';

const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('bad input to the server', () => {
  let bench: Bench;
  let painting: PaintingDto;
  let pile: PileDto;
  before(async () => {
    bench = await openBench();
    painting = await aPainting(bench);
    pile = (await bench.http.post(`/api/paintings/${painting.id}/piles`).send(lightBlue(bench))).body as PileDto;
  });
  after(() => bench.close());
  const everything = async () =>
    JSON.stringify([
      (await bench.http.get('/api/palettes')).body,
      (await bench.http.get('/api/paintings')).body,
      (await bench.http.get(`/api/paintings/${painting.id}/piles`)).body,
      (await bench.http.get('/api/settings')).body,
    ]);
  let before_: string;
  beforeEach(async () => (before_ = await everything()));
  afterEach(async () => expect(await everything()).to.equal(before_));

  const white = () => idOf(bench, 'titanium-white');
  const measures = () => [{ tubeId: white(), parts: 1 }];

  it('refuses palettes that are none', async () => {
    for (const sent of [
      {},
      [],
      { name: 'x' },
      { name: '', tubeIds: [white()] },
      { name: 7, tubeIds: [white()] },
      { name: 'x', tubeIds: [] },
      { name: 'x', tubeIds: 'white' },
      { name: 'x', tubeIds: [white(), white()] },
      { name: 'x', tubeIds: [NOBODY] },
      { name: 'x', tubeIds: ['not-an-id'] },
      { name: 'x', tubeIds: Array.from({ length: 500 }, () => white()) },
      { name: 'x'.repeat(200), tubeIds: [white()] },
      { name: 'x', tubeIds: [white()], colour: 'red' },
    ])
      await refused(bench.http.post('/api/palettes').send(sent), 422);
  });

  it('refuses piles that are none', async () => {
    for (const sent of [
      {},
      { name: 'x', measures: [] },
      { name: 'x', measures: [{ tubeId: white(), parts: 0 }] },
      { name: 'x', measures: [{ tubeId: white(), parts: -1 }] },
      { name: 'x', measures: [{ tubeId: white(), parts: null }] },
      { name: 'x', measures: [{ tubeId: white(), parts: '3' }] },
      { name: 'x', measures: [{ tubeId: NOBODY, parts: 1 }] },
      { name: 'x', measures: [{ parts: 1 }] },
      { name: 'x', measures: [null] },
      { name: ' ', measures: measures() },
      { name: 'x', measures: [{ tubeId: white(), parts: 1, colour: 'red' }] },
      { name: 'x', measures: [{ parts: 1, letdown: null }] },
      { name: 'x', measures: [{ parts: 1, letdown: [{ tubeId: white(), parts: 1, more: 1 }] }] },
      { name: 'x', measures: measures(), target: null },
      { name: 'x', measures: measures(), amountMl: null },
      { name: 'x', measures: ['white'] },
      { name: 'x', measures: { 0: { tubeId: white(), parts: 1 } } },
      { name: 'x', measures: [{ parts: 1, letdown: [] }] },
      { name: 'x', measures: [{ parts: 1, letdown: [{ tubeId: NOBODY, parts: 1 }] }] },
      { name: 'x', measures: [{ parts: 1, tubeId: white(), letdown: [{ tubeId: white(), parts: 1 }] }] },
      { name: 'x', measures: Array.from({ length: 100 }, () => ({ tubeId: white(), parts: 1 })) },
      { name: 'x', measures: measures(), target: { L: 500, a: 0, b: 0 } },
      { name: 'x', measures: measures(), target: { L: 50 } },
      { name: 'x', measures: measures(), target: 'brown' },
      { name: 'x', measures: measures(), sampled: { referenceId: NOBODY, x: 1, y: 1, radius: 3 } },
      { name: 'x', measures: measures(), sampled: { referenceId: NOBODY, x: 'a', y: 1, radius: 3 } },
      { name: 'x', measures: measures(), amountMl: 0 },
      { name: 'x', measures: measures(), predicted: { L: 1, a: 2, b: 3 } },
    ])
      await refused(bench.http.post(`/api/paintings/${painting.id}/piles`).send(sent), 422);
    for (const change of [
      { name: 'x' },
      { version: 1, name: null },
      { version: 1, measures: null },
      { version: 1, amountMl: null },
      { version: 1, name: '' },
    ])
      await refused(bench.http.patch(`/api/piles/${pile.id}`).send(change), 422);
    await refused(bench.http.patch(`/api/piles/${pile.id}`).send({ version: 'one', name: 'x' }), 422);
  });

  it('says which field is wrong, in words', async () => {
    const { body } = await refused(
      bench.http.post(`/api/paintings/${painting.id}/piles`).send({ name: 'x', measures: [{ tubeId: white(), parts: -1 }] }),
      422,
    );
    const { fields } = body as { fields: { field: string; message: string }[] };
    expect(fields).to.deep.include({ field: 'measures.0.parts', message: 'Parts are a number above 0 and at most 1000.' });
  });

  it('refuses paintings and settings that are none', async () => {
    for (const sent of [
      {},
      { title: 'x' },
      { title: 'x', paletteId: NOBODY },
      { title: 'x', paletteId: painting.paletteId, ground: 'mud' },
      { title: null, paletteId: painting.paletteId },
    ])
      await refused(bench.http.post('/api/paintings').send(sent), 422);
    for (const sent of [{}, { version: 1, valueScale: 'stone' }, { version: 1, room: 4 }, { version: 1, id: 2 }])
      await refused(bench.http.patch('/api/settings').send(sent), 422);
    for (const change of [
      { version: 1, title: null },
      { version: 1, paletteId: null },
      { version: 1, ground: null },
      { version: 1, title: '  ' },
    ])
      await refused(bench.http.patch(`/api/paintings/${painting.id}`).send(change), 422);
    await refused(bench.http.patch('/api/settings').send({ version: 1, room: null }), 422);
    await refused(bench.http.patch('/api/settings').send({ version: 99, room: 'dark' }), 409);
  });

  it('refuses ids it does not know', async () => {
    for (const id of [NOBODY, 'x', '../settings', "' OR 1=1"]) {
      const at = encodeURIComponent(id);
      await refused(bench.http.get(`/api/paintings/${at}/piles`), 404);
      await refused(bench.http.patch(`/api/paintings/${at}`).send({ version: 1, title: 'x' }), 404);
      await refused(bench.http.delete(`/api/palettes/${at}`), 404);
      await refused(bench.http.post(`/api/piles/${at}/restore`), 404);
      await refused(bench.http.get(`/api/pictures/${at}`), 404);
      await refused(bench.http.post(`/api/paintings/${at}/references`).attach('picture', Buffer.from('x'), 'x.png'), 404);
    }
    await refused(bench.http.get('/api/nothing'), 404);
  });

  it('refuses what is not JSON, and too much of it', async () => {
    await refused(bench.http.post('/api/palettes').set('Content-Type', 'application/json').send('{"name": '), 400);
    await refused(bench.http.post('/api/palettes').set('Content-Type', 'application/json').send('"text"'), 400);
    await refused(bench.http.post('/api/palettes').send({ name: 'x'.repeat(2_000_000) }), 413);
    await refused(bench.http.post('/api/palettes').set('Content-Type', 'text/plain').send('hello'), 422);
  });

  it('answers to its own name only, and to no other page', async () => {
    await refused(bench.http.get('/api/palettes').set('Host', 'paint.example'), 421);
    await refused(bench.http.get('/api/palettes').set('Host', '127.0.0.1.paint.example:80'), 421);
    await refused(
      bench.http
        .post('/api/palettes')
        .set('Origin', 'http://paint.example')
        .send({ name: 'x', tubeIds: [white()] }),
      403,
    );
    const { hostname, port } = new URL(bench.running.address);
    expect(hostname).to.equal('127.0.0.1');
    const status = await new Promise((done) =>
      http.get({ host: '127.0.0.1', port, path: '/api/palettes', headers: { host: `localhost:${port}` } }, (r) => done(r.statusCode)),
    );
    expect(status).to.equal(200);
  });

  it('keeps what a script would call poison as plain words', async () => {
    const name = `<script>alert(1)</script> "; DROP TABLE pile; --`;
    const made = (
      await bench.http
        .post('/api/palettes')
        .send({ name, tubeIds: [white()] })
        .expect(201)
    ).body as PaletteDto;
    expect(made.name).to.equal(name);
    await bench.http.delete(`/api/palettes/${made.id}`).expect(204);
  });
});
