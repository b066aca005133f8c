import { expect } from 'chai';
import { converter } from 'culori';
import fc from 'fast-check';
import {
  CATALOGUE,
  cropTo,
  deltaE76,
  DISPLAY_P3,
  frameOf,
  gainsOf,
  hexToLab,
  labToLch,
  contrastsOf,
  layKey,
  layPalette,
  lightOf,
  linearToLab,
  paintRange,
  readArea,
  readProfile,
  through,
  throughKey,
  toBytes,
  turnedCrop,
  valueOfLightness,
  type KeyEnds,
  type KeyPlan,
  type Lab,
} from '../src/index.ts';
import { ADOBE_GAMMA, ADOBE_RGB, matrixProfile, picture, PROPHOTO } from './pictures.ts';

const lab65 = converter('lab65');
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const laid = (pigments: readonly string[]) => layPalette(pigments.map((id) => ({ id, K: CATALOGUE.get(id)!.K, S: CATALOGUE.get(id)!.S })));

describe('an embedded profile', () => {
  it('of primaries and a gamma is honoured (Adobe RGB), near and beyond what sRGB holds', () => {
    const profile = readProfile(matrixProfile(ADOBE_RGB, ADOBE_GAMMA));
    expect(profile.kind).to.equal('matrix');
    if (profile.kind !== 'matrix') return;
    for (const [r, g, b] of [
      [0.8, 0.4, 0.2],
      [0, 1, 0],
      [0.1, 0.7, 0.9],
      [1, 1, 1],
    ] as const) {
      const { l, a, b: bb } = lab65({ mode: 'a98', r, g, b });
      const { curves: c } = profile.space;
      expect(deltaE76(linearToLab(profile.space, c[0](r), c[1](g), c[2](b)), [l, a, bb]), `${r} ${g} ${b}`).to.be.below(0.35);
    }
  });

  it('with a toe is honoured (ProPhoto)', () => {
    const profile = readProfile(matrixProfile(PROPHOTO, [1.8, 1, 0, 1 / 16, 1 / 32]));
    if (profile.kind !== 'matrix') throw new Error('no matrix');
    for (const [r, g, b] of [
      [0.5, 0.4, 0.3],
      [0.7, 0.5, 0.2],
      [0.01, 0.02, 0.015],
    ] as const) {
      const { l, a, b: bb } = lab65({ mode: 'prophoto', r, g, b });
      const { curves: c } = profile.space;
      expect(deltaE76(linearToLab(profile.space, c[0](r), c[1](g), c[2](b)), [l, a, bb])).to.be.below(0.6);
    }
  });

  it('that is broken is refused in a sentence', () => {
    const whole = matrixProfile(ADOBE_RGB, ADOBE_GAMMA);
    for (const bytes of [new Uint8Array(0), new Uint8Array(200), whole.subarray(0, 150), whole.subarray(0, whole.length - 10)])
      expect(() => readProfile(bytes)).to.throw(/profile in this picture cannot be read/);
    fc.assert(
      fc.property(fc.nat({ max: whole.length - 1 }), fc.nat({ max: 255 }), (at, byte) => {
        const bent = Uint8Array.from(whole);
        bent[at] = byte;
        try {
          readProfile(bent);
        } catch (error) {
          expect((error as Error).name).to.equal('CraftError');
        }
      }),
    );
  });
});

describe('the light of a photo', () => {
  it('is put right by what is known to be without hue: it comes out neutral, as light as before', () => {
    fc.assert(
      fc.property(within(0.2, 0.9), within(0.2, 0.9), within(0.2, 0.9), (r, g, b) => {
        const seen = linearToLab(DISPLAY_P3, r, g, b);
        const [gr, gg, gb] = gainsOf({ neutral: seen }, DISPLAY_P3);
        const [L, a, bb] = linearToLab(DISPLAY_P3, gr * r, gg * g, gb * b);
        expect(Math.hypot(a, bb)).to.be.below(1e-6);
        expect(L).to.be.closeTo(seen[0], 1e-6);
      }),
    );
  });
  it('is put right by its temperature: lamplight cooled, shade warmed, daylight left alone', () => {
    const grey = (kelvin: number) =>
      linearToLab(DISPLAY_P3, ...(gainsOf({ kelvin }, DISPLAY_P3).map((v) => 0.3 * v) as [number, number, number]));
    expect(grey(2856)[2]).to.be.below(-20);
    expect(grey(10_000)[2]).to.be.above(8);
    expect(labToLch(grey(6504))[1]).to.be.below(0.7);
  });
  it('goes by stops, and is refused where a place tells nothing', () => {
    expect(gainsOf({ exposure: 1 })).to.deep.equal([2, 2, 2]);
    expect(() => gainsOf({ neutral: [1, 0, 0] })).to.throw(/too dark/);
    expect(() => gainsOf({ kelvin: 100 })).to.throw(/within 1700/);
    expect(() => gainsOf({ exposure: NaN })).to.throw(/must be a number/);
  });
});

describe('how a picture is cut and turned', () => {
  const shape = fc.record({
    turn: fc.integer({ min: -4, max: 7 }),
    straighten: within(-45, 45),
    mirror: fc.boolean(),
    crop: fc.tuple(within(0, 0.6), within(0, 0.6)).map(([x, y]) => ({ x, y, width: 0.4, height: 0.35 })),
  });
  it('goes there and back, whatever is done', () => {
    fc.assert(
      fc.property(shape, within(0, 400), within(0, 300), (how, x, y) => {
        const { toFrame, toPicture } = frameOf(how, 400, 300);
        const [bx, by] = through(toPicture, ...through(toFrame, x, y));
        expect(Math.hypot(bx - x, by - y)).to.be.below(1e-6);
      }),
    );
  });
  it('never shows a bare corner', () => {
    fc.assert(
      fc.property(shape, (how) => {
        const { width, height, toPicture } = frameOf(how, 400, 300);
        for (const [x, y] of [
          [0, 0],
          [width, 0],
          [0, height],
          [width, height],
        ] as const) {
          const [px, py] = through(toPicture, x, y);
          expect(px).to.be.within(-1e-6, 400 + 1e-6);
          expect(py).to.be.within(-1e-6, 300 + 1e-6);
        }
      }),
    );
  });
  it('turns clockwise and mirrors left and right', () => {
    const turned = frameOf({ turn: 1 }, 400, 300);
    expect([turned.width, turned.height]).to.deep.equal([300, 400]);
    expect(through(turned.toFrame, 0, 0).map(Math.round)).to.deep.equal([300, 0]);
    expect(through(frameOf({ mirror: true }, 400, 300).toFrame, 10, 20).map(Math.round)).to.deep.equal([390, 20]);
    // What is seen of a crop is the same piece, mirrored or not.
    const crop = { x: 0.1, y: 0, width: 0.25, height: 1 };
    expect(through(frameOf({ mirror: true, crop }, 400, 300).toFrame, 40, 20).map(Math.round)).to.deep.equal([100, 20]);
  });
  it('takes a crop along when it is turned: the same piece is seen', () => {
    const crops = fc.record({ x: within(0, 0.5), y: within(0, 0.5), width: within(0.1, 0.5), height: within(0.1, 0.5) });
    fc.assert(
      fc.property(crops, fc.integer({ min: 0, max: 3 }), fc.constantFrom(1 as const, -1 as const), (crop, turn, by) => {
        const [was, now] = [frameOf({ turn, crop }, 400, 300), frameOf({ turn: turn + by, crop: turnedCrop(crop, by) }, 400, 300)];
        expect([now.width, now.height].map((v) => v.toFixed(6))).to.deep.equal([was.height, was.width].map((v) => v.toFixed(6)));
        const middle = (frame: typeof was) => through(frame.toPicture, frame.width / 2, frame.height / 2);
        expect(Math.hypot(middle(was)[0] - middle(now)[0], middle(was)[1] - middle(now)[1])).to.be.below(1e-6);
      }),
    );
  });
  it('is cut to a canvas as large as can be, within the picture', () => {
    fc.assert(
      fc.property(within(0.2, 5), within(0, 1), within(0, 1), (ratio, x, y) => {
        const crop = cropTo(ratio, 400, 300, { x, y });
        expect((crop.width * 400) / (crop.height * 300)).to.be.closeTo(ratio, 1e-9);
        expect(Math.max(crop.width, crop.height)).to.be.closeTo(1, 1e-9);
        frameOf({ crop }, 400, 300);
      }),
    );
    expect(() => frameOf({ crop: { x: 0.8, y: 0, width: 0.5, height: 1 } }, 400, 300)).to.throw(/within it/);
    expect(() => frameOf({ straighten: 60 }, 400, 300)).to.throw(/straightened/);
  });
});

describe('the key', () => {
  const ends: KeyEnds = { seen: { darkest: 0.4, lightest: 9.7 }, paint: { darkest: 1.3, lightest: 9.5 } };
  const plans: fc.Arbitrary<KeyPlan> = fc.oneof(
    within(0, 2).map((held) => ({ kind: 'fitted' as const, held })),
    fc.tuple(within(0, 10), within(0, 10), within(0, 2)).map(([from, to, held]) => ({ kind: 'moved' as const, from, to, held })),
  );
  it('never lets a lighter thing be painted darker, nor anything beyond what paint can do', () => {
    fc.assert(
      fc.property(plans, within(0, 10), within(0, 10), (plan, one, other) => {
        const { valueOf } = layKey(plan, ends);
        const [low, high] = [Math.min(one, other), Math.max(one, other)];
        expect(valueOf(low)).to.be.at.most(valueOf(high) + 1e-9);
        for (const v of [valueOf(low), valueOf(high)]) expect(v).to.be.within(1.3 - 1e-9, 9.5 + 1e-9);
      }),
    );
  });
  it('puts the darkest on the palette’s darkest, and holds white back for the highlights', () => {
    const { valueOf } = layKey({ kind: 'fitted', held: 0.5 }, ends);
    expect(valueOf(0.4)).to.be.closeTo(1.3, 1e-9);
    expect(valueOf(9.7)).to.be.closeTo(9, 1e-9);
    expect(valueOf(10)).to.be.closeTo(9.5, 1e-9);
  });
  it('is straight between the ends, whatever is held back of either', () => {
    const range = fc.tuple(within(0, 4), within(5, 10));
    fc.assert(
      fc.property(range, within(0, 2), within(0, 2), within(0, 1), ([darkest, lightest], held, heldDark, t) => {
        const seen = { darkest, lightest };
        const { valueOf } = layKey({ kind: 'fitted', held, heldDark }, { seen, brightest: lightest, paint: ends.paint });
        expect(valueOf(darkest)).to.be.closeTo(1.3 + heldDark, 1e-9);
        expect(valueOf(lightest)).to.be.closeTo(9.5 - held, 1e-9);
        expect(valueOf(darkest + t * (lightest - darkest))).to.be.closeTo(1.3 + heldDark + t * (8.2 - held - heldDark), 1e-9);
      }),
    );
    const whole = layKey({ kind: 'fitted', held: 0.5 }, { seen: { darkest: 0, lightest: 10 }, paint: { darkest: 1.4, lightest: 9.6 } });
    expect(whole.valueOf(4.9)).to.be.closeTo(5.17, 0.05);
    expect(whole.valueOf(7.4)).to.be.closeTo(7.1, 0.05);
  });
  it('keeps a value that was picked to stay, and what is round it', () => {
    const { valueOf } = layKey({ kind: 'moved', from: 5, to: 5, held: 0.5 }, { seen: { darkest: 0, lightest: 10 }, paint: ends.paint });
    for (const [seen, painted] of [
      [2, 2.8],
      [5, 5],
      [9, 8.2],
    ] as const)
      expect(valueOf(seen)).to.be.closeTo(painted, 0.3);
  });
  it('lets lamps glow over a scene without light', () => {
    fc.assert(
      fc.property(within(4, 7), within(0, 1.5), (lightest, held) => {
        const night = layKey({ kind: 'fitted', held }, { seen: { darkest: 0.3, lightest }, brightest: 9.8, paint: ends.paint });
        const [thing, lamp] = [night.valueOf(lightest + 0.1), night.valueOf(9.5)];
        expect(lamp - thing, 'the glow').to.be.above(0.6 * (9.4 - lightest));
      }),
    );
    // Without a lamp the lightest thing is as light as is wanted.
    const fog = layKey({ kind: 'fitted', held: 0.5 }, { seen: { darkest: 4, lightest: 7 }, brightest: 7, paint: ends.paint });
    expect(fog.valueOf(7)).to.be.closeTo(9, 1e-9);
  });
  it('brings what was picked where it was wanted', () => {
    // Low or high takes the rest with it: a mist stays a mist, and what is left alone stays as it is.
    const mist = { seen: { darkest: 3.4, lightest: 6.9 }, brightest: 6.9, paint: { darkest: 0.5, lightest: 9.7 } };
    const left = layKey({ kind: 'moved', from: 5, to: 5, held: 0.5 }, mist);
    for (const value of [3.5, 4.2, 5, 6.1, 6.8]) expect(left.valueOf(value)).to.be.closeTo(value, 1e-6);
    expect(contrastsOf(left)).to.satisfy((all: number[]) => all.every((by) => Math.abs(by - 1) < 1e-6));
    const low = layKey({ kind: 'moved', from: 5, to: 3, held: 0.5 }, mist);
    expect(low.valueOf(6) - low.valueOf(5)).to.be.closeTo(1, 0.05);
    expect(contrastsOf(layKey({ kind: 'fitted', held: 0.5 }, mist))[0]).to.be.closeTo((9.2 - 0.5) / 3.5, 1e-6);
    expect(contrastsOf(layKey({ kind: 'as it is' }, mist))).to.deep.equal([1]);
    expect(layKey({ kind: 'moved', from: 5, to: 3, held: 0.5 }, ends).valueOf(5)).to.be.closeTo(3, 1e-9);
  });
  it('changes nothing as it is; else it makes light less at the same hue', () => {
    const lab: Lab = [60, 20, -30];
    expect(throughKey(layKey({ kind: 'as it is' }, ends), lab)).to.equal(lab);
    const painted = throughKey(layKey({ kind: 'moved', from: valueOfLightness(60), to: 3, held: 0 }, ends), lab);
    expect(valueOfLightness(painted[0])).to.be.closeTo(3, 1e-6);
    expect(labToLch(painted)[2]).to.be.closeTo(labToLch(lab)[2], 1e-6);
    expect(labToLch(painted)[1]).to.be.below(labToLch(lab)[1]);
  });
  it('does the same to a picture as to a colour', () => {
    const key = layKey({ kind: 'fitted', held: 0.5 }, ends);
    const flat = picture(8, 8, () => [0x8a, 0x6b, 0x4f]);
    const shown = readArea({ data: toBytes(lightOf(flat, [1, 1, 1], key)), width: 8, height: 8 }, 4, 4, 3).lab;
    expect(deltaE76(shown, throughKey(key, hexToLab('#8a6b4f')))).to.be.below(0.7);
  });
  it('knows the ends of a palette', () => {
    const { darkest, lightest } = paintRange(laid(['titanium-white', 'ultramarine-blue', 'burnt-umber']));
    expect(darkest).to.be.below(1.2);
    expect(lightest).to.be.above(9.4);
  });
});
