import { expect } from 'chai';
import { runs } from './runs.ts';
import fc from 'fast-check';
import {
  asCameraSees,
  assigned,
  CATALOGUE,
  deltaE00,
  labOf,
  matchPalette,
  mixCurves,
  photographed,
  readPalettePhoto,
  reflectance,
  type Lab,
  type PaletteScene,
} from '../src/index.ts';
import { seeded } from '../src/random.ts';

/** Piles as a painter lays them out: mixtures of a few tubes, none like another. */
function laidOut(n: number, seed: number): Lab[] {
  const random = seeded(seed);
  const tubes = [
    'titanium-white',
    'yellow-ochre',
    'cadmium-red',
    'ultramarine-blue',
    'burnt-umber',
    'viridian',
    'quinacridone-rose',
  ] as const;
  const piles: Lab[] = [];
  while (piles.length < n) {
    const parts = tubes.map((slug) => ({ paint: CATALOGUE.get(slug)!, parts: random() < 0.5 ? 0 : random() ** 2 }));
    if (!parts.some(({ parts: some }) => some > 0)) continue;
    const lab = labOf(reflectance(mixCurves(parts)));
    if (piles.every((other) => deltaE00(other, lab) > 6)) piles.push(lab);
  }
  return piles;
}

const SURFACES: readonly Lab[] = [
  [62, 1, 4],
  [38, 8, 16],
  [86, 0, 3],
];
const sceneOf = (seed: number, more: Partial<PaletteScene> = {}): PaletteScene => ({
  piles: laidOut(6 + (seed % 9), seed),
  surface: SURFACES[seed % SURFACES.length]!,
  light: seed % 2 === 0 ? 'window' : 'lamp',
  tilt: (seed % 4) / 3,
  glare: (seed % 3) / 2,
  seed,
  ...more,
});

describe('a photo of a palette', () => {
  it('has its piles found, matched and read, under window and lamp, tilted, with glints', () => {
    let [there, found, matched, wrong] = [0, 0, 0, 0];
    const beyond: number[] = [];
    for (let seed = 1; seed <= runs(4); seed++) {
      const scene = sceneOf(seed);
      const { paint } = readPalettePhoto(photographed(scene));
      const { matches } = matchPalette(
        paint,
        scene.piles.map((lab, i) => ({ id: String(i), lab })),
      );
      there += scene.piles.length;
      found += Math.min(paint.length, scene.piles.length);
      for (const { id, paint: one } of matches) {
        const truly = scene.piles[Number(id)]!;
        const off = deltaE00(one.lab, asCameraSees(truly, scene));
        beyond.push(off);
        if (off > 6) wrong++;
        else matched++;
      }
    }
    expect(found / there, 'found').to.be.at.least(0.95);
    expect(matched / there, 'matched').to.be.at.least(0.95);
    expect(wrong, 'taken for another').to.be.at.most(there * 0.02);
    const sorted = [...beyond].sort((a, b) => a - b);
    expect(sorted[Math.floor(sorted.length / 2)]!, 'beyond the camera, median').to.be.below(1);
    expect(sorted[Math.floor(sorted.length * 0.95)]!, 'beyond the camera, 95 of 100').to.be.below(2);
  });

  it('tells what is no pile, and which piles are not in it', () => {
    const scene = sceneOf(2);
    const [first, ...rest] = scene.piles;
    const { paint } = readPalettePhoto(photographed(scene));
    const gone: Lab = [52, -60, 40];
    const { unknown, missing } = matchPalette(paint, [...rest.map((lab, i) => ({ id: String(i + 1), lab })), { id: 'gone', lab: gone }]);
    expect(missing).to.deep.equal(['gone']);
    expect(unknown).to.have.length(1);
    expect(deltaE00(unknown[0]!.lab, asCameraSees(first!, scene))).to.be.below(4);
  });

  it('says in a sentence what it cannot be read for', () => {
    const scene = sceneOf(3);
    const flat = (value: number, width = 400) => ({ data: new Uint8ClampedArray(4 * width * 300).fill(value), width, height: 300 });
    expect(() => readPalettePhoto(photographed({ ...scene, paper: false, surface: [30, 5, 8], piles: [[35, 40, 20]] }))).to.throw(
      'white paper',
    );
    expect(() => readPalettePhoto(flat(255))).to.throw('glare');
    expect(() => readPalettePhoto(flat(0))).to.throw('dark');
    expect(() => readPalettePhoto(flat(120))).to.throw('paint');
    expect(() => readPalettePhoto(flat(120, 40))).to.throw('too small');
    const random = seeded(7);
    const noise = { data: Uint8ClampedArray.from({ length: 4 * 400 * 300 }, () => 10 + 230 * random()), width: 400, height: 300 };
    expect(() => readPalettePhoto(noise)).to.throw(/palette|paint|paper/);
  });

  it('gives each its own, as cheaply as can be', () => {
    const costs = fc.integer({ min: 1, max: 5 }).chain((n) =>
      fc.array(fc.array(fc.double({ min: 0, max: 50, noNaN: true }), { minLength: n + 1, maxLength: n + 1 }), {
        minLength: n,
        maxLength: n,
      }),
    );
    const cheapest = (cost: readonly (readonly number[])[], row = 0, taken = new Set<number>()): number => {
      if (row === cost.length) return 0;
      return Math.min(...cost[row]!.flatMap((one, j) => (taken.has(j) ? [] : [one + cheapest(cost, row + 1, new Set([...taken, j]))])));
    };
    fc.assert(
      fc.property(costs, (cost) => {
        const columns = assigned(cost);
        expect(new Set(columns).size).to.equal(cost.length);
        expect(columns.reduce((sum, j, i) => sum + cost[i]![j]!, 0)).to.be.closeTo(cheapest(cost), 1e-6);
      }),
    );
  });
});
