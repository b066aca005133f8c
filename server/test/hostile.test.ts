import { STUDIO_HEADER } from '@dusk/wire';
import { expect } from 'chai';
import sharp from 'sharp';
import { runs } from '../../core/test/runs.ts';
import { aPainting, aPalette, aPile, idOf, lightBlue, mixed, newId, openBench, read, readPainting, seen, type Bench } from './studio.ts';

const nested = (depth: number): unknown => JSON.parse('['.repeat(depth) + ']'.repeat(depth));
const fields = (n: number): Record<string, number> => Object.fromEntries(Array.from({ length: n }, (_, i) => [`f${i}`, i]));

/** What no field of any request takes, or takes only where it is harmless. */
const JUNK: readonly unknown[] = [
  null,
  [],
  [[]],
  [null],
  {},
  true,
  -1e9,
  1e300,
  '',
  ' ',
  '\u200b\u2060',
  'a\u0000b',
  // What some fields do take: it is to be as it was when that is taken back.
  'plain words',
  2,
  0.15,
  'half \ud800 a letter',
  'x'.repeat(30_000),
  { constructor: 1 },
  { toString: 'x' },
  JSON.parse('{"__proto__": {"a": 1}}'),
  nested(40),
  Array.from({ length: 500 }, () => 'x'),
  fields(60),
];

/** Phrases of libraries, and words that only programs use. */
const NO_SENTENCE = /must be (?!a JSON object)|nested property|each value in|undefined|\[object|SQLITE|NaN|TypeError|Error:|constraint/;

type Path = readonly (string | number)[];

/** Every place in a request, with what stands there. */
function placesIn(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [path];
  return [...(path.length > 0 ? [path] : []), ...Object.entries(value).flatMap(([key, inner]) => placesIn(inner, [...path, key]))];
}

function withAt(value: unknown, [key, ...rest]: Path, put: unknown): unknown {
  if (key === undefined) return put;
  const copy: Record<string, unknown> = Array.isArray(value)
    ? ([...(value as unknown[])] as unknown as Record<string, unknown>)
    : { ...(value as object) };
  copy[key] = withAt(copy[key], rest, put);
  return copy;
}

describe('hostile input', () => {
  let bench: Bench;
  let paintingId: string;
  before(async () => {
    bench = await openBench();
    paintingId = (await aPainting(bench)).id;
  });
  after(() => bench.close());
  const everything = async () => JSON.stringify([await read(bench), await readPainting(bench, paintingId)]);

  async function refusedClearly(body: unknown, what: string): Promise<void> {
    const sent = typeof body === 'string' ? body : JSON.stringify(body);
    const { status, body: answer, headers } = await bench.http.post('/api/changes').set('Content-Type', 'application/json').send(sent);
    expect(status, what).to.be.within(400, 499);
    expect(headers['content-type'], what).to.match(/problem\+json/);
    const { detail, fields: told = [] } = answer as { detail: string; fields?: { message: string }[] };
    expect(detail, what)
      .to.match(/^[A-Z“].{8,}[.?!]$/s)
      .and.to.not.match(NO_SENTENCE);
    expect(detail.length, what).to.be.below(2000);
    expect(told.length, what).to.be.at.most(20);
    expect(new Set(told.map((f) => f.message)).size, what).to.be.at.most(20);
  }

  it('is a 4xx with a sentence wherever it stands in a change, and keeps nothing', async () => {
    const pile = await aPile(bench, paintingId);
    const palette = await aPalette(bench);
    const stage = mixed(bench, pile.id, { 'titanium-white': 3, viridian: 1 });
    await bench.http
      .post('/api/changes')
      .send({ id: newId(), device: 'x', ops: [stage] })
      .expect(201);
    const versions = { palette: 1, pile: 1, settings: 1 };
    const versionsNow = async () => ({
      palette: (await read(bench)).rows.palettes!.find(({ id }) => id === palette.id)!.version,
      pile: (await readPainting(bench, paintingId)).rows.piles!.find(({ id }) => id === pile.id)!.version,
      settings: (await read(bench)).rows.settings![0]!.version,
    });
    const right: readonly (() => object)[] = [
      () => lightBlue(bench, paintingId, newId()),
      () => ({ do: 'palette.add', id: newId(), name: 'x', tubeIds: [idOf(bench, 'viridian')] }),
      () => ({ do: 'palette.change', id: palette.id, version: versions.palette, name: 'y' }),
      () => ({ do: 'painting.add', id: newId(), title: 'x', paletteId: palette.id, ground: '#aabbcc' }),
      () => ({ do: 'pile.change', id: pile.id, version: versions.pile, name: 'y', ml: 3 }),
      () => mixed(bench, pile.id, { 'titanium-white': 3 }, newId()),
      () => seen(stage.id, { L: 50, a: 0, b: 0 })[0]!,
      () => ({ do: 'settings.change', version: versions.settings, room: 'dark', knife: 0.2 }),
    ];
    // Two writings of the same: how often a row was written, and when, is no part of what it says.
    const said = async () => (await everything()).replace(/"(version|seq)":\d+|"(updatedAt|log)":"[^"]*"/g, '');
    const before = await said();
    let [tried, taken] = [0, 0];
    for (const make of right)
      for (const [at, path] of placesIn(make()).entries())
        // Each place meets a third of it, all places all of it.
        for (const junk of JUNK.filter((_, i) => i % 3 === at % 3 || runs(1) > 1)) {
          // Alone: were another operation to fail beside it, what is taken would not be seen.
          const op = withAt(make(), path, junk);
          const id = newId();
          const what = `${path.join('.')} of ${JSON.stringify(op).slice(0, 80)} as ${JSON.stringify(junk).slice(0, 60)}`;
          const sent = { id, device: 'x', ops: [op] };
          tried++;
          const { status } = await bench.http.post('/api/changes').send(sent);
          if (status !== 201) {
            await refusedClearly(sent, what);
            continue;
          }
          taken++;
          const after = await everything();
          expect(after, what).to.not.match(/\\u0000|\\u200b\\u2060/);
          await bench.http.post('/api/changes').send({ id: newId(), device: 'x', undoes: id }).expect(201);
          expect(await said(), `${what}, taken back`).to.equal(before);
          Object.assign(versions, await versionsNow());
        }
    expect(tried).to.be.above(400);
    expect(taken).to.be.above(5);
  }).timeout(120_000);

  it('that makes no sense is not stored, though every field of it is well written', async () => {
    const pile = await aPile(bench, paintingId);
    const other = await aPile(bench, paintingId);
    const stage = mixed(bench, pile.id, { 'titanium-white': 1.5, viridian: 0.5 });
    await bench.http
      .post('/api/changes')
      .send({ id: newId(), device: 'x', ops: [stage] })
      .expect(201);
    const string = { id: newId(), at: 2 };
    await bench.http
      .post('/api/changes')
      .send({ id: newId(), device: 'x', ops: [{ do: 'pile.change', id: other.id, version: 1, string }] })
      .expect(201);
    const self = newId();
    const { body: picture } = await bench.http.post('/api/pictures').attach(
      'picture',
      await sharp({ create: { width: 60, height: 40, channels: 3, background: '#8a6b4f' } })
        .png()
        .toBuffer(),
      'small.png',
    );
    const referenceId = newId();
    await bench.http
      .post('/api/changes')
      .send({
        id: newId(),
        device: 'x',
        ops: [{ do: 'reference.add', id: referenceId, paintingId, pictureId: (picture as { id: string }).id, name: 'small' }],
      })
      .expect(201);
    const lab = { L: 50, a: 0, b: 0 };
    const sample = (outline: object) => ({ do: 'sample.add', id: newId(), paintingId, referenceId, outline, seen: lab, paint: lab });
    const before = await everything();
    for (const op of [
      sample({ x: 5000, y: 10, radius: 4 }),
      sample({ x: 10, y: 20, radius: 9000 }),
      sample({ x: 10, y: 10, radius: 4, points: [0, 0, 900, 0, 0, 10] }),
      sample({ x: 10, y: 10, radius: 4, more: [{ x: 10, y: 700, radius: 3 }] }),
      { ...lightBlue(bench, paintingId, self), target: { kind: 'relative', lab, pileId: self, by: { value: 1 } } },
      { ...lightBlue(bench, paintingId, self), purpose: { neighbours: [{ pileId: self }] } },
      { do: 'pile.change', id: pile.id, version: 1, target: { kind: 'relative', lab, pileId: pile.id, by: { value: 1 } } },
      { do: 'pile.change', id: pile.id, version: 1, string },
      { ...lightBlue(bench, paintingId, newId()), string },
      { do: 'stage.add', id: newId(), pileId: pile.id, kind: 'left', additions: [], left: 4000 },
      { do: 'settings.change', version: 1, stepLeast: 12, stepMost: 3 },
      { do: 'pile.change', id: pile.id, version: 1, note: 'a\u0000b' },
      { do: 'pile.change', id: pile.id, version: 1, purpose: { thing: '\u200b\u2060' } },
      { do: 'pile.change', id: pile.id, version: 1, purpose: { zone: 'a\u0007' } },
    ])
      await refusedClearly({ id: newId(), device: 'x', ops: [op] }, JSON.stringify(op).slice(0, 120));
    expect(await everything()).to.equal(before);
  });

  it('of four hundred cards at once is answered with a sentence, not by a bare refusal', async () => {
    const cardIds = Array.from({ length: 400 }, () => newId());
    const wanted = JSON.stringify({ sheet: 'cards', paper: 'A4', cardIds });
    const { status, body } = await bench.http.get('/api/sheets').query({ wanted });
    expect(status).to.equal(422);
    expect((body as { detail: string }).detail).to.match(/^None of these cards/);
  });

  it('that is added and put away in one change can be taken back, and what was put away meanwhile is told so', async () => {
    const id = newId();
    const change = newId();
    const ops = [lightBlue(bench, paintingId, id), { do: 'pile.delete', id, version: 1 }];
    const before = await everything();
    await bench.http.post('/api/changes').send({ id: change, device: 'x', ops }).expect(201);
    await bench.http.post('/api/changes').send({ id: newId(), device: 'x', undoes: change }).expect(201);
    expect((await everything()).replace(/"(seq|version)":\d+|"(updatedAt|log)":"[^"]*"/g, '')).to.equal(
      before.replace(/"(seq|version)":\d+|"(updatedAt|log)":"[^"]*"/g, ''),
    );
    const pile = await aPile(bench, paintingId);
    const send = (op: object) => bench.http.post('/api/changes').send({ id: newId(), device: 'x', ops: [op] });
    await send({ do: 'pile.delete', id: pile.id, version: 1 }).expect(201);
    const { body } = await send({ do: 'pile.change', id: pile.id, version: 2, name: 'late' }).expect(404);
    expect((body as { detail: string }).detail).to.match(/was put away meanwhile. Bring it back first/);
  });

  it('is a 4xx with a sentence as a whole', async () => {
    const before = await everything();
    const change = { id: newId(), device: 'x', ops: [] as unknown[] };
    const bodies: readonly unknown[] = [
      '[]',
      'null',
      '7',
      '"x"',
      '{',
      '{"id":',
      `${'['.repeat(50_000)}${']'.repeat(50_000)}`,
      `{"id":"${newId()}","device":"x","ops":${'['.repeat(40_000)}${']'.repeat(40_000)}}`,
      { ...change, ops: [nested(3000)] },
      { ...change, ops: [{ do: 'palette.add', id: newId(), name: 'x', tubeIds: Array.from({ length: 20_000 }, newId) }] },
      { ...change, ops: [{ do: 'pile.add', heaps: Array.from({ length: 100_000 }, () => []) }] },
      { ...change, ops: [{ do: 'palette.add', ...fields(40_000) }] },
      { ...change, ...fields(40_000) },
      { ...change, constructor: 'x' },
      { ...change, ops: [{ do: 'constructor' }] },
      { ...change, ops: [{ do: '__proto__' }] },
      { ...change, ops: [{ do: 'x'.repeat(900_000) }] },
      { ...change, ops: Array.from({ length: 121 }, () => ({ do: 'belief.refuse', id: newId() })) },
      { ...change, undoes: newId() },
      { ...change, device: '' },
      {},
    ];
    for (const body of bodies) await refusedClearly(body, JSON.stringify(body).slice(0, 100));
    expect(await everything()).to.equal(before);
  });

  it('from a page that is another’s is refused by what the browser says of it, with the usual headers', async () => {
    for (const site of ['cross-site', 'same-site']) await bench.http.get('/api/events').set('Sec-Fetch-Site', site).expect(403);
    // A file for another studio is not looked at here, nor a look that would be no object of its class.
    await bench.http.post('/api/card-files').set(STUDIO_HEADER, 'f'.repeat(32)).attach('file', Buffer.from('{}'), 'cards.json').expect(421);
    await bench.http.post('/api/looked').send({ constructor: 'x' }).expect(422);
    for (const site of ['cross-site', 'same-site'])
      await bench.http.post('/api/changes').set('Sec-Fetch-Site', site).send({}).expect(403).expect('X-Content-Type-Options', 'nosniff');
    await bench.http.post('/api/changes').set('Sec-Fetch-Site', 'same-origin').send({}).expect(422);
    await bench.http.get('/api/studio').set('Host', 'paint.example').expect(421).expect('X-Content-Type-Options', 'nosniff');
    for (const path of ['/', '/anything', '/api'])
      await bench.http
        .post(path)
        .expect(404)
        .expect('Content-Type', /problem\+json/);
  });

  it('finds no painting to work on that was put away, and nothing to bring back that is there', async () => {
    const painting = await aPainting(bench);
    const pile = await aPile(bench, painting.id);
    const send = (op: object) => bench.http.post('/api/changes').send({ id: newId(), device: 'x', ops: [op] });
    const { body } = await send({ do: 'pile.restore', id: pile.id, version: 1 }).expect(409);
    expect((body as { detail: string }).detail).to.match(/is there already/);
    await send({ do: 'painting.delete', id: painting.id, version: 1 }).expect(201);
    const { body: said } = await send({ do: 'pile.change', id: pile.id, version: 1, name: 'x' }).expect(409);
    expect((said as { detail: string }).detail).to.match(/was put away. Bring it back first/);
  });
});
