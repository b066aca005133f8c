import { atOnce, bestFew, coverOf, CraftError, earnings, finite, oneMore, type Earning, type WeightedColour } from '@dusk/core';
import { fieldsOf, rounded, roundedList, type Command } from '../command.ts';
import { seenFromInput, tubesFromInput } from '../read.ts';

const MOST_COLOURS = 2000;

function coloursFromInput(input: unknown): WeightedColour[] {
  if (!Array.isArray(input) || input.length === 0)
    throw new CraftError('input', 'colours must be a list, as [{"hex":"#8a6b4f","weight":3}].');
  if (input.length > MOST_COLOURS) throw new CraftError('input', `At most ${MOST_COLOURS} colours; these are ${input.length}.`);
  return input.map((one) => {
    if (typeof one !== 'object' || one === null) throw new CraftError('colour', 'A colour looks like {"hex":"#8a6b4f","weight":3}.');
    const { weight = 1, ...colour } = one as { readonly weight?: unknown };
    const share = finite('input', 'weight', weight);
    if (!(share > 0)) throw new CraftError('input', `A weight lies above 0; this one is ${share}.`);
    return { lab: seenFromInput(colour), weight: share };
  });
}

const namesFrom = (input: unknown, name: string): string[] => {
  if (input === undefined) return [];
  return tubesFromInput(input, name).map(({ id }) => id);
};
const written = ({ id, match, merit, lost }: Earning) => ({
  tube: id,
  match: rounded(match),
  merit: rounded(merit),
  lost: lost && roundedList(lost),
});

export const reach: Command = {
  name: 'reach',
  summary: 'tubes and the colours of a picture → what share they match, which tube earns least, the best few of a rack',
  help: `  echo '{"palette":["titanium-white","yellow-ochre","ultramarine-blue"],"colours":[{"hex":"#8a6b4f","weight":3},{"lab":[60,-20,10]}]}' | npx dusk reach
    → {"match":0.75,"near":0,"not":0.25,"each":[{"deltaE00":0.4,"lab":[…]},…],"earns":[{"tube":"…","match":0.1,"merit":0.2,"lost":[…]},…]}
  echo '{"rack":["titanium-white",…],"count":5,"must":["titanium-white"],"must_not":[],"colours":[…]}' | npx dusk reach
    → {"tubes":[…],"match":0.9,"near":0.06,"not":0.04,"adds":[…],"more":[…]}

A colour is matched within ΔE00 3 of what the tubes make in any shares, near within 6; "weight" is how much of the picture is
of it. "earns": what each tube adds to the others. With "palette" and "rack", "add" tells what one more of the rack would bring.`,
  run: (input) => {
    const { palette, rack, colours, count, must, must_not } = fieldsOf(input, ['palette', 'rack', 'colours', 'count', 'must', 'must_not']);
    const list = coloursFromInput(colours);
    if (palette === undefined) {
      if (rack === undefined) throw new CraftError('palette', 'Give a palette, or a rack and how many tubes of it.');
      const few = atOnce(
        bestFew(tubesFromInput(rack, 'rack'), list, {
          count: finite('palette', 'count', count),
          must: namesFrom(must, 'must'),
          mustNot: namesFrom(must_not, 'must_not'),
        }),
      );
      const { match, near, not } = few.cover;
      return {
        tubes: few.ids,
        match: rounded(match),
        near: rounded(near),
        not: rounded(not),
        adds: few.adds.map(written),
        more: few.more.map(written),
      };
    }
    if (count !== undefined || must !== undefined || must_not !== undefined)
      throw new CraftError('palette', 'count, must and must_not choose from a rack; a palette is as it is.');
    const tubes = tubesFromInput(palette);
    if (tubes.length === 0) throw new CraftError('palette', 'There is no tube on this palette.');
    const { cover, nearest } = coverOf(tubes, list);
    return {
      match: rounded(cover.match),
      near: rounded(cover.near),
      not: rounded(cover.not),
      each: nearest.map(({ distance, lab }) => ({ deltaE00: rounded(distance), lab: roundedList(lab) })),
      earns: earnings(tubes, list).map(written),
      ...(rack !== undefined && { add: atOnce(oneMore(tubes, tubesFromInput(rack, 'rack'), list)).map(written) }),
    };
  },
};
