import { expect } from 'chai';
import fc from 'fast-check';
import {
  CATALOGUE,
  deltaE00,
  firstBeliefs,
  labOf,
  learn,
  mixCurves,
  reflectance,
  trustIn,
  type Basis,
  type Beliefs,
  type KnownPortion,
  type PaintCurves,
} from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { runs } from './runs.ts';

/**
 * A studio whose tubes differ from the typical ones, written apart from the engine's own: strength
 * ×0.7–1.3 on K and half as much on S, ±5 nm, up to a quarter extender, and a smooth error of 5–8 %.
 */
function trueTube(paint: PaintCurves, random: () => number): PaintCurves {
  const strength = 0.7 + 0.6 * random();
  const shift = (random() - 0.5) * 10;
  const clear = 1 - 0.25 * random();
  const size = 0.05 + 0.03 * random();
  const wave = () => {
    const waves = [1, 2, 3].map((n) => ({ n, phase: random() * 2 * Math.PI, weight: random() - 0.5 }));
    const norm = Math.sqrt(waves.reduce((s, w) => s + w.weight ** 2, 0) / 2);
    return (i: number) =>
      Math.exp((size * waves.reduce((s, { n, phase, weight }) => s + weight * Math.sin((n * Math.PI * i) / 36 + phase), 0)) / norm);
  };
  const read = (curve: Float64Array, i: number) => {
    const at = Math.min(34.999, Math.max(0, i - shift / 10));
    const low = Math.floor(at);
    return curve[low]! * (1 - at + low) + curve[low + 1]! * (at - low);
  };
  const [waveK, waveS] = [wave(), wave()];
  return {
    K: paint.K.map((_, i) => read(paint.K, i) * clear * strength * waveK(i)),
    S: paint.S.map((_, i) => read(paint.S, i) * clear * (1 + (strength - 1) / 2) * waveS(i)),
  };
}

describe('how far a prediction is trusted', () => {
  const slugs = [...CATALOGUE.keys()];
  const random = seeded(31);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

  const outcomes = Array.from({ length: 900 }, () => {
    const count = 2 + Math.floor(random() * 3);
    const chosen = new Set(['titanium-white']);
    while (chosen.size < count) chosen.add(pick(slugs));
    const portions = [...chosen].map((id) => ({ paint: CATALOGUE.get(id)! as PaintCurves, parts: 1 + Math.floor(random() * 6) }));
    const estimate = trustIn(portions).errorEstimate;
    const truth = portions.map((p) => ({ ...p, paint: trueTube(p.paint, random) }));
    const error = deltaE00(labOf(reflectance(mixCurves(portions))), labOf(reflectance(mixCurves(truth))));
    return { estimate, inside: error <= estimate };
  });
  const covered = (list: typeof outcomes) => list.filter((o) => o.inside).length / list.length;

  it('holds for about nine of ten true mixtures', () => {
    expect(covered(outcomes)).to.be.within(0.86, 0.94);
  });

  it('holds in each third of recipes by size of the estimate', () => {
    const sorted = [...outcomes].sort((a, b) => a.estimate - b.estimate);
    const third = sorted.length / 3;
    for (const n of [0, 1, 2]) expect(covered(sorted.slice(n * third, (n + 1) * third)), `third ${n + 1}`).to.be.within(0.84, 0.96);
  });

  it('is no constant: it varies by recipe', () => {
    const estimates = outcomes.map((o) => o.estimate).sort((a, b) => a - b);
    expect(estimates[810]! / estimates[90]!).to.be.above(1.7);
  });

  it('is the same for the same recipe, whatever was asked before', () => {
    const copied = ({ K, S }: PaintCurves): PaintCurves => ({ K: K.slice(), S: S.slice() });
    const recipe = () => ['titanium-white', 'viridian'].map((id, i) => ({ paint: copied(CATALOGUE.get(id)!), parts: 5 - 3 * i }));
    const first = trustIn(recipe());
    trustIn([{ paint: copied(CATALOGUE.get('raw-umber')!), parts: 1 }]);
    expect(trustIn(recipe())).to.deep.equal(first);
  });

  it('is larger for parts that were logged in words', () => {
    const paint = (id: string) => CATALOGUE.get(id)!;
    const exact = [
      { paint: paint('titanium-white'), parts: 8 },
      { paint: paint('viridian'), parts: 1 },
    ];
    const said = exact.map((p) => ({ ...p, range: [p.parts * 0.5, p.parts * 2] as const }));
    expect(trustIn(said).errorEstimate).to.be.above(trustIn(exact).errorEstimate * 1.2);
  });

  it('shrinks as piles teach, and together: two tubes of which only the ratio is known are sure in a mixture', () => {
    const ids = ['titanium-white', 'ultramarine-blue'];
    const portions = ids.map((id, i) => ({ id, paint: CATALOGUE.get(id)!, parts: 5 - 4 * i, basis: 'learnt' as const }));
    const first = firstBeliefs(ids);
    const tubes = portions.map(({ id, paint }) => ({ id, ...paint }));
    const additions = portions.map(({ id, parts }) => ({ id, parts }));
    const observed = labOf(reflectance(mixCurves(portions)));
    const taught = learn(first, tubes, [{ additions, observed, knife: 0.02 }]).beliefs;
    const stated = (joint: Beliefs, knife = 0) => trustIn(portions, undefined, { joint, knife }).errorEstimate;
    expect(stated(taught)).to.be.below(stated(first) * 0.75);
    const apart = {
      ...taught,
      covariance: taught.covariance.map((row, i) => row.map((v, j) => (Math.floor(i / 3) === Math.floor(j / 3) ? v : 0))),
    };
    expect(stated(taught)).to.be.below(stated(apart));
    expect(stated(taught, 0.25)).to.be.above(stated(taught) * 1.3);
  });

  it('is more than half of it, and never less for more that is unknown', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...slugs),
        fc.constantFrom(...slugs),
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        (one, other, share) => {
          const portions = (range: number): KnownPortion[] => [
            { paint: CATALOGUE.get(one)!, parts: share, range: [share / range, share * range] },
            { paint: CATALOGUE.get(other)!, parts: 1 - share },
          ];
          const [exact, loose] = [trustIn(portions(1)), trustIn(portions(2))];
          expect(exact.likelyError).to.be.at.least(0).and.below(exact.errorEstimate);
          expect(loose.errorEstimate).to.be.at.least(exact.errorEstimate - 1e-9);
        },
      ),
      { numRuns: runs(60) },
    );
  });

  it('is smaller for learnt, fitted and measured tubes, each in turn', () => {
    const recipe = (basis: Basis) =>
      trustIn([
        { paint: CATALOGUE.get('titanium-white')!, parts: 5, basis },
        { paint: CATALOGUE.get('phthalo-blue')!, parts: 1, basis },
      ]);
    expect(recipe('learnt').errorEstimate).to.be.below(recipe('typical').errorEstimate);
    expect(recipe('fitted').errorEstimate).to.be.below(recipe('learnt').errorEstimate);
    expect(recipe('fitted').errorEstimate).to.be.below(recipe('typical').errorEstimate / 3);
    expect(recipe('measured').errorEstimate).to.be.below(recipe('fitted').errorEstimate);
    expect(recipe('fitted').basis).to.equal('fitted');
  });
});
