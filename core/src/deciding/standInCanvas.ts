import { labForward } from '../colour/spaces.ts';
import { normal, seeded } from '../random.ts';
import { lumaOf, type Pixels } from '../reference/pixels.ts';
import { squinted, toBytes, type LightPlane } from '../reference/lightPlane.ts';
import { fromCanvas, type Quad } from './quad.ts';

/** How a canvas stands before the stand-in camera. */
export interface CanvasScene {
  readonly light: 'window' | 'lamp';
  /** White paper hangs beside it. */
  readonly paper: boolean;
  /** A glint lies on the wet paint. */
  readonly glare: boolean;
  readonly corners?: Quad;
  readonly seed: number;
}

/** Light by channel, against a camera that is set to daylight. */
const LIGHTS: Readonly<Record<CanvasScene['light'], readonly [number, number, number]>> = {
  window: [0.7, 0.74, 0.8],
  lamp: [0.98, 0.78, 0.5],
};
const [WIDTH, HEIGHT] = [900, 700] as const;
/** Where a canvas stands that nothing is said of. */
export const STANDS: Quad = [0.16, 0.12, 0.86, 0.17, 0.9, 0.83, 0.12, 0.88];
const PAPER = { x: 10, y: 300, width: 60, height: 120, reflects: 0.89 };
const WALL = 0.24;
const GLINT = { x: 300, y: 560, r: 26, light: 0.7 };
/** Deviation of the camera's noise, of 1. */
const NOISE = 0.0015;

/** A stand-in for the camera of a phone before a canvas: tilted, under a window or a lamp, with noise. What a driver of a real camera gives. */
export function photographedCanvas(canvas: LightPlane, { light, paper, glare, corners = STANDS, seed }: CanvasScene): Pixels {
  const random = seeded(seed);
  const rgb = new Float32Array(3 * WIDTH * HEIGHT);
  for (let i = 0; i < rgb.length; i += 3) {
    const [x, y] = [(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)];
    const isPaper = paper && x > PAPER.x && x < PAPER.x + PAPER.width && y > PAPER.y && y < PAPER.y + PAPER.height;
    const wall = isPaper ? PAPER.reflects : WALL + 0.03 * (x / WIDTH);
    rgb[i] = rgb[i + 1] = rgb[i + 2] = wall;
  }
  const at = fromCanvas(corners);
  // Finer than the photo, so that no pixel of it is left out.
  const [across, down] = [2 * WIDTH, 2 * HEIGHT];
  for (let v = 0; v < down; v++)
    for (let u = 0; u < across; u++) {
      const [x, y] = at(u / across, v / down);
      const to = 3 * (Math.floor(y * HEIGHT) * WIDTH + Math.floor(x * WIDTH));
      const from = 3 * (Math.floor((v * canvas.height) / down) * canvas.width + Math.floor((u * canvas.width) / across));
      for (let c = 0; c < 3; c++) rgb[to + c] = canvas.rgb[from + c]!;
    }
  for (let i = 0; i < rgb.length; i += 3) {
    const [x, y] = [(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)];
    const shines = glare && Math.hypot(x - GLINT.x, y - GLINT.y) < GLINT.r ? GLINT.light * random() : 0;
    for (let c = 0; c < 3; c++) rgb[i + c] = Math.max(0, (rgb[i + c]! + shines) * LIGHTS[light][c]! + NOISE * normal(random));
  }
  return { data: toBytes({ rgb, width: WIDTH, height: HEIGHT, space: canvas.space }), width: WIDTH, height: HEIGHT };
}

/** From nothing to all between two figures. */
const between = (from: number, to: number, v: number): number => Math.min(1, Math.max(0, (v - from) / (to - from)));

/** A canvas as it is painted in haste: edges soften, darks come out too light, lights too warm. */
export function paintedInHaste(wanted: LightPlane, seed: number): LightPlane {
  const soft = squinted(wanted, 1 + (seed % 3));
  const luma = lumaOf(wanted.space);
  const rgb = soft.rgb.slice();
  for (let i = 0; i < rgb.length; i += 3) {
    const Y = luma[0] * rgb[i]! + luma[1] * rgb[i + 1]! + luma[2] * rgb[i + 2]!;
    const f = labForward(Math.max(0, Y));
    const lifted = 1 + 1.4 * between(0.5, 0.34, f);
    const warmed = between(0.76, 0.9, f);
    rgb[i] = rgb[i]! * lifted;
    rgb[i + 1] = rgb[i + 1]! * lifted * (1 - 0.06 * warmed);
    rgb[i + 2] = rgb[i + 2]! * lifted * (1 - 0.26 * warmed);
  }
  return { ...soft, rgb };
}
