import { expect } from 'chai';
import fc from 'fast-check';
import { CATALOGUE, CraftError, fatnessOf, layersJudged, layerTold, MEDIUM_KINDS, type Layer, type LayerPart } from '../src/index.ts';

const part = (slug: string, parts = 1): LayerPart => {
  const { drying, oil, density } = CATALOGUE.get(slug)!;
  return { parts, drying, oil, density };
};
const layer = (more: Partial<Layer> = {}): Layer => ({ paint: [part('yellow-ochre')], filmUm: 100, at: 0, ...more });
const DAY = 86_400_000;

describe('layers', () => {
  it('of a thin coat at 20 °C dry as their tubes do, by the rules of thumb', () => {
    const within = (one: Layer, from: number, to: number) => {
      const [a, b] = layerTold(one).touchDry;
      expect(a).to.be.at.least(from * 0.95);
      expect(b).to.be.at.most(to * 1.05);
    };
    within(layer({ paint: [part('burnt-umber')] }), 1, 3);
    within(layer({ paint: [part('burnt-sienna')] }), 3, 6);
    within(layer({ paint: [part('cadmium-red')] }), 5, 12);
    // Alkyd medium, 10 to 25 %: dry in 12 to 24 h; slow tubes two to three days.
    within(layer({ medium: { kind: 'alkyd', share: 0.2 } }), 0.5, 1);
    within(layer({ paint: [part('cadmium-red')], medium: { kind: 'alkyd', share: 0.2 } }), 1.5, 3);
    // A wash: hours to a day.
    within(layer({ filmUm: 6, thinner: 0.6 }), 0.05, 1);
    // Each 10 °C colder doubles it; twice the film takes two to four times as long.
    const [, warm] = layerTold(layer()).touchDry;
    expect(layerTold(layer({ temperatureC: 10 })).touchDry[1] / warm).to.be.closeTo(2, 1e-9);
    expect(layerTold(layer({ filmUm: 200 })).touchDry[1] / warm).to.be.within(2, 4);
    // A mixture lies between its tubes, and a strong drier counts beyond its share.
    const between = layerTold(layer({ paint: [part('burnt-umber'), part('yellow-ochre')] })).touchDry[1];
    expect(between).to.be.within(3, Math.sqrt(3 * 6));
  });

  it('are as fat as their oil: worked by hand for burnt sienna with a fifth of linseed oil', () => {
    const { oil, density } = CATALOGUE.get('burnt-sienna')!;
    const own = ((oil / (100 + oil)) * density) / 0.93;
    expect(fatnessOf(layer({ paint: [part('burnt-sienna')] }))).to.be.closeTo(own, 1e-9);
    expect(fatnessOf(layer({ paint: [part('burnt-sienna')], medium: { kind: 'linseed', share: 0.2 } }))).to.be.closeTo(
      0.8 * own + 0.2,
      1e-9,
    );
  });

  const anyLayer = fc.record({
    paint: fc
      .uniqueArray(fc.constantFrom(...CATALOGUE.keys()), { minLength: 1, maxLength: 4 })
      .map((slugs) => slugs.map((slug, i) => part(slug, 1 + i))),
    filmUm: fc.integer({ min: 5, max: 2000 }),
    temperatureC: fc.integer({ min: 5, max: 32 }),
    thinner: fc.double({ min: 0, max: 0.6, noNaN: true }),
    medium: fc.record({ kind: fc.constantFrom(...MEDIUM_KINDS), share: fc.double({ min: 0, max: 0.5, noNaN: true }) }),
    at: fc.constant(0),
  });

  it('with more oil are never leaner, thicker never dry sooner, warmer never later; windows are windows', () => {
    fc.assert(
      fc.property(anyLayer, fc.double({ min: 0, max: 0.3, noNaN: true }), (one, more) => {
        const oily = (share: number): Layer => ({ ...one, medium: { kind: 'linseed', share } });
        const share = one.medium.share;
        expect(fatnessOf(oily(Math.min(0.95, share + more)))).to.be.at.least(fatnessOf(oily(share)) - 1e-12);
        const own = layerTold(one);
        const thicker = layerTold({ ...one, filmUm: one.filmUm * (1 + more) });
        const warmer = layerTold({ ...one, temperatureC: one.temperatureC + 10 * more });
        for (const i of [0, 1] as const) {
          expect(thicker.touchDry[i]).to.be.at.least(own.touchDry[i] - 1e-12);
          expect(warmer.touchDry[i]).to.be.at.most(own.touchDry[i] + 1e-12);
          expect(own.throughDry[i]).to.be.above(own.touchDry[i]);
        }
        expect(own.touchDry[1]).to.be.above(own.touchDry[0]);
        expect(own.fatness).to.be.within(0, 1);
      }),
    );
  });

  it('are judged over what is below, each with its reason and what would even it', () => {
    const verdicts = (...layers: Layer[]) => layersJudged(layers).map(({ verdict }) => verdict);
    const fat = layer({ medium: { kind: 'linseed', share: 0.3 } });
    expect(verdicts(layer(), { ...fat, at: 40 * DAY })).to.deep.equal(['good', 'good']);
    expect(verdicts(layer(), { ...fat, at: DAY / 4 })[1]).to.equal('wet below');
    expect(verdicts(layer(), { ...fat, at: 4 * DAY })[1]).to.equal('tacky below');
    const [, leaner] = layersJudged([fat, layer({ at: 60 * DAY })]);
    expect(leaner!.verdict).to.equal('leaner than below');
    const drops = Number(/(\d+) drops? of oil/.exec(leaner!.says)![1]);
    // So many drops to a pile of 4 ml do even it.
    const oil = (drops * 0.05) / (4 + drops * 0.05);
    expect(fatnessOf(layer({ medium: { kind: 'linseed', share: oil } }))).to.be.at.least(fatnessOf(fat) - 0.005);
    const slow = layer({ paint: [part('cadmium-red')] });
    expect(verdicts(slow, layer({ paint: [part('burnt-umber')], at: 14 * DAY, medium: { kind: 'linseed', share: 0.2 } }))[1]).to.equal(
      'fast over slow',
    );
    expect(verdicts(layer({ filmUm: 400 }), layer({ ...fat, filmUm: 20, at: 60 * DAY }))[1]).to.equal('thin over thick');
  });

  it('that are none are refused in a sentence', () => {
    for (const [one, says] of [
      [layer({ paint: [] }), /some paint/],
      [layer({ paint: [{ ...part('viridian'), parts: -1 }] }), /some paint/],
      [layer({ filmUm: 0 }), /µm/],
      [layer({ thinner: 1 }), /thinner/],
      [layer({ medium: { kind: 'linseed', share: 1 } }), /medium/],
      [layer({ temperatureC: 80 }), /°C/],
      [layer({ at: NaN }), /day/],
    ] as const)
      expect(() => layerTold(one)).to.throw(CraftError, says);
  });
});
