import { layerAsLaid, type AreaEvent, type AreaStory, type LaidSo, type LayerPart } from '@dusk/core';
import type { AreaDto, LaidDto } from './areas.ts';
import type { LaidOfTubes } from './reads.ts';

/** How paint was laid, as the engine takes it; normally where that was not said. */
export const soOfLaid = ({ how = 'normal', with: along, layers }: LaidDto): LaidSo => ({ how, with: along, layers });

/** What is called so is all of the painting; what was only named otherwise lies nobody says where. */
const WHOLE = /\b(whole|all of it|all over|everything|canvas|imprimatura|ground)\b/i;
export const isWhole = ({ name, outline }: Pick<AreaDto, 'name' | 'outline'>): boolean => outline === null && WHOLE.test(name);

/** What was done with an area, as its layers and their drying are reckoned. */
export function storyOf(
  area: AreaDto,
  laid: ReadonlyMap<string, LaidOfTubes['parts']>,
  partOf: (tubeId: string, share: number) => readonly LayerPart[],
  temperatureC?: number,
): AreaStory {
  const { id, outline, deeds } = area;
  const eventOf = (deed: AreaDto['deeds'][number]): AreaEvent => {
    const at = Date.parse(deed.at);
    if (deed.kind === 'touched') return { id: deed.id, at, kind: deed.kind, felt: deed.touch! };
    if (deed.kind !== 'laid') return { id: deed.id, at, kind: deed.kind };
    const parts = (laid.get(deed.id) ?? []).flatMap(({ tubeId, share }) => partOf(tubeId, share));
    return { id: deed.id, at, kind: deed.kind, layer: layerAsLaid(soOfLaid(deed.laid ?? {}), parts, at, temperatureC) };
  };
  return { id, outline: outline ?? undefined, isWhole: isWhole(area), events: deeds.map(eventOf) };
}
