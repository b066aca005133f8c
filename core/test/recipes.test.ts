import { expect } from 'chai';
import fc from 'fast-check';
import {
  deviate,
  drawDeviation,
  USUAL_SPREAD,
  lastHeap,
  leavesOf,
  openToTubes,
  amountsFor,
  best,
  between,
  CATALOGUE,
  coatsToCover,
  deltaE00,
  deltaE76,
  flatSpectrum,
  givesWay,
  hueDifference,
  labOf,
  labToLch,
  lchToLab,
  layPalette,
  lightnessOfValue,
  mixCurves,
  measurings,
  mixerOf,
  mixingPath,
  moved,
  nearestKinds,
  pickedUp,
  reachOf,
  recall,
  rederive,
  reflectance,
  ROUTES,
  solve,
  stringOf,
  stopPlaces,
  stringTargets,
  tubesThatReach,
  valueOfLightness,
  warmAndCool,
  labToMunsell,
  type Lab,
  type Route,
} from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { ADVICE_PALETTES } from '../bench/advicePalettes.ts';
import { some } from './some.ts';
import { runs } from './runs.ts';

const LIMITS = { tubes: 4, parts: 12 };
const PALETTE = ['titanium-white', 'yellow-ochre', 'venetian-red', 'ultramarine-blue', 'burnt-umber', 'ivory-black'];
const tube = (id: string) => {
  const { K, S, drying } = CATALOGUE.get(id)!;
  return { id, K, S, drying };
};
const tubes = (ids: readonly string[]) => ids.map(tube);
const mixed = (parts: Readonly<Record<string, number>>) =>
  mixCurves(Object.entries(parts).map(([id, n]) => ({ paint: tube(id), parts: n })));
const colour = (parts: Readonly<Record<string, number>>): Lab => labOf(reflectance(mixed(parts)));
const palette = layPalette(tubes(PALETTE), LIMITS);

describe('the fast mixer', () => {
  it('agrees with mixing the long way', () => {
    const mix = mixerOf(tubes(PALETTE));
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 9, noNaN: true }), { minLength: 6, maxLength: 6 }), (parts) => {
        fc.pre(parts.some((n) => n > 0.01));
        expect(deltaE00(mix(parts), colour(Object.fromEntries(PALETTE.map((id, i) => [id, parts[i]!]))))).to.be.below(1e-6);
      }),
    );
  });
});

describe('wishes', () => {
  const target: Lab = [38, 6, 12];

  it('leave tubes out, keep one in, and hold to a number', () => {
    for (const wishes of [
      { exclude: ['ivory-black', 'burnt-umber'] },
      { mustUse: 'burnt-umber' },
      { most: 2 },
      { mustUse: 'ivory-black', most: 3 },
    ]) {
      for (const { flat } of some(solve(palette, target, wishes).recipes)) {
        for (const id of wishes.exclude ?? []) expect(flat).to.not.have.property(id);
        if (wishes.mustUse) expect(flat).to.have.property(wishes.mustUse);
        if (wishes.most) expect(Object.keys(flat).length).to.be.at.most(wishes.most);
      }
    }
  });

  it('refuse what leaves nothing, and tubes that are not there', () => {
    expect(() => solve(palette, target, { exclude: PALETTE })).to.throw(/Nothing is left/);
    expect(() => solve(palette, target, { exclude: ['viridian'] })).to.throw(/viridian/);
    expect(() => solve(palette, target, { mustUse: 'viridian' })).to.throw(/viridian/);
    expect(() => solve(palette, target, { most: 0 })).to.throw(/whole number/);
  });

  it('let the emphasis choose among what comes near', () => {
    const closest = solve(palette, target).recipes[0]!;
    const fewest = solve(palette, target, { emphasis: 'fewest' }).recipes[0]!;
    const steady = solve(palette, target, { emphasis: 'steady' }).recipes[0]!;
    expect(Object.keys(fewest.flat).length).to.be.at.most(Object.keys(closest.flat).length);
    expect(steady.steadiness).to.be.at.most(closest.steadiness);
  });

  it('let the emphasis leave out what is dear, and what dries slowly, where others come as near', () => {
    const brown = colour({ 'titanium-white': 2, 'burnt-umber': 3, 'yellow-ochre': 2 });
    const used = solve(palette, brown).recipes[0]!.flat;
    const dear = Object.keys(used).sort((a, b) => used[a]! - used[b]!)[0]!;
    const priced = tubes(PALETTE).map((t) => ({ ...t, price: t.id === dear ? 400 : 1 }));
    const cheap = solve(layPalette(priced, LIMITS), brown, { emphasis: 'cheap' }).recipes[0]!;
    expect(cheap.flat[dear] ?? 0).to.be.below(used[dear]!);
    const slow = tubes(PALETTE).map((t) => ({ ...t, drying: t.id === dear ? ('slow' as const) : ('fast' as const) }));
    const fast = solve(layPalette(slow, LIMITS), brown, { emphasis: 'fast' }).recipes[0]!;
    expect(fast.flat[dear] ?? 0).to.be.below(used[dear]!);
  });

  it('say near from ΔE00 2 on and out of reach from 5 on, and near for a value a quarter step off', () => {
    const at = (deltaE00: number, valueError = 0) => reachOf({ deltaE00, valueError });
    expect([1.99, 2.01, 4.99, 5.01].map((d) => at(d))).to.deep.equal(['in', 'near', 'near', 'out']);
    expect([at(1, 0.24), at(1, 0.26), at(1, -0.26)]).to.deep.equal(['in', 'near', 'near']);
  });
});

describe('piles as ingredients', () => {
  it('are used as they are and open to their tubes exactly', () => {
    const flat = { 'titanium-white': 0.5, 'yellow-ochre': 0.25, 'venetian-red': 0.25 };
    const wall = { id: 'wall', ...mixed(flat), flat };
    const withPile = layPalette(tubes(PALETTE), { tubes: 3, parts: 8 }, {}, [wall]);
    const target = colour({ 'titanium-white': 3.5, 'yellow-ochre': 0.75, 'venetian-red': 0.75, 'ultramarine-blue': 1 });
    const recipe = best(withPile, target);
    expect(leavesOf(recipe.mixture).map(({ source }) => ('pile' in source ? source.pile : ''))).to.include('wall');
    expect(deltaE00(recipe.lab, colour(recipe.flat))).to.be.below(1e-9);
    expect(Object.keys(recipe.flat).length).to.be.above(2);
  });

  it('stay live: eight tubes and eight piles, and what lies there may do for the target as it is', () => {
    const piles = Array.from({ length: 8 }, (_, i) => {
      const flat = { 'titanium-white': (i + 1) / 10, 'burnt-umber': 1 - (i + 1) / 10 };
      return { id: `pile ${i}`, ...mixed(flat), flat };
    });
    const eight = [...PALETTE, 'viridian', 'quinacridone-rose'];
    const all = layPalette(tubes(eight), LIMITS, {}, piles);
    expect(all.ingredients).to.have.length(16);
    const { mixture, deltaE00: off } = best(all, colour(piles[4]!.flat));
    expect(off).to.be.below(1e-6);
    expect(mixture.heaps.at(-1)!.ingredients).to.deep.equal([{ pile: 'pile 4', parts: 1 }]);
  });
});

describe('out of reach', () => {
  const target: Lab = lchToLab([45, 75, 150]);

  it('tells the nearest by value, by hue and overall, and what gives way', () => {
    const { byValue, byHue, overall } = nearestKinds(palette, target);
    expect(Math.abs(byValue.valueError)).to.be.below(0.12);
    expect(Math.abs(byHue!.hueError)).to.be.at.most(4.01);
    for (const other of some(solve(palette, target, { alternatives: 10 }).recipes))
      expect(overall.deltaE00).to.be.at.most(other.deltaE00 + 0.05);
    expect(overall.deltaE00).to.be.at.most(byValue.deltaE00 + 1e-6);
    expect(givesWay(byValue)).to.include('too dull');
    expect(givesWay(best(palette, [50, 3, 8]))).to.deep.equal([]);
  });

  it('names the tube that would bring it nearer', () => {
    const rack = tubes(['phthalo-green-yellow-shade', 'cobalt-violet', 'naples-yellow-hue', 'viridian', 'hansa-yellow']);
    const advice = tubesThatReach(palette, rack, target);
    expect(['phthalo-green-yellow-shade', 'viridian']).to.include(advice[0]!.id);
    expect(advice[0]!.deltaE00).to.be.below(best(palette, target).deltaE00);
  });
});

describe('the path of mixing', () => {
  const portions = (parts: Readonly<Record<string, number>>) => Object.entries(parts).map(([id, n]) => ({ id, paint: tube(id), parts: n }));

  it('adds everything once in all, ends at the mixture, and says how far it goes past it', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...PALETTE), fc.integer({ min: 1, max: 8 }), { minKeys: 2, maxKeys: 5 }), (parts) => {
        const { steps, overshoot } = mixingPath(portions(parts));
        const added: Record<string, number> = {};
        for (const { add } of steps) added[add.id] = (added[add.id] ?? 0) + add.parts;
        for (const [id, n] of Object.entries(parts)) expect(added[id]).to.be.closeTo(n, 1e-9);
        expect(deltaE00(steps.at(-1)!.lab, colour(parts))).to.be.below(1e-6);
        const end = steps.at(-1)!.value;
        const past = steps.slice(1).map(({ value }) => (steps[0]!.value >= end ? end - value : value - end));
        expect(overshoot).to.be.closeTo(Math.max(0, ...past), 1e-9);
      }),
      { numRuns: runs(20) },
    );
  });

  it('starts from white and creeps up with phthalo', () => {
    const { steps, overshoot } = mixingPath(portions({ 'phthalo-blue': 1, 'titanium-white': 9, 'yellow-ochre': 2 }));
    expect(steps[0]!.add.id).to.equal('titanium-white');
    expect(steps.slice(-3).map((s) => s.add.id)).to.deep.equal(['phthalo-blue', 'phthalo-blue', 'phthalo-blue']);
    expect(overshoot).to.be.below(0.05);
  });

  it('starts from where the painter is', () => {
    const list = portions({ 'titanium-white': 9, 'burnt-umber': 1 });
    expect(mixingPath(list, 1).steps[0]!.add.id).to.equal('burnt-umber');
    expect(() => mixingPath([])).to.throw(/nothing to mix/i);
  });
});

describe('relative targets', () => {
  const from = colour({ 'titanium-white': 4, 'yellow-ochre': 2, 'venetian-red': 1 });

  it('move value alone, chroma alone, hue alone, temperature alone', () => {
    const here = labToMunsell(from);
    const darker = labToMunsell(moved(from, { value: -0.5 }));
    expect(darker.value).to.be.closeTo(here.value - 0.5, 0.02);
    expect(darker.chroma).to.be.closeTo(here.chroma, 0.1);
    expect(labToMunsell(moved(from, { chroma: 1 })).chroma).to.be.closeTo(here.chroma + 1, 0.05);
    expect(labToMunsell(moved(from, { hue: 1 })).hue).to.be.closeTo((here.hue + 2.5) % 100, 0.1);
    const cooler = moved(from, { temperature: -6 });
    expect(cooler[0]).to.equal(from[0]);
    expect(cooler[2]).to.be.below(from[2]);
    const [warm, cool] = warmAndCool([50, 0, 0], 3);
    expect(warm[0]).to.equal(cool[0]);
    expect(warm[2]).to.be.above(cool[2]);
  });

  it('stay where they are without a step, and refuse what is no step', () => {
    expect(moved(from, {})).to.deep.equal(from);
    for (const bad of [{ value: NaN }, { value: 20 }, { hue: Infinity }, { chroma: '1' as unknown as number }])
      expect(() => moved(from, bad)).to.throw(/step/);
  });
});

describe('strings', () => {
  const dark = colour({ 'burnt-umber': 1 });
  const light = colour({ 'titanium-white': 8, 'yellow-ochre': 1 });

  it('go in even steps of value', () => {
    for (const n of [2, 5, 9]) {
      const values = stringTargets([dark, light], n).map((lab) => valueOfLightness(lab[0]));
      const step = (values.at(-1)! - values[0]!) / (n - 1);
      values.forEach((v, i) => expect(v).to.be.closeTo(values[0]! + i * step, 1e-6));
    }
    const three = stringTargets([dark, light, dark], 5).map((lab) => valueOfLightness(lab[0]));
    expect(three[2]).to.be.closeTo(valueOfLightness(light[0]), 1e-6);
  });

  it('go in even steps of colour where the stops share a value', () => {
    // Wherever its stops lie, a string lands on each of them.
    const stops = fc.array(fc.tuple(fc.double({ min: 15, max: 95, noNaN: true }), fc.double({ min: -40, max: 40, noNaN: true })), {
      minLength: 2,
      maxLength: 6,
    });
    fc.assert(
      fc.property(stops, fc.integer({ min: 6, max: 20 }), fc.constantFrom(...ROUTES), (at, n, route) => {
        const labs = at.map(([L, a]): Lab => [L, a, 10]);
        const string = stringTargets(labs, n, [route]);
        const places = stopPlaces(labs, n, [route]);
        expect(string).to.have.length(n);
        labs.forEach((lab, i) => expect(deltaE76(string[places[i]!]!, lab)).to.be.below(1e-6));
      }),
    );
    const quarters = [2.1, 5, 7.7, 8.4].map((value): Lab => [lightnessOfValue(value), 4, 8]);
    const eleven = stringTargets(quarters, 11).map((lab) => Number(valueOfLightness(lab[0]).toFixed(6)));
    for (const value of [2.1, 5, 7.7, 8.4]) expect(eleven).to.include(value);
    const rises = eleven.slice(1).map((value, i) => value - eleven[i]!);
    expect(Math.max(...rises) - Math.min(...rises)).to.be.below(0.15);
    expect(() => stringTargets(quarters, 3)).to.throw(/4 stops/);
    const targets = stringTargets([lchToLab([55, 30, 20]), lchToLab([55, 30, 250])], 6, ['straight']);
    const steps = targets.slice(1).map((lab, i) => deltaE00(targets[i]!, lab));
    expect(Math.max(...steps) / Math.min(...steps)).to.be.below(1.08);
  });

  it('take the route that is asked: blue to yellow need not pass through green', () => {
    const blue = lchToLab([50, 40, 270]);
    const yellow = lchToLab([50, 40, 90]);
    const middle = (route: Route) => labToLch(between(blue, yellow, route, 0.5));
    expect(middle('neutral')[1]).to.be.below(1);
    expect(Math.abs(hueDifference(middle('warm')[2], 0))).to.be.below(60);
    expect(Math.abs(hueDifference(middle('cool')[2], 180))).to.be.below(60);
    for (const route of ROUTES) {
      expect(deltaE00(between(blue, yellow, route, 0), blue)).to.be.below(1e-6);
      expect(deltaE00(between(blue, yellow, route, 1), yellow)).to.be.below(1e-6);
    }
  });

  it('hang together: few changes of tubes, steps even in value, little lost to each pile alone', () => {
    for (const [from, to, n] of [
      [[30, 10, 12], [85, 4, 10], 7],
      [[25, 2, -12], [80, -4, -4], 6],
    ] as [Lab, Lab, number][]) {
      const { piles: string } = stringOf(palette, [from, to], n);
      const sets = string.map(({ recipe }) => Object.keys(recipe.flat).sort().join());
      expect(sets.slice(1).filter((set, i) => set !== sets[i]).length).to.be.at.most(Math.ceil(n / 3));
      const values = string.map(({ recipe }) => valueOfLightness(recipe.lab[0]));
      const even = (valueOfLightness(to[0]) - valueOfLightness(from[0])) / (n - 1);
      values.slice(1).forEach((value, i) => expect(value - values[i]!).to.be.closeTo(even, 0.15));
      for (const { target, recipe } of string) expect(recipe.deltaE00).to.be.at.most(Math.max(1, best(palette, target).deltaE00) + 1);
    }
  });

  it('are piles with recipes', () => {
    const { piles } = stringOf(palette, [dark, light], 5);
    expect(piles).to.have.length(5);
    piles.forEach(({ recipe }) => expect(Math.abs(recipe.valueError)).to.be.below(0.3));
  });

  it('are made from few mothers: the same tubes, measured less often', () => {
    const { mothers, piles } = stringOf(
      palette,
      [
        [25, 2, -12],
        [80, -4, -4],
      ],
      9,
    );
    expect(mothers.length).to.be.within(2, 6);
    const byName = new Map(mothers.map((mother) => [mother.name, mother]));
    const taking = piles.filter(({ recipe }) => lastHeap(recipe.mixture).ingredients.some((i) => 'pile' in i));
    expect(taking.length).to.be.above(mothers.length);
    for (const { recipe } of taking) {
      const flat = openToTubes(recipe.mixture, (name) => byName.get(name)!.flat);
      for (const [id, share] of Object.entries(recipe.flat)) expect(flat[id]).to.be.closeTo(share, 1e-9);
      expect(deltaE00(colour(recipe.flat), recipe.lab)).to.be.below(1e-6);
    }
    for (const { target, recipe } of piles) expect(recipe.deltaE00).to.be.at.most(Math.max(1, best(palette, target).deltaE00) + 1);
    for (const { recipe, target } of taking)
      expect(measurings(recipe.mixture)).to.be.at.most(Math.max(3, measurings(best(palette, target).mixture)));
  });

  it('refuse too few stops, too many piles and unknown routes', () => {
    expect(() => stringTargets([dark], 3)).to.throw(/two stops/);
    for (const n of [1, 2.5, 99, NaN]) expect(() => stringTargets([dark, light], n)).to.throw(/piles/);
    expect(() => stringTargets([dark, light], 3, ['sideways' as Route])).to.throw(/route/);
  });
});

describe('paint in its place', () => {
  it('picks up what lies below, from nothing to all', () => {
    const pile = mixed({ 'titanium-white': 9, 'yellow-ochre': 1 });
    const below = mixed({ 'burnt-umber': 1 });
    const L = (share: number) => labOf(reflectance(pickedUp(pile, below, share)))[0];
    const steps = [0, 0.05, 0.2, 0.5, 1].map(L);
    expect([...steps].sort((a, b) => b - a)).to.deep.equal(steps);
    expect(steps[0]).to.be.closeTo(labOf(reflectance(pile))[0], 1e-9);
    for (const bad of [-0.1, 1.1, NaN]) expect(() => pickedUp(pile, below, bad)).to.throw(/share/i);
  });

  it('covers in more coats when thinner, thinned or transparent', () => {
    const ground = flatSpectrum(0.05);
    const white = mixed({ 'titanium-white': 1 });
    const coats = (um: number, medium = 0, paint = white) => coatsToCover(paint, ground, um, medium).coats ?? 99;
    expect(coats(60)).to.be.below(coats(20));
    expect(coats(30, 0.5)).to.be.above(coats(30));
    expect(coats(40, 0, mixed({ 'zinc-white': 1 }))).to.be.above(coats(40));
    // By what painters find: titanium in usual coats over black takes four to six.
    expect(coatsToCover(white, flatSpectrum(0.02), 40).coats).to.be.within(4, 6);
    // An eye that looks for it sees the ground through some more, and none where it finds nothing.
    expect(coatsToCover(white, flatSpectrum(0.02), 40).unseen).to.be.within(7, 10);
    for (const um of [10, 40, 90]) {
      const { coats, unseen } = coatsToCover(mixed({ 'yellow-ochre': 3, 'titanium-white': 1 }), ground, um);
      expect(unseen).to.be.at.least(coats!);
    }
    expect(coatsToCover(mixed({ 'ivory-black': 1 }), flatSpectrum(0.85), 40)).to.include({ coats: 1, unseen: 1 });
    expect(coatsToCover(white, flatSpectrum(0.9), 40).coats).to.be.below(3);
    expect(coatsToCover(mixed({ 'zinc-white': 1 }), flatSpectrum(0.02), 2).coats).to.equal(null);
    const { after } = coatsToCover(white, ground, 30);
    after.slice(1).forEach((a, i) => expect(a.shows).to.be.below(after[i]!.shows));
    expect(() => coatsToCover(white, ground, 0)).to.throw(/coat/);
    expect(() => coatsToCover(white, ground, 20, 1)).to.throw(/medium/);
  });
});

describe('remaking a colour from other tubes', () => {
  it('says how far old and new part under each light', () => {
    const original = mixed({ 'titanium-white': 5, 'cobalt-blue': 2, 'burnt-sienna': 1 });
    const other = layPalette(tubes(['titanium-white', 'ultramarine-blue', 'viridian', 'burnt-sienna', 'yellow-ochre']), LIMITS);
    const { recipes } = rederive(original, other);
    const { differences, deltaE00: off } = recipes[0]!;
    expect(differences.D65).to.be.closeTo(off, 1e-9);
    for (const d of Object.values(differences)) expect(d).to.be.within(0, 20);
    const same = rederive(original, layPalette(tubes(['titanium-white', 'cobalt-blue', 'burnt-sienna']), LIMITS)).recipes[0]!;
    for (const d of Object.values(same.differences)) expect(d).to.be.below(1e-6);
  });
});

describe('half a memory', () => {
  const known = tubes(['ultramarine-blue']);
  const candidates = tubes(['burnt-sienna', 'burnt-umber', 'transparent-oxide-red', 'yellow-ochre', 'viridian']);
  const seen = (parts: Record<string, number>) => colour(parts);

  it('asks for a tint where the dark alone cannot tell, and then tells', () => {
    const mixture = { 'ultramarine-blue': 1, 'burnt-umber': 1 };
    const dark = recall({ known, candidates, seen: seen(mixture) });
    expect(dark.certain).to.equal(false);
    expect(dark.advice).to.match(/tint/);
    const tint = { lab: seen({ ...mixture, 'titanium-white': 18 }), white: tube('titanium-white'), parts: 9 };
    const both = recall({ known, candidates, seen: seen(mixture), tint });
    expect(both.suspects[0]!.id).to.equal('burnt-umber');
    expect(both.suspects[0]!.likelihood).to.be.above(dark.suspects[0]!.likelihood);
    expect(both.certain).to.equal(true);
  });

  it('ranks the right third tube first, for every candidate', () => {
    const two = tubes(['ultramarine-blue', 'titanium-white']);
    for (const { id } of candidates) {
      const { suspects } = recall({ known: two, candidates, seen: seen({ 'ultramarine-blue': 1, 'titanium-white': 3, [id]: 1 }) });
      expect(suspects[0]!.id).to.equal(id);
      expect(suspects.reduce((s, x) => s + x.likelihood, 0)).to.be.within(0.5, 1 + 1e-9);
      // One of which nothing was in it is no suspect.
      for (const one of suspects) expect(one.shares[one.id]).to.be.at.least(5e-4);
    }
  });

  for (const [painter, roughly, palette] of [
    ['the painter’s own tubes are not typical', 0, 'twelve, ordinary'],
    ['they are not and it is read roughly', 2, 'twelve, ordinary'],
    ['many of them are alike and it is read roughly', 2, 'sixteen, outdoors'],
  ] as const)
    it(`is hardly ever certain and wrong, though ${painter}`, () => {
      const random = seeded(9);
      const all = tubes(ADVICE_PALETTES[palette]!);
      const any = () => all[1 + Math.floor(random() * (all.length - 1))]!;
      let certain = 0;
      let wrong = 0;
      for (let k = 0; k < 180; k++) {
        const own = new Map(all.map((t) => [t.id, deviate(t, drawDeviation(USUAL_SPREAD, random))]));
        const missing = any();
        const known = [all[0]!, any()].filter((t) => t !== missing);
        const parts = new Map([missing, ...known].map((t) => [t.id, 0.4 + 3 * random()]));
        const look = (white: number): Lab => {
          const portions = [...parts, [all[0]!.id, white] as const].map(([id, n]) => ({ paint: own.get(id)!, parts: n }));
          const [L, a, b] = labOf(reflectance(mixCurves(portions)));
          return [L + roughly * (random() - 0.5), a + roughly * (random() - 0.5), b + roughly * (random() - 0.5)];
        };
        const whole = [...parts.values()].reduce((sum, n) => sum + n, 0);
        const tint = k % 2 ? { tint: { lab: look(9 * whole), white: all[0]!, parts: 9 } } : {};
        const found = recall({ known, candidates: all, seen: look(0), ...tint });
        if (!found.certain) continue;
        certain++;
        if (found.suspects[0]!.id !== missing.id) wrong++;
      }
      expect(certain).to.be.above(30);
      expect(wrong / certain).to.be.at.most(0.03);
    });

  it('says that several explain it as well only where they do', () => {
    const random = seeded(31);
    const twelve = tubes(ADVICE_PALETTES['twelve, ordinary']!);
    let told = 0;
    for (let k = 0; k < 60; k++) {
      const [one, missing] = [twelve[1 + (k % 11)]!, twelve[1 + ((5 * k + 3) % 11)]!];
      if (one === missing) continue;
      const parts = [one, missing].map((t) => ({ paint: t, parts: 0.4 + 2 * random() }));
      const whole = parts.reduce((sum, part) => sum + part.parts, 0);
      const look = (white: number): Lab => labOf(reflectance(mixCurves([...parts, { paint: twelve[0]!, parts: white }])));
      const near = ([L, a, b]: Lab): Lab => [L + random() - 0.5, a + random() - 0.5, b + random() - 0.5];
      const tint = { lab: near(look(9 * whole)), white: twelve[0]!, parts: 9 };
      const { advice, certain, suspects } = recall({ known: [one], candidates: twelve, seen: near(look(0)), tint });
      if (certain || !/equally/.test(advice)) continue;
      told++;
      expect(suspects[1]!.likelihood * 1.5, advice).to.be.at.least(suspects[0]!.likelihood);
      if (/any of them/.test(advice)) expect(suspects[1]!.deltaE00).to.be.at.most(2);
    }
    expect(told, 'it does happen').to.be.above(0);
  });

  it('names no other tube where what is named explains it by itself', () => {
    const both = tubes(['ultramarine-blue', 'titanium-white']);
    const { suspects, certain } = recall({ known: both, candidates, seen: seen({ 'ultramarine-blue': 1, 'titanium-white': 3 }) });
    expect(certain).to.equal(false);
    for (const one of suspects) expect(one.shares[one.id]).to.be.at.least(5e-4);
  });

  it('says so when nothing explains it', () => {
    expect(recall({ known, candidates: tubes(['burnt-umber']), seen: [80, 60, 70] }).advice).to.match(/another tube/);
    expect(() => recall({ known: [], candidates, seen: [50, 0, 0] })).to.throw(/at least one/);
    expect(() => recall({ known, candidates: known, seen: [50, 0, 0] })).to.throw(/at least one/);
  });
});

describe('amounts', () => {
  it('share the pile by parts, weigh by density and squeeze by the nozzle', () => {
    const [white, blue] = amountsFor(
      [
        { parts: 3, density: 2, nozzleMm: 8 },
        { parts: 1, density: 1.4, nozzleMm: 6 },
      ],
      8,
    );
    expect(white!.ml).to.equal(6);
    expect(white!.grams).to.equal(12);
    expect(blue!.grams).to.be.closeTo(2.8, 1e-9);
    expect(blue!.beadMm * Math.PI * 9).to.be.closeTo(2000, 1e-9);
    expect(() => amountsFor([{ parts: 0, density: 1, nozzleMm: 6 }], 4)).to.throw(/part/);
    expect(() => amountsFor([{ parts: 1, density: 1, nozzleMm: 6 }], 0)).to.throw(/ml/);
    expect(() => amountsFor([{ parts: 1, density: 0, nozzleMm: 6 }], 1)).to.throw(/Density/);
  });
});
