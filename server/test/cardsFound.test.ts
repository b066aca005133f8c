import { expect } from 'chai';
import { deltaE00, readCard, type Card, type Lab } from '@dusk/core';
import { seeded } from '../../core/src/random.ts';
import { labOfDto, type CardQuery, type CardsFound } from '@dusk/wire';
import { foreignCard, sendCards } from './cardFiles.ts';
import { aPalette, change, newId, openBench, refused, type Bench } from './studio.ts';

const labOf = (card: Card): Lab => readCard(card).lab;

describe('finding cards', () => {
  let bench: Bench;
  const cards = [
    foreignCard('pond, light', [9, 1, 0.2], { thing: 'pond', zone: 'light', note: 'broken with a knife' }),
    foreignCard('pond, shadow', [2, 2, 0.4], { thing: 'pond', zone: 'shadow', painting: 'Mill', madeAt: '2026-06-01T08:00:00Z' }),
    foreignCard('reed', [4, 1, 0.3], { thing: 'reed' }, ['titanium-white', 'yellow-ochre', 'viridian']),
    foreignCard('roof', [4, 0.4, 2], {}, ['titanium-white', 'ultramarine-blue', 'burnt-sienna']),
    foreignCard('rust', [1, 1, 3], {}, ['titanium-white', 'yellow-ochre', 'cadmium-red']),
  ];
  before(async () => {
    bench = await openBench();
    const { fileId } = await sendCards(bench, cards);
    await change(bench, { do: 'bringing.add', id: newId(), fileId });
  });
  after(() => bench.close());

  const ask = (query: object) => bench.http.get('/api/cards-found').query({ wanted: JSON.stringify(query) });
  const find = async (query: Partial<CardQuery>): Promise<CardsFound> => (await ask(query).expect(200)).body as CardsFound;
  const names = async (query: Partial<CardQuery>): Promise<string[]> => (await find(query)).cards.map(({ name }) => name);

  it('has them dark to light, and says how many there are', async () => {
    const found = await find({});
    expect(found).to.include({ total: 5, of: 5 });
    const values = found.cards.map((card) => labOfDto(card.predicted)[0]);
    expect(values).to.deep.equal([...values].sort((a, b) => a - b));
    expect(await find({ most: 2 })).to.include({ total: 5 });
    expect(await names({ most: 2 })).to.have.length(2);
  });

  it('has the nearest to a colour first, by what an eye sees', async () => {
    for (const card of cards) {
      const order = await names({ near: { L: labOf(card)[0] + 1, a: labOf(card)[1], b: labOf(card)[2] } });
      expect(order[0]).to.equal(card.name);
      const wanted: Lab = [labOf(card)[0] + 1, labOf(card)[1], labOf(card)[2]];
      const far = (name: string): number => deltaE00(wanted, labOf(cards.find((one) => one.name === name)!));
      expect(order).to.deep.equal([...order].sort((one, other) => far(one) - far(other)));
    }
  });

  it('goes by value, temperature, words, thing, zone, painting and day', async () => {
    const values = cards.map((card) => readCard(card).value).sort((a, b) => a - b);
    expect((await find({ darkest: values[1]! - 0.01, lightest: values[3]! + 0.01 })).total).to.equal(3);
    const warm = await names({ temperature: 'warm' });
    expect(warm).to.have.members(cards.filter((card) => readCard(card).temperature >= 0.5).map(({ name }) => name));
    expect(await names({ temperature: 'cool' })).to.include('pond, light');
    expect(await names({ words: 'KNIFE broken' })).to.deep.equal(['pond, light']);
    expect(await names({ words: 'viridian' })).to.deep.equal(['reed']);
    expect(await names({ words: "'; DROP TABLE card; --" })).to.deep.equal([]);
    expect(await names({ thing: 'pond', zone: 'shadow' })).to.deep.equal(['pond, shadow']);
    expect(await names({ painting: 'Mill' })).to.deep.equal(['pond, shadow']);
    expect(await names({ since: '2026-05-20T00:00:00Z' })).to.deep.equal(['pond, shadow']);
    expect((await find({ until: '2026-05-20T00:00:00Z' })).total).to.equal(4);
  });

  it('goes by tubes in and out, and by what a palette can mix or nearly mix', async () => {
    expect(await names({ within: ['ultramarine-blue'] })).to.have.members(['pond, light', 'pond, shadow', 'roof']);
    expect(await names({ within: ['ultramarine-blue'], without: ['cadmium-red'] })).to.deep.equal(['roof']);
    const { id: paletteId } = await aPalette(bench, ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue']);
    expect(await names({ paletteId, reach: 'mixable' })).to.have.members(['pond, light', 'pond, shadow', 'rust']);
    expect(await names({ paletteId, reach: 'nearly' })).to.have.members(['reed', 'roof']);
    expect(await names({ paletteId: newId(), reach: 'mixable' })).to.deep.equal([]);
  });

  it('follows what is said of a card later, and what is put away', async () => {
    const [card] = (await find({ words: 'roof' })).cards;
    await change(bench, { do: 'card.change', id: card!.id, version: 1, note: 'for the gable' });
    expect(await names({ words: 'gable' })).to.deep.equal(['roof']);
    const dab = { lab: { L: 20, a: 1, b: 2 }, sight: 'photo' as const, at: '2026-07-01T08:00:00Z' };
    await change(bench, { do: 'card.change', id: card!.id, version: 2, dab });
    expect((await names({}))[0]).to.equal('roof');
    await change(bench, { do: 'card.change', id: card!.id, version: 3, dab: null });
    await change(bench, { do: 'card.delete', id: card!.id, version: 4 });
    expect(await find({})).to.include({ total: 4, of: 4 });
    await change(bench, { do: 'card.restore', id: card!.id, version: 5 });
    expect(await names({ words: 'gable' })).to.deep.equal(['roof']);
  });

  it('finds the cards of a set in its order', async () => {
    const all = (await find({})).cards;
    const cardIds = [all[3]!.id, all[0]!.id, all[2]!.id];
    const setId = newId();
    await change(bench, { do: 'set.add', id: setId, name: 'a row', kind: 'string', cardIds });
    expect((await find({ setId })).cards.map(({ id }) => id)).to.deep.equal(cardIds);
    expect((await find({ setId, near: labHere(all[0]!.predicted) })).cards[0]!.id).to.equal(all[0]!.id);
  });
  const labHere = ({ L, a, b }: { L: number; a: number; b: number }) => ({ L, a, b });

  it('refuses what is no question, in a sentence', async () => {
    for (const query of [
      { near: [1, 2, 3] },
      { near: { L: 300, a: 0, b: 0 } },
      { darkest: 'dark' },
      { temperature: 'lukewarm' },
      { words: 'x'.repeat(5000) },
      { within: 'white' },
      { within: Array.from({ length: 200 }, () => 'x') },
      { paletteId: 'mine', reach: 'mixable' },
      { reach: 'far' },
      { since: 'yesterday' },
      { most: 100_000 },
      { colour: 'red' },
      [],
      7,
    ])
      await refused(ask(query as object), 422);
    await refused(bench.http.get('/api/cards-found?wanted={half'), 400);
    await bench.http.get('/api/cards-found?wanted=a&wanted=b').expect(200);
  });

  it('finds cards of a studio of before, that nothing was found by', async () => {
    await bench.running.studio.look((db) => db.query('DELETE FROM "card_found"'));
    bench = await bench.restart();
    expect((await find({})).total).to.equal(5);
  });
});

describe('finding among many cards', () => {
  let bench: Bench;
  const random = seeded(12);
  const some = () => 0.05 + 9 * random() ** 3;
  const cards = Array.from({ length: 400 }, (_, i) =>
    foreignCard(`card ${i}`, [some(), some(), some()], i === 7 ? { painting: 'Zürich, Straße' } : {}),
  );
  before(async () => {
    bench = await openBench();
    const { fileId } = await sendCards(bench, cards);
    await change(bench, { do: 'bringing.add', id: newId(), fileId });
  });
  after(() => bench.close());
  const find = async (query: Partial<CardQuery>): Promise<CardsFound> =>
    (
      await bench.http
        .get('/api/cards-found')
        .query({ wanted: JSON.stringify(query) })
        .expect(200)
    ).body as CardsFound;

  it('has the very nearest, and in their order, though another measure would cut them off', async () => {
    for (let k = 0; k < 40; k++) {
      const wanted: Lab = [10 + 85 * random(), 90 * random() - 45, 90 * random() - 45];
      const found = await find({ near: { L: wanted[0], a: wanted[1], b: wanted[2] }, most: 10 });
      const all = cards.map((card) => deltaE00(wanted, labOf(card))).sort((one, other) => one - other);
      found.cards.forEach((card, i) =>
        expect(deltaE00(wanted, labOfDto(card.predicted)), `${i} of ${wanted.join()}`).to.be.closeTo(all[i]!, 0.02),
      );
      expect(found.cards).to.have.length(10);
    }
  });

  it('finds words written without their marks', async () => {
    for (const words of ['zurich', 'ZÜRICH', 'strasse', 'Straße'])
      expect(
        (await find({ words })).cards.map(({ painting }) => painting),
        words,
      ).to.deep.equal(['Zürich, Straße']);
  });
});
