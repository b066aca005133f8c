import { colourName } from '../colour/names.ts';
import type { Lab } from '../colour/spaces.ts';
import { labOf, mixCurves, reflectance } from '../paint/mix.ts';
import { isHeap, type Heap, type Leaf, type Mixture } from './mixture.ts';
import { portionsOf, type PaintOf } from './open.ts';

/**
 * What a mix is called that is made first: what is weakened and with what, or its colour, as a painter would
 * point at it.
 * @param colour of the heap as it lies there
 * @param nameOf what a tube or a pile is called
 * @param isPale whether a tube or a pile is a paint that others are weakened with
 */
export function heapName({ ingredients }: Heap, colour: Lab, nameOf: (leaf: Leaf) => string, isPale: (leaf: Leaf) => boolean): string {
  const strong = ingredients.find(({ parts }) => parts === 1);
  const base = ingredients.find((ingredient) => ingredient !== strong && ingredient.parts > 1);
  if (ingredients.length === 2 && strong && base && !isHeap(base) && !isHeap(strong)) {
    if (isPale(base)) return `weakened ${lowerFirst(nameOf(strong))}`;
  }
  return `${colourName(colour)} mix`;
}

/** The colour of a heap of a mixture as it lies there. */
export const heapColour = (mixture: Mixture, heap: Heap, paintOf: PaintOf): Lab =>
  labOf(reflectance(mixCurves(portionsOf(mixture, heap, paintOf))));

/** A name within a sentence: a tube's own capitals stay where it is a code. */
const lowerFirst = (name: string): string => (/^[A-Z][a-z]/.test(name) ? name[0]!.toLowerCase() + name.slice(1) : name);

/** A name, numbered where others are called so. */
export function firstFree(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name;
  let n = 2;
  while (taken.includes(`${name} ${n}`)) n++;
  return `${name} ${n}`;
}
