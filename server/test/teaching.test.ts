import { expect } from 'chai';
import { CATALOGUE, deltaE00, deviate, drawDeviation, labOf, mixCurves, reflectance, USUAL_SPREAD, type PaintCurves } from '@dusk/core';
import { seeded } from '@dusk/core/random';
import type { Operation, ReadingDto, TaughtDto, TubeDto } from '@dusk/wire';
import { aPainting, aPile, change, idOf, mixed, newId, openBench, read, seen, undo, type Bench } from './studio.ts';

/** True tubes that are not as the catalogue has them. */
const random = seeded(4);
const hidden = new Map<string, PaintCurves>(
  ['titanium-white', 'viridian', 'burnt-sienna'].map((slug) => [slug, deviate(CATALOGUE.get(slug)!, drawDeviation(USUAL_SPREAD, random))]),
);
const mixedOf = (paints: ReadonlyMap<string, PaintCurves>, parts: Readonly<Record<string, number>>) =>
  reflectance(mixCurves(Object.entries(parts).map(([slug, n]) => ({ paint: paints.get(slug)!, parts: n }))));

describe('what swatches teach of tubes', () => {
  let bench: Bench;
  let sightingId: string;
  beforeEach(async () => {
    bench = await openBench();
    sightingId = newId();
    await change(bench, { do: 'sighting.add', id: sightingId, kind: 'reader' });
  });
  afterEach(() => bench.close());

  const tubes = async (): Promise<Map<string, TubeDto>> =>
    new Map((await read(bench)).rows.tubes!.filter(({ maker }) => maker === '').map((tube) => [tube.pigment, tube]));
  const paints = async (): Promise<Map<string, PaintCurves>> =>
    new Map([...(await tubes())].map(([slug, { curves }]) => [slug, { K: Float64Array.from(curves.K), S: Float64Array.from(curves.S) }]));
  const reading = (slug: string, white: number): Extract<Operation, { do: 'reading.add' }> => {
    const spectrum = mixedOf(hidden, { [slug]: 1, ...(white > 0 && { 'titanium-white': white }) });
    const [L, a, b] = labOf(spectrum);
    return {
      do: 'reading.add',
      id: newId(),
      sightingId,
      tubeId: idOf(bench, slug),
      patch: {
        form: 1,
        heaps: [
          {
            ingredients: [
              { tube: idOf(bench, slug), parts: 1 },
              ...(white > 0 ? [{ tube: idOf(bench, 'titanium-white'), parts: white }] : []),
            ],
          },
        ],
      },
      lab: { L, a, b },
      spectrum: [...spectrum],
    };
  };
  const unseen = { 'titanium-white': 3, viridian: 2, 'burnt-sienna': 1 };
  const off = async () => deltaE00(labOf(mixedOf(await paints(), unseen)), labOf(mixedOf(hidden, unseen)));

  it('is fitted from what stands, predicts mixtures that nobody read, and is taken back without a trace', async () => {
    const before = await tubes();
    const first = await off();
    await change(bench, reading('titanium-white', 0));
    await change(bench, ...['viridian', 'burnt-sienna'].flatMap((slug) => [0, 2, 6, 20].map((white) => reading(slug, white))));
    expect(await off()).to.be.below(Math.min(0.8, first / 3));
    const taught = (await tubes()).get('viridian')!;
    expect(taught.basis).to.equal('fitted');
    expect(taught.curves.doubt!.length).to.be.above(3);
    const { body } = await bench.http.get(`/api/tubes/${taught.id}`).expect(200);
    const { readings } = (body as { rows: { readings: ReadingDto[] } }).rows;
    expect(readings).to.have.length(4);
    await change(bench, ...readings.map(({ id }): Operation => ({ do: 'reading.withdraw', id })));
    const after = (await tubes()).get('viridian')!;
    expect([after.basis, after.curves]).to.deep.equal(['typical', before.get('viridian')!.curves]);
    expect((await tubes()).get('burnt-sienna')!.basis).to.equal('fitted');
  });

  it('of a white goes on to whatever was told against it', async () => {
    await change(bench, reading('viridian', 0), reading('viridian', 4));
    const before = (await tubes()).get('viridian')!.stateId;
    await change(bench, reading('titanium-white', 0));
    expect((await tubes()).get('viridian')!.stateId).to.not.equal(before);
  });

  it('lies beneath what piles teach, which is reckoned anew over it, and undone with it', async () => {
    const { id: pileId } = await aPile(bench, (await aPainting(bench)).id);
    const stageId = newId();
    const parts = { 'titanium-white': 5, viridian: 1 };
    await change(bench, mixed(bench, pileId, parts, stageId));
    const [L, a, b] = labOf(mixedOf(hidden, parts));
    await change(bench, ...seen(stageId, { L, a, b }));
    const learnt = (await tubes()).get('viridian')!;
    const { looks } = (await bench.http.get(`/api/tubes/${learnt.id}/taught`).expect(200)).body as { looks: TaughtDto[] };
    expect(looks.map((one) => [one.pileId, one.kind, one.refusedAt])).to.deep.equal([[pileId, 'reader', null]]);
    expect(looks[0]!.lab.L).to.be.closeTo(L, 1e-9);
    expect(learnt.basis).to.equal('learnt');
    const changeId = newId();
    const ops = [0, 2, 6, 20].map((white) => reading('viridian', white));
    await bench.http.post('/api/changes').send({ id: changeId, device: newId(), ops }).expect(201);
    const both = (await tubes()).get('viridian')!;
    expect([both.basis, both.learnt!.basis]).to.deep.equal(['learnt', 'fitted']);
    expect(both.curves.doubt!.length).to.be.above(3);
    // Swatches told most of it: the pile moves it less than before.
    expect(both.learnt!.within).to.be.below(learnt.learnt!.within);
    await undo(bench, changeId).expect(201);
    const back = (await tubes()).get('viridian')!;
    expect(back.learnt!.basis).to.equal('typical');
    expect(back.learnt!.strength).to.be.closeTo(learnt.learnt!.strength, 0.01);
  });

  it('is told by no look that was taken back', async () => {
    const { id: pileId } = await aPile(bench, (await aPainting(bench)).id);
    const stageId = newId();
    await change(bench, mixed(bench, pileId, { 'titanium-white': 5, viridian: 1 }, stageId));
    const told = async () => {
      const { id } = (await tubes()).get('viridian')!;
      return ((await bench.http.get(`/api/tubes/${id}/taught`).expect(200)).body as { looks: TaughtDto[] }).looks;
    };
    const changeId = newId();
    const ops = seen(stageId, { L: 70, a: -20, b: 3 });
    await bench.http.post('/api/changes').send({ id: changeId, device: newId(), ops }).expect(201);
    expect(await told()).to.have.length(1);
    await undo(bench, changeId).expect(201);
    expect(await told()).to.deep.equal([]);
  });

  it('refuses a spectrum that is none, in a sentence, and keeps nothing', async () => {
    const wrong = { ...reading('viridian', 0), spectrum: [0.1, 0.2] };
    const { body } = await bench.http
      .post('/api/changes')
      .send({ id: newId(), device: newId(), ops: [wrong] })
      .expect(422);
    expect((body as { detail: string }).detail).to.match(/spectrum/i);
    expect((await tubes()).get('viridian')!.basis).to.equal('typical');
  });

  it('that is saturated is refused with its reason, however often a tube is told', async () => {
    const bright = { ...reading('viridian', 0), spectrum: new Array<number>(36).fill(1.1) };
    const { body } = await bench.http
      .post('/api/changes')
      .send({ id: newId(), device: newId(), ops: [bright] })
      .expect(422);
    expect((body as { detail: string }).detail).to.match(/saturated/);
    expect((await tubes()).get('viridian')!.basis).to.equal('typical');
    await change(bench, ...Array.from({ length: 15 }, (_, i) => reading('viridian', i)));
    expect((await tubes()).get('viridian')!.basis).to.equal('fitted');
  });
});
