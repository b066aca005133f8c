import { expect } from 'chai';
import { CATALOGUE, deltaE00, labOf, mixCurves, reflectance, type Lab } from '@dusk/core';
import type { AreaDto, Operation, PileDto, Problem, TubeDto } from '@dusk/wire';
import {
  aPainting,
  aPalette,
  aPile,
  change,
  idOf,
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

describe('what the record holds', () => {
  let bench: Bench;
  let paintingId: string;
  beforeEach(async () => {
    bench = await openBench();
    paintingId = (await aPainting(bench)).id;
  });
  afterEach(() => bench.close());
  const detail = async (ops: readonly Operation[], status: number): Promise<string> =>
    ((await refused(send(bench, ops), status)).body as Problem).detail;

  describe('areas', () => {
    let pile: PileDto;
    let stageId: string;
    let area: AreaDto;
    beforeEach(async () => {
      pile = await aPile(bench, paintingId);
      stageId = newId();
      await change(bench, mixed(bench, pile.id, { 'titanium-white': 3, 'ultramarine-blue': 1 }, stageId));
      area = (await change(bench, { do: 'area.add', id: newId(), paintingId, name: 'sky' })).areas![0]!;
    });
    const now = async () => (await readPainting(bench, paintingId)).rows;
    const laid = (ml: number, id = newId(), areaId = area.id): Operation => ({
      do: 'deed.add',
      id,
      areaId,
      kind: 'laid',
      laid: { how: 'scumble', with: 'medium', over: 'dry' },
      additions: [{ id: newId(), stageId, ml, low: ml / 2, high: ml * 2, said: 'some' }],
    });

    it('take paint from piles, in one order with what is done with those', async () => {
      const rows = await change(bench, laid(1.5));
      expect(rows.areas![0]!.deeds[0]).to.deep.include({
        kind: 'laid',
        laid: { how: 'scumble', with: 'medium', over: 'dry' },
        touch: null,
      });
      expect(rows.piles!.map(({ there }) => there)).to.deep.equal([2.5]);
      const { areas, piles } = await now();
      const [first, second] = [piles![0]!.stages[0]!, areas![0]!.deeds[0]!];
      expect(second.n).to.be.above(first.n);
      expect(second.additions[0]).to.include({ stageId, ml: 1.5, said: 'some' });
      expect(second.sittingId).to.be.a('string');
    });

    it('keep a pile as it was when they were laid, and give its paint back when that is undone', async () => {
      const id = newId();
      await send(bench, [laid(1)], id).expect(201);
      expect(await detail([{ do: 'stage.withdraw', id: stageId }], 409)).to.match(/“sky” was painted with this pile/);
      await undo(bench, id).expect(201);
      expect((await now()).piles![0]!.there).to.equal(4);
      expect((await now()).areas![0]!.deeds).to.deep.equal([]);
      await change(bench, { do: 'stage.withdraw', id: stageId });
    });

    it('are undone newest first', async () => {
      const [one, two] = [newId(), newId()];
      await change(bench, laid(0.5, one));
      await change(bench, { do: 'deed.add', id: two, areaId: area.id, kind: 'touched', touch: 'tacky', additions: [] });
      expect(await detail([{ do: 'stage.withdraw', id: one }], 409)).to.match(/done with this area since/);
      await change(bench, { do: 'stage.withdraw', id: two });
      await change(bench, { do: 'stage.withdraw', id: one });
    });

    it('refuse what cannot be, in a sentence', async () => {
      const deed = (more: object): Operation =>
        ({ do: 'deed.add', id: newId(), areaId: area.id, kind: 'touched', additions: [], ...more }) as Operation;
      const onIt = newId();
      await change(bench, laid(0.5, onIt));
      for (const [op, status, says] of [
        [deed({}), 422, /How it felt/],
        [deed({ kind: 'laid', touch: 'dry' }), 422, /How it felt/],
        [deed({ kind: 'wiped back', additions: [some(bench.tubes.get('viridian')!, 1)] }), 422, /when it is laid/],
        [deed({ touch: 'dry', laid: { how: 'thin' } }), 422, /something was laid/],
        [laid(0.5, newId(), newId()), 404, /area/],
        [deed({ kind: 'laid', additions: [{ id: newId(), stageId: onIt, ml: 1, low: 1, high: 1 }] }), 422, /not from an area/],
      ] as const)
        expect(await detail([op], status)).to.match(says);
      const other = (await change(bench, { do: 'area.add', id: newId(), paintingId, name: 'bare' })).areas![0]!;
      expect(await detail([deed({ areaId: other.id, kind: 'wiped back' })], 409)).to.match(/Nothing was laid/);
      await change(bench, { do: 'area.delete', id: area.id, version: 1 });
      expect(await detail([laid(0.5)], 404)).to.match(/put away/);
    });

    it('hold in the file itself', async () => {
      const { studio } = bench.running;
      const run = (sql: string) =>
        studio
          .look((db) => db.query(sql, []))
          .then(
            () => 'done',
            (cause: Error) => cause.message,
          );
      const insert = (columns: string, values: string) =>
        run(`INSERT INTO "stage" ("id", "n", "kind", "at", ${columns}) VALUES ('x', 99, 'laid', '', ${values})`);
      expect(await insert('"pileId", "areaId"', `'${pile.id}', '${area.id}'`)).to.match(/of a pile or of an area/);
      expect(await insert('"left"', '1')).to.match(/of a pile or of an area/);
      expect(await insert('"pileId", "laid"', `'${pile.id}', '{}'`)).to.match(/a pile is not laid/);
      const onIt = newId();
      await change(bench, laid(0.5, onIt));
      expect(await run(`UPDATE "stage" SET "touch" = 'dry'`)).to.match(/never changed/);
      const { id } = (await change(bench, { do: 'sighting.add', id: newId(), kind: 'eye' })).sightings![0]!;
      expect(
        await run(`INSERT INTO "look" ("id", "sightingId", "stageId", "L", "a", "b", "at") VALUES ('x', '${id}', '${onIt}', 1, 1, 1, '')`),
      ).to.match(/a look is at a pile/);
    });
  });

  describe('sittings', () => {
    const mixedAt = async (at: string): Promise<string> => {
      const { id } = await aPile(bench, paintingId);
      await change(bench, { ...mixed(bench, id, { 'titanium-white': 1 }), at });
      const { sittings } = (await readPainting(bench, paintingId)).rows;
      return sittings!.map(({ openedAt }) => openedAt.slice(11, 16)).join(' ');
    };

    it('begin by themselves with the first deed, go on through it, and end after a rest', async () => {
      expect(await mixedAt('2026-05-04T09:00:00Z')).to.equal('09:00');
      expect(await mixedAt('2026-05-04T12:30:00Z')).to.equal('09:00');
      // Three and a half hours after the last deed, not after the first.
      expect(await mixedAt('2026-05-04T16:00:00Z')).to.equal('09:00');
      expect(await mixedAt('2026-05-04T20:30:00Z')).to.equal('09:00 20:30');
      // What comes in late belongs where it was done.
      expect(await mixedAt('2026-05-04T10:00:00Z')).to.equal('09:00 20:30');
      expect(await mixedAt('2026-05-03T10:00:00Z')).to.equal('10:00 09:00 20:30');
    });

    it('end when that is said, and tell their palette, light and guests', async () => {
      await mixedAt('2026-05-04T09:00:00Z');
      const [sitting] = (await readPainting(bench, paintingId)).rows.sittings!;
      const { paletteId } = (await read(bench)).rows.paintings![0]!;
      expect(sitting).to.include({ paletteId, closedAt: null, version: 1 });
      const guests = [idOf(bench, 'viridian')];
      const op = { do: 'sitting.change', id: sitting!.id, version: 1, closedAt: '2026-05-04T10:00:00Z', light: 'lamp', guests } as const;
      expect((await change(bench, op)).sittings![0]).to.deep.include({ closedAt: '2026-05-04T10:00:00.000Z', light: 'lamp', guests });
      expect(await mixedAt('2026-05-04T10:30:00Z')).to.equal('09:00 10:30');
      expect(await detail([{ ...op, version: 2, closedAt: '2026-05-04T08:00:00Z' }], 422)).to.match(/after it has begun/);
    });
  });

  describe('tubes', () => {
    const tintOf = (tube: TubeDto): Lab => labOf(reflectance({ K: Float64Array.from(tube.curves.K), S: Float64Array.from(tube.curves.S) }));
    const add = async (more: object): Promise<TubeDto> =>
      (await change(bench, { do: 'tube.add', id: newId(), name: 'Of mine', pigments: ['viridian'], ...more } as Operation)).tubes![0]!;

    it('of several pigments have curves between theirs, dry as the slowest, and warn of all', async () => {
      const pigments = ['cadmium-red', 'yellow-ochre', 'our own earth'];
      const tube = await add({ pigments });
      const both = ['cadmium-red', 'yellow-ochre'].map((slug) => ({ paint: CATALOGUE.get(slug)!, parts: 1 }));
      expect(deltaE00(tintOf(tube), labOf(reflectance(mixCurves(both))))).to.be.below(1e-9);
      expect(tube).to.include({ drying: 'slow', basis: 'typical', pigment: 'cadmium-red' });
      expect(tube.caution).to.include('cadmium').and.to.include('not known');
      expect(tube.pigments).to.deep.equal(pigments);
    });

    it('that the catalogue does not know are like another, and stay so', async () => {
      expect(await detail([{ do: 'tube.add', id: newId(), name: 'x', pigments: ['moon dust'] }], 422)).to.match(
        /which tube this one is like/,
      );
      const tube = await add({ pigments: ['moon dust'], likeId: idOf(bench, 'viridian') });
      expect(tintOf(tube)).to.deep.equal(tintOf(bench.tubes.get('viridian')!));
      const again = await bench.restart();
      expect((await read(again)).rows.tubes!.find(({ id }) => id === tube.id)).to.deep.equal(tube);
      bench = again;
    });

    it('have their own density, drying and caution where said, and their pigment’s caution always', async () => {
      const tube = await add({ pigments: ['cadmium-red'], density: 1.8, drying: 'fast', caution: 'lead driers' });
      expect(tube).to.include({ density: 1.8, drying: 'fast', caution: 'cadmium, lead driers' });
      expect(tube.own).to.have.members(['density', 'drying', 'caution']);
      const back = (await change(bench, { do: 'tube.change', id: tube.id, version: 1, density: null, caution: null })).tubes![0]!;
      expect(back).to.include({ density: CATALOGUE.get('cadmium-red')!.density, caution: 'cadmium' });
      expect(back.own).to.deep.equal(['drying']);
    });

    it('are put away unless they lie on a palette, and piles of them stay what they are', async () => {
      const tube = await add({});
      const { id } = await aPile(bench, paintingId);
      await change(bench, { do: 'stage.add', id: newId(), pileId: id, kind: 'mixed', additions: [some(tube, 1)] });
      const palette = await aPalette(bench);
      await change(bench, { do: 'palette.change', id: palette.id, version: 1, tubeIds: [...palette.tubeIds, tube.id] });
      expect(await detail([{ do: 'tube.delete', id: tube.id, version: 1 }], 409)).to.match(/lies on the palette “Lamp light”/);
      await change(bench, { do: 'palette.change', id: palette.id, version: 2, tubeIds: palette.tubeIds.slice() });
      await change(bench, { do: 'tube.delete', id: tube.id, version: 1 });
      expect(await detail([{ do: 'palette.change', id: palette.id, version: 3, tubeIds: [tube.id] }], 422)).to.match(
        /“Of mine” was put away/,
      );
      const { piles } = (await readPainting(bench, paintingId)).rows;
      expect(piles!.find((pile) => pile.id === id)!.there).to.equal(1);
      expect((await read(bench)).rows.tubes!.find((one) => one.id === tube.id)!.deletedAt).to.be.a('string');
    });

    it('may be changed while they are being learnt of, without a conflict', async () => {
      const tube = await add({});
      const { id } = await aPile(bench, paintingId);
      const stageId = newId();
      const sightingId = newId();
      await change(bench, {
        do: 'stage.add',
        id: stageId,
        pileId: id,
        kind: 'mixed',
        additions: [some(tube, 1), some(bench.tubes.get('titanium-white')!, 4)],
      });
      await change(
        bench,
        { do: 'sighting.add', id: sightingId, kind: 'reader' },
        { do: 'look.add', id: newId(), sightingId, stageId, lab: { L: 60, a: -30, b: 2 } },
      );
      const { version, basis } = (await read(bench)).rows.tubes!.find((one) => one.id === tube.id)!;
      expect([version, basis]).to.deep.equal([1, 'learnt']);
      await change(bench, { do: 'tube.change', id: tube.id, version: 1, leftMl: 20 });
    });
  });

  describe('readings', () => {
    it('are of a swatch that holds their tube, and are taken back and given again', async () => {
      const sightingId = newId();
      await change(bench, { do: 'sighting.add', id: sightingId, kind: 'reader' });
      const [tubeId, other] = [idOf(bench, 'viridian'), idOf(bench, 'titanium-white')];
      const of = (tube: string, parts = 1) => ({ form: 1, heaps: [{ ingredients: [{ tube, parts }] }] });
      const reading = { do: 'reading.add' as const, id: newId(), sightingId, tubeId, lab: { L: 30, a: -20, b: 3 }, filmUm: 80 };
      expect(await detail([{ ...reading, patch: of(other) }], 422)).to.match(/does not hold the tube/);
      await change(bench, { ...reading, patch: of(tubeId) });
      const kept = async () =>
        ((await bench.http.get(`/api/tubes/${tubeId}`).expect(200)).body as { rows: { readings: object[] } }).rows.readings;
      expect(await kept()).to.have.length(1);
      expect((await kept())[0]).to.deep.include({ filmUm: 80, lab: { L: 30, a: -20, b: 3 }, patch: of(tubeId) });
      await change(bench, { do: 'reading.withdraw', id: reading.id });
      expect(await kept()).to.deep.equal([]);
      await change(bench, { do: 'reading.restore', id: reading.id });
      expect(await kept()).to.have.length(1);
    });
  });

  it('devices are known from their first change, by the name they are given', async () => {
    const device = newId();
    const ops = [{ do: 'sighting.add', id: newId(), kind: 'eye' }];
    await bench.http.post('/api/changes').send({ id: newId(), device, ops }).expect(201);
    const known = async () =>
      ((await bench.http.get('/api/devices').expect(200)).body as { rows: { devices: { id: string; name: string }[] } }).rows.devices;
    expect((await known()).map(({ id, name }) => [id, name])).to.deep.equal([[device, '']]);
    await change(bench, { do: 'device.change', id: device, version: 1, name: 'tablet by the easel' });
    expect((await known())[0]!.name).to.equal('tablet by the easel');
  });
});
