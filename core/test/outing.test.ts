import { expect } from 'chai';
import { CraftError, readReturn, writeReturn, type OutingReturn } from '@dusk/core';

const ID = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const home = (): OutingReturn => ({
  outing: ID(1),
  paintingId: ID(2),
  title: 'Courtyard',
  news: [
    {
      pileId: ID(3),
      stageId: ID(4),
      sightingId: ID(5),
      lookId: ID(6),
      ticked: [0, 1],
      mixedAt: '2026-06-01T10:00:00.000Z',
      look: { lab: [60, 2, 3], said: 'a good deal lighter', at: '2026-06-01T10:05:00.000Z' },
      note: 'the sun went',
    },
    { pileId: ID(7), stageId: ID(8), sightingId: ID(9), lookId: ID(10), ticked: [], mixedAt: undefined, look: undefined, note: '' },
  ],
});

describe('what comes home from an outing', () => {
  it('is read as it was written', () => {
    expect(readReturn(writeReturn(home()))).to.deep.equal(home());
    expect(readReturn(`\uFEFF${writeReturn(home())}`).news).to.have.length(2);
  });

  it('is refused whole, in a sentence, where something is wrong with it', () => {
    const spoilt = (part: object, ofNews: object = {}): string => {
      const json = JSON.parse(writeReturn(home())) as { news: object[] };
      Object.assign(json, part);
      if (Array.isArray(json.news) && json.news[0]) Object.assign(json.news[0], ofNews);
      return JSON.stringify(json);
    };
    for (const text of [
      '',
      '[]',
      '{"format":"auburn-dusk-cards","version":1}',
      writeReturn(home()).slice(0, 300),
      spoilt({ version: 2 }),
      spoilt({ outing: 'x' }),
      spoilt({ news: {} }),
      spoilt({ news: [7] }),
      spoilt({}, { pileId: "' OR 1" }),
      spoilt({}, { ticked: [-1] }),
      spoilt({}, { ticked: ['one'] }),
      spoilt({}, { mixedAt: 'at ten' }),
      spoilt({}, { look: { lab: [1, 2], said: '', at: '2026-06-01T10:00' } }),
      spoilt({}, { look: { lab: [300, 0, 0], said: '', at: '2026-06-01T10:00' } }),
      spoilt({}, { note: 'x'.repeat(9000) }),
    ])
      expect(() => readReturn(text), text.slice(0, 80)).to.throw(CraftError, /Nothing of this file was taken/);
  });
});
