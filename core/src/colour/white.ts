import { adapt } from './adaptation.ts';
import { whiteOf } from './integrate.ts';
import { labToXyz, xyzToLab, type Lab } from './spaces.ts';

/**
 * How a paint is shown on a screen beside it: so that the screen's rendering of white paper looks like
 * the paper in the painter's light (CAT16 with full adaptation, scaled to the paper's lightness).
 * @param white the screen's D65 Lab at which a blank chip looked like the paper
 */
export function shownBeside(lab: Lab, white: Lab): Lab {
  const daylight = whiteOf('D65');
  const paper = labToXyz(white, daylight);
  const scale = paper[1] / daylight[1];
  const full = [paper[0] / scale, paper[1] / scale, paper[2] / scale] as const;
  const [x, y, z] = adapt(labToXyz(lab, daylight), daylight, full);
  return xyzToLab([x * scale, y * scale, z * scale], daylight);
}
