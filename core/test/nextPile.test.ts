import { expect } from 'chai';
import {
  best,
  deltaE00,
  firstWay,
  inShadow,
  labOf,
  layPalette,
  leavesOf,
  mixCurves,
  moved,
  nextPiles,
  paintOfMixture,
  portionsOn,
  reflectance,
  type Lab,
  type Palette,
  type Recipe,
} from '../src/index.ts';
import { ADVICE_PALETTES, knownTubes } from '../bench/advicePalettes.ts';
import { paintOn } from '../src/matching/recipe.ts';
import { expectLaid, LABS } from './laidByHand.ts';

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

  it('is told first in one heap from what it was, keeps a figure that was asked for, and is lighter by white alone', () => {
    let [asked, inOneHeap, fromOwn, white] = [0, 0, 0, 0];
    for (const name of ['twelve, ordinary', 'six, mixed darks']) {
      const from = knownTubes(ADVICE_PALETTES[name]!);
      const palette = layPalette(from);
      for (const pile of LABS.filter(([L], i) => L > 25 && L < 88 && i % 8 === 0).map((target) => best(palette, target))) {
        if (!('titanium-white' in pile.flat)) continue;
        const laid = layPalette(from, undefined, undefined, [
          { id: 'pile', flat: pile.flat, ...paintOfMixture(pile.mixture, paintOn(palette)) },
        ]);
        for (const value of [0.25, -0.25]) {
          const ways = nextPiles(laid, 'pile', moved(pile.lab, { value }));
          const first = firstWay(ways)!;
          const own = ways.find(({ way }) => way === 'own tubes');
          asked++;
          if (first.mixture.heaps.length === 1) inOneHeap++;
          if (first.way === 'own tubes' || first.way === 'anew') fromOwn++;
          // Never worse to an eye than the pile's own tubes, which go first where both are as near.
          if (own && first.way !== 'own tubes') expect(first.deltaE00).to.be.below(Math.max(2, own.deltaE00));
          expect(Math.abs(first.valueError), JSON.stringify(pile.flat)).to.be.at.most(0.125);
          const sources = new Set(leavesOf(first.mixture).map(({ source }) => ('tube' in source ? source.tube : source.pile)));
          if (value > 0 && sources.size === 2 && sources.has('pile') && sources.has('titanium-white')) white++;
        }
      }
    }
    expect(asked).to.be.above(30);
    expect(inOneHeap / asked).to.be.above(0.95);
    expect(fromOwn / asked).to.be.above(0.9);
    expect(white / (asked / 2)).to.be.at.least(0.75);
  });

  it('takes its own tubes in one heap where both are near, and what an eye sees to be nearer', () => {
    const way = (name: 'own tubes' | 'closest', deltaE00: number, heaps: number, valueError = 0) => ({
      way: name,
      deltaE00,
      valueError,
      mixture: { heaps: Array.from({ length: heaps }, () => ({ ingredients: [] })) },
      lab: [50, 0, 0] as Lab,
      growth: undefined,
      givesWay: [],
      score: 0,
    });
    expect(firstWay([way('own tubes', 3.6, 1), way('closest', 2.4, 3)])!.way).to.equal('own tubes');
    expect(firstWay([way('own tubes', 4.8, 1), way('closest', 2.1, 2)])!.way).to.equal('closest');
    expect(firstWay([way('own tubes', 2.4, 1), way('closest', 1.9, 2)])!.way).to.equal('closest');
    expect(firstWay([way('own tubes', 1.4, 1, -0.25), way('closest', 1.5, 1)])!.way).to.equal('closest');
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
