import { expect } from 'chai';
import {
  BY_KNIFE,
  deltaE00,
  masstoneOf,
  paintOfMixture,
  type Lab,
  type Leaf,
  type Measure,
  type Mixture,
  type PaintCurves,
} from '@dusk/core';
import { labOfDto, operationsToMix, type MixingTable, type Operation, type PaintingDto, type PaletteDto, type PileDto } from '@dusk/wire';
import {
  aPainting,
  aPile,
  change,
  idOf,
  lightBlue,
  mixed,
  newId,
  openBench,
  read,
  readPainting,
  refused,
  send,
  undo,
  type Bench,
} from './studio.ts';

describe('piles and their kin', () => {
  let bench: Bench;
  let painting: PaintingDto;
  before(async () => {
    bench = await openBench();
    painting = await aPainting(bench);
  });
  after(() => bench.close());

  const tubePaint = (tube: string): PaintCurves => {
    const { curves } = [...bench.tubes.values()].find((t) => t.id === tube)!;
    return { K: Float64Array.from(curves.K), S: Float64Array.from(curves.S) };
  };
  const aChild = (motherId: string, red: number, id = newId()) => ({
    do: 'pile.add' as const,
    id,
    paintingId: painting.id,
    name: 'a child',
    plan: {
      form: 1,
      heaps: [
        {
          ingredients: [
            { pile: motherId, parts: 8 },
            { tube: idOf(bench, 'cadmium-red'), parts: red },
          ],
        },
      ],
    },
    ml: 2,
  });
  const make = async (op: Operation): Promise<PileDto> => (await change(bench, op)).piles!.find((p) => p.id === (op as { id: string }).id)!;
  /** What it takes to say that a plan was mixed here. */
  const tableOf = (measure?: Measure): MixingTable => ({
    paintingId: painting.id,
    newId,
    stateOf: (id) => [...bench.tubes.values()].find((t) => t.id === id)!.stateId,
    stageOf: () => '',
    handlingOf: () => BY_KNIFE,
    ...(measure && { measure }),
    nameOf: () => 'a heap',
  });
  const now = async (id: string): Promise<PileDto> => (await readPainting(bench, painting.id)).rows.piles!.find((p) => p.id === id)!;

  it('are planned from piles that are planned, and come to the colour their tubes give', async () => {
    const mother = await aPile(bench, painting.id);
    const child = await make(aChild(mother.id, 1) as Operation);
    const grandchild = await make(aChild(child.id, 2) as Operation);
    const plans = new Map([mother, child].map((p) => [p.id, p.plan as Mixture]));
    const paintOf = (source: Leaf): PaintCurves =>
      'tube' in source ? tubePaint(source.tube) : paintOfMixture(plans.get(source.pile)!, paintOf);
    const own: Lab = masstoneOf(paintOfMixture(grandchild.plan, paintOf));
    expect(deltaE00(labOfDto(grandchild.predicted.lab), own)).to.be.below(1e-6);
  });

  it('are never mixed from themselves, however far round', async () => {
    const mother = await aPile(bench, painting.id);
    const child = await make(aChild(mother.id, 1) as Operation);
    const { plan } = aChild(child.id, 1);
    await refused(send(bench, [{ do: 'pile.change', id: mother.id, version: 1, plan: plan as never }]), 422);
    const own = newId();
    await refused(send(bench, [aChild(own, 1, own) as Operation]), 422);
    expect((await now(mother.id)).version).to.equal(1);
  });

  it('follow what a mother really became once she is mixed', async () => {
    const mother = await aPile(bench, painting.id);
    await change(bench, mixed(bench, mother.id, { 'titanium-white': 1, 'ultramarine-blue': 1 }));
    const dark = await make(aChild(mother.id, 1) as Operation);
    const planned = await make(aChild((await aPile(bench, painting.id)).id, 1) as Operation);
    expect(dark.predicted.lab.L).to.be.below(planned.predicted.lab.L - 10);
  });

  it('of heaps within heaps become what they were planned to be', async () => {
    const tube = (pigment: string, parts: number) => ({ tube: idOf(bench, pigment), parts });
    const heaps = [
      { ingredients: [tube('ultramarine-blue', 2), tube('cadmium-red', 1)] },
      { ingredients: [tube('titanium-white', 9), { heap: 0, parts: 1 }] },
      { ingredients: [tube('titanium-white', 5), { heap: 1, parts: 1 }] },
    ];
    const pile = await make({ ...lightBlue(bench, painting.id), plan: { form: 1, heaps } } as unknown as Operation);
    const ops = operationsToMix(pile.id, pile.plan, pile.ml, tableOf());
    await change(bench, ...ops);
    const [stage] = (await now(pile.id)).stages;
    expect(deltaE00(labOfDto(stage!.predicted!), labOfDto(pile.predicted.lab))).to.be.below(0.01);
  });

  it('mixed by eye are kept as ranges with their words, and by the knife’s tip however they are measured', async () => {
    const tube = (pigment: string, parts: number) => ({ tube: idOf(bench, pigment), parts });
    const heaps = [{ ingredients: [tube('titanium-white', 240), tube('ultramarine-blue', 80), tube('cadmium-red', 1)] }];
    for (const measure of ['eye', 'parts'] as const) {
      const pile = await make({ ...lightBlue(bench, painting.id), plan: { form: 1, heaps }, ml: 6 } as unknown as Operation);
      const ops = operationsToMix(pile.id, pile.plan, pile.ml, tableOf(measure));
      await change(bench, ...ops);
      const { additions } = (await now(pile.id)).stages[0]!;
      const [white, blue, red] = ['titanium-white', 'ultramarine-blue', 'cadmium-red'].map((pigment) =>
        additions.find(({ tubeId }) => tubeId === idOf(bench, pigment))!,
      );
      expect(red).to.include({ said: 'a touch' });
      expect(red!.high / red!.low).to.be.above(1.5);
      if (measure === 'eye') {
        expect([white!.said, blue!.said]).to.deep.equal(['mostly', 'some']);
        expect(blue!.low).to.be.below(blue!.ml);
        expect(blue!.high).to.be.above(blue!.ml);
      } else expect([white!.low, white!.high, blue!.low, blue!.high]).to.deep.equal([white!.ml, white!.ml, blue!.ml, blue!.ml]);
    }
  });

  it('say what they are for, in which layer and string they stand; all of it can be undone', async () => {
    const beside = await aPile(bench, painting.id);
    const string = { id: newId(), at: 3 };
    const made = await make({
      ...lightBlue(bench, painting.id),
      purpose: { thing: 'jug', zone: 'shadow', neighbours: [{ pileId: beside.id, least: 2, most: 6 }], leftBroken: true },
      note: 'for the rim too',
      string,
    } as unknown as Operation);
    expect(made).to.deep.include({ layer: 1, note: 'for the rim too', string });
    expect(made.purpose).to.deep.equal({
      thing: 'jug',
      zone: 'shadow',
      neighbours: [{ pileId: beside.id, least: 2, most: 6 }],
      leftBroken: true,
    });
    const id = newId();
    const laidOver = { overId: beside.id, laid: { how: 'glaze' as const, with: 'medium' as const, over: 'dry' as const } };
    await send(bench, [{ do: 'pile.change', id: made.id, version: 1, layer: 2, note: '', purpose: laidOver }], id).expect(201);
    expect(await now(made.id)).to.deep.include({ layer: 2, note: '', purpose: laidOver });
    await undo(bench, id).expect(201);
    expect(await now(made.id)).to.deep.include({ layer: 1, note: 'for the rim too', purpose: made.purpose });
    const outline = [0.1, 0.5, 0.9].map((x) => ({ x, y: x * x }));
    const whole = {
      laid: { how: 'loaded' as const, over: 'wet' as const, takes: 'a hint' as const, brushId: beside.id, layers: 2 },
      passage: { cm2: 120, outline, open: 0.25, heldBack: 0.1 },
      inPlace: [
        { tubeId: idOf(bench, 'viridian'), said: 'a touch' as const },
        { pileId: beside.id, said: 'some' as const },
      ],
    };
    await change(bench, { do: 'pile.change', id: made.id, version: 3, purpose: whole });
    expect((await now(made.id)).purpose).to.deep.equal(whole);
  });

  it('lie on a ground that is made of a tube, by a painting’s habit, in an order of the day', async () => {
    const { id: paintingId, version } = await aPainting(bench);
    const news = {
      ground: '#d9a06b',
      groundOf: { tubeId: idOf(bench, 'burnt-sienna'), wiped: 'wiped back' as const },
      habit: 'thin darks, thick lights' as const,
      day: { order: 'back to front' as const, minutes: 40 },
      valueOnly: true,
    };
    const id = newId();
    const { rows } = (await send(bench, [{ do: 'painting.change', id: paintingId, version, ...news }], id).expect(201)).body as {
      rows: { paintings: PaintingDto[] };
    };
    const [kept] = rows.paintings;
    expect(kept).to.deep.include(news);
    for (const bad of [
      { groundOf: { tubeId: newId(), wiped: 'wiped back' } },
      { groundOf: { tubeId: idOf(bench, 'burnt-sienna'), wiped: 'scrubbed' } },
      { habit: 'thick' },
      { valueOnly: 'yes' },
      { day: { order: 'as it comes' } },
      { day: { order: 'darks first', minutes: 0 } },
    ])
      await refused(send(bench, [{ do: 'painting.change', id: paintingId, version: kept!.version, ...bad } as unknown as Operation]), 422);
    const back = (await undo(bench, id).expect(201)).body as { rows: { paintings: PaintingDto[] } };
    expect(back.rows.paintings[0]).to.deep.include({ groundOf: null, habit: null, day: null, valueOnly: false });
  });

  it('may have one white for the lights, of the palette’s own', async () => {
    const { paletteId } = await aPainting(bench);
    const palette = (await read(bench)).rows.palettes!.find(({ id }) => id === paletteId)!;
    const [tubeId] = palette.tubeIds;
    const id = newId();
    const set = { do: 'palette.change' as const, id: paletteId, version: palette.version, lightsWhiteId: tubeId! };
    const { rows } = (await send(bench, [set], id).expect(201)).body as { rows: { palettes: PaletteDto[] } };
    expect(rows.palettes[0]!.lightsWhiteId).to.equal(tubeId);
    await refused(send(bench, [{ ...set, version: rows.palettes[0]!.version, lightsWhiteId: newId() }]), 422);
    const back = (await undo(bench, id).expect(201)).body as { rows: { palettes: PaletteDto[] } };
    expect(back.rows.palettes[0]!.lightsWhiteId).to.equal(null);
  });

  it('are of the layer that is painted, unless said', async () => {
    const { version } = (await readPainting(bench, painting.id)).rows.paintings?.[0] ?? painting;
    await change(bench, { do: 'painting.change', id: painting.id, version, layer: 3, ceiling: 6 });
    expect((await aPile(bench, painting.id)).layer).to.equal(3);
  });

  it('are not their own neighbours, nor beside what is not there', async () => {
    const { id, version } = await aPile(bench, painting.id);
    const other = await aPile(bench, painting.id);
    for (const purpose of [
      { laid: { how: 'poured' } },
      { laid: { how: 'glaze', with: 'honey' } },
      { laid: { over: 'the moon' } },
      { laid: 'thin' },
      { laid: { how: 'thin', um: 30 } },
      { laid: { how: 'thin', takes: 'all of it' } },
      { laid: { how: 'thin', layers: 0 } },
      { laid: { how: 'thin', brushId: newId() } },
      { laid: { how: 'thin', brushId: id } },
      { passage: { cm2: 0 } },
      { inPlace: [{ said: 'a touch' }] },
      { inPlace: [{ tubeId: newId(), said: 'a touch' }] },
      { inPlace: [{ pileId: id, said: 'a touch' }] },
      { inPlace: [{ tubeId: idOf(bench, 'viridian'), said: 'lots' }] },
      { passage: { outline: [] } },
      { passage: { cm2: 9, open: 1 } },
      { passage: { cm2: 9, outline: [{ x: 0, y: 0 }] } },
      { passage: { cm2: 9, outline: Array.from({ length: 3 }, () => ({ x: 2, y: 0 })) } },
      { neighbours: [{ pileId: id }] },
      { overId: id },
      { neighbours: [{ pileId: newId() }] },
      { also: [newId()] },
      { neighbours: [{ pileId: other.id, least: 6, most: 2 }] },
      { neighbours: [{ pileId: other.id }, { pileId: other.id }, { pileId: other.id }] },
      { also: ['here'] },
      { thing: 7 },
      { leftBroken: 'yes' },
    ])
      await refused(send(bench, [{ do: 'pile.change', id, version, purpose } as unknown as Operation]), 422);
    for (const layer of [0, 1.5, 99, '2'])
      await refused(send(bench, [{ do: 'pile.change', id, version, layer } as unknown as Operation]), 422);
    expect((await now(id)).purpose).to.deep.equal({});
  });

  it('has a plan that was changed back letter for letter, since ticks at the easel go by it', async () => {
    const pile = await aPile(bench, painting.id);
    const id = newId();
    const [heap] = pile.plan.heaps;
    const plan = { form: 1, heaps: [{ ingredients: heap!.ingredients.map((one) => ({ ...one, parts: one.parts + 1 })) }] };
    await send(bench, [{ do: 'pile.change', id: pile.id, version: pile.version, plan } as never], id).expect(201);
    const { rows } = (await undo(bench, id).expect(201)).body as { rows: { piles: PileDto[] } };
    expect(JSON.stringify(rows.piles.find((one) => one.id === pile.id)!.plan)).to.equal(JSON.stringify(pile.plan));
  });
});
