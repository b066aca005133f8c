import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import fc from 'fast-check';
import { deltaE76, labToMunsell, munsellFromInput, munsellToLab, munsellToXyzC, writeMunsell, xyzCToMunsell } from '../src/index.ts';

const chips = readFileSync(new URL('../data/munsell-renotation.csv', import.meta.url), 'utf8')
  .trim()
  .split('\n')
  .slice(1)
  .map((line) => {
    const [hue, value, chroma, x, y, Y] = line.split(',');
    return { name: `${hue} ${value}/${chroma}`, x: Number(x), y: Number(y), Y: Number(Y) };
  });

describe('Munsell notation', () => {
  it('gives every published chip its name: 0.1 hue step, 0.02 value, 0.1 chroma', () => {
    expect(chips).to.have.length(2729);
    for (const { name, x, y, Y } of chips) {
      const wanted = munsellFromInput(name);
      const got = xyzCToMunsell([(x * Y) / y, Y, ((1 - x - y) * Y) / y]);
      const turn = ((got.hue - wanted.hue + 150) % 100) - 50;
      expect(Math.abs(turn), `${name} hue`).to.be.below(0.1);
      expect(got.value, `${name} value`).to.be.closeTo(wanted.value, 0.02);
      expect(got.chroma, `${name} chroma`).to.be.closeTo(wanted.chroma, 0.1);
    }
  });

  it('gives every name its published chip', () => {
    for (const { name, x, y } of chips) {
      const [X, Y, Z] = munsellToXyzC(munsellFromInput(name));
      expect(X / (X + Y + Z), name).to.be.closeTo(x, 2e-4);
      expect(Y / (X + Y + Z), name).to.be.closeTo(y, 2e-4);
    }
  });

  it('goes there and back between the chips', () => {
    const part = (max: number) => fc.double({ min: 0, max, noNaN: true });
    fc.assert(
      fc.property(
        part(99.99),
        fc.double({ min: 0.6, max: 9.6, noNaN: true }),
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        (hue, value, chroma) => {
          const lab = munsellToLab({ hue, value, chroma });
          expect(deltaE76(munsellToLab(labToMunsell(lab)), lab)).to.be.below(0.05);
        },
      ),
    );
  });

  it('is written and read as painters write it', () => {
    for (const text of ['7.5YR 4/6', '10RP 3/2', '2.5B 8.5/4', '5R 1/1']) expect(writeMunsell(munsellFromInput(text))).to.equal(text);
    expect(writeMunsell(munsellFromInput('N 5/'))).to.equal('N 5/');
    expect(writeMunsell(munsellFromInput('0YR 5/4'))).to.equal('10R 5/4');
    expect(writeMunsell(labToMunsell([50, 0, 0]))).to.match(/^N/);
    for (const bad of ['', 'red', '12R 4/4', '5R 11/4', '5X 4/4', 5, null]) expect(() => munsellFromInput(bad)).to.throw(/Munsell/);
  });
});
