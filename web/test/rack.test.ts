import {
  CATALOGUE,
  deltaE00,
  hexToLab,
  labOf,
  mixCurves,
  reflectance,
  temperature,
  temperatureWord,
  valueOfLightness,
  type Lab,
} from '@dusk/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { rackFor } from '../src/tubes/search.ts';
import type { Tube } from '../src/stores/tubes.ts';

const white = CATALOGUE.get('titanium-white')!;
const RACK = [...CATALOGUE].map(([pigment, paint]) => {
  const { name, colourIndex, character, caution } = paint;
  const tint = mixCurves([
    { paint: white, parts: 9 },
    { paint, parts: 1 },
  ]);
  const [masstone, pale] = [paint, tint].map((one) => labOf(reflectance(one))) as [Lab, Lab];
  return { id: pigment, pigment, name, maker: '', colourIndex, character, caution, masstone, tint: pale } as unknown as Tube;
});
const leanOf = (lab: Lab): string => temperatureWord(temperature(lab));
const rack = (line: string) => rackFor(RACK, line, leanOf);
const valuesOf = ({ masstone, tint }: Tube) => [masstone, tint].map(([L]) => valueOfLightness(L)).sort((a, b) => a - b) as [number, number];

describe('a rack of tubes', () => {
  it('is all there when nothing is asked for, dark to light', () => {
    expect(rack('')).to.have.length(RACK.length);
    const greys = rack('').map(({ masstone }) => masstone[0]);
    expect(greys).to.deep.equal([...greys].sort((a, b) => a - b));
  });

  it('is found by value: every tube that comes there, straight or with white, and no other', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 }), (a, b) => {
        const [from, to] = [Math.min(a, b) / 10, Math.max(a, b) / 10];
        const found = new Set(rack(`value ${from} to ${to}`));
        for (const tube of RACK) {
          const [least, most] = valuesOf(tube);
          expect(found.has(tube), tube.name).to.equal(least <= to && most >= from);
        }
      }),
      { numRuns: 30 },
    );
  });

  it('has the nearest to a colour first, and goes by words, lean and colour at once', () => {
    const wanted = hexToLab('#4a6b2f');
    const far = ({ masstone, tint }: Tube): number => Math.min(...[masstone, tint].map((lab) => deltaE00(lab, wanted)));
    const found = rack('#4a6b2f');
    expect(found.map(far)).to.deep.equal(RACK.map(far).sort((a, b) => a - b));
    const warm = rack('warm, transparent');
    expect(warm.length).to.be.within(1, RACK.length - 1);
    for (const { masstone, character, name } of warm) {
      expect(leanOf(masstone)).to.match(/warm/);
      expect(`${name} ${character}`).to.match(/transparent/i);
    }
    expect(rack('no such tube')).to.have.length(0);
  });
});
