import { expect } from 'chai';
import { byLayer, standingOf } from '../src/piles/layers.ts';

describe('piles as they lie', () => {
  it('come with the layer that is painted now first, then from the top down; in each as they came', () => {
    const piles = [3, 1, 2, 1, 4].map((layer, n) => ({ layer, n }));
    const found = byLayer(piles, 2);
    expect(found.map(({ layer, isNow }) => [layer, isNow])).to.deep.equal([
      [2, true],
      [4, false],
      [3, false],
      [1, false],
    ]);
    expect(found.at(-1)!.piles.map(({ n }) => n)).to.deep.equal([1, 3]);
    expect(byLayer([], 1)).to.deep.equal([]);
  });

  it('say whether they are to be mixed, lie there, or are gone', () => {
    const mixed = { kind: 'mixed' } as never;
    const scraped = { kind: 'scraped' } as never;
    expect(standingOf({ stages: [], there: 0 })).to.equal('planned');
    expect(standingOf({ stages: [mixed], there: 2 })).to.match(/on the palette$/);
    expect(standingOf({ stages: [mixed], there: 0 })).to.equal('used up');
    expect(standingOf({ stages: [mixed, scraped], there: 0 })).to.equal('wiped off');
  });
});
