import { labToLch, lchToLab, type Lab } from '../colour/spaces.ts';
import { lightnessOfValue, valueOfLightness } from '../colour/value.ts';
import { moved } from '../matching/relative.ts';

/** A pair of greys or colours of one value, one warmer and one cooler than a middle, by `temperature` each. */
export function warmAndCool(lab: Lab, temperature: number): readonly [warm: Lab, cool: Lab] {
  return [moved(lab, { temperature }), moved(lab, { temperature: -temperature })];
}

/** The same hue and chroma at another value; chroma shrinks towards black and white as paint's does. */
export function keyedTo(lab: Lab, value: number, chromaShare = 1): Lab {
  const [, C, h] = labToLch(lab);
  const from = valueOfLightness(lab[0]);
  const room = value > from ? (10 - value) / Math.max(0.5, 10 - from) : value / Math.max(0.5, from);
  return lchToLab([lightnessOfValue(value), C * chromaShare * Math.min(1, Math.sqrt(Math.max(0, room)) * 1.05), h]);
}
