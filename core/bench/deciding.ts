// Deciding: how long its looks take, and how often scenes of known materials and canvases with known errors are told right.
import {
  atOnce,
  canvasLight,
  compareCanvas,
  deltaE00,
  dressed,
  drawServing,
  evenSteps,
  findCanvas,
  flattened,
  labToLinear,
  lightOf,
  partsBySteps,
  photographedCanvas,
  proposeInSteps,
  SRGB,
  studyInSteps,
  toBytes,
  withTrial,
  type Lab,
  type LightPlane,
  type Pixels,
} from '../src/index.ts';
import { seeded } from '../src/random.ts';

interface Disc {
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly lab: Lab;
}
const inScreen = (lab: Lab): boolean => labToLinear(SRGB, lab).every((v) => v > 0.004 && v < 0.9);

function scene(seed: number, count: number): { readonly field: Lab; readonly discs: readonly Disc[] } {
  const random = seeded(seed);
  const labs: Lab[] = [];
  while (labs.length < count + 1) {
    const lab: Lab = [22 + 65 * random(), 50 * (random() - 0.5), 55 * (random() - 0.5)];
    if (inScreen(lab) && labs.every((other) => deltaE00(lab, other) > 14)) labs.push(lab);
  }
  const [field, ...rest] = labs as [Lab, ...Lab[]];
  return {
    field,
    discs: rest.map((lab, i) => ({
      lab,
      x: ((i % 3) + 0.5) / 3 + 0.05 * (random() - 0.5),
      y: (Math.floor(i / 3) + 0.5) / 2 + 0.05 * (random() - 0.5),
      r: 0.11 + 0.03 * random(),
    })),
  };
}

function planeOf({ field, discs }: ReturnType<typeof scene>, width: number, seed: number, shading = 0.2): LightPlane {
  const height = Math.round((2 / 3) * width);
  const random = seeded(seed);
  const rgb = new Float32Array(3 * width * height);
  const [ground, ...own] = [field, ...discs.map(({ lab }) => lab)].map((lab) => labToLinear(SRGB, lab));
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 3) {
      const at = discs.findLastIndex((disc) => Math.hypot(x / width - disc.x, (2 / 3) * (y / height - disc.y)) < disc.r);
      const light = at < 0 ? ground! : own[at]!;
      const lit = 1 + shading * (0.5 - x / width) + 0.02 * (random() - 0.5);
      for (let c = 0; c < 3; c++) rgb[i + c] = light[c]! * lit;
    }
  return { rgb, width, height, space: SRGB };
}
const picture = (plane: LightPlane): Pixels => ({ data: toBytes(plane), width: plane.width, height: plane.height });

function ms(work: () => unknown, times = 5): number {
  const took: number[] = [];
  for (let i = 0; i < times; i++) {
    const since = performance.now();
    work();
    took.push(performance.now() - since);
  }
  return took.sort((a, b) => a - b)[Math.floor(times / 2)]!;
}

const large = picture(planeOf(scene(1, 6), 2400, 1));
const shown = lightOf(picture(planeOf(scene(1, 6), 1024, 1)));
const parts = partsBySteps(shown, evenSteps(5, { darkest: 1, lightest: 9 }));
const half = [256, 170, 768, 170, 768, 500, 256, 500];
console.log(`colours that matter, of ${large.width} x ${large.height}: ${ms(() => atOnce(proposeInSteps(large))).toFixed(0)} ms`);
console.log(`a study in three values: ${ms(() => atOnce(studyInSteps(large))).toFixed(0)} ms`);
console.log(
  `in five piles, of ${shown.width} x ${shown.height}: ${ms(() => dressed(shown, parts, [[20, 0, 0], [40, 9, 9], 'mean', undefined, [90, 0, 0]])).toFixed(0)} ms`,
);
console.log(`where a pile serves: ${ms(() => drawServing(shown, [50, 10, 10])).toFixed(0)} ms`);
console.log(
  `a trial, darker: ${ms(() => withTrial(shown, [{ points: half, lighter: -1 }])).toFixed(0)} ms; moved: ${ms(() => withTrial(shown, [{ points: half, move: [80, 20] }])).toFixed(0)} ms`,
);

const SCENES = 100;
let [found, materials] = [0, 0];
let [accents, found1] = [0, 0];
for (let seed = 1; seed <= SCENES; seed++) {
  const all = scene(seed, 4);
  const red: Lab = [46, 62, 38];
  const clash = [all.field, ...all.discs.map(({ lab }) => lab)].some((lab) => deltaE00(lab, red) < 20);
  const accent = { lab: clash ? ([80, 5, 70] as Lab) : red, x: 0.84, y: 0.8, r: Math.sqrt((0.01 * (2 / 3)) / Math.PI) };
  const proposed = atOnce(proposeInSteps(picture(planeOf({ ...all, discs: [...all.discs, accent] }, 480, seed, 0.3))));
  const near = (lab: Lab): boolean => proposed.some((one) => deltaE00(one.lab, lab) < 6);
  for (const lab of [all.field, ...all.discs.map((disc) => disc.lab)]) {
    materials++;
    if (near(lab)) found++;
  }
  accents++;
  if (near(accent.lab)) found1++;
}
console.log(`of ${materials} large materials in ${SCENES} scenes found: ${found}; of ${accents} accents of a hundredth: ${found1}`);

const CANVASES = 40;
let [first, ordered, clean, corners] = [0, 0, 0, 0];
const took: number[] = [];
for (let seed = 1; seed <= CANVASES; seed++) {
  const random = seeded(1000 + seed);
  const all = scene(seed, 6);
  const wanted = planeOf(all, 480, seed, 0);
  // Two known errors of value, one plainly larger than the other.
  const a = Math.floor(6 * random());
  const other = (a + 1 + Math.floor(5 * random())) % 6;
  const moved = (disc: Disc, by: number): Disc => ({
    ...disc,
    lab: [disc.lab[0] + (disc.lab[0] > 50 ? -by : by), disc.lab[1], disc.lab[2]],
  });
  const painted = planeOf(
    { ...all, discs: all.discs.map((disc, i) => (i === a ? moved(disc, 24) : i === other ? moved(disc, 11) : disc)) },
    480,
    seed,
    0,
  );
  const photo = photographedCanvas(painted, { light: seed % 2 ? 'lamp' : 'window', paper: true, glare: true, seed });
  const since = performance.now();
  const quad = findCanvas(photo);
  if (!quad) continue;
  corners++;
  const flat = flattened(photo, quad, 480, 320);
  const { gains } = canvasLight(photo, quad, flat, wanted);
  const { misses } = compareCanvas(wanted, lightOf(flat, gains));
  took.push(performance.now() - since);
  const at = misses
    .filter(({ share }) => share > 0.015)
    .map((miss) => all.discs.findIndex((disc) => Math.hypot(miss.x - disc.x, (2 / 3) * (miss.y - disc.y)) < disc.r));
  if (at[0] === a) first++;
  if (at[0] === a && at[1] === other) ordered++;
  if (at.every((one) => one === a || one === other)) clean++;
}
console.log(
  `of ${CANVASES} canvases found in their photos: ${corners}; the largest error first: ${first}; both in order: ${ordered}; nothing else told: ${clean}; ${took.sort((x, y) => x - y)[Math.floor(took.length / 2)]!.toFixed(0)} ms each`,
);
