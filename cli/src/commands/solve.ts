import {
  additionsFor,
  amountsFor,
  CATALOGUE,
  CraftError,
  EMPHASES,
  finite,
  givesWay,
  mixCurves,
  nearestKinds,
  polish,
  solve as solveIn,
  tubesThatReach,
  type Book,
  type Emphasis,
  type Lab,
  type Recipe,
  type SolveOptions,
} from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { bookFromInput, partsFromInput, targetFromInput, tubesFromInput } from '../read.ts';
import { writtenDoses, writtenRecipe, writtenShares } from '../write.ts';

const FIELDS = [
  'target',
  'palette',
  'limits',
  'illuminant',
  'piles',
  'emphasis',
  'exclude',
  'no_black',
  'must_use',
  'value_tolerance',
  'alternatives',
  'exact',
  'rack',
  'from',
  'beliefs',
  'amount_ml',
] as const;
type Input = Partial<Record<(typeof FIELDS)[number], unknown>>;

function slugList(name: string, value: unknown): string[] {
  if (value === undefined) return [];
  if (!Array.isArray(value) || !value.every((v) => typeof v === 'string'))
    throw new CraftError('palette', `${name} must be a list of names.`);
  return value as string[];
}

function optionsFrom(input: Input, book: Book): SolveOptions {
  const { emphasis, exclude, no_black, must_use, value_tolerance, alternatives } = input;
  if (emphasis !== undefined && !EMPHASES.includes(emphasis as Emphasis))
    throw new CraftError('input', `emphasis is one of ${EMPHASES.join(', ')}; it is ${JSON.stringify(emphasis)}.`);
  if (alternatives !== undefined && !(Number.isInteger(alternatives) && (alternatives as number) >= 0 && (alternatives as number) <= 10))
    throw new CraftError('input', 'alternatives must be a whole number from 0 to 10.');
  if (must_use !== undefined && typeof must_use !== 'string')
    throw new CraftError('palette', 'must_use must be the name of a tube or pile.');
  const blacks =
    no_black === true
      ? book.ingredients.filter((i) => /PBk/.test(CATALOGUE.get(i.id)?.colourIndex ?? '') && !i.letdown).map((i) => i.id)
      : [];
  const excluded = [...new Set([...slugList('exclude', exclude), ...blacks])];
  return {
    ...(emphasis !== undefined && { emphasis: emphasis as Emphasis }),
    ...(excluded.length > 0 && { exclude: excluded }),
    ...(must_use !== undefined && { mustUse: must_use as string }),
    ...(value_tolerance !== undefined && { valueTolerance: finite('input', 'value_tolerance', value_tolerance) }),
    ...(alternatives !== undefined && { alternatives: alternatives as number }),
  };
}

function nearest(book: Book, target: Lab) {
  const { byValue, byHue, overall } = nearestKinds(book, target);
  const written = (recipe: Recipe) => ({ ...writtenRecipe(recipe), gives_way: givesWay(recipe) });
  return { by_value: written(byValue), ...(byHue && { by_hue: written(byHue) }), overall: written(overall) };
}

export const solve: Command = {
  name: 'solve',
  summary: 'a target and a palette → recipes a knife can measure',
  help: `The best recipe and up to three really different ones. A tube too strong to measure comes as a let-down.

  echo '{"target":{"hex":"#8a6b4f"},"palette":["titanium-white","yellow-ochre","cadmium-red","ultramarine-blue"],
         "limits":{"tubes":4,"parts":12}}' | npx dusk solve
    → {"reach":"in","recipes":[{"parts":{"titanium-white":3,…},"letdowns":[],"flat":{"titanium-white":0.3,…},
       "deltaE00":0.4,"valueError":0.02,"lab":[…],"steadiness":1.1,"errorEstimate":4.1,"better_at":"closest overall"},…]}

"target" is a colour as in dusk colour, a mixture {"parts":{…}}, or one of these moved by steps:
{"relative":{"to":{"hex":"#8a6b4f"},"value":-0.25,"chroma":0,"hue":0,"temperature":-3}}.
"mix" of "flat" gives the same lab. "errorEstimate" is the ΔE00 that nine of ten mixtures from real tubes stay within.
Out of reach, "nearest" gives by_value, by_hue and overall, each with what gives way.

Options: "limits", "illuminant", "alternatives" (0–10), "value_tolerance" (steps), "emphasis" (${EMPHASES.join(', ')}),
"exclude" and "must_use" (names), "no_black" (true: darks are mixed), "piles" ({"wall":{"titanium-white":3,…}}: piles on the
palette, used as they are), "exact" (true: proportions for a scale), "rack" (tubes of which one might be added),
"from" ({"titanium-white":5,…}: a pile that is there; "additions" says what to add to it), "amount_ml" (size of the pile:
"amounts" gives ml, grams and mm of a 6 mm bead), "beliefs" (what an earlier dusk correct answered of these tubes).`,
  run: (sent) => {
    const input: Input = fieldsOf(sent, FIELDS);
    const book = bookFromInput(input);
    const target = targetFromInput(input.target, book.light);
    const options = optionsFrom(input, book);
    const { reach, recipes } = solveIn(book, target, options);
    const exactly = (recipe: Recipe) => {
      const polished = polish(recipe.measures, target, book.light);
      return { flat: writtenShares(polished.flat), deltaE00: rounded(polished.deltaE00) };
    };
    return {
      reach,
      recipes: recipes.map((offer) => ({
        ...writtenRecipe(offer),
        better_at: offer.betterAt,
        ...(input.amount_ml !== undefined && { amounts: amounts(offer, finite('input', 'amount_ml', input.amount_ml)) }),
        ...(input.exact === true && { exact: exactly(offer) }),
      })),
      ...(reach === 'out' && { nearest: nearest(book, target) }),
      ...(input.rack !== undefined && { add_a_tube: rackAdvice(input, target) }),
      ...(input.from !== undefined && { additions: additions(input, target) }),
    };
  },
};

/** Mouth of an ordinary tube. */
const NOZZLE_MM = 6;

/** What to squeeze or weigh of each tube for a pile of a size. */
function amounts(recipe: Recipe, ml: number) {
  const tubes = Object.entries(recipe.flat).map(([id, parts]) => ({ id, parts, density: CATALOGUE.get(id)!.density, nozzleMm: NOZZLE_MM }));
  const found = amountsFor(tubes, ml);
  return Object.fromEntries(
    tubes.map(({ id }, i) => [id, { ml: rounded(found[i]!.ml), grams: rounded(found[i]!.grams), bead_mm: rounded(found[i]!.beadMm, 1) }]),
  );
}

const rackAdvice = ({ palette, rack }: Input, target: Lab) =>
  tubesThatReach(tubesFromInput(palette), tubesFromInput(rack, 'rack'), target).map((advice) => ({
    ...advice,
    deltaE00: rounded(advice.deltaE00),
  }));

function additions({ palette, from }: Input, target: Lab) {
  const there = partsFromInput(from);
  const parts = there.reduce((sum, p) => sum + p.parts, 0);
  const pile = { ...mixCurves(there), parts };
  const { add, growth, lab, mismatchBefore, mismatchAfter } = additionsFor(pile, tubesFromInput(palette), target);
  return {
    add: writtenDoses(add),
    growth: rounded(growth),
    lab: lab.map((v) => rounded(v)),
    before: rounded(mismatchBefore),
    after: rounded(mismatchAfter),
  };
}
