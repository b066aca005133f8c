import { expect } from 'chai';
import { colourName, hexToLab, labToLch, NAMED_COLOURS } from '../src/index.ts';

describe('names of colours', () => {
  it('are of colours about as light and as strong, all over what a screen shows', () => {
    const named = new Map(NAMED_COLOURS.map(([name, L, C]) => [name, { L, C }]));
    const steps = ['00', '20', '40', '60', '80', 'a0', 'c0', 'e0', 'ff'];
    for (const r of steps)
      for (const g of steps)
        for (const b of steps) {
          const hex = `#${r}${g}${b}`;
          const lab = hexToLab(hex);
          const [L, C] = labToLch(lab);
          const name = colourName(lab);
          expect(named.get(name)!.C, `${hex} called ${name}`).to.be.within(0.5 * C - 6, 1.9 * C + 14);
          expect(Math.abs(named.get(name)!.L - L), `${hex} called ${name}`).to.be.below(22);
        }
  });
  it('of full cyan and its like are not those of pale greys', () => {
    expect(colourName(hexToLab('#00ffff'))).to.equal('bright turquoise');
    expect(colourName(hexToLab('#6060ff'))).to.equal('bluebell');
    expect(colourName(hexToLab('#c5d9dc'))).to.equal('duck-egg blue');
  });
});
