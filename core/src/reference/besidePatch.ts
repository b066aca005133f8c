import { labToLinearRgb, linearRgbToLab } from '../colour/display.ts';
import type { Lab } from '../colour/spaces.ts';
import { CraftError } from '../errors.ts';
import type { AreaReading } from './area.ts';

/** Patches that paint is photographed beside, by how much light they reflect. */
export const PATCHES = { 'white paper': 0.89, 'grey card': 0.18 } as const;
export type Patch = keyof typeof PATCHES;

/** Below this a patch is too dark in the photo to tell anything by. */
const TOO_DARK = 0.01;

/**
 * Colour of paint photographed beside a white or grey patch: each channel is scaled in linear light so
 * that the patch comes out neutral and as light as it is (von Kries in the camera's own channels).
 * @throws CraftError when patch or paint is clipped, or the patch is too dark to tell
 */
export function besidePatch(paint: AreaReading, patch: AreaReading, kind: Patch): Lab {
  if (patch.clipped > 0.02)
    throw new CraftError('colour', 'The patch is clipped in this photo: its white is lost. Photograph it a little darker.');
  if (paint.clipped > 0.02)
    throw new CraftError('colour', 'The paint is clipped in this photo: its light is lost. Photograph it a little darker.');
  const light = labToLinearRgb(patch.lab);
  if (Math.min(...light) < TOO_DARK) throw new CraftError('colour', 'The patch is too dark in this photo. Photograph it in more light.');
  const seen = labToLinearRgb(paint.lab);
  const scaled = (i: 0 | 1 | 2): number => Math.min(1.1, Math.max(0, (seen[i] / light[i]) * PATCHES[kind]));
  return linearRgbToLab([scaled(0), scaled(1), scaled(2)]);
}
