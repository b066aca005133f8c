import type { Rgb, Scene, Surface } from '../rendering/scene.ts';
import { box, clouded, cylinder, frustum, noise, ring, rod, smoothUnion, sphere } from '../rendering/shapes.ts';

const scale = ([r, g, b]: Rgb, k: number): Rgb => [r * k, g * k, b * k];

function wood(x: number, y: number, z: number): Surface {
  const plank = Math.floor((z + 40.3) / 1.15);
  const across = (z + 40.3) / 1.15 - plank;
  const grain = clouded(x * 0.55 + plank * 5.1, y * 3, z * 6.5);
  const fine = noise(x * 3 + plank * 9, y * 20, z * 42);
  const joint = across < 0.018 || across > 0.982 ? 0.3 : 1;
  const stain = clouded(x * 0.4, 3, z * 0.4);
  const k = joint * (0.5 + 0.5 * grain + 0.16 * fine) * (0.8 + 0.4 * stain) * (0.92 + 0.16 * noise(plank * 3.3, 0, 0));
  return { colour: scale([0.27, 0.165, 0.092], k), mirror: 0.025, rough: 0.28 };
}

function plaster(x: number, y: number, z: number): Surface {
  const k = 0.82 + 0.3 * clouded(x * 0.7, y * 0.7, z) - 0.1 * noise(x * 9, y * 9, 1);
  return { colour: scale([0.66, 0.645, 0.6], k) };
}

const canAt = [-1.75, 0, -0.55] as const;
function oilCan(px: number, py: number, pz: number): number {
  const x = px - canAt[0];
  const y = py;
  const z = pz - canAt[2];
  const body = cylinder(x, y - 0.5, z, 0.82, 0.5, 0.06);
  const bead = ring(x, z, y - 0.95, 0.8, 0.05);
  const shoulder = frustum(x, y - 1.3, z, 0.8, 0.16, 0.34);
  const neck = cylinder(x, y - 1.72, z, 0.17, 0.16, 0.03);
  const spout = rod(x, y, z, [0, 1.8, 0], [0.95, 2.85, 0.35], 0.1, 0.035);
  const handle = ring(x + 0.86, y - 0.98, z, 0.5, 0.055);
  return Math.min(smoothUnion(smoothUnion(body, shoulder, 0.1), neck, 0.08), bead, spout, handle) * 0.92;
}

const bowlAt = [0.62, 0, 0.42] as const;
function bowl(px: number, py: number, pz: number): number {
  const x = px - bowlAt[0];
  const y = py - 0.94;
  const z = pz - bowlAt[2];
  const wall = Math.abs(sphere(x, y, z, 0.86)) - 0.05;
  const cup = Math.max(wall, y - 0.1 - 0.012 * Math.sin(Math.atan2(z, x) * 3));
  const foot = Math.abs(cylinder(x, y + 0.86, z, 0.36, 0.09, 0.02));
  return Math.min(cup, foot - 0.02) * 0.92;
}
function glaze(x: number, y: number, z: number): Surface {
  const height = y;
  const run = clouded(x * 2.2, y * 0.9, z * 2.2);
  const bare = height < 0.2 + 0.1 * noise(x * 4, 0, z * 4);
  const rim = height > 0.985 ? 1.5 : 1;
  return bare
    ? { colour: [0.3, 0.2, 0.13] }
    : { colour: scale([0.035, 0.17, 0.095], (0.6 + 0.9 * run) * rim), mirror: 0.055, rough: 0.035 };
}

const ballAt = [1.9, 0.5, 1.05] as const;
const WINDINGS: readonly (readonly [number, number, number])[] = [
  [0.2, 0.95, 0.24],
  [0.85, 0.3, 0.42],
  [-0.5, 0.55, 0.67],
  [0.42, -0.35, 0.84],
];
/** Which winding lies on top here and the height of its strands, 0–1. */
function strands(x: number, y: number, z: number): number {
  const n = Math.sqrt(x * x + y * y + z * z) || 1;
  let best = 0;
  for (const [i, [ax, ay, az]] of WINDINGS.entries()) {
    const along = (x * ax + y * ay + z * az) / n;
    if (Math.abs(along) > 0.5 - 0.05 * i) continue;
    const around = Math.atan2(x * ay - y * ax, z * ax - x * az + 1e-6);
    const s = 0.5 + 0.5 * Math.sin(along * 52 + Math.sin(around + i) * 1.2 + i * 2);
    best = Math.max(best, s * (0.75 + 0.08 * i));
  }
  return best;
}
function twine(px: number, py: number, pz: number): number {
  const x = px - ballAt[0];
  const y = py - ballAt[1];
  const z = pz - ballAt[2];
  const d = sphere(x, y, z, 0.5);
  if (d > 0.12) return d - 0.03;
  return (d - 0.035 * strands(x, y, z)) * 0.6;
}
const tail = (x: number, y: number, z: number): number =>
  Math.min(
    rod(x, y, z, [1.55, 0.03, 1.35], [0.9, 0.03, 1.75], 0.026, 0.026),
    rod(x, y, z, [0.9, 0.03, 1.75], [0.2, 0.03, 1.62], 0.026, 0.024),
    rod(x, y, z, [0.2, 0.03, 1.62], [-0.35, 0.03, 1.86], 0.024, 0.02),
  );

const blanketAt = [2.35, 0, -1.25] as const;
function blanket(px: number, py: number, pz: number): number {
  const x = px - blanketAt[0];
  const z = pz - blanketAt[2];
  const sag = 0.05 * Math.sin(x * 1.7 + 0.6) + 0.035 * Math.sin(z * 2.6 + x);
  const y = py + sag * Math.min(1, py);
  let d = 9;
  for (let i = 0; i < 4; i++) {
    const wobble = 0.05 * Math.sin(i * 2.4 + z * 1.1);
    d = Math.min(d, box(x - wobble, y - 0.22 - i * 0.37, z + 0.04 * Math.sin(i * 1.9 + x), 1.32 - 0.03 * i, 0.19, 0.95, 0.17));
  }
  const hang = box(x + 0.2, y - 0.62, z - 0.97 - 0.05 * Math.sin(x * 3.2), 0.72, 0.62, 0.05, 0.045);
  return (Math.min(smoothUnion(d, hang, 0.12)) - 0.012 * noise(px * 7, py * 7, pz * 7)) * 0.8;
}
function wool(x: number, y: number, z: number): Surface {
  const nap = 0.75 + 0.5 * noise(x * 34, y * 34, z * 34) * (0.6 + 0.4 * noise(x * 11, y * 11, z * 11));
  const stripe = Math.abs(((x - blanketAt[0] + 10) % 1.1) - 0.55) < 0.05 ? 0.62 : 1;
  return { colour: scale([0.205, 0.17, 0.225], nap * stripe) };
}

/** A workbench before a pale wall: copper oil can, green glazed bowl, ochre twine, grey-violet blanket; daylight from the right, a lamp from the left. */
export const WORKBENCH: Scene = {
  name: 'workbench',
  eye: [0.35, 3.3, 7.4],
  look: [0.32, 0.78, -0.1],
  zoom: 0.36,
  lights: [
    { kind: 'lamp', at: [-3.4, 5.2, 2.7], size: 0.42, power: [46, 32.9, 19.3] },
    // A tall window: daylight from a wide face, so that shadows are soft.
    { kind: 'lamp', at: [7.4, 4.6, 4.4], size: 1.7, power: [68, 80, 95] },
  ],
  sky: (x, y) => {
    const window = Math.max(0, x) * 0.8 + 0.2;
    return [0.09 * window, 0.11 * window, 0.14 * window * (0.8 + 0.2 * y)];
  },
  exposure: 0.88,
  things: [
    { distance: (_x, y) => y, surface: wood },
    { distance: (_x, _y, z) => z + 3.1, surface: plaster },
    {
      bound: [-1.7, 1.2, -0.5, 2.05],
      distance: oilCan,
      surface: (x, y, z) => {
        const tarnish = clouded(x * 2.2, y * 2.2, z * 2.2);
        const k = 0.62 + 0.5 * tarnish;
        return { colour: [0.83 * k, 0.4 * k, 0.235 * k], metal: true, mirror: 0.97, rough: 0.13 + 0.16 * (1 - tarnish) };
      },
    },
    { bound: [bowlAt[0], 0.6, bowlAt[2], 1.15], distance: bowl, surface: glaze },
    {
      bound: [ballAt[0], ballAt[1], ballAt[2], 0.56],
      distance: twine,
      surface: (x, y, z) => {
        const h = strands(x - ballAt[0], y - ballAt[1], z - ballAt[2]);
        return { colour: scale([0.5, 0.315, 0.105], 0.45 + 0.6 * h + 0.18 * noise(x * 50, y * 50, z * 50)) };
      },
    },
    { bound: [0.6, 0.03, 1.6, 1.2], distance: tail, surface: () => ({ colour: [0.46, 0.29, 0.1] }) },
    { bound: [2.35, 0.75, -1.2, 2.1], distance: blanket, surface: wool },
  ],
};
