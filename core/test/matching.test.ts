import { expect } from 'chai';
import fc from 'fast-check';
import {
  best,
  CATALOGUE,
  deltaE00,
  eyeFor,
  findPlans,
  isHeap,
  isTouch,
  labOf,
  layPalette,
  lchToLab,
  limitsFromInput,
  mismatch,
  mixCurves,
  polish,
  reflectance,
  smoothSpectrum,
  solve,
  trustIn,
  type Lab,
  type Limits,
  type Palette,
  type Recipe,
  type Viewing,
} from '../src/index.ts';
import { everydayLabs } from '../bench/everyday.ts';
import { ellipsoidAt } from '../src/colour/ellipse.ts';
import { endToEnd, emptySlopes, BOTH } from '../src/paint/viewing.ts';
import { solveThree } from '../src/laying/shares.ts';
import { runs } from './runs.ts';
import { some } from './some.ts';

const LAMPLIGHT = ['titanium-white', 'yellow-ochre', 'venetian-red', 'ultramarine-blue', 'burnt-umber', 'ivory-black'];
const WIDE = [
  'titanium-white',
  'cadmium-yellow',
  'yellow-ochre',
  'cadmium-red',
  'quinacridone-rose',
  'ultramarine-blue',
  'phthalo-blue',
  'burnt-umber',
];
const tubes = (slugs: readonly string[]) =>
  slugs.map((id) => {
    const { K, S, caution } = CATALOGUE.get(id)!;
    return { id, K, S, caution };
  });
const laid = (slugs: readonly string[], limits: Limits = { tubes: 4, parts: 12 }, viewing: Viewing = {}): Palette =>
  layPalette(tubes(slugs), limits, viewing);
const colourOf = (flat: Readonly<Record<string, number>>): Lab =>
  labOf(reflectance(mixCurves(Object.entries(flat).map(([id, parts]) => ({ paint: CATALOGUE.get(id)!, parts })))));

/** Any colour a painter could see, in and out of reach. */
const targets: fc.Arbitrary<Lab> = fc
  .tuple(
    fc.double({ min: 6, max: 96, noNaN: true }),
    fc.double({ min: 0, max: 70, noNaN: true }),
    fc.double({ min: 0, max: 360, noNaN: true }),
  )
  .map(([L, C, h]) => lchToLab([L, C, h]));

/** Colours that lie not far beyond what paint can do. */
const ordinary: fc.Arbitrary<Lab> = fc
  .tuple(
    fc.double({ min: 14, max: 94, noNaN: true }),
    fc.double({ min: 0, max: 36, noNaN: true }),
    fc.double({ min: 0, max: 360, noNaN: true }),
  )
  .map(([L, C, h]) => lchToLab([L, C, h]));

describe('the ellipsoid about a colour', () => {
  it('measures small differences as CIEDE2000 does', () => {
    fc.assert(
      fc.property(targets, fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -0.05, max: 0.05, noNaN: true }))), (lab, [dL, da, db]) => {
        const U = ellipsoidAt(lab);
        const row = (i: number) => U[3 * i]! * dL! + U[3 * i + 1]! * da! + U[3 * i + 2]! * db!;
        const there: Lab = [lab[0] + dL!, lab[1] + da!, lab[2] + db!];
        // The formula's stretch of a changes along the way, which the ellipsoid leaves out.
        expect(Math.hypot(row(0), row(1), row(2))).to.be.closeTo(deltaE00(lab, there), 0.004 + 0.06 * deltaE00(lab, there));
      }),
    );
  });
});

describe('an eye', () => {
  const ground = smoothSpectrum([55, 4, 14]);
  const below = CATALOGUE.get('burnt-umber')!;
  const viewings: readonly Viewing[] = [
    {},
    { light: 'A' },
    { laying: { sunk: 0.7 } },
    { laying: { film: { thicknessUm: 18, ground }, medium: 0.4 } },
    { pickUp: { below, share: 0.15 } },
    { light: 'D50', laying: { film: { thicknessUm: 60, ground } }, pickUp: { below, share: 0.1 } },
  ];

  it('sees what the long way predicts, in every viewing', () => {
    for (const viewing of viewings) {
      const eye = eyeFor(viewing);
      for (const id of WIDE) {
        const paint = CATALOGUE.get(id)!;
        const landed = viewing.pickUp
          ? mixCurves([
              { paint, parts: 1 - viewing.pickUp.share },
              { paint: below, parts: viewing.pickUp.share },
            ])
          : paint;
        const long = labOf(reflectance(landed, viewing.laying), viewing.light);
        expect(deltaE00(eye.see(endToEnd(eye.curvesOf(paint))), long)).to.be.below(1e-9);
      }
    }
  });

  it('tells how the colour changes with every band', () => {
    for (const viewing of viewings) {
      const eye = eyeFor(viewing);
      const mixed = endToEnd(
        eye.curvesOf(
          mixCurves([
            { paint: CATALOGUE.get('titanium-white')!, parts: 4 },
            { paint: CATALOGUE.get('yellow-ochre')!, parts: 1 },
          ]),
        ),
      );
      const U = ellipsoidAt(eye.see(mixed));
      const slopes = emptySlopes();
      eye.seeWithSlopes(mixed, U, slopes);
      for (const i of [3, 17, 30, 36 + 5, 36 + 20]) {
        const step = 1e-4 * (mixed[i]! + 0.01);
        const moved = (by: number) => eye.see(mixed.map((v, j) => (j === i ? v + by : v)));
        const [up, down] = [moved(step), moved(-step)];
        for (let row = 0; row < 3; row++) {
          const change = [0, 1, 2].reduce((s, k) => s + (U[3 * row + k]! * (up[k]! - down[k]!)) / (2 * step), 0);
          expect(slopes[row * BOTH + i]!).to.be.closeTo(change, 1e-3 + 0.01 * Math.abs(change));
        }
      }
    }
  });
});

describe('three equations', () => {
  it('are solved, and refused where they do not determine', () => {
    const A = Float64Array.of(4, 1, 0.5, 1, 3, 0.2, 0.5, 0.2, 2);
    const x = new Float64Array(3);
    expect(solveThree(A, Float64Array.of(7.5, 7.6, 6.9), 3, x)).to.equal(true);
    [1, 2, 3].forEach((v, i) => expect(x[i]!).to.be.closeTo(v, 1e-9));
    expect(solveThree(Float64Array.of(1, 1, 0, 1, 1, 0, 0, 0, 0), Float64Array.of(1, 1, 0), 2, x)).to.equal(false);
  });
});

/** What a hand can measure for four millilitres: at most a dozen parts in a heap but where one is long, touches in the pile alone; at most two heaps first. */
function expectMeasurable({ mixture, flat }: Recipe, limits: Limits): void {
  expect(mixture.heaps.length).to.be.at.most(3);
  expect(Object.keys(flat).length).to.be.at.most(limits.tubes);
  for (const [at, { ingredients }] of mixture.heaps.entries()) {
    const counted = ingredients.filter((one) => !isTouch(one));
    if (counted.length < ingredients.length) expect(at, 'a touch into the pile').to.equal(mixture.heaps.length - 1);
    const parts = counted.map((i) => i.parts);
    for (const n of parts) expect(Number.isInteger(n) && n >= 1).to.equal(true);
    const whole = parts.reduce((s, n) => s + n, 0);
    if (whole > limits.parts) expect(Math.max(...parts), 'one is long').to.be.at.least(whole / 4);
    expect(whole).to.be.at.most(Math.max(limits.parts, 100));
  }
}

describe('what is found for a target', () => {
  const palette = laid(WIDE);

  it('can be measured, and is what it says, wherever the target lies', () => {
    fc.assert(
      fc.property(targets, (target) => {
        for (const recipe of some(solve(palette, target).recipes)) {
          expectMeasurable(recipe, palette.limits);
          expect(Object.values(recipe.flat).reduce((s, v) => s + v, 0)).to.be.closeTo(1, 1e-9);
          expect(deltaE00(colourOf(recipe.flat), recipe.lab)).to.be.below(1e-6);
          expect(recipe.deltaE00).to.be.closeTo(deltaE00(target, recipe.lab), 1e-9);
        }
      }),
      { numRuns: runs(20) },
    );
  });

  it('is never worse than trying every division of a few tubes', () => {
    const few = laid(['titanium-white', 'burnt-sienna', 'ultramarine-blue', 'yellow-ochre'], { tubes: 3, parts: 6 });
    const plain: Record<string, number>[] = [];
    const divide = (at: number, left: number, parts: number[]): void => {
      if (at === 4) {
        if (parts.some((n) => n > 0) && parts.filter((n) => n > 0).length <= 3)
          plain.push(Object.fromEntries(few.ingredients.map(({ id }, i) => [id, parts[i]!])));
        return;
      }
      for (let n = 0; n <= left; n++) divide(at + 1, left - n, [...parts, n]);
    };
    divide(0, 6, []);
    const known = plain.map(colourOf);
    fc.assert(
      fc.property(ordinary, (target) => {
        const [found] = findPlans(few, { target, hold: 'all' });
        expect(found!.deltaE00).to.be.at.most(1.03 * Math.min(...known.map((lab) => deltaE00(target, lab))) + 0.12);
      }),
      { numRuns: runs(50) },
    );
  });

  it('finds again what was mixed from the palette', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(WIDE.length - 1), { minLength: 1, maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 4, maxLength: 4 }),
        (set, parts) => {
          const mixed = colourOf(Object.fromEntries(set.map((i, k) => [WIDE[i]!, parts[k]!])));
          const { reach, recipes } = solve(palette, mixed);
          expect(reach).to.equal('in');
          expect(recipes[0]!.deltaE00).to.be.below(2);
        },
      ),
      { numRuns: runs(40) },
    );
  });

  it('is the same for the same question', () => {
    for (const target of [
      [70, 4, 12],
      [30, -8, 4],
      [86, 1, -3],
    ] as Lab[])
      expect(best(laid(WIDE), target)).to.deep.equal(best(palette, target));
  });

  it('does not get worse by a tube more on the palette', () => {
    const all = [...CATALOGUE.keys()];
    fc.assert(
      fc.property(fc.constantFrom(...everydayLabs()), fc.shuffledSubarray(all, { minLength: 4, maxLength: 12 }), (target, slugs) => {
        const fewer = best(laid(slugs.slice(0, -1)), target);
        const more = best(laid(slugs), target);
        expect(more.score).to.be.at.most(fewer.score + 0.1);
      }),
      { numRuns: runs(40), seed: 8 },
    );
  });

  it('holds value first where the palette does not reach', () => {
    fc.assert(
      fc.property(targets, (target) => {
        const found = best(palette, target);
        const anyhow = best(palette, target, { valueTolerance: 100 });
        expect(Math.abs(found.valueError)).to.be.at.most(Math.max(0.27, Math.abs(anyhow.valueError)) + 1e-6);
      }),
      { numRuns: runs(20) },
    );
  });

  it('is expected to be off by what tubes differ, as a thousand studios have it', () => {
    for (const target of [
      [70, 4, 12],
      [45, 10, 14],
      [82, -2, -6],
    ] as Lab[]) {
      const [found] = findPlans(palette, { target });
      const flat = best(palette, target).flat;
      const { likelyError } = trustIn(Object.entries(flat).map(([id, parts]) => ({ paint: CATALOGUE.get(id)!, parts })));
      // The median of a difference in three dimensions lies somewhat below its root mean square.
      expect(found!.error).to.be.within(likelyError * 0.9, likelyError * 1.6);
    }
  });

  it('offers alternatives of other tubes, none far worse, each saying what it is better at', () => {
    const { recipes } = solve(palette, [52, 9, 18]);
    expect(recipes.length).to.be.within(2, 4);
    recipes.forEach((r) => expect(r.betterAt).to.be.a('string').and.not.equal(''));
    for (const r of recipes.slice(1).filter(({ betterAt }) => betterAt !== 'closest')) {
      expect(r.deltaE00).to.be.at.most(Math.max(2, recipes[0]!.deltaE00 + 1.5));
      for (const other of recipes.filter((o) => o !== r)) expect(Object.keys(other.flat).some((id) => !(id in r.flat))).to.equal(true);
    }
  });

  it('lets a painter dull by opposites, or by earths, as the school has it', () => {
    const rich = laid([...WIDE, 'viridian', 'ivory-black', 'burnt-sienna']);
    const grey: Lab = [50, 1, 2];
    const plainly = Object.keys(best(rich, grey).flat);
    expect(plainly.some((id) => ['burnt-umber', 'ivory-black', 'burnt-sienna'].includes(id))).to.equal(true);
    const lively = Object.keys(best(rich, grey, { dulling: 'opposites' }).flat);
    expect(lively).to.not.include.members(['ivory-black']);
    expect(lively).to.not.include('burnt-umber');
  });

  it('works with one tube, and with parts fewer than tubes', () => {
    expect(best(laid(['ivory-black']), [50, 20, 20]).flat).to.deep.equal({ 'ivory-black': 1 });
    expectMeasurable(best(laid(LAMPLIGHT, { tubes: 4, parts: 2 }), [60, 5, 9]), { tubes: 4, parts: 2 });
    expectMeasurable(best(laid(LAMPLIGHT, { tubes: 1, parts: 1 }), [60, 5, 9]), { tubes: 1, parts: 1 });
  });

  it('says what is out of reach', () => {
    expect(solve(laid(LAMPLIGHT), [60, 0, -60]).reach).to.equal('out');
    expect(solve(laid(LAMPLIGHT), [60, -50, 30]).reach).to.equal('out');
  });

  it('reaches pale greys with a strong black, by a touch or a let-down', () => {
    const found = best(laid(LAMPLIGHT), [82, 0, 0]);
    expect(found.deltaE00).to.be.below(1);
    expect(found.mixture.heaps.some(({ ingredients }) => ingredients.some((one) => isHeap(one) || isTouch(one)))).to.equal(true);
  });
});

describe('exact proportions', () => {
  it('are never worse than the recipe they start from, and find the target where it is in reach', () => {
    const palette = laid(LAMPLIGHT);
    fc.assert(
      fc.property(targets, (target) => {
        // Worse in value is worse, whatever ΔE00 says of it.
        const cost = mismatch(target);
        const start = best(palette, target);
        expect(cost(polish(palette, start, target).lab)).to.be.at.most(cost(start.lab) + 1e-9);
      }),
      { numRuns: runs(40) },
    );
    const target = colourOf({ 'titanium-white': 5.3, 'yellow-ochre': 1.7, 'venetian-red': 0.43 });
    expect(polish(palette, best(palette, target, { most: 3 }), target).deltaE00).to.be.below(0.6);
  });
});

describe('where it lands', () => {
  const ground = smoothSpectrum([78, 2, 10]);

  it('is a glaze that looks right over its ground, not in the pile', () => {
    const viewing: Viewing = { laying: { film: { thicknessUm: 10, ground } } };
    const palette = laid(['quinacridone-rose', 'transparent-yellow-oxide', 'ultramarine-blue', 'titanium-white'], undefined, viewing);
    const wanted = colourOfFilm({ 'quinacridone-rose': 2, 'transparent-yellow-oxide': 3 }, viewing);
    const found = best(palette, wanted);
    expect(found.deltaE00).to.be.below(1);
    expect(deltaE00(colourOfFilm(found.flat, viewing), found.lab)).to.be.below(1e-6);
    expect(deltaE00(colourOf(found.flat), wanted)).to.be.above(8);
  });

  it('is a pile that looks right once it has picked up what lies below', () => {
    const pickUp = { below: CATALOGUE.get('burnt-umber')!, share: 0.05 };
    const palette = laid(LAMPLIGHT, undefined, { pickUp });
    const target: Lab = [62, 6, 16];
    const found = best(palette, target);
    const pile = mixCurves(Object.entries(found.flat).map(([id, parts]) => ({ paint: CATALOGUE.get(id)!, parts })));
    const landed = labOf(
      reflectance(
        mixCurves([
          { paint: pile, parts: 1 - pickUp.share },
          { paint: pickUp.below, parts: pickUp.share },
        ]),
      ),
    );
    expect(deltaE00(landed, found.lab)).to.be.below(1e-6);
    expect(found.deltaE00).to.be.below(1.5);
    expect(labOf(reflectance(pile))[0]).to.be.above(landed[0]);
  });

  it('is never worse than trying many films of two tubes', () => {
    const viewing: Viewing = { laying: { film: { thicknessUm: 25, ground }, medium: 0.3 } };
    const two = ['titanium-white', 'transparent-oxide-red'];
    const palette = laid(two, undefined, viewing);
    fc.assert(
      fc.property(targets, (target) => {
        const [found] = findPlans(palette, { target, hold: 'all' });
        for (let n = 0; n <= 12; n++) {
          const tried = deltaE00(target, colourOfFilm({ [two[0]!]: n, [two[1]!]: 12 - n }, viewing));
          expect(found!.deltaE00).to.be.at.most(1.03 * tried + 0.12 + 1e-9);
        }
      }),
      // Far out of reach the formula has hollows of its own.
      { numRuns: runs(40), examples: [[[50.54, 0, 0]], [[20, -40, -40]], [[23, -24, -24]]] },
    );
  });
});

function colourOfFilm(parts: Readonly<Record<string, number>>, { laying }: Viewing): Lab {
  return labOf(reflectance(mixCurves(Object.entries(parts).map(([id, n]) => ({ paint: CATALOGUE.get(id)!, parts: n }))), laying));
}

describe('a palette that cannot be laid out', () => {
  it('is refused, and says why', () => {
    expect(() => laid([])).to.throw(/empty/);
    expect(() => laid(['ivory-black', 'ivory-black'])).to.throw(/twice/);
    expect(() => layPalette(Array.from({ length: 500 }, (_, i) => ({ ...tubes(['ivory-black'])[0]!, id: `t${i}` })))).to.throw(/at most/);
    expect(() => layPalette([{ id: 'x', K: new Float64Array(36).fill(NaN), S: new Float64Array(36) }])).to.throw(/broken/);
    expect(() => layPalette([{ id: 'x', K: new Float64Array(3), S: new Float64Array(3) }])).to.throw(/broken/);
    expect(() => laid(LAMPLIGHT, undefined, { laying: { sunk: 2 } })).to.throw(/sunk/);
    expect(() => laid(LAMPLIGHT, undefined, { laying: { medium: 1 } })).to.throw(/Pure medium/);
    expect(() => laid(LAMPLIGHT, undefined, { pickUp: { below: CATALOGUE.get('ivory-black')!, share: 1.5 } })).to.throw(/share/);
    for (const bad of [7, null, [], { tubes: 0 }, { tubes: 7 }, { parts: 2.5 }, { parts: NaN }, { colour: 3 }])
      expect(() => limitsFromInput(bad), JSON.stringify(bad)).to.throw(/limit|Limits|whole number/);
    expect(limitsFromInput({})).to.deep.equal({ tubes: 4, parts: 12 });
  });

  it('and so are targets that are none', () => {
    const palette = laid(LAMPLIGHT);
    for (const bad of [
      [NaN, 0, 0],
      [50, Infinity, 0],
    ] as Lab[])
      expect(() => solve(palette, bad)).to.throw(/target/);
    expect(() => solve(palette, [50, 0, 0], { valueTolerance: NaN })).to.throw(/tolerance/);
  });
});
