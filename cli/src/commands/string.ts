import { CraftError, finite, stringOf, valueOfLightness, type Route } from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { bookFromInput, targetFromInput } from '../read.ts';
import { writtenColour, writtenRecipe } from '../write.ts';

export const string: Command = {
  name: 'string',
  summary: 'two or more stops and a palette → piles in even steps',
  help: `Even in Munsell value, or in ΔE00 where the stops share a value.

  echo '{"stops":[{"munsell":"5YR 3/4"},{"munsell":"10YR 8/4"}],"piles":5,"routes":["straight"],
         "palette":["titanium-white","yellow-ochre","burnt-sienna","ultramarine-blue"]}' | npx dusk string
    → {"piles":[{"target":{"lab":[…],"hex":"…"},"recipe":{"parts":{…},…}},…]}

A stop is a colour, a mixture {"parts":{…}} or a relative target. "routes", one for each stretch: straight, neutral, warm, cool.
"limits" and "illuminant" as in dusk solve.`,
  run: (input) => {
    const { stops, piles, routes, palette, limits, illuminant } = fieldsOf(input, [
      'stops',
      'piles',
      'routes',
      'palette',
      'limits',
      'illuminant',
    ]);
    if (!Array.isArray(stops) || stops.length > 20) throw new CraftError('target', 'stops must be a list of 2 to 20 colours.');
    if (routes !== undefined && !Array.isArray(routes)) throw new CraftError('target', 'routes must be a list, as ["warm"].');
    const book = bookFromInput({ palette, limits, illuminant });
    const targets = stops.map((stop) => targetFromInput(stop, book.light));
    const made = stringOf(book, targets, finite('target', 'piles', piles), routes as Route[] | undefined);
    return {
      piles: made.map(({ target, recipe }) => ({
        target: writtenColour(target),
        value: rounded(valueOfLightness(target[0])),
        recipe: writtenRecipe(recipe),
      })),
    };
  },
};
