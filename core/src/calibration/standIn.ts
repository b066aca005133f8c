// Stand-ins for a colour reader and a camera, with a hidden studio behind them: shown as such, never used to predict.
import type { Spectrum } from '../colour/spectrum.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { deviate, drawDeviation, USUAL_SPREAD } from '../paint/deviation.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import { normal, seeded } from '../random.ts';
import type { Pixels } from '../reference/pixels.ts';
import { photographed } from '../reference/standInCamera.ts';

/** A swatch as it lies there: tubes and parts, thick enough to cover. */
export type Swatch = readonly { readonly tubeId: string; readonly parts: number }[];

/** What a driver of a colour reader gives: 36 bands, the mirror part left out. */
export interface ColourReader {
  read(swatch: Swatch): Promise<Spectrum>;
}

/** What a driver of a camera gives: a photo of swatches on a card beside white paper, a row of swatches to a tube. */
export interface CardCamera {
  photograph(rows: readonly (readonly Swatch[])[]): Promise<Pixels>;
}

const READER_NOISE = 0.002;

/** A number from a name, the same each time (FNV-1a). */
function seedOf(name: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < name.length; i++) hash = Math.imul(hash ^ name.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

/** The hidden studio: tubes that differ from typical ones as those of makers do. */
export function hiddenStudio(typicalOf: (tubeId: string) => PaintCurves): (swatch: Swatch) => Spectrum {
  const known = new Map<string, PaintCurves>();
  const tube = (id: string): PaintCurves => {
    const found = known.get(id) ?? deviate(typicalOf(id), drawDeviation(USUAL_SPREAD, seeded(seedOf(id))));
    known.set(id, found);
    return found;
  };
  return (swatch) => reflectance(mixCurves(swatch.map(({ tubeId, parts }) => ({ paint: tube(tubeId), parts }))));
}

/** A stand-in reader over a hidden studio. */
export function standInReader(typicalOf: (tubeId: string) => PaintCurves, seed = 1): ColourReader {
  const look = hiddenStudio(typicalOf);
  const random = seeded(seed);
  return { read: (swatch) => Promise.resolve(look(swatch).map((v) => Math.max(0, v + READER_NOISE * normal(random)))) };
}

/** A stand-in camera over a hidden studio, by a window. */
export function standInCardCamera(typicalOf: (tubeId: string) => PaintCurves, seed = 1): CardCamera {
  const look = hiddenStudio(typicalOf);
  return {
    photograph: (rows) => {
      const across = Math.max(1, ...rows.map((row) => row.length));
      const piles = rows.flatMap((row) =>
        Array.from({ length: across }, (_, i) => row[i]).flatMap((one) => (one ? [labOf(look(one))] : [])),
      );
      return Promise.resolve(photographed({ piles, across, surface: [71, 0, 2], light: 'window', tilt: 0.05, glare: 0, seed }));
    },
  };
}
