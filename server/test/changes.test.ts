import { rmSync } from 'node:fs';
import { expect } from 'chai';
import {
  OPERATIONS,
  READS,
  type Answer,
  type LogDto,
  type Operation,
  type OperationName,
  type Paged,
  type PileDto,
  type Problem,
} from '@dusk/wire';
import { PAGE } from '../src/paintings/paintings.ts';
import { propertiesOf } from '../../wire/test/properties.ts';
import { foreignCards, sendCards } from './cardFiles.ts';
import {
  aPainting,
  aPalette,
  aPile,
  change,
  idOf,
  lightBlue,
  mixed,
  newId,
  copyOf,
  openBench,
  read,
  readPainting,
  refused,
  seen,
  send,
  some,
  undo,
  type Bench,
} from './studio.ts';

/** Rows of every kind, for changes to be tried on. */
async function furnished(bench: Bench) {
  const painting = await aPainting(bench);
  const palette = await aPalette(bench);
  const { body } = await bench.http.post('/api/pictures').attach('picture', PIXEL, 'dot.png');
  const reference = (
    await change(bench, { do: 'reference.add', id: newId(), paintingId: painting.id, pictureId: (body as { id: string }).id, name: 'dot' })
  ).references![0]!;
  const sample = (
    await change(bench, {
      do: 'sample.add',
      id: newId(),
      paintingId: painting.id,
      referenceId: reference.id,
      outline: { x: 0, y: 0, radius: 1 },
      seen: LAB,
      paint: LAB,
    })
  ).samples![0]!;
  const pile = await aPile(bench, painting.id);
  const stageId = newId();
  await change(bench, mixed(bench, pile.id, { 'titanium-white': 3.6, 'ultramarine-blue': 0.4 }, stageId));
  const sightingId = newId();
  const lookId = newId();
  const rows = await change(
    bench,
    { do: 'sighting.add', id: sightingId, kind: 'reader' },
    { do: 'look.add', id: lookId, sightingId, stageId, lab: { L: 60, a: 4, b: -40 } },
  );
  const beliefId = rows.piles![0]!.stages[0]!.looks[0]!.beliefId!;
  const card = (await change(bench, { do: 'card.add', id: newId(), pileId: pile.id })).cards![0]!;
  const set = (await change(bench, { do: 'set.add', id: newId(), name: 'S', kind: 'chosen', cardIds: [card.id] })).sets![0]!;
  const tube = (await change(bench, { do: 'tube.add', id: newId(), name: 'Green of mine', pigments: ['viridian'], leftMl: 12 })).tubes![0]!;
  const sitting = (await readPainting(bench, painting.id)).rows.sittings![0]!;
  const area = (await change(bench, { do: 'area.add', id: newId(), paintingId: painting.id, name: 'bowl' })).areas![0]!;
  const readingId = newId();
  await change(bench, aReading(bench, sightingId, readingId));
  // Changes of a window that has a name of its own.
  const deviceId = newId();
  await bench.http
    .post('/api/changes')
    .send({ id: newId(), device: deviceId, ops: [{ do: 'sighting.add', id: newId(), kind: 'eye' }] })
    .expect(201);
  const { fileId } = await sendCards(bench, foreignCards(1, 'here'));
  const bringing = (await change(bench, { do: 'bringing.add', id: newId(), fileId })).bringings![0]!;
  const { fileId: nextFileId } = await sendCards(bench, foreignCards(2, 'next'));
  return {
    tube,
    sitting,
    area,
    readingId,
    deviceId,
    painting,
    palette,
    reference,
    sample,
    pile,
    card,
    set,
    bringing,
    nextFileId,
    stageId,
    sightingId,
    lookId,
    beliefId,
  };
}

const aReading = (bench: Bench, sightingId: string, id: string): Operation => {
  const tube = idOf(bench, 'viridian');
  const patch = {
    form: 1,
    heaps: [
      {
        ingredients: [
          { tube, parts: 1 },
          { tube: idOf(bench, 'titanium-white'), parts: 9 },
        ],
      },
    ],
  };
  return { do: 'reading.add', id, sightingId, tubeId: tube, patch, lab: { L: 70, a: -20, b: 2 } };
};

const LAB = { L: 50, a: 4, b: 12 };
const PIXEL = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');

type Furnished = Awaited<ReturnType<typeof furnished>>;

/** For each operation: one that is right, how to make it name nobody, and a field that spoils it. */
interface Walk {
  readonly right: (f: Furnished, bench: Bench) => Operation;
  /** Fields that name another row; each is made to name nobody in turn. */
  readonly names: readonly string[];
  readonly spoilt: Readonly<Record<string, unknown>>;
}

const versioned = (name: OperationName, of: (f: Furnished) => { id: string; version: number }): Walk => ({
  right: (f) => ({ do: name, id: of(f).id, version: of(f).version }) as Operation,
  names: ['id'],
  spoilt: { version: 0 },
});

const WALKS: { readonly [N in OperationName]: Walk } = {
  'settings.change': { right: () => ({ do: 'settings.change', version: 1, room: 'light' }), names: [], spoilt: { room: 'cellar' } },
  'tube.add': {
    right: (f) => ({ do: 'tube.add', id: newId(), name: 'x', pigments: ['an old blue'], likeId: f.tube.id }),
    names: ['likeId'],
    spoilt: { pigments: [] },
  },
  'tube.change': {
    right: (f) => ({ do: 'tube.change', id: f.tube.id, version: 1, name: 'y', drying: 'slow', density: 1.9, note: 'gritty' }),
    names: ['id'],
    spoilt: { drying: 'never' },
  },
  'tube.delete': versioned('tube.delete', (f) => f.tube),
  'tube.restore': versioned('tube.restore', (f) => f.tube),
  'palette.add': {
    right: (_, b) => ({ do: 'palette.add', id: newId(), name: 'x', tubeIds: [idOf(b, 'viridian')] }),
    names: [],
    spoilt: { tubeIds: [] },
  },
  'palette.change': {
    right: (f) => ({ do: 'palette.change', id: f.palette.id, version: 1, name: 'y' }),
    names: ['id'],
    spoilt: { name: ' ' },
  },
  'reading.add': { right: (f, b) => aReading(b, f.sightingId, newId()), names: ['sightingId', 'tubeId'], spoilt: { filmUm: 0 } },
  'reading.withdraw': { right: (f) => ({ do: 'reading.withdraw', id: f.readingId }), names: ['id'], spoilt: { id: 'x' } },
  'reading.restore': { right: (f) => ({ do: 'reading.restore', id: f.readingId }), names: ['id'], spoilt: { id: 7 } },
  'sitting.add': {
    right: (f) => ({ do: 'sitting.add', id: newId(), paletteId: f.palette.id, light: 'north window' }),
    names: ['paletteId'],
    spoilt: { openedAt: 'this morning' },
  },
  'sitting.change': {
    right: (f, b) => ({ do: 'sitting.change', id: f.sitting.id, version: 1, note: 'y', guests: [idOf(b, 'viridian')] }),
    names: ['id'],
    spoilt: { guests: ['someone'] },
  },
  'sitting.delete': versioned('sitting.delete', (f) => f.sitting),
  'sitting.restore': versioned('sitting.restore', (f) => f.sitting),
  'area.add': {
    right: (f) => ({ do: 'area.add', id: newId(), paintingId: f.painting.id, name: 'sky' }),
    names: ['paintingId'],
    spoilt: { outline: [{ x: 0, y: 0 }] },
  },
  'area.change': {
    right: (f) => ({
      do: 'area.change',
      id: f.area.id,
      version: 1,
      name: 'y',
      outline: [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 0, y: 0.5 },
      ],
    }),
    names: ['id'],
    spoilt: { outline: [{ x: 2, y: 0 }] },
  },
  'area.delete': versioned('area.delete', (f) => f.area),
  'area.restore': versioned('area.restore', (f) => f.area),
  'device.change': {
    right: (f) => ({ do: 'device.change', id: f.deviceId, version: 1, name: 'laptop' }),
    names: ['id'],
    spoilt: { name: 7 },
  },
  'palette.delete': versioned('palette.delete', (f) => f.palette),
  'palette.restore': versioned('palette.restore', (f) => f.palette),
  'painting.add': {
    right: (f) => ({ do: 'painting.add', id: newId(), title: 'x', paletteId: f.palette.id }),
    names: ['paletteId'],
    spoilt: { ground: 'mud' },
  },
  'painting.change': {
    right: (f) => ({ do: 'painting.change', id: f.painting.id, version: 1, title: 'y' }),
    names: ['id'],
    spoilt: { title: null },
  },
  'painting.delete': versioned('painting.delete', (f) => f.painting),
  'painting.restore': versioned('painting.restore', (f) => f.painting),
  'reference.add': {
    right: (f) => ({ do: 'reference.add', id: newId(), paintingId: f.painting.id, pictureId: f.reference.pictureId, name: 'x' }),
    names: ['paintingId'],
    spoilt: { pictureId: 'dot' },
  },
  'reference.change': {
    right: (f) => ({ do: 'reference.change', id: f.reference.id, version: 1, view: { turn: 1, exposure: 0.5 }, passing: 'no' }),
    names: ['id'],
    spoilt: { view: { turn: 9 } },
  },
  'reference.delete': versioned('reference.delete', (f) => f.reference),
  'reference.restore': versioned('reference.restore', (f) => f.reference),
  'sample.add': {
    right: (f) => ({ do: 'sample.add', id: newId(), paintingId: f.painting.id, referenceId: f.reference.id, seen: LAB, paint: LAB }),
    names: ['paintingId', 'referenceId'],
    spoilt: { seen: { L: 500, a: 0, b: 0 } },
  },
  'sample.change': {
    right: (f) => ({ do: 'sample.change', id: f.sample.id, version: 1, zone: 'halftone', thing: 'bowl', valueOnly: true }),
    names: ['id'],
    spoilt: { valueOnly: 'yes' },
  },
  'sample.delete': versioned('sample.delete', (f) => f.sample),
  'sample.restore': versioned('sample.restore', (f) => f.sample),
  'pile.add': {
    right: (f, b) => ({ ...lightBlue(b, f.painting.id), sampleId: f.sample.id, remakeOfId: f.pile.id }),
    names: ['paintingId', 'sampleId', 'remakeOfId'],
    spoilt: { plan: { form: 1, heaps: [] } },
  },
  'pile.change': { right: (f) => ({ do: 'pile.change', id: f.pile.id, version: 1, name: 'y' }), names: ['id'], spoilt: { ml: 0 } },
  'pile.delete': versioned('pile.delete', (f) => f.pile),
  'pile.restore': versioned('pile.restore', (f) => f.pile),
  'card.add': { right: (f) => ({ do: 'card.add', id: newId(), pileId: f.pile.id }), names: ['pileId'], spoilt: { name: '' } },
  'card.change': { right: (f) => ({ do: 'card.change', id: f.card.id, version: 1, note: 'y' }), names: ['id'], spoilt: { note: 7 } },
  'card.delete': versioned('card.delete', (f) => f.card),
  'card.restore': versioned('card.restore', (f) => f.card),
  'set.add': {
    right: (f) => ({ do: 'set.add', id: newId(), name: 'T', kind: 'string', cardIds: [f.card.id] }),
    names: [],
    spoilt: { kind: 'heap' },
  },
  'set.change': { right: (f) => ({ do: 'set.change', id: f.set.id, version: 1, note: 'y' }), names: ['id'], spoilt: { cardIds: [] } },
  'set.delete': versioned('set.delete', (f) => f.set),
  'set.restore': versioned('set.restore', (f) => f.set),
  'bringing.add': {
    right: (f) => ({ do: 'bringing.add', id: newId(), fileId: f.nextFileId }),
    names: ['fileId'],
    spoilt: { stands: [{ tube: 'x', tubeId: newId() }] },
  },
  'bringing.delete': versioned('bringing.delete', (f) => f.bringing),
  'bringing.restore': versioned('bringing.restore', (f) => f.bringing),
  'stage.add': {
    right: (f, b) => ({ do: 'stage.add', id: newId(), pileId: f.pile.id, kind: 'added', additions: [some(b.tubes.get('viridian')!, 1)] }),
    names: ['pileId'],
    spoilt: { kind: 'stirred' },
  },
  'deed.add': {
    right: (f) => ({
      do: 'deed.add',
      id: newId(),
      areaId: f.area.id,
      kind: 'laid',
      laid: { how: 'thin', with: 'oil' },
      additions: [{ id: newId(), stageId: f.stageId, ml: 0.5, low: 0.2, high: 1 }],
    }),
    names: ['areaId'],
    spoilt: { laid: { how: 'thrown' } },
  },
  'stage.withdraw': { right: (f) => ({ do: 'stage.withdraw', id: f.stageId }), names: ['id'], spoilt: { id: 7 } },
  'stage.restore': { right: (f) => ({ do: 'stage.restore', id: f.stageId }), names: ['id'], spoilt: { id: null } },
  'sighting.add': { right: () => ({ do: 'sighting.add', id: newId(), kind: 'eye' }), names: [], spoilt: { kind: 'nose' } },
  'look.add': {
    right: (f) => ({ do: 'look.add', id: newId(), sightingId: f.sightingId, stageId: f.stageId, lab: LAB }),
    names: ['sightingId', 'stageId'],
    spoilt: { lab: null },
  },
  'look.withdraw': { right: (f) => ({ do: 'look.withdraw', id: f.lookId }), names: ['id'], spoilt: { id: 'x' } },
  'look.restore': { right: (f) => ({ do: 'look.restore', id: f.lookId }), names: ['id'], spoilt: { id: [] } },
  'belief.refuse': { right: (f) => ({ do: 'belief.refuse', id: f.beliefId }), names: ['id'], spoilt: { id: {} } },
  'belief.accept': { right: (f) => ({ do: 'belief.accept', id: f.beliefId }), names: ['id'], spoilt: { id: '' } },
};

/** Operations that only make sense once another was done. */
const FIRST: Partial<Record<OperationName, OperationName>> = {
  'tube.restore': 'tube.delete',
  'reading.restore': 'reading.withdraw',
  'sitting.restore': 'sitting.delete',
  'area.restore': 'area.delete',
  'palette.restore': 'palette.delete',
  'painting.restore': 'painting.delete',
  'reference.restore': 'reference.delete',
  'sample.restore': 'sample.delete',
  'pile.restore': 'pile.delete',
  'card.restore': 'card.delete',
  'set.restore': 'set.delete',
  'bringing.restore': 'bringing.delete',
  'stage.restore': 'stage.withdraw',
  'look.restore': 'look.withdraw',
  'belief.accept': 'belief.refuse',
};

describe('the table of operations', () => {
  let bench: Bench;
  let f: Furnished;
  /** Whether something was changed since the studio was furnished; what is refused changes nothing. */
  let isWorn = false;
  let template: string;
  before(async () => {
    bench = await openBench();
    f = await furnished(bench);
    await bench.running.stop();
    template = bench.folder;
    bench = await openBench(copyOf(template));
  });
  beforeEach(async () => {
    if (!isWorn) return;
    await bench.close();
    bench = await openBench(copyOf(template));
    isWorn = false;
  });
  after(async () => {
    await bench.close();
    rmSync(template, { recursive: true });
  });
  const everything = async () => {
    const { body } = await bench.http.get(`/api/paintings/${f.painting.id}`);
    const { body: cards } = await bench.http.get('/api/cards-found');
    const { body: sets } = await bench.http.get('/api/sets');
    const { rows } = await read(bench);
    // Tubes that were put away stay known to what was mixed from them.
    const tubes = rows.tubes!.filter(({ deletedAt }) => deletedAt === null);
    const { body: own } = await bench.http.get(`/api/tubes/${idOf(bench, 'viridian')}`);
    const { body: devices } = await bench.http.get('/api/devices');
    return JSON.stringify([
      (own as Answer).rows,
      (devices as Answer).rows,
      { ...rows, tubes },
      (body as Partial<Answer>).rows,
      cards,
      (sets as Partial<Answer>).rows,
    ]);
  };

  for (const name of Object.keys(OPERATIONS) as OperationName[]) {
    const { right, names, spoilt } = WALKS[name];

    it(`${name} is refused for nobody, a spoilt field, a strange field and a stale version, and changes nothing`, async () => {
      const first = FIRST[name];
      if (first) {
        isWorn = true;
        await change(bench, WALKS[first].right(f, bench));
      }
      const before = await everything();
      const op = right(f, bench) as unknown as Record<string, unknown>;
      const sent = (more: object) => send(bench, [{ ...op, ...more } as unknown as Operation]);
      for (const field of names) {
        const { status, type } = await sent({ [field]: newId() });
        expect([404, 422], field).to.include(status);
        expect(type).to.equal('application/problem+json');
      }
      await refused(sent(spoilt), 422);
      await refused(sent({ colour: 'red' }), 422);
      if ('version' in op) {
        const { body: met } = await refused(sent({ version: 99 }), 409);
        // Both sides can be shown: the row as it stands, every field that could be written.
        const { current } = met as Problem & { current: object };
        if (name.endsWith('.change')) expect(current).to.include.keys(propertiesOf(name));
        await refused(sent({ version: undefined }), 422);
      }
      expect(await everything()).to.equal(before);
    });
  }

  for (const name of Object.keys(OPERATIONS) as OperationName[]) {
    const { right } = WALKS[name];

    it(`${name} is done once however often it is sent, answered again, and undone`, async () => {
      isWorn = true;
      const first = FIRST[name];
      if (first) await change(bench, WALKS[first].right(f, bench));
      const before = await everything();
      const op = right(f, bench);
      const op2 = first && 'version' in op ? ({ ...op, version: op.version + 1 } as Operation) : op;
      const id = newId();
      const one = (await send(bench, [op2], id).expect(201)).body as Answer;
      const two = (await send(bench, [op2], id).expect(200)).body as Answer;
      expect(two).to.deep.equal(one);
      if (name !== 'sighting.add') expect(await everything()).to.not.equal(before);
      await refused(send(bench, [{ do: 'settings.change', version: 1, room: 'dark' }], id), 409);
      if (name === 'sighting.add') return;
      const back = newId();
      await bench.http.post('/api/changes').send({ id: back, device: 'x', undoes: id }).expect(201);
      // Versions and times go on; everything else is as it was.
      const bare = (text: string) =>
        text
          .replace(/"(version|updatedAt|seq|stateId|state|id|beliefId|createdAt|at|deletedAt)":("[^"]*"|\d+|null),?/g, '')
          .replace(/"K":\[[^\]]*\],?|"S":\[[^\]]*\],?/g, '');
      expect(bare(await everything())).to.equal(bare(before));
      const again = (await bench.http.post('/api/changes').send({ id: back, device: 'x', undoes: id }).expect(200)).body as Answer;
      expect(again.seq).to.equal(one.seq + 1);
      await refused(undo(bench, id), 409);
      await undo(bench, back).expect(201);
    });
  }

  it('refuses changes that are none', async () => {
    const before = await everything();
    const post = (body: unknown) => bench.http.post('/api/changes').send(body as object);
    const op = { do: 'settings.change', version: 1, room: 'light' };
    for (const body of [
      {},
      [],
      [op],
      { id: newId(), device: 'x' },
      { id: newId(), device: 'x', ops: [] },
      { id: 'x', device: 'x', ops: [op] },
      { id: newId(), ops: [op] },
      { id: newId(), device: '', ops: [op] },
      { id: newId(), device: 'x', ops: [op], more: 1 },
      { id: newId(), device: 'x', ops: op },
      { id: newId(), device: 'x', ops: [null] },
      { id: newId(), device: 'x', ops: [[]] },
      { id: newId(), device: 'x', ops: [{ ...op, do: 'toString' }] },
      { id: newId(), device: 'x', ops: [{ ...op, do: 'constructor' }] },
      { id: newId(), device: 'x', ops: [{ version: 1 }] },
      { id: newId(), device: 'x', ops: [op], undoes: newId() },
      { id: newId(), device: 'x', undoes: 'x' },
      { id: newId(), device: 'x', ops: Array.from({ length: 401 }, () => op) },
    ])
      await refused(post(body), 422);
    await refused(post({ id: newId(), device: 'x', undoes: newId() }), 404);
    expect(await everything()).to.equal(before);
  });

  it('refuses an id that is taken', async () => {
    await refused(send(bench, [{ ...lightBlue(bench, f.painting.id, f.pile.id) }]), 409);
    await refused(send(bench, [{ do: 'palette.add', id: f.palette.id, name: 'x', tubeIds: [idOf(bench, 'viridian')] }]), 409);
  });

  it('says where in the change something is wrong', async () => {
    const { body } = await refused(
      send(bench, [
        { do: 'settings.change', version: 1, room: 'dark' },
        { ...lightBlue(bench, f.painting.id), ml: -1 },
      ]),
      422,
    );
    expect((body as { fields: { field: string }[] }).fields[0]!.field).to.equal('ops.1.ml');
  });

  it('are taken back one after another, and done again, on the same row', async () => {
    isWorn = true;
    const named = async () => (await read(bench)).rows.palettes!.find((p) => p.id === f.palette.id)!.name;
    const first = await named();
    const ids = [newId(), newId(), newId()];
    for (const [i, id] of ids.entries())
      await send(bench, [{ do: 'palette.change', id: f.palette.id, version: i + 1, name: `name ${i}` }], id).expect(201);
    const backs = [newId(), newId(), newId()];
    const post = (id: string, undoes: string) => bench.http.post('/api/changes').send({ id, device: 'x', undoes });
    for (const [i, expected] of ['name 1', 'name 0', first].entries()) {
      await post(backs[i]!, ids[2 - i]!).expect(201);
      expect(await named()).to.equal(expected);
    }
    for (const [i, expected] of ['name 0', 'name 1', 'name 2'].entries()) {
      await post(newId(), backs[2 - i]!).expect(201);
      expect(await named()).to.equal(expected);
    }
    // Done again, the first is not to be taken back from under the others.
    const { rows } = await read(bench);
    await change(bench, {
      do: 'palette.change',
      id: f.palette.id,
      version: rows.palettes!.find((p) => p.id === f.palette.id)!.version,
      name: 'elsewhere',
    });
    expect(await named()).to.equal('elsewhere');
  });

  it('can undo what another change rested on only by saying no', async () => {
    isWorn = true;
    const id = newId();
    await send(bench, [{ do: 'palette.change', id: f.palette.id, version: 1, name: 'second' }], id).expect(201);
    await change(bench, { do: 'palette.change', id: f.palette.id, version: 2, name: 'third' });
    const { body } = await refused(undo(bench, id), 409);
    expect((body as { current: { name: string } }).current.name).to.equal('third');
  });
});

describe('the table of reads', () => {
  let bench: Bench;
  before(async () => (bench = await openBench()));
  after(() => bench.close());

  it('answers every row of it, and refuses ids it does not know', async () => {
    const f = await furnished(bench);
    const idFor: Record<string, string> = {
      painting: f.painting.id,
      paintings: f.painting.id,
      tube: f.tube.id,
      beliefs: f.pile.id,
      doubts: f.palette.id,
      taught: idOf(bench, 'viridian'),
      card: f.card.id,
    };
    const { body: log } = await bench.http.get('/api/log').expect(200);
    idFor['sittings'] = (log as LogDto).sittings[0]!.id;
    for (const [name, path] of Object.entries(READS)) {
      await bench.http
        .get(`/api${path.replace(':id', idFor[name] ?? '')}`)
        .expect(200)
        .expect('Content-Type', /json/);
      if (!path.includes(':id')) continue;
      for (const id of [newId(), 'x', '../settings', "' OR 1=1"])
        await refused(bench.http.get(`/api${path.replace(':id', encodeURIComponent(id))}`), 404);
    }
    const { seq, rows } = await readPainting(bench, f.painting.id);
    expect(seq).to.be.above(3);
    expect((rows.piles as PileDto[])[0]!.stages[0]!.looks).to.have.length(1);
    expect(rows.sightings).to.have.length(1);
  });

  it('gives paintings page by page, the newest first, each once', async () => {
    const { id: paletteId } = await aPalette(bench);
    const ops = Array.from({ length: 230 }, (_, i) => ({ do: 'painting.add' as const, id: newId(), title: `painting ${i}`, paletteId }));
    for (let i = 0; i < ops.length; i += 50) await change(bench, ...ops.slice(i, i + 50));
    const first = (await bench.http.get('/api/studio').expect(200)).body as Paged;
    const pages = [first];
    for (let next = first.next; next !== undefined; next = pages.at(-1)!.next)
      pages.push((await bench.http.get(`/api/paintings-after/${next}`).expect(200)).body as Paged);
    expect(pages.map(({ rows }) => rows.paintings!.length)).to.deep.equal([PAGE, PAGE, pages.at(-1)!.rows.paintings!.length]);
    const ids = pages.flatMap(({ rows }) => rows.paintings!.map(({ id }) => id));
    expect(new Set(ids).size).to.equal(ids.length);
    expect(ids).to.include.members(ops.map(({ id }) => id));
    const [newest, older] = pages.map(({ rows }) => rows.paintings!.map(({ createdAt }) => createdAt).sort());
    expect(newest![0]! >= older!.at(-1)!, 'the newest first').to.equal(true);
  });

  it('says nothing of piles that were put away', async () => {
    const f = await furnished(bench);
    await change(bench, { do: 'pile.delete', id: f.pile.id, version: 1 });
    await refused(bench.http.get(`/api/piles/${f.pile.id}/beliefs`), 404);
    await change(bench, { do: 'painting.delete', id: f.painting.id, version: 1 });
    await refused(bench.http.get(`/api/paintings/${f.painting.id}`), 404);
  });

  it('holds looks of a pile in the order in which they were had', async () => {
    const f = await furnished(bench);
    await change(bench, ...seen(f.stageId, { L: 55, a: 0, b: -30 }));
    const [pile] = (await readPainting(bench, f.painting.id)).rows.piles!;
    expect(pile!.stages[0]!.looks.map((l) => l.lab.L)).to.deep.equal([60, 55]);
  });
});
