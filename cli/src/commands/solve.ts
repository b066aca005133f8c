import {
  amountFromInput,
  best,
  amountsFor,
  CATALOGUE,
  CraftError,
  EMPHASES,
  finite,
  givesWay,
  isTube,
  leavesOf,
  mismatch,
  handFromInput,
  layPalette,
  measureFromInput,
  nextPiles,
  mixCurves,
  nearestKinds,
  polish,
  reachOf,
  solve as solveIn,
  tubesThatReach,
  USUAL_AMOUNT_ML,
  DULLING,
  labOf,
  reflectance,
  type Dulling,
  type Emphasis,
  type Lab,
  type Palette,
  type Recipe,
  type SolveOptions,
} from '@dusk/core';
import { fieldsOf, rounded, roundedList, saidYes, type Command } from '../command.ts';
import { tubeOf } from '../ownTubes.ts';
import { doubtsFromInput, paletteFromInput, partsFromInput, targetFromInput, tubesFromInput } from '../read.ts';
import {
  KNIFE_DENSITY,
  NOZZLE_MM,
  writtenColour,
  writtenDoses,
  writtenMixture,
  writtenRecipe,
  writtenShares,
  writtenSteps,
} from '../write.ts';

const FIELDS = [
  'target',
  'palette',
  'limits',
  'illuminant',
  'film',
  'medium',
  'sunk',
  'pick_up',
  'piles',
  'emphasis',
  'dulling',
  'exclude',
  'no_black',
  'must_use',
  'value_tolerance',
  'alternatives',
  'exact',
  'rack',
  'from',
  'beliefs',
  'knife',
  'amount_ml',
  'hand',
  'measure',
] as const;
type Input = Partial<Record<(typeof FIELDS)[number], unknown>>;

function slugList(name: string, value: unknown): string[] {
  if (value === undefined) return [];
  if (!Array.isArray(value) || !value.every((v) => typeof v === 'string'))
    throw new CraftError('palette', `${name} must be a list of names.`);
  return value as string[];
}

function optionsFrom(input: Input, palette: Palette): SolveOptions {
  const { emphasis, dulling, exclude, no_black, must_use, value_tolerance, alternatives } = input;
  if (emphasis !== undefined && !EMPHASES.includes(emphasis as Emphasis))
    throw new CraftError('input', `emphasis is one of ${EMPHASES.join(', ')}; it is ${JSON.stringify(emphasis)}.`);
  if (dulling !== undefined && !DULLING.includes(dulling as Dulling))
    throw new CraftError('input', `dulling is one of ${DULLING.join(', ')}; it is ${JSON.stringify(dulling)}.`);
  if (alternatives !== undefined && !(Number.isInteger(alternatives) && (alternatives as number) >= 0 && (alternatives as number) <= 10))
    throw new CraftError('input', 'alternatives must be a whole number from 0 to 10.');
  if (must_use !== undefined && typeof must_use !== 'string')
    throw new CraftError('palette', 'must_use must be the name of a tube or pile.');
  const blacks = saidYes('no_black', no_black)
    ? palette.ingredients.filter((i) => /PBk/.test(CATALOGUE.get(i.id)?.colourIndex ?? '')).map((i) => i.id)
    : [];
  const excluded = [...new Set([...slugList('exclude', exclude), ...blacks])];
  return {
    ...(input.amount_ml !== undefined && { amountMl: amountFromInput(input.amount_ml) }),
    ...(input.hand !== undefined && { hand: handFromInput(input.hand) }),
    ...(emphasis !== undefined && { emphasis: emphasis as Emphasis }),
    ...(dulling !== undefined && { dulling: dulling as Dulling }),
    ...(excluded.length > 0 && { exclude: excluded }),
    ...(must_use !== undefined && { mustUse: must_use as string }),
    ...(value_tolerance !== undefined && { valueTolerance: finite('input', 'value_tolerance', value_tolerance) }),
    ...(alternatives !== undefined && { alternatives: alternatives as number }),
  };
}

function nearest(palette: Palette, target: Lab) {
  const { byValue, byHue, overall } = nearestKinds(palette, target);
  const written = (recipe: Recipe) => ({ ...writtenRecipe(recipe), gives_way: givesWay(recipe) });
  return { by_value: written(byValue), ...(byHue && { by_hue: written(byHue) }), overall: written(overall) };
}

export const solve: Command = {
  name: 'solve',
  summary: 'a target and a palette → recipes a knife can measure',
  help: `The best recipe and really different ones, the closest among them. Measured for a hand: one heap of few tubes as a rule; of
what is less than a bead of 3 mm a touch of the knife's tip, said so in "said" and added last, or a let-down.

  echo '{"target":{"hex":"#8a6b4f"},"palette":["titanium-white","yellow-ochre","cadmium-red","ultramarine-blue"],
         "limits":{"tubes":4,"parts":12}}' | npx dusk solve
    → {"reach":"in","recipes":[{"parts":{"titanium-white":3,…},"letdowns":[],"flat":{"titanium-white":0.3,…},
       "deltaE00":0.4,"valueError":0.02,"lab":[…],"steadiness":1.1,"errorEstimate":4.1,"better_at":"closest overall"},…]}

"target" is a colour as in dusk colour, a mixture {"parts":{…}}, or one of these moved by steps:
{"relative":{"to":{"hex":"#8a6b4f"},"value":-0.25,"chroma":0,"hue":0,"temperature":-3}}.
Heaps mixed first stand in "letdowns" in the order of mixing: a tube let down, or a body let into the base; "parts" and later
heaps may name them. "mix" of "flat" gives the same lab. "expected" is the root mean square of the true difference to be
expected; recipes are ranked by "score": that, and what a painter would give away for a simpler, safer, quieter recipe. "errorEstimate" is the ΔE00 that nine of ten mixtures from real tubes stay within.
Out of reach, "nearest" gives by_value, by_hue and overall, each with what gives way.

Where it lands: "film" ({"thickness_um":12,"ground":{"hex":"#8a7a60"}}), "medium", "sunk" and "pick_up"
({"below":{"burnt-umber":1},"share":0.1}) as in dusk mix: the recipe looks right once laid there, "on_palette" says how it
looks before, and "coats", where one does not do it, how many would (null: not up to six).

Options: "limits", "illuminant", "alternatives" (0–10), "value_tolerance" (steps), "emphasis" (${EMPHASES.join(', ')}),
"dulling" (${DULLING.join(', ')}: how a colour is dulled),
"exclude" and "must_use" (names), "no_black" (true: darks are mixed), "piles" ({"wall":{"titanium-white":3,…}}: piles on the
palette, used as they are), "exact" (true: proportions for a scale), "rack" (tubes of which one might be added),
"from" ({"titanium-white":5,…}: a pile that is there; "additions" says what to add to it, of its own tubes first, with what
"gives_way"; "ways" holds the others: "one thing", "anew" from the same tubes, "closest"), "amount_ml" (size of the pile, 4
unless said: recipes are measured for it, and "amounts" gives ml, grams and mm of a 6 mm bead), "hand" ({"bead":0.1,
"bead_mm":0.7,"touch":0.4}: how far beads and touches of the knife's tip are off, 1 σ), "measure" (eye, parts, beads, scale:
"measured" tells every heap that way, in mixing order, with the chip it turns), "beliefs" (what an earlier dusk correct answered of these tubes),
"knife" (0.25: the share a dose may be off by, counted into "errorEstimate").`,
  run: (sent) => {
    const input: Input = fieldsOf(sent, FIELDS);
    const palette = paletteFromInput(input);
    const target = targetFromInput(input.target, palette.eye.light);
    const options = optionsFrom(input, palette);
    const doubts = doubtsFromInput(input.beliefs, input.knife);
    const { amountMl = USUAL_AMOUNT_ML } = options;
    const measure = input.measure === undefined ? undefined : measureFromInput(input.measure);
    const { reach, recipes } = solveIn(palette, target, options);
    const exactly = (recipe: Recipe) => {
      const polished = polish(palette, recipe, target);
      return { flat: writtenShares(polished.flat), deltaE00: rounded(polished.deltaE00) };
    };
    const { laying = {}, pickUp } = palette.eye.viewing;
    const lands = laying.film !== undefined || laying.sunk !== undefined || pickUp !== undefined;
    return {
      reach,
      recipes: recipes.map((offer) => ({
        ...writtenRecipe(offer, palette, doubts),
        better_at: offer.betterAt,
        ...(lands && { on_palette: onPalette(offer, palette.eye.light) }),
        ...(input.amount_ml !== undefined && { amounts: amounts(offer, amountMl) }),
        ...(measure && { measured: writtenSteps(offer.mixture, amountMl, measure, palette) }),
        ...(saidYes('exact', input.exact) && { exact: exactly(offer) }),
      })),
      ...(reach === 'out' && { nearest: nearest(palette, target) }),
      ...(reach !== 'in' && laying.film && { coats: coatsThatDo(input, laying.film.thicknessUm, target) }),
      ...(input.rack !== undefined && { add_a_tube: rackAdvice(palette, input.rack, target) }),
      ...(input.from !== undefined && next(input, palette, target, options)),
    };
  },
};

/** Most coats of which it is tried whether they would do. */
const MOST_COATS = 6;

/** How many coats of such a film some recipe needs to come to the target; null when no number up to six does. */
function coatsThatDo(input: Input, thicknessUm: number, target: Lab): number | null {
  for (let coats = 2; coats <= MOST_COATS; coats++) {
    const film = { ...(input.film as object), thickness_um: coats * thicknessUm };
    const { deltaE00, valueError } = best(paletteFromInput({ ...input, film }), target);
    if (reachOf({ deltaE00, valueError }) === 'in') return coats;
  }
  return null;
}

/** How a recipe looks as a thick pile, before it lands where it is looked at. */
function onPalette({ flat }: Recipe, light: Palette['eye']['light']) {
  const lab = labOf(reflectance(mixCurves(Object.entries(flat).map(([id, parts]) => ({ paint: tubeOf(id), parts })))), light);
  return writtenColour(lab);
}

/** What to squeeze or weigh of each tube for a pile of a size. */
function amounts(recipe: Recipe, ml: number) {
  const tubes = Object.entries(recipe.flat).map(([id, parts]) => ({
    id,
    parts,
    density: CATALOGUE.get(id)?.density ?? KNIFE_DENSITY,
    nozzleMm: NOZZLE_MM,
  }));
  const found = amountsFor(tubes, ml);
  return Object.fromEntries(
    tubes.map(({ id }, i) => [id, { ml: rounded(found[i]!.ml), grams: rounded(found[i]!.grams), bead_mm: rounded(found[i]!.beadMm, 1) }]),
  );
}

const rackAdvice = (palette: Palette, rack: unknown, target: Lab) =>
  tubesThatReach(palette, tubesFromInput(rack, 'rack'), target).map((advice) => ({
    ...advice,
    deltaE00: rounded(advice.deltaE00),
  }));

/** The next pile from one that is there: its own tubes first, then the other ways. */
function next(input: Input, { limits, eye }: Palette, target: Lab, { amountMl, hand }: SolveOptions) {
  const there = partsFromInput(input.from);
  const whole = there.reduce((sum, { parts }) => sum + parts, 0);
  const flat = Object.fromEntries(there.map(({ id, parts }) => [id, parts / whole]));
  const pile = mixCurves(there);
  const lab = labOf(reflectance(pile), eye.light);
  const laid = layPalette(tubesFromInput(input.palette), limits, eye.viewing, [{ id: PILE, flat, ...pile }]);
  const missed = mismatch(target);
  const before = rounded(missed(lab));
  const ways = nextPiles(laid, PILE, target, { amountMl, hand }).map((one) => {
    const leaves = leavesOf(one.mixture);
    const { growth } = one;
    return {
      way: one.way,
      ...(growth !== undefined && {
        add: writtenDoses(
          leaves.flatMap(({ source, share }) => (isTube(source) ? [{ id: source.tube, parts: share * whole * growth }] : [])),
        ),
        growth: rounded(growth),
      }),
      ...writtenMixture(one.mixture),
      lab: roundedList(one.lab),
      deltaE00: rounded(one.deltaE00),
      valueError: rounded(one.valueError),
      before,
      after: rounded(missed(one.lab)),
      gives_way: one.givesWay,
    };
  });
  const [first, ...others] = ways;
  if (first?.add) return { additions: first, ways: others };
  return { additions: { add: {}, growth: 1, lab: roundedList(lab), before, after: before, gives_way: [] }, ways };
}

/** What the pile that is there is called in recipes that take from it. */
const PILE = 'the pile';
