import type { Lab } from '../colour/spaces.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixerOf } from '../paint/mixer.ts';
import { isWhitePaint } from '../paint/whitePaint.ts';

/** Mixtures of one, two and three tubes in one heap, in steps that a hand tells apart. */
export interface MixtureTable {
  readonly count: number;
  /** Three places each: tubes by their number, −1 where there is none; their parts, the most plentiful first. */
  readonly tubes: Int8Array;
  readonly parts: Float32Array;
  /** L, a, b of each. */
  readonly lab: Float32Array;
}

/** Parts of a second tube to one of the first. */
const OF_TWO = [1, 3 / 4, 1 / 2, 1 / 3, 1 / 4, 1 / 6, 1 / 8, 1 / 12, 1 / 16, 1 / 24, 1 / 36, 1 / 60] as const;
/** Parts of a second and a third to one of the first, where the first is a white, and where it is any other. */
const OF_WHITE = [1, 1 / 2, 1 / 4, 1 / 8, 1 / 16, 1 / 40] as const;
const OF_ANY = [1, 1 / 2, 1 / 4, 1 / 10] as const;
/** The same of few tubes, where there is time for more. */
const OF_FEW = 8;
const FINE_WHITE = [1, 3 / 4, 1 / 2, 1 / 3, 1 / 4, 1 / 6, 1 / 8, 1 / 12, 1 / 16, 1 / 24, 1 / 40] as const;
const FINE_ANY = [1, 3 / 4, 1 / 2, 1 / 3, 1 / 4, 1 / 6, 1 / 10, 1 / 20] as const;
/** A dose under this share is less than a speck of a usual heap. */
const LEAST_SHARE = 0.01;
/** From so many tubes on three are mixed with a white among them alone, so that a table is made while one looks. */
const MANY = 16;

/** Everything that two or three of some tubes make in one heap. */
export function mixturesOf(paints: readonly PaintCurves[]): MixtureTable {
  const n = paints.length;
  const tubes: number[] = [];
  const parts: number[] = [];
  const labs: number[] = [];
  const put = (lab: Lab, of: readonly number[], by: readonly number[]): void => {
    const order = of.map((_, k) => k).sort((a, b) => by[b]! - by[a]!);
    for (let k = 0; k < 3; k++) {
      tubes.push(k < of.length ? of[order[k]!]! : -1);
      parts.push(k < of.length ? by[order[k]!]! : 0);
    }
    labs.push(...lab);
  };
  const whites = paints.map(isWhitePaint);
  const put2 = (i: number, j: number): void => {
    const mix = mixerOf([paints[i]!, paints[j]!]);
    for (const r of OF_TWO) {
      put(mix([1, r]), [i, j], [1, r]);
      if (r < 1) put(mix([r, 1]), [i, j], [r, 1]);
    }
  };
  const put3 = (i: number, j: number, k: number): void => {
    const set = [i, j, k];
    const mix = mixerOf(set.map((t) => paints[t]!));
    for (let first = 0; first < 3; first++) {
      const isWhite = whites[set[first]!];
      const ofFirst = n <= OF_FEW ? (isWhite ? FINE_WHITE : FINE_ANY) : isWhite ? OF_WHITE : OF_ANY;
      const [second, third] = [0, 1, 2].filter((place) => place !== first) as [number, number];
      for (const a of ofFirst)
        for (const b of ofFirst) {
          // What two of them have in equal shares comes once.
          if ((a === 1 && second < first) || (b === 1 && third < first)) continue;
          const by = [0, 0, 0];
          by[first] = 1;
          by[second] = a;
          by[third] = b;
          const whole = 1 + a + b;
          if (Math.min(a, b) / whole < LEAST_SHARE) continue;
          put(mix(by), set, by);
        }
    }
  };
  for (let i = 0; i < n; i++) put(mixerOf([paints[i]!])([1]), [i], [1]);
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) put2(i, j);
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) for (let k = j + 1; k < n; k++) if (n < MANY || whites[i] || whites[j] || whites[k]) put3(i, j, k);
  return { count: labs.length / 3, tubes: Int8Array.from(tubes), parts: Float32Array.from(parts), lab: Float32Array.from(labs) };
}

/** A mixture of a table. */
export interface TableMixture {
  readonly at: number;
  readonly lab: Lab;
  readonly tubes: readonly number[];
  readonly parts: readonly number[];
}

export function mixtureAt({ tubes, parts, lab }: MixtureTable, at: number): TableMixture {
  const own = [0, 1, 2].filter((k) => tubes[3 * at + k]! >= 0);
  return {
    at,
    lab: [lab[3 * at]!, lab[3 * at + 1]!, lab[3 * at + 2]!],
    tubes: own.map((k) => tubes[3 * at + k]!),
    parts: own.map((k) => parts[3 * at + k]!),
  };
}
