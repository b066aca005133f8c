import { deltaE00, firstWay, inShadow, layPalette, moved, nextPiles, best, paintOfMixture, type Lab } from '../src/index.ts';
import { paintOn } from '../src/matching/recipe.ts';
import { ADVICE_PALETTES, knownTubes } from './advicePalettes.ts';
import { everydayLabs } from './everyday.ts';
import { at, timed } from './palettes.ts';

/** One step that is asked of a pile, on how many piles, and how each way answers it. */
export interface NextRow {
  readonly asked: string;
  readonly way: string;
  readonly p50: number;
  readonly p90: number;
  readonly growth: number | undefined;
  readonly oneHeap: number;
}

const STEPS: Readonly<Record<string, (lab: Lab) => Lab>> = {
  'a step darker': (lab) => moved(lab, { value: -1 }),
  'half a step lighter': (lab) => moved(lab, { value: 0.5 }),
  'a little less blue': (lab) => moved(lab, { temperature: 3 }),
  'in shadow': (lab) => inShadow(lab, 1),
};

/** How the next pile is got from forty that are there. */
export function nextRows(name = 'twelve, ordinary'): { readonly rows: readonly NextRow[]; readonly told: number; readonly ms: number } {
  const tubes = knownTubes(ADVICE_PALETTES[name]!);
  const palette = layPalette(tubes);
  const piles = everydayLabs()
    .filter(([L]) => L > 30 && L < 88)
    .filter((_, i) => i % 2 === 0)
    .slice(0, 40);
  const rows: NextRow[] = [];
  let short = 0;
  let asked = 0;
  const times: number[] = [];
  for (const [step, move] of Object.entries(STEPS)) {
    const found = piles.map((target) => {
      const { mixture, flat, lab } = best(palette, target);
      const laid = layPalette(tubes, undefined, undefined, [{ id: 'pile', flat, ...paintOfMixture(mixture, paintOn(palette)) }]);
      const wanted = move(lab);
      const { result, ms } = timed(() => nextPiles(laid, 'pile', wanted, { amountMl: 4 }));
      times.push(ms);
      asked++;
      if (firstWay(result)!.deltaE00 > 2 && deltaE00(wanted, best(palette, wanted).lab) <= 2) short++;
      return result;
    });
    for (const way of ['own tubes', 'anew', 'one thing', 'closest'] as const) {
      const own = found.flatMap((ways) => ways.find((one) => one.way === way) ?? []);
      if (own.length === 0) continue;
      const misses = own.map(({ deltaE00: off }) => off);
      const growths = own.flatMap(({ growth }) => growth ?? []);
      rows.push({
        asked: step,
        way: `${way} (${own.length})`,
        p50: at(misses, 0.5),
        p90: at(misses, 0.9),
        growth: growths.length > 0 ? at(growths, 0.5) : undefined,
        oneHeap: (100 * own.filter(({ mixture }) => mixture.heaps.length === 1).length) / own.length,
      });
    }
  }
  return { rows, told: (100 * short) / asked, ms: at(times, 0.9) };
}
