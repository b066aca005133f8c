import {
  best,
  colourFromText,
  layPalette,
  measurings,
  stringOf,
  valueOfLightness,
  type Mixture,
  type Palette,
  type Recipe,
} from '../src/index.ts';
import { ADVICE_PALETTES, knownTubes } from './advicePalettes.ts';
import { at, mean, timed } from './palettes.ts';

/** Strings from dark to light, and from one hue to another: stops and how many piles. */
const STRINGS = [
  ['5YR 3/3', '5YR 8.5/2', 6],
  ['10R 3/3', '7.5YR 8/3', 8],
  ['5PB 3/3', '10BG 8/2', 7],
  ['N 2/', 'N 9/', 9],
  ['5GY 3/3', '5GY 8/3', 6],
  ['5PB 5/6', '2.5Y 8/6', 7],
] as const;

export interface HangingRow {
  readonly palette: string;
  /** Changes of tubes to three piles. */
  readonly changes: number;
  /** Largest difference of a step from an even one, in value steps. */
  readonly uneven: number;
  /** ΔE00 lost to the best recipe for each pile alone. */
  readonly lossP90: number;
  readonly lossMost: number;
  /** Tubes in a string, mean. */
  readonly tubes: number;
  /** Measurings to a pile, mothers counted, and as each pile alone would have. */
  readonly measurings: number;
  readonly alone: number;
  readonly ms: number;
}

/** How often something is measured; a pile that is a mother itself is there already. */
const measuringsOf = (mixture: Mixture): number => {
  const all = measurings(mixture);
  return all > 1 ? all : 0;
};
const tubesOf = ({ flat }: Recipe): string => Object.keys(flat).sort().join();

function hanging(name: string, palette: Palette): HangingRow {
  let piles = 0;
  let changes = 0;
  let measured = 0;
  let aloneMeasured = 0;
  let uneven = 0;
  const losses: number[] = [];
  const tubes: number[] = [];
  const times: number[] = [];
  for (const [from, to, n] of STRINGS) {
    const { result: made, ms } = timed(() => stringOf(palette, [colourFromText(from), colourFromText(to)], n));
    const { piles: string, mothers } = made;
    const values = string.map(({ recipe }) => valueOfLightness(recipe.lab[0]));
    const even = (valueOfLightness(string.at(-1)!.target[0]) - valueOfLightness(string[0]!.target[0])) / (n - 1);
    values.slice(1).forEach((value, i) => (uneven = Math.max(uneven, Math.abs(value - values[i]! - even))));
    string.slice(1).forEach(({ recipe }, i) => (changes += tubesOf(recipe) === tubesOf(string[i]!.recipe) ? 0 : 1));
    piles += n;
    measured += [...mothers, ...string.map(({ recipe }) => recipe)].reduce((sum, { mixture }) => sum + measuringsOf(mixture), 0);
    aloneMeasured += string.reduce((sum, { target }) => sum + measuringsOf(best(palette, target).mixture), 0);
    losses.push(...string.map(({ target, recipe }) => recipe.deltaE00 - best(palette, target).deltaE00));
    tubes.push(new Set(string.flatMap(({ recipe }) => Object.keys(recipe.flat))).size);
    times.push(ms);
  }
  const lossMost = Math.max(...losses);
  return {
    palette: name,
    changes: (3 * changes) / piles,
    uneven,
    lossP90: at(losses, 0.9),
    lossMost,
    tubes: mean(tubes),
    measurings: measured / piles,
    alone: aloneMeasured / piles,
    ms: at(times, 0.5),
  };
}

/** Six strings on each palette of six tubes and more. */
export const hangingRows = (): HangingRow[] =>
  Object.entries(ADVICE_PALETTES)
    .filter(([, slugs]) => slugs.length >= 6)
    .map(([name, slugs]) => hanging(name, layPalette(knownTubes(slugs))));
