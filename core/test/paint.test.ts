import { expect } from 'chai';
import fc from 'fast-check';
import {
  CATALOGUE,
  filmReflectance,
  flatSpectrum,
  inward,
  labOf,
  mixCurves,
  outward,
  pigmentFromInput,
  reflectance,
  type Portion,
} from '../src/index.ts';

const slugs = [...CATALOGUE.keys()];
const portions: fc.Arbitrary<Portion[]> = fc
  .array(fc.tuple(fc.constantFrom(...slugs), fc.double({ min: 0.05, max: 12, noNaN: true })), { minLength: 1, maxLength: 5 })
  .map((list) => list.map(([slug, parts]) => ({ paint: CATALOGUE.get(slug)!, parts })));
const largest = (a: ArrayLike<number>, b: ArrayLike<number>) =>
  Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

describe('a mixture', () => {
  it('reflects, at every band, between its least and its most reflecting part', () => {
    fc.assert(
      fc.property(portions, (list) => {
        const mixed = reflectance(mixCurves(list));
        const parts = list.map(({ paint }) => reflectance(paint));
        mixed.forEach((r, i) => {
          const here = parts.map((p) => p[i]!);
          expect(r).to.be.within(Math.min(...here) - 1e-12, Math.max(...here) + 1e-12);
        });
      }),
    );
  });

  it('minds neither the order nor the scale of its parts', () => {
    fc.assert(
      fc.property(portions, fc.double({ min: 1e-3, max: 1e3, noNaN: true }), (list, scale) => {
        const one = reflectance(mixCurves(list));
        const other = reflectance(mixCurves([...list].reverse().map((p) => ({ ...p, parts: p.parts * scale }))));
        expect(largest(one, other)).to.be.below(1e-12);
      }),
    );
  });

  it('of mixtures is the mixture of their tubes', () => {
    fc.assert(
      fc.property(portions, portions, (one, other) => {
        const sum = (list: Portion[]) => list.reduce((s, p) => s + p.parts, 0);
        const piles = mixCurves([
          { paint: mixCurves(one), parts: sum(one) },
          { paint: mixCurves(other), parts: sum(other) },
        ]);
        expect(largest(reflectance(piles), reflectance(mixCurves([...one, ...other])))).to.be.below(1e-12);
      }),
    );
  });

  it('refuses parts that are negative, not numbers, all zero or too many', () => {
    const paint = CATALOGUE.get('titanium-white')!;
    for (const parts of [-1, NaN, Infinity, 0, '3' as unknown as number]) expect(() => mixCurves([{ paint, parts }])).to.throw(/part/i);
    expect(() => mixCurves([])).to.throw(/part/);
    expect(() => mixCurves(Array.from({ length: 500 }, () => ({ paint, parts: 1 })))).to.throw(/at most/);
    expect(() => pigmentFromInput('unicorn-blue')).to.throw(/unicorn-blue/);
    expect(() => pigmentFromInput(undefined)).to.throw(/no tube/);
  });
});

describe('a film', () => {
  const thickness = fc.double({ min: 0.5, max: 200, noNaN: true });
  const ground = fc.double({ min: 0.02, max: 0.9, noNaN: true }).map(flatSpectrum);

  it('thick enough equals the masstone', () => {
    fc.assert(
      fc.property(portions, ground, (list, below) => {
        const paint = mixCurves(list);
        const thick = reflectance(paint, { film: { thicknessUm: 100_000, ground: below } });
        expect(largest(thick, reflectance(paint))).to.be.below(1e-6);
      }),
    );
  });

  it('of nothing shows the ground', () => {
    fc.assert(
      fc.property(portions, ground, (list, below) => {
        const none = reflectance(mixCurves(list), { film: { thicknessUm: 0, ground: below } });
        expect(largest(none, below)).to.be.below(1e-12);
      }),
    );
  });

  it('in two halves equals one whole', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-4, max: 60, noNaN: true }),
        fc.double({ min: 1e-3, max: 1, noNaN: true }),
        thickness,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (K, S, um, Rg) => {
          const X = um * 0.08;
          const half = filmReflectance(K, S, X / 2, Rg);
          expect(filmReflectance(K, S, X / 2, half)).to.be.closeTo(filmReflectance(K, S, X, Rg), 1e-9);
        },
      ),
    );
  });

  it('stays within 0 and 1 and clears as medium is added', () => {
    fc.assert(
      fc.property(portions, thickness, ground, fc.double({ min: 0, max: 1, noNaN: true }), (list, um, below, medium) => {
        const paint = mixCurves(list);
        const laid = reflectance(paint, { medium, film: { thicknessUm: um, ground: below } });
        laid.forEach((r) => expect(r).to.be.within(0, 1));
        const clear = reflectance(paint, { medium: 1, film: { thicknessUm: um, ground: below } });
        expect(largest(clear, below)).to.be.below(1e-9);
      }),
    );
  });

  it('looks lighter and duller when a dark one has sunk in', () => {
    const dark = CATALOGUE.get('ultramarine-blue')!;
    const glossy = labOf(reflectance(dark));
    const sunk = labOf(reflectance(dark, { sunk: 1 }));
    expect(sunk[0]).to.be.above(glossy[0] + 3);
    expect(Math.hypot(sunk[1], sunk[2])).to.be.below(Math.hypot(glossy[1], glossy[2]));
  });

  it('refuses thickness, medium and sinking out of range', () => {
    const paint = CATALOGUE.get('titanium-white')!;
    const film = { thicknessUm: 20, ground: flatSpectrum(0.2) };
    for (const laying of [
      { medium: -0.1 },
      { medium: 1.2, film },
      { film: { ...film, thicknessUm: -1 } },
      { film: { ...film, thicknessUm: NaN } },
      { sunk: 2 },
      { medium: 1 },
    ])
      expect(() => reflectance(paint, laying), JSON.stringify(laying)).to.throw(/film|medium|sunk/i);
  });
});

describe('the paint surface', () => {
  it('is crossed outward and inward without loss', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.97, noNaN: true }), (r) => {
        expect(outward(inward(r))).to.be.closeTo(r, 1e-12);
      }),
    );
    expect(outward(1)).to.be.closeTo(0.96, 1e-12);
  });
});
