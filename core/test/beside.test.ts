import { expect } from 'chai';
import fc from 'fast-check';
import {
  asSeen,
  besidePatch,
  CATALOGUE,
  colourFromText,
  deltaE00,
  differenceWords,
  hexToLab,
  labOf,
  labToLch,
  lchToLab,
  mixCurves,
  hasBrowns,
  nudged,
  temperature,
  readArea,
  reflectance,
  shownBeside,
  turnWords,
  valueOfLightness,
  type Lab,
} from '../src/index.ts';
import { runs } from './runs.ts';

const anyColour: fc.Arbitrary<Lab> = fc
  .tuple(
    fc.double({ min: 15, max: 92, noNaN: true }),
    fc.double({ min: 4, max: 60, noNaN: true }),
    fc.double({ min: 0, max: 359, noNaN: true }),
  )
  .map(([L, C, h]) => lchToLab([L, C, h]));

describe('nudging a chip', () => {
  it('moves value by a tenth a step and nothing else', () => {
    fc.assert(
      fc.property(anyColour, fc.integer({ min: -8, max: 8 }), (lab, n) => {
        const moved = nudged(lab, 'value', n);
        const wanted = Math.min(10, Math.max(0, valueOfLightness(lab[0]) + n / 10));
        expect(valueOfLightness(moved[0])).to.be.closeTo(wanted, 1e-6);
        expect([moved[1], moved[2]]).to.deep.equal([lab[1], lab[2]]);
      }),
    );
  });

  it('turns hue or changes chroma by about as much to the eye, and comes back', () => {
    fc.assert(
      fc.property(anyColour, (lab) => {
        const turned = nudged(lab, 'hue', 1);
        expect(Math.hypot(turned[1] - lab[1], turned[2] - lab[2])).to.be.closeTo(1.2, 0.02);
        expect(labToLch(turned)[1]).to.be.closeTo(labToLch(lab)[1], 1e-9);
        expect(deltaE00(nudged(turned, 'hue', -1), lab)).to.be.below(0.01);
        expect(labToLch(nudged(lab, 'chroma', 2))[1]).to.be.closeTo(labToLch(lab)[1] + 2, 1e-9);
      }),
    );
    expect(nudged([50, 2, 0], 'chroma', -9)[1]).to.be.closeTo(0, 1e-9);
    const rust: Lab = [42, 34, 30];
    expect(temperature(nudged(rust, 'temperature', 3)) - temperature(rust)).to.be.above(2);
    expect(nudged(rust, 'temperature', 3)[0]).to.equal(42);
    const browner = nudged(rust, 'brown', 2);
    expect(browner[0]).to.be.below(42);
    expect(labToLch(browner)[1]).to.be.below(labToLch(rust)[1]);
    expect(labToLch(browner)[2]).to.be.closeTo(labToLch(rust)[2], 1e-6);
    expect([hasBrowns(rust), hasBrowns([50, 2, 1]), hasBrowns([40, -5, -35])]).to.deep.equal([true, false, false]);
  });

  it('moves a grey towards warm and cool, in words too', () => {
    expect(turnWords([50, 0, 0])).to.deep.equal({ onward: 'warmer', back: 'cooler' });
    const warmer = nudged([50, 0, 0], 'hue', 2);
    expect(warmer[1]).to.be.above(0);
    expect(warmer[2]).to.be.above(0);
  });

  it('is called what a painter calls it', () => {
    const at = (h: number) => turnWords(lchToLab([50, 30, h]));
    expect(at(15)).to.deep.equal({ onward: 'yellower', back: 'more violet' });
    // A rust red is told from its neighbours.
    for (const hue of [30, 45, 55]) expect(at(hue)).to.deep.equal({ onward: 'yellower', back: 'redder' });
    expect(at(58)).to.deep.equal({ onward: 'yellower', back: 'redder' });
    expect(at(90)).to.deep.equal({ onward: 'greener', back: 'redder' });
    expect(at(150)).to.deep.equal({ onward: 'bluer', back: 'yellower' });
    expect(at(275)).to.deep.equal({ onward: 'more violet', back: 'greener' });
    expect(at(350).onward).to.equal('yellower');
  });
});

describe('a difference in words', () => {
  const wanted = lchToLab([45, 20, 80]);
  it('says value first, then hue, then strength', () => {
    const seen = nudged(nudged(nudged(wanted, 'value', -4), 'hue', -4), 'chroma', -5);
    expect(differenceWords(seen, wanted)).to.deep.equal(['0.4 darker', 'redder', 'duller']);
    expect(differenceWords(nudged(wanted, 'hue', 4), wanted)).to.deep.equal(['greener']);
    expect(differenceWords(nudged(wanted, 'chroma', 3), wanted)).to.deep.equal(['brighter']);
    expect(differenceWords(wanted, wanted)).to.deep.equal([]);
    expect(differenceWords([50, -2, 1.4], [50, 2, -1.4])).to.include('greener');
    expect(differenceWords([50, 2, -1.4], [50, -2, 1.4])).to.include('more violet');
  });

  it('has a word for whatever an eye sees', () => {
    const some = fc.tuple(fc.double({ min: 15, max: 95, noNaN: true }), ...[0, 0].map(() => fc.double({ min: -30, max: 30, noNaN: true })));
    fc.assert(
      fc.property(some, some, ([L, a, b], [dL, da, db]) => {
        const wanted: Lab = [L, a!, b!];
        const seen: Lab = [Math.min(98, Math.max(5, L + (dL - 55) / 20)), a! + da! / 10, b! + db! / 10];
        expect(differenceWords(seen, wanted).length > 0 || deltaE00(seen, wanted) < 2.5).to.equal(true);
      }),
      { numRuns: runs(400) },
    );
  });
  it('speaks of warm and cool near neutral', () => {
    expect(differenceWords([50, 0, -3], [50, 0, 0])[0]).to.match(/cooler/);
    expect(differenceWords([50, 0.1, 0.1], [50, 0, 0])).to.deep.equal([]);
  });
});

describe('a colour as it is written', () => {
  it('is read in any notation', () => {
    expect(deltaE00(colourFromText(' #8a6b4f '), hexToLab('#8a6b4f'))).to.be.below(1e-9);
    expect(deltaE00(colourFromText('8A6B4F'), hexToLab('#8a6b4f'))).to.be.below(1e-9);
    expect(colourFromText('52, -3.5, 12')).to.deep.equal([52, -3.5, 12]);
    expect(colourFromText('L 52 a −3.5 b 12')).to.deep.equal([52, -3.5, 12]);
    const grey = colourFromText('N 5');
    expect(valueOfLightness(grey[0])).to.be.closeTo(5, 0.01);
    expect(valueOfLightness(colourFromText('7.5YR 4/6')[0])).to.be.closeTo(4, 0.02);
  });
  it('is refused in a sentence when it is none', () => {
    for (const bad of ['', 'brown', '1 2', '1 2 3 4', '500 0 0', '#12', '7.5ZZ 4/6', '7.5YR 40/6'])
      expect(() => colourFromText(bad), bad)
        .to.throw(/./)
        .with.property('name', 'CraftError');
  });
});

describe('paint photographed beside a patch', () => {
  const photo = (paint: readonly number[], patch: readonly number[]) => {
    const data = new Uint8ClampedArray(8 * 4 * 4);
    for (let i = 0; i < 32; i++) data.set([...(i % 8 < 4 ? paint : patch), 255], i * 4);
    const pixels = { data, width: 8, height: 4 };
    return [readArea(pixels, 1.5, 1.5, 1), readArea(pixels, 6, 1.5, 1)] as const;
  };
  it('is what it would be with the patch white, whatever the cast of the light', () => {
    const [a, whiteA] = photo([100, 80, 60], [220, 220, 220]);
    const plain = besidePatch(a, whiteA, 'white paper');
    expect(labToLch(plain)[2]).to.be.within(55, 80);
    const [b, whiteB] = photo([220, 220, 220], [220, 220, 220]);
    const paper = besidePatch(b, whiteB, 'white paper');
    expect(Math.hypot(paper[1], paper[2])).to.be.below(0.1);
    expect(paper[0]).to.be.within(94, 97);
    const [c, whiteC] = photo([150, 120, 80], [230, 184, 123]);
    expect(Math.hypot(besidePatch(c, whiteC, 'white paper')[1], besidePatch(c, whiteC, 'white paper')[2])).to.be.below(3);
    expect(besidePatch(a, whiteA, 'grey card')[0]).to.be.below(plain[0]);
  });
  it('is refused where the photo has lost the light', () => {
    const [paint, patch] = photo([100, 80, 60], [255, 255, 255]);
    expect(() => besidePatch(paint, patch, 'white paper')).to.throw(/patch is clipped/);
    expect(() => besidePatch(patch, paint, 'white paper')).to.throw(/paint is clipped/);
    const [dark, night] = photo([3, 3, 3], [5, 5, 5]);
    expect(() => besidePatch(dark, night, 'white paper')).to.throw(/too dark/);
  });
});

describe('a chip beside real paint', () => {
  it('is left alone while the screen’s white looks like the paper', () => {
    const same = shownBeside([50, 20, -10], [100, 0, 0]);
    expect(deltaE00(same, [50, 20, -10])).to.be.below(1e-6);
  });
  it('leans and dims as the paper does', () => {
    const paper: Lab = [85, 2, 14];
    expect(deltaE00(shownBeside([100, 0, 0], paper), paper)).to.be.below(1e-6);
    const chip = shownBeside([50, 0, 0], paper);
    expect(chip[0]).to.be.below(50);
    expect(chip[2]).to.be.above(3);
  });
});

describe('a pile as it was seen', () => {
  it('has the look, and mixes from there', () => {
    const mixed = mixCurves([
      { paint: CATALOGUE.get('titanium-white')!, parts: 4 },
      { paint: CATALOGUE.get('yellow-ochre')!, parts: 2 },
      { paint: CATALOGUE.get('ultramarine-blue')!, parts: 1 },
    ]);
    const [L, a, b] = labOf(reflectance(mixed));
    for (const seen of [
      [L - 4, a + 2, b - 3],
      [L + 3, a, b + 5],
      [L, a - 4, b],
    ] as const) {
      expect(deltaE00(labOf(reflectance(asSeen(mixed, seen))), seen)).to.be.below(0.1);
    }
    expect(asSeen(mixed, [L, a, b]).K).to.deep.equal(mixed.K);
  });
  it('stays paint, even for a look that no such pile has', () => {
    const white = CATALOGUE.get('titanium-white')!;
    const odd = asSeen(white, [20, 60, -60]);
    odd.K.forEach((k, i) => expect(k).to.be.within(white.K[i]! * Math.exp(-6.01), white.K[i]! * Math.exp(6.01)));
  });
});
