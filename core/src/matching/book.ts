import type { Illuminant } from '../colour/illuminants.ts';
import { labForward } from '../colour/spaces.ts';
import { valueFromY } from '../colour/value.ts';
import { enumerate, type Enumeration, type IngredientSet } from './enumerate.ts';
import { ingredientsOf, type BookIngredient, type PaletteMix, type PaletteTube } from './ingredients.ts';
import { colouringOf } from './kernel/kernel.ts';
import type { Limits } from './limits.ts';
import { curveOrder, growTree, type LabTree } from './labTree.ts';

/**
 * Every recipe a palette allows within its limits, with the colour each gives as a thick glossy
 * film, ready to be looked up. Arrays run in the order of the tree's leaves.
 */
export interface Book {
  readonly ingredients: readonly BookIngredient[];
  readonly limits: Limits;
  readonly light: Illuminant;
  readonly count: number;
  readonly sets: readonly IngredientSet[];
  /** Number of the tubes in a set, let-downs opened: sets of the same tubes share it. */
  readonly kinOf: Uint32Array;
  readonly divisions: ReadonlyMap<number, readonly Uint8Array[]>;
  readonly L: Float32Array;
  readonly a: Float32Array;
  readonly b: Float32Array;
  /** Munsell value. */
  readonly value: Float32Array;
  /** What a recipe costs in effort, in units of ΔE00: see {@link practicality}. */
  readonly effort: Float32Array;
  /** Which set of ingredients, and which division of parts among them. */
  readonly setOf: Uint32Array;
  readonly divisionOf: Uint16Array;
  readonly tree: LabTree;
}

/** Work done a little at a time: it yields the share that is done, 0–1, and answers at the end. */
export type InSteps<T> = Generator<number, T, void>;

/** Does work in steps to its end at once. */
export function atOnce<T>(work: InSteps<T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** ΔE00 a painter would give away to do with one tube, one part or one let-down less. */
const TUBE_EFFORT = 0.25;
const PART_EFFORT = 0.02;
const LETDOWN_EFFORT = 0.8;

/** Effort of a set whatever its parts: more tubes and let-downs are each worth a little ΔE00. */
function setEffort(set: IngredientSet, all: readonly BookIngredient[]): number {
  const tubes = new Set(set.flatMap((i) => all[i]!.counts)).size;
  const letdowns = set.filter((i) => all[i]!.letdown).length;
  return (tubes - 1) * TUBE_EFFORT + letdowns * LETDOWN_EFFORT;
}

const partsEffort = (total: number): number => (total - 1) * PART_EFFORT;

/** Effort of a recipe, in ΔE00. */
export const practicality = (set: IngredientSet, parts: Uint8Array, all: readonly BookIngredient[]): number =>
  setEffort(set, all) + partsEffort(totalOf(parts));

const VALUE_STEPS = 4000;
/** Munsell value by Y in 4,000 steps per 100; straight between, good to 1e-4 above value 0.5. */
let valueTable: Float64Array | undefined;
function valueOfY(Y: number): number {
  valueTable ??= Float64Array.from({ length: VALUE_STEPS + 2 }, (_, i) => valueFromY((i * 100) / VALUE_STEPS));
  const at = Math.min(VALUE_STEPS, Math.max(0, (Y * VALUE_STEPS) / 100));
  const i = Math.floor(at);
  return valueTable[i]! + (valueTable[i + 1]! - valueTable[i]!) * (at - i);
}

interface Columns {
  readonly L: Float32Array;
  readonly a: Float32Array;
  readonly b: Float32Array;
  readonly value: Float32Array;
  readonly effort: Float32Array;
  readonly setOf: Uint32Array;
  readonly divisionOf: Uint16Array;
}

const emptyColumns = (count: number): Columns => ({
  L: new Float32Array(count),
  a: new Float32Array(count),
  b: new Float32Array(count),
  value: new Float32Array(count),
  effort: new Float32Array(count),
  setOf: new Uint32Array(count),
  divisionOf: new Uint16Array(count),
});

/** Divisions end to end, for the kernel. */
const endToEnd = (ways: readonly Uint8Array[]): Float32Array => Float32Array.from(ways.flatMap((parts) => Array.from(parts)));

/** Colours every recipe of the enumeration, set by set. */
function* colourAll({ sets, divisions, count }: Enumeration, all: readonly BookIngredient[], light: Illuminant): InSteps<Columns> {
  const columns = emptyColumns(count);
  const { L, a, b, value, effort, setOf, divisionOf } = columns;
  const colour = colouringOf(all, light);
  const laidOut = new Map([...divisions].map(([size, ways]) => [size, endToEnd(ways)]));
  const totals = new Map([...divisions].map(([size, ways]) => [size, Float32Array.from(ways, totalOf)]));
  let at = 0;
  for (let s = 0; s < sets.length; s++) {
    const set = sets[s]!;
    const xyz = colour(set, laidOut.get(set.length)!);
    const whole = totals.get(set.length)!;
    const base = setEffort(set, all);
    for (let d = 0; d < whole.length; d++, at++) {
      const Y = xyz[3 * d + 1]!;
      const fy = labForward(Y);
      L[at] = 116 * fy - 16;
      a[at] = 500 * (labForward(xyz[3 * d]!) - fy);
      b[at] = 200 * (fy - labForward(xyz[3 * d + 2]!));
      value[at] = valueOfY(Y * 100);
      effort[at] = base + partsEffort(whole[d]!);
      setOf[at] = s;
      divisionOf[at] = d;
    }
    if ((s & 15) === 0) yield at / count;
  }
  return columns;
}

function totalOf(parts: Uint8Array): number {
  let total = 0;
  for (let k = 0; k < parts.length; k++) total += parts[k]!;
  return total;
}

function kinOf(sets: readonly IngredientSet[], all: readonly BookIngredient[]): Uint32Array {
  const kin = new Map<string, number>();
  return Uint32Array.from(sets, (set) => {
    const tubes = [...new Set(set.flatMap((i) => all[i]!.counts))].sort().join('\n');
    if (!kin.has(tubes)) kin.set(tubes, kin.size);
    return kin.get(tubes)!;
  });
}

type Column = Float32Array | Uint32Array | Uint16Array;

function reorder<T extends Column>(column: T, order: Uint32Array): T {
  const moved = new (column.constructor as new (length: number) => T)(column.length);
  for (let i = 0; i < order.length; i++) moved[i] = column[order[i]!]!;
  return moved;
}

/** Share of the making of a book that is colouring. */
const COLOURING = 0.85;

/** Makes the book of a palette a little at a time: see {@link makeBook}. */
export function* bookInSteps(
  tubes: readonly PaletteTube[],
  limits: Limits,
  light: Illuminant = 'D65',
  piles: readonly PaletteMix[] = [],
): InSteps<Book> {
  const ingredients = ingredientsOf(tubes, piles);
  const enumeration = enumerate(ingredients, limits);
  const colouring = colourAll(enumeration, ingredients, light);
  let step = colouring.next();
  for (; !step.done; step = colouring.next()) yield step.value * COLOURING;
  const columns = step.value;
  const order = curveOrder(columns.L, columns.a, columns.b);
  yield 0.9;
  const L = reorder(columns.L, order);
  const a = reorder(columns.a, order);
  const b = reorder(columns.b, order);
  const effort = reorder(columns.effort, order);
  yield 0.95;
  const tree = growTree(L, a, b, effort);
  return {
    ingredients,
    limits,
    light,
    count: enumeration.count,
    sets: enumeration.sets,
    kinOf: kinOf(enumeration.sets, ingredients),
    divisions: enumeration.divisions,
    L,
    a,
    b,
    value: reorder(columns.value, order),
    effort,
    setOf: reorder(columns.setOf, order),
    divisionOf: reorder(columns.divisionOf, order),
    tree,
  };
}

/**
 * Makes the book of a palette, and of piles that already lie on it.
 * @throws CraftError for a palette or limits that cannot be worked with.
 */
export const makeBook = (
  tubes: readonly PaletteTube[],
  limits: Limits,
  light: Illuminant = 'D65',
  piles: readonly PaletteMix[] = [],
): Book => atOnce(bookInSteps(tubes, limits, light, piles));

/** The ingredients and parts of recipe `i`. */
export function recipeAt(book: Book, i: number): { readonly set: IngredientSet; readonly parts: Uint8Array } {
  const set = book.sets[book.setOf[i]!]!;
  return { set, parts: book.divisions.get(set.length)![book.divisionOf[i]!]! };
}
