import { BANDS } from '../../colour/spectrum.ts';
import type { Illuminant } from '../../colour/illuminants.ts';
import { K2_INSIDE } from '../../paint/kubelkaMunk.ts';
import { surfaceWeights } from '../../paint/surfaceWeights.ts';
import type { PaintCurves } from '../../paint/catalogue.ts';
import { COLOUR_KERNEL } from '../tables/colourKernel.ts';

/**
 * Colours all divisions of parts among one set of ingredients.
 * @param set indices of the ingredients
 * @param parts divisions end to end, as many numbers each as the set has
 * @returns X, Y, Z of each, over the white of the light; valid until the next call
 */
export type Colouring = (set: readonly number[], parts: Float32Array) => Float32Array;

const CURVE = BANDS;
const FLOAT = 4;
const PAGE = 65536;

let compiled: WebAssembly.Module | undefined | null;

/** The kernel as a module, or undefined where WebAssembly or its SIMD is missing. */
function kernelModule(): WebAssembly.Module | undefined {
  if (compiled === undefined) {
    const bytes = Uint8Array.from(COLOUR_KERNEL);
    try {
      compiled = typeof WebAssembly === 'object' && WebAssembly.validate(bytes) ? new WebAssembly.Module(bytes) : null;
    } catch {
      compiled = null;
    }
  }
  return compiled ?? undefined;
}

interface KernelExports {
  readonly memory: WebAssembly.Memory;
  readonly colour: (count: number, size: number, curves: number, parts: number, weights: number, out: number) => void;
}

/** Colouring by the SIMD kernel: four bands at a time, in 32 bit floats. */
function simdColouring(module: WebAssembly.Module, ingredients: readonly PaintCurves[], light: Illuminant): Colouring {
  const { memory, colour } = new WebAssembly.Instance(module).exports as unknown as KernelExports;
  const curvesAt = 3 * CURVE;
  const pointersAt = curvesAt + ingredients.length * 2 * CURVE;
  const partsAt = pointersAt + 8;
  let floats = new Float32Array(memory.buffer);
  const reserve = (count: number): void => {
    const needed = (partsAt + count) * FLOAT;
    if (needed <= memory.buffer.byteLength) return;
    memory.grow(Math.ceil((needed - memory.buffer.byteLength) / PAGE));
    floats = new Float32Array(memory.buffer);
  };
  reserve(0);
  surfaceWeights(light).forEach((w, c) => floats.set(w, c * CURVE));
  ingredients.forEach(({ K, S }, i) => {
    floats.set(K, curvesAt + i * 2 * CURVE);
    floats.set(S, curvesAt + (i * 2 + 1) * CURVE);
  });
  let held: Float32Array | undefined;
  return (set, parts) => {
    const count = parts.length / set.length;
    const outAt = partsAt + parts.length;
    reserve(parts.length + 3 * count);
    // Sets of one size share their divisions, so they are written once.
    if (held !== parts) floats.set((held = parts), partsAt);
    const pointers = new Uint32Array(memory.buffer, pointersAt * FLOAT, set.length);
    set.forEach((i, k) => (pointers[k] = (curvesAt + i * 2 * CURVE) * FLOAT));
    colour(count, set.length, pointersAt * FLOAT, partsAt * FLOAT, 0, outAt * FLOAT);
    return floats.subarray(outAt, outAt + 3 * count);
  };
}

/** The same without WebAssembly. */
export function plainColouring(ingredients: readonly PaintCurves[], light: Illuminant): Colouring {
  const [wx, wy, wz] = surfaceWeights(light);
  const inside = 1 - K2_INSIDE;
  const bands = BANDS;
  const K = new Float64Array(bands);
  const S = new Float64Array(bands);
  return (set, parts) => {
    const size = set.length;
    const count = parts.length / size;
    const out = new Float32Array(3 * count);
    for (let r = 0; r < count; r++) {
      K.fill(0);
      S.fill(0);
      for (let k = 0; k < size; k++) {
        const paint = ingredients[set[k]!]!;
        const n = parts[r * size + k]!;
        for (let i = 0; i < bands; i++) {
          K[i]! += n * paint.K[i]!;
          S[i]! += n * paint.S[i]!;
        }
      }
      let X = 0;
      let Y = 0;
      let Z = 0;
      for (let i = 0; i < bands; i++) {
        const R = S[i]! / (inside * S[i]! + K[i]! + Math.sqrt(K[i]! * (K[i]! + 2 * S[i]!)));
        X += wx[i]! * R;
        Y += wy[i]! * R;
        Z += wz[i]! * R;
      }
      out[3 * r] = X;
      out[3 * r + 1] = Y;
      out[3 * r + 2] = Z;
    }
    return out;
  };
}

/** The fastest colouring this machine has. */
export function colouringOf(ingredients: readonly PaintCurves[], light: Illuminant): Colouring {
  const module = kernelModule();
  return module ? simdColouring(module, ingredients, light) : plainColouring(ingredients, light);
}
