import { CraftError } from '../errors.ts';

/** Bands of every spectrum in the product: 380–730 nm by 10 nm. */
export const BANDS = 36;
export const FIRST_NM = 380;
export const STEP_NM = 10;

/** Reflectance (0–1) in {@link BANDS} bands. */
export type Spectrum = Float64Array & { readonly __kind?: 'reflectance' };

/** A spectrum as it is written to JSON. */
export interface SpectrumJson {
  readonly start: number;
  readonly step: number;
  readonly r: readonly number[];
}

/** Wavelength in nm of band `i`. */
export const bandNm = (i: number): number => FIRST_NM + STEP_NM * i;

/** A spectrum of one value in all bands. */
export const flatSpectrum = (r: number): Spectrum => new Float64Array(BANDS).fill(r);

export const spectrumToJson = (s: Spectrum): SpectrumJson => ({
  start: FIRST_NM,
  step: STEP_NM,
  r: Array.from(s, (v) => Math.round(v * 1e6) / 1e6),
});

/**
 * Reads a spectrum that came from outside.
 * @throws CraftError unless it has 36 finite bands, 380 by 10, each within 0–1.2
 *   (fluorescence and reader noise may lift a white a little above 1).
 */
export function spectrumFromJson(json: unknown): Spectrum {
  const s = json as Partial<SpectrumJson> | null;
  if (typeof s !== 'object' || s === null || !Array.isArray(s.r))
    throw new CraftError('spectrum', 'A spectrum needs start, step and r, a list of reflectances.');
  if (s.start !== FIRST_NM || s.step !== STEP_NM || s.r.length !== BANDS)
    throw new CraftError(
      'spectrum',
      `A spectrum must start at ${FIRST_NM} nm, step by ${STEP_NM} nm and hold ${BANDS} bands; this one starts at ${s.start}, steps by ${s.step} and holds ${s.r.length}.`,
    );
  const bad = s.r.findIndex((v) => typeof v !== 'number' || !(v >= 0 && v <= 1.2));
  if (bad >= 0) throw new CraftError('spectrum', `Reflectance at ${bandNm(bad)} nm must lie within 0 and 1.2; it is ${String(s.r[bad])}.`);
  return Float64Array.from(s.r);
}
