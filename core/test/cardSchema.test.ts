import { readFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { expect } from 'chai';
import { CATALOGUE, masstoneOf, mixtureOf, paintOfCard, readCards, writeCards, type Card } from '@dusk/core';

const SCHEMA = JSON.parse(readFileSync(new URL('../../docs/cards.schema.json', import.meta.url), 'utf8')) as object;

function aCard(): Card {
  const tubes = ['titanium-white', 'viridian'].map((slug) => {
    const { name, colourIndex, caution, density, K, S } = CATALOGUE.get(slug)!;
    return { key: slug, name, pigment: slug, colourIndex, caution, density, nozzleMm: 6, basis: 'typical' as const, K, S };
  });
  const recipe = mixtureOf([
    { tube: 'titanium-white', parts: 5 },
    { tube: 'viridian', parts: 1 },
  ]);
  return {
    id: 'one',
    name: 'reed',
    note: '',
    recipe,
    tubes,
    ml: 3,
    predicted: masstoneOf(paintOfCard({ recipe, tubes })),
    seen: [60, -20, 3],
    dab: { lab: [60, -19, 3], sight: 'eye', at: '2026-03-01T10:00:00Z' },
    thing: '',
    zone: '',
    painting: '',
    light: '',
    film: 'full',
    medium: '',
    basis: 'typical',
    steadiness: 1,
    within: 3,
    madeAt: '2026-03-01T10:00:00Z',
  };
}

describe('the schema of card files', () => {
  const isCards = new Ajv2020({ strict: false }).compile(SCHEMA);
  const file = (): Record<string, unknown> & { cards: Record<string, unknown>[]; tubes: Record<string, unknown>[] } =>
    JSON.parse(
      writeCards({
        cards: [aCard()],
        sets: [{ id: 's', name: 'S', kind: 'string', note: '', cards: ['one'] }],
        palettes: [{ id: 'p', name: 'P', tubes: aCard().tubes }],
      }),
    ) as never;

  it('is what is written', () => {
    expect(isCards(file()), JSON.stringify(isCards.errors)).to.equal(true);
  });

  it('says no where the reader does, and allows what the reader passes over', () => {
    const spoilt: readonly ((json: ReturnType<typeof file>) => void)[] = [
      (json) => (json['version'] = 2),
      (json) => (json['format'] = 'recipes'),
      (json) => delete json.cards[0]!['predicted'],
      (json) => (json.cards[0]!['name'] = ''),
      (json) => (json.cards[0]!['recipe'] = []),
      (json) => (json.cards[0]!['recipe'] = [[{ tube: 't1', parts: -1 }]]),
      (json) => (json.cards[0]!['ml'] = 0),
      (json) => (json.cards[0]!['madeAt'] = 'yesterday'),
      (json) => (json.cards[0]!['basis'] = 'guessed'),
      (json) => (json.cards[0]!['seen'] = [160, 0, 0]),
      (json) => (json.tubes[0]!['K'] = [1, 2]),
      (json) => (json.tubes[0]!['nozzleMm'] = 0),
      (json) => (json['sets'] = [{ id: 's', name: 'S', kind: 'heap', cards: [] }]),
      (json) => (json['palettes'] = [{ id: 'p', name: 'P', tubes: [] }]),
    ];
    for (const [i, spoil] of spoilt.entries()) {
      const json = file();
      spoil(json);
      expect(isCards(json), `${i}`).to.equal(false);
      expect(() => readCards(JSON.stringify(json)), `${i}`).to.throw();
    }
    const more = { ...file(), mood: 'calm' };
    expect(isCards(more)).to.equal(true);
    expect(readCards(JSON.stringify(more)).cards).to.have.length(1);
  });
});
