import { CraftError, finite } from '../errors.ts';
import { spectrumToXyz, whiteOf } from '../colour/integrate.ts';
import type { Illuminant } from '../colour/illuminants.ts';
import { xyzToLab, type Lab } from '../colour/spaces.ts';
import { BANDS, type Spectrum } from '../colour/spectrum.ts';
import type { PaintCurves } from './catalogue.ts';
import { filmReflectance, inward, outward, sunkReflectance, thickReflectance, TITANIUM_SCATTER_PER_UM } from './kubelkaMunk.ts';

/** A finite film laid on something. */
export interface Film {
  readonly thicknessUm: number;
  /** Measured reflectance of what lies below. */
  readonly ground: Spectrum;
}

/** How paint is laid down; all absent: a thick glossy film of tube paint. */
export interface Laying {
  /** Share of the film's volume that is clear medium, 0–1. */
  readonly medium?: number;
  readonly film?: Film;
  /** 0 a glossy surface, 1 a wholly sunk-in, matt one. */
  readonly sunk?: number;
}

/** A paint and how much of it, in parts of volume. */
export interface Portion {
  readonly paint: PaintCurves;
  readonly parts: number;
}

/** Most ingredients one mixture may be made of. */
const MOST_PORTIONS = 200;

/**
 * K and S of a mixture in proportion to volume (two-constant theory, Duncan 1940).
 * @throws CraftError when a part is negative or no number, or all are zero.
 */
export function mixCurves(portions: readonly Portion[]): PaintCurves {
  if (portions.length > MOST_PORTIONS)
    throw new CraftError('parts', `A mixture may have at most ${MOST_PORTIONS} ingredients; this one has ${portions.length}.`);
  let total = 0;
  for (const { parts } of portions) {
    if (finite('parts', 'A part', parts) < 0) throw new CraftError('parts', `Parts cannot be negative; one is ${parts}.`);
    total += parts;
  }
  if (!(total > 0) || !Number.isFinite(total)) throw new CraftError('parts', 'A mixture needs at least one part of something.');
  const K = new Float64Array(BANDS);
  const S = new Float64Array(BANDS);
  for (const { paint, parts } of portions) {
    if (paint.K.length !== BANDS || paint.S.length !== BANDS)
      throw new CraftError('spectrum', `A paint's curves must hold ${BANDS} bands; these hold ${paint.K.length} and ${paint.S.length}.`);
    const share = parts / total;
    if (share === 0) continue;
    for (let i = 0; i < BANDS; i++) {
      K[i]! += share * paint.K[i]!;
      S[i]! += share * paint.S[i]!;
    }
  }
  return { K, S };
}

export function checkLaying({ medium = 0, film, sunk = 0 }: Laying): void {
  if (!(finite('film', 'The share of medium', medium) >= 0 && medium <= 1))
    throw new CraftError('film', `The share of medium must lie within 0 and 1; it is ${medium}.`);
  if (!(finite('film', 'How far a surface has sunk', sunk) >= 0 && sunk <= 1))
    throw new CraftError('film', `How far a surface has sunk must lie within 0 and 1; it is ${sunk}.`);
  if (film && !(finite('film', 'The film thickness', film.thicknessUm) >= 0 && film.thicknessUm <= 100_000))
    throw new CraftError('film', `A film must be 0 to 100000 µm thick; this one is ${film.thicknessUm}.`);
  if (film && film.ground.length !== BANDS)
    throw new CraftError('film', `The ground's spectrum must hold ${BANDS} bands; it holds ${film.ground.length}.`);
  if (!film && medium === 1) throw new CraftError('film', 'Pure medium needs a film over a ground: on its own it has no colour.');
}

/**
 * Measured reflectance of paint as it is laid: mixed, thinned, over its ground, with the surface's
 * own reflection left out. The ground loses its surface where the film wets it (inverse Saunderson).
 * @throws CraftError for a laying out of range.
 */
export function reflectance(paint: PaintCurves, laying: Laying = {}): Spectrum {
  checkLaying(laying);
  const { medium = 0, film, sunk = 0 } = laying;
  const r = new Float64Array(BANDS);
  for (let i = 0; i < BANDS; i++) {
    const K = paint.K[i]!;
    const S = paint.S[i]!;
    const internal = film
      ? filmReflectance(K * (1 - medium), S * (1 - medium), film.thicknessUm * TITANIUM_SCATTER_PER_UM, inward(film.ground[i]!))
      : thickReflectance(K, S);
    r[i] = sunkReflectance(outward(internal), sunk);
  }
  return r;
}

/** Lab of a reflectance relative to the white of its light. */
export const labOf = (r: Spectrum, light: Illuminant = 'D65'): Lab => xyzToLab(spectrumToXyz(r, light), whiteOf(light));
