import { CraftError } from '../errors.ts';
import { adapt } from './adaptation.ts';
import { hexToLab, show } from './display.ts';
import type { Illuminant } from './illuminants.ts';
import { spectrumToXyz, whiteOf } from './integrate.ts';
import { labToMunsell, munsellFromInput, munsellToLab, writeMunsell, xyzCToMunsell } from './munsell.ts';
import { labFromInput, labToLch, labToXyz, xyzToLab, type Lab, type Lch, type Xyz } from './spaces.ts';
import { spectrumFromJson, type Spectrum } from './spectrum.ts';
import { temperature, type Temperature } from './temperature.ts';
import { valueOfLightness, type MunsellValue } from './value.ts';

/** A colour in every notation the product knows, XYZ and Lab relative to the light it was given under. */
export interface ColourReading {
  readonly xyz: Xyz;
  readonly lab: Lab;
  readonly lch: Lch;
  readonly value: MunsellValue;
  readonly munsell: string;
  readonly temperature: Temperature;
  readonly hex: string;
  /** Whether an sRGB screen shows it as it is. */
  readonly inDisplay: boolean;
}

/** Ways a colour can be given. */
export const COLOUR_NOTATIONS = ['hex', 'lab', 'xyz', 'munsell', 'spectrum'] as const;

function xyzFromInput(value: unknown): Xyz {
  if (!Array.isArray(value) || value.length !== 3 || !value.every((v) => typeof v === 'number' && v >= 0 && v <= 200))
    throw new CraftError('colour', 'XYZ must be three numbers from 0 to 200, with Y of the white at 100.');
  return [value[0] as number, value[1] as number, value[2] as number];
}

/** A colour as it was given: Lab under its light, and the spectrum if there is one. */
interface GivenColour {
  readonly lab: Lab;
  readonly spectrum?: Spectrum;
}

/**
 * Reads a colour given in exactly one notation. `hex` and `munsell` are colours by daylight and are
 * carried over to another light by CAT16.
 * @throws CraftError when none or several notations are given, or one is broken.
 */
export function colourFromInput(input: unknown, light: Illuminant = 'D65'): GivenColour {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new CraftError('colour', 'A colour looks like {"hex": "#8a6b4f"}.');
  const given = COLOUR_NOTATIONS.filter((n) => n in input);
  if (given.length !== 1)
    throw new CraftError(
      'colour',
      `A colour needs exactly one of ${COLOUR_NOTATIONS.join(', ')}; this has ${given.join(' and ') || 'none'}.`,
    );
  const value = (input as Record<string, unknown>)[given[0]!];
  const carried = (lab: Lab): GivenColour => ({ lab: fromDaylight(lab, light) });
  switch (given[0]!) {
    case 'hex':
      return carried(hexToLab(value));
    case 'munsell':
      return carried(munsellToLab(munsellFromInput(value)));
    case 'lab':
      return { lab: labFromInput(value) };
    case 'xyz':
      return { lab: xyzToLab(xyzFromInput(value), whiteOf(light)) };
    case 'spectrum': {
      const spectrum = spectrumFromJson(value);
      return { lab: xyzToLab(spectrumToXyz(spectrum, light), whiteOf(light)), spectrum };
    }
  }
}

const carry = (lab: Lab, from: Illuminant, to: Illuminant): Lab =>
  from === to ? lab : xyzToLab(adapt(labToXyz(lab, whiteOf(from)), whiteOf(from), whiteOf(to)), whiteOf(to));

const fromDaylight = (lab: Lab, light: Illuminant): Lab => carry(lab, 'D65', light);

/** Reads a colour out in every notation. What a screen or a Munsell book shows is reckoned by daylight. */
export function readColour({ lab, spectrum }: GivenColour, light: Illuminant = 'D65'): ColourReading {
  const daylight = carry(lab, light, 'D65');
  const shown = show(daylight);
  return {
    xyz: spectrum ? spectrumToXyz(spectrum, light) : labToXyz(lab, whiteOf(light)),
    lab,
    lch: labToLch(lab),
    value: valueOfLightness(lab[0]),
    munsell: writeMunsell(spectrum ? xyzCToMunsell(spectrumToXyz(spectrum, 'C')) : labToMunsell(daylight)),
    temperature: temperature(lab),
    hex: shown.css,
    inDisplay: shown.inDisplay,
  };
}
