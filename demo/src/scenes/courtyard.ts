import type { Rgb, Scene, Surface } from '../rendering/scene.ts';
import { box, clouded, cylinder, frustum, noise, rod } from '../rendering/shapes.ts';

const scale = ([r, g, b]: Rgb, k: number): Rgb => [r * k, g * k, b * k];

/** Limewash over plaster: worn through near the ground, streaked below the eaves. */
function limewash(x: number, y: number, z: number): Surface {
  const patches = clouded(x * 0.6, y * 0.6, z);
  const worn = clouded(x * 1.3 + 9, y * 1.3, 4) * 0.75 + 0.3 - y * 0.16;
  const streak = noise(x * 5, y * 0.3, 2) * Math.max(0, y - 2.4) * 0.16;
  if (worn > 0.74) return { colour: scale([0.42, 0.27, 0.17], 0.75 + 0.5 * noise(x * 12, y * 12, 3)) };
  return { colour: scale([0.66, 0.585, 0.47], 0.82 + 0.28 * patches - streak) };
}
const wall = (x: number, y: number, z: number): number => {
  // The relief is at most 18 mm high: far off, a bound on it will do.
  const face = z > 0.05 ? z - 0.02 : z - 0.018 * clouded(x * 1.6, y * 1.6, 0);
  const opening = box(x + 1.55, y - 1.35, z, 0.74, 1.36, 0.5);
  return Math.max(face, -opening) * 0.9;
};

const door = (x: number, y: number, z: number): number => {
  const plank = Math.abs((((x + 1.55 + 0.72 + 9) / 0.24) % 1) - 0.5);
  const groove = plank > 0.465 ? 0.018 : 0;
  const leaf = box(x + 1.55, y - 1.33, z + 0.34 + groove, 0.72, 1.34, 0.06);
  const rail = Math.min(box(x + 1.55, y - 0.55, z + 0.28, 0.7, 0.09, 0.045), box(x + 1.55, y - 2.1, z + 0.28, 0.7, 0.09, 0.045));
  return Math.min(leaf, rail);
};
function doorPaint(x: number, y: number, z: number): Surface {
  const faded = clouded(x * 2.4, y * 0.8, z);
  const chip = noise(x * 14, y * 9, 5) > 0.86 - 0.1 * Math.max(0, 1 - y) ? 1 : 0;
  if (chip) return { colour: [0.24, 0.19, 0.15] };
  return { colour: scale([0.055, 0.155, 0.32], 0.72 + 0.6 * faded), mirror: 0.02, rough: 0.3 };
}

function awning(x: number, y: number, z: number): number {
  const along = x - 1.35;
  const sag = 0.05 * Math.cos(along * 2.1) + 0.02 * Math.sin(along * 6);
  const slope = y - 2.72 + z * 0.42 - sag * z;
  const top = Math.max(Math.abs(slope) * 0.9 - 0.018, Math.abs(along) - 1.3, z - 1.35, -z);
  const scallop = 0.1 * Math.abs(Math.sin(along * 4.84));
  const fall = Math.max(Math.abs(z - 1.35) - 0.02, Math.abs(along) - 1.3, y - 2.16 - sag, 1.86 + scallop - y);
  return Math.min(top, fall) * 0.75;
}
function canvas(x: number, y: number, z: number): Surface {
  const bleached = clouded(x * 1.1, y, z * 1.1);
  const weave = 0.92 + 0.16 * noise(x * 60, y * 60, z * 60);
  return { colour: scale([0.4, 0.105, 0.055], (0.74 + 0.5 * bleached) * weave) };
}

interface Cloth {
  readonly from: number;
  readonly to: number;
  readonly long: number;
  readonly colour: Rgb;
}
const CLOTHES: readonly Cloth[] = [
  { from: -0.62, to: 0.34, long: 1.28, colour: [0.74, 0.73, 0.7] },
  { from: 0.46, to: 0.98, long: 0.74, colour: [0.36, 0.4, 0.2] },
  { from: 1.12, to: 1.86, long: 1.02, colour: [0.62, 0.4, 0.4] },
  { from: 2.02, to: 2.66, long: 0.62, colour: [0.58, 0.5, 0.25] },
];
const lineHeight = (x: number) => 1.98 + 0.045 * (x - 1) * (x - 1) * 0.6;
const CLOTH_Z = 1.85;
function laundry(x: number, y: number, z: number): number {
  let best = 9;
  for (const [i, c] of CLOTHES.entries()) {
    const top = lineHeight(x);
    const down = Math.max(0, top - y);
    const wave = 0.075 * down * Math.sin(x * 9 + i * 2) + 0.05 * down * Math.sin(x * 4.2 + down * 2 + i);
    const middle = (c.from + c.to) / 2;
    const half = (c.to - c.from) / 2;
    const hem = 0.03 * Math.sin(x * 11 + i * 3);
    best = Math.min(best, box(x - middle, y - top + c.long / 2 + hem, z - CLOTH_Z - wave, half, c.long / 2, 0.012, 0.01));
  }
  return best * 0.6;
}
function cloth(x: number, y: number, z: number): Surface {
  const c = CLOTHES.find((k) => x < k.to + 0.06) ?? CLOTHES[CLOTHES.length - 1]!;
  return { colour: scale(c.colour, 0.94 + 0.1 * noise(x * 40, y * 40, z * 40)) };
}

function paving(x: number, y: number, z: number): Surface {
  const row = Math.floor(z / 0.7);
  const u = x / 0.95 + (row & 1) * 0.5;
  const slab = Math.floor(u);
  const joint = Math.min(u - slab, 1 - (u - slab)) * 0.95 < 0.016 || Math.min(z / 0.7 - row, 1 - (z / 0.7 - row)) * 0.7 < 0.016;
  const own = noise(slab * 3.7, row * 5.3, 2);
  const k = (joint ? 0.45 : 1) * (0.66 + 0.35 * own + 0.3 * clouded(x * 2, y, z * 2));
  return { colour: scale([0.36, 0.315, 0.255], k) };
}

const pot = (px: number, py: number, pz: number): number => {
  const x = px + 0.42;
  const z = pz - 0.5;
  const outside = Math.min(frustum(x, py - 0.3, z, 0.22, 0.33, 0.3), cylinder(x, py - 0.6, z, 0.37, 0.06, 0.02));
  return Math.max(outside, -cylinder(x, py - 0.62, z, 0.29, 0.2)) * 0.9;
};

/** A courtyard wall in the afternoon: blue door, rust-red awning, laundry, hard light and long cool shadows. */
export const COURTYARD: Scene = {
  name: 'courtyard',
  eye: [0.95, 1.75, 8.6],
  look: [0.42, 1.5, 0],
  zoom: 0.245,
  lights: [{ kind: 'sun', at: [-0.83, 0.62, 0.86], size: 0.012, power: [1.62, 1.36, 0.98] }],
  sky: (_x, y) => {
    const t = Math.max(0, y);
    return [0.3 - 0.1 * t, 0.4 - 0.08 * t, 0.58 - 0.02 * t];
  },
  exposure: 0.78,
  things: [
    { distance: (_x, y) => y, surface: paving },
    { distance: wall, surface: limewash },
    { bound: [-1.55, 1.33, -0.3, 1.6], distance: door, surface: doorPaint },
    { distance: (x, y, z) => box(x + 1.55, y - 0.06, z - 0.25, 0.95, 0.1, 0.3, 0.03), surface: () => ({ colour: [0.4, 0.36, 0.3] }) },
    { bound: [1.35, 2.3, 0.7, 1.75], distance: awning, surface: canvas },
    { bound: [1, 1.5, CLOTH_Z, 2.1], distance: laundry, surface: cloth },
    {
      bound: [1, 2.05, CLOTH_Z, 2.6],
      distance: (x, y, z) => Math.sqrt((y - lineHeight(x) - 0.005) ** 2 + (z - CLOTH_Z) ** 2) - 0.011,
      surface: () => ({ colour: [0.25, 0.23, 0.2] }),
    },
    {
      bound: [-0.42, 0.35, 0.5, 0.6],
      distance: pot,
      surface: (x, y, z) => ({ colour: scale([0.42, 0.185, 0.1], 0.8 + 0.4 * noise(x * 8, y * 8, z * 8)) }),
    },
    {
      bound: [2.75, 1.1, CLOTH_Z, 1.4],
      distance: (x, y, z) => rod(x, y, z, [2.85, 0, CLOTH_Z], [2.82, 2.3, CLOTH_Z], 0.035, 0.03),
      surface: () => ({ colour: [0.22, 0.17, 0.13] }),
    },
  ],
};
