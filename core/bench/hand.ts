import {
  deltaE00,
  deviate,
  drawDeviation,
  findPlans,
  isHeap,
  labOf,
  layPalette,
  measureOut,
  mixCurves,
  recipeOf,
  reflectance,
  USUAL_SPREAD,
  type Lab,
  type Mixture,
  type Palette,
  type PaintCurves,
  type PaletteTube,
} from '../src/index.ts';
import { normal, seeded } from '../src/random.ts';
import { ADVICE_PALETTES, knownTubes } from './advicePalettes.ts';
import { everydayLabs } from './everyday.ts';
import { bestOfFour } from './exact.ts';
import { mean } from './palettes.ts';

/** ΔE00 up to which a palette's tubes have a colour in reach. */
const COULD = 1.5;
/** Studios of hidden tubes in which every recipe is mixed. */
const STUDIOS = 24;
const HANDLING = { density: 1.5, nozzleMm: 6 };
const SHORTEST_MM = 3;

/** What a hand makes of a mixture: every dose laid as well as a hand lays it, each heap in its order. */
export function mixedByHand(mixture: Mixture, ml: number, paintOf: (id: string) => PaintCurves, random: () => number): Lab {
  const measured = measureOut(mixture, ml, () => HANDLING);
  const made: PaintCurves[] = [];
  mixture.heaps.forEach(({ ingredients }, at) => {
    const laid = ingredients.map((one, i) => {
      const { ml: wanted, beadMm } = measured[at]!.amounts[i]!;
      const touches = Math.max(1, Math.ceil(wanted / 0.02 - 1e-9));
      const sigma = beadMm < SHORTEST_MM - 1e-9 ? 0.4 / Math.sqrt(touches) : Math.hypot(0.1, 0.7 / beadMm);
      const paint = isHeap(one) ? made[one.heap]! : paintOf('tube' in one ? one.tube : one.pile);
      return { paint, parts: wanted * Math.max(0.05, 1 + sigma * normal(random)) };
    });
    made.push(mixCurves(laid));
  });
  return labOf(reflectance(made.at(-1)!));
}

/** Of tubes in their typical states, so many hidden studios. */
export function studios(tubes: readonly PaletteTube[]): ((id: string) => PaintCurves)[] {
  const random = seeded(17);
  return Array.from({ length: STUDIOS }, () => {
    const hidden = new Map(tubes.map((t) => [t.id, deviate(t, drawDeviation(USUAL_SPREAD, random))]));
    return (id: string) => hidden.get(id)!;
  });
}

/**
 * What the first recipes came to before they were measured for a hand, by the same reckoning on the same colours:
 * one heap, two heaps first, three tubes or fewer (per cent), expected true difference for 4 and for 1.5 ml.
 */
export const BEFORE: Readonly<Record<string, readonly [oneHeap: number, twoFirst: number, threeTubes: number, at4: number, at15: number]>> =
  {
    'three: white, sienna, ultramarine': [50, 30, 100, 2.99, 3.13],
    'four earths': [18, 18, 45, 2.89, 3.0],
    'four: strong primaries': [2, 60, 12, 5.29, 5.58],
    'six, mixed darks': [13, 25, 41, 3.82, 3.98],
    'eight for skin': [19, 21, 36, 2.8, 2.97],
    'twelve, ordinary': [25, 13, 36, 2.76, 2.91],
    'sixteen, outdoors': [24, 11, 36, 2.8, 2.96],
    'twenty-four': [34, 7, 39, 2.58, 2.71],
  };

export interface HandRow {
  readonly palette: string;
  readonly ml: number;
  readonly inReach: number;
  /** Shares of the recipes, in per cent. */
  readonly oneHeap: number;
  readonly twoHeapsFirst: number;
  readonly threeTubes: number;
  /** Mean ΔE00 of what a hand mixes from hidden tubes, and of what is predicted. */
  readonly expected: number;
  readonly predicted: number;
  readonly shortBeads: number;
}

/** The first recipe for every everyday colour that is in reach. */
export function handOn(name: string, slugs: readonly string[], ml: number, labs: readonly Lab[]): HandRow {
  const tubes = knownTubes(slugs);
  const palette: Palette = layPalette(tubes);
  const hidden = studios(tubes);
  const random = seeded(5);
  const reachable = labs.filter((target) => bestOfFour(palette, target) <= COULD);
  const rows = reachable.map((target) => {
    const recipe = recipeOf(palette, findPlans(palette, { target, amountMl: ml }, 1)[0]!, target);
    const measured = measureOut(recipe.mixture, ml, () => HANDLING);
    const short = measured
      .flatMap(({ amounts }) => amounts)
      .filter((a) => a.beadMm < SHORTEST_MM - 1e-6 && (a.touches === undefined || a.ml < 0.008)).length;
    const off = hidden.map((paintOf) => deltaE00(target, mixedByHand(recipe.mixture, ml, paintOf, random)));
    return { heaps: recipe.mixture.heaps.length, tubes: Object.keys(recipe.flat).length, off: mean(off), deltaE: recipe.deltaE00, short };
  });
  const share = (is: (row: (typeof rows)[number]) => boolean): number => (100 * rows.filter(is).length) / rows.length;
  return {
    palette: name,
    ml,
    inReach: rows.length,
    oneHeap: share(({ heaps }) => heaps === 1),
    twoHeapsFirst: share(({ heaps }) => heaps > 2),
    threeTubes: share((row) => row.tubes <= 3),
    expected: mean(rows.map(({ off }) => off)),
    predicted: mean(rows.map(({ deltaE }) => deltaE)),
    shortBeads: rows.reduce((sum, { short }) => sum + short, 0),
  };
}

export const handRows = (amounts: readonly number[] = [4, 1.5]): HandRow[] => {
  const labs = everydayLabs();
  return amounts.flatMap((ml) => Object.entries(ADVICE_PALETTES).map(([name, slugs]) => handOn(name, slugs, ml, labs)));
};
