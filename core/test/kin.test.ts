import { expect } from 'chai';
import fc from 'fast-check';
import {
  betweenNeighbours,
  CATALOGUE,
  colourFromWords,
  colourName,
  CraftError,
  deltaE00,
  furtherOff,
  hueDifference,
  inShadow,
  labToLch,
  labToMunsell,
  labToXyz,
  lastHeap,
  layPalette,
  isTouch,
  leavesOf,
  masstoneOf,
  measurings,
  mixCurves,
  NAMED_COLOURS,
  paintOfMixture,
  placeName,
  planString,
  solve,
  stepsBeyond,
  strengthOf,
  temperature,
  toward,
  underCeiling,
  USUAL_LIMITS,
  valueOfLightness,
  wishedTargets,
  type Lab,
  type Leaf,
  type Mixture,
  type PaintCurves,
} from '@dusk/core';
import { some } from './some.ts';
import { runs } from './runs.ts';

const SLUGS = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue', 'burnt-umber', 'viridian'];
const tubes = SLUGS.map((id) => ({ id, K: CATALOGUE.get(id)!.K, S: CATALOGUE.get(id)!.S }));
const pileOf = (id: string, parts: Readonly<Record<string, number>>) => {
  const whole = Object.values(parts).reduce((sum, n) => sum + n, 0);
  return {
    id,
    ...mixCurves(Object.entries(parts).map(([slug, n]) => ({ paint: CATALOGUE.get(slug)!, parts: n }))),
    flat: Object.fromEntries(Object.entries(parts).map(([slug, n]) => [slug, n / whole])),
  };
};
const dark = pileOf('dark', { 'ultramarine-blue': 2, 'burnt-umber': 2 });
const pale = pileOf('pale', { 'titanium-white': 14, 'yellow-ochre': 1 });
const palette = layPalette(tubes, USUAL_LIMITS, {}, [dark, pale]);

const lab = fc.tuple(
  fc.double({ min: 8, max: 94, noNaN: true }),
  fc.double({ min: -45, max: 45, noNaN: true }),
  fc.double({ min: -45, max: 45, noNaN: true }),
);
const quietLab = fc.tuple(
  fc.double({ min: 20, max: 88, noNaN: true }),
  fc.double({ min: -14, max: 14, noNaN: true }),
  fc.double({ min: -14, max: 14, noNaN: true }),
);
const light = (colour: Lab) => labToXyz(colour, [1, 1, 1]);

describe('a colour moved as a painter says it', () => {
  it('in shadow has less light of the same chromaticity, half a stop a step', () => {
    fc.assert(
      fc.property(lab, fc.integer({ min: 0, max: 8 }), (colour, steps) => {
        const [X, Y, Z] = light(colour);
        const [x, y, z] = light(inShadow(colour, steps));
        for (const [was, is] of [
          [X, x],
          [Y, y],
          [Z, z],
        ] as const)
          expect(is).to.be.closeTo(was * Math.SQRT1_2 ** steps, 1e-9);
      }),
    );
  });

  it('further off goes to the colour of the air, darks first, and never past it', () => {
    const air: Lab = [76, -2, -9];
    fc.assert(
      fc.property(lab, fc.integer({ min: 1, max: 12 }), (colour, steps) => {
        const [, Y] = light(colour);
        const [, y] = light(furtherOff(colour, steps));
        const [, a] = light(air);
        expect(Math.abs(y - a)).to.be.at.most(Math.abs(Y - a) + 1e-12);
        expect((y - a) * (Y - a)).to.be.at.least(0);
      }),
    );
    const [before, after] = [[20, 0, 0] as Lab, [85, 0, 0] as Lab].map((colour) => deltaE00(colour, furtherOff(colour, 2)));
    expect(before).to.be.above(after!);
    expect(deltaE00(furtherOff([30, 20, 10], 60), air)).to.be.below(0.1);
  });

  it('toward another goes evenly in value and arrives', () => {
    fc.assert(
      fc.property(lab, lab, fc.double({ min: 0, max: 1, noNaN: true }), (one, other, share) => {
        const value = valueOfLightness(toward(one, other, share)[0]);
        const [from, to] = [one, other].map(([L]) => valueOfLightness(L)) as [number, number];
        expect(value).to.be.closeTo(from + share * (to - from), 1e-6);
        expect(deltaE00(toward(one, other, 1), other)).to.be.below(1e-4);
        expect(deltaE00(toward(one, other, 0), one)).to.be.below(1e-4);
      }),
    );
  });

  it('is held under a ceiling at its own value and hue, and left alone below it', () => {
    fc.assert(
      fc.property(quietLab, fc.double({ min: 1, max: 8, noNaN: true }), (colour, ceiling) => {
        const held = underCeiling(colour, ceiling);
        if (strengthOf(colour) <= ceiling) expect(held).to.equal(colour);
        else {
          expect(strengthOf(held)).to.be.at.most(ceiling + 0.1);
          expect(valueOfLightness(held[0])).to.be.closeTo(valueOfLightness(colour[0]), 0.05);
        }
        expect(underCeiling(colour, undefined)).to.equal(colour);
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('a colour said in words', () => {
  it('is the one that bears the name', () => {
    for (const [name] of NAMED_COLOURS) expect(colourName(colourFromWords(name)), name).to.equal(name);
  });

  it('is changed the way each word says', () => {
    const said = (text: string) => labToLch(colourFromWords(text));
    const base = said('green');
    expect(said('light green')[0]).to.be.above(base[0]);
    expect(said('dark green')[0]).to.be.below(base[0]);
    expect(said('dull green')[1]).to.be.below(base[1]);
    expect(said('very dull green')[1]).to.be.below(said('dull green')[1]);
    expect(said('slightly dark green')[0]).to.be.within(said('dark green')[0], base[0]);
    expect(temperature(colourFromWords('warm green'))).to.be.above(temperature(colourFromWords('green')));
    expect(temperature(colourFromWords('cool grey'))).to.be.below(0);
    expect(valueOfLightness(colourFromWords('dull warm green, value 4')[0])).to.be.closeTo(4, 1e-6);
    expect(valueOfLightness(colourFromWords('value 6,5')[0])).to.be.closeTo(6.5, 1e-6);
    expect(colourFromWords('brown')).to.deep.equal(colourFromWords('nut brown'));
  });

  it('may be written in a notation instead', () => {
    expect(colourFromWords('#8a6b4f')[0]).to.be.closeTo(47, 2);
    expect(labToMunsell(colourFromWords('5YR 4/3')).value).to.be.closeTo(4, 0.02);
  });

  it('is refused with the word that is not known', () => {
    for (const [text, says] of [
      ['wibbly green', /wibbly/],
      ['', /Say a colour/],
      ['warm', /Say a colour/],
      ['green, value 14', /0 to 10/],
    ] as const)
      expect(() => colourFromWords(text), text).to.throw(CraftError, says);
  });
});

describe('a colour between neighbours', () => {
  const bounded = fc.record({ lab, least: fc.double({ min: 1, max: 6, noNaN: true }) });
  it('that keeps its distances stays as it is', () => {
    fc.assert(
      fc.property(lab, lab, (wanted, other) => {
        const difference = deltaE00(other, wanted);
        const found = betweenNeighbours(wanted, [{ lab: other, least: difference * 0.9, most: difference * 1.1 }]);
        expect(found.lab).to.equal(wanted);
        expect(found.keeps).to.equal(true);
      }),
    );
  });

  it('moves no further than it must to keep clear of one', () => {
    fc.assert(
      fc.property(quietLab, bounded, (wanted, { lab: other, least }) => {
        const found = betweenNeighbours(wanted, [{ lab: other, least }]);
        expect(found.keeps).to.equal(true);
        expect(found.differences[0]).to.be.at.least(least - 0.06);
        expect(found.moved).to.be.at.most(Math.max(0, least - deltaE00(other, wanted)) * 1.8 + 0.6);
      }),
      { numRuns: runs(40) },
    );
  });

  it('is so many values apart from one, no further than it must', () => {
    fc.assert(
      fc.property(quietLab, quietLab, fc.double({ min: 0.3, max: 2, noNaN: true }), (wanted, other, apart) => {
        const found = betweenNeighbours(wanted, [{ lab: other, apart }]);
        const by = Math.abs(valueOfLightness(found.lab[0]) - valueOfLightness(other[0]));
        const was = Math.abs(valueOfLightness(wanted[0]) - valueOfLightness(other[0]));
        if (found.keeps) expect(by).to.be.at.least(apart - 0.01);
        else expect(Math.min(other[0], 100 - other[0])).to.be.below(25);
        if (was >= apart) expect(found.lab).to.equal(wanted);
        else if (found.keeps && Math.min(wanted[0], 100 - wanted[0]) > 30) expect(by).to.be.at.most(apart + 0.05);
      }),
      {
        numRuns: runs(40),
        // Far to go: what is weighed against the way must not leave it a hair short.
        examples: [
          [[51.75, 0, 0], [54.91, 0, 0], 2],
          [[30.17, 0, 0], [27.54, 14, 0], 2],
        ],
      },
    );
    expect(() => betweenNeighbours([50, 0, 0], [{ lab: [40, 0, 0], apart: 11 }])).to.throw(/0 to 10 values/);
  });

  it('comes barely off one and clear of another, or says that it cannot', () => {
    const found = betweenNeighbours(
      [50, 4, 4],
      [
        { lab: [50, 0, 0], least: 2, most: 3 },
        { lab: [56, 10, 10], least: 9 },
      ],
    );
    expect(found.keeps).to.equal(true);
    expect(found.differences[0]).to.be.within(1.94, 3.06);
    expect(found.differences[1]).to.be.at.least(8.94);
    const torn = betweenNeighbours(
      [50, 0, 0],
      [
        { lab: [20, 0, 0], most: 2 },
        { lab: [80, 0, 0], most: 2 },
      ],
    );
    expect(torn.keeps).to.equal(false);
    expect(() => betweenNeighbours([50, 0, 0], [{ lab: [50, 0, 0], least: 5, most: 2 }])).to.throw(CraftError, /no larger/);
    expect(() => betweenNeighbours([50, 0, 0], [{ lab: [50, 0, 0], least: NaN }])).to.throw(CraftError);
  });
});

describe('a string as it is wished', () => {
  const [one, other] = [masstoneOf(dark), masstoneOf(pale)];
  const even = (targets: readonly Lab[]): void => {
    const values = targets.map(([L]) => valueOfLightness(L));
    const step = (values.at(-1)! - values[0]!) / (values.length - 1);
    values.forEach((value, i) => expect(value).to.be.closeTo(values[0]! + i * step, 0.02));
  };

  it('is even in value however its colours are led', () => {
    for (const held of ['nothing', 'chroma', 'temperature'] as const)
      for (const turns of [0, 4]) even(wishedTargets({ stops: [one, other], n: 9, held, turns }));
  });

  it('goes warm and cool by turns, its stops as they are', () => {
    const plain = wishedTargets({ stops: [one, other], n: 9 });
    const turned = wishedTargets({ stops: [one, other], n: 9, turns: 4 });
    expect(turned[0]).to.deep.equal(plain[0]);
    expect(turned[8]).to.deep.equal(plain[8]);
    for (let i = 1; i < 8; i++)
      expect(Math.sign(temperature(turned[i]!) - temperature(plain[i]!)), `pile ${i + 1}`).to.equal(i % 2 === 1 ? 1 : -1);
  });

  it('may be pairs of one value, told apart by temperature', () => {
    const pairs = wishedTargets({ stops: [one, other], n: 4, pairs: 5 });
    expect(pairs).to.have.length(8);
    for (let i = 0; i < 8; i += 2) {
      expect(pairs[i]![0]).to.equal(pairs[i + 1]![0]);
      expect(temperature(pairs[i]!)).to.be.above(temperature(pairs[i + 1]!) + 3);
    }
  });

  it('keeps what is held, and stays under a ceiling', () => {
    const red: Lab = [40, 35, 20];
    for (const target of wishedTargets({ stops: [red, [80, 2, 2]], n: 5, held: 'chroma' }))
      expect(labToLch(target)[1]).to.be.closeTo(labToLch(red)[1], 1e-6);
    for (const target of wishedTargets({ stops: [red, [80, 2, 2]], n: 5, ceiling: 3 })) expect(strengthOf(target)).to.be.below(3.1);
    const held = wishedTargets({ stops: [red, [70, -20, -10]], n: 4, held: 'temperature' });
    const least = Math.min(...held.map((target) => temperature(target)));
    expect(least).to.be.above(temperature(wishedTargets({ stops: [red, [70, -20, -10]], n: 4 }).at(-1)!) + 5);
    expect(Math.abs(hueDifference(labToLch(held[0]!)[2], labToLch(red)[2]))).to.be.below(0.01);
  });

  it('is refused where it cannot be', () => {
    for (const wish of [
      { stops: [one], n: 5 },
      { stops: [one, other], n: 1 },
      { stops: [one, other], n: 25 },
      { stops: [one, other], n: 13, pairs: 3 },
      { stops: [one, other], n: 5, turns: -1 },
      { stops: [one, other], n: 5, pairs: NaN },
      { stops: [one, other], n: 5, held: 'hue' as never },
    ])
      expect(() => wishedTargets(wish), JSON.stringify(wish)).to.throw(CraftError);
  });

  it('is one plan: every pile comes to its target from earlier ones, in fewer measurings than each by itself', () => {
    const wish = { stops: [one, other], n: 9, piles: ['dark', 'pale'] as const };
    const plan = planString(palette, wish, 3);
    expect(plan.piles).to.have.length(9);
    expect([plan.piles[0]!.isPile, plan.piles[8]!.isPile]).to.deep.equal(['dark', 'pale']);
    expect([...plan.order].sort((a, b) => a - b)).to.deep.equal([0, 1, 2, 3, 4, 5, 6, 7, 8]);
    // What each truly gives, its mothers opened.
    const mixtures = new Map(plan.piles.map(({ mixture }, at) => [placeName(at), mixture]));
    const paintOf = (source: Leaf): PaintCurves => {
      if ('tube' in source) return tubes.find(({ id }) => id === source.tube)!;
      const at = /^#(\d+)$/.exec(source.pile);
      if (!at) return source.pile === 'dark' ? dark : pale;
      const { isPile } = plan.piles[Number(at[1])]!;
      return isPile === undefined ? paintOfMixture(mixtures.get(source.pile) as Mixture, paintOf) : isPile === 'dark' ? dark : pale;
    };
    const done = new Set<number>();
    for (const at of plan.order) {
      const { mixture, target, isPile } = plan.piles[at]!;
      if (isPile === undefined) {
        for (const { source } of leavesOf(mixture))
          if ('pile' in source && source.pile.startsWith('#')) expect(done.has(Number(source.pile.slice(1)))).to.equal(true);
        const colour = masstoneOf(paintOfMixture(mixture, paintOf));
        expect(deltaE00(colour, target), `pile ${at + 1}`).to.be.below(2);
        expect(Math.abs(valueOfLightness(colour[0]) - valueOfLightness(target[0])), `value of pile ${at + 1}`).to.be.below(0.12);
      }
      done.add(at);
    }
    const alone = wishedTargets(wish)
      .slice(1, -1)
      .reduce((sum, target) => sum + measurings(solve(palette, target, { alternatives: 0 }).recipes[0]!.mixture), 0);
    expect(plan.measurings).to.be.at.most(alone);
    // Mothers are made so large that what is taken from them is there.
    const taken = plan.piles.map(() => 0);
    plan.piles.forEach(({ mixture, isPile }) => {
      if (isPile !== undefined) return;
      for (const { source, share } of leavesOf(mixture))
        if ('pile' in source && source.pile.startsWith('#')) taken[Number(source.pile.slice(1))]! += 3 * share;
    });
    plan.piles.forEach(({ ml, isPile }, at) => isPile === undefined && expect(ml).to.be.at.least(3 + taken[at]! - 1e-6));
  });

  it('says which steps are too small to tell, and which jump', () => {
    expect(stepsBeyond([0.5, 3, 14], 1, 12)).to.deep.equal([
      { at: 0, says: 'too close' },
      { at: 2, says: 'a jump' },
    ]);
  });
});

describe('wishes for a recipe', () => {
  const target: Lab = [55, 6, 14];
  const sources = (mixture: Mixture) => new Set(leavesOf(mixture).map(({ source }) => ('tube' in source ? source.tube : source.pile)));
  it('that several things be in it are kept by every recipe', () => {
    for (const { mixture } of some(solve(palette, target, { mustUse: ['viridian', 'dark'] }).recipes)) {
      expect(sources(mixture).has('viridian')).to.equal(true);
      expect(sources(mixture).has('dark')).to.equal(true);
    }
    expect(() => solve(palette, target, { mustUse: ['viridian'], exclude: ['viridian'] })).to.throw(CraftError, /both/);
    expect(() => solve(palette, target, { mustUse: SLUGS })).to.throw(CraftError, /at most/);
    expect(() => solve(palette, target, { hold: 'weight' as never })).to.throw(CraftError, /held/);
  });

  it('for few parts are kept in every heap', () => {
    for (const parts of [4, 6])
      for (const { mixture } of some(solve(palette, target, { parts }).recipes)) {
        // A touch of the knife's tip is no part.
        const whole = lastHeap(mixture).ingredients.reduce((sum, one) => sum + (isTouch(one) ? 0 : one.parts), 0);
        expect(whole).to.be.at.most(parts);
      }
    expect(() => solve(palette, target, { parts: 1.5 })).to.throw(CraftError, /parts/);
  });

  it('for piles alone take from no tube straight', () => {
    const { recipes } = solve(palette, [50, 2, 4], { onlyPiles: true });
    for (const { mixture } of recipes) for (const name of sources(mixture)) expect(['dark', 'pale']).to.include(name);
  });

  it('that something be held hold it where the rest gives way', () => {
    const out: Lab = [70, 70, 70];
    const error = (hold: 'value' | 'hue' | 'chroma') => {
      const { valueError, chromaError, hueError } = solve(palette, out, { hold }).recipes[0]!;
      return { value: Math.abs(valueError), chroma: Math.abs(chromaError), hue: Math.abs(hueError) }[hold];
    };
    const { valueError, chromaError, hueError } = solve(palette, out, { hold: 'all' }).recipes[0]!;
    expect(error('value')).to.be.at.most(Math.abs(valueError) + 0.02);
    expect(error('chroma')).to.be.at.most(Math.abs(chromaError) + 0.5);
    expect(error('hue')).to.be.at.most(Math.abs(hueError) + 0.5);
  });
});
