import {
  CATALOGUE,
  firstFree,
  isHeap,
  isTube,
  labToHex,
  stepsOf,
  trustIn,
  type Heap,
  type Ingredient,
  type Handling,
  type KnownPaints,
  type Leaf,
  type Measure,
  type KnownDoubts,
  type KnownPortion,
  type Lab,
  type Laying,
  type Mixture,
  type PaintCurves,
  type Palette,
  type Portion,
  type Recipe,
} from '@dusk/core';
import { rounded, roundedList } from './command.ts';
import { tubeOf } from './ownTubes.ts';

export const writtenShares = (flat: Readonly<Record<string, number>>): Record<string, number> =>
  Object.fromEntries(Object.entries(flat).map(([id, share]) => [id, rounded(share, 9)]));

/** ΔE00 that nine of ten mixtures from real tubes of these generic pigments stay within; of tubes that were learnt, what is still unknown of them. */
export function errorEstimate(portions: readonly NamedPortion[], doubts: KnownDoubts = {}, laying?: Laying): number {
  const { joint } = doubts;
  const known = portions.map((portion): KnownPortion => (joint?.ids.includes(portion.id) ? { ...portion, basis: 'learnt' } : portion));
  return rounded(trustIn(known, laying, doubts).errorEstimate, 2);
}

/** A portion of a tube by its name. */
export interface NamedPortion extends Portion {
  readonly id: string;
}

/** What a recipe takes of each tube of a palette. */
const portionsOf = ({ flat }: Recipe, palette?: Palette): NamedPortion[] => {
  const laid = new Map(palette?.ingredients.map((i) => [i.id, i]));
  return Object.entries(flat).map(([id, parts]) => ({ id, paint: laid.get(id) ?? tubeOf(id), parts }));
};

/** Names of the heaps that are mixed first: what is let down, or a body. */
function heapNames({ heaps }: Mixture, taken: readonly string[]): string[] {
  const names: string[] = [];
  for (const { ingredients } of heaps.slice(0, -1)) {
    const strong = ingredients.find(({ parts }) => parts === 1);
    const isLetDown = ingredients.length === 2 && strong !== undefined;
    const name = isLetDown ? `${nameOf(strong, names)} let down` : 'body';
    names.push(firstFree(name, [...taken, ...names]));
  }
  return names;
}

const nameOf = (ingredient: Ingredient, names: readonly string[]): string =>
  isHeap(ingredient) ? names[ingredient.heap]! : isTube(ingredient) ? ingredient.tube : ingredient.pile;

/** A heap of a mixture with its steps in mixing order, told in one way of measuring. @param made paints of piles that are mixed before it */
export function writtenSteps(
  mixture: Mixture,
  ml: number,
  measure: Measure,
  palette: Palette,
  made: ReadonlyMap<string, PaintCurves> = new Map(),
) {
  const byId = new Map(palette.ingredients.map((ingredient) => [ingredient.id, ingredient]));
  const of = (leaf: Leaf) => (isTube(leaf) ? leaf.tube : leaf.pile);
  const known: KnownPaints = {
    paintOf: (leaf) => made.get(of(leaf as Leaf)) ?? byId.get(of(leaf as Leaf))!,
    nameOf: of,
    handlingOf: (leaf) => handlingOf(of(leaf)),
    cautionOf: (leaf) => byId.get(of(leaf))?.caution ?? 'none',
  };
  const heaps = stepsOf(mixture, ml, known);
  const names = new Map(heapNames(mixture, []).map((name, at) => [heaps[at]!.name, name]));
  return heaps.map(({ name, ml: made, batch, colour, steps }, at, all) => ({
    heap: at === all.length - 1 ? 'the pile' : names.get(name)!,
    ml: rounded(made),
    ...(batch > 1.001 && { left_over_ml: rounded(made * (1 - 1 / batch)) }),
    hex: labToHex(colour),
    steps: steps.map(({ name: what, from, told, ml: dose, beadMm, touches, paint, after }) => ({
      of: from === 'heap' ? names.get(what)! : what,
      amount: told[measure],
      ml: rounded(dose, 6),
      ...(touches === undefined ? { bead_mm: rounded(beadMm, 2) } : { touches }),
      hex: labToHex(paint),
      after: labToHex(after),
    })),
  }));
}
/** Mouth of an ordinary tube, and what paint taken up with the knife weighs. */
export const NOZZLE_MM = 6;
export const KNIFE_DENSITY = 1.5;

/** How a tube is measured, or what is taken up with the knife. */
export const handlingOf = (id: string): Handling => ({ density: CATALOGUE.get(id)?.density ?? KNIFE_DENSITY, nozzleMm: NOZZLE_MM });

const writtenHeap = ({ ingredients }: Heap, names: readonly string[]): Record<string, number> =>
  Object.fromEntries(ingredients.map((ingredient) => [nameOf(ingredient, names), ingredient.parts]));

/**
 * The heaps of a mixture: those mixed first by their names, and the pile's own parts.
 * @param taken names that heaps have already
 */
export function writtenMixture(mixture: Mixture, taken: readonly string[] = []) {
  const names = heapNames(mixture, taken);
  const last = mixture.heaps.at(-1)!;
  const said = last.ingredients.flatMap((one) => (one.said === undefined ? [] : [[nameOf(one, names), one.said] as const]));
  return {
    parts: writtenHeap(last, names),
    ...(said.length > 0 && { said: Object.fromEntries(said) }),
    letdowns: names.map((name, i) => ({ name, parts: writtenHeap(mixture.heaps[i]!, names) })),
  };
}

/** A recipe as every command writes it. */
export const writtenRecipe = (recipe: Recipe, palette?: Palette, doubts?: KnownDoubts) => ({
  ...writtenMixture(recipe.mixture),
  flat: writtenShares(recipe.flat),
  deltaE00: rounded(recipe.deltaE00),
  valueError: rounded(recipe.valueError),
  lab: roundedList(recipe.lab),
  steadiness: rounded(recipe.steadiness),
  errorEstimate: errorEstimate(portionsOf(recipe, palette), doubts),
  expected: rounded(recipe.expected),
  score: rounded(recipe.score),
});

export const writtenColour = (lab: Lab) => ({ lab: roundedList(lab), hex: labToHex(lab) });
export const writtenDoses = (doses: readonly { readonly id: string; readonly parts: number }[]): Record<string, number> =>
  Object.fromEntries(doses.map(({ id, parts }) => [id, rounded(parts)]));
