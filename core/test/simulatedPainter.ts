import {
  best,
  deltaE00,
  deviate,
  drawDeviation,
  labOf,
  KNIFE,
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
  /** Half-width of what a dose is off by, as a share of itself. */
  readonly knife: number;
}

export function painter(
  typical: readonly PaletteTube[],
  seed: number,
  spread: Spread = USUAL_SPREAD,
  knife: number = KNIFE,
): SimulatedPainter {
  const random = seeded(seed);
  const hidden = new Map(typical.map((t) => [t.id, { id: t.id, ...deviate(t, drawDeviation(spread, random)) }]));
  return { random, typical, hidden, knife };
}

const trueLook = (hidden: ReadonlyMap<string, PaletteTube>, parts: ReadonlyMap<string, number>): Lab =>
  labOf(reflectance(mixCurves([...parts].map(([id, n]) => ({ paint: hidden.get(id)!, parts: n })))));

/** A pile under a painter's knife: what is meant goes in by about as much, and is read with noise of ΔE 0.5. */
export class TruePile {
  private readonly parts = new Map<string, number>();

  constructor(
    private readonly by: SimulatedPainter,
    /** By how much its reader reads a colour too high. */
    private readonly offset: (look: Lab) => Lab = () => [0, 0, 0],
    /** ΔE by which it scatters. */
    private readonly noise: number = 0.5,
  ) {}

  dose(adds: readonly Dose[]): void {
    const { random, knife } = this.by;
    for (const { id, parts } of adds) this.parts.set(id, (this.parts.get(id) ?? 0) + parts * (1 + knife * (2 * random() - 1)));
  }

  get look(): Lab {
    return trueLook(this.by.hidden, this.parts);
  }

  get size(): number {
    return [...this.parts.values()].reduce((s, v) => s + v, 0);
  }

  read(): Lab {
    const [L, a, b] = this.look;
    const { random } = this.by;
    const s = this.noise / Math.sqrt(3);
    const wide = 1 + 0.045 * Math.hypot(a, b);
    const [dL, da, db] = this.offset([L, a, b]);
    return [L + dL + s * 1.2 * normal(random), a + da + s * wide * normal(random), b + db + s * wide * normal(random)];
  }
}

/** The recipe that is believed best for a target, in doses of a pile of twelve parts. */
export function bestDoses({ typical }: SimulatedPainter, target: Lab, beliefs: Beliefs): Dose[] {
  const known = typical.map((t) => ({ id: t.id, ...believed(t, beliefs, t.id) }));
  const { flat } = best(layPalette(known, LIMITS), target);
  return Object.entries(flat).map(([id, share]) => ({ id, parts: 12 * share }));
}

/** How one pile went. */
export interface Outcome {
  readonly corrections: number;
  readonly failed: boolean;
  readonly beliefs: Beliefs;
  readonly firstError: number;
}

/** Mixes one pile to a target and corrects it until its true colour is within ΔE00 2. */
export function closeIn(by: SimulatedPainter, target: Lab, beliefs: Beliefs, most = 6): Outcome {
  const { typical } = by;
  const pile = new TruePile(by);
  const stages: Stage[] = [];
  const put = (additions: readonly Dose[]): void => {
    pile.dose(additions);
    stages.push({ additions, observed: pile.read() });
  };
  const off = (): number => deltaE00(target, pile.look);
  put(bestDoses(by, target, beliefs));
  const firstError = off();
  const started = pile.size;
  let corrections = 0;
  while (off() > 2 && corrections < most) {
    const { add } = correct({ palette: typical, stages, target, beliefs, mostGrowth: (4 * started) / pile.size });
    if (add.length === 0) break;
    put(add);
    corrections++;
  }
  return { corrections, failed: off() > 2, beliefs: learn(beliefs, typical, stages).beliefs, firstError };
}

/** A target that these hidden tubes can mix. */
export function reachableTarget({ random, hidden }: SimulatedPainter): Lab {
  const tubes = [...hidden.values()];
  const chosen = new Set<number>([0]);
  while (chosen.size < 2 + Math.floor(random() * 3)) chosen.add(Math.floor(random() * tubes.length));
  const parts = new Map([...chosen].map((i) => [tubes[i]!.id, 1 + Math.floor(random() * 5)]));
  return trueLook(hidden, parts);
}
