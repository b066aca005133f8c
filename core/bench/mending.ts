import { correct, deltaE00, firstBeliefs, labOf, mixCurves, reflectance, type Addable, type Dose, type Lab } from '../src/index.ts';
import { seeded } from '../src/random.ts';
import { CORRECTING, tubesOf } from './palettes.ts';

export interface MendingRow {
  readonly piles: string;
  readonly cases: number;
  /** Ending within ΔE00 2, as a share. */
  readonly mended: number;
  /** Largest difference between what was promised and what the additions give, ΔE00. */
  readonly promise: number;
}

const colourOf = (tubes: readonly Addable[], parts: ReadonlyMap<string, number>): Lab =>
  labOf(reflectance(mixCurves([...parts].map(([id, n]) => ({ paint: tubes.find((t) => t.id === id)!, parts: n })))));

function withMore(parts: ReadonlyMap<string, number>, more: readonly Dose[], keep = 1): Map<string, number> {
  const all = new Map([...parts].map(([id, n]) => [id, n * keep]));
  for (const { id, parts: n } of more) all.set(id, (all.get(id) ?? 0) + n);
  return all;
}

/** Piles whose targets some additions are known to reach: the pile itself with more in it, to at most four times its size. */
function mending(piles: string, pale: boolean, cases: number): MendingRow {
  const tubes = tubesOf(CORRECTING);
  const random = seeded(pale ? 6 : 5);
  const any = (): string => tubes[1 + Math.floor(random() * (tubes.length - 1))]!.id;
  const dose = (): number => (pale ? 0.03 + 0.4 * random() : 0.3 + 3 * random());
  let mended = 0;
  let promise = 0;
  for (let k = 0; k < cases; k++) {
    const start = new Map<string, number>([['titanium-white', pale ? 8 : 1 + 5 * random()]]);
    for (let i = 0; i < 2; i++) start.set(any(), dose());
    const size = [...start.values()].reduce((s, n) => s + n, 0);
    const more: Dose[] = [
      { id: any(), parts: dose() },
      { id: any(), parts: dose() },
      { id: 'titanium-white', parts: random() < 0.5 ? size * random() : 0 },
    ].filter(({ parts }) => parts > 0);
    const target = colourOf(tubes, withMore(start, more));
    const stages = [{ additions: [...start].map(([id, parts]) => ({ id, parts })), observed: colourOf(tubes, start) }];
    const { add, lab, off, part } = correct({ palette: tubes, stages, target, beliefs: firstBeliefs(tubes.map((t) => t.id)) });
    const after = colourOf(tubes, part ? withMore(start, part.add, part.keep) : withMore(start, add));
    if (off <= 1 || deltaE00(target, after) <= 2) mended++;
    promise = Math.max(promise, deltaE00(after, add.length > 0 ? lab : after));
  }
  return { piles, cases, mended: mended / cases, promise };
}

export const mendingRows = (): MendingRow[] => [mending('any', false, 120), mending('near whites', true, 120)];
