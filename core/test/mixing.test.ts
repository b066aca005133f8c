import { expect } from 'chai';
import fc from 'fast-check';
import {
  beadLength,
  easyBead,
  best,
  CATALOGUE,
  checkMixture,
  chipsAlong,
  deltaE00,
  firstFree,
  heapName,
  inMixingOrder,
  keyOf,
  KNIFE_BORE_MM,
  labOf,
  lastHeap,
  leavesOf,
  layPalette,
  measureOut,
  measurings,
  mixCurves,
  mixingOrder,
  mixtureOf,
  mixtureOfRecipe,
  openToTubes,
  overshootOf,
  paintOfMixture,
  partsInWords,
  predict,
  reflectance,
  remaining,
  SHORTEST_BEAD_MM,
  trustInMixture,
  valueOfLightness,
  type Ingredient,
  type Leaf,
  type Mixture,
} from '../src/index.ts';
import { ADVICE_PALETTES, knownTubes } from '../bench/advicePalettes.ts';
import { everydayLabs } from '../bench/everyday.ts';
import { runs } from './runs.ts';

const IDS = ['titanium-white', 'yellow-ochre', 'venetian-red', 'ultramarine-blue', 'phthalo-blue'];
const paint = (id: string) => CATALOGUE.get(id)!;
const paintOf = (source: Leaf) => ('tube' in source ? paint(source.tube) : mixCurves([{ paint: paint('venetian-red'), parts: 1 }]));
const noPiles = () => ({});

/** A let-down of phthalo in white, and a pile of it with white and ochre. */
const PALE: Mixture = {
  heaps: [
    {
      ingredients: [
        { tube: 'titanium-white', parts: 9 },
        { tube: 'phthalo-blue', parts: 1 },
      ],
    },
    {
      ingredients: [
        { tube: 'titanium-white', parts: 6 },
        { tube: 'yellow-ochre', parts: 2 },
        { heap: 0, parts: 2 },
      ],
    },
  ],
};

/** Any mixture: each heap of tubes and, it may be, of all heaps before it; every heap used. */
const anyMixture: fc.Arbitrary<Mixture> = fc
  .array(fc.array(fc.tuple(fc.constantFrom(...IDS), fc.integer({ min: 1, max: 12 })), { minLength: 1, maxLength: 4 }), {
    minLength: 1,
    maxLength: 4,
  })
  .map((heaps) => ({
    heaps: heaps.map((list, at) => ({
      ingredients: [
        ...list.map(([tube, parts]): Ingredient => ({ tube, parts })),
        ...(at > 0 ? [{ heap: at - 1, parts: 1 + (at % 3) }] : []),
      ],
    })),
  }));

describe('a mixture', () => {
  it('opens to tubes exactly, let-downs and all', () => {
    const flat = openToTubes(PALE, noPiles);
    expect(flat['titanium-white']).to.be.closeTo(0.6 + 0.2 * 0.9, 1e-12);
    expect(flat['phthalo-blue']).to.be.closeTo(0.02, 1e-12);
    expect(flat['yellow-ochre']).to.be.closeTo(0.2, 1e-12);
  });

  it('opens to shares that add up to the whole and give the same paint, however it is heaped', () => {
    fc.assert(
      fc.property(anyMixture, (mixture) => {
        checkMixture(mixture);
        const flat = openToTubes(mixture, noPiles);
        expect(Object.values(flat).reduce((s, v) => s + v, 0)).to.be.closeTo(1, 1e-9);
        const opened = mixCurves(Object.entries(flat).map(([id, parts]) => ({ paint: paint(id), parts })));
        expect(deltaE00(predict(mixture, paintOf).lab, labOf(reflectance(opened)))).to.be.below(1e-6);
      }),
      { numRuns: runs(80) },
    );
  });

  it('opens piles that are ingredients to their tubes', () => {
    const mixture = mixtureOf([
      { pile: 'wall', stage: 'second', parts: 3 },
      { tube: 'titanium-white', parts: 1 },
    ]);
    const flat = openToTubes(mixture, (pile, stage): Record<string, number> =>
      pile === 'wall' && stage === 'second' ? { 'titanium-white': 0.5, 'venetian-red': 0.5 } : {},
    );
    expect(flat).to.deep.equal({ 'titanium-white': 0.625, 'venetian-red': 0.375 });
  });

  it('keeps the states of a tube apart, and names each source by one key', () => {
    const leaves = leavesOf(
      mixtureOf([
        { tube: 'a', state: '1', parts: 1 },
        { tube: 'a', state: '2', parts: 1 },
        { tube: 'a', state: '1', parts: 2 },
      ]),
    );
    expect(leaves).to.deep.equal([
      { source: { tube: 'a', state: '1' }, share: 0.75 },
      { source: { tube: 'a', state: '2' }, share: 0.25 },
    ]);
    const keys = [{ tube: 'a' }, { tube: 'a', state: 'b' }, { pile: 'a' }, { pile: 'a', stage: 'b' }, { heap: 0 }].map(keyOf);
    expect(new Set(keys).size).to.equal(5);
  });

  it('carries what words leave open into the shares', () => {
    const touch = partsInWords('a touch');
    const [white, blue] = leavesOf(
      mixtureOf([
        { tube: 'titanium-white', parts: 8 },
        { tube: 'phthalo-blue', ...touch },
      ]),
    );
    expect(white!.range).to.equal(undefined);
    expect(blue!.range![0] / blue!.share).to.be.closeTo(touch.range[0] / touch.parts, 1e-9);
    expect(blue!.range![1] / blue!.share).to.be.closeTo(touch.range[1] / touch.parts, 1e-9);
    const nested: Mixture = {
      heaps: [
        { ingredients: [{ tube: 'phthalo-blue', parts: 1, range: [0.5, 2] }] },
        { ingredients: [{ heap: 0, parts: 2, range: [1, 4] }] },
      ],
    };
    expect(leavesOf(nested)[0]!.range).to.deep.equal([0.25, 4]);
  });

  it('is refused when it cannot be mixed, and says which heap', () => {
    const white: Ingredient = { tube: 'titanium-white', parts: 1 };
    const bad: readonly (readonly [Mixture, RegExp])[] = [
      [{ heaps: [] }, /nothing to mix/],
      [{ heaps: [{ ingredients: [] }] }, /Heap 1 has nothing/],
      [{ heaps: [{ ingredients: [{ heap: 0, parts: 1 }] }] }, /Heap 1 takes from heap 1/],
      [{ heaps: [{ ingredients: [{ heap: -1, parts: 1 }] }] }, /not mixed before/],
      [{ heaps: [{ ingredients: [white] }, { ingredients: [white] }] }, /Heap 1 is mixed but not used/],
      [{ heaps: [{ ingredients: [{ ...white, parts: 0 }] }] }, /above 0/],
      [{ heaps: [{ ingredients: [{ ...white, parts: NaN }] }] }, /number/],
      [{ heaps: [{ ingredients: [{ ...white, range: [2, 3] }] }] }, /range/],
      [{ heaps: [{ ingredients: [{ ...white, range: [0, 3] }] }] }, /range/],
      [{ heaps: [{ ingredients: Array.from({ length: 25 }, () => white) }] }, /at most 24/],
      [{ heaps: Array.from({ length: 13 }, (_, i) => ({ ingredients: i ? [{ heap: i - 1, parts: 1 }] : [white] })) }, /at most 12 heaps/],
    ];
    for (const [mixture, says] of bad) expect(() => checkMixture(mixture), says.source).to.throw(says);
    expect(() => checkMixture(PALE)).to.not.throw();
  });

  it('has heaps that are called by what they are', () => {
    const called = (heap: Mixture['heaps'][number]) =>
      heapName(
        heap,
        [40, 6, 14],
        (leaf) => ('tube' in leaf ? leaf.tube : 'a pile'),
        (leaf) => 'tube' in leaf && leaf.tube === 'white',
      );
    const of = (...parts: (readonly [string | number, number])[]) => ({
      ingredients: parts.map(([what, n]): Ingredient => (typeof what === 'number' ? { heap: what, parts: n } : { tube: what, parts: n })),
    });
    expect(called(of(['white', 9], ['blue', 1]))).to.equal('weakened blue');
    for (const heap of [of(['white', 39], [0, 1]), of(['umber', 2], ['ochre', 3]), of(['ochre', 9], ['blue', 1]), of(['ochre', 9], [0, 1])])
      expect(called(heap)).to.equal('taupe mix');
    expect(['mix', 'mix', 'x'].reduce<string[]>((taken, name) => [...taken, firstFree(name, taken)], [])).to.deep.equal([
      'mix',
      'mix 2',
      'x',
    ]);
  });

  it('counts its separate measurings', () => {
    expect(measurings(PALE)).to.equal(5);
    expect(lastHeap(PALE).ingredients).to.have.length(3);
  });
});

describe('a proposed recipe as a mixture', () => {
  const tubes = IDS.map((id) => ({ id, K: paint(id).K, S: paint(id).S }));
  const palette = layPalette(tubes, { tubes: 4, parts: 12 });

  it('gives the colour and the shares of the recipe', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 92, noNaN: true }),
        fc.double({ min: -12, max: 12, noNaN: true }),
        fc.double({ min: -20, max: 25, noNaN: true }),
        (L, a, b) => {
          const recipe = best(palette, [L, a, b]);
          const mixture = mixtureOfRecipe(recipe, (tube) => ({ tube }));
          checkMixture(mixture);
          expect(mixture.heaps.length).to.equal(recipe.mixture.heaps.length);
          expect(deltaE00(predict(mixture, paintOf).lab, recipe.lab)).to.be.below(1e-6);
          expect(predict(mixture, paintOf).steadiness).to.be.closeTo(recipe.steadiness, 1e-9);
          expect(openToTubes(mixture, noPiles)).to.deep.equal(recipe.flat);
        },
      ),
      { numRuns: runs(60) },
    );
  });
});

describe('the order of mixing', () => {
  it('starts with the plentiful and weak and ends with the strong', () => {
    const list = [
      { paint: paint('phthalo-blue'), parts: 1 },
      { paint: paint('titanium-white'), parts: 6 },
      { paint: paint('yellow-ochre'), parts: 3 },
    ];
    expect(mixingOrder(list)).to.deep.equal([1, 2, 0]);
    expect(mixingOrder(list, 0)[0]).to.equal(0);
  });

  it('gives up the natural order only where that spares overshooting in value', () => {
    // A dark heap with a little more white: white first would go far past it and back.
    const list = [
      { paint: paint('titanium-white'), parts: 5 },
      { paint: paint('ultramarine-blue'), parts: 5 },
      { paint: paint('venetian-red'), parts: 5 },
    ];
    for (const from of [0, 1, 2]) {
      const order = mixingOrder(list, from);
      expect([...order].sort()).to.deep.equal([0, 1, 2]);
      expect(order[0]).to.equal(from);
    }
    const many = IDS.flatMap((id) => [
      { paint: paint(id), parts: 2 },
      { paint: paint(id), parts: 3 },
    ]);
    expect([...mixingOrder(many)].sort((a, b) => a - b)).to.deep.equal(many.map((_, i) => i));
  });

  it('lets the painter see it come nearer, in colour too, where the paints allow', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...IDS, 'viridian', 'burnt-umber'), { minLength: 2, maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 8 }), { minLength: 4, maxLength: 4 }),
        (ids, parts) => {
          const portions = ids.map((id, i) => ({ paint: paint(id), parts: parts[i]! }));
          const leads = (order: readonly number[]): number => {
            const labs = order.map((_, n) => labOf(reflectance(mixCurves(order.slice(0, n + 1).map((i) => portions[i]!)))));
            const off = labs.map((lab) => deltaE00(labs.at(-1)!, lab));
            return Math.max(0, ...off.slice(1).map((d, i) => d - off[i]!));
          };
          const order = mixingOrder(portions);
          const rest = order.slice(1);
          const others =
            rest.length < 2
              ? [rest]
              : rest.flatMap((i) => rest.filter((j) => j !== i).map((j) => [i, j, ...rest.filter((k) => k !== i && k !== j)]));
          const straightest = Math.min(...others.map((other) => leads([order[0]!, ...other])));
          // Value and chroma on the way, and the natural order, count too.
          expect(leads(order)).to.be.at.most(straightest + 12);
        },
      ),
      { numRuns: runs(100) },
    );
  });

  it('goes past its end in value by no more than it must', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...IDS, 'viridian', 'burnt-umber'), { minLength: 3, maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 4, maxLength: 4 }),
        (ids, parts) => {
          const portions = ids.map((id, i) => ({ paint: paint(id), parts: parts[i]! }));
          const past = (order: readonly number[]): number => {
            const values = order.map((_, n) =>
              valueOfLightness(labOf(reflectance(mixCurves(order.slice(0, n + 1).map((i) => portions[i]!))))[0]),
            );
            return overshootOf(values, values.at(-1)!);
          };
          const [first, ...rest] = mixingOrder(portions) as [number, ...number[]];
          const others = rest.flatMap((i) =>
            rest.filter((j) => j !== i).map((j) => [first, i, j, ...rest.filter((k) => k !== i && k !== j)]),
          );
          expect(past([first, ...rest])).to.be.at.most(Math.min(...others.map(past)) + 0.16);
        },
      ),
      { numRuns: runs(100) },
    );
  });

  it('leads no recipe for an everyday colour far from its end', () => {
    const palette = layPalette(knownTubes(ADVICE_PALETTES['eight for skin']!));
    const curves = new Map(palette.ingredients.map((t) => [t.id, t]));
    const curvesOf = (source: Leaf) => curves.get((source as { tube: string }).tube)!;
    const astray = everydayLabs().filter((target) => {
      const { mixture } = best(palette, target);
      const chips = chipsAlong(mixture, lastHeap(mixture), curvesOf);
      const off = chips.map((chip) => deltaE00(chips.at(-1)!, chip));
      return off.slice(1).some((d, i) => d > off[i]! + 3);
    });
    // Value goes before colour: a few lead away in hue because every straighter order goes past the value.
    expect(astray.length).to.be.at.most(6);
  });

  it('orders every heap and shows the chip after each addition', () => {
    const ordered = inMixingOrder(PALE, paintOf);
    expect(ordered.heaps[0]!.ingredients.map((i) => ('tube' in i ? i.tube : ''))).to.deep.equal(['titanium-white', 'phthalo-blue']);
    const chips = chipsAlong(ordered, lastHeap(ordered), paintOf);
    expect(chips).to.have.length(3);
    expect(deltaE00(chips[0]!, labOf(reflectance(paint('titanium-white'))))).to.be.below(1e-6);
    expect(deltaE00(chips[2]!, predict(PALE, paintOf).lab)).to.be.below(1e-6);
    expect(deltaE00(labOf(reflectance(paintOfMixture(ordered, paintOf))), predict(PALE, paintOf).lab)).to.be.below(1e-6);
  });
});

describe('measuring out', () => {
  const handlingOf = (source: Leaf) => ({ density: 'tube' in source && source.tube === 'titanium-white' ? 2 : 1.2, nozzleMm: 6 });

  it('lays out the pile exactly, and a let-down in a batch that can be squeezed', () => {
    const [letdown, pile] = measureOut(PALE, 4, handlingOf) as [ReturnType<typeof measureOut>[0], ReturnType<typeof measureOut>[0]];
    expect(pile.ml).to.equal(4);
    expect(pile.batch).to.equal(1);
    expect(pile.amounts.reduce((s, a) => s + a.ml, 0)).to.be.closeTo(4, 1e-9);
    expect(pile.amounts[0]!.grams).to.be.closeTo(2.4 * 2, 1e-9);
    // Taken up with the knife: the let-down weighs what is in it.
    expect(pile.amounts[2]!.grams).to.be.closeTo(0.8 * (0.9 * 2 + 0.1 * 1.2), 1e-9);
    expect(pile.amounts[2]!.beadMm).to.be.closeTo(beadLength(0.8, KNIFE_BORE_MM), 1e-9);
    const blue = letdown.amounts[1]!;
    expect(blue.beadMm).to.be.at.least(SHORTEST_BEAD_MM - 1e-9);
    expect(letdown.ml).to.be.closeTo(0.8 * letdown.batch, 1e-9);
    const small = measureOut(PALE, 0.4, handlingOf)[0]!;
    expect(small.batch).to.be.above(1);
    expect(small.amounts[1]!.ml).to.be.closeTo(easyBead(6), 1e-9);
  });

  it('feeds heaps that feed others', () => {
    const chain: Mixture = {
      heaps: [
        {
          ingredients: [
            { tube: 'phthalo-blue', parts: 1 },
            { tube: 'titanium-white', parts: 1 },
          ],
        },
        {
          ingredients: [
            { heap: 0, parts: 1 },
            { tube: 'titanium-white', parts: 1 },
          ],
        },
        {
          ingredients: [
            { heap: 1, parts: 1 },
            { tube: 'titanium-white', parts: 1 },
          ],
        },
      ],
    };
    const [first, second, pile] = measureOut(chain, 40, handlingOf);
    expect([first!.ml, second!.ml, pile!.ml]).to.deep.equal([10, 20, 40]);
    expect(() => measureOut(chain, 0, handlingOf)).to.throw(/ml/);
  });
});

describe('how much of a pile there is', () => {
  it('is what was last said, plus in, minus out, never less than nothing', () => {
    expect(remaining([])).to.equal(0);
    expect(remaining([{ in: 4 }, { in: 1.5 }, { out: 2 }])).to.equal(3.5);
    expect(remaining([{ in: 4 }, { left: 1 }, { in: 0.5 }])).to.equal(1.5);
    expect(remaining([{ in: 4 }, { out: 9 }, { in: 1 }])).to.equal(1);
    expect(remaining([{ in: 4 }, { left: 0 }])).to.equal(0);
  });
});

describe('trust in a mixture', () => {
  it('is that in its leaves, and wider where words leave them open', () => {
    const exact = trustInMixture(PALE, paintOf, () => 'typical');
    expect(exact.basis).to.equal('typical');
    const said: Mixture = {
      heaps: [
        PALE.heaps[0]!,
        { ingredients: PALE.heaps[1]!.ingredients.map((i) => ({ ...i, range: [i.parts / 2, i.parts * 2] as const })) },
      ],
    };
    expect(trustInMixture(said, paintOf, () => 'typical').errorEstimate).to.be.above(exact.errorEstimate);
    expect(trustInMixture(PALE, paintOf, () => 'measured').errorEstimate).to.be.below(exact.errorEstimate / 3);
  });
});
