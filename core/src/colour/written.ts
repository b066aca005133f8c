import { CraftError } from '../errors.ts';
import { colourFromInput } from './read.ts';
import type { Lab } from './spaces.ts';

const NUMBER = /[-−+]?\d+(?:[.,]\d+)?/g;
const numbersIn = (text: string): number[] => [...text.matchAll(NUMBER)].map(([n]) => Number(n.replace('−', '-').replace(',', '.')));

/**
 * A colour as somebody writes it down: `#8a6b4f`, `7.5YR 4/6`, `N 5`, or three numbers for Lab.
 * @returns D65 Lab
 * @throws CraftError when it is none of these
 */
export function colourFromText(text: string): Lab {
  const written = text.trim();
  if (/^#?[0-9a-f]{6}$/i.test(written) || /^#[0-9a-f]{3}$/i.test(written))
    return colourFromInput({ hex: written.startsWith('#') ? written : `#${written}` }).lab;
  if (/^N\s*\d|^\d+(\.\d+)?\s*(R|YR|Y|GY|G|BG|B|PB|P|RP)\b/i.test(written))
    return colourFromInput({ munsell: /^N\s*[\d.]+$/i.test(written) ? `${written}/` : written }).lab;
  const numbers = numbersIn(written);
  if (numbers.length === 3 && /^(lab)?[\sLab*=:,;()\d.+−-]+$/i.test(written)) return colourFromInput({ lab: numbers }).lab;
  throw new CraftError(
    'colour',
    `A colour is written as #8a6b4f, 7.5YR 4/6, N 5, or as the three numbers of Lab; this is ${JSON.stringify(text)}.`,
  );
}
