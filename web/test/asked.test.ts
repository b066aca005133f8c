import { expect } from 'chai';
import { colourFromText, colourFromWords } from '@dusk/core';
import fc from 'fast-check';
import { askedFor } from '../src/stores/asked.ts';

const TUBES = [
  { name: 'Cadmium red', pigment: 'cadmium-red' },
  { name: 'Cadmium yellow', pigment: 'cadmium-yellow' },
  { name: 'Viridian', pigment: 'viridian' },
];
const asked = (line: string) => askedFor(line, TUBES);

describe('a line that cards are asked for by', () => {
  it('has a value, tubes in and out, a lean and a colour; what is nothing else is words', () => {
    expect(asked('copper, value 3, without cadmium')).to.deep.equal({
      words: 'copper',
      within: [],
      without: ['cadmium-red', 'cadmium-yellow'],
      darkest: 2.5,
      lightest: 3.5,
    });
    expect(asked('value 5,5 to 2')).to.include({ words: '', darkest: 2, lightest: 5.5 });
    expect(asked('value 3-5 warm wall')).to.include({ words: 'wall', darkest: 3, lightest: 5, temperature: 'warm' });
    expect(asked('with viridian, bowl')).to.deep.include({ words: 'bowl', within: ['viridian'] });
  });

  it('finds what a colour is like, written or said', () => {
    expect(asked('#7a5a48 wall').near).to.deep.equal({ lab: colourFromText('#7a5a48'), says: '#7a5a48' });
    expect(asked('5YR 6/4').near!.lab).to.deep.equal(colourFromText('5YR 6/4'));
    expect(asked('like dark green, bowl')).to.deep.include({
      words: 'bowl',
      near: { lab: colourFromWords('dark green'), says: 'dark green' },
    });
    // What is no colour stays what it is.
    expect(asked('like grandmother')).to.deep.include({ words: 'like grandmother' });
    expect(asked('without anything')).to.deep.include({ words: 'without anything', without: [] });
  });

  it('takes whatever is written, and keeps values within the scale', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), fc.double({ min: 0, max: 99, noNaN: true }), (text, value) => {
        const found = asked(`${text} value ${value.toFixed(1)}`);
        if (found.darkest === undefined) return;
        expect(found.darkest).to.be.within(0, 10);
        expect(found.lightest).to.be.within(found.darkest, 10);
      }),
    );
  });
});
