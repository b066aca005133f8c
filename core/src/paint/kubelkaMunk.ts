/** Reflection of light inside the paint back from its surface, and of light outside from it (Saunderson 1942). */
export const K1_OUTSIDE = 0.04;
export const K2_INSIDE = 0.6;

/** What the surface lets through inward and back. */
export const THROUGH_SURFACE = (1 - K1_OUTSIDE) * (1 - K2_INSIDE);

/**
 * Scattering of titanium white tube paint per µm of film; the unit of every K and S in the
 * catalogue. Published values for rutile in oil lie within 0.05 and 0.12.
 */
export const TITANIUM_SCATTER_PER_UM = 0.08;

/** Internal reflectance of a film too thick to see through: `1 + q − √(q² + 2q)` with `q = K/S` (Kubelka and Munk 1931). */
export function thickReflectance(K: number, S: number): number {
  const q = K / S;
  return 1 / (1 + q + Math.sqrt(q * (q + 2)));
}

/**
 * Internal reflectance of a film over a ground (Kubelka 1948, hyperbolic solution).
 * @param X thickness in units of 1/S of titanium white (µm × {@link TITANIUM_SCATTER_PER_UM})
 * @param Rg internal reflectance of the ground
 */
export function filmReflectance(K: number, S: number, X: number, Rg: number): number {
  if (X <= 0) return Rg;
  if (S < 1e-9) return Rg * Math.exp(-2 * K * X);
  const a = 1 + K / S;
  const b = Math.sqrt(Math.max(0, a * a - 1));
  const t = b * S * X;
  // b·coth(t) → 1/(S·X) as absorption vanishes.
  const c = t < 1e-6 ? 1 / (S * X) + (b * b * S * X) / 3 : b / Math.tanh(t);
  return (1 - Rg * (a - c)) / (a - Rg + c);
}

/** Where absorption or the film is all but nothing the slopes are taken by difference: what follows would divide by nothing. */
const LEAST_T = 1e-3;
const NUDGE = 1e-4;

/**
 * {@link filmReflectance} and how it changes with K and with S; the derivative of its hyperbolic solution.
 * @param out R, dR/dK, dR/dS
 */
export function filmWithSlopes(K: number, S: number, X: number, Rg: number, out: Float64Array): void {
  const a = 1 + K / S;
  const b = Math.sqrt(Math.max(0, a * a - 1));
  const t = b * S * X;
  if (!(t > LEAST_T) || S < 1e-9) {
    const R = filmReflectance(K, S, X, Rg);
    const [dk, ds] = [NUDGE * (K + 1e-3), NUDGE * (S + 1e-3)];
    out[0] = R;
    out[1] = (filmReflectance(K + dk, S, X, Rg) - R) / dk;
    out[2] = (filmReflectance(K, S + ds, X, Rg) - R) / ds;
    return;
  }
  const coth = 1 / Math.tanh(t);
  const c = b * coth;
  const below = 1 / (a - Rg + c);
  const R = (1 - Rg * (a - c)) * below;
  // R changes with a and with c = b·coth(b·S·X); c with b, which changes with a, and with S itself.
  const byA = (-Rg - R) * below;
  const byC = (Rg - R) * below;
  const csch2 = coth * coth - 1;
  const cByA = (a / b) * (coth - t * csch2);
  const all = byA + byC * cByA;
  out[0] = R;
  out[1] = all / S;
  out[2] = (-all * K) / (S * S) - byC * b * b * X * csch2;
}

/** Internal to measured reflectance, the mirror part left out (Saunderson 1942, specular excluded). */
export const outward = (internal: number): number => (THROUGH_SURFACE * internal) / (1 - K2_INSIDE * internal);

/** Measured to internal reflectance; inverse of {@link outward}. */
export const inward = (measured: number): number => measured / (THROUGH_SURFACE + K2_INSIDE * measured);

/** Diffuse light a matt, sunk-in surface adds: first-surface reflection scattered into the view. */
export const SUNK_SURFACE = 0.022;

/** Measured reflectance of a surface that has sunk in. `sunk` 0 is glossy, 1 wholly matt. */
export const sunkReflectance = (glossy: number, sunk: number): number => glossy + sunk * SUNK_SURFACE * (1 - glossy);
