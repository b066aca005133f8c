import { Matrix, solve } from 'ml-matrix';
import { spectrumToXyz, whiteOf } from '../../colour/integrate.ts';
import { labToXyz, xyzToLab, type Lab } from '../../colour/spaces.ts';
import { BANDS } from '../../colour/spectrum.ts';
import { outward, thickReflectance } from '../kubelkaMunk.ts';
import { absorption, scattering, type Band, type Scatter } from './bands.ts';
import type { SinglePigment } from './definition.ts';

/** Curves of one paint while they are being derived. */
export interface Curves {
  readonly K: Float64Array;
  readonly S: Float64Array;
}

/** Instruments let some 0.4 % of stray surface light into published readings of dark masstones. */
const STRAY = 0.4;
/** How far features may move from what is published, as one standard deviation. */
const LOG_HEIGHT = 0.45;
const LOG_WIDTH = 0.12;
const SHIFT_NM = 5;
const LOG_LEVEL = 0.13;
/** How well the typical colours are known, in Lab. */
const MASSTONE_SIGMA = 1.6;
const TINT_SIGMA = 1;

export function withoutStrayLight(published: Lab): Lab {
  const white = whiteOf('D65');
  const xyz = labToXyz(published, white).map((v, i) => Math.max(0.02, v - (STRAY * white[i]!) / 100));
  return xyzToLab([xyz[0]!, xyz[1]!, xyz[2]!], white);
}

/** Lab of a thick film of `parts` of a paint in `rest` of another. */
export function thickLab(paint: Curves, rest: Curves, share: number): Lab {
  const R = new Float64Array(BANDS);
  for (let i = 0; i < BANDS; i++) {
    const K = share * paint.K[i]! + (1 - share) * rest.K[i]!;
    const S = share * paint.S[i]! + (1 - share) * rest.S[i]!;
    R[i] = outward(thickReflectance(K, S));
  }
  return xyzToLab(spectrumToXyz(R), whiteOf('D65'));
}

interface Free {
  readonly sigma: number;
  readonly apply: (bands: Band[], scatter: Scatter, value: number) => Scatter;
}

function freeParameters(pigment: SinglePigment): Free[] {
  const free: Free[] = [{ sigma: LOG_LEVEL, apply: (_, s, v) => ({ ...s, level: s.level * Math.exp(v) }) }];
  const onBand = (i: number, sigma: number, change: (band: Band, v: number) => Band): void => {
    free.push({
      sigma,
      apply: (bands, s, v) => {
        bands[i] = change(bands[i]!, v);
        return s;
      },
    });
  };
  pigment.absorb.forEach((band, i) => {
    onBand(i, LOG_HEIGHT, (b, v) => ({ ...b, height: b.height * Math.exp(v) }));
    if (band.kind === 'base') return;
    onBand(i, LOG_WIDTH, (b, v) => ('width' in b ? { ...b, width: b.width * Math.exp(v) } : b));
    if (band.kind !== 'tail') onBand(i, SHIFT_NM, (b, v) => ('nm' in b ? { ...b, nm: b.nm + v } : b));
  });
  return free;
}

function curvesAt(pigment: SinglePigment, free: readonly Free[], x: readonly number[]): Curves {
  const bands = [...pigment.absorb];
  let s = pigment.scatter;
  free.forEach((f, i) => (s = f.apply(bands, s, x[i]! * f.sigma)));
  return { K: absorption(bands).map((k) => Math.max(k, 1e-5)), S: scattering(s) };
}

/**
 * Moves the published features of a pigment as little as possible until masstone and tint come
 * out as typical: a regularised least squares (Levenberg–Marquardt with a unit prior on every move).
 * @param white titanium white's curves, or undefined while white itself is derived
 */
export function derive(pigment: SinglePigment, white?: Curves): Curves {
  const free = freeParameters(pigment);
  const masstone = withoutStrayLight(pigment.masstone);
  const residuals = (x: readonly number[]): number[] => {
    const curves = curvesAt(pigment, free, x);
    const top = thickLab(curves, curves, 1).map((v, i) => (v - masstone[i]!) / MASSTONE_SIGMA);
    const tint = white ? thickLab(curves, white, 0.1).map((v, i) => (v - pigment.tint[i]!) / TINT_SIGMA) : [];
    return [...top, ...tint, ...x];
  };
  const cost = (r: readonly number[]) => r.reduce((sum, v) => sum + v * v, 0);
  let x = free.map(() => 0);
  let r = residuals(x);
  let damping = 1;
  for (let round = 0; round < 60; round++) {
    const J = new Matrix(r.length, x.length);
    x.forEach((_, j) => {
      const moved = residuals(x.map((v, i) => (i === j ? v + 1e-4 : v)));
      moved.forEach((v, i) => J.set(i, j, (v - r[i]!) / 1e-4));
    });
    const JT = J.transpose();
    const normal = JT.mmul(J).add(Matrix.eye(x.length).mul(damping));
    const step = solve(normal, JT.mmul(Matrix.columnVector(r)));
    const next = x.map((v, i) => v - step.get(i, 0));
    const nextR = residuals(next);
    if (cost(nextR) < cost(r)) {
      const gain = cost(r) - cost(nextR);
      [x, r, damping] = [next, nextR, damping / 3];
      if (gain < 1e-7) break;
    } else damping *= 4;
  }
  return curvesAt(pigment, free, x);
}
