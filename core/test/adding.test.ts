import { expect } from 'chai';
import fc from 'fast-check';
import { tellAdded, additionsFor, LEAST_TOUCH_ML, correct, deltaE00, firstBeliefs, mixCurves, opened, waysToAdd } from '../src/index.ts';
import { IDS, look, tube, TUBES } from './eightTubes.ts';
import { runs } from './runs.ts';

describe('what to add to a pile', () => {
  const parts = [
    [tube('titanium-white'), 6],
    [tube('burnt-umber'), 1],
  ] as const;
  const pile = { ...mixCurves(parts.map(([paint, n]) => ({ paint, parts: n }))), parts: 7 };

  it('is found where it is known: the pile and some more of a tube', () => {
    const target = look([...parts, [tube('yellow-ochre'), 2]]);
    const { add, growth, mismatchBefore, mismatchAfter } = additionsFor(pile, TUBES, target);
    expect(mismatchAfter).to.be.below(0.7);
    expect(mismatchBefore).to.be.above(4);
    expect(add.map((a) => a.id)).to.include('yellow-ochre');
    expect(growth).to.be.within(1.1, 1.6);
    add.forEach((a) => expect(a.parts).to.be.above(0));
  });

  it('is nothing for a pile that is there', () => {
    expect(additionsFor(pile, TUBES, look(parts)).add).to.deep.equal([]);
  });

  it('keeps to the size that is allowed', () => {
    expect(additionsFor(pile, TUBES, [25, 0, -20], 1.5).growth).to.be.at.most(1.52);
  });

  it('needs a palette and a pile', () => {
    expect(() => additionsFor(pile, [], [50, 0, 0])).to.throw(/empty/);
    expect(() => additionsFor({ ...pile, parts: 0 }, TUBES, [50, 0, 0])).to.throw(/nothing in it/);
  });
});

describe('what is said to be added', () => {
  const anyPile = fc.tuple(
    fc.uniqueArray(fc.integer({ min: 1, max: IDS.length - 1 }), { minLength: 1, maxLength: 3 }),
    fc.array(fc.double({ min: 0.02, max: 1.5, noNaN: true }), { minLength: 3, maxLength: 3 }),
    fc.integer({ min: 4, max: 12 }),
  );

  it('gives what is promised, in doses that can be measured, near whites too', () => {
    fc.assert(
      fc.property(anyPile, anyPile, fc.constantFrom(1.5, 4, 20), ([set, doses, white], [wantedSet, wantedDoses], ml) => {
        const portions = (chosen: readonly number[], parts: readonly number[]) => [
          [tube('titanium-white'), white] as const,
          ...chosen.map((i, k) => [TUBES[i]!, parts[k]!] as const),
        ];
        const there = portions(set, doses);
        const size = there.reduce((sum, [, n]) => sum + n, 0);
        const pile = { ...mixCurves(there.map(([paint, n]) => ({ paint, parts: n }))), parts: size, partMl: ml / size };
        const target = look(portions(wantedSet, wantedDoses));
        for (const { add, measured, lab, growth, mismatchAfter, mismatchBefore } of waysToAdd(pile, TUBES, target).ways.slice(0, 6)) {
          for (const { parts } of measured) expect((parts * ml) / size).to.be.at.least(LEAST_TOUCH_ML - 1e-9);
          const after = look([...there, ...add.map(({ id, parts }) => [tube(id), parts] as const)]);
          expect(deltaE00(after, lab)).to.be.below(0.1);
          expect(growth).to.be.closeTo((size + add.reduce((sum, d) => sum + d.parts, 0)) / size, 1e-6);
          expect(mismatchAfter).to.be.below(mismatchBefore);
        }
      }),
      { numRuns: runs(12) },
    );
  });

  it('is a little of a let-down where a little of a strong tube is wanted', () => {
    const white = { ...tube('titanium-white'), parts: 8 };
    const target = look([
      [tube('titanium-white'), 8],
      [tube('ultramarine-blue'), 0.012],
      [tube('burnt-umber'), 0.02],
    ]);
    const { measured, mismatchAfter } = waysToAdd(white, TUBES, target).ways[0]!;
    expect(measured.some((dose) => dose.letDown)).to.equal(true);
    expect(mismatchAfter).to.be.below(0.5);
    expect(opened(measured).reduce((sum, d) => sum + d.parts, 0)).to.be.closeTo(
      measured.reduce((sum, d) => sum + d.parts, 0),
      1e-9,
    );
  });

  it('is a touch of the knife’s tip in a small pile where it is a bead in a large one, and each is told as it is', () => {
    const there = [
      [tube('titanium-white'), 8],
      [tube('yellow-ochre'), 3],
    ] as const;
    const pile = { ...mixCurves(there.map(([paint, parts]) => ({ paint, parts }))), parts: 11 };
    const target = look([...there, [tube('burnt-umber'), 0.12]]);
    const doseOf = (ml: number) => {
      const [dose] = waysToAdd({ ...pile, partMl: ml / 11 }, [tube('burnt-umber')], target).ways[0]!.measured;
      return (dose!.parts * ml) / 11;
    };
    const handling = { nozzleMm: 6, density: 1.5 };
    expect(doseOf(2)).to.be.within(0.015, 0.03);
    expect(tellAdded(doseOf(2), handling, 'beads', 2, 2 / 11)).to.match(/touch/);
    expect(tellAdded(doseOf(40), handling, 'beads', 40, 40 / 11)).to.match(/mm$/);
    expect(tellAdded(doseOf(2), handling, 'scale', 2, 2 / 11)).to.match(/touch/);
    expect(tellAdded(7.3, handling, 'parts', 40, 40 / 11)).to.equal('2');
    expect(tellAdded(7.3, handling, 'eye', 40, 40 / 11)).to.equal('some');
  });

  it('is out of reach where it is, with what would do from the start', () => {
    const dark = [{ id: 'burnt-umber', parts: 6 }];
    const stages = [{ additions: dark, observed: look([[tube('burnt-umber'), 6]]) }];
    const far = correct({ palette: TUBES, stages, target: [92, 2, 6], beliefs: firstBeliefs(IDS) });
    expect(far.reach).to.not.equal('in');
    expect(far.anew).to.equal('in');
    expect(correct({ palette: TUBES, stages, target: [50, -60, -40], beliefs: firstBeliefs(IDS) }).anew).to.equal('out');
  });
});
