import { expect } from 'chai';
import fc from 'fast-check';
import {
  beadLength,
  best,
  CATALOGUE,
  deltaE00,
  doseError,
  dosingOf,
  handFromInput,
  isTouch,
  isTube,
  KNIFE_BORE_MM,
  labOf,
  layPalette,
  leavesOf,
  masstoneOf,
  measuredAnew,
  measureOut,
  mixCurves,
  mixtureOf,
  paintOfMixture,
  portionsOn,
  reflectance,
  SHORTEST_BEAD_MM,
  solve,
  touchesInWords,
  type Leaf,
  type Mixture,
  type Palette,
} from '../src/index.ts';
import { ADVICE_PALETTES, knownTubes } from '../bench/advicePalettes.ts';
import { anyPalette, anyTarget, expectLaid, handling, LABS, ODD, palettes } from './laidByHand.ts';
import { some } from './some.ts';
import { runs } from './runs.ts';

describe('a hand', () => {
  it('lays beads, and what is less as touches of the knife’s tip', () => {
    const mm = (ml: number) => beadLength(ml, 6);
    expect(dosingOf(0.5, 6)).to.deep.equal({ how: 'bead', mm: mm(0.5) });
    expect(dosingOf(0.015, 6)).to.deep.equal({ how: 'touch', touches: 1 });
    expect(dosingOf(0.05, 6)).to.deep.equal({ how: 'touch', touches: 3 });
    expect([0.011, 0.018, 0.04, 0.055].map(touchesInWords)).to.deep.equal(['a speck', 'a touch', 'two touches', 'three touches']);
    for (const said of ['a speck', 'a touch', 'two touches']) expect(isTouch({ said })).to.equal(true);
    for (const said of ['a little', 'mostly', undefined]) expect(isTouch(said === undefined ? {} : { said })).to.equal(false);
  });

  it('is no worse at laying more', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 20, noNaN: true }), fc.double({ min: 1, max: 5, noNaN: true }), (ml, more) => {
        expect(doseError(ml * more, 6)).to.be.at.most(doseError(ml, 6) + 0.03);
      }),
    );
  });

  it('is told as it is, or refused in words', () => {
    expect(handFromInput({ bead: 0.2 })).to.deep.equal({ bead: 0.2, beadMm: 0.7, touch: 0.4 });
    for (const bad of [7, null, [], { bead: -1 }, { bead: 'x' }, { knife: 1 }, { bead_mm: 90 }])
      expect(() => handFromInput(bad)).to.throw(/hand/i);
  });
});

describe('a recipe for a hand', () => {
  it('asks for nothing that cannot be laid, for a little, a pile or a tube of it', () => {
    fc.assert(
      fc.property(anyPalette, anyTarget, fc.constantFrom(1.5, 4, 20), (palette, target, amountMl) => {
        for (const { mixture } of some(solve(palette, target, { amountMl }).recipes)) expectLaid(mixture, amountMl);
      }),
      { numRuns: runs(20) },
    );
  });

  it('is what it says, touches counted', () => {
    fc.assert(
      fc.property(anyPalette, anyTarget, (palette, target) => {
        const { mixture, lab } = best(palette, target);
        expect(deltaE00(labOf(reflectance(mixCurves(portionsOn(palette, mixture)))), lab)).to.be.below(1e-6);
        for (const { ingredients } of mixture.heaps)
          for (const { parts, range } of ingredients) if (range) expect(parts).to.be.within(range[0], range[1]);
      }),
      { numRuns: runs(20) },
    );
  });

  it('puts a touch in last', () => {
    const palette = palettes.get('four: strong primaries')!;
    let touched = 0;
    for (const target of LABS) {
      const last = best(palette, target).mixture.heaps.at(-1)!.ingredients;
      const first = last.findIndex(isTouch);
      if (first < 0) continue;
      touched++;
      expect(last.slice(first).every(isTouch)).to.equal(true);
    }
    expect(touched).to.be.above(5);
  });

  it('never needs more heaps for a larger amount', () => {
    let more = 0;
    for (const name of ['six, mixed darks', 'twelve, ordinary']) {
      const palette = palettes.get(name)!;
      for (const target of LABS.filter((_, i) => i % 4 === 1)) {
        const found = [1.5, 4, 20, 100].map((amountMl) => best(palette, target, { amountMl }));
        for (let i = 1; i < found.length; i++) {
          const [lesser, larger] = [found[i - 1]!, found[i]!];
          if (larger.mixture.heaps.length <= lesser.mixture.heaps.length) continue;
          // More heaps only where a little has to do without what they bring.
          more++;
          expect(larger.score, `${name} ${target.join()}`).to.be.below(lesser.score - 0.5);
        }
      }
    }
    expect(more).to.be.at.most(1);
  });

  it('is one heap and few tubes as a rule', () => {
    const counted = (palette: Palette, amountMl: number) => {
      const recipes = LABS.map((target) => best(palette, target, { amountMl }));
      return {
        oneHeap: recipes.filter(({ mixture }) => mixture.heaps.length === 1).length,
        twoFirst: recipes.filter(({ mixture }) => mixture.heaps.length > 2).length,
        threeTubes: recipes.filter(({ flat }) => Object.keys(flat).length <= 3).length,
      };
    };
    const twelve = counted(palettes.get('twelve, ordinary')!, 4);
    expect(twelve.oneHeap).to.be.at.least(80);
    expect(twelve.threeTubes).to.be.at.least(65);
    expect(twelve.twoFirst).to.be.at.most(6);
    const six = counted(palettes.get('six, mixed darks')!, 4);
    expect(six.oneHeap).to.be.at.least(70);
    expect(six.threeTubes).to.be.at.least(50);
    expect(counted(palettes.get('twelve, ordinary')!, 1.5).oneHeap).to.be.at.least(65);
  });

  it('keeps the closest beside it, whatever work that is', () => {
    const palette = palettes.get('twelve, ordinary')!;
    let told = 0;
    for (const target of LABS.filter((_, i) => i % 5 === 0)) {
      const { recipes } = solve(palette, target);
      const closest = recipes.find(({ betterAt }) => betterAt === 'closest');
      if (!closest) continue;
      told++;
      expect(closest.deltaE00).to.be.below(recipes[0]!.deltaE00);
    }
    expect(told).to.be.above(1);
    const [asked] = solve(palette, LABS[0]!, { emphasis: 'closest' }).recipes;
    expect(asked!.deltaE00).to.be.at.most(best(palette, LABS[0]!).deltaE00 + 1e-9);
  });

  it('takes two whites only where they earn it', () => {
    const palette = layPalette(knownTubes(ODD['three whites']));
    const whites = ['titanium-white', 'zinc-white', 'lead-white'];
    for (const target of LABS.filter((_, i) => i % 3 === 0)) {
      const { flat } = best(palette, target);
      expect(Object.keys(flat).filter((id) => whites.includes(id)).length, target.join()).to.be.at.most(1);
    }
  });

  it('is there on odd palettes, too', () => {
    for (const [name, slugs] of Object.entries(ODD)) {
      const palette = layPalette(knownTubes(slugs));
      for (const target of LABS.filter((_, i) => i % 9 === 0))
        for (const amountMl of [1.5, 20]) {
          const { mixture, flat } = best(palette, target, { amountMl });
          expectLaid(mixture, amountMl);
          expect(Object.keys(flat).length, name).to.be.at.most(4);
          expect(mixture.heaps.at(-1)!.ingredients.every((one) => isTube(one) || 'heap' in one)).to.equal(true);
        }
    }
    expect(KNIFE_BORE_MM).to.equal(6);
  });
});

describe('measured anew', () => {
  it('is the same composition in doses that a hand lays, for any amount', () => {
    const paintOf = (source: Leaf) => CATALOGUE.get((source as { tube: string }).tube)!;
    const slugs = ADVICE_PALETTES['twelve, ordinary']!;
    const parts = fc.double({ min: 0.02, max: 9, noNaN: true });
    fc.assert(
      fc.property(
        fc.shuffledSubarray([...slugs], { minLength: 2, maxLength: 5 }),
        fc.array(parts, { minLength: 5, maxLength: 5 }),
        fc.constantFrom(1.5, 4, 20),
        (tubes, doses, amountMl) => {
          const logged = mixtureOf(tubes.map((tube, i) => ({ tube, parts: doses[i]! })));
          const anew = measuredAnew(logged, paintOf, amountMl);
          const names = (mixture: Mixture) =>
            leavesOf(mixture)
              .map(({ source }) => (source as { tube: string }).tube)
              .sort();
          expect(names(anew)).to.deep.equal(names(logged));
          for (const { ingredients } of anew.heaps)
            for (const one of ingredients) expect(isTouch(one) || Number.isInteger(one.parts), JSON.stringify(anew)).to.equal(true);
          measureOut(anew, amountMl, handling).forEach(({ amounts }) =>
            amounts.forEach(({ ml, beadMm }) => expect(beadMm >= SHORTEST_BEAD_MM - 1e-6 || ml >= 0.008).to.equal(true)),
          );
        },
      ),
      { numRuns: runs(30) },
    );
  });

  it('keeps the colour of what can be laid', () => {
    const paintOf = (source: Leaf) => CATALOGUE.get((source as { tube: string }).tube)!;
    const grown = mixtureOf([
      { tube: 'titanium-white', parts: 56.4 },
      { tube: 'yellow-ochre', parts: 18.8 },
      { tube: 'ultramarine-blue', parts: 3.17 },
    ]);
    const look = (mixture: Mixture) => masstoneOf(paintOfMixture(mixture, paintOf));
    for (const amountMl of [2, 4, 12]) expect(deltaE00(look(grown), look(measuredAnew(grown, paintOf, amountMl)))).to.be.below(1.2);
  });
});
