import { expect } from 'chai';
import {
  best,
  CATALOGUE,
  closenessWithin,
  colourFromText,
  dryingOf,
  findPlans,
  follow,
  layPalette,
  reachOf,
  solve,
  tubesThatReach,
  type Lab,
} from '../src/index.ts';
import { headShaker } from '../bench/advice.ts';
import { ADVICE_PALETTES, knownTubes } from '../bench/advicePalettes.ts';
import { everydayLabs, EVERYDAY, isPale } from '../bench/everyday.ts';
import { bestOfFour } from '../bench/exact.ts';

const tubesAsTheyDry = (ids: readonly string[]) =>
  ids.map((id) => {
    const { K, S, drying } = CATALOGUE.get(id)!;
    return { id, K, S, drying };
  });
const LABS = everydayLabs();
const every = (n: number, from = 0): Lab[] => LABS.filter((_, i) => i % n === from);
const palette = (name: string) => layPalette(knownTubes(ADVICE_PALETTES[name]!));

describe('advice on everyday colours', () => {
  it('has a hundred of them, many pale', () => {
    expect(EVERYDAY).to.have.length(100);
    expect(new Set(EVERYDAY.map((e) => e.name)).size).to.equal(100);
    expect(LABS.filter(isPale).length).to.be.above(15);
  });

  for (const [name, few, from] of [
    ['four: strong primaries', 3, 0],
    ['six, mixed darks', 3, 0],
    ['eight for skin', 4, 1],
    ['twelve, ordinary', 4, 2],
  ] as const)
    it(`reaches what four of the tubes reach: ${name}`, () => {
      const laid = palette(name);
      const losses: number[] = [];
      let [reachable, falsely] = [0, 0];
      for (const target of every(few, from)) {
        const truth = bestOfFour(laid, target);
        const { reach, recipes } = solve(laid, target);
        losses.push(Math.min(...recipes.map(({ deltaE00 }) => deltaE00)) - truth);
        if (truth > 1.5) continue;
        reachable++;
        if (reach !== 'in') falsely++;
      }
      expect(falsely / reachable).to.be.at.most(laid.ingredients.length < 6 ? 0.1 : 0.01);
      losses.sort((a, b) => a - b);
      expect(losses[Math.floor(losses.length * 0.9)]).to.be.at.most(1);
    });

  it('says of the tubes what they reach, and lets a recipe that passes go before one that does not', () => {
    let [reachable, falsely] = [0, 0];
    for (const tubes of [
      ['titanium-white', 'hansa-yellow', 'quinacridone-rose', 'phthalo-blue', 'burnt-sienna', 'ivory-black'],
      ['zinc-white', 'titanium-white', 'naples-yellow-hue', 'raw-sienna', 'cadmium-red', 'cobalt-blue', 'prussian-blue'],
    ]) {
      const laid = layPalette(knownTubes(tubes));
      const greys = ['#cbcbcb', '#9a9a9a', '#787878', '#c8b8a8'].map((hex) => colourFromText(hex));
      for (const target of [...every(6), ...greys]) {
        if (bestOfFour(laid, target, 0.5) > 1.5) continue;
        reachable++;
        const { reach, recipe } = follow(laid, target);
        const { recipes } = solve(laid, target);
        if (reach !== 'in') falsely++;
        else if (recipes.some((one) => reachOf(one) === 'in' && one.mixture.heaps.length < 4))
          for (const first of [recipe, recipes[0]!]) expect(reachOf(first), JSON.stringify(target)).to.equal('in');
      }
    }
    expect(reachable).to.be.above(20);
    expect(falsely).to.equal(0);
    // Out of what any mixture comes to.
    expect(follow(palette('four earths'), [50, -60, 40]).reach).to.equal('out');
  });

  it('tells a recipe that misses from tubes that do', () => {
    const one = { valueError: 0, mixture: { heaps: [{ ingredients: [] }] } };
    expect(closenessWithin({ ...one, deltaE00: 2.8 }, 'in')).to.equal('near, in one heap; these tubes come to a match with more work');
    expect(closenessWithin({ ...one, deltaE00: 6.7 }, 'near')).to.equal('far off, in one heap; these tubes come nearer with more work');
    expect(closenessWithin({ ...one, deltaE00: 2.8 }, 'near')).to.equal('near');
    expect(closenessWithin({ ...one, deltaE00: 6.7 }, 'out')).to.equal('not with these tubes');
  });

  it('lets a scarce tube down in another where the tubes differ a thousandfold in what is wanted of them', () => {
    const laid = palette('four: strong primaries');
    // Straw in sun: white and yellow, a trace of rose, and thirty times less of blue than of rose.
    const target: Lab = [81, 2, 41];
    const { deltaE00, mixture } = best(laid, target);
    expect(bestOfFour(laid, target)).to.be.below(0.5);
    expect(deltaE00).to.be.below(2);
    expect(mixture.heaps.length).to.be.at.most(3);
  });

  it('hardly ever makes a painter shake the head', () => {
    const shakers = ['eight for skin', 'twelve, ordinary', 'sixteen, outdoors'].flatMap((name) => {
      const laid = palette(name);
      return every(8, 3).map((target) => headShaker(laid, target));
    });
    expect(shakers.filter(Boolean).length / shakers.length).to.be.at.most(0.05);
    expect(shakers.filter((why) => why === 'opposites').length / shakers.length).to.be.at.most(0.02);
  });

  it('takes an earth or a safe tube where it comes as near as one that asks for care', () => {
    const laid = palette('twelve, ordinary');
    // Dark skin in shadow, ochre wall in shade, pewter.
    for (const target of [
      [30, 10, 12],
      [48, 8, 26],
      [52, 0, 3],
    ] as Lab[])
      for (const id of Object.keys(best(laid, target).flat))
        expect(['cadmium', 'cobalt', 'lead'], id).to.not.include(CATALOGUE.get(id)!.caution);
  });

  it('weighs care by what the tube says, not by its name', () => {
    const unsafe = knownTubes(ADVICE_PALETTES['twelve, ordinary']!).map((t) => ({
      ...t,
      caution: t.id === 'yellow-ochre' ? 'lead' : 'none',
    }));
    const target: Lab = [62, 8, 30];
    expect(best(palette('twelve, ordinary'), target).flat).to.have.property('yellow-ochre');
    expect(best(layPalette(unsafe), target).flat).to.not.have.property('yellow-ochre');
  });

  it('is surer of measured tubes than of typical ones', () => {
    const tubes = knownTubes(ADVICE_PALETTES['eight for skin']!);
    const errorOf = (basis: 'typical' | 'learnt' | 'fitted' | 'measured'): number =>
      findPlans(layPalette(tubes.map((t) => ({ ...t, basis }))), { target: [70, 8, 16] })[0]!.error;
    const errors = (['typical', 'learnt', 'fitted', 'measured'] as const).map(errorOf);
    errors.slice(1).forEach((error, i) => expect(error).to.be.below(errors[i]!));
  });

  it('dries sooner where that is minded most', () => {
    const laid = layPalette(tubesAsTheyDry(ADVICE_PALETTES['sixteen, outdoors']!));
    const dries = ({ flat }: { readonly flat: Readonly<Record<string, number>> }): number =>
      dryingOf(Object.entries(flat).map(([id, share]) => ({ id, share, drying: CATALOGUE.get(id)!.drying }))).much;
    let sooner = 0;
    const some = every(4, 1);
    for (const target of some) {
      const [near] = solve(laid, target).recipes;
      const [soon] = solve(laid, target, { emphasis: 'fast' }).recipes;
      expect(dries(soon!)).to.be.at.most(dries(near!) + 1e-9);
      if (dries(soon!) < dries(near!) - 0.2) sooner++;
    }
    expect(sooner, `of ${some.length}`).to.be.above(some.length / 10);
    expect(dryingOf([{ id: 'alizarin', share: 0.3, drying: 'slow' }])).to.include({ kind: 'slow', by: 'alizarin' });
    expect(dryingOf([{ id: 'umber', share: 1, drying: 'fast' }])).to.include({ kind: 'fast', by: undefined });
  });

  it('keeps to what covers, or lets through, when that is minded most', () => {
    const laid = palette('sixteen, outdoors');
    const target: Lab = [45, 28, 24];
    const [covers] = solve(laid, target, { emphasis: 'covers' }).recipes;
    const [through] = solve(laid, target, { emphasis: 'lets through' }).recipes;
    expect(covers!.betterAt).to.equal('close and covering');
    expect(through!.betterAt).to.equal('close and transparent');
    expect(Object.keys(covers!.flat).sort()).to.not.deep.equal(Object.keys(through!.flat).sort());
  });

  it('names the one tube of a rack of thirty that brings a colour nearest', () => {
    const laid = palette('eight for skin');
    const rack = knownTubes([...CATALOGUE.keys()].filter((id) => !laid.ingredients.some((t) => t.id === id)).slice(0, 30));
    const target: Lab = [50, -40, 5];
    const advice = tubesThatReach(laid, rack, target);
    expect(advice).to.have.length(3);
    expect(advice[0]!.deltaE00).to.be.below(best(laid, target).deltaE00);
    advice.slice(1).forEach((a, i) => expect(a.deltaE00).to.be.at.least(advice[i]!.deltaE00));
  });
});
