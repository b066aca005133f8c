import { expect } from 'chai';
import fc from 'fast-check';
import { frameOf } from '@dusk/core';
import { onScreen, rectangle, thinned } from '../src/picture/drawing.ts';
import { fitsCanvas, squareOn } from '../src/picture/grid.ts';
import { cropOfWhole } from '../src/reference/cropping.ts';

const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const corner = fc.tuple(within(-50, 450), within(-50, 350)) as fc.Arbitrary<readonly [number, number]>;

describe('a crop that is drawn', () => {
  it('lies within the picture, in the proportions of the canvas where there is one', () => {
    fc.assert(
      fc.property(corner, corner, fc.option(within(0.3, 3), { nil: undefined }), (one, other, ratio) => {
        const box = rectangle(one, other, 400, 300, ratio);
        expect(box.x).to.be.within(-1e-6, 400 + 1e-6);
        expect(box.y).to.be.within(-1e-6, 300 + 1e-6);
        expect(box.x + box.width).to.be.at.most(400 + 1e-6);
        expect(box.y + box.height).to.be.at.most(300 + 1e-6);
        if (ratio !== undefined && box.width > 1 && box.height > 1) expect(box.width / box.height).to.be.closeTo(ratio, 1e-6);
      }),
    );
  });
});

describe('a line that is drawn', () => {
  it('is thinned to what can be told apart, and to so many corners', () => {
    const line = Array.from({ length: 2000 }, (_, i) => [200 + 150 * Math.cos(i / 300), 150 + 100 * Math.sin(i / 300)] as const);
    const corners = thinned(line, 120);
    expect(corners.length).to.be.within(60, 120);
    for (let i = 1; i < corners.length; i++)
      expect(Math.hypot(corners[i]![0] - corners[i - 1]![0], corners[i]![1] - corners[i - 1]![1])).to.be.at.least(4);
  });
});

describe('an outline over the picture', () => {
  it('goes with how the picture is cut and turned', () => {
    const frame = frameOf({ turn: 1 }, 400, 300);
    const disc = onScreen(frame, 2, { x: 9.5, y: 19.5, radius: 5 });
    expect([disc.x, disc.y, disc.r]).to.deep.equal([560, 20, 10]);
    const drawn = onScreen(frame, 1, { x: 5, y: 5, radius: 5, points: [0, 0, 10, 0, 10, 10] });
    expect(drawn.path).to.match(/^M300\.0 0\.0L300\.0 10\.0L290\.0 10\.0Z$/);
  });
});

describe('a grid', () => {
  it('says how large a square is on the canvas', () => {
    expect(squareOn({ widthMm: 600, heightMm: 400 }, { across: 4, down: 3, diagonals: false, thirds: false })).to.equal('15 × 13.3 cm');
  });
  it('says nothing in centimetres over a picture that is not cut as the canvas is', () => {
    expect(fitsCanvas({ widthMm: 400, heightMm: 800 }, { width: 400, height: 300 })).to.equal(false);
    expect(fitsCanvas({ widthMm: 400, heightMm: 300 }, { width: 300, height: 400 })).to.equal(false);
    expect(fitsCanvas({ widthMm: 400, heightMm: 800 }, { width: 599.6, height: 1200 })).to.equal(true);
  });
});

describe('a crop within a crop', () => {
  const whole = [400, 300] as const;
  const shares = fc.record({ x: within(0, 0.5), y: within(0, 0.5), width: within(0.1, 0.5), height: within(0.1, 0.5) });

  it('is of what was seen, also where that was a crop itself', () => {
    fc.assert(
      fc.property(shares, shares, (outer, inner) => {
        const seen = { width: outer.width * 400, crop: outer, isMirrored: false };
        const drawn = {
          x: inner.x * outer.width * 400,
          y: inner.y * outer.height * 300,
          width: inner.width * outer.width * 400,
          height: inner.height * outer.height * 300,
        };
        const found = cropOfWhole(drawn, seen, whole);
        expect(found.x).to.be.closeTo(outer.x + inner.x * outer.width, 1e-9);
        expect(found.y).to.be.closeTo(outer.y + inner.y * outer.height, 1e-9);
        expect(found.width).to.be.closeTo(Math.max(0.01, inner.width * outer.width), 1e-9);
      }),
    );
  });

  it('is cut from the other side where it is seen mirrored: what lies at the right is the left of the picture', () => {
    const drawn = { x: 300, y: 0, width: 100, height: 300 };
    const seen = { width: 400, crop: undefined };
    expect(cropOfWhole(drawn, { ...seen, isMirrored: true }, whole).x).to.equal(0);
    expect(cropOfWhole(drawn, { ...seen, isMirrored: false }, whole).x).to.equal(0.75);
  });

  it('is never nothing', () => {
    const found = cropOfWhole({ x: 10, y: 10, width: 0, height: 0 }, { width: 400, crop: undefined, isMirrored: false }, whole);
    expect([found.width, found.height]).to.deep.equal([0.01, 0.01]);
  });
});
