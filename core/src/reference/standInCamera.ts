import { encodeSrgb, labToLinearRgb, linearRgbToLab } from '../colour/display.ts';
import type { Lab } from '../colour/spaces.ts';
import { normal, seeded } from '../random.ts';
import { PATCHES } from './besidePatch.ts';
import type { Pixels } from './pixels.ts';

/** A palette as it lies under the stand-in camera. */
export interface PaletteScene {
  readonly piles: readonly Lab[];
  /** So many to a row; about as many across as down unless said. */
  readonly across?: number;
  /** Colour of the palette itself. */
  readonly surface: Lab;
  /** White paper lies in it. */
  readonly paper?: boolean;
  readonly light: 'window' | 'lamp';
  /** How far the camera is tilted, 0 from straight above to 1. */
  readonly tilt?: number;
  /** Glints on the wet paint, 0–1. */
  readonly glare?: number;
  readonly seed: number;
}

/** Light on the palette by channel, against a camera that is set to daylight. */
const LIGHTS: Readonly<Record<PaletteScene['light'], readonly [number, number, number]>> = {
  window: [0.94, 1, 1.08],
  lamp: [1.22, 1, 0.66],
};
const [WIDTH, HEIGHT] = [960, 720] as const;
const SURROUND = 0.08;
/** Light of a white that lies where most light falls is this, of 1: most that the camera holds. */
const EXPOSED = 0.78;
/** Deviation of the camera's noise, of 255. */
const NOISE = 1.6;

/** Where each pile lies, in rows, each a little out of its place; shares of the sides. */
function places(n: number, random: () => number, rows?: number): { readonly x: number; readonly y: number; readonly r: number }[] {
  const across = rows ?? Math.max(2, Math.ceil(Math.sqrt((n + 1) * 1.5)));
  // Paper lies in the last place, or below the rows that were asked for.
  const down = rows === undefined ? Math.ceil((n + 1) / across) : Math.ceil(n / across) + 1;
  const room = Math.min(0.84 / across, 0.8 / down);
  return Array.from({ length: n }, (_, i) => ({
    x: 0.08 + ((i % across) + 0.5) * (0.84 / across) + (random() - 0.5) * 0.25 * room,
    y: 0.1 + (Math.floor(i / across) + 0.5) * (0.8 / down) + (random() - 0.5) * 0.25 * room,
    r: room * (0.24 + 0.1 * random()),
  }));
}

/**
 * A stand-in for the camera of a phone: a palette under a window or a lamp, tilted, with light that falls off, ridges and
 * glints on the paint, and the camera's own noise, white balance and mixing of channels. What a driver of a real camera gives.
 */
export function photographed({ piles, across, surface, paper = true, light, tilt = 0, glare = 0, seed }: PaletteScene): Pixels {
  const random = seeded(seed);
  const heaps = places(piles.length, random, across).map((place, i) => ({
    ...place,
    rgb: labToLinearRgb(piles[i]!),
    stretch: 0.8 + 0.4 * random(),
    turn: random() * Math.PI,
    glint: random() < 0.7 ? { x: (random() - 0.5) * 0.9, y: (random() - 0.5) * 0.9, r: 0.2 + 0.2 * random() } : undefined,
  }));
  const ground = labToLinearRgb(surface);
  const white = PATCHES['white paper'];
  const camera = cameraOf(light, seeded(seed + 1));
  const [byX, byY] = [(random() - 0.5) * 0.4, (random() - 0.5) * 0.4];
  const data = new Uint8ClampedArray(4 * WIDTH * HEIGHT);
  for (let py = 0; py < HEIGHT; py++)
    for (let px = 0; px < WIDTH; px++) {
      // Further off things are smaller: the palette is a trapezium in the picture.
      const far = 1 + tilt * 0.45 * (1 - py / HEIGHT);
      const x = 0.5 + (px / WIDTH - 0.5) * far;
      const y = 1 - (1 - py / HEIGHT) * (1 + tilt * 0.25 * (1 - py / HEIGHT));
      let rgb: readonly [number, number, number] = [SURROUND, SURROUND, SURROUND];
      let gloss = 0;
      let ridge = 1;
      if (x > 0.02 && x < 0.98 && y > 0.02 && y < 0.98) rgb = ground as unknown as typeof rgb;
      if (paper && x > 0.86 && x < 0.96 && y > 0.82 && y < 0.95) rgb = [white, white, white];
      for (const heap of heaps) {
        if (Math.abs(x - heap.x) > 1.3 * heap.r || Math.abs(y - heap.y) > 1.9 * heap.r) continue;
        const [dx, dy] = [(x - heap.x) / heap.r, ((y - heap.y) * HEIGHT) / WIDTH / heap.r];
        const [c, s] = [Math.cos(heap.turn), Math.sin(heap.turn)];
        const [a, b] = [(dx * c + dy * s) * heap.stretch, (dy * c - dx * s) / heap.stretch];
        if (a * a + b * b > 1) continue;
        rgb = heap.rgb as unknown as typeof rgb;
        ridge = 1 + 0.05 * Math.sin(9 * a + 3 * b);
        if (heap.glint && Math.hypot(a - heap.glint.x, b - heap.glint.y) < heap.glint.r * glare) gloss = 0.9;
      }
      const falls = 1 + byX * (x - 0.5) + byY * (y - 0.5);
      const seen = camera(rgb.map((v) => (v * ridge * (1 - gloss) + gloss) * falls) as [number, number, number]);
      const at = 4 * (py * WIDTH + px);
      for (let k = 0; k < 3; k++) data[at + k] = 255 * encodeSrgb(Math.max(0, seen[k]!)) + NOISE * normal(random);
      data[at + 3] = 255;
    }
  return { data, width: WIDTH, height: HEIGHT };
}

/** How the same camera gives a colour that fills its picture beside white paper: what its own error is, whatever lies on the palette. */
export function asCameraSees(lab: Lab, { light, seed }: Pick<PaletteScene, 'light' | 'seed'>): Lab {
  const camera = cameraOf(light, seeded(seed + 1));
  const white = camera([1, 1, 1]);
  return linearRgbToLab(
    camera(labToLinearRgb(lab) as readonly number[] as [number, number, number]).map((v, k) => v / white[k]!) as [number, number, number],
  );
}

/** The camera's own way with colours: a light it does not quite take out, channels that run into one another, its exposure. */
function cameraOf(
  light: PaletteScene['light'],
  random: () => number,
): (rgb: readonly [number, number, number]) => [number, number, number] {
  const gains = LIGHTS[light].map((v) => v * (1 + (random() - 0.5) * 0.06));
  const bleed = 0.02 + 0.02 * random();
  // It exposes so that white paper is not lost anywhere.
  const exposure = EXPOSED / Math.max(...gains);
  return (rgb) => {
    const lit = rgb.map((v, k) => v * gains[k]! * exposure);
    const mean = (lit[0]! + lit[1]! + lit[2]!) / 3;
    return lit.map((v) => v * (1 - bleed) + mean * bleed) as [number, number, number];
  };
}
