import { expect } from 'chai';
import {
  canvasLight,
  compareCanvas,
  CraftError,
  findCanvas,
  flattened,
  fromCanvas,
  labToLinear,
  lightOf,
  photographedCanvas,
  SRGB,
  STANDS,
  type Lab,
  type LightPlane,
  type Pixels,
  type Quad,
} from '../src/index.ts';

const WIDTH = 360;
const HEIGHT = 240;
interface Disc {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly lab: Lab;
  /** Pixels over which its edge goes. */
  readonly soft?: number;
}
const FIELD: Lab = [62, 6, 16];
const THINGS: readonly Disc[] = [
  { x: 70, y: 70, r: 44, lab: [34, 8, -18] },
  { x: 180, y: 90, r: 48, lab: [48, 30, 26] },
  { x: 290, y: 80, r: 44, lab: [78, 2, 8] },
  { x: 110, y: 185, r: 40, lab: [44, -22, 16] },
  { x: 250, y: 180, r: 44, lab: [26, 4, 8] },
];

function plane(discs: readonly Disc[], field = FIELD): LightPlane {
  const rgb = new Float32Array(3 * WIDTH * HEIGHT);
  const ground = labToLinear(SRGB, field);
  const own = discs.map(({ lab }) => labToLinear(SRGB, lab));
  for (let y = 0, i = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, i += 3) {
      let at = ground;
      discs.forEach(({ x: cx, y: cy, r, soft = 1 }, k) => {
        const share = Math.min(1, Math.max(0, (r - Math.hypot(x - cx, y - cy)) / soft + 0.5));
        at = [0, 1, 2].map((c) => at[c]! * (1 - share) + own[k]![c]! * share) as unknown as typeof at;
      });
      for (let c = 0; c < 3; c++) rgb[i + c] = at[c]!;
    }
  return { rgb, width: WIDTH, height: HEIGHT, space: SRGB };
}

const LAMP = 'lamp' as const;
const DAY = 'window' as const;
const QUAD = STANDS;
function compared(wanted: LightPlane, photo: Pixels, corners = QUAD, white?: { x: number; y: number }, meant: number[][] = []) {
  const flat = flattened(photo, corners, WIDTH, HEIGHT);
  const { gains, by } = canvasLight(photo, corners, flat, wanted, white);
  return { by, ...compareCanvas(wanted, lightOf(flat, gains), meant) };
}
const near = (miss: { x: number; y: number }, { x, y, r }: Disc): boolean => Math.hypot(miss.x * WIDTH - x, miss.y * HEIGHT - y) < r;

describe('the canvas held against the reference', () => {
  const wanted = plane(THINGS);
  /** Known errors: one far too light, one of another hue, one a little too dark. */
  const errors = [2, 3, 0] as const;
  const painted = plane(
    THINGS.map((disc, i) =>
      i === 2
        ? { ...disc, lab: [56, 2, 8] as Lab }
        : i === 3
          ? { ...disc, lab: [46, 12, 22] as Lab }
          : i === 0
            ? { ...disc, lab: [42, 8, -18] as Lab }
            : disc,
    ),
  );

  it('is found in its photo, and lies flat whatever the tilt', () => {
    for (const [light, seed] of [
      [LAMP, 1],
      [DAY, 2],
    ] as const) {
      const found = findCanvas(photographedCanvas(painted, { light, paper: true, glare: true, seed }))!;
      found.forEach((v, i) => expect(v, `corner ${i}`).to.be.closeTo(QUAD[i]!, 0.05));
    }
    const [x, y] = fromCanvas(QUAD)(1, 1);
    expect([x, y].map((v) => Number(v.toFixed(6)))).to.deep.equal([0.9, 0.83]);
    expect(() => fromCanvas([0, 0, 0, 1, 1, 1, 1, 0])).to.throw(CraftError);
    const flatWall: Pixels = { data: new Uint8ClampedArray(4 * 100 * 80).fill(120), width: 100, height: 80 };
    expect(findCanvas(flatWall)).to.equal(undefined);
  });

  it('shows its known errors, the largest first, under a lamp or by day, with glare, from white paper beside it', () => {
    for (const light of [LAMP, DAY]) {
      const { misses, by } = compared(wanted, photographedCanvas(painted, { light, paper: true, glare: true, seed: 3 }));
      expect(by).to.equal('found');
      const large = misses.filter(({ share }) => share > 0.02);
      expect(large.map((miss) => THINGS.findIndex((disc) => near(miss, disc)))).to.deep.equal([...errors]);
      expect(large[0]!.compared.value).to.be.closeTo(-2.2, 0.35);
      expect(large[0]!.compared.words[0]).to.match(/darker/);
      expect(large[2]!.compared.words[0]).to.match(/lighter/);
      expect(large[1]!.compared.words.join()).to.match(/warmer/);
    }
  });

  it('of what is as it should be says nothing, also where corners are off by a hair', () => {
    const photo = photographedCanvas(wanted, { light: LAMP, paper: true, glare: false, seed: 4 });
    expect(compared(wanted, photo).misses.filter(({ share }) => share > 0.01)).to.deep.equal([]);
    const hair = QUAD.map((v, i) => v + (i % 2 === 0 ? 0.004 : -0.004)) as unknown as Quad;
    expect(compared(wanted, photo, hair).misses.filter(({ share }) => share > 0.015)).to.deep.equal([]);
  });

  it('takes a white that is given, or the canvas itself where there is none', () => {
    const without = photographedCanvas(painted, { light: LAMP, paper: false, glare: false, seed: 5 });
    const fitted = compared(wanted, without);
    expect(fitted.by).to.equal('fitted');
    expect(near(fitted.misses[0]!, THINGS[2]!)).to.equal(true);
    const given = compared(wanted, photographedCanvas(painted, { light: LAMP, paper: true, glare: false, seed: 6 }), QUAD, {
      x: 40 / 900,
      y: 360 / 700,
    });
    expect(given.by).to.equal('given');
    expect(near(given.misses[0]!, THINGS[2]!)).to.equal(true);
  });

  it('tells edges that are softer or harder', () => {
    const softened = plane(THINGS.map((disc, i) => (i === 4 ? { ...disc, soft: 26 } : disc)));
    const softer = compared(wanted, photographedCanvas(softened, { light: DAY, paper: true, glare: false, seed: 7 })).edges;
    expect(softer.some(({ x, y, is }) => is === 'softer' && Math.abs(Math.hypot(x * WIDTH - 250, y * HEIGHT - 180) - 44) < 22)).to.equal(
      true,
    );
    const harder = compared(softened, photographedCanvas(wanted, { light: DAY, paper: true, glare: false, seed: 8 })).edges;
    expect(harder.some(({ x, y, is }) => is === 'harder' && Math.abs(Math.hypot(x * WIDTH - 250, y * HEIGHT - 180) - 44) < 22)).to.equal(
      true,
    );
  });

  it('leaves be what is meant so: it comes last, and is told to be so', () => {
    const { x, y, r } = THINGS[2]!;
    const box = [x - r, y - r, x + r, y - r, x + r, y + r, x - r, y + r].map((v, i) => v / (i % 2 === 0 ? WIDTH : HEIGHT));
    const { misses } = compared(wanted, photographedCanvas(painted, { light: DAY, paper: true, glare: false, seed: 9 }), QUAD, undefined, [
      box,
    ]);
    const meant = misses.filter(({ isMeant }) => isMeant);
    expect(meant.some((miss) => near(miss, THINGS[2]!))).to.equal(true);
    expect(near(misses[0]!, THINGS[3]!)).to.equal(true);
    expect(misses.findIndex(({ isMeant }) => isMeant)).to.be.at.least(misses.filter(({ isMeant }) => !isMeant).length);
  });
});
