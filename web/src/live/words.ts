import { chromaWord, hueWord, labToLch, temperatureWord, valueOfLightness, type Lab } from '@dusk/core';

/** `dull orange`, `grey`: chroma and hue as a painter says them. */
export function hueAndChroma(lab: Lab): string {
  const chroma = chromaWord(labToLch(lab)[1]);
  return chroma === 'grey' ? 'grey' : `${chroma} ${hueWord(lab)}`;
}

/** `warm, dull orange`. */
export const describe = (lab: Lab, temperature: number): string => `${temperatureWord(temperature)}, ${hueAndChroma(lab)}`;

/** How a prediction differs from its target in value, as a painter says it. */
export function valueDifference(error: number): string {
  const amount = Math.abs(error);
  if (amount < 0.05) return 'same value';
  return `${amount.toFixed(1)} ${error > 0 ? 'lighter' : 'darker'}`;
}

/** How far off a mixture is, in words; ΔE00 2 is what an eye at the easel lets pass. */
export function closeness(deltaE00: number): string {
  if (deltaE00 < 1) return 'a match';
  if (deltaE00 < 2) return 'passes for it';
  if (deltaE00 < 5) return 'near it';
  return 'out of reach';
}

/** A first name for a pile; the painter may give a better one. */
export const firstName = (lab: Lab): string => `${hueAndChroma(lab)} ${valueOfLightness(lab[0]).toFixed(1)}`;
