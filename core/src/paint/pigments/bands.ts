import { BANDS, bandNm } from '../../colour/spectrum.ts';

/**
 * One absorption feature. Heights are in units of titanium white's scattering.
 * `bell` a Gaussian band; `edge` full below `nm` and gone above it (a band gap or charge transfer);
 * `tail` falling exponentially from 380 nm over `width` nm; `base` the same in all bands.
 */
export type Band =
  | { readonly kind: 'bell' | 'edge'; readonly nm: number; readonly width: number; readonly height: number }
  | { readonly kind: 'tail'; readonly width: number; readonly height: number }
  | { readonly kind: 'base'; readonly height: number };

/**
 * Scattering: `level` at 560 nm falling as wavelength to the power −`slope`, with an optional
 * rise above `nm` (index of refraction changes on the long side of a strong absorption edge).
 */
export interface Scatter {
  readonly level: number;
  readonly slope: number;
  readonly rise?: { readonly nm: number; readonly width: number; readonly height: number };
}

export const bell = (nm: number, width: number, height: number): Band => ({ kind: 'bell', nm, width, height });
export const edge = (nm: number, width: number, height: number): Band => ({ kind: 'edge', nm, width, height });
export const tail = (width: number, height: number): Band => ({ kind: 'tail', width, height });
export const base = (height: number): Band => ({ kind: 'base', height });
export const scatter = (level: number, slope = 0.7, rise?: readonly [nm: number, width: number, height: number]): Scatter => ({
  level,
  slope,
  ...(rise && { rise: { nm: rise[0], width: rise[1], height: rise[2] } }),
});

function bandAt(band: Band, nm: number): number {
  switch (band.kind) {
    case 'bell':
      return band.height * Math.exp(-0.5 * ((nm - band.nm) / band.width) ** 2);
    case 'edge':
      return band.height / (1 + Math.exp((nm - band.nm) / band.width));
    case 'tail':
      return band.height * Math.exp(-(nm - 380) / band.width);
    case 'base':
      return band.height;
  }
}

/** K in all bands, as the sum of its features. */
export function absorption(bands: readonly Band[]): Float64Array {
  return Float64Array.from({ length: BANDS }, (_, i) => bands.reduce((sum, band) => sum + bandAt(band, bandNm(i)), 0));
}

/** S in all bands. */
export function scattering(s: Scatter): Float64Array {
  return Float64Array.from({ length: BANDS }, (_, i) => {
    const nm = bandNm(i);
    const rise = s.rise ? s.rise.height / (1 + Math.exp(-(nm - s.rise.nm) / s.rise.width)) : 0;
    return s.level * (560 / nm) ** s.slope + s.level * rise;
  });
}
