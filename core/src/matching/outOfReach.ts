import { labToLch, type Lab } from '../colour/spaces.ts';
import { findPlans } from './find.ts';
import { atOnce, type InSteps } from './inSteps.ts';
import { withTube, type Palette, type PaletteTube } from '../laying/palette.ts';
import { hueGap, recipeOf, type Recipe } from './recipe.ts';
import { reachOf, type Reach } from './passing.ts';

/** The nearest there is to a target out of reach, in three ways. */
export interface Nearest {
  /** Value held, whatever else gives way. */
  readonly byValue: Recipe;
  /** Hue held; nothing for a target that has no hue to speak of. */
  readonly byHue: Recipe | undefined;
  readonly overall: Recipe;
}

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

/** The nearest recipes of three kinds. */
export function nearestKinds(palette: Palette, target: Lab): Nearest {
  const held = (hold: 'value' | 'hue' | 'all'): Recipe => recipeOf(palette, findPlans(palette, { target, hold }, 1)[0]!, target);
  return {
    byValue: held('value'),
    byHue: labToLch(target)[1] > HUELESS ? held('hue') : undefined,
    overall: held('all'),
  };
}

/** A tube of the rack and how near the palette would come with it. */
export interface TubeAdvice {
  readonly id: string;
  readonly deltaE00: number;
  readonly reach: Reach;
}

/** The one tube of the rack that brings a target nearest, best first, a little at a time. */
export function* tubesInSteps(palette: Palette, rack: readonly PaletteTube[], target: Lab, most = 3): InSteps<TubeAdvice[]> {
  const here = new Set(palette.ingredients.map((t) => t.id));
  const open = rack.filter((t) => !here.has(t.id));
  const advice: TubeAdvice[] = [];
  for (const tube of open) {
    const wider = withTube(palette, tube);
    const mustUse = [wider.ingredients.length - 1];
    const [found] = findPlans(wider, { target, mustUse, hold: 'all' }, 1);
    if (found) {
      const { deltaE00, ...stands } = recipeOf(wider, found, target);
      advice.push({ id: tube.id, deltaE00, reach: reachOf({ deltaE00, ...stands }) });
    }
    yield advice.length / open.length;
  }
  return advice.sort((a, b) => a.deltaE00 - b.deltaE00).slice(0, most);
}

export const tubesThatReach = (palette: Palette, rack: readonly PaletteTube[], target: Lab, most?: number): TubeAdvice[] =>
  atOnce(tubesInSteps(palette, rack, target, most));
