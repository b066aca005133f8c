import { expect } from 'chai';
import { CATALOGUE, deltaE00, labOf, mixCurves, reflectance } from '@dusk/core';
import type { PaintingDto, PaletteDto, PileDto, SettingsDto } from '@dusk/wire';
import { addTube, openStudio } from '../src/index.ts';
import { dataSourceFor } from '../src/studio/studio.ts';
import { TubeState } from '../src/entities/index.ts';
import { aPainting, aPalette, idOf, lightBlue, openBench, refused, type Bench } from './studio.ts';

describe('the studio over HTTP', () => {
  let bench: Bench;
  beforeEach(async () => (bench = await openBench()));
  afterEach(() => bench.close());

  it('holds every generic pigment with its curves', () => {
    expect(bench.tubes.size).to.equal(CATALOGUE.size);
    const white = bench.tubes.get('titanium-white')!;
    expect(white.curves.K).to.have.length(36);
    expect(white.basis).to.equal('typical');
  });

  it('keeps palettes: made, renamed, tubes exchanged, deleted and brought back', async () => {
    const palette = await aPalette(bench);
    expect(palette.tubeIds).to.have.length(4);
    const tubeIds = [...palette.tubeIds.slice(1), idOf(bench, 'ivory-black')];
    const changed = (await bench.http.patch(`/api/palettes/${palette.id}`).send({ version: 1, name: 'By lamp', tubeIds }).expect(200))
      .body as PaletteDto;
    expect(changed).to.include({ name: 'By lamp', version: 2 });
    expect(changed.tubeIds).to.deep.equal(tubeIds);
    await bench.http.delete(`/api/palettes/${palette.id}`).expect(204);
    expect((await bench.http.get('/api/palettes')).body).to.deep.equal([]);
    await bench.http.post(`/api/palettes/${palette.id}/restore`).expect(200);
    expect((await bench.http.get('/api/palettes')).body as PaletteDto[]).to.have.length(1);
  });

  it('does not delete a palette that a painting needs', async () => {
    const painting = await aPainting(bench);
    await refused(bench.http.delete(`/api/palettes/${painting.paletteId}`), 409);
  });

  it('keeps a pile with what was predicted and what that rested on, over a restart', async () => {
    const painting = await aPainting(bench);
    const pile = (await bench.http.post(`/api/paintings/${painting.id}/piles`).send(lightBlue(bench)).expect(201)).body as PileDto;
    const mixed = labOf(
      reflectance(
        mixCurves([
          { paint: CATALOGUE.get('titanium-white')!, parts: 9 },
          { paint: CATALOGUE.get('ultramarine-blue')!, parts: 1 },
        ]),
      ),
    );
    expect(deltaE00(mixed, [pile.predicted.L, pile.predicted.a, pile.predicted.b])).to.be.below(1e-6);
    expect(pile.deltaE00).to.be.closeTo(deltaE00(mixed, [62, 2, -36]), 1e-9);
    expect(pile.measures[0]!.stateId).to.equal(bench.tubes.get('titanium-white')!.stateId);
    bench = await bench.restart();
    const [again] = (await bench.http.get(`/api/paintings/${painting.id}/piles`)).body as PileDto[];
    expect(again).to.deep.equal(pile);
    expect(((await bench.http.get('/api/paintings')).body as PaintingDto[])[0]!.pileCount).to.equal(1);
  });

  it('keeps a let-down with its own tubes, and counts it in the prediction', async () => {
    const painting = await aPainting(bench);
    const white = idOf(bench, 'titanium-white');
    const blue = idOf(bench, 'ultramarine-blue');
    const measures = [
      { parts: 3, tubeId: white },
      {
        parts: 1,
        letdown: [
          { tubeId: white, parts: 9 },
          { tubeId: blue, parts: 1 },
        ],
      },
    ];
    const pile = (await bench.http.post(`/api/paintings/${painting.id}/piles`).send({ name: 'pale', measures }).expect(201))
      .body as PileDto;
    expect(pile.measures[1]!.letdown).to.have.length(2);
    expect(pile.measures[1]!.letdown![0]!.tubeId).to.equal(white);
    const flat = labOf(
      reflectance(
        mixCurves([
          { paint: CATALOGUE.get('titanium-white')!, parts: 39 },
          { paint: CATALOGUE.get('ultramarine-blue')!, parts: 1 },
        ]),
      ),
    );
    expect(deltaE00(flat, [pile.predicted.L, pile.predicted.a, pile.predicted.b])).to.be.below(1e-6);
    expect(pile.deltaE00).to.equal(null);
  });

  it('renames a pile, gives it another recipe, deletes it and brings it back', async () => {
    const painting = await aPainting(bench);
    const pile = (await bench.http.post(`/api/paintings/${painting.id}/piles`).send(lightBlue(bench))).body as PileDto;
    const renamed = (
      await bench.http.patch(`/api/piles/${pile.id}`).send({ version: 1, name: 'shadow on the wall', amountMl: 8 }).expect(200)
    ).body as PileDto;
    expect(renamed).to.include({ name: 'shadow on the wall', amountMl: 8, version: 2 });
    const measures = [{ tubeId: idOf(bench, 'ultramarine-blue'), parts: 1 }];
    const other = (await bench.http.patch(`/api/piles/${pile.id}`).send({ version: 2, measures }).expect(200)).body as PileDto;
    expect(other.predicted.L).to.be.below(30);
    expect(other.measures).to.have.length(1);
    await bench.http.delete(`/api/piles/${pile.id}`).expect(204);
    expect((await bench.http.get(`/api/paintings/${painting.id}/piles`)).body).to.deep.equal([]);
    await refused(bench.http.patch(`/api/piles/${pile.id}`).send({ version: 4, name: 'x' }), 404);
    expect(((await bench.http.post(`/api/piles/${pile.id}/restore`).expect(200)).body as PileDto).name).to.equal('shadow on the wall');
  });

  it('answers a stale write with both versions and changes nothing', async () => {
    const painting = await aPainting(bench);
    await bench.http.patch(`/api/paintings/${painting.id}`).send({ version: 1, title: 'One' }).expect(200);
    const { body } = await refused(bench.http.patch(`/api/paintings/${painting.id}`).send({ version: 1, title: 'Two' }), 409);
    expect(body).to.deep.include({ sentVersion: 1 });
    expect((body as { current: PaintingDto }).current).to.include({ title: 'One', version: 2 });
    expect(((await bench.http.get('/api/paintings')).body as PaintingDto[])[0]!.title).to.equal('One');
  });

  it('keeps changes that come at the same moment apart', async () => {
    const palette = await aPalette(bench);
    const names = Array.from({ length: 12 }, (_, i) => `name ${i}`);
    const answers = await Promise.all(names.map((name) => bench.http.patch(`/api/palettes/${palette.id}`).send({ version: 1, name })));
    expect(answers.filter((a) => a.status === 200)).to.have.length(1);
    expect(answers.filter((a) => a.status === 409)).to.have.length(11);
  });

  it('keeps settings', async () => {
    const settings = (await bench.http.get('/api/settings')).body as SettingsDto;
    await bench.http.patch('/api/settings').send({ version: settings.version, valueScale: 'nine-steps', surround: 'N7' }).expect(200);
    bench = await bench.restart();
    expect((await bench.http.get('/api/settings')).body).to.include({ valueScale: 'nine-steps', surround: 'N7', room: settings.room });
  });
});

describe('the studio file', () => {
  it('has the schema its entities describe, after migrations alone', async () => {
    const bench = await openBench();
    const { folder, running } = bench;
    await running.stop();
    const data = dataSourceFor(`${folder}/studio.sqlite`);
    await data.initialize();
    const { upQueries } = await data.driver.createSchemaBuilder().log();
    expect(upQueries.map((q) => q.query)).to.deep.equal([]);
    await data.destroy();
  });

  it('is in WAL mode with foreign keys on', async () => {
    const bench = await openBench();
    const db = bench.running.studio.data.manager;
    expect(await db.query('PRAGMA journal_mode')).to.deep.equal([{ journal_mode: 'wal' }]);
    expect(await db.query('PRAGMA foreign_keys')).to.deep.equal([{ foreign_keys: 1 }]);
    await bench.close();
  });

  it('keeps older states of a tube when the catalogue moves on', async () => {
    const bench = await openBench();
    const { studio } = bench.running;
    const tube = await studio.change((db) => addTube(db, CATALOGUE.get('viridian')!, 'Viridian', 'Someone', 5));
    await studio.change((db) => db.update(TubeState, { tubeId: tube.id }, { source: 'catalogue of old' }));
    await bench.running.stop();
    const again = await openStudio(bench.folder);
    const states = await again.look((db) => db.find(TubeState, { where: { tubeId: tube.id }, order: { createdAt: 'ASC' } }));
    expect(states.map((s) => s.source)).to.deep.equal(['catalogue of old', 'catalogue typical-1']);
    await again.close();
  });
});
