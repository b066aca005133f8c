/** Signed distances to simple solids, at a point given relative to the solid. Lengths in decimetres. */

export const sphere = (x: number, y: number, z: number, r: number): number => Math.sqrt(x * x + y * y + z * z) - r;

export function box(x: number, y: number, z: number, hx: number, hy: number, hz: number, round = 0): number {
  const qx = Math.abs(x) - hx + round;
  const qy = Math.abs(y) - hy + round;
  const qz = Math.abs(z) - hz + round;
  const ox = Math.max(qx, 0);
  const oy = Math.max(qy, 0);
  const oz = Math.max(qz, 0);
  return Math.sqrt(ox * ox + oy * oy + oz * oz) + Math.min(Math.max(qx, qy, qz), 0) - round;
}

/** Upright cylinder of half height `h`. */
export function cylinder(x: number, y: number, z: number, r: number, h: number, round = 0): number {
  const d = Math.sqrt(x * x + z * z) - r + round;
  const e = Math.abs(y) - h + round;
  const od = Math.max(d, 0);
  const oe = Math.max(e, 0);
  return Math.min(Math.max(d, e), 0) + Math.sqrt(od * od + oe * oe) - round;
}

/** Upright cone frustum, radius `r1` at −h and `r2` at +h (a close bound, enough for marching). */
export function frustum(x: number, y: number, z: number, r1: number, r2: number, h: number): number {
  const q = Math.sqrt(x * x + z * z);
  const slope = (r1 - r2) / (2 * h);
  const side = (q - (r1 + r2) / 2 + slope * y) / Math.sqrt(1 + slope * slope);
  return Math.max(side, Math.abs(y) - h);
}

/** Rod from a to b whose radius goes from ra to rb. */
export function rod(
  x: number,
  y: number,
  z: number,
  [ax, ay, az]: readonly number[],
  [bx, by, bz]: readonly number[],
  ra: number,
  rb: number,
): number {
  const ux = bx! - ax!;
  const uy = by! - ay!;
  const uz = bz! - az!;
  const px = x - ax!;
  const py = y - ay!;
  const pz = z - az!;
  const t = Math.min(1, Math.max(0, (px * ux + py * uy + pz * uz) / (ux * ux + uy * uy + uz * uz)));
  const dx = px - ux * t;
  const dy = py - uy * t;
  const dz = pz - uz * t;
  return Math.sqrt(dx * dx + dy * dy + dz * dz) - (ra + (rb - ra) * t);
}

/** Ring around the z axis. */
export function ring(x: number, y: number, z: number, R: number, r: number): number {
  const q = Math.sqrt(x * x + y * y) - R;
  return Math.sqrt(q * q + z * z) - r;
}

export function smoothUnion(a: number, b: number, k: number): number {
  const h = Math.max(k - Math.abs(a - b), 0) / k;
  return Math.min(a, b) - h * h * k * 0.25;
}

function hash(x: number, y: number, z: number): number {
  let n = Math.imul(x | 0, 374761393) + Math.imul(y | 0, 668265263) + Math.imul(z | 0, 2147483647);
  n = Math.imul(n ^ (n >>> 13), 1274126177);
  return ((n ^ (n >>> 16)) >>> 0) / 4294967295;
}

/** Smooth value noise, 0–1. */
export function noise(x: number, y: number, z: number): number {
  const ix = Math.floor(x);
  const iy = Math.floor(y);
  const iz = Math.floor(z);
  let fx = x - ix;
  let fy = y - iy;
  let fz = z - iz;
  fx = fx * fx * (3 - 2 * fx);
  fy = fy * fy * (3 - 2 * fy);
  fz = fz * fz * (3 - 2 * fz);
  const at = (dx: number, dy: number, dz: number) => hash(ix + dx, iy + dy, iz + dz);
  const mix = (a: number, b: number, t: number) => a + (b - a) * t;
  const low = mix(mix(at(0, 0, 0), at(1, 0, 0), fx), mix(at(0, 1, 0), at(1, 1, 0), fx), fy);
  const high = mix(mix(at(0, 0, 1), at(1, 0, 1), fx), mix(at(0, 1, 1), at(1, 1, 1), fx), fy);
  return mix(low, high, fz);
}

/** Four octaves of {@link noise}, 0–1. */
export function clouded(x: number, y: number, z: number): number {
  let sum = 0;
  let amount = 0.5;
  for (let i = 0; i < 4; i++) {
    sum += amount * noise(x, y, z);
    x = x * 2.03 + 7.1;
    y = y * 2.01 + 3.7;
    z = z * 2.02 + 1.3;
    amount /= 2;
  }
  return sum / 0.9375;
}
