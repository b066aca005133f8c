import { deltaE00From } from '../colour/difference.ts';
import { hueDegrees, hueDifference, labToLch, type Lab } from '../colour/spaces.ts';
import { valueOfLightness } from '../colour/value.ts';
import { atOnce, bookInSteps, type Book, type InSteps } from './book.ts';
import type { PaletteTube } from './ingredients.ts';
import { hueGap, readRecipe, type Recipe } from './recipe.ts';
import { best, reachOf, type Reach } from './solve.ts';

/** The nearest there is to a target out of reach, in three ways. */
export interface Nearest {
  /** Least ΔE00 among those of the target's value, or of the nearest value there is. */
  readonly byValue: Recipe;
  /** Least ΔE00 among those of the target's hue, if the palette has any. */
  readonly byHue: Recipe | undefined;
  readonly overall: Recipe;
}

const SAME_VALUE = 0.1;
const SAME_HUE = 4;
/** Below this chroma a colour has no hue to speak of. */
const HUELESS = 5;

/** What gives way where a palette does not reach, largest first. */
export function givesWay(recipe: Pick<Recipe, 'valueError' | 'hueError' | 'chromaError' | 'lab'>): string[] {
  const { valueError, chromaError } = recipe;
  const all: readonly (readonly [amount: number, says: string])[] = [
    [Math.abs(valueError) * 10, valueError > 0 ? 'too light' : 'too dark'],
    [Math.abs(chromaError) * 0.6, chromaError > 0 ? 'too strong' : 'too dull'],
    [hueGap(recipe) * 0.8, 'another hue'],
  ];
  return all
    .filter(([amount]) => amount > 2.5)
    .sort((a, b) => b[0] - a[0])
    .map(([, says]) => says);
}

/** Recipes gone through between two steps: a few milliseconds. */
const STRIDE = 40_000;

/** Goes through the whole book for the nearest recipes of three kinds, a little at a time. */
export function* nearestInSteps(book: Book, target: Lab): InSteps<Nearest> {
  const deltaE = deltaE00From(target);
  const wantedValue = valueOfLightness(target[0]);
  const [, C, hue] = labToLch(target);
  let leastValueError = Infinity;
  for (let i = 0; i < book.count; i++) leastValueError = Math.min(leastValueError, Math.abs(book.value[i]! - wantedValue));
  const valueBand = Math.max(SAME_VALUE, leastValueError + 0.02);
  const found = { value: -1, hue: -1, overall: -1 };
  const least = { value: Infinity, hue: Infinity, overall: Infinity };
  const offer = (kind: keyof typeof found, i: number, d: number): void => {
    if (d >= least[kind]) return;
    least[kind] = d;
    found[kind] = i;
  };
  for (let i = 0; i < book.count; i++) {
    if (i % STRIDE === 0) yield i / book.count;
    const a = book.a[i]!;
    const b = book.b[i]!;
    const d = deltaE(book.L[i]!, a, b);
    offer('overall', i, d);
    if (Math.abs(book.value[i]! - wantedValue) <= valueBand) offer('value', i, d);
    if (C > HUELESS && Math.hypot(a, b) > HUELESS && Math.abs(hueDifference(hue, hueDegrees(a, b))) <= SAME_HUE) offer('hue', i, d);
  }
  return {
    byValue: readRecipe(book, found.value, target),
    byHue: found.hue < 0 ? undefined : readRecipe(book, found.hue, target),
    overall: readRecipe(book, found.overall, target),
  };
}

export const nearestKinds = (book: Book, target: Lab): Nearest => atOnce(nearestInSteps(book, target));

/** A tube of the rack and how near the palette would come with it. */
export interface TubeAdvice {
  readonly id: string;
  readonly deltaE00: number;
  readonly reach: Reach;
}

/** Small books suffice to tell tubes apart. */
const SCOUTING = { tubes: 3, parts: 9 } as const;

/** The one tube of the rack that brings a target nearest, best first, a little at a time. */
export function* tubesInSteps(palette: readonly PaletteTube[], rack: readonly PaletteTube[], target: Lab, most = 3): InSteps<TubeAdvice[]> {
  const here = new Set(palette.map((t) => t.id));
  const open = rack.filter((t) => !here.has(t.id));
  const advice: TubeAdvice[] = [];
  for (const tube of open) {
    const making = bookInSteps([...palette, tube], SCOUTING);
    let step = making.next();
    for (; !step.done; step = making.next()) yield advice.length / open.length;
    const recipe = best(step.value, target);
    advice.push({ id: tube.id, deltaE00: recipe.deltaE00, reach: reachOf(recipe) });
  }
  return advice.sort((a, b) => a.deltaE00 - b.deltaE00).slice(0, most);
}

export const tubesThatReach = (palette: readonly PaletteTube[], rack: readonly PaletteTube[], target: Lab, most?: number): TubeAdvice[] =>
  atOnce(tubesInSteps(palette, rack, target, most));
