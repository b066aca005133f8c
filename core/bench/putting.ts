import { CATALOGUE, correct, firstBeliefs, learn, mixCurves, mixerOf, trustIn, type Addable, type Lab, type Stage } from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { at, CORRECTING, timed, tubesOf } from './palettes.ts';

export interface PuttingRow {
  readonly what: string;
  readonly p50: number;
  readonly p95: number;
  readonly asked: number;
}

const ROUNDS = 60;

/** Some typical mixtures of the palette, each looked at a little off what it should be. */
function wrongPiles(tubes: readonly Addable[]): { readonly stages: Stage[]; readonly target: Lab }[] {
  const random = seeded(41);
  const any = () => Math.floor(random() * tubes.length);
  return Array.from({ length: ROUNDS }, () => {
    const chosen = [...new Set([0, any(), any(), any()])];
    const additions = chosen.map((i) => ({ id: tubes[i]!.id, parts: 1 + Math.floor(random() * 5) }));
    const [L, a, b] = mixerOf(chosen.map((i) => tubes[i]!))(additions.map((d) => d.parts));
    const off = (v: number, by: number) => v + (random() - 0.5) * by;
    return { stages: [{ additions, observed: [off(L, 12), off(a, 10), off(b, 10)] as Lab }], target: [L, a, b] };
  });
}

const row = (what: string, times: readonly number[], asked: number): PuttingRow => ({
  what,
  p50: at(times, 0.5),
  p95: at(times, 0.95),
  asked,
});

/** How long it takes to put a pile right, to learn from a look, and to say how sure a recipe is. */
export function puttingRows(): PuttingRow[] {
  const tubes = tubesOf(CORRECTING);
  const piles = Array.from({ length: 8 }, (_, i) => ({
    id: `pile ${i}`,
    ...mixCurves([0, (i % 7) + 1, ((i + 2) % 7) + 1].map((t, k) => ({ paint: tubes[t]!, parts: [i + 1, 2, 1][k]! }))),
  }));
  const cases = wrongPiles(tubes);
  const catalogue = [...CATALOGUE.values()].map(({ slug, K, S }) => ({ id: slug, K, S }));
  const all = firstBeliefs(catalogue.map((t) => t.id));
  const few = firstBeliefs(CORRECTING);
  for (const { stages, target } of cases.slice(0, 12)) correct({ stages, target, beliefs: few, palette: tubes, piles });
  const corrected = cases.map(({ stages, target }) => timed(() => correct({ stages, target, beliefs: few, palette: tubes, piles })).ms);
  const alone = cases.map(({ stages, target }) => timed(() => correct({ stages, target, beliefs: few, palette: tubes })).ms);
  const learning = cases.map(({ stages }) => timed(() => learn(all, catalogue, stages)).ms);
  const sure = cases.map(
    ({ stages }) =>
      timed(() => trustIn(stages[0]!.additions.map((d) => ({ paint: tubes.find((t) => t.id === d.id)!, parts: d.parts })))).ms,
  );
  return [
    row('a correction, 8 tubes', alone, 50),
    row('a correction, 8 tubes and 8 piles', corrected, 50),
    row(`learning from one look, beliefs about ${catalogue.length} tubes`, learning, 50),
    row('how sure a recipe is', sure, 50),
  ];
}
