import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { CATALOGUE, deltaE00, labOf, labToMunsell, mixCurves, priming, reflectance, TITANIUM_SCATTER_PER_UM } from '../src/index.ts';
import { DEFINITIONS } from '../src/paint/pigments/index.ts';
import { derive } from '../src/paint/pigments/derive.ts';
import { labOfMix, unmet, type Truth } from './truths.ts';

const truths = (name: string): Truth[] =>
  (JSON.parse(readFileSync(new URL(`../data/${name}.json`, import.meta.url), 'utf8')) as { truths: Truth[] }).truths;

describe('what painters know of mixtures', () => {
  for (const truth of [...truths('mixing-truths'), ...truths('more-truths')])
    it(truth.id, () => {
      const mixes = truth.kind === 'order' ? [truth.of, truth.than] : truth.kind === 'region' ? [truth.mix] : [truth.plus ?? {}];
      for (const slug of mixes.flatMap((m) => Object.keys(m))) expect(CATALOGUE.has(slug), slug).to.equal(true);
      expect(unmet(truth)).to.deep.equal([]);
    });

  it('the checker refuses what is false', () => {
    expect(unmet({ id: 'x', kind: 'region', mix: { 'ivory-black': 1 }, expect: { L: [80, 99] } })).to.have.length(1);
    expect(unmet({ id: 'x', kind: 'ratio', mix: ['cadmium-red', 'cadmium-yellow'], expect: { C: [0, 5] } })).to.have.length(1);
  });
});

describe('the catalogue', () => {
  it('holds every generic pigment, with a basis and finite, positive curves', () => {
    expect(CATALOGUE.size).to.equal(62);
    for (const p of CATALOGUE.values()) {
      expect(p.K.length).to.equal(36);
      expect(p.basis.length, p.slug).to.be.above(15);
      for (const v of [...p.K, ...p.S]) expect(v, p.slug).to.be.within(1e-6, 70);
    }
  });

  it('has no flat filler, and no two pigments that look and tint alike', () => {
    const all = [...CATALOGUE.values()];
    const seen = all.map((p) => [labOfMix({ [p.slug]: 1 }), labOfMix({ [p.slug]: 1, 'titanium-white': 9 })] as const);
    for (const p of all) expect(Math.max(...p.K) / Math.min(...p.K), p.slug).to.be.above(1.05);
    all.forEach((p, i) => {
      for (let j = 0; j < i; j++) {
        const curveGap = p.S.reduce(
          (sum, v, n) => sum + Math.abs(Math.log(v / all[j]!.S[n]!)) + Math.abs(Math.log(p.K[n]! / all[j]!.K[n]!)),
          0,
        );
        const gap = deltaE00(seen[i]![0], seen[j]![0]) + deltaE00(seen[i]![1], seen[j]![1]) + curveGap / 10;
        expect(gap, `${p.slug} and ${all[j]!.slug}`).to.be.above(1.5);
      }
    });
  });

  it('keeps the published magnitudes', () => {
    const peak = (slug: string) => Math.max(...CATALOGUE.get(slug)!.K.subarray(2, 35));
    const S = (slug: string) => CATALOGUE.get(slug)!.S[18]!;
    expect(S('titanium-white')).to.be.closeTo(1, 0.03);
    expect(TITANIUM_SCATTER_PER_UM).to.be.within(0.05, 0.12);
    expect(peak('phthalo-blue')).to.be.within(42, 65);
    expect(peak('quinacridone-rose')).to.be.within(5, 9.5);
    expect(peak('alizarin-permanent')).to.be.within(5.5, 9.5);
    expect(peak('ultramarine-blue')).to.be.within(3.8, 4.8);
    expect(peak('ivory-black')).to.be.within(2.4, 4);
    expect(peak('lamp-black')).to.be.within(7.5, 11.5);
    for (const slug of ['cadmium-yellow', 'cadmium-red', 'cadmium-orange']) expect(S(slug)).to.be.within(0.4, 0.95);
    for (const slug of ['yellow-ochre', 'venetian-red', 'raw-umber', 'burnt-umber']) expect(S(slug)).to.be.within(0.3, 0.75);
    for (const slug of ['phthalo-blue', 'quinacridone-rose', 'alizarin-permanent', 'dioxazine-violet', 'ultramarine-blue'])
      expect(S(slug)).to.be.within(0.05, 0.22);
    expect(S('zinc-white')).to.be.closeTo(0.3, 0.06);
  });

  it('has blues whose washes lean as their tints do: ultramarine to violet, the others to green', () => {
    const hue = (slug: string, look: 'wash' | 'tint'): number => {
      const paint = CATALOGUE.get(slug)!;
      const lab =
        look === 'wash'
          ? labOf(reflectance(paint, { film: { thicknessUm: 2, ground: priming() } }))
          : labOf(
              reflectance(
                mixCurves([
                  { paint, parts: 1 },
                  { paint: CATALOGUE.get('titanium-white')!, parts: 9 },
                ]),
              ),
            );
      return labToMunsell(lab).hue;
    };
    // Steps of Munsell hue: 70 is 10B, 76 is 6PB.
    for (const look of ['wash', 'tint'] as const) {
      expect(hue('ultramarine-blue', look), look).to.be.within(75.5, 77.5);
      for (const greener of ['cobalt-blue', 'cerulean-blue', 'prussian-blue', 'phthalo-blue'])
        expect(hue(greener, look), `${greener}, ${look}`).to.be.below(hue('ultramarine-blue', look) - 2);
    }
  });

  it('is what the published features derive to', () => {
    const white = DEFINITIONS.find((d) => d.slug === 'titanium-white')!;
    const viridian = DEFINITIONS.find((d) => d.slug === 'viridian')!;
    if (!('absorb' in white) || !('absorb' in viridian)) throw new Error('both have features of their own');
    const derived = derive(viridian, derive(white));
    CATALOGUE.get('viridian')!.K.forEach((v, i) => expect(derived.K[i]!).to.be.closeTo(v, 1e-4));
  });
});
