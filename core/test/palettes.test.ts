import { expect } from 'chai';
import fc from 'fast-check';
import {
  alikeAmong,
  atOnce,
  bestFew,
  CATALOGUE,
  chipsAtValue,
  chipsNear,
  chipsOfFamily,
  CHIP_FAMILIES,
  coloursOfPicture,
  coverOf,
  CraftError,
  deltaE00,
  deviate,
  earnings,
  endsOf,
  fewer,
  labOf,
  labToLch,
  layBench,
  layPalette,
  mixCurves,
  mixturesOf,
  oneMore,
  polish,
  reach,
  readyMadeAmong,
  reflectance,
  solve,
  valueOfLightness,
  USUAL_LIMITS,
  type ChipFamily,
  type Lab,
  type WeightedColour,
} from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { TWELVE_TUBES } from './twelveTubes.ts';
import { runs } from './runs.ts';

const tube = (id: string) => ({ id, K: CATALOGUE.get(id)!.K, S: CATALOGUE.get(id)!.S });
const TWELVE = TWELVE_TUBES.map(tube);
const SIX = TWELVE.filter((_, i) => [0, 1, 3, 5, 6, 7].includes(i));
const white = tube('titanium-white');

/** Colours as they stand in pictures: mostly dull, some strong, of unequal areas. */
function someColours(seed: number, count: number): WeightedColour[] {
  const random = seeded(seed);
  return Array.from({ length: count }, () => {
    const C = 70 * random() ** 2;
    const h = 2 * Math.PI * random();
    return { lab: [12 + 80 * random(), C * Math.cos(h), C * Math.sin(h)] as Lab, weight: random() ** 2 + 0.01 };
  });
}

describe('what some tubes come to of a picture', () => {
  const colours = someColours(3, 60);

  it('is what the solver comes to, or nearer', () => {
    const own = coverOf(SIX, colours);
    const palette = layPalette(SIX, USUAL_LIMITS);
    colours.forEach(({ lab }, i) => {
      const solved = polish(palette, solve(palette, lab).recipes[0]!, lab).deltaE00;
      if (solved <= 3) expect(own.nearest[i]!.distance, lab.join()).to.be.at.most(3.05);
    });
  });

  it('adds up, and is never less with a tube more', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 2, maxLength: 5 }), (set) => {
        const bench = layBench(TWELVE);
        const some = colours.slice(0, 12);
        const one = reach(bench, set, some);
        const { match, near, not } = one.cover;
        expect(match + near + not).to.be.closeTo(1, 1e-9);
        const further = TWELVE.findIndex((_, i) => !set.includes(i));
        const more = reach(bench, [...set, further], some, one);
        some.forEach((_, i) => expect(more.nearest[i]!.distance).to.be.at.most(one.nearest[i]!.distance + 1e-9));
      }),
      { numRuns: runs(15) },
    );
  });

  it('is reckoned from fewer colours with nothing lost of their weight, accents among them', () => {
    const many = [...someColours(4, 300), { lab: [50, 90, 60] as Lab, weight: 0.004 }];
    const few = fewer(many, 40);
    const whole = (list: readonly WeightedColour[]) => list.reduce((sum, { weight }) => sum + weight, 0);
    expect(few).to.have.length(40);
    expect(whole(few)).to.be.closeTo(whole(many), 1e-9);
    expect(few.some(({ lab }) => deltaE00(lab, [50, 90, 60]) < 8)).to.equal(true);
  });

  it('takes its colours from a picture, each with its share', () => {
    const data = new Uint8ClampedArray(4 * 100);
    for (let i = 0; i < 100; i++) data.set(i < 75 ? [200, 60, 40, 255] : [30, 40, 90, 255], 4 * i);
    const found = coloursOfPicture({ data, width: 10, height: 10 });
    expect(found.map(({ weight }) => weight)).to.deep.equal([0.75, 0.25]);
  });

  it('a palette of one tube comes to its own colour alone', () => {
    const own = labOf(reflectance(white));
    const { nearest } = coverOf(
      [white],
      [
        { lab: own, weight: 1 },
        { lab: [40, 30, 20], weight: 1 },
      ],
    );
    expect(nearest[0]!.distance).to.be.below(0.01);
    expect(nearest[1]!.distance).to.be.above(20);
  });
});

describe('the best few of a rack', () => {
  it('lose at most two parts in a hundred against looking through all', () => {
    for (const seed of [5, 11, 23]) {
      const colours = someColours(seed, 40);
      const rack = TWELVE.slice(0, 8);
      const bench = layBench(rack);
      let best = 0;
      for (let a = 1; a < 8; a++)
        for (let b = a + 1; b < 8; b++)
          for (let c = b + 1; c < 8; c++) best = Math.max(best, reach(bench, [0, a, b, c], colours).cover.merit);
      const few = atOnce(bestFew(rack, colours, { count: 4, must: ['titanium-white'] }));
      expect(few.ids).to.have.length(4).and.include('titanium-white');
      expect(few.cover.merit).to.be.above(0.98 * best);
    }
  });

  it('keep to what must be and must not be among them, and say what each adds', () => {
    const colours = someColours(7, 30);
    const few = atOnce(
      bestFew(TWELVE, colours, { count: 5, must: ['raw-umber'], mustNot: ['cadmium-red', 'cadmium-yellow', 'cadmium-orange'] }),
    );
    expect(few.ids).to.include('raw-umber');
    expect(few.ids.some((id) => id.startsWith('cadmium'))).to.equal(false);
    expect(few.adds.map(({ id }) => id)).to.have.members(few.ids);
    expect(few.adds.every(({ merit }) => merit >= 0)).to.equal(true);
    expect(few.more.length).to.be.above(0);
    expect(few.more.every(({ id }) => !few.ids.includes(id))).to.equal(true);
  });

  it('say what is wrong with a wish', () => {
    const wish = (part: object) => () => atOnce(bestFew(SIX, someColours(1, 4), { count: 3, ...part }));
    expect(wish({ count: 9 })).to.throw(CraftError, /Only 6 tubes/);
    expect(wish({ must: ['none'] })).to.throw(CraftError, /not in the rack/);
    expect(wish({ must: ['viridian'], mustNot: ['viridian'] })).to.throw(CraftError, /both/);
    expect(wish({ count: 1, must: ['viridian', 'cadmium-red'] })).to.throw(CraftError, /only 1/);
    expect(wish({ count: 0.5 })).to.throw(CraftError);
    expect(() => atOnce(bestFew(SIX, [], { count: 2 }))).to.throw(CraftError, /no picture/);
  });

  it('name the tube that earns least, and the one to add', () => {
    // A picture of mixtures of four tubes has no use for the fifth, and misses the fourth where that is gone.
    const four = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue'].map(tube);
    const random = seeded(2);
    const colours = Array.from({ length: 40 }, () => ({
      lab: labOf(reflectance(mixCurves(four.map((paint) => ({ paint, parts: 0.05 + random() ** 2 }))))),
      weight: 1,
    }));
    const earned = earnings([...four, tube('viridian')], colours, ['titanium-white']);
    const least = [...earned].sort((a, b) => a.merit - b.merit)[0]!;
    expect(least.id).to.equal('viridian');
    const [first] = atOnce(oneMore(four.slice(0, 3), TWELVE, colours));
    expect(['ultramarine-blue', 'cerulean-blue']).to.include(first!.id);
    expect(first!.match).to.be.above(0.1);
    expect(first!.lost).to.not.equal(null);
  });
});

describe('what tubes make', () => {
  const table = mixturesOf(TWELVE);

  it('are mixtures of two or three, told in the colour they mix to', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: table.count - 1 }), (at) => {
        const [near] = chipsNear(table, [table.lab[3 * at]!, table.lab[3 * at + 1]!, table.lab[3 * at + 2]!], 1);
        const { tubes, parts, lab } = near!;
        const mixed = labOf(reflectance(mixCurves(tubes.map((t, k) => ({ paint: TWELVE[t]!, parts: parts[k]! })))));
        expect(deltaE00(mixed, lab)).to.be.below(0.01);
        expect(Math.max(...parts)).to.equal(parts[0]);
      }),
      { numRuns: runs(60) },
    );
  });

  it('at one value are of that value, one a cell, and go without a tube that is taken away', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.5, max: 9, noNaN: true }), fc.integer({ min: 0, max: 11 }), (value, gone) => {
        const sheet = chipsAtValue(table, value, new Set([gone]));
        const places = sheet.chips.map(({ row, column }) => `${row} ${column}`);
        expect(new Set(places).size).to.equal(places.length);
        for (const { lab, tubes, row } of sheet.chips) {
          expect(valueOfLightness(lab[0])).to.be.closeTo(value, 0.19);
          expect(tubes).to.not.include(gone);
          expect(row).to.equal(Math.min(sheet.rows - 1, Math.floor(labToLch(lab)[1] / 7)));
        }
      }),
      { numRuns: runs(20) },
    );
    expect(chipsAtValue(table, 5).chips.length).to.be.above(60);
  });

  it('of a family lie within it, the lightest first', () => {
    for (const family of Object.keys(CHIP_FAMILIES) as ChipFamily[]) {
      const { chips, rows, columns, steps } = chipsOfFamily(table, family);
      const { hue, chroma, light } = CHIP_FAMILIES[family];
      expect(chips.length, family).to.be.above(20);
      for (const { lab, row, column } of chips) {
        const [L, C, h] = labToLch(lab);
        expect(L).to.be.within(light[0], light[1]);
        expect(C).to.be.within(chroma[0] - 1e-4, chroma[1] + 1e-4);
        if (family !== 'greys') expect(h).to.be.within(hue[0], hue[1]);
        expect(row).to.be.within(0, rows - 1);
        expect(column).to.be.within(0, columns - 1);
        expect(Math.abs(steps[row]! - valueOfLightness(L))).to.be.at.most(0.26);
      }
    }
  });

  it('have ends: darkest, lightest, a black, a grey, the strongest of each hue', () => {
    const ends = endsOf(table)!;
    for (let at = 0; at < table.count; at++) {
      expect(table.lab[3 * at]!).to.be.at.least(ends.darkest.lab[0]);
      expect(table.lab[3 * at]!).to.be.at.most(ends.lightest.lab[0]);
    }
    expect(ends.lightest.tubes).to.deep.equal([0]);
    expect(labToLch(ends.black!.lab)[1]).to.be.below(4);
    expect(labToLch(ends.grey!.lab)[1]).to.be.below(3);
    expect(ends.strongest.length).to.be.above(8);
    // Without tube black a black is mixed.
    expect(endsOf(table, new Set([8]))!.black!.tubes).to.not.include(8);
    expect(endsOf(table, new Set(TWELVE.keys()))).to.equal(undefined);
  });

  it('of one tube are that tube', () => {
    const one = mixturesOf([white]);
    expect(one.count).to.equal(1);
    expect(chipsAtValue(one, 3).chips).to.deep.equal([]);
    expect(endsOf(one)!.darkest.tubes).to.deep.equal([0]);
  });
});

describe('tubes that are alike', () => {
  const named = (id: string, pigments = [id]) => ({ ...tube(id), pigments });
  it('are told: one pigment twice, and nothing else of a box of different ones', () => {
    const strong = {
      ...deviate(tube('burnt-sienna'), {
        strength: 1.06,
        shiftNm: 0.5,
        extender: 0,
        shapeK: new Float64Array(36),
        shapeS: new Float64Array(36),
      }),
    };
    const rack = [...TWELVE.map(({ id }) => named(id)), { ...strong, id: 'mine', pigments: ['burnt-sienna'] }];
    const [first, ...more] = alikeAmong(rack, white);
    expect(first!.ids).to.have.members(['burnt-sienna', 'mine']);
    expect(first!.isOnePigment).to.equal(true);
    expect(more).to.deep.equal([]);
  });

  it('or ready mixed are told by what makes them', () => {
    const mixed = mixCurves([
      { paint: tube('yellow-ochre'), parts: 8 },
      { paint: tube('viridian'), parts: 1 },
    ]);
    const rack = [...SIX.map(({ id }) => named(id)), { ...mixed, id: 'meadow', pigments: ['PG18', 'PY43'] }];
    const [found, ...more] = atOnce(readyMadeAmong(rack, white));
    expect(found!.id).to.equal('meadow');
    expect(found!.of).to.deep.equal([
      { id: 'yellow-ochre', parts: 8 },
      { id: 'viridian', parts: 1 },
    ]);
    expect(found!.apart).to.be.below(0.1);
    expect(more).to.deep.equal([]);
  });
});
