import { expect } from 'chai';
import fc from 'fast-check';
import { CATALOGUE, hexToLab, labOf, reflectance, valueToY, valueOfLightness } from '@dusk/core';
import { SURROUNDS } from '@dusk/wire';
import { inShort, stepsOf } from '../src/live/measures.ts';
import { matches } from '../src/live/search.ts';
import { spreadDiscs } from '../src/live/spread.ts';
import { surroundStyle } from '../src/live/surround.ts';
import { closeness, describe as inWords, firstName, valueDifference } from '../src/live/words.ts';
import type { Tube } from '../src/stores/tubes.ts';

const tube = (pigment: string, nozzleMm = 6): Tube => {
  const { K, S, name, caution, colourIndex, character, drying, lightfastness, density } = CATALOGUE.get(pigment)!;
  const paint = { K, S };
  const masstone = labOf(reflectance(paint));
  const more = { maker: '', pigment, colourIndex, character, drying, lightfastness, density, stateId: 's', basis: 'typical' as const };
  return { id: pigment, name, caution, nozzleMm, paint, masstone, tint: masstone, ...more };
};
const TUBES = new Map(['titanium-white', 'yellow-ochre', 'phthalo-blue'].map((p) => [p, tube(p)]));

describe('discs on the ledge', () => {
  const discs = fc
    .array(
      fc.record({
        x: fc.double({ min: 40, max: 1240, noNaN: true }),
        y: fc.constantFrom(30, 60, 90),
        size: fc.integer({ min: 26, max: 40 }),
      }),
      {
        minLength: 1,
        maxLength: 16,
      },
    )
    .map((list) => list.sort((a, b) => a.x - b.x));

  it('keep their order and stay on it', () => {
    fc.assert(
      fc.property(discs, (list) => {
        const xs = spreadDiscs(list, 1280);
        xs.forEach((x, i) => expect(x).to.be.within(list[i]!.size / 2 - 1e-9, 1280 - list[i]!.size / 2 + 1e-9));
        for (let i = 0; i < xs.length; i++)
          for (let j = i + 1; j < xs.length; j++) if (list[i]!.y === list[j]!.y) expect(xs[j]! - xs[i]!).to.be.above(-1e-9);
      }),
    );
  });

  it('do not hide one another, and stay where they were when they need not move', () => {
    const crowd = [300, 302, 305, 306].map((x) => ({ x, y: 50, size: 36 }));
    const xs = spreadDiscs(crowd, 1280);
    xs.slice(1).forEach((x, i) => expect(x - xs[i]!).to.be.above(30));
    expect(
      spreadDiscs(
        [
          { x: 100, y: 50, size: 36 },
          { x: 300, y: 50, size: 36 },
        ],
        1280,
      ),
    ).to.deep.equal([100, 300]);
  });
});

describe('the surround of judged colours', () => {
  const Y = (hex: string) => valueToY(valueOfLightness(hexToLab(hex)[0])) / 100;
  const contrast = (a: string, b: string) => (Math.max(Y(a), Y(b)) + 0.05) / (Math.min(Y(a), Y(b)) + 0.05);

  it('is strictly neutral, but for the ground, and carries ink that reads', () => {
    for (const choice of SURROUNDS)
      for (const ground of ['#b9a58c', '#8f7f6a', '#20150f', '#f4efe6', '#787878']) {
        const style = surroundStyle(choice, ground);
        if (choice !== 'ground') expect(new Set(style['--surround'].match(/[0-9a-f]{2}/g)).size, choice).to.equal(1);
        for (const ink of ['--surround-ink', '--surround-soft'] as const)
          expect(contrast(style['--surround'], style[ink]), `${choice} ${ground} ${ink}`).to.be.above(4.5);
      }
  });
});

describe('a recipe in steps', () => {
  it('adds up to the amount, in mixing order, with a chip after each', () => {
    const steps = stepsOf(
      [
        { parts: 1, tubeId: 'yellow-ochre' },
        { parts: 5, tubeId: 'titanium-white' },
      ],
      TUBES,
      6,
    );
    expect(steps.map((s) => s.name)).to.deep.equal(['Titanium white', 'Yellow ochre']);
    const ml = steps.reduce((sum, s) => sum + (s.beadMm * Math.PI * 9) / 1000, 0);
    expect(ml).to.be.closeTo(6, 1e-9);
    expect(steps[0]!.pileAfter[0]).to.be.above(steps[1]!.pileAfter[0]);
    expect(inShort(steps)).to.equal('5 Titanium white · 1 Yellow ochre');
  });

  it('makes a let-down in a batch that can be squeezed', () => {
    const letdown = [
      { tubeId: 'titanium-white', parts: 39 },
      { tubeId: 'phthalo-blue', parts: 1 },
    ];
    const [step] = stepsOf(
      [
        { parts: 11, tubeId: 'titanium-white' },
        { parts: 1, letdown },
      ],
      TUBES,
      4,
    ).filter((s) => s.letdown);
    expect(step!.name).to.include('let down');
    expect(step!.letdown!.at(-1)!.beadMm).to.be.closeTo(3, 1e-9);
    expect(step!.batch).to.be.above(1);
    const [plenty] = stepsOf([{ parts: 1, letdown }], TUBES, 400).filter((s) => s.letdown);
    expect(plenty!.batch).to.equal(1);
  });
});

describe('words', () => {
  it('say value first, then what else is off', () => {
    expect(valueDifference(0.02)).to.equal('same value');
    expect(valueDifference(0.31)).to.equal('0.3 lighter');
    expect(valueDifference(-1.2)).to.equal('1.2 darker');
    expect([0.4, 1.5, 3, 9].map(closeness)).to.deep.equal(['a match', 'passes for it', 'near it', 'out of reach']);
    expect(inWords([50, 0, 0], 0)).to.equal('neutral, grey');
    expect(firstName([60, 15, 25])).to.match(/^moderate orange \d\.\d$/);
  });

  it('find a tube by name, pigment or character', () => {
    const blue = tube('phthalo-blue');
    for (const wanted of ['', null, 'phthalo', 'PB15', 'enormous blue']) expect(matches(blue, wanted)).to.equal(true);
    expect(matches(blue, 'phthalo opaque')).to.equal(false);
  });
});
