import { expect } from 'chai';
import fc from 'fast-check';
import {
  beadLength,
  best,
  deltaE00,
  correct,
  doseError,
  firstBeliefs,
  nudged,
  firstWay,
  inShadow,
  learn,
  leavesOf,
  masstoneOf,
  measuredAnew,
  measureFromInput,
  mixtureOf,
  CATALOGUE,
  moved,
  nextPiles,
  paintOfMixture,
  partsInWords,
  readingOf,
  tell,
  wholeParts,
  wordForParts,
  dosingOf,
  handFromInput,
  isTouch,
  isTube,
  KNIFE_BORE_MM,
  labOf,
  LEAST_TOUCH_ML,
  layPalette,
  measureOut,
  mixCurves,
  portionsOn,
  reflectance,
  SHORTEST_BEAD_MM,
  solve,
  touchesInWords,
  type Lab,
  type Beliefs,
  type Leaf,
  type Mixture,
  type Palette,
  type Recipe,
  type Way,
} from '../src/index.ts';
import { paintOn } from '../src/matching/recipe.ts';
import { ADVICE_PALETTES, knownTubes } from '../bench/advicePalettes.ts';
import { strangeLooks } from '../bench/strange.ts';
import { everydayLabs } from '../bench/everyday.ts';

const LABS = everydayLabs();
const NAMES = ['four: strong primaries', 'six, mixed darks', 'twelve, ordinary'] as const;
const palettes = new Map(NAMES.map((name) => [name as string, layPalette(knownTubes(ADVICE_PALETTES[name]!))]));
const ODD = {
  'no white': ['yellow-ochre', 'burnt-sienna', 'ultramarine-blue', 'cadmium-red'],
  'three whites': ['titanium-white', 'zinc-white', 'lead-white', 'yellow-ochre', 'ultramarine-blue', 'venetian-red'],
  'one tube': ['ivory-black'],
  'only earths': ['yellow-ochre', 'raw-umber', 'burnt-sienna', 'venetian-red'],
} as const;

const anyPalette = fc.constantFrom(...NAMES).map((name) => palettes.get(name)!);
const anyTarget: fc.Arbitrary<Lab> = fc.oneof(
  fc.constantFrom(...LABS),
  fc.tuple(
    fc.double({ min: 8, max: 96, noNaN: true }),
    fc.double({ min: -50, max: 60, noNaN: true }),
    fc.double({ min: -50, max: 70, noNaN: true }),
  ),
);
const handling = () => ({ density: 1.5, nozzleMm: 6 });

/** Nothing in any heap, and nothing of any heap, is asked for that a hand cannot lay. */
function expectLaid(mixture: Mixture, ml: number): void {
  const measured = measureOut(mixture, ml, handling);
  measured.forEach(({ amounts, ml: made, batch }, at) => {
    const isPile = at === measured.length - 1;
    if (isPile) expect(batch).to.be.closeTo(1, 1e-9);
    amounts.forEach(({ ml: dose, beadMm, touches }, i) => {
      const said = isTouch(mixture.heaps[at]!.ingredients[i]!);
      if (touches === undefined) expect(beadMm).to.be.at.least(SHORTEST_BEAD_MM - 1e-6);
      else expect(isPile && said && dose >= LEAST_TOUCH_ML - 1e-9, `${dose} ml of ${made}`).to.equal(true);
    });
  });
}

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
        for (const { mixture } of solve(palette, target, { amountMl }).recipes) expectLaid(mixture, amountMl);
      }),
      { numRuns: 60 },
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
      { numRuns: 60 },
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

describe('the next pile', () => {
  const tubes = knownTubes(ADVICE_PALETTES['twelve, ordinary']!);
  const plain = layPalette(tubes);
  const piles = LABS.filter(([L], i) => L > 30 && L < 88 && i % 6 === 0).map((target) => best(plain, target));
  const laidWith = (pile: Recipe): Palette =>
    layPalette(tubes, undefined, undefined, [{ id: 'pile', flat: pile.flat, ...paintOfMixture(pile.mixture, paintOn(plain)) }]);
  const MOVES: readonly ((lab: Lab) => Lab)[] = [
    (lab) => moved(lab, { value: -1 }),
    (lab) => moved(lab, { value: 0.5 }),
    (lab) => moved(lab, { temperature: 3 }),
    (lab) => inShadow(lab, 1),
  ];

  it('is got from its own tubes first, then anew, by one thing, and by what comes closest', () => {
    for (const pile of piles)
      for (const move of MOVES) {
        const target = move(pile.lab);
        const laid = laidWith(pile);
        for (const { way, mixture, lab, deltaE00: told, growth } of nextPiles(laid, 'pile', target)) {
          const sources = leavesOf(mixture).map(({ source }) => ('tube' in source ? source.tube : source.pile));
          // Said is given: the colour of what is measured, heaps and touches and all.
          expect(deltaE00(labOf(reflectance(mixCurves(portionsOn(laid, mixture)))), lab)).to.be.below(1e-6);
          expect(deltaE00(target, lab)).to.be.closeTo(told, 1e-9);
          const strangers = sources.filter((id) => id !== 'pile' && !(id in pile.flat));
          if (way === 'own tubes' || way === 'anew') expect(strangers).to.deep.equal([]);
          if (way === 'anew') expect(sources).to.not.include('pile');
          if (way === 'one thing') expect(sources).to.have.length(2);
          if (way === 'own tubes' || way === 'one thing') expect(growth).to.be.within(1, 6.001);
        }
      }
  });

  it('is told not to come there only where from scratch it does not', () => {
    let asked = 0;
    let short = 0;
    for (const pile of piles)
      for (const move of MOVES) {
        const target = move(pile.lab);
        if (best(plain, target).deltaE00 > 2) continue;
        asked++;
        if (firstWay(nextPiles(laidWith(pile), 'pile', target))!.deltaE00 > 2) short++;
      }
    expect(asked).to.be.above(20);
    expect(short / asked).to.be.at.most(0.01);
  });

  it('asks for nothing of the pile that a hand cannot take', () => {
    for (const pile of piles.slice(0, 6))
      for (const amountMl of [1.5, 4, 20])
        for (const { mixture } of nextPiles(laidWith(pile), 'pile', MOVES[0]!(pile.lab), { amountMl })) expectLaid(mixture, amountMl);
  });

  it('needs the pile on the palette', () => {
    expect(() => nextPiles(plain, 'pile', [50, 0, 0])).to.throw(/no pile "pile"/);
  });
});

describe('the eye’s word', () => {
  const tubes = knownTubes(ADVICE_PALETTES['six, mixed darks']!);
  const ids = tubes.map(({ id }) => id);
  it('gets an addition always, however small the reckoning finds it', () => {
    const palette = palettes.get('six, mixed darks')!;
    let said = 0;
    for (const wanted of LABS.filter(([L], i) => L > 25 && L < 85 && i % 7 === 0)) {
      const { flat, lab } = best(palette, wanted);
      const additions = Object.entries(flat).map(([id, share]) => ({ id, parts: 12 * share }));
      for (const by of [-0.3, -0.1, 0.1, 0.3]) {
        const seen = nudged(lab, 'value', 10 * by);
        const pile = { stages: [{ additions, observed: seen }], target: lab, beliefs: firstBeliefs(ids), palette: tubes };
        const { ways, onlySaid, advice } = correct({ ...pile, insists: true });
        expect(ways.length, `${wanted.join()} ${by}`).to.be.above(0);
        expect(advice).to.not.equal('leave it');
        if (onlySaid) said++;
        // Too dark wants something lighter, too light something darker.
        const [first] = ways as [Way];
        expect(Math.sign(first.lab[0] - seen[0])).to.equal(-Math.sign(by));
      }
    }
    expect(said).to.be.above(0);
  });

  it('is asked about where no tubes and no knife can be so far off, and then teaches little until it is confirmed', () => {
    const { before, after } = strangeLooks(24);
    expect(after / before).to.be.at.most(1.1);
    const additions = [
      { id: 'titanium-white', parts: 6 },
      { id: 'yellow-ochre', parts: 2 },
    ];
    const beliefs = firstBeliefs(ids);
    const pile = paintOfMixture(mixtureOf(additions.map(({ id, parts }) => ({ tube: id, parts }))), (source) =>
      CATALOGUE.get((source as { tube: string }).tube)!,
    );
    const [L, a, b] = masstoneOf(pile);
    const stage = (observed: Lab, confirmed = false) => [{ additions, observed, reading: { ...readingOf('eye', 'one'), confirmed } }];
    const far: Lab = [L - 28, a + 10, b - 20];
    expect(learn(beliefs, tubes, stage([L - 2, a, b])).isStrange).to.equal(false);
    expect(learn(beliefs, tubes, stage(far)).isStrange).to.equal(true);
    expect(learn(beliefs, tubes, stage(far, true)).isStrange).to.equal(false);
    const moved = (learnt: Beliefs) => Math.hypot(...learnt.mean.slice(0, 3 * ids.length));
    expect(moved(learn(beliefs, tubes, stage(far)).beliefs)).to.be.below(0.5 * moved(learn(beliefs, tubes, stage(far, true)).beliefs));
    expect(correct({ stages: stage(far), target: [L, a, b], beliefs, palette: tubes }).isStrange).to.equal(true);
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
      { numRuns: 80 },
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

describe('the ways of measuring', () => {
  it('tell the same dose by eye, in parts, as beads, by scale', () => {
    const dose = (parts: number, ml: number, more = {}) => ({ parts, ml, grams: 1.5 * ml, beadMm: beadLength(ml, 6), ...more });
    const told = tell([dose(9, 3.26), dose(2, 0.72), dose(0.05, 0.018, { touches: 1 })]);
    expect(told[0]).to.deep.equal({ eye: 'mostly', parts: '9', beads: '115 mm', scale: '4.9 g' });
    expect(told[1]).to.deep.equal({ eye: 'some', parts: '2', beads: '25 mm', scale: '1.1 g' });
    expect(told[2]).to.include({ eye: 'a touch', parts: 'a touch', beads: 'a touch' });
    expect(tell([dose(3, 3)])[0]!.eye).to.equal('all of it');
    expect(measureFromInput('beads')).to.equal('beads');
    expect(() => measureFromInput('ounces')).to.throw(/eye, parts, beads, scale/);
  });

  it('count whole parts only, near what there is', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.3, max: 30, noNaN: true }), { minLength: 2, maxLength: 5 }), (parts) => {
        const whole = wholeParts(parts);
        const by = whole.reduce((s, n) => s + n, 0) / parts.reduce((s, n) => s + n, 0);
        whole.forEach((n, i) => {
          expect(Number.isInteger(n) && n >= 1).to.equal(true);
          expect(n / (parts[i]! * by)).to.be.within(0.8, 1.25);
        });
      }),
    );
    expect(wholeParts([9, 2, 1])).to.deep.equal([9, 2, 1]);
    expect(wholeParts([3.1667, 1])).to.deep.equal([3, 1]);
    expect(wholeParts([56.4, 18.8])).to.deep.equal([3, 1]);
    expect(wholeParts([])).to.deep.equal([]);
  });

  it('say amounts in words whose range holds them', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 12, noNaN: true }), (parts) => {
        const { range } = partsInWords(wordForParts(parts));
        expect(parts).to.be.within(range[0], range[1]);
      }),
    );
  });
});
