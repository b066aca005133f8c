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

  it('asks for nothing of the pile that a hand cannot take', () => {
    for (const pile of piles.slice(0, 6))
      for (const amountMl of [1.5, 4, 20])
        for (const { mixture } of nextPiles(laidWith(pile), 'pile', MOVES[0]!(pile.lab), { amountMl })) expectLaid(mixture, amountMl);
  });

  it('needs the pile on the palette', () => {
    expect(() => nextPiles(plain, 'pile', [50, 0, 0])).to.throw(/no pile "pile"/);
  });
});
