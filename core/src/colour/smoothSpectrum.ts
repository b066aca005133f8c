import { BANDS, type Spectrum } from './spectrum.ts';
import { spectrumToXyz, whiteOf } from './integrate.ts';
import { xyzToLab, type Lab } from './spaces.ts';
import { inverse3, times3, type Row3 } from './threes.ts';

/**
 * A smooth reflectance that has a given D65 colour, for grounds and readings of which only the
 * colour is known. A sigmoid of a parabola over wavelength (Jakob and Hanika 2019), found by
 * damped Gauss–Newton; where no reflectance has the colour, the nearest the form allows.
 */
export function smoothSpectrum(lab: Lab): Spectrum {
  const white = whiteOf('D65');
  const clamped: Lab = [Math.min(99.5, Math.max(0.3, lab[0])), lab[1], lab[2]];
  const y = ((clamped[0] + 16) / 116) ** 3;
  let c: Triple = [0, 0, (2 * y - 1) / (2 * Math.sqrt(Math.max(1e-4, y - y * y)))];
  const residual = (k: Triple): Triple => {
    const l = xyzToLab(spectrumToXyz(sigmoid(k)), white);
    return [l[0] - clamped[0], l[1] - clamped[1], l[2] - clamped[2]];
  };
  let r = residual(c);
  let damping = 1e-3;
  for (let round = 0; round < 80 && dot(r, r) > 1e-8; round++) {
    const columns = [0, 1, 2].map((j) => {
      const moved = residual(c.map((v, i) => (i === j ? v + 1e-5 : v)) as unknown as Triple);
      return moved.map((v, i) => (v - r[i]!) / 1e-5);
    });
    const step = dampedStep(columns, r, damping);
    const next: Triple = [c[0] - step[0], c[1] - step[1], c[2] - step[2]];
    const nextR = residual(next);
    if (dot(nextR, nextR) < dot(r, r)) [c, r, damping] = [next, nextR, damping / 4];
    else damping = Math.min(1e8, damping * 5);
  }
  return sigmoid(c);
}

type Triple = readonly [number, number, number];

const dot = (a: readonly number[], b: readonly number[]) => a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!;

function sigmoid([a, b, c]: Triple): Spectrum {
  const r = new Float64Array(BANDS);
  for (let i = 0; i < BANDS; i++) {
    const t = (2 * i) / (BANDS - 1) - 1;
    const x = (a * t + b) * t + c;
    r[i] = 0.5 + x / (2 * Math.sqrt(1 + x * x));
  }
  return r;
}

/** (JᵀJ + damping·diag)⁻¹ Jᵀr: a Levenberg–Marquardt step. */
function dampedStep(columns: readonly (readonly number[])[], r: Triple, damping: number): Triple {
  const n = (i: number, j: number) => dot(columns[i]!, columns[j]!) * (i === j ? 1 + damping : 1) + (i === j ? 1e-9 : 0);
  const row = (i: number): Row3 => [n(i, 0), n(i, 1), n(i, 2)];
  return times3(inverse3([row(0), row(1), row(2)]), [dot(columns[0]!, r), dot(columns[1]!, r), dot(columns[2]!, r)]);
}
