import { rederive as rederiveIn } from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { paletteFromInput, mixedFromInput } from '../read.ts';
import { writtenRecipe } from '../write.ts';

export const rederive: Command = {
  name: 'rederive',
  summary: 'an old recipe and today’s palette → the same colour, and whether it matches under the lamp',
  help: `  echo '{"parts":{"titanium-white":6,"cobalt-blue":2},"palette":["titanium-white","ultramarine-blue","phthalo-green","burnt-sienna"]}' | npx dusk rederive
    → {"reach":"in","recipes":[{"parts":{…},"deltaE00":0.6,…,"better_at":"…","differences":{"D65":0.6,"A":2.9,"LED":1.8,"F10":2.2}},…]}

"differences" are ΔE00 between old and new under daylight, a filament lamp, a white LED (modelled) and a three-band fluorescent lamp.`,
  run: (input) => {
    const { parts, palette, limits } = fieldsOf(input, ['parts', 'palette', 'limits']);
    const { reach, recipes } = rederiveIn(mixedFromInput(parts), paletteFromInput({ palette, limits }));
    return {
      reach,
      recipes: recipes.map((r) => ({
        ...writtenRecipe(r),
        better_at: r.betterAt,
        differences: Object.fromEntries(Object.entries(r.differences).map(([light, d]) => [light, rounded(d)])),
      })),
    };
  },
};
