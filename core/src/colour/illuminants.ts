import { CraftError } from '../errors.ts';
import { ILLUMINANT_POWER } from './tables/illuminants.ts';

/** Lights the product knows. `LED` is modelled, not measured. */
export const ILLUMINANTS = ['D65', 'D50', 'A', 'C', 'F5', 'F8', 'F10', 'LED'] as const;
export type Illuminant = (typeof ILLUMINANTS)[number];

/** First wavelength, step and count of the tables of power. */
export const POWER_FIRST_NM = 380;
export const POWER_STEP_NM = 5;
export const POWER_COUNT = 81;

/** Line spectra may not be interpolated: their power sits in single table rows. */
export const hasLines = (light: Illuminant): boolean => light[0] === 'F';

/**
 * A white LED modelled as a blue pump at 452 nm and one broad phosphor band at 580 nm,
 * in the shape of common warm-white lamps (about 3500 K). Modelled, not measured.
 */
function ledPower(nm: number): number {
  const bell = (centre: number, left: number, right: number) => Math.exp(-0.5 * ((nm - centre) / (nm < centre ? left : right)) ** 2);
  return 62 * bell(452, 9, 11) + 100 * bell(586, 50, 62);
}

/** Relative spectral power, 380–780 nm by 5 nm. */
export function illuminantPower(light: Illuminant): readonly number[] {
  if (light === 'LED') return Array.from({ length: POWER_COUNT }, (_, i) => ledPower(POWER_FIRST_NM + POWER_STEP_NM * i));
  return ILLUMINANT_POWER[light];
}

/** @throws CraftError when the name is none of {@link ILLUMINANTS}. */
export function illuminantFromInput(name: unknown): Illuminant {
  if (!ILLUMINANTS.includes(name as Illuminant))
    throw new CraftError('illuminant', `Unknown illuminant ${JSON.stringify(name)}; known are ${ILLUMINANTS.join(', ')}.`);
  return name as Illuminant;
}
