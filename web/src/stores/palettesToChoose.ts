import { usePalettes } from './palettes.ts';
import { useTubes, type Tube } from './tubes.ts';
import { newId } from '../floor/ids.ts';

/** A palette that a painting may be begun with. */
export interface PaletteChoice {
  readonly id: string;
  readonly name: string;
  readonly tubes: readonly Tube[];
  /** Whether it is only made with the painting, so that leaving leaves nothing behind. */
  readonly isNew?: boolean;
}

/** A first palette for a studio that has none: white and the three broad ways to go from it. */
const STARTER = ['titanium-white', 'yellow-ochre', 'venetian-red', 'ultramarine-blue', 'burnt-umber'];
const FIRST = newId();

/** The palettes there are; in a studio without any a first one. */
export function palettesToChoose(): PaletteChoice[] {
  const palettes = usePalettes();
  const tubes = useTubes();
  if (palettes.all.length > 0)
    return palettes.all.map(({ id, name, tubeIds }) => ({ id, name, tubes: tubeIds.flatMap((tube) => tubes.byId.get(tube) ?? []) }));
  const first = STARTER.flatMap((pigment) => tubes.all.find((t) => t.pigment === pigment) ?? []);
  return [{ id: FIRST, name: 'First palette, five tubes', tubes: first, isNew: true }];
}
