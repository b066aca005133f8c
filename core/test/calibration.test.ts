import { expect } from 'chai';
import fc from 'fast-check';
import {
  CATALOGUE,
  CraftError,
  deltaE00,
  deviate,
  drawDeviation,
  fitTube,
  fitWhite,
  hiddenStudio,
  labOf,
  looksSwapped,
  mixCurves,
  readSwatchCard,
  readingsFromFile,
  readingsToCgats,
  reflectance,
  standInCardCamera,
  standInReader,
  taughtBy,
  tintsOfRow,
  trustIn,
  USUAL_SPREAD,
  USUAL_TINTS,
  type PaintCurves,
  type SwatchReading,
} from '../src/index.ts';
import { normal, seeded } from '../src/random.ts';
import { runs } from './runs.ts';

const typical = (slug: string): PaintCurves => {
  const { K, S } = CATALOGUE.get(slug)!;
  return { K, S };
};
const WHITE = 'titanium-white';
const TUBES = ['burnt-sienna', 'ultramarine-blue', 'viridian', 'cadmium-red', 'raw-umber'] as const;
const mean = (list: readonly number[]): number => list.reduce((sum, v) => sum + v, 0) / list.length;
const percentile = (list: readonly number[], q: number): number => [...list].sort((a, b) => a - b)[Math.floor(q * list.length)]!;

/** A studio of true tubes, read by a reader or off a card, and what mixtures of what was fitted miss by. */
function taughtStudio(seed: number, kind: 'reader' | 'photo') {
  const random = seeded(seed);
  const hidden = new Map([WHITE, ...TUBES].map((slug) => [slug, deviate(typical(slug), drawDeviation(USUAL_SPREAD, random))]));
  const astray = [normal(random), normal(random), normal(random)];
  const by = 1.24 / Math.hypot(...astray);
  const read = (slug: string, white: number): SwatchReading => {
    const r = reflectance(
      mixCurves([
        { paint: hidden.get(slug)!, parts: 1 },
        { paint: hidden.get(WHITE)!, parts: white },
      ]),
    );
    const parts = { tube: 1, white };
    if (kind === 'reader') return { parts, spectrum: r.map((v) => v + 0.002 * normal(random)) };
    const lab = labOf(r).map((v, i) => v + astray[i]! * by + 0.71 * normal(random)) as [number, number, number];
    return { parts, lab, by: 'photo' };
  };
  const white = fitWhite(typical(WHITE), [read(WHITE, 0)]);
  const fitted = new Map<string, PaintCurves>([[WHITE, white]]);
  for (const slug of TUBES)
    fitted.set(
      slug,
      fitTube(
        typical(slug),
        white,
        USUAL_TINTS.map((n) => read(slug, n)),
      ),
    );
  const errors = { fitted: [] as number[], typical: [] as number[] };
  const inside: boolean[] = [];
  for (let i = 0; i < 60; i++) {
    const set = [WHITE, ...TUBES].sort(() => random() - 0.5).slice(0, 2 + Math.floor(random() * 3));
    const portions = (of: (slug: string) => PaintCurves) =>
      set.map((slug, k) => ({ paint: of(slug), parts: 1 + ((i + k * 7) % (slug === WHITE ? 8 : 3)), basis: 'fitted' as const }));
    const look = (of: (slug: string) => PaintCurves) => labOf(reflectance(mixCurves(portions(of))));
    const truth = look((slug) => hidden.get(slug)!);
    errors.fitted.push(
      deltaE00(
        look((slug) => fitted.get(slug)!),
        truth,
      ),
    );
    errors.typical.push(deltaE00(look(typical), truth));
    inside.push(errors.fitted.at(-1)! <= trustIn(portions((slug) => fitted.get(slug)!)).errorEstimate);
  }
  return { errors, inside, hidden, fitted };
}
const studios = (kind: 'reader' | 'photo') => [3, 8, 21, 34].map((seed) => taughtStudio(seed, kind));

describe('a tube that is taught', () => {
  it('by a reader predicts mixtures nobody read within half a ΔE00', () => {
    const errors = studios('reader').flatMap((one) => one.errors.fitted);
    expect(mean(errors)).to.be.below(0.6);
    expect(percentile(errors, 0.95)).to.be.below(1.2);
  });

  it('by a photographed card errs at most six tenths of what it did', () => {
    const all = studios('photo');
    const errors = all.flatMap((one) => one.errors.fitted);
    expect(mean(errors)).to.be.below(1.7);
    expect(percentile(errors, 0.95)).to.be.below(3.3);
    expect(mean(errors)).to.be.below(0.6 * mean(all.flatMap((one) => one.errors.typical)));
  });

  it('says honestly how far it may be off', () => {
    for (const kind of ['reader', 'photo'] as const) {
      const inside = [3, 8, 21, 34, 55, 89, 5, 6].flatMap((seed) => taughtStudio(seed, kind).inside);
      expect(inside.filter(Boolean).length / inside.length, kind).to.be.within(0.84, 0.97);
    }
  });

  it('gives its own readings back, whatever paint it is', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CATALOGUE.keys()), fc.integer({ min: 1, max: 9999 }), (slug, seed) => {
        const random = seeded(seed);
        const [tube, white] = [slug, WHITE].map((one) => deviate(typical(one), drawDeviation(USUAL_SPREAD, random)));
        const readings = USUAL_TINTS.map((n) => ({
          parts: { tube: 1, white: n },
          spectrum: reflectance(
            mixCurves([
              { paint: tube!, parts: 1 },
              { paint: white!, parts: n },
            ]),
          ),
        }));
        const fit = fitTube(
          typical(slug),
          fitWhite(typical(WHITE), [{ parts: { tube: 1, white: 0 }, spectrum: reflectance(white!) }]),
          readings,
        );
        // A reader's noise is most to what is nearly black.
        expect(Math.max(...fit.residuals)).to.be.below(2.2);
        expect(mean(fit.residuals)).to.be.below(0.9);
        expect(fit.strangeness).to.be.below(3);
        expect([...fit.K, ...fit.S].every((v) => v > 0 && Number.isFinite(v))).to.equal(true);
      }),
      { numRuns: runs(12) },
    );
  });

  it('that is as it was taken for stays as it was', () => {
    const readings = USUAL_TINTS.map((n) => ({
      parts: { tube: 1, white: n },
      spectrum: reflectance(
        mixCurves([
          { paint: typical('viridian'), parts: 1 },
          { paint: typical(WHITE), parts: n },
        ]),
      ),
    }));
    const fit = fitTube(typical('viridian'), typical(WHITE), readings);
    expect(fit.strength).to.be.closeTo(1, 0.02);
    expect(Math.abs(fit.shiftNm)).to.be.below(0.5);
    expect(fit.strangeness).to.be.below(0.3);
  });

  it('is known for another paint, and swatches that were exchanged are seen', () => {
    const read = (slug: string, order = USUAL_TINTS) =>
      USUAL_TINTS.map((n, i) => ({
        parts: { tube: 1, white: order[i]! },
        lab: labOf(
          reflectance(
            mixCurves([
              { paint: typical(slug), parts: 1 },
              { paint: typical(WHITE), parts: n },
            ]),
          ),
        ),
        by: 'photo' as const,
      }));
    expect(fitTube(typical('burnt-sienna'), typical(WHITE), read('viridian')).strangeness).to.be.above(3);
    expect(looksSwapped(typical('burnt-sienna'), typical(WHITE), read('burnt-sienna'))).to.equal(undefined);
    expect(looksSwapped(typical('burnt-sienna'), typical(WHITE), read('burnt-sienna', [2, 0, 6, 20] as never))).to.deep.equal([0, 1]);
  });

  it('says no in a sentence to what is no reading', () => {
    const ok = reflectance(typical('viridian'));
    const refused = (readings: SwatchReading[], says: RegExp) =>
      expect(() => fitTube(typical('viridian'), typical(WHITE), readings)).to.throw(CraftError, says);
    const parts = { tube: 1, white: 0 };
    refused([], /nothing to go by/);
    refused([{ parts }], /spectrum or a colour/);
    refused([{ parts, spectrum: ok.map((v) => v + 1) }], /saturated/);
    refused([{ parts, spectrum: ok.map(() => 0) }], /black throughout/);
    refused([{ parts, spectrum: ok.map(() => NaN) }], /no number/);
    refused([{ parts, spectrum: ok.subarray(3) }], /36 bands/);
    refused([{ parts: { tube: 0, white: 1 }, spectrum: ok }], /some of the tube/);
    refused([{ parts, lab: [140, 0, 0] }], /lighter than paper/);
    expect(() => fitWhite(typical(WHITE), [{ parts: { tube: 1, white: 2 }, spectrum: ok }])).to.throw(CraftError, /by itself/);
  });
});

describe('stand-ins for a reader and a camera', () => {
  const ids = [WHITE, 'burnt-sienna', 'viridian'];
  it('are read as real ones are: a card of two tubes teaches both', async () => {
    const truth = hiddenStudio(typical);
    const swatch = (id: string, white: number) => [{ tubeId: id, parts: 1 }, ...(white > 0 ? [{ tubeId: WHITE, parts: white }] : [])];
    const photo = await standInCardCamera(typical, 5).photograph(ids.slice(1).map((id) => USUAL_TINTS.map((n) => swatch(id, n))));
    const card = readSwatchCard(photo);
    expect(card.rows.map((row) => row.length)).to.deep.equal([4, 4]);
    card.rows.forEach((row, r) => {
      const id = ids[r + 1]!;
      const readings = tintsOfRow(row, USUAL_TINTS).map(({ found, white }) => ({
        parts: { tube: 1, white },
        lab: found.lab,
        by: 'photo' as const,
      }));
      const fit = taughtBy(typical(id), typical(WHITE), readings);
      const unseen = (paint: PaintCurves, white: PaintCurves) =>
        labOf(
          reflectance(
            mixCurves([
              { paint, parts: 1 },
              { paint: white, parts: 11 },
            ]),
          ),
        );
      const real = labOf(truth(swatch(id, 11)));
      expect(deltaE00(unseen(fit, typical(WHITE)), real)).to.be.below(3.5);
    });
    const read = await standInReader(typical).read(swatch('viridian', 2));
    expect(deltaE00(labOf(read), labOf(truth(swatch('viridian', 2))))).to.be.below(0.8);
  });

  it('rows that hold too few or too many swatches are refused, one laid backwards is turned', () => {
    const row = [0, 1, 2, 3].map((i) => ({ x: i / 4, y: 0.5, width: 0.1, lab: [80 - 15 * i, 0, 0] as const }));
    expect(tintsOfRow(row, USUAL_TINTS).map(({ white }) => white)).to.deep.equal([...USUAL_TINTS]);
    expect(tintsOfRow(row, USUAL_TINTS)[0]!.found.lab[0]).to.equal(35);
    expect(() => tintsOfRow(row.slice(1), USUAL_TINTS)).to.throw(CraftError, /half a card/);
    expect(() => tintsOfRow(row, [0, 2])).to.throw(CraftError, /were to be there/);
  });
});

describe('files of readings', () => {
  const spectrum = reflectance(typical('viridian'));
  it('go out as CGATS text and come back the same', () => {
    const text = readingsToCgats([{ name: 'my "viridian"', spectrum }]);
    const [back] = readingsFromFile(text);
    expect(back!.name).to.equal('my  viridian');
    spectrum.forEach((v, i) => expect(back!.spectrum![i]).to.be.closeTo(v, 1e-5));
  });

  it('are read as tables across and upright, in percent or shares, on other bands', () => {
    const nm = Array.from({ length: 31 }, (_, i) => 400 + 10 * i);
    const across = [`name,${nm.join(',')}`, `sienna,${nm.map((_, i) => 10 + i).join(',')}`].join('\n');
    const [one] = readingsFromFile(across);
    expect(one!.name).to.equal('sienna');
    expect([one!.spectrum![0], one!.spectrum![2], one!.spectrum![35]]).to.deep.equal([0.1, 0.1, 0.4]);
    const upright = readingsFromFile(['nm;first;second', ...nm.map((at, i) => `${at};0,${10 + i};0,5`)].join('\n'));
    expect(upright.map(({ name }) => name)).to.deep.equal(['first', 'second']);
    expect(upright[0]!.spectrum![2]).to.equal(0.1);
    expect(readingsFromFile('SAMPLE_ID,LAB_L,LAB_A,LAB_B\n1,50,0,0')[0]!.lab![0]).to.be.closeTo(50, 0.01);
  });

  it('that hold none are refused in a sentence', () => {
    for (const [text, says] of [
      ['', /empty/],
      ['hello', /no spectra/],
      ['BEGIN_DATA_FORMAT\nSAMPLE_ID SPEC_380\n', /cut short/],
      [`name,${Array.from({ length: 12 }, (_, i) => 500 + 10 * i).join(',')}\na,${'1,'.repeat(11)}1`, /420 to 680/],
      [`name,${Array.from({ length: 36 }, (_, i) => 380 + 10 * i).join(',')}\na,${'x,'.repeat(35)}1`, /no number/],
    ] as const)
      expect(() => readingsFromFile(text), text.slice(0, 20)).to.throw(CraftError, says);
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        try {
          readingsFromFile(text);
        } catch (cause) {
          expect(cause).to.be.instanceOf(CraftError);
        }
      }),
    );
  });
});
