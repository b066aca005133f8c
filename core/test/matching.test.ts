import { expect } from 'chai';
import fc from 'fast-check';
import {
  CATALOGUE,
  deltaE00,
  ingredientsOf,
  labOf,
  lchToLab,
  limitsFromInput,
  lookUp,
  makeBook,
  mixCurves,
  rankingFor,
  reflectance,
  score,
  solve,
  tryAll,
  weigh,
  atOnce,
  bookInSteps,
  best,
  readRecipe,
  type Book,
  type Lab,
  type Limits,
} from '../src/index.ts';
import { compositions } from '../src/matching/enumerate.ts';
import { colouringOf, plainColouring } from '../src/matching/kernel/kernel.ts';
import { boundFrom } from '../src/matching/nearness.ts';

const LAMPLIGHT = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'transparent-oxide-red', 'ultramarine-blue', 'ivory-black'];
const WIDE = [
  'titanium-white',
  'cadmium-yellow',
  'yellow-ochre',
  'cadmium-red',
  'alizarin-permanent',
  'ultramarine-blue',
  'phthalo-blue',
  'burnt-umber',
];
const tubes = (slugs: readonly string[]) => slugs.map((id) => ({ ...CATALOGUE.get(id)!, id }));
const bookOf = (slugs: readonly string[], limits: Limits = { tubes: 4, parts: 12 }): Book => makeBook(tubes(slugs), limits);

/** Any colour a painter could see, in and out of reach. */
const targets: fc.Arbitrary<Lab> = fc
  .tuple(
    fc.double({ min: 3, max: 98, noNaN: true }),
    fc.double({ min: 0, max: 85, noNaN: true }),
    fc.double({ min: 0, max: 360, noNaN: true }),
  )
  .map(([L, C, h]) => lchToLab([L, C, h]));

describe('the kernel', () => {
  it('colours as the plain way does', () => {
    const ingredients = ingredientsOf(tubes(WIDE));
    const one = colouringOf(ingredients, 'D65');
    const other = plainColouring(ingredients, 'D65');
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat({ max: ingredients.length - 1 }), { minLength: 1, maxLength: 6 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 6, maxLength: 60 }),
        (set, numbers) => {
          const parts = Float32Array.from(numbers.slice(0, Math.floor(numbers.length / set.length) * set.length));
          const xyz = Array.from(one(set, parts));
          const plain = other(set, parts);
          expect(xyz).to.have.length(plain.length);
          xyz.forEach((v, i) => expect(v).to.be.closeTo(plain[i]!, 2e-6));
        },
      ),
    );
  });
});

describe('dividing parts', () => {
  it('lists each proportion once and no multiple of another', () => {
    for (const [count, most] of [
      [2, 6],
      [3, 8],
      [4, 12],
    ] as const) {
      const seen = new Set<string>();
      for (const parts of compositions(count, most)) {
        const total = parts.reduce((s, n) => s + n, 0);
        expect(total).to.be.at.most(most);
        expect(Math.min(...parts)).to.be.at.least(1);
        seen.add(Array.from(parts, (n) => (n / total).toFixed(9)).join());
      }
      expect(seen.size).to.equal(compositions(count, most).length);
    }
    // By hand: 1:1, 1:2, 2:1, 1:3, 3:1, 1:4, 4:1, 2:3, 3:2.
    expect(compositions(2, 5)).to.have.length(9);
  });
});

describe('the book', () => {
  const book = bookOf(WIDE);

  it('holds every recipe within the limits, let-downs for strong tubes included', () => {
    const letdowns = book.ingredients.filter((i) => i.letdown).map((i) => i.id);
    expect(letdowns).to.include('phthalo-blue let down');
    expect(book.ingredients).to.have.length(WIDE.length + letdowns.length);
    for (let i = 0; i < book.count; i += 97) {
      const recipe = readRecipe(book, i, [50, 0, 0]);
      expect(recipe.measures.reduce((s, m) => s + m.parts, 0)).to.be.at.most(12);
      expect(Object.keys(recipe.flat).length).to.be.at.most(4);
      expect(Object.values(recipe.flat).reduce((s, v) => s + v, 0)).to.be.closeTo(1, 1e-12);
    }
  });

  it('has the colour of each recipe as the mixture has it', () => {
    for (let i = 0; i < book.count; i += 131) {
      const { lab, flat } = readRecipe(book, i, [50, 0, 0]);
      expect(deltaE00(lab, [book.L[i]!, book.a[i]!, book.b[i]!])).to.be.below(1e-3);
      const mixed = mixCurves(Object.entries(flat).map(([id, parts]) => ({ paint: CATALOGUE.get(id)!, parts })));
      expect(deltaE00(labOf(reflectance(mixed)), lab)).to.be.below(1e-9);
    }
  });

  it('answers with the best recipe there is, wherever the target lies', () => {
    fc.assert(
      fc.property(targets, (target) => {
        const ranking = rankingFor(target);
        expect(lookUp(book, ranking)[0]!.score).to.be.closeTo(tryAll(book, ranking).score, 1e-6);
      }),
      { numRuns: 150 },
    );
  });

  it('never promises less than a box can hold', () => {
    fc.assert(
      fc.property(targets, targets, fc.double({ min: 0.1, max: 12, noNaN: true }), (target, [L, a, b], size) => {
        const ranking = rankingFor(target);
        const box = Float32Array.of(L - size, L + size, a - size, a + size, b - size, b + size);
        const least = boundFrom(ranking)(box, 0);
        for (let n = 0; n < 27; n++) {
          const at = (k: number) => ((Math.floor(n / 3 ** k) % 3) - 1) * size * 0.999;
          expect(ranking.deltaE(L + at(0), a + at(1), b + at(2))).to.be.at.least(
            least - 12 * Math.max(0, Math.abs(L - target[0]) * 0.104 - 0.2) - 0.01,
          );
        }
      }),
      { numRuns: 2000 },
    );
  });

  it('shortlists the best of every set of tubes in order', () => {
    const ranking = rankingFor([55, 8, 20]);
    const found = lookUp(book, ranking, 20);
    const scores = new Map<number, number>();
    for (let i = 0; i < book.count; i++) {
      const s = score(ranking, book.L[i]!, book.a[i]!, book.b[i]!, book.value[i]!, book.effort[i]!);
      const kin = book.kinOf[book.setOf[i]!]!;
      scores.set(kin, Math.min(s, scores.get(kin) ?? Infinity));
    }
    const wanted = [...scores.values()].sort((a, b) => a - b).slice(0, 20);
    found.forEach(({ score: s }, i) => expect(s).to.be.closeTo(wanted[i]!, 1e-9));
  });

  it('can be made a little at a time, telling how far it is, and is the same', () => {
    const making = bookInSteps(tubes(LAMPLIGHT), { tubes: 3, parts: 8 });
    const told: number[] = [];
    let step = making.next();
    for (; !step.done; step = making.next()) told.push(step.value);
    expect(told.length).to.be.above(3);
    expect([...told].sort((a, b) => a - b)).to.deep.equal(told);
    expect(told.at(-1)).to.be.within(0.9, 1);
    const whole = atOnce(bookInSteps(tubes(LAMPLIGHT), { tubes: 3, parts: 8 }));
    expect(step.value.L).to.deep.equal(whole.L);
    expect(step.value.setOf).to.deep.equal(whole.setOf);
  });

  it('works with one tube, and with parts fewer than tubes', () => {
    expect(best(bookOf(['ivory-black']), [50, 20, 20]).flat).to.deep.equal({ 'ivory-black': 1 });
    expect(bookOf(LAMPLIGHT, { tubes: 4, parts: 2 }).count).to.be.above(6);
  });
});

describe('solving', () => {
  const book = bookOf(LAMPLIGHT);

  it('finds again what was mixed from the palette, within a whisker', () => {
    fc.assert(
      fc.property(fc.nat({ max: book.count - 1 }), (i) => {
        const mixed = readRecipe(book, i, [50, 0, 0]).lab;
        const { reach, recipes } = solve(book, mixed);
        expect(reach).to.not.equal('out');
        // A simpler recipe may be preferred, but only for as much as it saves in effort.
        expect(recipes[0]!.deltaE00).to.be.at.most(book.effort[i]! + 1e-3);
      }),
      { numRuns: 60 },
    );
  });

  it('puts value before hue', () => {
    fc.assert(
      fc.property(targets, (target) => {
        const found = best(book, target);
        const byColour = best(book, target, 100);
        expect(Math.abs(found.valueError)).to.be.at.most(Math.max(0.25, Math.abs(byColour.valueError)) + 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it('offers alternatives of other tubes, each saying what it is better at', () => {
    const { recipes } = solve(book, [52, 9, 18]);
    expect(recipes.length).to.be.within(2, 4);
    const sets = recipes.map((r) => Object.keys(r.flat).sort().join());
    expect(new Set(sets).size).to.equal(sets.length);
    recipes.forEach((r) => expect(r.betterAt).to.be.a('string').and.not.equal(''));
    for (const r of recipes.filter((r) => r.betterAt === 'fewer tubes'))
      expect(Object.keys(r.flat).length).to.be.below(Object.keys(recipes[0]!.flat).length);
  });

  it('says what is out of reach', () => {
    expect(solve(book, [60, 0, -60]).reach).to.equal('out');
    expect(solve(book, [60, -50, 30]).reach).to.equal('out');
  });

  it('refuses targets that are none', () => {
    for (const bad of [
      [NaN, 0, 0],
      [50, Infinity, 0],
    ] as Lab[])
      expect(() => solve(book, bad)).to.throw(/target/);
    expect(() => solve(book, [50, 0, 0], { valueTolerance: NaN })).to.throw(/tolerance/);
  });

  it('refuses palettes and limits it cannot work with', () => {
    expect(() => bookOf([])).to.throw(/empty/);
    expect(() => bookOf(['ivory-black', 'ivory-black'])).to.throw(/twice/);
    expect(() =>
      makeBook(
        Array.from({ length: 500 }, (_, i) => ({ ...CATALOGUE.get('ivory-black')!, id: `t${i}` })),
        { tubes: 4, parts: 12 },
      ),
    ).to.throw(/at most/);
    expect(() => makeBook([{ id: 'x', K: new Float64Array(36).fill(NaN), S: new Float64Array(36) }], { tubes: 4, parts: 12 })).to.throw(
      /broken/,
    );
    expect(() => bookOf([...CATALOGUE.keys()].slice(0, 24), { tubes: 6, parts: 24 })).to.throw(/million/);
    for (const bad of [7, null, [], { tubes: 0 }, { tubes: 7 }, { parts: 2.5 }, { parts: NaN }, { colour: 3 }])
      expect(() => limitsFromInput(bad), JSON.stringify(bad)).to.throw(/limit|Limits|whole number/);
    expect(limitsFromInput({})).to.deep.equal({ tubes: 4, parts: 12 });
  });
});

describe('let-downs', () => {
  it('are made of the lightest paint and open to their tubes', () => {
    const letdown = ingredientsOf(tubes(WIDE)).find((i) => i.id === 'phthalo-blue let down')!;
    expect(letdown.letdown!.parts).to.deep.equal({ 'titanium-white': 9, 'phthalo-blue': 1 });
    const { flat } = weigh([{ ingredient: letdown, parts: 1 }], [50, 0, 0]);
    expect(flat).to.deep.equal({ 'titanium-white': 0.9, 'phthalo-blue': 0.1 });
  });

  it('are not made of weak tubes', () => {
    expect(ingredientsOf(tubes(['titanium-white', 'unbleached-titanium', 'terre-verte'])).filter((i) => i.letdown)).to.have.length(0);
  });
});
