import { expect } from 'chai';
import fc from 'fast-check';
import {
  brushed,
  CATALOGUE,
  deltaE00,
  hangTogether,
  layPalette,
  mixCurves,
  masstoneOf,
  openToTubes,
  planString,
  paintOfMixture,
  stringTargets,
  tied,
  TIES,
  valueOfLightness,
  wetBlend,
  type Lab,
  type PaintCurves,
} from '../src/index.ts';
import { knownTubes } from '../bench/advicePalettes.ts';
import { runs } from './runs.ts';

const paint = (id: string): PaintCurves => CATALOGUE.get(id)!;
const tint = (id: string, white: number): PaintCurves =>
  mixCurves([
    { paint: paint('titanium-white'), parts: white },
    { paint: paint(id), parts: 1 },
  ]);

describe('what a brush makes of two wet colours', () => {
  it('begins and ends with them, and every step reflects between them at every band', () => {
    const ids = ['yellow-ochre', 'ultramarine-blue', 'burnt-sienna', 'viridian', 'ivory-black', 'cadmium-red'];
    fc.assert(
      fc.property(fc.constantFrom(...ids), fc.constantFrom(...ids), fc.integer({ min: 0, max: 12 }), (one, other, white) => {
        const [a, b] = [tint(one, white), tint(other, white)];
        const { steps } = wetBlend(a, b, 7);
        expect(steps).to.have.length(7);
        expect(deltaE00(steps[0]!, masstoneOf(a))).to.be.below(1e-6);
        expect(deltaE00(steps[6]!, masstoneOf(b))).to.be.below(1e-6);
        const low = Math.min(steps[0]![0], steps[6]![0]);
        // Mixtures of two may be darker than either, never lighter than the lighter.
        for (const [L] of steps) expect(L).to.be.within(0.3 * low, Math.max(steps[0]![0], steps[6]![0]) + 1e-6);
      }),
      { numRuns: runs(40) },
    );
  });

  it('warns of mud where opposites meet, and of a third hue where one comes up', () => {
    expect(wetBlend(tint('cadmium-red', 2), tint('viridian', 2)).warns).to.equal('mud');
    const green = wetBlend(tint('hansa-yellow', 1), tint('phthalo-blue', 12));
    expect(green.warns).to.equal(undefined);
    expect(wetBlend(tint('yellow-ochre', 6), tint('yellow-ochre', 30)).warns).to.equal(undefined);
    expect(wetBlend(tint('ultramarine-blue', 6), tint('titanium-white', 1)).warns).to.equal(undefined);
  });
});

describe('a row that a brush joins', () => {
  const palette = layPalette(knownTubes(['titanium-white', 'yellow-ochre', 'burnt-sienna', 'ultramarine-blue', 'ivory-black']));
  const paintOn = (id: string): PaintCurves => palette.ingredients.find((one) => one.id === id)!;
  /** Paints of a row of steps, each pile by itself. */
  function row(stops: readonly Lab[], n: number): { readonly targets: readonly Lab[]; readonly paints: readonly PaintCurves[] } {
    const targets = stringTargets(stops, n);
    const { recipes } = hangTogether(palette, targets);
    return {
      targets,
      paints: recipes.map(({ flat }) => mixCurves(Object.entries(flat).map(([id, parts]) => ({ paint: paintOn(id), parts })))),
    };
  }

  it('is begun from few piles, and what the brush makes lies within a fifth of a value of what was planned', () => {
    const { targets, paints } = row(
      [
        [35, 2, -6],
        [88, 1, 2],
      ],
      9,
    );
    const { piles, joins } = brushed(paints, targets);
    expect(piles.length).to.be.within(2, 5);
    expect(piles[0]).to.equal(0);
    expect(piles.at(-1)).to.equal(8);
    expect(
      joins
        .flatMap(({ steps }) => steps.map(({ at }) => at))
        .concat(piles)
        .sort((a, b) => a - b),
    ).to.deep.equal([0, 1, 2, 3, 4, 5, 6, 7, 8]);
    for (const { from, to, steps } of joins)
      for (const { at, share, lab } of steps) {
        const there = masstoneOf(
          mixCurves([
            { paint: paints[from]!, parts: 1 - share },
            { paint: paints[to]!, parts: share },
          ]),
        );
        expect(deltaE00(there, lab)).to.be.below(0.01);
        expect(Math.abs(valueOfLightness(lab[0]) - valueOfLightness(targets[at]![0]))).to.be.at.most(0.2);
        expect(deltaE00(lab, targets[at]!)).to.be.at.most(3);
      }
  });

  it('is one plan: few piles with as much paint in all, the whole row shown', () => {
    const wish = {
      stops: [
        [35, 2, -6],
        [62, 2, -2],
        [88, 1, 2],
      ] as readonly Lab[],
      n: 9,
    };
    const whole = planString(palette, wish, 3);
    const plan = planString(palette, { ...wish, brush: true }, 3);
    expect(whole.brush).to.equal(undefined);
    expect(plan.piles.length).to.be.within(3, 5);
    expect(plan.measurings).to.be.below(whole.measurings);
    expect(plan.brush!.row).to.have.length(9);
    plan.brush!.row.forEach((lab, at) => {
      expect(Math.abs(valueOfLightness(lab[0]) - valueOfLightness(whole.piles[at]!.target[0])), `step ${at}`).to.be.at.most(0.25);
    });
    const paint = (piles: typeof plan.piles) => piles.reduce((sum, { ml }) => sum + ml, 0);
    expect(paint(plan.piles)).to.be.at.least(27);
    expect(plan.brush!.joins.map(({ to }) => to).at(-1)).to.equal(plan.piles.length - 1);
    // Warm and cool by turns cannot be joined by a brush.
    expect(planString(palette, { ...wish, brush: true, turns: 2 }, 3).brush).to.equal(undefined);
  });

  it('mixes its stops in any case', () => {
    const { targets, paints } = row(
      [
        [35, 2, -6],
        [88, 1, 2],
      ],
      7,
    );
    expect(brushed(paints, targets, [0, 3, 6]).piles).to.include.members([0, 3, 6]);
    expect(brushed(paints.slice(0, 1), targets.slice(0, 1))).to.deep.equal({ piles: [0], joins: [] });
  });
});

describe('one pile into all', () => {
  it('is a little of it, in whole parts, and what was there is still there', () => {
    for (const share of TIES) {
      const mixture = tied({ pile: 'wall' }, { pile: 'tie' }, share);
      const [own, into] = mixture.heaps[0]!.ingredients;
      expect(Number.isInteger(own!.parts) && Number.isInteger(into!.parts)).to.equal(true);
      expect(into!.parts / (own!.parts + into!.parts)).to.be.closeTo(share, 0.12 * share);
      const inside = openToTubes(mixture, (id) => ({ [id === 'wall' ? 'titanium-white' : 'ivory-black']: 1 }));
      expect(inside['ivory-black']! + inside['titanium-white']!).to.be.closeTo(1, 1e-9);
      const look = masstoneOf(
        paintOfMixture(mixture, (source) => paint('pile' in source && source.pile === 'wall' ? 'yellow-ochre' : 'ivory-black')),
      );
      expect(look[0]).to.be.below(masstoneOf(paint('yellow-ochre'))[0]);
    }
    expect(() => tied({ pile: 'a' }, { pile: 'b' }, 0.8)).to.throw(/up to half/);
  });
});
