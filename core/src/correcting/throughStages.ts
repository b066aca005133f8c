import type { Lab } from '../colour/spaces.ts';
import type { Millilitres } from '../mixing/units.ts';
import { remaining } from '../mixing/remaining.ts';
import type { FromTube } from '../mixing/mixture.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { mixCurves, type Portion } from '../paint/mix.ts';
import { asSeen } from './asSeen.ts';
import type { Dose, Stage } from './evidence.ts';
import { readingOf, type Sight } from './doubt.ts';

/** Paint that went into a pile: from a tube, or from a pile at a stage. */
export interface StageAddition {
  readonly source: Required<FromTube> | { readonly stage: string };
  readonly ml: Millilitres;
  readonly low: Millilitres;
  readonly high: Millilitres;
}

/** What was done with a pile, and how it then looked. */
export interface StageRecord {
  readonly id: string;
  /** Its place in the order of all stages; a stage takes only from stages before it. */
  readonly n: number;
  readonly pile: string;
  readonly kind: 'mixed' | 'added' | 'changed' | 'left' | 'scraped';
  readonly left?: Millilitres;
  readonly additions: readonly StageAddition[];
  /** Its newest look, how and in which sighting it was looked at, and that look's id. */
  readonly seen?: Lab;
  readonly sight?: Sight;
  readonly sightingId?: string;
  readonly lookId?: string;
  /** Whether the painter has confirmed that look. */
  readonly confirmed?: boolean;
}

/** What a pile is at a stage. */
export interface PileContent {
  readonly ml: Millilitres;
  /** Share of each tube, by id, as far as is known. */
  readonly tubes: Readonly<Record<string, number>>;
  /** False once something went in that was not recorded. */
  readonly known: boolean;
  /** Curves, corrected to its newest look; only when curves were asked for. */
  readonly paint?: PaintCurves;
}

const NOTHING: PileContent = { ml: 0, tubes: {}, known: true };

interface Put {
  readonly ml: Millilitres;
  readonly tubes: Readonly<Record<string, number>>;
  readonly paint?: PaintCurves;
  readonly known: boolean;
}

/** Two or more paints put together. */
function together(puts: readonly Put[]): PileContent {
  const ml = puts.reduce((sum, p) => sum + p.ml, 0);
  const tubes: Record<string, number> = {};
  for (const put of puts)
    for (const [id, share] of Object.entries(put.tubes)) tubes[id] = (tubes[id] ?? 0) + (ml > 0 ? (share * put.ml) / ml : 0);
  const portions = puts.flatMap(({ paint, ml: parts }): Portion[] => (paint && parts > 0 ? [{ paint, parts }] : []));
  return {
    ml,
    tubes,
    known: puts.every((p) => p.known),
    ...(portions.length > 0 && portions.length === puts.filter((p) => p.ml > 0).length && { paint: mixCurves(portions) }),
  };
}

/** Piles after every stage, in the order in which things were done. */
export interface Through {
  /** By stage: how much there was of its pile just before it. */
  readonly before: ReadonlyMap<string, Millilitres>;
  /** By stage. */
  readonly at: ReadonlyMap<string, PileContent>;
  /** By pile, as they are after everything. */
  readonly now: ReadonlyMap<string, PileContent>;
}

/**
 * Goes through what was done with piles: what each held after each stage, and how much is there. What
 * is taken for another pile leaves the one it is taken from without a word there, so that a child
 * never writes on its mother.
 * @param stages living stages of all piles concerned, in any order
 * @param paintOf curves of a tube in a state; left out when only amounts and tubes are wanted. A pile with a tube
 *   whose curves are not known has none itself
 */
export function throughStages(stages: readonly StageRecord[], paintOf?: (tube: Required<FromTube>) => PaintCurves | undefined): Through {
  const at = new Map<string, PileContent>();
  const now = new Map<string, PileContent>();
  const earlier = new Map<string, Millilitres>();
  const pileOf = new Map(stages.map((s) => [s.id, s.pile]));
  const put = ({ source, ml }: StageAddition): Put => {
    if ('stage' in source) {
      const mother = at.get(source.stage) ?? NOTHING;
      return { ml, tubes: mother.tubes, known: mother.known && at.has(source.stage), ...(mother.paint && { paint: mother.paint }) };
    }
    const paint = paintOf?.(source);
    return { ml, tubes: { [source.tube]: 1 }, known: true, ...(paint && { paint }) };
  };
  const take = ({ source, ml }: StageAddition): void => {
    const pile = 'stage' in source ? pileOf.get(source.stage) : undefined;
    const mother = pile === undefined ? undefined : now.get(pile);
    if (mother) now.set(pile!, { ...mother, ml: remaining([{ in: mother.ml }, { out: ml }]) });
  };
  for (const stage of [...stages].sort((a, b) => a.n - b.n)) {
    const before = now.get(stage.pile) ?? NOTHING;
    earlier.set(stage.id, before.ml);
    const puts = stage.additions.map(put);
    stage.additions.forEach(take);
    const mixed = puts.length > 0 ? together(before.ml > 0 ? [before, ...puts] : puts) : before;
    const ml = stage.kind === 'scraped' ? 0 : (stage.left ?? mixed.ml);
    const known = mixed.known && stage.kind !== 'changed';
    const paint = mixed.paint && stage.seen ? asSeen(mixed.paint, stage.seen) : mixed.paint;
    const after: PileContent = { ...mixed, ml, known, ...(paint && { paint }) };
    at.set(stage.id, after);
    now.set(stage.pile, after);
  }
  return { at, now, before: earlier };
}

/** Doses of a stage's additions, piles opened to their tubes, in ml times `scale`. */
function dosesOf({ additions }: StageRecord, scale: number, at: Through['at']): Dose[] {
  return additions.flatMap(({ source, ml, low, high }): Dose[] => {
    const inside = 'stage' in source ? (at.get(source.stage)?.tubes ?? {}) : { [source.tube]: 1 };
    return Object.entries(inside).map(([id, share]) => ({
      id,
      parts: ml * share * scale,
      ...(high > low * (1 + 1e-9) && { range: [low * share * scale, high * share * scale] as const }),
    }));
  });
}

/** A stage of evidence that remembers which look observed it. */
export interface ObservedStage extends Stage {
  readonly lookId?: string;
}

/**
 * What a pile's stages and looks say about tubes, or what a correction starts from: its doses in
 * proportion (paint that was taken away makes what comes after weigh more), each stage with its newest look.
 * @param pile stages of one pile
 * @param knife what a dose of this painter may be off by, as a share of itself
 * @returns undefined once something went in that was not recorded: then its doses say nothing any more
 */
export function evidenceOf(pile: readonly StageRecord[], { at, before }: Through, knife?: number): ObservedStage[] | undefined {
  let scale = 1;
  let last = 0;
  const evidence: ObservedStage[] = [];
  for (const stage of [...pile].sort((a, b) => a.n - b.n)) {
    const there = before.get(stage.id) ?? 0;
    if (last > 0 && there > 0) scale *= last / there;
    if (stage.kind === 'changed' || !at.get(stage.id)?.known) return undefined;
    evidence.push({
      additions: dosesOf(stage, scale, at),
      ...(knife !== undefined && { knife }),
      ...(stage.seen && {
        observed: stage.seen,
        reading: readingOf(stage.sight ?? 'reader', stage.sightingId ?? stage.id, stage.confirmed),
      }),
      ...(stage.seen && stage.lookId !== undefined && { lookId: stage.lookId }),
    });
    const put = stage.additions.reduce((sum, a) => sum + a.ml, 0);
    last = there + put;
  }
  return evidence;
}
