import { expect } from 'chai';
import {
  checkCard,
  deltaE00,
  leavesOf,
  masstoneOf,
  mixtureOf,
  paintOfCard,
  paintOfMixture,
  stepsOfCard,
  trustInMixture,
  type Card,
} from '@dusk/core';
import { labOfDto, type CardDto, type CardsFound, type Operation, type PaintingDto, type PileDto } from '@dusk/wire';
import { aPainting, aPile, change, idOf, mixed, newId, openBench, refused, seen, send, type Bench } from './studio.ts';

describe('cards', () => {
  let bench: Bench;
  let painting: PaintingDto;
  before(async () => {
    bench = await openBench();
    painting = await aPainting(bench);
  });
  after(() => bench.close());

  const all = async (): Promise<readonly CardDto[]> => ((await bench.http.get('/api/cards-found').expect(200)).body as CardsFound).cards;
  const make = async (pileId: string): Promise<CardDto> => (await change(bench, { do: 'card.add', id: newId(), pileId })).cards![0]!;
  const asCard = (card: CardDto): Card => ({
    ...card,
    madeAt: card.createdAt,
    tubes: card.tubes.map((tube) => ({ ...tube, K: Float64Array.from(tube.K), S: Float64Array.from(tube.S) })),
    predicted: labOfDto(card.predicted),
    target: undefined,
    dab: undefined,
    seen: card.seen ? labOfDto(card.seen) : undefined,
  });
  const names = ({ tubes }: CardDto): string[] => tubes.map(({ pigment }) => pigment).sort();

  it('stand for themselves: of their own tubes, and of the colour they say', async () => {
    const pile = await aPile(bench, painting.id);
    const card = await make(pile.id);
    checkCard(asCard(card));
    expect(card).to.include({ name: pile.name, painting: painting.title, version: 1, pileId: pile.id });
    expect(deltaE00(labOfDto(card.predicted), labOfDto(pile.predicted.lab))).to.be.below(1e-6);
    expect(names(card)).to.deep.equal(['titanium-white', 'ultramarine-blue']);
    expect((await all()).map(({ id }) => id)).to.include(card.id);
  });

  it('of a child have her mothers opened', async () => {
    const mother = await aPile(bench, painting.id);
    const plan = {
      form: 1,
      heaps: [
        {
          ingredients: [
            { pile: mother.id, parts: 7 },
            { tube: idOf(bench, 'cadmium-red'), parts: 2 },
          ],
        },
      ],
    };
    const id = newId();
    const rows = await change(bench, { do: 'pile.add', id, paintingId: painting.id, name: 'a child', plan, ml: 3 } as unknown as Operation);
    const child = rows.piles!.find((pile) => pile.id === id)!;
    const card = await make(id);
    checkCard(asCard(card));
    expect(names(card)).to.deep.equal(['cadmium-red', 'titanium-white', 'ultramarine-blue']);
    // One heap of as much as the child was, of her colour; what she came of is kept.
    expect(card.recipe.heaps).to.have.length(1);
    expect(card.made).to.match(/Titanium white.*Cadmium red|Cadmium red.*Titanium white/);
    expect(deltaE00(labOfDto(card.predicted), labOfDto(child.predicted.lab))).to.be.below(1);
    const amounts = stepsOfCard(asCard(card), card.ml);
    expect(amounts.reduce((sum, { ml }) => sum + ml, 0)).to.be.closeTo(3, 0.2);
  });

  it('of a pile that was put right say what went into it, and how it looked', async () => {
    const pile = await aPile(bench, painting.id);
    const stageId = newId();
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3.6, 'ultramarine-blue': 0.4 }));
    const added = {
      id: newId(),
      tubeId: idOf(bench, 'cadmium-red'),
      stateId: bench.tubes.get('cadmium-red')!.stateId,
      ml: 0.2,
      low: 0.2,
      high: 0.2,
    };
    await change(bench, { do: 'stage.add', id: stageId, pileId: pile.id, kind: 'added', additions: [added] });
    await change(bench, ...seen(stageId, { L: 58, a: 6, b: -20 }));
    const made = mixtureOf([
      { tube: 'titanium-white', parts: 3.6 },
      { tube: 'ultramarine-blue', parts: 0.4 },
      { tube: 'cadmium-red', parts: 0.2 },
    ]);
    const card = await make(pile.id);
    checkCard(asCard(card));
    expect(card.seen).to.include({ L: 58, a: 6, b: -20 });
    const share = leavesOf(card.recipe).find(
      ({ source }) => (source as { tube: string }).tube === card.tubes.find(({ pigment }) => pigment === 'cadmium-red')!.key,
    )!.share;
    // Measured anew in whole parts, near what it truly was; that stands behind it.
    expect(share).to.be.closeTo(0.2 / 4.2, 0.012);
    for (const { parts } of card.recipe.heaps.flatMap(({ ingredients }) => ingredients)) expect(Number.isInteger(parts)).to.equal(true);
    const own = new Map(asCard(card).tubes.map((tube) => [tube.pigment, tube]));
    expect(card.made).to.match(/^8\d % Titanium white, 9\.5 % Ultramarine blue, 4\.8 % Cadmium red$/);
    expect(
      deltaE00(labOfDto(card.predicted), masstoneOf(paintOfMixture(made, (source) => own.get((source as { tube: string }).tube)!))),
    ).to.be.below(1);
  });

  it('of a child whose mother was put away still have her opened', async () => {
    const mother = await aPile(bench, painting.id);
    const plan = {
      form: 1,
      heaps: [
        {
          ingredients: [
            { pile: mother.id, parts: 3 },
            { tube: idOf(bench, 'cadmium-red'), parts: 1 },
          ],
        },
      ],
    };
    const id = newId();
    await change(bench, { do: 'pile.add', id, paintingId: painting.id, name: 'an orphan', plan, ml: 3 } as unknown as Operation);
    await change(bench, { do: 'pile.delete', id: mother.id, version: 1 });
    const card = await make(id);
    checkCard(asCard(card));
    expect(names(card)).to.deep.equal(['cadmium-red', 'titanium-white', 'ultramarine-blue']);
    const sheet = { sheet: 'order', paper: 'A4', paintingId: painting.id, pileIds: [id] };
    await bench.http
      .get('/api/sheets')
      .query({ wanted: JSON.stringify(sheet) })
      .expect(200);
  });

  it('of a pile whose plan became another after it was mixed say what lies there', async () => {
    const pile = await aPile(bench, painting.id);
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3.6, 'ultramarine-blue': 0.4 }));
    const plan = { form: 1, heaps: [{ ingredients: [{ tube: idOf(bench, 'cadmium-red'), parts: 1 }] }] };
    await change(bench, { do: 'pile.change', id: pile.id, version: 1, plan } as unknown as Operation);
    const card = await make(pile.id);
    checkCard(asCard(card));
    expect(names(card)).to.deep.equal(['titanium-white', 'ultramarine-blue']);
  });

  it('say how the pile is laid: its film, its medium, the ground it lies on', async () => {
    const own = await aPainting(bench);
    const groundOf = { tubeId: idOf(bench, 'burnt-sienna'), wiped: 'wiped back' as const };
    await change(bench, { do: 'painting.change', id: own.id, version: own.version, ground: '#d9a06b', groundOf, habit: 'thin' });
    const below = await aPile(bench, own.id);
    const pile = await aPile(bench, own.id);
    expect(await make(pile.id)).to.deep.include({ film: 'thin over a ground of Burnt sienna, wiped back', medium: '' });
    const laid = { how: 'glaze' as const, with: 'medium' as const, over: 'wet' as const, takes: 'a lot' as const };
    await change(bench, { do: 'pile.change', id: pile.id, version: pile.version, purpose: { overId: below.id, laid } });
    const card = await make(pile.id);
    expect(card).to.deep.include({ film: `glaze over wet ${below.name}, taking up a lot`, medium: 'resin and oil' });
    checkCard(asCard(card));
    const sheet = { sheet: 'painting', paper: 'A4', paintingId: own.id };
    await bench.http
      .get('/api/sheets')
      .query({ wanted: JSON.stringify(sheet) })
      .expect(200);
  });

  it('say how sure they are, and what each tube’s curves rested on', async () => {
    const pile = await aPile(bench, painting.id);
    const card = await make(pile.id);
    expect(card.tubes.every(({ basis }) => ['typical', 'learnt'].includes(basis))).to.equal(true);
    expect(card.within).to.be.within(0.5, 12);
    const { recipe, tubes } = asCard(card);
    const of = (source: unknown) => tubes.find(({ key }) => key === (source as { tube: string }).tube)!;
    if (card.basis === 'typical')
      expect(card.within).to.be.closeTo(trustInMixture(recipe, of, (source) => of(source).basis).errorEstimate, 0.05);
  });

  it('never change with what they were made of, and go away and come back', async () => {
    const pile = await aPile(bench, painting.id);
    const card = await make(pile.id);
    const { version } = (await change(bench, { do: 'pile.change', id: pile.id, version: 1, name: 'another', note: 'later' })).piles!.find(
      ({ id }) => id === pile.id,
    ) as PileDto;
    await change(bench, { do: 'pile.delete', id: pile.id, version });
    const there = async () => (await all()).find(({ id }) => id === card.id);
    expect(await there()).to.deep.equal(card);
    const forced = await bench.running.studio.data
      .query(`UPDATE "card" SET "body" = '{}', "version" = "version" + 1`)
      .catch((cause: Error) => cause.message);
    expect(String(forced)).to.match(/never changes/);
    await change(bench, { do: 'card.change', id: card.id, version: 1, note: 'for the rim' });
    expect(await there()).to.deep.equal({ ...card, version: 2, note: 'for the rim' });
    await change(bench, { do: 'card.delete', id: card.id, version: 2 });
    expect(await there()).to.equal(undefined);
    await change(bench, { do: 'card.restore', id: card.id, version: 3 });
    expect((await there())?.recipe).to.deep.equal(card.recipe);
  });

  it('are not made of what is not known', async () => {
    const pile = await aPile(bench, painting.id);
    await change(bench, mixed(bench, pile.id, { 'titanium-white': 3, 'ultramarine-blue': 1 }));
    await change(bench, { do: 'stage.add', id: newId(), pileId: pile.id, kind: 'changed', additions: [] });
    await refused(send(bench, [{ do: 'card.add', id: newId(), pileId: pile.id }]), 422);
    await refused(send(bench, [{ do: 'card.add', id: newId(), pileId: newId() }]), 404);
    expect(checkCard(asCard((await all())[0]!)).predicted).to.deep.equal(masstoneOf(paintOfCard(asCard((await all())[0]!))));
  });
});
