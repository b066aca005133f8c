import { expect } from 'chai';
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
    const right: readonly (() => object)[] = [
      () => lightBlue(bench, paintingId, newId()),
      () => ({ do: 'palette.add', id: newId(), name: 'x', tubeIds: [idOf(bench, 'viridian')] }),
      () => ({ do: 'palette.change', id: palette.id, version: 1, name: 'y' }),
      () => ({ do: 'painting.add', id: newId(), title: 'x', paletteId: palette.id, ground: '#aabbcc' }),
      () => ({ do: 'pile.change', id: pile.id, version: 1, name: 'y', ml: 3 }),
      () => mixed(bench, pile.id, { 'titanium-white': 3 }, newId()),
      () => seen(stage.id, { L: 50, a: 0, b: 0 })[0]!,
      () => ({ do: 'settings.change', version: 1, room: 'dark', knife: 0.2 }),
    ];
    const before = await everything();
    let tried = 0;
    for (const make of right)
      for (const path of placesIn(make()))
        for (const junk of JUNK) {
          const op = withAt(make(), path, junk);
          const sent = { id: newId(), device: 'x', ops: [op, { do: 'palette.change', id: palette.id, version: 99, name: 'never' }] };
          await refusedClearly(sent, `${path.join('.')} of ${JSON.stringify(op).slice(0, 80)} as ${JSON.stringify(junk).slice(0, 60)}`);
          tried++;
        }
    expect(tried).to.be.above(500);
    expect(await everything()).to.equal(before);
  }).timeout(120_000);

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
