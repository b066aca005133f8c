import { expect } from 'chai';
import fc from 'fast-check';
import {
  atOnce,
  bestBounds,
  CraftError,
  deltaE00,
  dressed,
  drawServing,
  labToLinear,
  lightnessOfValue,
  lightOf,
  linearToLab,
  partsByShapes,
  partsBySteps,
  proposeInSteps,
  rangeSaid,
  servesAs,
  SRGB,
  studyInSteps,
  valueOfLightness,
  valueSteps,
  withTrial,
  toBytes,
  type Lab,
  type LightPlane,
  type Pixels,
} from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { runs } from './runs.ts';

interface Material {
  readonly lab: Lab;
  /** A disc or, without one, the whole. */
  readonly disc?: { readonly x: number; readonly y: number; readonly r: number };
}
const WIDTH = 360;
const HEIGHT = 240;

/** A picture of known materials, later ones before earlier ones: lit from the left, with grain, its edges a little soft. */
function rendered(materials: readonly Material[], seed: number, shading = 0.15): { picture: Pixels; shares: number[] } {
  const random = seeded(seed);
  const own = new Uint8Array(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      own[y * WIDTH + x] = materials.findLastIndex(({ disc }) => !disc || Math.hypot(x - disc.x, y - disc.y) < disc.r);
  const light = materials.map(({ lab }) => labToLinear(SRGB, lab));
  const sharp = new Float32Array(3 * own.length);
  for (let i = 0; i < own.length; i++) {
    const lit = 1 + shading * (0.5 - (i % WIDTH) / WIDTH);
    for (let c = 0; c < 3; c++) sharp[3 * i + c] = light[own[i]!]![c]! * lit + 0.01 * (random() - 0.5) * light[own[i]!]![c]!;
  }
  const rgb = sharp.slice();
  for (let y = 1; y < HEIGHT - 1; y++)
    for (let x = 1; x < WIDTH - 1; x++)
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (const [dx, dy] of [
          [-1, 0],
          [1, 0],
          [0, -1],
          [0, 1],
          [0, 0],
        ] as const)
          sum += sharp[3 * ((y + dy) * WIDTH + x + dx) + c]!;
        rgb[3 * (y * WIDTH + x) + c] = sum / 5;
      }
  const plane: LightPlane = { rgb, width: WIDTH, height: HEIGHT, space: SRGB };
  const shares = materials.map((_, k) => own.reduce((n, at) => n + (at === k ? 1 : 0), 0) / own.length);
  return { picture: { data: toBytes(plane), width: WIDTH, height: HEIGHT }, shares };
}

/** Colours that are apart, all within the screen. */
function apartColours(random: () => number, count: number): Lab[] {
  const list: Lab[] = [];
  while (list.length < count) {
    const lab: Lab = [22 + 65 * random(), 50 * (random() - 0.5), 55 * (random() - 0.5)];
    const inside = labToLinear(SRGB, lab).every((v) => v > 0.004 && v < 0.9);
    if (inside && list.every((other) => deltaE00(lab, other) > 14)) list.push(lab);
  }
  return list;
}

/** A field, four things and an accent of a hundredth. */
function scene(seed: number): { materials: Material[]; accent: Lab } {
  const random = seeded(seed);
  const [field, ...things] = apartColours(random, 5);
  const red: Lab = [46, 62, 38];
  const accent = [field!, ...things].every((lab) => deltaE00(lab, red) > 20) ? red : ([80, 5, 70] as Lab);
  const at = (i: number): { x: number; y: number } => ({ x: 60 + 79 * i + 8 * random(), y: (i % 2 === 0 ? 75 : 160) + 8 * random() });
  return {
    materials: [
      { lab: field! },
      ...things.map((lab, i) => ({ lab, disc: { ...at(i), r: 41 + 9 * random() } })),
      { lab: accent, disc: { x: 180 + 15 * random(), y: 214, r: Math.sqrt((0.01 * WIDTH * HEIGHT) / Math.PI) } },
    ],
    accent,
  };
}

describe('colours that are proposed', () => {
  it('are every large material of a scene and an accent of a hundredth of it, whatever the scene', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const { materials, accent } = scene(seed);
        const { picture, shares } = rendered(materials, seed);
        const found = atOnce(proposeInSteps(picture));
        for (const [i, { lab }] of materials.entries())
          if (shares[i]! > 0.04 || lab === accent)
            expect(Math.min(...found.map((one) => deltaE00(one.lab, lab))), `material ${i} of scene ${seed}`).to.be.below(6);
      }),
      { numRuns: runs(15) },
    );
  });

  it('come with the darkest and the lightest, lie where they are told to, dark to light, and are the same each time', () => {
    const { materials } = scene(7);
    const dark: Material = { lab: [8, 1, 1], disc: { x: 22, y: 218, r: 11 } };
    const light: Material = { lab: [95, 0, 2], disc: { x: 338, y: 218, r: 11 } };
    const { picture } = rendered([...materials, dark, light], 7);
    const found = atOnce(proposeInSteps(picture));
    expect(atOnce(proposeInSteps(picture))).to.deep.equal(found);
    expect(found[0]!.as).to.equal('darkest');
    expect(found.at(-1)!.as).to.equal('lightest');
    expect(Math.hypot(found[0]!.outline.x - 22, found[0]!.outline.y - 218)).to.be.below(11);
    expect(found.map(({ lab }) => lab[0])).to.deep.equal(found.map(({ lab }) => lab[0]).sort((a, b) => a - b));
    for (const { outline } of found) expect(outline.radius).to.be.within(0.5, 0.05 * WIDTH);
  });

  it('are no more than are asked for, and of a flat picture one', () => {
    const { picture } = rendered(scene(3).materials, 3);
    for (const most of [2, 4, 9])
      expect(atOnce(proposeInSteps(picture, undefined, most)).filter(({ as }) => as === 'colour' || as === 'accent').length).to.be.at.most(
        most,
      );
    const flat = rendered([{ lab: [60, 5, 5] }], 1, 0).picture;
    expect(atOnce(proposeInSteps(flat))).to.have.length(1);
    for (const most of [1, 13, 2.5, NaN]) expect(() => atOnce(proposeInSteps(flat, undefined, most))).to.throw(CraftError);
    const dot: Pixels = { data: new Uint8ClampedArray([1, 2, 3, 255]), width: 1, height: 1 };
    expect(atOnce(proposeInSteps(dot))).to.have.length.at.most(2);
  });
});

const grey = (value: number): Lab => [lightnessOfValue(value), 0, 0];

describe('a value study', () => {
  const dark: Material = { lab: grey(2), disc: { x: 110, y: 120, r: 70 } };
  const light: Material = { lab: grey(8), disc: { x: 120, y: 120, r: 30 } };
  const speck: Material = { lab: grey(8.2), disc: { x: 320, y: 60, r: 4 } };

  it('is a few shapes with clean borders, what lies within another after it, and nothing of what is too small', () => {
    const { picture } = rendered([{ lab: grey(5) }, dark, light, speck], 4, 0.05);
    const { bounds, shapes } = atOnce(studyInSteps(picture, undefined, 3));
    expect(bounds[0]).to.be.within(2.4, 4.6);
    expect(bounds[1]).to.be.within(5.4, 7.6);
    expect(shapes.map(({ step }) => step)).to.deep.equal([1, 0, 2]);
    for (const { points } of shapes) expect(points.length / 2).to.be.within(3, 60);
    const [w, h] = [WIDTH, HEIGHT];
    const parts = partsByShapes(
      lightOf(picture),
      shapes.map(({ points }) => points.map((v, i) => v * (i % 2 === 0 ? w : h))),
    );
    let wrong = 0;
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const from = (disc: NonNullable<Material['disc']>): boolean => Math.hypot(x - disc.x, y - disc.y) < disc.r;
        const step = from(light.disc!) ? 2 : from(dark.disc!) ? 0 : 1;
        const part = parts[y * w + x]!;
        if (part === 0 || shapes[part - 1]!.step !== step) wrong++;
      }
    expect(wrong / (w * h)).to.be.below(0.015);
  });

  it('of whatever picture covers it, in no more values than are asked for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 5 }), (seed, values) => {
        const { picture } = rendered(scene(seed).materials, seed, 0.4);
        const { bounds, shapes } = atOnce(studyInSteps(picture, undefined, values));
        expect(bounds).to.have.length(values - 1);
        expect([...bounds].sort((a, b) => a - b)).to.deep.equal(bounds);
        expect(shapes.reduce((sum, { share }) => sum + share, 0)).to.be.closeTo(1, 1e-6);
        for (const { points, share } of shapes) {
          expect(share).to.be.at.least(0.008);
          expect(points.every((v) => v >= 0 && v <= 1)).to.equal(true);
        }
      }),
      { numRuns: runs(6) },
    );
    expect(() => atOnce(studyInSteps(rendered([{ lab: grey(5) }], 1).picture, undefined, 6))).to.throw(CraftError);
    expect(bestBounds(new Float32Array(100).fill(4), 3)).to.have.length(2);
  });
});

describe('a picture in one’s own piles', () => {
  const { picture } = rendered([{ lab: grey(3) }, { lab: grey(7), disc: { x: 180, y: 120, r: 80 } }], 2, 0);
  const plane = lightOf(picture);

  it('has in each step its pile, the mean of what it has, or nothing yet', () => {
    const parts = partsBySteps(plane, [5]);
    const { bytes, shares, means } = dressed(plane, parts, [[30, 20, -20], undefined]);
    expect(shares[0]! + shares[1]!).to.be.closeTo(1, 1e-9);
    expect(means[0]![0]).to.be.closeTo(lightnessOfValue(3), 1);
    expect(means[1]![0]).to.be.closeTo(lightnessOfValue(7), 1);
    const corner = [...bytes.slice(0, 3)];
    const light = labToLinear(SRGB, [30, 20, -20]);
    const byte = (v: number): number => Math.round(255 * (1.055 * v ** (1 / 2.4) - 0.055));
    corner.forEach((v, c) => expect(v).to.be.closeTo(byte(light[c]!), 1));
    const middle = 4 * (120 * WIDTH + 180);
    expect(bytes[middle]).to.equal(bytes[middle + 1]);
    const asIs = dressed(plane, parts, ['mean', 'mean']).bytes;
    expect(asIs[middle]).to.be.above(asIs[0]!);
  });

  it('by shapes has later ones over earlier ones', () => {
    const square = (from: number, to: number): number[] => [from, from, to, from, to, to, from, to];
    const parts = partsByShapes(plane, [square(10, 100), square(50, 60)]);
    expect([parts[0], parts[20 * WIDTH + 20], parts[55 * WIDTH + 55]]).to.deep.equal([0, 1, 2]);
    expect(() =>
      partsByShapes(
        plane,
        Array.from({ length: 61 }, () => square(1, 2)),
      ),
    ).to.throw(CraftError);
  });
});

describe('what a pile serves', () => {
  it('is what looks like it, and a step off what is lighter or darker of its hue', () => {
    expect(servesAs([50, 10, 10], [51, 10, 11])).to.equal('as it is');
    expect(servesAs([50, 10, 10], [60, 10, 11])).to.equal('a step off');
    expect(servesAs([50, 10, 10], [75, 10, 11])).to.equal('not');
    expect(servesAs([50, 10, 10], [50, -20, 10])).to.equal('not');
  });

  it('is shown as a stroke round it over the picture', () => {
    const disc = { x: 180, y: 120, r: 60 };
    const { picture, shares } = rendered([{ lab: [50, 0, -30] }, { lab: [60, 30, 30], disc }], 2, 0);
    const looked = drawServing(lightOf(picture), [60, 30, 30]);
    expect(looked.shares[0]).to.be.closeTo(shares[1]!, 0.01);
    const at = (x: number, y: number): number[] => [...looked.bytes.slice(4 * (y * WIDTH + x), 4 * (y * WIDTH + x) + 3)];
    const [r, , b] = at(180, 120);
    expect(r! - b!).to.be.above(40);
    expect(new Set(at(20, 20)).size).to.equal(1);
    // Grain is looked past: of a noisy picture it is the same place, not a sieve of it.
    const random = seeded(5);
    const data = picture.data.map((v, i) => (i % 4 === 3 ? v : v + 44 * (random() - 0.5)));
    expect(drawServing(lightOf({ ...picture, data }), [60, 30, 30]).shares[0]).to.be.closeTo(shares[1]!, 0.015);
    const row = Array.from({ length: 30 }, (_, i) => at(disc.x - disc.r - 10 + i, 120));
    expect(row.some((colour) => colour.every((v) => v === 255))).to.equal(true);
  });
});

describe('the ends of a picture', () => {
  const paint = { darkest: 1.2, lightest: 9.6 };
  const glints = { share: 0.001, size: 1, across: 1, cells: new Uint8Array(1) };
  it('say that there is no true dark, and that the range is used up before the highlights', () => {
    expect(rangeSaid({ darkest: 3, lightest: 8 }, paint, glints, undefined)).to.deep.equal({
      noTrueDark: true,
      isUsedUp: false,
      noTrueLight: false,
    });
    expect(rangeSaid({ darkest: 1, lightest: 9.5 }, paint, glints, undefined)).to.deep.equal({
      noTrueDark: false,
      isUsedUp: true,
      noTrueLight: false,
    });
    expect(rangeSaid({ darkest: 1, lightest: 9.5 }, paint, undefined, undefined).isUsedUp).to.equal(false);
    expect(rangeSaid({ darkest: 1, lightest: 6 }, paint, glints, undefined).noTrueLight).to.equal(true);
  });
});

describe('a trial', () => {
  const { picture } = rendered([{ lab: grey(5) }, { lab: [40, 30, 20], disc: { x: 100, y: 120, r: 50 } }], 3, 0);
  const plane = lightOf(picture);
  const round = (x: number, y: number, r: number): number[] =>
    Array.from({ length: 24 }, (_, i) => [x + r * Math.cos((i / 12) * Math.PI), y + r * Math.sin((i / 12) * Math.PI)]).flat();
  const labIn = ({ rgb }: LightPlane, x: number, y: number): Lab => {
    const at = 3 * (y * WIDTH + x);
    return linearToLab(SRGB, rgb[at]!, rgb[at + 1]!, rgb[at + 2]!);
  };
  const points = round(100, 120, 54);

  it('takes another colour, or fades from one to another; the rest and the picture stay', () => {
    const before = plane.rgb.slice();
    const flat = withTrial(plane, [{ points, to: [70, 0, -20] }]);
    expect(deltaE00(labIn(flat, 100, 120), [70, 0, -20])).to.be.below(0.1);
    expect(labIn(flat, 300, 200)).to.deep.equal(labIn(plane, 300, 200));
    const fading = withTrial(plane, [{ points, to: [80, 0, 0], fades: [20, 0, 0] }]);
    const [top, middle, foot] = [72, 120, 168].map((y) => labIn(fading, 100, y)[0]);
    expect(top! - middle!).to.be.closeTo(middle! - foot!, 2);
    expect(plane.rgb).to.deep.equal(before);
  });

  it('is lighter or darker by so many values, with its own drawing', () => {
    for (const lighter of [-1.5, 1, 2]) {
      const tried = withTrial(plane, [{ points, lighter }]);
      const value = (of: LightPlane): number => valueOfLightness(labIn(of, 100, 120)[0]);
      expect(value(tried) - value(plane)).to.be.closeTo(lighter, 0.05);
    }
    expect(() => withTrial(plane, [{ points, lighter: 9 }])).to.throw(CraftError);
    expect(() =>
      withTrial(
        plane,
        Array.from({ length: 13 }, () => ({ points })),
      ),
    ).to.throw(CraftError);
  });

  it('moves a shape, and closes where it was from what lies round it', () => {
    const tried = withTrial(plane, [{ points, move: [150, 10] }]);
    expect(deltaE00(labIn(tried, 250, 130), labIn(plane, 100, 120))).to.be.below(0.5);
    expect(deltaE00(labIn(tried, 80, 120), grey(5))).to.be.below(2);
    // Half of it beyond the edge.
    expect(() => withTrial(plane, [{ points, move: [-90, 0] }])).to.not.throw();
  });

  it('changes what a value plan says of the picture', () => {
    const range = { darkest: 1, lightest: 9 };
    const dark = (of: LightPlane): number => valueSteps(of, [4.4], range).shares[0]!;
    expect(dark(withTrial(plane, [{ points, lighter: 4 }]))).to.be.below(dark(plane) - 0.05);
  });
});
