import { expect } from 'chai';
import fc from 'fast-check';
import {
  beadLength,
  CATALOGUE,
  deltaE76,
  inWorkOrder,
  masstoneOf,
  mixCurves,
  paintOfMixture,
  pairSteps,
  stepsOf,
  type KnownPaints,
  type Mixture,
} from '@dusk/core';
import { runs } from './runs.ts';

const SLUGS = [...CATALOGUE.keys()];
const paint = (slug: string) => CATALOGUE.get(slug)!;

describe('a chart of two paints', () => {
  it('has steps in order, of parts that a knife can divide, each the colour of its parts', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SLUGS), fc.constantFrom(...SLUGS), fc.integer({ min: 1, max: 9 }), (one, other, n) => {
        const steps = pairSteps(paint(one), paint(other), n);
        expect(steps).to.have.length(n);
        let share = 0;
        for (const { parts, lab } of steps) {
          const now = parts[1] / (parts[0] + parts[1]);
          expect(now).to.be.above(share);
          share = now;
          expect(Math.min(...parts)).to.be.at.least(1);
          const mixed = mixCurves([
            { paint: paint(one), parts: parts[0] },
            { paint: paint(other), parts: parts[1] },
          ]);
          expect(deltaE76(lab, masstoneOf(mixed))).to.be.below(1e-9);
        }
      }),
      { numRuns: runs(60) },
    );
  });

  it('looks even where parts alone would bunch: white and a strong blue', () => {
    const [white, blue] = [paint('titanium-white'), paint('prussian-blue')];
    const gaps = (labs: readonly (readonly [number, number, number])[]): number[] => labs.slice(1).map((lab, i) => deltaE76(labs[i]!, lab));
    const even = gaps([masstoneOf(white), ...pairSteps(white, blue, 5).map(({ lab }) => lab), masstoneOf(blue)]);
    const byParts = gaps(
      [0, 1, 2, 3, 4, 5, 6].map((i) =>
        i === 0
          ? masstoneOf(white)
          : i === 6
            ? masstoneOf(blue)
            : masstoneOf(
                mixCurves([
                  { paint: white, parts: 6 - i },
                  { paint: blue, parts: i },
                ]),
              ),
      ),
    );
    const spread = (list: readonly number[]): number => Math.max(...list) / Math.min(...list);
    // No knife puts in less than one in a hundred: the first step is as small as it can be, the others are even.
    expect(spread(even.slice(1))).to.be.below(1.6);
    expect(spread(even)).to.be.below(3);
    expect(spread(byParts)).to.be.above(2 * spread(even));
  });
});

describe('a recipe in steps', () => {
  const known: KnownPaints = {
    paintOf: (leaf) => paint((leaf as { tube: string }).tube),
    nameOf: (leaf) => paint((leaf as { tube: string }).tube).name,
    handlingOf: () => ({ density: 1.5, nozzleMm: 8 }),
    cautionOf: (leaf) => paint((leaf as { tube: string }).tube).caution,
  };
  const mixture: Mixture = {
    heaps: [
      {
        ingredients: [
          { tube: 'titanium-white', parts: 9 },
          { tube: 'prussian-blue', parts: 1 },
        ],
      },
      {
        ingredients: [
          { tube: 'titanium-white', parts: 4 },
          { heap: 0, parts: 2 },
          { tube: 'cadmium-red', parts: 1 },
        ],
      },
    ],
  };
  it('names let-downs, lays each bead at the length its paint has, and ends in the colour of the whole', () => {
    const heaps = stepsOf(mixture, 14, known);
    expect(heaps[0]!.name).to.equal('weakened prussian blue');
    expect(heaps.at(-1)!.ml).to.be.closeTo(14, 1e-9);
    for (const { steps } of heaps)
      for (const { ml, beadMm, nozzleMm } of steps) expect(beadMm).to.be.closeTo(beadLength(ml, nozzleMm), 1e-9);
    expect(heaps.at(-1)!.steps.map(({ name }) => name)).to.include('weakened prussian blue');
    expect(heaps.at(-1)!.steps.find(({ name }) => name === 'Cadmium red')!.caution).to.not.equal('none');
    expect(deltaE76(heaps.at(-1)!.colour, masstoneOf(paintOfMixture(mixture, known.paintOf)))).to.be.below(1e-9);
  });
});

describe('an order of work', () => {
  it('has every pile after those it is mixed from, dark to light otherwise, each once', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 100 }), fc.array(fc.nat(11), { maxLength: 3 })), { maxLength: 12 }),
        (drawn) => {
          const piles = drawn.map(([value, mothers], i) => ({ id: String(i), value, mothers: mothers.filter((m) => m < i).map(String) }));
          const order = inWorkOrder(
            piles,
            (id) => piles[Number(id)]!.mothers,
            ({ value }) => value,
          );
          expect(order.map(({ id }) => id).sort()).to.deep.equal(piles.map(({ id }) => id).sort());
          const at = new Map(order.map(({ id }, i) => [id, i]));
          for (const { id, mothers } of piles) for (const mother of mothers) expect(at.get(mother)!).to.be.below(at.get(id)!);
        },
      ),
    );
    const free = [
      { id: 'a', value: 5 },
      { id: 'b', value: 1 },
    ];
    expect(
      inWorkOrder(
        free,
        () => [],
        ({ value }) => value,
      ).map(({ id }) => id),
    ).to.deep.equal(['b', 'a']);
  });
});
