import { seeded } from '@dusk/core/random';
import type { Rgb, Scene, Surface, Thing } from './scene.ts';

const FAR = 60;
const CLOSE = 0.0012;

/** Traces light through a scene of distance fields: direct light, soft shadows, mirrored and reflected light. */
class Tracer {
  private nearest: Thing | undefined;
  private nx = 0;
  private ny = 0;
  private nz = 0;

  constructor(
    private readonly scene: Scene,
    private readonly random: () => number,
  ) {}

  private distance(x: number, y: number, z: number): number {
    let best = FAR;
    for (const thing of this.scene.things) {
      if (thing.bound) {
        const [bx, by, bz, r] = thing.bound;
        const far = Math.sqrt((x - bx) ** 2 + (y - by) ** 2 + (z - bz) ** 2) - r;
        if (far > 0.12) {
          if (far < best) best = far;
          continue;
        }
      }
      const d = thing.distance(x, y, z);
      if (d < best) {
        best = d;
        this.nearest = thing;
      }
    }
    return best;
  }

  /** Way along the ray to the first surface, or −1. */
  private march(ox: number, oy: number, oz: number, dx: number, dy: number, dz: number, most: number): number {
    let t = 0.004;
    for (let i = 0; i < 140; i++) {
      const d = this.distance(ox + dx * t, oy + dy * t, oz + dz * t);
      if (d < CLOSE) return t;
      t += d * 0.9;
      if (t > most) return -1;
    }
    return t;
  }

  private normalAt(x: number, y: number, z: number): void {
    const h = 0.0012;
    const a = this.distance(x + h, y - h, z - h);
    const b = this.distance(x - h, y - h, z + h);
    const c = this.distance(x - h, y + h, z - h);
    const d = this.distance(x + h, y + h, z + h);
    const gx = a - b - c + d;
    const gy = -a - b + c + d;
    const gz = -a + b - c + d;
    const n = Math.sqrt(gx * gx + gy * gy + gz * gz) || 1;
    this.nx = gx / n;
    this.ny = gy / n;
    this.nz = gz / n;
  }

  private direct(x: number, y: number, z: number, nx: number, ny: number, nz: number): Rgb {
    let r = 0;
    let g = 0;
    let b = 0;
    for (const light of this.scene.lights) {
      const jx = (this.random() * 2 - 1) * light.size;
      const jy = (this.random() * 2 - 1) * light.size;
      const jz = (this.random() * 2 - 1) * light.size;
      const sun = light.kind === 'sun';
      let lx = light.at[0] + jx - (sun ? 0 : x);
      let ly = light.at[1] + jy - (sun ? 0 : y);
      let lz = light.at[2] + jz - (sun ? 0 : z);
      const way = Math.sqrt(lx * lx + ly * ly + lz * lz);
      lx /= way;
      ly /= way;
      lz /= way;
      const facing = nx * lx + ny * ly + nz * lz;
      if (facing <= 0) continue;
      if (this.march(x + nx * 0.006, y + ny * 0.006, z + nz * 0.006, lx, ly, lz, sun ? 40 : way) >= 0) continue;
      const fall = sun ? 1 : 1 / (way * way);
      r += light.power[0] * facing * fall;
      g += light.power[1] * facing * fall;
      b += light.power[2] * facing * fall;
    }
    return [r, g, b];
  }

  /** A direction around (x, y, z): cosine-spread for `spread` 1, nearer the axis below. */
  private around(x: number, y: number, z: number, spread: number): readonly [number, number, number] {
    const u = this.random() * 2 - 1;
    const a = this.random() * 2 * Math.PI;
    const s = Math.sqrt(1 - u * u) * spread;
    const rx = x + s * Math.cos(a);
    const ry = y + s * Math.sin(a);
    const rz = z + u * spread;
    const n = Math.sqrt(rx * rx + ry * ry + rz * rz) || 1;
    return [rx / n, ry / n, rz / n];
  }

  /** Light that comes back along a ray. */
  radiance(ox: number, oy: number, oz: number, dx: number, dy: number, dz: number, depth: number): Rgb {
    const t = this.march(ox, oy, oz, dx, dy, dz, 40);
    if (t < 0) return this.scene.sky(dx, dy, dz);
    const x = ox + dx * t;
    const y = oy + dy * t;
    const z = oz + dz * t;
    this.distance(x, y, z);
    const surface: Surface = this.nearest!.surface(x, y, z);
    this.normalAt(x, y, z);
    const { nx, ny, nz } = this;
    const [cr, cg, cb] = surface.colour;
    const facing = Math.max(0, -(nx * dx + ny * dy + nz * dz));
    const base = surface.mirror ?? 0;
    const mirror = base > 0 ? base + (1 - base) * (1 - facing) ** 5 : 0;
    if (mirror > 0 && depth < 3 && this.random() < Math.min(1, mirror)) {
      const k = 2 * (nx * dx + ny * dy + nz * dz);
      const [mx, my, mz] = this.around(dx - k * nx, dy - k * ny, dz - k * nz, surface.rough ?? 0.05);
      const seen = this.radiance(x + nx * 0.006, y + ny * 0.006, z + nz * 0.006, mx, my, mz, depth + 1);
      const lamp = this.glint(x, y, z, dx - k * nx, dy - k * ny, dz - k * nz, surface.rough ?? 0.05);
      const tint: Rgb = surface.metal ? surface.colour : [1, 1, 1];
      return [(seen[0] + lamp[0]) * tint[0], (seen[1] + lamp[1]) * tint[1], (seen[2] + lamp[2]) * tint[2]];
    }
    if (surface.metal) return [0, 0, 0];
    const lit = this.direct(x, y, z, nx, ny, nz);
    let [r, g, b] = lit;
    if (depth < 2) {
      const [hx, hy, hz] = this.around(nx, ny, nz, 1);
      const back = this.radiance(x + nx * 0.006, y + ny * 0.006, z + nz * 0.006, hx, hy, hz, depth + 1);
      r += back[0];
      g += back[1];
      b += back[2];
    }
    return [cr * r, cg * g, cb * b];
  }

  /** The lamp itself seen in a mirroring surface: a soft highlight. */
  private glint(x: number, y: number, z: number, rx: number, ry: number, rz: number, rough: number): Rgb {
    let r = 0;
    let g = 0;
    let b = 0;
    for (const light of this.scene.lights) {
      const sun = light.kind === 'sun';
      const lx = light.at[0] - (sun ? 0 : x);
      const ly = light.at[1] - (sun ? 0 : y);
      const lz = light.at[2] - (sun ? 0 : z);
      const way = Math.sqrt(lx * lx + ly * ly + lz * lz);
      const near = (lx * rx + ly * ry + lz * rz) / way;
      const width = rough + light.size / way;
      const amount = Math.exp(-(1 - near) / (width * width * 0.5)) / (width * width * 6);
      if (amount < 1e-3) continue;
      if (this.march(x + rx * 0.02, y + ry * 0.02, z + rz * 0.02, lx / way, ly / way, lz / way, sun ? 40 : way) >= 0) continue;
      const fall = (sun ? 1 : 1 / (way * way)) * amount;
      r += light.power[0] * fall;
      g += light.power[1] * fall;
      b += light.power[2] * fall;
    }
    return [r, g, b];
  }
}

/** Renders rows `from`–`to` of a picture as linear RGB. */
export function renderRows(scene: Scene, width: number, height: number, from: number, to: number, samples: number): Float32Array {
  const out = new Float32Array((to - from) * width * 3);
  const [ex, ey, ez] = scene.eye;
  const forward = unit([scene.look[0] - ex, scene.look[1] - ey, scene.look[2] - ez]);
  const right = unit([-forward[2], 0, forward[0]]);
  const up: Rgb = [
    right[1] * forward[2] - right[2] * forward[1],
    right[2] * forward[0] - right[0] * forward[2],
    right[0] * forward[1] - right[1] * forward[0],
  ];
  for (let row = from; row < to; row++) {
    const random = seeded(row * 7919 + 17);
    const tracer = new Tracer(scene, random);
    for (let column = 0; column < width; column++) {
      const sum = [0, 0, 0];
      for (let i = 0; i < samples; i++) {
        const u = ((column + random()) / width - 0.5) * 2 * scene.zoom * (width / height);
        const v = (0.5 - (row + random()) / height) * 2 * scene.zoom;
        const d = unit([
          forward[0] + right[0] * u + up[0] * v,
          forward[1] + right[1] * u + up[1] * v,
          forward[2] + right[2] * u + up[2] * v,
        ]);
        const light = tracer.radiance(ex, ey, ez, d[0], d[1], d[2], 0);
        // A cap on single samples keeps stray glints from speckling the picture.
        for (let c = 0; c < 3; c++) sum[c]! += Math.min(light[c]!, 6);
      }
      for (let c = 0; c < 3; c++) out[((row - from) * width + column) * 3 + c] = sum[c]! / samples;
    }
  }
  return out;
}

function unit([x, y, z]: readonly [number, number, number]): readonly [number, number, number] {
  const n = Math.sqrt(x * x + y * y + z * z);
  return [x / n, y / n, z / n];
}
