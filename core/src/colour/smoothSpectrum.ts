import { BANDS, type Spectrum } from './spectrum.ts';
import { spectrumToXyz, whiteOf } from './integrate.ts';
import { xyzToLab, type Lab } from './spaces.ts';
import { dampedStep3, dot3, slopes3, type Row3 } from './threes.ts';

const STEP = 1e-5;

/**
 * A smooth reflectance that has a given D65 colour, for grounds and readings of which only the
 * colour is known. A sigmoid of a parabola over wavelength (Jakob and Hanika 2019), found by
 * damped Gauss–Newton; where no reflectance has the colour, the nearest the form allows.
 */
export function smoothSpectrum(lab: Lab): Spectrum {
  const white = whiteOf('D65');
  const clamped: Lab = [Math.min(99.5, Math.max(0.3, lab[0])), lab[1], lab[2]];
  const y = ((clamped[0] + 16) / 116) ** 3;
  let c: Row3 = [0, 0, (2 * y - 1) / (2 * Math.sqrt(Math.max(1e-4, y - y * y)))];
  const residual = (k: Row3): Row3 => {
    const l = xyzToLab(spectrumToXyz(sigmoid(k)), white);
    return [l[0] - clamped[0], l[1] - clamped[1], l[2] - clamped[2]];
  };
  let r = residual(c);
  let damping = 1e-3;
  for (let round = 0; round < 80 && dot3(r, r) > 1e-8; round++) {
    const step = dampedStep3(slopes3(residual, c, r, STEP), r, (square) => square * damping + 1e-9);
    const next: Row3 = [c[0] - step[0], c[1] - step[1], c[2] - step[2]];
    const nextR = residual(next);
    if (dot3(nextR, nextR) < dot3(r, r)) [c, r, damping] = [next, nextR, damping / 4];
    else damping = Math.min(1e8, damping * 5);
  }
  return sigmoid(c);
}

function sigmoid([a, b, c]: Row3): Spectrum {
  const r = new Float64Array(BANDS);
  for (let i = 0; i < BANDS; i++) {
    const t = (2 * i) / (BANDS - 1) - 1;
    const x = (a * t + b) * t + c;
    r[i] = 0.5 + x / (2 * Math.sqrt(1 + x * x));
  }
  return r;
}
