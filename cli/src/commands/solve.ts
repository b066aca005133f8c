import {
  colourFromInput,
  CraftError,
  illuminantFromInput,
  limitsFromInput,
  makeBook,
  pigmentFromInput,
  solve as solveIn,
  type Book,
  type Offer,
} from '@dusk/core';
import { fieldsOf, rounded, roundedList, type Command } from '../command.ts';

/** Books of this run: an array of targets on one palette needs one. */
const books = new Map<string, Book>();

function bookFromInput(palette: unknown, limitsInput: unknown, illuminant: unknown): Book {
  if (!Array.isArray(palette)) throw new CraftError('palette', 'palette must be a list of tubes, as ["titanium-white", "yellow-ochre"].');
  const limits = limitsFromInput(limitsInput);
  const light = illuminant === undefined ? 'D65' : illuminantFromInput(illuminant);
  const key = JSON.stringify([palette, limits, light]);
  let book = books.get(key);
  if (!book) {
    const tubes = palette.map((slug) => {
      const { K, S } = pigmentFromInput(slug);
      return { id: slug as string, K, S };
    });
    books.clear();
    books.set(key, (book = makeBook(tubes, limits, light)));
  }
  return book;
}

const written = (offer: Offer) => ({
  parts: Object.fromEntries(offer.measures.map(({ ingredient, parts }) => [ingredient.id, parts])),
  letdowns: offer.letdowns,
  flat: Object.fromEntries(Object.entries(offer.flat).map(([id, share]) => [id, rounded(share, 9)])),
  deltaE00: rounded(offer.deltaE00),
  valueError: rounded(offer.valueError),
  lab: roundedList(offer.lab),
  steadiness: rounded(offer.steadiness),
  better_at: offer.betterAt,
});

export const solve: Command = {
  name: 'solve',
  summary: 'a target and a palette → recipes a knife can measure',
  help: `The best recipe and up to three really different ones. A tube too strong to measure comes as a let-down.

  echo '{"target":{"hex":"#8a6b4f"},"palette":["titanium-white","yellow-ochre","cadmium-red","ultramarine-blue"],
         "limits":{"tubes":4,"parts":12}}' | npx dusk solve
    → {"reach":"in","recipes":[{"parts":{"titanium-white":3,…},"letdowns":[],"flat":{"titanium-white":0.3,…},
       "deltaE00":0.4,"valueError":0.02,"lab":[…],"steadiness":1.1,"better_at":"closest overall"},…]}

"target" is a colour as in dusk colour; "limits" and "illuminant" may be left out. "mix" of "flat" gives the same lab.`,
  run: (input) => {
    const { target, palette, limits, illuminant } = fieldsOf(input, ['target', 'palette', 'limits', 'illuminant']);
    const book = bookFromInput(palette, limits, illuminant);
    const { lab } = colourFromInput(target, book.light);
    const { reach, recipes } = solveIn(book, lab);
    return { reach, recipes: recipes.map(written) };
  },
};
