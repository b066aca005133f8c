import { CATALOGUE, masstoneOf, mixtureOf, paintOfCard, writeCards, type Card, type CardTube } from '@dusk/core';
import type { FilePreview } from '@dusk/wire';
import { newId, type Bench } from './studio.ts';

/** A tube of another studio. */
export const foreignTube = (pigment: string, name = CATALOGUE.get(pigment)!.name): CardTube => {
  const { colourIndex, caution, density, K, S } = CATALOGUE.get(pigment)!;
  return { key: pigment, name, pigment, colourIndex, caution, density, nozzleMm: 8, basis: 'typical', K, S };
};

/** A card of another studio: white and two tubes more, in some parts. */
export function foreignCard(
  name: string,
  parts: readonly [number, number, number],
  more: Partial<Card> = {},
  pigments = ['titanium-white', 'ultramarine-blue', 'cadmium-red'],
): Card {
  const recipe = mixtureOf(pigments.map((tube, i) => ({ tube, parts: parts[i]! })));
  const tubes = pigments.map((pigment) => foreignTube(pigment));
  return {
    id: newId(),
    name,
    note: '',
    recipe,
    tubes,
    ml: 3,
    predicted: masstoneOf(paintOfCard({ recipe, tubes })),
    thing: '',
    zone: '',
    painting: 'Pond',
    light: '',
    film: 'full',
    medium: '',
    basis: 'typical',
    steadiness: 1,
    within: 3,
    madeAt: '2026-05-04T08:00:00Z',
    ...more,
  };
}

export const foreignCards = (count: number, name = 'reed'): Card[] =>
  Array.from({ length: count }, (_, i) => foreignCard(`${name} ${i + 1}`, [9 - (i % 8), 1 + (i % 3), 1]));

export const cardsFile = (cards: readonly Card[], more: Partial<Parameters<typeof writeCards>[0]> = {}): string =>
  writeCards({ cards, sets: [], palettes: [], ...more });

/** Sends a file of cards; the answer is still to be judged. */
export const sendFile = (bench: Bench, text: string | Buffer, name = 'cards.json') =>
  bench.http.post('/api/card-files').attach('file', Buffer.from(text), name);

/** Sends cards ahead. @returns what bringing them would do */
export const sendCards = async (bench: Bench, cards: readonly Card[]): Promise<FilePreview> =>
  (await sendFile(bench, cardsFile(cards)).expect(201)).body as FilePreview;
