import {
  coatsToCover,
  COLOUR_NOTATIONS,
  colourFromInput,
  CraftError,
  finite,
  labOf,
  pickedUp,
  reflectance,
  smoothSpectrum,
  valueOfLightness,
} from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { mixedFromInput } from '../read.ts';
import { writtenColour } from '../write.ts';

export const place: Command = {
  name: 'place',
  summary: 'a pile in its place → its colour after picking up wet paint, or the coats that cover',
  help: `  echo '{"parts":{"titanium-white":9,"yellow-ochre":1},"below":{"burnt-umber":1},"share":0.1}' | npx dusk place
    → {"lab":[…],"hex":"…","value":7.1}
  echo '{"parts":{"titanium-white":9,"yellow-ochre":1},"ground":{"hex":"#5a4632"},"thickness_um":30,"medium":0}' | npx dusk place
    → {"coats":3,"coats_unseen":4,"after":[{"lab":[…],"hex":"…","shows":8.2},…]}

"share" of the volume is wet paint from below. "coats" counts films until what is below no longer shows: black and
white under them differ by less than ΔE00 2, or over this ground they look as a thick film does; null: never.
"coats_unseen" counts them for an eye that looks for it, under ΔE00 1: titanium white at 40 µm over black is 5 and 9.`,
  run: (input) => {
    const { parts, below, share, ground, thickness_um, medium } = fieldsOf(input, [
      'parts',
      'below',
      'share',
      'ground',
      'thickness_um',
      'medium',
    ]);
    const pile = mixedFromInput(parts);
    if ((below === undefined) === (ground === undefined))
      throw new CraftError('film', 'Give either below (wet paint) or ground (a colour).');
    if (below !== undefined) {
      const lab = labOf(reflectance(pickedUp(pile, mixedFromInput(below), finite('film', 'share', share))));
      return { ...writtenColour(lab), value: rounded(valueOfLightness(lab[0])) };
    }
    const given = colourFromInput(fieldsOf(ground, COLOUR_NOTATIONS));
    const { coats, unseen, after } = coatsToCover(
      pile,
      given.spectrum ?? smoothSpectrum(given.lab),
      finite('film', 'thickness_um', thickness_um),
      medium === undefined ? 0 : finite('film', 'medium', medium),
    );
    return { coats, coats_unseen: unseen, after: after.map(({ lab, shows }) => ({ ...writtenColour(lab), shows: rounded(shows) })) };
  },
};
