import { expect } from 'chai';
import fc from 'fast-check';
import { areaWarning, deltaE76, hexToLab, readArea, valueOfLightness, valueRange } from '../src/index.ts';
import { picture } from './pictures.ts';

describe('reading an area', () => {
  it('gives a flat colour back, whatever the size of the area', () => {
    const flat = picture(40, 30, () => [0x8a, 0x6b, 0x4f]);
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 50, noNaN: true }),
        fc.double({ min: -5, max: 50, noNaN: true }),
        fc.nat({ max: 60 }),
        (x, y, r) => {
          expect(deltaE76(readArea(flat, x, y, r).lab, hexToLab('#8a6b4f'))).to.be.below(1e-6);
        },
      ),
    );
  });

  it('averages in linear light: half black, half white is the grey of half the light', () => {
    const halves = picture(64, 64, (x) => (x % 2 ? [255, 255, 255] : [0, 0, 0]));
    const { lab, pixels } = readArea(halves, 31, 31, 20);
    expect(lab[0]).to.be.closeTo(76, 1);
    expect(pixels).to.be.closeTo(Math.PI * 400, 60);
  });

  it('stays inside its disc', () => {
    const dot = picture(50, 50, (x, y) => (Math.hypot(x - 25, y - 25) <= 5 ? [200, 30, 30] : [0, 0, 255]));
    expect(deltaE76(readArea(dot, 25, 25, 5).lab, hexToLab('#c81e1e'))).to.be.below(1e-6);
    expect(deltaE76(readArea(dot, 25, 25, 9).lab, hexToLab('#c81e1e'))).to.be.above(20);
  });

  it('says where the photo has lost the light or the dark', () => {
    const at = (v: number) =>
      areaWarning(
        readArea(
          picture(9, 9, () => [v, v, v]),
          4,
          4,
          3,
        ),
      );
    expect(at(255)).to.match(/Clipped/);
    expect(at(0)).to.match(/Crushed/);
    expect(at(128)).to.equal(undefined);
  });
});

describe('the range of values', () => {
  it('runs from the darkest to the lightest, stray pixels left out', () => {
    const ramp = picture(200, 100, (x, y) => (x === 0 && y < 3 ? [255, 255, 255] : [60 + x / 2, 60 + x / 2, 60 + x / 2]));
    const { darkest, lightest } = valueRange(ramp);
    expect(darkest).to.be.closeTo(valueOfLightness(hexToLab('#3c3c3c')[0]), 0.1);
    expect(lightest).to.be.closeTo(valueOfLightness(hexToLab('#9f9f9f')[0]), 0.1);
  });
});
