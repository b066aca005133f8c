import {
  amountFromInput,
  CraftError,
  measureFromInput,
  paintOfMixture,
  type Measure,
  type PaintCurves,
  type Palette,
  finite,
  isPile,
  isTube,
  hangTogether,
  keyedTo,
  stringOf,
  valueOfLightness,
  warmAndCool,
  type Illuminant,
  type Lab,
  type Mother,
  type Recipe,
  type Route,
  type Source,
  type StringPile,
} from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { paletteFromInput, targetFromInput } from '../read.ts';
import { writtenColour, writtenMixture, writtenRecipe, writtenSteps } from '../write.ts';

export const string: Command = {
  name: 'string',
  summary: 'two or more stops and a palette → piles in even steps',
  help: `Even in Munsell value, or in ΔE00 where the stops share a value; the tubes stay the same from pile to pile
unless that loses too much. "mothers" are made first and in quantity: piles name them in their parts, as they
name what is let down; a mother may name what stands before it.

  echo '{"stops":[{"munsell":"5YR 3/4"},{"munsell":"10YR 8/4"}],"piles":5,"routes":["straight"],
         "palette":["titanium-white","yellow-ochre","burnt-sienna","ultramarine-blue"]}' | npx dusk string
    → {"mothers":[{"name":"mother of pile 1","parts":{…}},…],"piles":[{"target":{"lab":[…],"hex":"…"},"recipe":{"parts":{…},…}},…]}

A stop is a colour, a mixture {"parts":{…}} or a relative target. "routes", one for each stretch: straight, neutral, warm, cool.
"limits" and "illuminant" as in dusk solve. Instead of "stops": "around":{"of":{"hex":"#8a6b4f"},"dark":2,"light":8,"chroma":1}
goes from a colour to dark and light; "pair":{"of":{"munsell":"N 5/"},"temperature":4} gives a warm and a cool pile of one value.
Each pile is 4 ml unless "amount_ml" says so; "measure" (eye, parts, beads, scale): "measured" tells mothers and piles that way.`,
  run: (input) => {
    const known = ['stops', 'around', 'pair', 'piles', 'routes', 'palette', 'limits', 'illuminant', 'amount_ml', 'measure'] as const;
    const { stops, around, pair, piles, routes, palette, limits, illuminant, amount_ml, measure } = fieldsOf(input, known);
    if (routes !== undefined && !Array.isArray(routes)) throw new CraftError('target', 'routes must be a list, as ["warm"].');
    const laid = paletteFromInput({ palette, limits, illuminant });
    const { light } = laid.eye;
    const amountMl = amountFromInput(amount_ml);
    const telling = measure === undefined ? undefined : { palette: laid, amountMl, measure: measureFromInput(measure) };
    if (pair !== undefined) {
      const { of, temperature } = fieldsOf(pair, ['of', 'temperature']);
      const two = warmAndCool(targetFromInput(of, light), finite('target', 'temperature', temperature));
      const { mothers, recipes } = hangTogether(laid, two, amountMl);
      return writtenString(
        mothers,
        two.map((target, i) => ({ target, recipe: recipes[i]! })),
        telling,
      );
    }
    const targets = around === undefined ? stopsFromInput(stops, light) : stopsAround(around, light);
    const made = stringOf(laid, targets, finite('target', 'piles', piles), routes as Route[] | undefined, amountMl);
    return writtenString(made.mothers, made.piles, telling);
  },
};

/** Piles, and the mixtures they are made from; heaps mixed first for a mother stand before it. */
const writtenString = (mothers: readonly Mother[], piles: readonly StringPile[], telling?: Telling) => ({
  mothers: mothers.reduce<{ readonly name: string; readonly parts: Record<string, number> }[]>((all, { name, mixture }) => {
    const { parts, letdowns } = writtenMixture(
      mixture,
      all.map((m) => m.name),
    );
    return [...all, ...letdowns, { name, parts }];
  }, []),
  piles: piles.map(({ target, recipe }) => written(target, recipe)),
  ...(telling && { measured: toldOf(mothers, piles, telling) }),
});

interface Telling {
  readonly palette: Palette;
  readonly amountMl: number;
  readonly measure: Measure;
}

/** Mothers and piles in one way of measuring; what a pile takes of its mother is measured with the knife. */
function toldOf(mothers: readonly Mother[], piles: readonly StringPile[], { palette, amountMl, measure }: Telling) {
  const made = new Map<string, PaintCurves>();
  const paintOf = (leaf: Source): PaintCurves =>
    isPile(leaf) ? made.get(leaf.pile)! : palette.ingredients.find(({ id }) => isTube(leaf) && id === leaf.tube)!;
  for (const { name, mixture } of mothers) made.set(name, paintOfMixture(mixture, paintOf));
  const told = (mixture: Mother['mixture']) => writtenSteps(mixture, amountMl, measure, palette, made);
  return {
    mothers: mothers.map(({ name, mixture }) => ({ name, heaps: told(mixture) })),
    piles: piles.map(({ recipe }) => told(recipe.mixture)),
  };
}

const written = (target: Lab, recipe: Recipe) => ({
  target: writtenColour(target),
  value: rounded(valueOfLightness(target[0])),
  recipe: writtenRecipe(recipe),
});

function stopsFromInput(stops: unknown, light: Illuminant): Lab[] {
  if (!Array.isArray(stops) || stops.length > 20) throw new CraftError('target', 'stops must be a list of 2 to 20 colours.');
  return stops.map((stop) => targetFromInput(stop, light));
}

/** From a pile to dark and to light, its hue held and its chroma held or led. */
function stopsAround(around: unknown, light: Illuminant): Lab[] {
  const { of, dark, light: lightest, chroma } = fieldsOf(around, ['of', 'dark', 'light', 'chroma']);
  const middle = targetFromInput(of, light);
  const share = chroma === undefined ? 1 : finite('target', 'chroma', chroma);
  const end = (name: string, value: unknown): Lab => {
    const v = finite('target', name, value);
    if (v < 0 || v > 10 || share < 0 || share > 3)
      throw new CraftError('target', 'dark and light are values from 0 to 10, chroma a share from 0 to 3.');
    return keyedTo(middle, v, share);
  };
  return [end('dark', dark), middle, end('light', lightest)];
}
