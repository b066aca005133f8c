import { expect } from 'chai';
import fc from 'fast-check';
import {
  amountInWords,
  asLaid,
  best,
  CATALOGUE,
  coatsToCover,
  DAY_ORDERS,
  deltaE00,
  drawnOut,
  dropsInto,
  eyeFor,
  filmReflectance,
  filmWithSlopes,
  findPlans,
  filmOf,
  HABITS,
  inLayersInSteps,
  atOnce,
  LAID_HOW,
  LAID_TAKING,
  LAID_WITH,
  labOf,
  laidByHabit,
  layPalette,
  MOST_LAID,
  mixCurves,
  mixedByEye,
  paceFrom,
  paintFor,
  passageFromWords,
  planDay,
  priming,
  reflectance,
  shareEnclosed,
  smoothSpectrum,
  takenFromTubes,
  valueOfColour,
  viewingThere,
  washOver,
  WIPED,
  type DayPile,
  type Landing,
  type Lab,
  type PaletteTube,
  type Spectrum,
} from '../src/index.ts';
import { runs } from './runs.ts';

const tube = (id: string): PaletteTube => {
  const { K, S } = CATALOGUE.get(id)!;
  return { id, K, S };
};
const SIX = ['titanium-white', 'yellow-ochre', 'venetian-red', 'ultramarine-blue', 'burnt-umber', 'ivory-black'].map(tube);
const anyTube = fc.constantFrom(...[...CATALOGUE.keys()].map(tube));
const anyGround = fc.constantFrom([8, 1, 2], [50, 4, 12], [72, 2, 8], [95, 0, 2]).map((lab) => smoothSpectrum(lab as unknown as Lab));
const anyLanding: fc.Arbitrary<Landing> = fc.record({
  so: fc.record({
    how: fc.constantFrom(...LAID_HOW),
    with: fc.constantFrom(...LAID_WITH),
    takes: fc.constantFrom(...LAID_TAKING),
    layers: fc.integer({ min: 1, max: MOST_LAID }),
  }),
  below: fc.oneof(
    anyGround.map((dry) => ({ dry })),
    anyTube.map((wet) => ({ wet })),
  ),
  inBrush: fc.option(anyTube, { nil: undefined }),
});

describe('where paint lands', () => {
  it('is matched as it is seen: a recipe found for a place looks there as it was promised', () => {
    fc.assert(
      fc.property(anyLanding, fc.integer({ min: 25, max: 85 }), (landing, L) => {
        const palette = layPalette(SIX, undefined, viewingThere(landing));
        const found = best(palette, [L, 3, 9]);
        const pile = mixCurves(Object.entries(found.flat).map(([id, parts]) => ({ paint: CATALOGUE.get(id)!, parts })));
        expect(deltaE00(asLaid(pile, landing), found.lab)).to.be.below(1e-6);
      }),
      { numRuns: runs(25) },
    );
  });

  it('is come to within ΔE00 1, in nine of ten, of the nearest that its tubes come to there', () => {
    const targets: Lab[] = [];
    for (const L of [18, 32, 46, 60, 74, 88])
      for (const [a, b] of [
        [0, 0],
        [10, 14],
        [-8, 4],
        [4, -14],
      ] as const)
        targets.push([L, a, b]);
    for (const [so, below] of [
      [{ how: 'wash' }, { dry: priming() }],
      [{ how: 'glaze', with: 'medium' }, { dry: reflectance(tube('burnt-umber')) }],
      [{ how: 'thin' }, { dry: priming() }],
      [{ how: 'normal', takes: 'some' }, { wet: tube('burnt-umber') }],
    ] as [Landing['so'], Landing['below']][]) {
      const palette = layPalette(SIX, undefined, viewingThere({ so, below }));
      const lost = targets
        .map((target) => ({ first: best(palette, target).deltaE00, target }))
        // What passes may be simpler than the nearest.
        .map(({ first, target }) => (first <= 2 ? 0 : first - findPlans(palette, { target, hold: 'all' }, 1)[0]!.deltaE00))
        .sort((one, other) => one - other);
      expect(lost[Math.floor(0.9 * lost.length)], JSON.stringify(so)).to.be.at.most(1);
    }
  });

  it('is nearer to the layer below where more of that is taken up', () => {
    const seen = LAID_TAKING.map(
      (takes) => asLaid(tube('titanium-white'), { so: { how: 'loaded', takes }, below: { wet: tube('ivory-black') } })[0],
    );
    expect(seen[0]!).to.be.above(seen[1]!);
    expect(seen[1]!).to.be.above(seen[2]!);
    const clean = asLaid(tube('titanium-white'), { so: { how: 'normal' }, below: { dry: priming() } });
    const dirty = asLaid(tube('titanium-white'), { so: { how: 'normal' }, below: { dry: priming() }, inBrush: tube('burnt-umber') });
    expect(dirty[0]).to.be.below(clean[0] - 3);
  });

  it('says what one layer does not do: how many would, or white first', () => {
    const how = (so: Landing['so'], target: Lab) => {
      const landing: Landing = { so, below: { dry: reflectance(tube('ivory-black')) } };
      const lay = (there: Landing) => layPalette([...SIX, tube('hansa-yellow')], undefined, viewingThere(there));
      return atOnce(inLayersInSteps(lay, landing, target));
    };
    const grey = how({ how: 'thin' }, [91, -1, 6]);
    expect(grey.oneLayer).to.be.above(3);
    expect(grey.layers).to.be.within(2, MOST_LAID);
    const yellow = how({ how: 'glaze' }, labOf(reflectance(tube('hansa-yellow'), { film: { thicknessUm: 30, ground: priming() } })));
    expect(yellow.whiteFirst).to.equal(true);
    expect(how({ how: 'loaded' }, [70, 2, 14])).to.have.keys(['oneLayer']);
  });

  it('goes by a painting’s habit: thin darks, thick lights', () => {
    expect([2, 5, 8].map((value) => laidByHabit('thin darks, thick lights', value))).to.deep.equal(['thin', 'normal', 'loaded']);
    for (const habit of HABITS) for (let v = 0; v <= 10; v++) expect(LAID_HOW).to.include(laidByHabit(habit, v));
  });

  it('takes drops of what is dropped into it, more the larger the pile is', () => {
    for (const along of LAID_WITH)
      for (const how of LAID_HOW) {
        const [some, more] = [dropsInto(2, { how, with: along }), dropsInto(8, { how, with: along })];
        if (some === undefined) expect(['nothing', 'chalk', 'marble dust']).to.include(along);
        else expect(more!).to.be.at.least(some);
      }
    // A tenth of the film is oil: 4 ml of paint and 0.444 ml of it, at 0.05 ml a drop.
    expect(dropsInto(4, { how: 'normal', with: 'oil' })).to.equal(9);
  });
});

describe('films', () => {
  /** Kubelka’s closed form of a film over a ground, written once more, from internal reflectances. */
  const byHand = (K: number, S: number, X: number, Rg: number): number => {
    const a = 1 + K / S;
    const b = Math.sqrt(a * a - 1);
    if (b < 1e-7) return (Rg + S * X * (1 - Rg)) / (1 + S * X * (1 - Rg));
    const coth = 1 / Math.tanh(b * S * X);
    return (1 - Rg * (a - b * coth)) / (a - Rg + b * coth);
  };
  const inside = (r: number): number => (r - 0) / (1 - 0.04) / (1 - 0.6) / (1 + (r * 0.6) / ((1 - 0.04) * (1 - 0.6)));
  const outside = (R: number): number => ((1 - 0.04) * (1 - 0.6) * R) / (1 - 0.6 * R);

  it('agree with thirty sums by hand, and a thousand of them laid in two halves are the whole', () => {
    const THICKNESSES = [4, 12, 30, 80, 300];
    const GROUNDS = [0.02, 0.3, 0.86];
    for (const id of ['titanium-white', 'phthalo-blue'])
      for (const um of THICKNESSES)
        for (const g of GROUNDS) {
          const paint = tube(id);
          const seen = reflectance(paint, { film: { thicknessUm: um, ground: new Float64Array(36).fill(g) } });
          for (let i = 0; i < 36; i++)
            expect(seen[i]!).to.be.closeTo(outside(byHand(paint.K[i]!, paint.S[i]!, um * 0.08, inside(g))), 1e-6);
        }
    fc.assert(
      fc.property(anyTube, anyGround, fc.double({ min: 0.5, max: 400, noNaN: true }), (paint, ground, um) => {
        const whole = reflectance(paint, { film: { thicknessUm: um, ground } });
        const half = reflectance(paint, { film: { thicknessUm: um / 2, ground } });
        const twice = reflectance(paint, { film: { thicknessUm: um / 2, ground: half } });
        for (let i = 0; i < 36; i++) expect(twice[i]!).to.be.closeTo(whole[i]!, 1e-6);
      }),
      { numRuns: runs(1000) },
    );
  });

  it('have slopes that are their small differences', () => {
    const out = new Float64Array(3);
    const some = fc.double({ min: 0.0001, max: 30, noNaN: true });
    fc.assert(
      fc.property(
        some,
        some,
        fc.double({ min: 0.05, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 0.99, noNaN: true }),
        (K, S, X, Rg) => {
          filmWithSlopes(K, S, X, Rg, out);
          expect(out[0]!).to.be.closeTo(filmReflectance(K, S, X, Rg), 1e-12);
          const slope = (by: (v: number) => number, at: number): number => (by(at * (1 + 1e-5)) - by(at * (1 - 1e-5))) / (2e-5 * at);
          const [byK, byS] = [slope((v) => filmReflectance(v, S, X, Rg), K), slope((v) => filmReflectance(K, v, X, Rg), S)];
          expect(out[1]!).to.be.closeTo(byK, 1e-4 + 2e-3 * Math.abs(byK));
          expect(out[2]!).to.be.closeTo(byS, 1e-4 + 2e-3 * Math.abs(byS));
        },
      ),
    );
  });

  it('cover in as many coats as the criterion says, summed layer by layer', () => {
    const white = tube('titanium-white');
    const ground = reflectance(tube('ivory-black'));
    const thick = labOf(reflectance(white));
    let lies = ground;
    let [card0, card1]: Spectrum[] = [new Float64Array(36).fill(0.02), new Float64Array(36).fill(0.85)];
    let coats = 0;
    for (let shows = Infinity; shows >= 2; coats++) {
      const on = (below: Spectrum) => reflectance(white, { film: { thicknessUm: 40, ground: below } });
      [lies, card0, card1] = [on(lies), on(card0!), on(card1!)];
      shows = Math.min(deltaE00(thick, labOf(lies)), deltaE00(labOf(card0!), labOf(card1!)));
    }
    expect(coatsToCover(white, ground, 40).coats).to.equal(coats);
    expect(coats).to.be.within(4, 6);
  });

  it('thin out to what is below, and thicken to the paint', () => {
    fc.assert(
      fc.property(anyTube, anyGround, (paint, ground) => {
        const strip = drawnOut(paint, ground, 12);
        const shows = strip.map((lab) => deltaE00(lab, labOf(ground)));
        expect(deltaE00(strip[0]!, labOf(reflectance(paint, { film: { thicknessUm: 350, ground } })))).to.be.below(1e-6);
        expect(shows.at(-1)!).to.be.at.most(Math.max(...shows) + 1e-9);
      }),
      { numRuns: runs(60) },
    );
    expect(() => eyeFor({ laying: { film: { thicknessUm: -1, ground: priming() } } })).to.throw('µm');
  });
});

describe('a ground of a tube', () => {
  it('of a wash of nothing is the priming, and is nearer to it the further it is wiped back', () => {
    fc.assert(
      fc.property(anyTube, (paint) => {
        expect(deltaE00(labOf(washOver(paint, 'left as it runs', 0)), labOf(priming()))).to.be.below(1e-6);
        const apart = WIPED.map((wiped) => deltaE00(labOf(washOver(paint, wiped)), labOf(priming())));
        expect(apart[1]!).to.be.at.most(apart[0]! + 0.5);
        expect(apart[2]!).to.be.at.most(apart[1]! + 0.5);
      }),
      { numRuns: runs(60) },
    );
    const [L, a, b] = labOf(washOver(tube('burnt-sienna'), 'wiped back'));
    expect(L).to.be.within(50, 85);
    expect(Math.hypot(a, b)).to.be.above(12);
  });

  it('that shows between strokes is seen as an eye mixes light, by its share', () => {
    const white: Lab = [100, 0, 0];
    const black: Lab = [0, 0, 0];
    expect(mixedByEye(white, black, 0)[0]).to.be.closeTo(100, 1e-9);
    expect(mixedByEye(white, black, 1)[0]).to.be.closeTo(0, 1e-9);
    // Half the light of white is L* 76, not 50 as of paint that is stirred.
    expect(mixedByEye(white, black, 0.5)[0]).to.be.closeTo(76.07, 0.01);
  });
});

describe('enough paint', () => {
  it('is a sum that can be done by hand', () => {
    // A hand laid normally: 150 cm² by 80 µm is 1.2 ml; 15 % stay in brush and palette, and 0.3 ml.
    expect(paintFor({ cm2: 150, so: { how: 'normal' } })).to.be.closeTo(1.2 / 0.85 + 0.3, 1e-9);
    // Half of it left open, a fifth held back, a tenth of the film oil.
    expect(paintFor({ cm2: 150, so: { how: 'normal', with: 'oil' }, open: 0.5, heldBack: 0.2 })).to.be.closeTo(
      (1.2 * 0.9 * 0.5) / 0.85 / 0.8 + 0.3,
      1e-9,
    );
  });

  it('is never less for more of a surface, a thicker film, or more layers', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 90_000, noNaN: true }),
        fc.double({ min: 1, max: 5, noNaN: true }),
        fc.integer({ min: 0, max: LAID_HOW.length - 1 }),
        fc.constantFrom(...LAID_WITH),
        fc.integer({ min: 1, max: 5 }),
        (cm2, times, at, along, layers) => {
          const so = { how: LAID_HOW[at]!, with: along, layers };
          expect(paintFor({ cm2: cm2 * times, so })).to.be.at.least(paintFor({ cm2, so }) - 1e-9);
          expect(paintFor({ cm2, so: { ...so, layers: layers + 1 } })).to.be.above(paintFor({ cm2, so }));
          expect(filmOf(so).medium).to.be.below(1);
        },
      ),
    );
  });

  it('is said in words, and so is how large a passage is', () => {
    expect([0.4, 2, 4, 7.5, 15, 37, 80].map(amountInWords)).to.deep.equal([
      'small',
      'half a thumb’s length of bead',
      'a thumb’s length of bead',
      'two thumbs’ lengths of bead',
      'four thumbs’ lengths of bead',
      'a whole tube',
      '2 tubes',
    ]);
    const said: readonly (readonly [string, number])[] = [
      ['a hand', 150],
      ['two palms', 160],
      ['half a thumb', 6],
      ['120 cm²', 120],
      ['12 x 8', 96],
      ['0,5 m2', 5000],
      ['Thumb', 12],
      ['40', 40],
    ];
    for (const [words, cm2] of said) expect(passageFromWords(words), words).to.be.closeTo(cm2, 1e-9);
    for (const bad of ['', 'the sky', '0', '0 x 12', '-3', '9999999 cm²', 'two']) expect(() => passageFromWords(bad), bad).to.throw();
    expect(() => paintFor({ cm2: 0, so: { how: 'thin' } })).to.throw('nothing');
  });

  it('of an outline is its share of the canvas, and of a plan what each tube gives', () => {
    const square = [
      [0.1, 0.1],
      [0.6, 0.1],
      [0.6, 0.9],
      [0.1, 0.9],
    ].map(([x, y]) => ({ x: x!, y: y! }));
    expect(shareEnclosed(square)).to.be.closeTo(0.4, 1e-12);
    expect(shareEnclosed([...square].reverse())).to.be.closeTo(0.4, 1e-12);
    expect(shareEnclosed(square.slice(0, 2))).to.equal(0);
    const taken = takenFromTubes([
      { ml: 4, flat: { white: 3, blue: 1 } },
      { ml: 2, flat: { white: 1 } },
    ]);
    expect([...taken]).to.deep.equal([
      ['white', 5],
      ['blue', 1],
    ]);
  });
});

describe('the plan for a day', () => {
  const pile = (id: string, parts: Readonly<Record<string, number>>, more: Partial<DayPile> = {}): DayPile => {
    const paint = mixCurves(Object.entries(parts).map(([one, n]) => ({ paint: CATALOGUE.get(one)!, parts: n })));
    const tubes = Object.keys(parts);
    return { id, ...paint, lab: labOf(reflectance(paint)), mothers: [], tubes, measurings: tubes.length, isBackground: false, ...more };
  };
  const piles = [
    pile('dark', { 'burnt-umber': 2, 'ultramarine-blue': 1 }),
    pile('wall', { 'titanium-white': 6, 'yellow-ochre': 1, 'ivory-black': 0.2 }, { isBackground: true }),
    pile('wall, darker', { 'titanium-white': 4, 'yellow-ochre': 1, 'ivory-black': 0.3 }, { isBackground: true }),
    pile('red', { 'venetian-red': 2, 'titanium-white': 1 }),
    pile('pink', { 'venetian-red': 2, 'titanium-white': 8 }, { mothers: ['red'] }),
    pile('light', { 'titanium-white': 20, 'yellow-ochre': 1 }),
  ];
  const ids = (plan: ReturnType<typeof planDay>): string[] => plan.steps.map(({ id }) => id);

  it('puts piles in the order of each school, what others are mixed from first', () => {
    for (const order of DAY_ORDERS) {
      const all = ids(planDay(piles, SIX, { order }));
      expect([...all].sort(), order).to.deep.equal(piles.map(({ id }) => id).sort());
      expect(all.indexOf('red'), order).to.be.below(all.indexOf('pink'));
    }
    expect(ids(planDay(piles, SIX, { order: 'darks first' }))[0]).to.equal('dark');
    expect(ids(planDay(piles, SIX, { order: 'lights first' }))[0]).to.equal('light');
    expect(ids(planDay(piles, SIX, { order: 'background first' })).slice(0, 2)).to.have.members(['wall', 'wall, darker']);
    expect(ids(planDay(piles, SIX, { order: 'background last' })).slice(-2)).to.have.members(['wall', 'wall, darker']);
  });

  it('fits the time there is: what can wait is had in one step from what is there, and the two ends stay', () => {
    const whole = planDay(piles, SIX, { order: 'darks first' });
    const short = planDay(piles, SIX, { order: 'darks first', minutes: whole.minutes - 4 });
    expect(short.minutes).to.be.at.most(whole.minutes - 4);
    expect(short.later).to.not.equal([]);
    for (const { from, deltaE00: near, id } of short.later) {
      expect(ids(short)).to.include(from);
      expect(ids(short)).to.not.include(id);
      expect(near).to.be.at.most(4);
    }
    const values = [...piles].sort((a, b) => valueOfColour(a.lab) - valueOfColour(b.lab));
    expect(ids(short)).to.include.members([values[0]!.id, values.at(-1)!.id]);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), fc.constantFrom(...DAY_ORDERS), (minutes, order) => {
        const plan = planDay(piles, SIX, { order, minutes });
        const all = [...ids(plan), ...plan.later.map(({ id }) => id), ...plan.left];
        expect(all.sort()).to.deep.equal(piles.map(({ id }) => id).sort());
        if (plan.steps.length > 1) expect(plan.minutes).to.be.at.most(minutes);
        if (ids(plan).includes('pink')) expect(ids(plan)).to.include('red');
        for (const { from } of plan.later) expect(ids(plan)).to.include(from);
      }),
      { numRuns: runs(25) },
    );
    expect(() => planDay(piles, SIX, { order: 'darks first', minutes: 0 })).to.throw('minute');
  });

  it('learns a painter’s pace from how long piles took, pauses left out', () => {
    expect(paceFrom([{ minutes: 4, guessed: 2 }])).to.equal(undefined);
    const took = [4, 5, 4, 60, 3, 4].map((minutes) => ({ minutes, guessed: 2 }));
    expect(paceFrom(took)).to.equal(2);
  });
});
