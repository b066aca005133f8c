import { expect } from 'chai';
import { CATALOGUE, deviate, labOf, mixCurves, reflectance, type Beliefs } from '@dusk/core';
import type { TubeDto } from '@dusk/wire';
import { aPainting, aPile, change, mixed, newId, openBench, read, readPainting, seen, send, undo, type Bench } from './studio.ts';

const plain = { strength: 1, shiftNm: 0, extender: 0, shapeK: new Float64Array(36), shapeS: new Float64Array(36) };
const strong = deviate(CATALOGUE.get('ultramarine-blue')!, { ...plain, strength: 1.3 });

/** How white with a blue a third stronger than typical looks. */
function look(white: number, blue: number) {
  const [L, a, b] = labOf(
    reflectance(
      mixCurves([
        { paint: CATALOGUE.get('titanium-white')!, parts: white },
        { paint: strong, parts: blue },
      ]),
    ),
  );
  return { L, a, b };
}

describe('what piles teach of tubes', () => {
  let bench: Bench;
  let paintingId: string;
  beforeEach(async () => {
    bench = await openBench();
    paintingId = (await aPainting(bench)).id;
  });
  afterEach(() => bench.close());

  const tube = async (pigment: string): Promise<TubeDto> =>
    (await read(bench)).rows.tubes!.find((t) => t.pigment === pigment && t.maker === '')!;
  const blue = () => tube('ultramarine-blue');

  /** A pile of white and blue that came out as from the strong blue. */
  async function piled(white: number, parts: number): Promise<{ pileId: string; beliefId: string; changeId: string }> {
    const { id: pileId } = await aPile(bench, paintingId);
    const stageId = newId();
    await change(bench, mixed(bench, pileId, { 'titanium-white': white, 'ultramarine-blue': parts }, stageId));
    const changeId = newId();
    const { body } = await send(bench, seen(stageId, look(white, parts)), changeId).expect(201);
    const pile = (body as { rows: { piles: { id: string; stages: { looks: { beliefId: string }[] }[] }[] } }).rows.piles.find(
      (p) => p.id === pileId,
    )!;
    return { pileId, beliefId: pile.stages[0]!.looks[0]!.beliefId, changeId };
  }

  it('becomes a learnt state over the typical one, which stays', async () => {
    const before = await blue();
    await piled(6, 1);
    const after = await blue();
    expect(after.basis).to.equal('learnt');
    expect(after.stateId).to.not.equal(before.stateId);
    expect(after.learnt).to.deep.include({ stateId: before.stateId, basis: 'typical', piles: 1 });
    expect(after.learnt!.curves).to.deep.equal(before.curves);
    expect(after.learnt!.strength).to.be.within(1.04, 1.4);
    await piled(6, 2);
    const surer = await blue();
    expect(surer.learnt!.piles).to.equal(2);
    expect(surer.learnt!.within).to.be.below(after.learnt!.within);
    expect((await tube('viridian')).basis).to.equal('typical');
  });

  it('is shared: two piles with a tube in common teach each other', async () => {
    const first = await piled(6, 1);
    const alone = (await bench.http.get(`/api/piles/${first.pileId}/beliefs`)).body as Beliefs;
    expect(alone.ids).to.deep.equal([]);
    const second = await piled(5, 1);
    const fromSecond = (await bench.http.get(`/api/piles/${first.pileId}/beliefs`)).body as Beliefs;
    // Two tubes, and by how much the reader was off.
    expect(fromSecond.ids).to.have.length(3);
    const third = (await bench.http.get(`/api/piles/${second.pileId}/beliefs`)).body as Beliefs;
    expect(third.ids).to.have.length(3);
  });

  it('is unlearnt exactly by refusing, in any order, and learnt again', async () => {
    const numbers = async () => (await blue()).learnt && { ...(await blue()).learnt, curves: null };
    const one = await piled(6, 1);
    const afterOne = await numbers();
    const two = await piled(4, 1);
    const afterBoth = await numbers();
    const refuse = (beliefId: string) => change(bench, { do: 'belief.refuse', id: beliefId });
    const accept = (beliefId: string) => change(bench, { do: 'belief.accept', id: beliefId });
    await refuse(two.beliefId);
    expect(await numbers()).to.deep.equal(afterOne);
    await refuse(one.beliefId);
    expect((await blue()).basis).to.equal('typical');
    await accept(one.beliefId);
    expect(await numbers()).to.deep.equal(afterOne);
    await accept(two.beliefId);
    expect(await numbers()).to.deep.equal(afterBoth);
  });

  it('is unlearnt by undoing the look, and comes back with it', async () => {
    const { changeId } = await piled(6, 1);
    const learnt = await blue();
    const back = newId();
    await bench.http.post('/api/changes').send({ id: back, device: 'x', undoes: changeId }).expect(201);
    expect(await blue()).to.include({ basis: 'typical', learnt: null });
    await undo(bench, back).expect(201);
    expect((await blue()).learnt!.strength).to.equal(learnt.learnt!.strength);
  });

  it('is little of a look that nothing explains, until the painter confirms it', async () => {
    const learnt = async (confirmed: boolean): Promise<number> => {
      const { id: pileId } = await aPile(bench, paintingId);
      const stageId = newId();
      await change(bench, mixed(bench, pileId, { 'titanium-white': 6, 'ultramarine-blue': 1 }, stageId));
      const [sighting, strange] = seen(stageId, { ...look(6, 1), L: look(6, 1).L + 30 });
      const changeId = newId();
      await send(bench, [sighting, { ...strange!, ...(confirmed && { confirmed }) }] as never, changeId).expect(201);
      const pile = (await readPainting(bench, paintingId)).rows.piles!.find((p) => p.id === pileId)!;
      expect(pile.stages[0]!.looks[0]!.confirmed).to.equal(confirmed);
      const { strength } = (await blue()).learnt!;
      await undo(bench, changeId).expect(201);
      return Math.abs(Math.log(strength));
    };
    const doubted = await learnt(false);
    expect(doubted).to.be.below(0.5 * (await learnt(true)));
  });

  it('comes of the newest look at a stage, and of all stages', async () => {
    const { pileId } = await piled(6, 1);
    const [pile] = (await readPainting(bench, paintingId)).rows.piles!;
    await change(bench, ...seen(pile!.stages[0]!.id, look(6, 1)));
    expect((await blue()).learnt!.piles).to.equal(1);
    const stageId = newId();
    const white = bench.tubes.get('titanium-white')!;
    const more = { id: newId(), tubeId: white.id, stateId: white.stateId, ml: 2, low: 2, high: 2 };
    await change(bench, { do: 'stage.add', id: stageId, pileId, kind: 'added', additions: [more] });
    const before = (await blue()).learnt!.within;
    await change(bench, ...seen(stageId, look(8, 1)));
    expect((await blue()).learnt!.within).to.be.below(before);
  });

  it('is nothing once something went in that nobody recorded', async () => {
    const { id: pileId } = await aPile(bench, paintingId);
    await change(bench, mixed(bench, pileId, { 'titanium-white': 3, 'ultramarine-blue': 1 }));
    const stageId = newId();
    await change(bench, { do: 'stage.add', id: stageId, pileId, kind: 'changed', additions: [] });
    const { piles } = await change(bench, ...seen(stageId, look(3, 3)));
    expect(piles![0]!.stages[1]!.looks[0]!.beliefId).to.equal(null);
    expect((await blue()).basis).to.equal('typical');
  });

  it('leaves piles the curves they were reckoned with, and brings them along', async () => {
    const { pileId } = await piled(6, 1);
    const first = (await blue()).stateId;
    const stageId = newId();
    const { id: second } = await aPile(bench, paintingId);
    const additions = [{ id: newId(), tubeId: (await blue()).id, stateId: first, ml: 2, low: 2, high: 2 }];
    await change(bench, { do: 'stage.add', id: stageId, pileId: second, kind: 'mixed', additions });
    await piled(5, 2);
    expect((await blue()).stateId).to.not.equal(first);
    const { states } = (await readPainting(bench, paintingId)).rows;
    expect(states!.find(({ id }) => id === first)).to.include({ tubeId: (await blue()).id, basis: 'learnt' });
    const touched = await change(bench, { do: 'pile.change', id: second, version: 1, note: 'old blue' });
    expect(touched.states!.map(({ id }) => id)).to.include(first);
    expect(pileId).to.not.equal(second);
  });

  it('weighs a look by eye less than one by a reader', async () => {
    const at = async (kind: 'eye' | 'reader') => {
      const { id: pileId } = await aPile(bench, paintingId);
      const stageId = newId();
      await change(bench, mixed(bench, pileId, { 'titanium-white': 6, 'ultramarine-blue': 1 }, stageId));
      const id = newId();
      await send(bench, seen(stageId, look(6, 1), kind), id).expect(201);
      const { strength } = (await blue()).learnt!;
      await undo(bench, id).expect(201);
      return strength;
    };
    expect(await at('eye')).to.be.below(await at('reader'));
  });

  it('survives a restart, and is used by whatever is predicted next', async () => {
    await piled(6, 1);
    const learnt = await blue();
    bench = await bench.restart();
    expect((await blue()).stateId).to.equal(learnt.stateId);
    const pile = await aPile(bench, paintingId);
    expect(pile.predicted.basis).to.equal('learnt');
    const typical = labOf(
      reflectance(
        mixCurves([
          { paint: CATALOGUE.get('titanium-white')!, parts: 9 },
          { paint: CATALOGUE.get('ultramarine-blue')!, parts: 1 },
        ]),
      ),
    );
    expect(pile.predicted.lab.L).to.be.below(typical[0] - 0.3);
  });

  describe('of many piles', () => {
    const MANY = 12;
    let piles: Awaited<ReturnType<typeof piled>>[];
    beforeEach(async () => {
      piles = [];
      for (let n = 0; n < MANY; n++) piles.push(await piled(3 + (n % 5), 1 + (n % 2)));
    });
    const settled = () => bench.running.studio.folding.settled();
    const numbers = async () => ({ ...(await blue()).learnt!, curves: null });
    const without = async (n: number) => (await bench.http.get(`/api/piles/${piles[n]!.pileId}/beliefs`).expect(200)).body as Beliefs;

    it('is unlearnt exactly by refusing the oldest, a moment later, and open windows hear of it', async () => {
      const before = await numbers();
      expect(before.piles).to.equal(MANY);
      const heard: unknown[] = [];
      const stop = bench.running.studio.hearing.listen(
        (told) => told.is === 'change' && heard.push(...(told.answer.rows.tubes ?? [])),
        () => undefined,
      );
      await change(bench, { do: 'belief.refuse', id: piles[0]!.beliefId });
      await settled();
      stop();
      const meanwhile = await numbers();
      expect(meanwhile.piles).to.equal(MANY - 1);
      expect(heard).to.deep.include(await blue());
      await change(bench, { do: 'belief.accept', id: piles[0]!.beliefId });
      await settled();
      const again = await numbers();
      expect(again).to.deep.include({ piles: MANY, stateId: before.stateId });
      for (const one of ['strength', 'within', 'shiftNm'] as const) expect(again[one]).to.be.closeTo(before[one]!, 1e-9);
    });

    it('comes to all that is refused, however fast one follows another', async () => {
      await Promise.all(piles.slice(0, 6).map(({ beliefId }) => send(bench, [{ do: 'belief.refuse', id: beliefId }]).expect(201)));
      await settled();
      expect((await numbers()).piles).to.equal(MANY - 6);
      await Promise.all(piles.slice(0, 6).map(({ beliefId }) => send(bench, [{ do: 'belief.accept', id: beliefId }]).expect(201)));
      await settled();
      expect((await numbers()).piles).to.equal(MANY);
    });

    it('lies in the file: nothing is reckoned anew after a restart', async () => {
      const of = async () => [await numbers(), await without(0), await without(MANY - 1)];
      const before = await of();
      bench = await bench.restart();
      expect(await bench.running.studio.look((db) => db.query(`SELECT COUNT(*) AS n FROM "fold" WHERE "share" IS NULL`))).to.deep.equal([
        { n: 0 },
      ]);
      expect(await of()).to.deep.equal(before);
    });

    it('is near what the others alone teach where an old pile is left out', async () => {
      const quick = await without(0);
      await change(bench, { do: 'belief.refuse', id: piles[0]!.beliefId });
      await settled();
      const anew = await without(0);
      const at = (beliefs: Beliefs, id: string) => beliefs.mean[beliefs.ids.indexOf(id) * 3]!;
      for (const pigment of ['titanium-white', 'ultramarine-blue']) {
        const { id } = bench.tubes.get(pigment)!;
        expect(at(quick, id)).to.be.closeTo(at(anew, id), 0.02);
      }
    });

    it('adds no state of a tube that is as it was', async () => {
      const states = () => bench.running.studio.look((db) => db.query(`SELECT COUNT(*) AS n FROM "tube_state" WHERE "basis" = 'learnt'`));
      const before = (await states()) as { n: number }[];
      await change(bench, { do: 'belief.refuse', id: piles.at(-1)!.beliefId }, { do: 'belief.accept', id: piles.at(-1)!.beliefId });
      expect(await states()).to.deep.equal(before);
    });
  });
});
