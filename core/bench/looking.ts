import numeric from 'numeric';
import {
  compositionsWithin,
  lookUp,
  makeBook,
  mismatch,
  mixerOf,
  plainColouring,
  polish,
  practicality,
  rankingFor,
  readRecipe,
  tryAll,
  USUAL_LIMITS,
  type Book,
  type Lab,
  type PaletteTube,
} from './engine.ts';
import { seeded } from '../src/random.ts';
import { at, mean, PALETTES, timed, tubesOf } from './palettes.ts';

const LOOK_UPS = 2000;
const ENUMERATED = 200;
const OPTIMISED = 40;

/** Half what the palette can mix, moved a little as a picture's colours are; half any colour, most of it out of reach. */
function targets(book: Book, count: number): Lab[] {
  const random = seeded(20);
  const near = (v: number, spread: number) => v + (random() - 0.5) * spread;
  return Array.from({ length: count }, (_, i): Lab => {
    const any = Math.floor(random() * book.count);
    return i % 2
      ? [near(book.L[any]!, 3), near(book.a[any]!, 3), near(book.b[any]!, 3)]
      : [15 + 75 * random(), -55 + 115 * random(), -55 + 115 * random()];
  });
}

function bytes(book: Book): number {
  const columns = [book.L, book.a, book.b, book.value, book.effort, book.setOf, book.divisionOf, book.tree.boxes, book.tree.effort];
  return columns.reduce((sum, column) => sum + column.byteLength, 0);
}

/** Shares by a general optimiser over all tubes, started from equal parts and from each tube. */
function optimise(tubes: readonly PaletteTube[], target: Lab): { cost: number; shares: number[] } {
  const mix = mixerOf(tubes);
  const cost = mismatch(target);
  const shares = (x: readonly number[]): number[] => {
    const most = Math.max(...x);
    const e = x.map((v) => Math.exp(v - most));
    const sum = e.reduce((s, v) => s + v, 0);
    return e.map((v) => v / sum);
  };
  const starts = [tubes.map(() => 0), ...tubes.map((_, i) => tubes.map((__, j) => (i === j ? 3 : 0)))];
  const found = starts.map((start) => numeric.uncmin((x) => cost(mix(shares(x))), start, 1e-4, undefined, 100));
  const best = found.sort((a, b) => a.f - b.f)[0]!;
  return { cost: best.f, shares: shares(best.solution) };
}

/** What a knife can measure of exact shares: the four largest, as the nearest whole parts within twelve. */
function rounded(tubes: readonly PaletteTube[], shares: readonly number[], target: Lab): number {
  const used = shares
    .map((share, i) => ({ share, i }))
    .sort((a, b) => b.share - a.share)
    .slice(0, USUAL_LIMITS.tubes)
    .filter((s) => s.share > 0.02);
  const whole = used.reduce((s, u) => s + u.share, 0);
  const off = (parts: Uint8Array): number => {
    const total = parts.reduce((s, n) => s + n, 0);
    return parts.reduce((s, n, k) => s + (n / total - used[k]!.share / whole) ** 2, 0);
  };
  const parts = compositionsWithin(used.length, USUAL_LIMITS.parts).reduce((best, next) => (off(next) < off(best) ? next : best));
  const lab = mixerOf(used.map((u) => tubes[u.i]!))(parts);
  const ingredients = tubes.map((t) => ({ ...t, counts: [t.id] }));
  return (
    mismatch(target)(lab) +
    practicality(
      used.map((u) => u.i),
      parts,
      ingredients,
    )
  );
}

export interface LookingRow {
  readonly tubes: number;
  readonly recipes: number;
  readonly megabytes: number;
  readonly bookMs: number;
  /** Made a second time, the code by then compiled. */
  readonly againMs: number;
  readonly plainMs: number;
  readonly p50: number;
  readonly p99: number;
  readonly allP50: number;
  readonly worst: number;
  readonly bookScore: number;
  readonly optimiserScore: number;
  readonly optimiserMs: number;
  readonly polishCost: number;
  readonly optimiserCost: number;
  readonly polishMs: number;
}

/** The book and its look-up on one palette, beside enumeration and a general optimiser. */
export function looking(palette: readonly string[]): LookingRow {
  const tubes = tubesOf(palette);
  makeBook(tubes.slice(0, 4), USUAL_LIMITS);
  const { result: book, ms: bookMs } = timed(() => makeBook(tubes, USUAL_LIMITS));
  const { ms: againMs } = timed(() => makeBook(tubes, USUAL_LIMITS));
  const colour = plainColouring(book.ingredients, 'D65');
  const laid = new Map([...book.divisions].map(([size, ways]) => [size, Float32Array.from(ways.flatMap((p) => Array.from(p)))]));
  const { ms: plainMs } = timed(() => book.sets.forEach((set) => colour(set, laid.get(set.length)!)));
  const wanted = targets(book, LOOK_UPS);
  for (const target of wanted) lookUp(book, rankingFor(target));
  const looked = wanted.map((target) => timed(() => lookUp(book, rankingFor(target))[0]!));
  const all = wanted.slice(0, ENUMERATED).map((target) => timed(() => tryAll(book, rankingFor(target))));
  const few = wanted.slice(0, OPTIMISED);
  const optimised = few.map((target) => timed(() => optimise(tubes, target)));
  const polished = few.map((target, i) => timed(() => polish(readRecipe(book, looked[i]!.result.recipe, target).measures, target)));
  return {
    tubes: palette.length,
    recipes: book.count,
    megabytes: bytes(book) / 1e6,
    bookMs,
    againMs,
    plainMs,
    p50: at(
      looked.map((l) => l.ms),
      0.5,
    ),
    p99: at(
      looked.map((l) => l.ms),
      0.99,
    ),
    allP50: at(
      all.map((l) => l.ms),
      0.5,
    ),
    worst: Math.max(...all.map(({ result }, i) => looked[i]!.result.score - result.score)),
    bookScore: mean(few.map((_, i) => looked[i]!.result.score)),
    optimiserScore: mean(few.map((target, i) => rounded(tubes, optimised[i]!.result.shares, target))),
    optimiserMs: at(
      optimised.map((o) => o.ms),
      0.5,
    ),
    polishCost: mean(few.map((target, i) => mismatch(target)(polished[i]!.result.lab))),
    optimiserCost: mean(optimised.map((o) => o.result.cost)),
    polishMs: at(
      polished.map((p) => p.ms),
      0.5,
    ),
  };
}

export const lookingRows = (): LookingRow[] => PALETTES.map(looking);
