import type { Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { planFor } from '../matching/find.ts';
import { layPalette, type Palette, type PaletteMix } from '../laying/palette.ts';
import { paintOn, recipeOf, type Recipe } from '../matching/recipe.ts';
import { paintOfMixture } from '../mixing/open.ts';
import { measurings, type Mixture } from '../mixing/mixture.ts';

/** A mixture that is made first and in quantity, of which several piles take. */
export interface Mother {
  readonly name: string;
  readonly mixture: Mixture;
  /** Share of volume of each tube. */
  readonly flat: Readonly<Record<string, number>>;
}

/** Piles that are made from few mothers. */
export interface Family {
  readonly mothers: readonly Mother[];
  /** One for each target; those made from mothers name them as piles. */
  readonly recipes: readonly Recipe[];
}

/** A pile as it would be made by itself, and ΔE00 up to which it may be made in another way. */
export interface Alone {
  readonly target: Lab;
  readonly recipe: Recipe;
  readonly allowed: Delta;
}

/** ΔE00 that a pile may lose to its own recipe for being made from mothers, and value steps it may be off. */
const MOST_LOST = 0.5;
const VALUE_EVEN = 0.06;

const tubesOf = ({ flat }: Recipe): readonly string[] => Object.keys(flat).sort();
/** What the mother that is a pile of the row is called. */
const nameOf = (at: number): string => `mother of pile ${at + 1}`;

/** Ways of taking from the ends of a run: the two by themselves, and either or both with one tube more. Indices on a palette of tubes, then the ends. */
function waysOn({ ingredients }: Palette): number[][] {
  const tubes = ingredients.length - 2;
  const [one, other] = [tubes, tubes + 1];
  const each = Array.from({ length: tubes }, (_, i) => i);
  return [
    [one, other],
    ...each.flatMap((tube) => [
      [tube, one],
      [tube, other],
      [tube, one, other],
    ]),
  ];
}

interface Made {
  readonly at: number;
  readonly recipe: Recipe;
}

/** Piles between two that are made by themselves, made of these and a tube; where one cannot be, its middle pile becomes a mother, too. */
class Run {
  readonly made = new Map<number, Recipe>();
  readonly mothers = new Set<number>();

  constructor(
    private readonly palette: Palette,
    private readonly piles: readonly Alone[],
    private readonly amountMl: number | undefined,
  ) {}

  between(from: number, to: number): void {
    if (to - from < 2) return;
    const found = this.inside(from, to);
    if (found) {
      for (const { at, recipe } of found) this.made.set(at, recipe);
      this.mothers.add(from).add(to);
      return;
    }
    if (to - from < 3) return;
    const middle = Math.floor((from + to) / 2);
    this.between(from, middle);
    this.between(middle, to);
  }

  private inside(from: number, to: number): Made[] | undefined {
    const { palette, piles } = this;
    const paintOf = paintOn(palette);
    const wanted = tubesOf(piles[from]!.recipe);
    const tubes = palette.ingredients.filter(({ id, tubes: inside }) => !inside && wanted.includes(id));
    const ends = [from, to].map((at): PaletteMix => {
      const { mixture, flat } = piles[at]!.recipe;
      return { id: nameOf(at), ...paintOfMixture(mixture, paintOf), flat };
    });
    const laid = layPalette(tubes, palette.limits, palette.eye.viewing, ends);
    const ways = waysOn(laid);
    const found: Made[] = [];
    for (let at = from + 1; at < to; at++) {
      const { target, recipe, allowed } = piles[at]!;
      const most = Math.max(recipe.deltaE00, Math.min(recipe.deltaE00 + MOST_LOST, allowed));
      const best = ways
        .flatMap((set) => planFor(laid, set, { target, valueTolerance: VALUE_EVEN, closest: 'in one heap', amountMl: this.amountMl }) ?? [])
        .filter(({ deltaE00 }) => deltaE00 <= most)
        .map((plan) => recipeOf(laid, plan, target))
        .filter((one) => Math.abs(one.valueError) <= Math.max(VALUE_EVEN, Math.abs(recipe.valueError)))
        .filter((one) => measurings(one.mixture) < measurings(recipe.mixture))
        .sort((a, b) => measurings(a.mixture) - measurings(b.mixture) || a.score - b.score)[0];
      if (!best) return undefined;
      found.push({ at, recipe: best });
    }
    return found;
  }
}

/** Stretches of piles that are made of the same tubes. */
function stretches(piles: readonly Alone[]): (readonly [from: number, to: number])[] {
  const all: [number, number][] = [];
  piles.forEach(({ recipe }, i) => {
    const last = all.at(-1);
    if (last && tubesOf(piles[last[1]]!.recipe).join() === tubesOf(recipe).join()) last[1] = i;
    else all.push([i, i]);
  });
  return all;
}

/**
 * Makes a row of piles from as few measurings as it can: of every stretch of the same tubes the piles at
 * its ends are mothers, and those between are made of these and at most one tube more, where that
 * loses little. Where it does not, a pile between becomes a mother.
 */
export function fromMothers(palette: Palette, piles: readonly Alone[], amountMl?: number): Family {
  const runs = stretches(piles).map(([from, to]) => {
    const run = new Run(palette, piles, amountMl);
    run.between(from, to);
    return run;
  });
  const mothers = [...new Set(runs.flatMap((run) => [...run.mothers]))].sort((a, b) => a - b);
  const made = new Map(runs.flatMap((run) => [...run.made]));
  return {
    mothers: mothers.map((at) => {
      const { mixture, flat } = piles[at]!.recipe;
      return { name: nameOf(at), mixture, flat };
    }),
    recipes: piles.map(({ recipe }, at) =>
      mothers.includes(at)
        ? { ...recipe, mixture: { heaps: [{ ingredients: [{ pile: nameOf(at), parts: 1 }] }] } }
        : (made.get(at) ?? recipe),
    ),
  };
}
