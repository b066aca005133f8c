import { execFileSync, spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { CATALOGUE } from '@dusk/core';
import { main } from '../src/main.ts';
import { manual } from '../src/manual.ts';

interface Run {
  code: number;
  out: string;
  err: string;
}

function dusk(args: string[], input: unknown): Run {
  const run: Run = { code: 0, out: '', err: '' };
  run.code = main(args, {
    read: () => (typeof input === 'string' ? input : JSON.stringify(input)),
    out: (text) => (run.out += text),
    err: (text) => (run.err += text),
  });
  return run;
}
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- answers are read field by field
const answer = (command: string, input: unknown): any => {
  const { code, out, err } = dusk([command], input);
  expect(err).to.equal('');
  expect(code).to.equal(0);
  return JSON.parse(out);
};

const PALETTE = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue', 'phthalo-blue'];

describe('dusk colour', () => {
  it('reads any notation and writes all of them', () => {
    const hex = answer('colour', { hex: '#8a6b4f' });
    expect(hex.hex).to.equal('#8a6b4f');
    for (const notation of ['lab', 'xyz', 'munsell'] as const)
      expect(answer('colour', { [notation]: hex[notation] }).lab[0], notation).to.be.closeTo(hex.lab[0], 0.6);
    const grey = answer('colour', { spectrum: { start: 380, step: 10, r: new Array(36).fill(0.18) }, illuminant: 'A' });
    expect(grey.lab[1]).to.be.closeTo(0, 1e-3);
    expect(grey.munsell).to.match(/^N 4\.9/);
    expect(grey.xyz[0]).to.be.closeTo(19.77, 0.02);
  });

  it('tells the difference to another', () => {
    expect(answer('colour', { lab: [50, 2.6772, -79.7751], other: { lab: [50, 0, -82.7485] } }).deltaE00).to.be.closeTo(2.0425, 1e-4);
  });
});

describe('dusk mix', () => {
  it('mixes tubes, thick, thinned or over a ground', () => {
    const thick = answer('mix', { parts: { 'titanium-white': 9, 'ultramarine-blue': 1 } });
    expect(thick.spectrum.r).to.have.length(36);
    expect(thick.lab[2]).to.be.below(-15);
    const film = answer('mix', {
      parts: { 'quinacridone-rose': 1 },
      film: { thickness_um: 8, ground: { lab: [96, 0, 2] } },
      medium: 0.3,
    });
    expect(film.lab[0]).to.be.above(answer('mix', { parts: { 'quinacridone-rose': 1 } }).lab[0] + 15);
  });
});

describe('dusk solve', () => {
  it('gives recipes whose flat shares mix to the colour it says', () => {
    const { reach, recipes } = answer('solve', { target: { hex: '#7d6a55' }, palette: PALETTE });
    const [first] = recipes;
    expect(reach).to.equal(first.deltaE00 > 5 ? 'out' : first.deltaE00 <= 2 && Math.abs(first.valueError) <= 0.25 ? 'in' : 'near');
    for (const r of recipes) {
      const mixed = answer('mix', { parts: r.flat });
      mixed.lab.forEach((v: number, i: number) => expect(v).to.be.closeTo(r.lab[i], 1e-3));
      for (const id of Object.keys(r.parts)) expect([...PALETTE, ...r.letdowns.map((l: { name: string }) => l.name)]).to.include(id);
    }
  });

  it('keeps to the limits', () => {
    const { recipes } = answer('solve', { target: { lab: [55, 10, 10] }, palette: PALETTE, limits: { tubes: 2, parts: 6 } });
    for (const r of recipes) {
      expect(Object.keys(r.flat).length).to.be.at.most(2);
      expect(Object.values(r.parts as Record<string, number>).reduce((s, n) => s + n, 0)).to.be.at.most(6);
    }
  });

  it('answers an array with an array', () => {
    const many = answer(
      'solve',
      [0, 1, 2].map((i) => ({ target: { lab: [40 + 10 * i, 5, 5] }, palette: PALETTE })),
    );
    expect(many).to.have.length(3);
  });
});

describe('dusk solve at length', () => {
  const target = { hex: '#6d5a48' };

  it('moves a target by steps and says what to add to a pile', () => {
    const parts = { 'titanium-white': 4, 'yellow-ochre': 2 };
    const a = answer('solve', { target: { relative: { to: { parts }, value: -0.5 } }, palette: PALETTE, from: parts });
    expect(a.additions.growth).to.be.above(1);
    expect(a.additions.after).to.be.below(a.additions.before);
  });

  it('uses piles, leaves tubes out and keeps one in', () => {
    const piles = { wall: { 'titanium-white': 3, 'yellow-ochre': 1 } };
    const a = answer('solve', {
      target,
      palette: PALETTE,
      piles,
      must_use: 'wall',
      exclude: ['phthalo-blue'],
      limits: { tubes: 3, parts: 8 },
    });
    for (const r of a.recipes) {
      const heaps: object[] = [r.parts, ...r.letdowns.map((l: { parts: object }) => l.parts)];
      expect(heaps.some((heap) => 'wall' in heap)).to.equal(true);
      expect(r.flat).to.not.have.property('wall');
      expect(r.flat).to.not.have.property('phthalo-blue');
    }
  });

  it('finds what looks right once it is laid: a film over its ground, or with wet paint picked up', () => {
    const film = { thickness_um: 12, ground: { lab: [80, 2, 12] } };
    const wanted = answer('mix', { parts: { 'quinacridone-rose': 1, 'yellow-ochre': 1 }, film }).lab;
    const glaze = answer('solve', { target: { lab: wanted }, palette: ['titanium-white', 'quinacridone-rose', 'yellow-ochre'], film });
    expect(glaze.reach).to.equal('in');
    const [first] = glaze.recipes;
    expect(answer('mix', { parts: first.flat, film }).lab[0]).to.be.closeTo(first.lab[0], 0.02);
    expect(answer('mix', { parts: first.flat }).lab[0]).to.be.closeTo(first.on_palette.lab[0], 0.02);
    expect(first.on_palette.lab[0]).to.be.below(first.lab[0] - 5);
    const pick_up = { below: { 'burnt-umber': 1 }, share: 0.06 };
    const light = answer('solve', { target: { lab: [66, 4, 14] }, palette: [...PALETTE, 'burnt-umber'], pick_up }).recipes[0];
    expect(answer('mix', { parts: light.flat, pick_up }).lab[0]).to.be.closeTo(light.lab[0], 0.02);
    // White over black: one thin coat does not do it, some more do.
    const thin = { thickness_um: 40, ground: { lab: [8, 0, 0] } };
    const covered = answer('solve', { target: { lab: [90, -0.5, 2] }, palette: ['titanium-white', 'yellow-ochre'], film: thin });
    expect(covered.reach).to.not.equal('in');
    expect(covered.coats).to.be.within(2, 6);
  });

  it('mixes darks instead of taking tube black, when asked', () => {
    const a = answer('solve', { target: { lab: [12, 0, 0] }, palette: [...PALETTE, 'burnt-umber', 'ivory-black'], no_black: true });
    for (const r of a.recipes) expect(r.flat).to.not.have.property('ivory-black');
  });

  it('tells the nearest in three ways when out of reach, and which tube would do', () => {
    const a = answer('solve', {
      target: { hex: '#00a060' },
      palette: ['titanium-white', 'venetian-red', 'ultramarine-blue'],
      rack: ['viridian', 'raw-umber'],
    });
    expect(a.reach).to.equal('out');
    expect(a.nearest.by_value.gives_way.length).to.be.above(0);
    expect(a.nearest.overall.deltaE00).to.be.at.most(a.nearest.by_value.deltaE00 + 1e-3);
    expect(a.add_a_tube[0].id).to.equal('viridian');
  });

  it('gives exact proportions and an error estimate', () => {
    const a = answer('solve', { target, palette: PALETTE, exact: true, emphasis: 'steady', alternatives: 1 });
    expect(a.recipes.length).to.be.at.most(2);
    for (const r of a.recipes) {
      expect(Object.values(r.exact.flat as Record<string, number>).reduce((s, n) => s + n, 0)).to.be.closeTo(1, 1e-6);
      expect(r.errorEstimate).to.be.within(0.5, 15);
    }
  });
});

describe('the other commands of dusk', () => {
  it('path: the colour after the last step is the mixture’s', () => {
    const parts = { 'titanium-white': 8, 'yellow-ochre': 3, 'phthalo-blue': 0.2 };
    const { steps } = answer('path', { parts });
    answer('mix', { parts }).lab.forEach((v: number, i: number) => expect(steps.at(-1).lab[i]).to.be.closeTo(v, 1e-3));
    expect(answer('path', { parts, from: 'yellow-ochre' }).steps[0].add).to.have.property('yellow-ochre');
  });

  it('correct: additions, and beliefs that can be given back', () => {
    const palette = ['titanium-white', 'yellow-ochre', 'burnt-umber', 'ultramarine-blue'];
    const input = { palette, mixed: { 'titanium-white': 6, 'burnt-umber': 2 }, seen: { hex: '#8f7f6d' }, target: { hex: '#8f7350' } };
    const first = answer('correct', input);
    expect(first.growth).to.be.above(1);
    expect(first.after).to.be.below(first.off);
    const stages = [
      { add: input.mixed, seen: input.seen },
      { add: first.add, seen: { hex: '#8f7554' } },
    ];
    expect(answer('correct', { palette, stages, target: input.target, beliefs: first.beliefs }).off).to.be.below(first.off);
    const asMixed = { hex: answer('mix', { parts: input.mixed }).hex };
    expect(answer('correct', { ...input, seen: asMixed }).strange).to.equal(undefined);
    expect(answer('correct', { ...input, seen: { hex: '#3050c0' } }).strange).to.match(/is it this pile/);
  });

  it('correct: what is read by a photo is unsure, and a sitting keeps its offset', () => {
    const palette = ['titanium-white', 'yellow-ochre', 'burnt-umber', 'ultramarine-blue'];
    const mixed = { 'titanium-white': 6, 'burnt-umber': 2 };
    const input = { palette, mixed, seen: { hex: '#8f7f6d' }, target: { hex: '#8f7350' } };
    const photo = answer('correct', { ...input, by: 'photo', sitting: 'morning' });
    expect(photo.off).to.equal(answer('correct', input).off);
    expect(photo.believed_off).to.not.equal(photo.off);
    expect(photo.beliefs.ids).to.include('sighting photo morning');
    const more = answer('correct', {
      ...input,
      palette: ['titanium-white', 'burnt-umber'],
      by: 'photo',
      sitting: 'morning',
      beliefs: photo.beliefs,
    });
    expect(more.beliefs.ids).to.have.length(3);
    const recipe = { parts: mixed, trust: true, beliefs: photo.beliefs };
    expect(answer('mix', { ...recipe, knife: 0.25 }).errorEstimate).to.be.above(answer('mix', recipe).errorEstimate);
    expect(answer('mix', recipe).errorEstimate).to.be.below(answer('mix', { parts: mixed, trust: true }).errorEstimate);
  });

  it('mix: words are uncertain parts, and count into the estimate', () => {
    const certain = answer('mix', { parts: { 'titanium-white': 8, 'phthalo-blue': 0.1 }, trust: true });
    const words = answer('mix', { parts: { 'titanium-white': 'mostly', 'phthalo-blue': 'a speck' }, trust: true });
    expect(words.lab).to.deep.equal(certain.lab);
    expect(words.errorEstimate).to.be.above(certain.errorEstimate + 1);
  });

  it('solve: amounts for a scale and a ruler, and beliefs of an earlier correction', () => {
    const palette = ['titanium-white', 'yellow-ochre', 'burnt-umber', 'ultramarine-blue'];
    const { beliefs } = answer('correct', {
      palette,
      mixed: { 'titanium-white': 6, 'burnt-umber': 2 },
      seen: { hex: '#7d6f5d' },
      target: { hex: '#8f7350' },
    });
    const input = { target: { hex: '#8f7350' }, palette, amount_ml: 10 };
    const [typical] = answer('solve', input).recipes;
    const amounts = Object.values(typical.amounts as Record<string, { ml: number; grams: number }>);
    expect(amounts.reduce((s, a) => s + a.ml, 0)).to.be.closeTo(10, 1e-3);
    amounts.forEach((a) => expect(a.grams).to.be.above(a.ml));
    expect(answer('solve', { ...input, beliefs }).recipes[0].lab).to.not.deep.equal(typical.lab);
  });

  it('path: goes on from a pile that is there', () => {
    const { steps } = answer('path', {
      parts: { 'titanium-white': 8, 'yellow-ochre': 3, viridian: 1 },
      from: { 'titanium-white': 4, 'yellow-ochre': 3 },
    });
    expect(steps[0].add).to.deep.equal({ 'the pile': 7 });
    expect(dusk(['path'], { parts: { 'titanium-white': 1 }, from: { 'titanium-white': 2 } }).err).to.match(/cannot be taken out/);
  });

  it('string: around a pile, and a warm and cool pair', () => {
    const palette = ['titanium-white', 'yellow-ochre', 'burnt-sienna', 'ultramarine-blue'];
    const long = answer('string', { stops: [{ munsell: '5YR 3/3' }, { munsell: '5YR 8.5/2' }], piles: 9, palette });
    const names = long.mothers.map((m: { name: string }) => m.name);
    expect(new Set(names).size).to.equal(names.length);
    expect(names.length).to.be.at.least(2);
    long.mothers.forEach(({ parts }: { parts: object }, i: number) =>
      Object.keys(parts).forEach((id) => expect([...palette, ...names.slice(0, i)]).to.include(id)),
    );
    long.piles.forEach(({ recipe }: { recipe: { parts: object; letdowns: { name: string }[]; flat: object; lab: number[] } }) => {
      Object.keys(recipe.parts).forEach((id) => expect([...palette, ...names, ...recipe.letdowns.map((l) => l.name)]).to.include(id));
      answer('mix', { parts: recipe.flat }).lab.forEach((v: number, i: number) => expect(v).to.be.closeTo(recipe.lab[i]!, 1e-3));
    });
    const around = answer('string', { around: { of: { hex: '#8a6b4f' }, dark: 2, light: 8 }, piles: 5, palette });
    const values = around.piles.map((p: { value: number }) => p.value);
    expect(values[0]).to.be.closeTo(2, 0.01);
    expect(values[4]).to.be.closeTo(8, 0.01);
    const { piles } = answer('string', { pair: { of: { munsell: 'N 5/' }, temperature: 4 }, palette });
    expect(piles[0].value).to.be.closeTo(piles[1].value, 1e-6);
    expect(piles[0].target.lab[2]).to.be.above(piles[1].target.lab[2]);
  });

  it('correct and string: for an amount, told as painters measure', () => {
    const asked = {
      palette: ['titanium-white', 'yellow-ochre', 'burnt-umber', 'ultramarine-blue'],
      mixed: { 'titanium-white': 6, 'burnt-umber': 2 },
      seen: { hex: '#8f7f6d' },
      target: { hex: '#8a6b4f' },
    };
    for (const amount_ml of [1.5, 20]) {
      const { told, add } = answer('correct', { ...asked, amount_ml, measure: 'eye' });
      expect(told.map((one: { id: string }) => one.id)).to.have.members(Object.keys(add));
      for (const { amount } of told) expect(amount).to.match(/mostly|half|much|some|a little|touch|speck/);
    }
    // What the painter says gets an addition, though the reckoning would leave it.
    const near = { ...asked, seen: { lab: [60.4, 4, 14] }, target: { lab: [60, 4, 14] } };
    expect(answer('correct', near).advice).to.equal('leave it');
    expect(answer('correct', { ...near, insists: true }).advice).to.not.equal('leave it');

    const stops = [{ munsell: '5YR 3/4' }, { munsell: '10YR 8/4' }];
    const row = { stops, piles: 5, amount_ml: 3, palette: asked.palette };
    expect(answer('string', row)).to.not.have.property('measured');
    const { mothers, piles, measured } = answer('string', { ...row, measure: 'beads' });
    expect(measured.piles).to.have.length(piles.length);
    const named = mothers.map((one: { name: string }) => one.name);
    for (const { name } of measured.mothers) expect(named).to.include(name);
    for (const { steps } of measured.piles.flat())
      for (const { amount, bead_mm: mm } of steps) {
        expect(amount).to.match(/mm$|touch|speck/);
        if (mm !== undefined) expect(mm).to.be.at.least(2.99);
      }
    expect(dusk(['string'], { ...row, measure: 'cups' }).err).to.match(/eye, parts, beads, scale/);
    expect(dusk(['correct'], { ...asked, amount_ml: 0 }).err).to.match(/0\.2 to 500 ml/);
  });

  it('string, place, recall and rederive answer as their help says', () => {
    const palette = ['titanium-white', 'yellow-ochre', 'burnt-sienna', 'ultramarine-blue'];
    expect(answer('string', { stops: [{ munsell: '5YR 3/4' }, { munsell: '10YR 8/4' }], piles: 4, palette }).piles).to.have.length(4);
    expect(answer('place', { parts: { 'titanium-white': 9 }, below: { 'burnt-umber': 1 }, share: 0.1 }).value).to.be.within(3, 9.6);
    expect(answer('place', { parts: { 'titanium-white': 9 }, ground: { hex: '#5a4632' }, thickness_um: 40 }).coats).to.be.within(1, 20);
    const recalled = answer('recall', {
      known: ['ultramarine-blue', 'titanium-white'],
      seen: { parts: { 'ultramarine-blue': 1, 'titanium-white': 3, viridian: 1 } },
    });
    expect(recalled.suspects.slice(0, 3).map((s: { id: string }) => s.id)).to.include('viridian');
    // What is asked for by yes or no is not read as no where it is written otherwise.
    const target = { munsell: '5YR 3/4' };
    for (const asked of [{ no_black: 'yes' }, { exact: 1 }, { no_black: null }])
      expect(dusk(['solve'], { target, palette, ...asked }).err).to.match(/is true or false/);
    expect(dusk(['mix'], { parts: { 'titanium-white': 9 }, trust: 'true' }).err).to.match(/trust is true or false/);
    const again = answer('rederive', { parts: { 'titanium-white': 6, 'cobalt-blue': 2 }, palette });
    expect(Object.keys(again.recipes[0].differences)).to.deep.equal(['D65', 'A', 'LED', 'F10']);
  });
});

describe('tubes of one’s own on the command line', () => {
  const curves = CATALOGUE.get('burnt-sienna')!;
  const strong = { K: [...curves.K].map((v) => 1.25 * v), S: [...curves.S].map((v) => 1.1 * v) };
  const tubes = { mine: strong };
  const spectrumOf = (parts: object): { spectrum: unknown } => answer('mix', { tubes, parts });
  const readings = [0, 2, 6, 20].map((white) => ({
    parts: { tube: 1, white },
    spectrum: spectrumOf({ mine: 1, ...(white > 0 && { 'titanium-white': white }) }).spectrum,
  }));

  it('are fitted from swatches, and go into every other command', () => {
    const fitted = answer('fit', { pigment: 'burnt-sienna', white: 'titanium-white', readings });
    expect(fitted.K).to.have.length(36);
    expect(fitted.basis).to.equal('fitted');
    expect(fitted.strength).to.be.closeTo(1.25, 0.08);
    expect(Math.max(...fitted.residuals)).to.be.below(0.8);
    expect(fitted.strangeness).to.be.below(3);
    expect(fitted.strange).to.equal(undefined);
    const parts = { 'titanium-white': 5, mine: 1, 'ultramarine-blue': 1 };
    const [told, truth] = [fitted, strong].map((mine) => answer('mix', { tubes: { mine }, parts }).lab);
    expect(answer('colour', { lab: told, other: { lab: truth } }).deltaE00).to.be.below(0.6);
    const palette = ['titanium-white', 'mine', 'ultramarine-blue'];
    const { recipes } = answer('solve', { tubes: { mine: fitted }, target: { lab: truth }, palette });
    const again = answer('mix', { tubes: { mine: fitted }, parts: recipes[0].flat }).lab;
    expect(again[0]).to.be.closeTo(recipes[0].lab[0], 0.01);
    expect(
      answer('string', { tubes, stops: [{ parts: { mine: 1 } }, { parts: { 'titanium-white': 1 } }], piles: 3, palette }).piles,
    ).to.have.length(3);
    expect(answer('path', { tubes, parts }).at?.(-1) ?? answer('path', { tubes, parts })).to.be.an('object');
    // The next input has none of it.
    expect(dusk(['mix'], { parts: { mine: 1 } }).code).to.equal(2);
  });

  it('another tube than it is taken for is told, and goes into other commands all the same', () => {
    const blue = [0, 3, 9].map((white) => ({
      parts: { tube: 1, white },
      spectrum: (answer('mix', { parts: { 'phthalo-blue': 1, ...(white > 0 && { 'titanium-white': white }) } }) as { spectrum: unknown })
        .spectrum,
    }));
    const fitted = answer('fit', { pigment: 'burnt-sienna', readings: blue });
    expect(fitted.strangeness).to.be.above(3);
    expect(fitted.strange).to.match(/another tube/);
    expect(answer('mix', { tubes: { mine: fitted }, parts: { mine: 1 } }).hex).to.match(/^#/);
  });

  it('a white is fitted by itself, a colour off a card is taken too', () => {
    const white = answer('fit', { pigment: 'titanium-white', readings: [{ parts: { tube: 1 }, lab: [96, -0.5, 3] }] });
    const { lab } = answer('mix', { tubes: { mine: white }, parts: { mine: 1 } });
    expect(lab[2]).to.be.within(2, 4);
    expect(white.S).to.deep.equal(answer('fit', { pigment: 'titanium-white', readings: [{ parts: { tube: 1 }, lab: [90, 0, 0] }] }).S);
  });

  it('reach tells what share is matched, who earns least, whom to add, and the best few', () => {
    const colours = [{ hex: '#8a6b4f', weight: 3 }, { lab: [60, -25, 10] }];
    const found = answer('reach', {
      palette: ['titanium-white', 'burnt-sienna', 'yellow-ochre', 'ultramarine-blue'],
      rack: ['viridian', 'cadmium-red'],
      colours,
    });
    expect(found.match).to.be.closeTo(0.75, 1e-4);
    expect(found.match + found.near + found.not).to.be.closeTo(1, 1e-3);
    expect(found.each).to.have.length(2);
    expect(found.add[0].tube).to.equal('viridian');
    expect(found.earns.map((one: { tube: string }) => one.tube)).to.include('burnt-sienna');
    const few = answer('reach', {
      rack: [...PALETTE, 'viridian'],
      count: 3,
      must: ['titanium-white'],
      must_not: ['phthalo-blue'],
      colours,
    });
    expect(few.tubes).to.have.length(3).and.include('titanium-white');
    expect(few.tubes).to.not.include('phthalo-blue');
  });
});

describe('bad input to dusk', () => {
  const cases: [string, unknown][] = [
    ['fit', { pigment: 'burnt-sienna' }],
    ['fit', { pigment: 'burnt-sienna', readings: [] }],
    ['fit', { pigment: 'burnt-sienna', readings: [{ parts: { tube: 0, white: 1 }, lab: [50, 0, 0] }] }],
    ['fit', { pigment: 'burnt-sienna', readings: [{ parts: { tube: 1 }, spectrum: { start: 380, step: 10, r: new Array(36).fill(3) } }] }],
    ['mix', { tubes: { mine: { K: [1], S: [1] } }, parts: { mine: 1 } }],
    ['mix', { tubes: { 'titanium-white': { K: new Array(36).fill(1), S: new Array(36).fill(1) } }, parts: { 'titanium-white': 1 } }],
    ['mix', { tubes: { mine: { K: new Array(36).fill(1), S: new Array(36).fill(0) } }, parts: { mine: 1 } }],
    ['mix', { tubes: [], parts: { 'titanium-white': 1 } }],
    ['reach', {}],
    ['reach', { palette: [], colours: [{ hex: '#fff' }] }],
    ['reach', { palette: PALETTE, colours: [] }],
    ['reach', { palette: PALETTE, colours: [{ hex: '#fff', weight: -1 }] }],
    ['reach', { rack: PALETTE, colours: [{ hex: '#fff' }], count: 99 }],
    ['reach', { rack: PALETTE, colours: [{ hex: '#fff' }], count: 2, must: ['viridian'] }],
    ['colour', 'not json'],
    ['colour', ''],
    ['colour', {}],
    ['colour', { hex: '#fff', lab: [1, 2, 3] }],
    ['colour', { spectrum: { start: 380, step: 10, r: [0.5] } }],
    ['colour', { hex: '#fff', illuminant: 'candle' }],
    ['mix', { parts: { 'unicorn-blue': 1 } }],
    ['mix', { parts: { 'titanium-white': -1 } }],
    ['mix', { parts: { 'titanium-white': 0 } }],
    ['mix', { parts: { 'titanium-white': null } }],
    ['mix', { parts: {} }],
    ['mix', { parts: { 'titanium-white': 1 }, film: { thickness_um: 'thick', ground: { hex: '#fff' } } }],
    ['mix', { parts: { 'titanium-white': 1 }, colour: 3 }],
    ['solve', { target: { hex: '#fff' }, palette: [] }],
    ['solve', { target: { hex: '#fff' }, palette: ['titanium-white', 'titanium-white'] }],
    ['solve', { target: { hex: '#fff' }, palette: ['titanium-white'], limits: { parts: 0 } }],
    ['solve', { target: { hex: '#fff' }, palette: new Array(500).fill(0).map((_, i) => `t${i}`) }],
    ['solve', { palette: PALETTE }],
    [
      'solve',
      [
        { target: { hex: '#fff' }, palette: PALETTE },
        { target: { hex: 'no' }, palette: PALETTE },
      ],
    ],
    ['solve', { target: { hex: '#fff' }, palette: PALETTE, emphasis: 'loud' }],
    ['solve', { target: { hex: '#fff' }, palette: PALETTE, must_use: 'wall' }],
    ['solve', { target: { hex: '#fff' }, palette: PALETTE, piles: { 'titanium-white': { 'yellow-ochre': 1 } } }],
    ['solve', { target: { relative: { to: { hex: '#fff' }, value: 'x' } }, palette: PALETTE }],
    ['mix', { parts: { 'titanium-white': 'heaps' } }],
    ['solve', { target: { hex: '#fff' }, palette: PALETTE, beliefs: { ids: PALETTE, mean: [1], covariance: [] } }],
    ['solve', { target: { hex: '#fff' }, palette: PALETTE, amount_ml: 0 }],
    ['string', { around: { of: { hex: '#fff' }, dark: -1, light: 8 }, piles: 3, palette: PALETTE }],
    ['path', { parts: {} }],
    ['path', { parts: { 'titanium-white': -1, 'yellow-ochre': 1 } }],
    ['path', { parts: { 'titanium-white': 1 }, from: 'yellow-ochre' }],
    ['correct', { palette: PALETTE, mixed: {}, seen: { hex: '#fff' }, target: { hex: '#fff' } }],
    ['correct', { palette: PALETTE, mixed: { viridian: 1 }, seen: { hex: '#fff' }, target: { hex: '#fff' } }],
    [
      'correct',
      {
        palette: PALETTE,
        mixed: { 'titanium-white': 1 },
        seen: { hex: '#fff' },
        target: { hex: '#fff' },
        beliefs: { ids: ['yellow-ochre'], mean: [], covariance: [] },
      },
    ],
    ['correct', { palette: PALETTE, mixed: { 'titanium-white': 1 }, seen: { hex: '#fff' }, target: { hex: '#fff' }, by: 'guess' }],
    ['correct', { palette: PALETTE, mixed: { 'titanium-white': 1 }, seen: { hex: '#fff' }, target: { hex: '#fff' }, knife: 4 }],
    ['correct', { palette: PALETTE, mixed: { 'titanium-white': 1 }, seen: { hex: '#fff' }, target: { hex: '#fff' }, sitting: 'x' }],
    ['string', { stops: [{ hex: '#fff' }], piles: 3, palette: PALETTE }],
    ['string', { stops: [{ hex: '#fff' }, { hex: '#000' }], piles: 1e9, palette: PALETTE }],
    ['place', { parts: { 'titanium-white': 1 } }],
    ['place', { parts: { 'titanium-white': 1 }, ground: { hex: '#000' }, thickness_um: -3 }],
    ['recall', { known: [], seen: { hex: '#fff' } }],
    ['recall', { known: ['viridian'], seen: 7 }],
    ['rederive', { parts: { 'titanium-white': 1 }, palette: 'viridian' }],
    ['stir', {}],
  ];
  for (const [command, input] of cases)
    it(`${command} ${JSON.stringify(input).slice(0, 60)} is one clear line and exit code 2`, () => {
      const { code, out, err } = dusk([command], input);
      expect(code).to.equal(2);
      expect(out).to.equal('');
      expect(err.trim()).to.not.equal('');
      expect(err.trim().split('\n')).to.have.length(1);
      expect(err).to.not.match(/NaN|undefined is not|TypeError/);
    });
});

describe('dusk layers', () => {
  const coat = (more = {}) => ({ parts: { 'yellow-ochre': 1 }, film_um: 80, at: '2026-11-30', temperature_c: 20, ...more });
  const of = (...coats: object[]) => answer('layers', { coats }).coats;

  it('says of each coat when it is dry, how fat it is and whether it may lie there, in the form it was asked in', () => {
    const [first, second] = of(coat(), coat({ at: '2026-12-01T10:00:00Z', medium: { kind: 'linseed', share: 0.1 } }));
    expect(Date.parse(first.touch_dry.from)).to.be.above(Date.parse('2026-11-30'));
    expect(Date.parse(first.touch_dry.to)).to.be.below(Date.parse(first.through_dry.to));
    expect(first.verdict).to.equal('good');
    expect(second.verdict).to.match(/wet|tacky/);
    expect(second.fatness).to.be.above(first.fatness);
    const [inDays] = of(coat({ at: 3 }));
    expect(inDays.touch_dry.from - 3).to.be.closeTo((Date.parse(first.touch_dry.from) - Date.parse('2026-11-30')) / 86_400_000, 1e-3);
    // Piles are as much of it as there is of them.
    const white = { parts: { 'titanium-white': 1 }, ml: 3 };
    const [piles] = of({ piles: [white, { parts: { 'burnt-umber': 2 }, ml: 1 }], film_um: 80, at: 0 });
    const [parts] = of({ parts: { 'titanium-white': 3, 'burnt-umber': 1 }, film_um: 80, at: 0 });
    expect(piles).to.deep.equal(parts);
  });

  it('is moved by touches, and wider where nobody knows how warm it is', () => {
    const width = ({ touch_dry: { from, to } }: { touch_dry: { from: number; to: number } }) => to - from;
    const [plain] = of(coat({ at: 0 }));
    const [felt, like] = of(
      coat({
        at: 0,
        touched: [
          { at: 2, felt: 'tacky' },
          { at: 3, felt: 'dry' },
        ],
      }),
      coat({ at: 30 }),
    );
    expect(width(felt)).to.be.below(width(plain) / 2);
    expect(width(like)).to.be.below(width(plain));
    expect(width(of(coat({ at: 0, temperature_c: undefined }))[0])).to.be.above(width(plain));
    const own = dusk(['layers'], {
      tubes: { mine: { K: new Array(36).fill(0.2), S: new Array(36).fill(1) } },
      coats: [coat({ parts: { mine: 1 } })],
    });
    expect(own.code).to.equal(0);
  });

  it('refuses what is none in a sentence', () => {
    for (const coats of [
      undefined,
      [],
      'x',
      [{}],
      [coat({ at: 'soon' })],
      [coat({ film_um: -1 })],
      [coat({ medium: { kind: 'egg', share: 0.1 } })],
      [coat({ medium: { kind: 'alkyd', share: 2 } })],
      [coat({ touched: [{ at: '2026-11-01', felt: 'dry' }] })],
      [coat({ touched: [{ at: '2026-12-01', felt: 'damp' }] })],
      [coat({ parts: { nothing: 1 } })],
      [coat({ parts: { 'yellow-ochre': 0 } })],
      [coat({ piles: [] })],
      [coat({ at: '2026-12-02' }), coat({ at: '2026-12-01' })],
      [coat({ binder: 'glue' })],
      [coat({ at: '2026-02-31' })],
      [coat({ at: '2027-02-29T10:00Z' })],
    ]) {
      const { code, err } = dusk(['layers'], { coats });
      expect(code, JSON.stringify(coats)).to.equal(2);
      expect(err.trim()).to.match(/^[^\n]+\.$/);
    }
  });
});

describe('the manual', () => {
  it('says what the commands say of themselves', () => {
    expect(readFileSync(new URL('../../docs/CLI.md', import.meta.url), 'utf8')).to.equal(manual());
  });
});

describe('dusk as a program', () => {
  const bin = fileURLToPath(new URL('../bin/dusk.mjs', import.meta.url));
  it('reads standard input and writes standard output', () => {
    const out = execFileSync('node', [bin, 'colour'], { input: '{"hex":"#808080"}', encoding: 'utf8' });
    expect(JSON.parse(out).munsell).to.match(/^N 5/);
  }).timeout(30_000);
  it('fails with exit code 2 and shows help by example', () => {
    const bad = spawnSync('node', [bin, 'colour'], { input: '{', encoding: 'utf8' });
    expect(bad.status).to.equal(2);
    expect(bad.stdout).to.equal('');
    for (const command of ['colour', 'mix', 'solve', 'path', 'correct', 'string', 'place', 'recall', 'rederive'])
      expect(dusk([command, '--help'], '').out).to.include('npx dusk');
    expect(dusk([], '').out).to.include('solve');
  }).timeout(30_000);
});
