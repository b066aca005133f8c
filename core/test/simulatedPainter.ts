import {
  best,
  deltaE00,
  deviate,
  drawDeviation,
  labOf,
  layPalette,
  mixCurves,
  reflectance,
  correct,
  learn,
  believed,
  USUAL_SPREAD,
  type Beliefs,
  type Dose,
  type Lab,
  type PaletteTube,
  type Spread,
  type Stage,
} from '../src/index.ts';
import { normal, seeded } from '../src/random.ts';

const LIMITS = { tubes: 4, parts: 12 };

/** A painter at work with tubes that differ from the typical ones, a knife that is off, and an eye with noise. */
export interface SimulatedPainter {
  readonly random: () => number;
  readonly typical: readonly PaletteTube[];
  readonly hidden: ReadonlyMap<string, PaletteTube>;
}

export function painter(typical: readonly PaletteTube[], seed: number, spread: Spread = USUAL_SPREAD): SimulatedPainter {
  const random = seeded(seed);
  const hidden = new Map(typical.map((t) => [t.id, { id: t.id, ...deviate(t, drawDeviation(spread, random)) }]));
  return { random, typical, hidden };
}

const trueLook = (hidden: ReadonlyMap<string, PaletteTube>, parts: ReadonlyMap<string, number>): Lab =>
  labOf(reflectance(mixCurves([...parts].map(([id, n]) => ({ paint: hidden.get(id)!, parts: n })))));

/** How one pile went. */
export interface Outcome {
  readonly corrections: number;
  readonly failed: boolean;
  readonly beliefs: Beliefs;
  readonly firstError: number;
}

/** Mixes one pile to a target and corrects it until its true colour is within ΔE00 2. */
export function closeIn({ random, typical, hidden }: SimulatedPainter, target: Lab, beliefs: Beliefs, most = 6): Outcome {
  const known = typical.map((t) => ({ id: t.id, ...believed(t, beliefs, t.id) }));
  const { flat } = best(layPalette(known, LIMITS), target);
  const pile = new Map<string, number>();
  const dose = (adds: readonly Dose[]): void => {
    for (const { id, parts } of adds) pile.set(id, (pile.get(id) ?? 0) + parts * (1 + 0.1 * (2 * random() - 1)));
  };
  const observe = (): Lab => {
    const [L, a, b] = trueLook(hidden, pile);
    const s = 0.5 / Math.sqrt(3);
    const wide = 1 + 0.045 * Math.hypot(a, b);
    return [L + s * 1.2 * normal(random), a + s * wide * normal(random), b + s * wide * normal(random)];
  };
  const stages: Stage[] = [];
  const mixed = Object.entries(flat).map(([id, share]) => ({ id, parts: 12 * share }));
  dose(mixed);
  stages.push({ additions: mixed, observed: observe() });
  const firstError = deltaE00(target, trueLook(hidden, pile));
  const started = [...pile.values()].reduce((s, v) => s + v, 0);
  let corrections = 0;
  while (deltaE00(target, trueLook(hidden, pile)) > 2 && corrections < most) {
    const size = [...pile.values()].reduce((s, v) => s + v, 0);
    const { add } = correct({ palette: typical, stages, target, beliefs, mostGrowth: (4 * started) / size });
    if (add.length === 0) break;
    dose(add);
    stages.push({ additions: add, observed: observe() });
    corrections++;
  }
  const failed = deltaE00(target, trueLook(hidden, pile)) > 2;
  return { corrections, failed, beliefs: learn(beliefs, typical, stages).beliefs, firstError };
}

/** A target that these hidden tubes can mix. */
export function reachableTarget({ random, hidden }: SimulatedPainter): Lab {
  const tubes = [...hidden.values()];
  const chosen = new Set<number>([0]);
  while (chosen.size < 2 + Math.floor(random() * 3)) chosen.add(Math.floor(random() * tubes.length));
  const parts = new Map([...chosen].map((i) => [tubes[i]!.id, 1 + Math.floor(random() * 5)]));
  return trueLook(hidden, parts);
}
