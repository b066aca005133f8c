import { CATALOGUE, findPlans, layPalette, solve, tubesThatReach, type Lab, type Palette, type Recipe } from '../src/index.ts';
import { areOpposites, expectedDifference, loudness } from '../src/laying/worth.ts';
import { seeded } from '../src/random.ts';
import { ADVICE_PALETTES, knownTubes } from './advicePalettes.ts';
import { everydayLabs, isPale } from './everyday.ts';
import { bestOfFour } from './exact.ts';
import { at, mean, timed } from './palettes.ts';

/** What four tubes come to when they come near enough to be called in reach. */
const COULD = 1.5;

export interface AdviceRow {
  readonly palette: string;
  readonly tubes: number;
  readonly layMs: number;
  readonly p50: number;
  readonly p99: number;
  /** Colours of a hundred that four tubes come near. */
  readonly could: number;
  /** Of these, called near or out of reach. */
  readonly falsely: number;
  readonly falselyPale: number;
  /** ΔE00 of the first recipe beyond the best that four tubes can do. */
  readonly lossP50: number;
  readonly lossP90: number;
  readonly heaps: number;
  readonly headShakers: number;
  readonly avoidableOpposites: number;
}

/** Pigments that ask for care, by the catalogue. */
const asksCare = (id: string): boolean => ['cadmium', 'cobalt', 'lead', 'nickel'].includes(CATALOGUE.get(id)!.caution);

/** ΔE00 of the expected true difference that a quieter, safer or simpler recipe may cost more and still be the one a painter would take. */
const AS_GOOD = 0.25;

/**
 * Why a painter would shake the head at the first recipe: more than two heaps mixed first, a pigment that
 * asks for care, a loud tube in a dull colour or opposites where as good a recipe does without, or an
 * alternative far worse than the best.
 */
export function headShaker(palette: Palette, target: Lab): string | undefined {
  const { recipes } = solve(palette, target);
  const [first, ...others] = [...recipes] as unknown as [Recipe, ...Recipe[]];
  const used = Object.keys(first.flat);
  if (first.mixture.heaps.length > 3) return 'three heaps to mix first';
  if (first.deltaE00 < 2 && others.some((o) => o.deltaE00 > 5)) return 'a bad alternative';
  const all = findPlans(palette, { target }, 40);
  const setOf = (f: (typeof all)[number]): string[] => f.plan.set.map((i) => palette.ingredients[i]!.id);
  const asGood = all.filter(
    (f) => expectedDifference(f.deltaE00, f.error, f.dosing) <= first.expected + AS_GOOD && f.deltaE00 <= Math.max(2, first.deltaE00),
  );
  const without = (bad: (ids: readonly string[]) => boolean): boolean =>
    bad(used) && asGood.some((f) => !bad(setOf(f)) && f.plan.heaps.length <= first.mixture.heaps.length);
  if (without((ids) => ids.some(asksCare))) return 'a pigment that asks for care';
  if (hasOpposites(palette, used) && without((ids) => hasOpposites(palette, ids))) return 'opposites';
  const dull = Math.hypot(target[1], target[2]) < 20;
  const tint = (id: string) => palette.tints[palette.ingredients.findIndex((i) => i.id === id)]!;
  if (dull && without((ids) => ids.some((id) => loudness(tint(id)) > 0.9))) return 'a loud tube';
  return undefined;
}

function hasOpposites(palette: Palette, ids: readonly string[]): boolean {
  const tints = ids.map((id) => palette.tints[palette.ingredients.findIndex((i) => i.id === id)]!);
  return tints.some((one, i) => tints.some((other, j) => j > i && areOpposites(one, other)));
}

/** Advice on one palette over the hundred everyday colours. */
function adviceOn(name: string, slugs: readonly string[], labs: readonly Lab[]): AdviceRow {
  layPalette(knownTubes(slugs));
  const { result: palette, ms: layMs } = timed(() => layPalette(knownTubes(slugs)));
  for (const target of labs) findPlans(palette, { target });
  const found = labs.map((target) => timed(() => findPlans(palette, { target })[0]!));
  const times = found.map((f) => f.ms);
  const truth = labs.map((target) => bestOfFour(palette, target));
  const reachable = labs.map((_, i) => i).filter((i) => truth[i]! <= COULD);
  const missed = reachable.filter((i) => found[i]!.result.deltaE00 > 2);
  const loss = labs.map((_, i) => found[i]!.result.deltaE00 - truth[i]!);
  const shakers = labs.map((target) => headShaker(palette, target));
  return {
    palette: name,
    tubes: slugs.length,
    layMs,
    p50: at(times, 0.5),
    p99: at(times, 0.99),
    could: reachable.length,
    falsely: missed.length,
    falselyPale: missed.filter((i) => isPale(labs[i]!)).length,
    lossP50: at(loss, 0.5),
    lossP90: at(loss, 0.9),
    heaps: mean(found.map(({ result }) => result.plan.heaps.length - 1)),
    headShakers: shakers.filter(Boolean).length,
    avoidableOpposites: shakers.filter((why) => why === 'opposites').length,
  };
}

export const adviceRows = (): AdviceRow[] => {
  const labs = everydayLabs();
  return Object.entries(ADVICE_PALETTES).map(([name, slugs]) => adviceOn(name, slugs, labs));
};

/** How often a tube more makes an answer worse, over random palettes and everyday colours. */
export function addingATube(pairs = 200, colours = 8): { readonly asked: number; readonly worse: number; readonly worst: number } {
  const random = seeded(3);
  const all = [...CATALOGUE.keys()];
  const labs = everydayLabs();
  let asked = 0;
  let worse = 0;
  let worst = 0;
  for (let k = 0; k < pairs; k++) {
    const shuffled = all.map((id) => [random(), id] as const).sort((a, b) => a[0] - b[0]);
    const slugs = shuffled.slice(0, 3 + Math.floor(random() * 14)).map(([, id]) => id);
    if (k % 2 && !slugs.includes('titanium-white')) slugs[0] = 'titanium-white';
    const fewer = layPalette(knownTubes(slugs.slice(0, -1)));
    const more = layPalette(knownTubes(slugs));
    for (let i = 0; i < colours; i++) {
      const target = labs[Math.floor(random() * labs.length)]!;
      const by = findPlans(more, { target })[0]!.score - findPlans(fewer, { target })[0]!.score;
      asked++;
      if (by > 0.1) worse++;
      worst = Math.max(worst, by);
    }
  }
  return { asked, worse, worst };
}

/** The nearest in three ways, and the tube of a rack of thirty that would help, each in ms. */
export function outOfReachTimes(): { readonly nearest: number; readonly rack: number } {
  const palette = layPalette(knownTubes(ADVICE_PALETTES['twelve, ordinary']!));
  const rack = knownTubes([...CATALOGUE.keys()].filter((id) => !palette.ingredients.some((t) => t.id === id)).slice(0, 30));
  const target: Lab = [45, -60, 40];
  const nearest = Array.from(
    { length: 20 },
    () => timed(() => (['value', 'hue', 'all'] as const).map((hold) => findPlans(palette, { target, hold }))).ms,
  );
  const advice = Array.from({ length: 4 }, () => timed(() => tubesThatReach(palette, rack, target)).ms);
  return { nearest: at(nearest, 0.5), rack: at(advice, 0.5) };
}
