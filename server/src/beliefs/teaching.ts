// What swatches tell of tubes: each is fitted anew from the readings that stand, and has a state of its own for it.
import {
  CraftError,
  isWhitePaint,
  leavesOf,
  mixCurves,
  MOST_SWATCHES,
  taughtBy,
  type FittedTube,
  type PaintCurves,
  type SwatchReading,
} from '@dusk/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { Reading, TubeState } from '../entities/index.ts';
import { unfit } from '../refusing/problems.ts';
import type { Work } from '../change/work.ts';
import { addState } from '../tubes/changing.ts';
import { paintOfState } from '../tubes/tubes.ts';
import { baseStates } from './evidence.ts';
import { makeAllStale } from './order.ts';

/** Where the curves of a state come from that swatches told. */
export const TAUGHT_SOURCE = 'swatches';

/** The curves that a tube was taken for before swatches told of it. */
async function takenFor(db: EntityManager, tubeId: string): Promise<TubeState> {
  const [state] = await db.find(TubeState, {
    where: { tubeId, basis: Not('learnt'), source: Not(TAUGHT_SOURCE) },
    order: { createdAt: 'DESC' },
    take: 1,
  });
  return state!;
}

/** What is read of a swatch, as the fit asks for it. */
function readingFor({ tubeId, patch, lab, spectrum, sighting }: Reading, paints: ReadonlyMap<string, PaintCurves>): SwatchReading {
  const leaves = leavesOf(patch).flatMap(({ source, share }) => ('tube' in source ? [{ id: source.tube, share }] : []));
  const own = leaves.filter(({ id }) => id === tubeId).reduce((sum, { share }) => sum + share, 0);
  const others = leaves.filter(({ id }) => id !== tubeId);
  const rest = others.reduce((sum, { share }) => sum + share, 0);
  const other = others.length > 0 ? mixCurves(others.map(({ id, share }) => ({ paint: paints.get(id)!, parts: share }))) : undefined;
  return {
    parts: { tube: own, white: rest },
    ...(other && { other }),
    ...(spectrum
      ? { spectrum: Float64Array.from(spectrum) }
      : {
          lab: [lab.L, lab.a, lab.b] as const,
          by: sighting?.kind === 'photo' || sighting?.kind === 'reader' ? ('photo' as const) : ('eye' as const),
        }),
  };
}

const isTaught = async (db: EntityManager, tubeId: string): Promise<boolean> =>
  (await baseStates(db, [tubeId])).get(tubeId)?.source === TAUGHT_SOURCE;

async function teachTube(work: Work, tubeId: string): Promise<void> {
  const { db, at, touch } = work;
  // The newest tell of the tube as it is; so many are enough.
  const standing = await db.find(Reading, {
    where: { tubeId, withdrawnAt: IsNull(), filmUm: IsNull() },
    relations: { sighting: true },
    order: { at: 'DESC', id: 'ASC' },
    take: MOST_SWATCHES,
  });
  const before = await takenFor(db, tubeId);
  const bases = await baseStates(db, [
    ...new Set(standing.flatMap(({ patch }) => leavesOf(patch).flatMap(({ source }) => ('tube' in source ? [source.tube] : [])))),
  ]);
  const paints = new Map([...bases].map(([id, state]) => [id, paintOfState(state)]));
  const readings = standing.map((one) => readingFor(one, paints));
  const from = paintOfState(before);
  if (readings.length === 0 && !(await isTaught(db, tubeId))) return;
  if (readings.length === 0) await addState(db, tubeId, from, before.basis === 'learnt' ? 'typical' : before.basis, before.source, at);
  else await addState(db, tubeId, told(from, readings), 'fitted', TAUGHT_SOURCE, at);
  touch('tubes', tubeId);
}

/** What swatches tell. @throws ProblemError where they cannot be of paint */
function told(from: PaintCurves, readings: readonly SwatchReading[]): FittedTube {
  try {
    return taughtBy(from, readings.find(({ other }) => other)?.other ?? from, readings);
  } catch (cause) {
    if (cause instanceof CraftError) throw unfit('Not a reading of paint', 'spectrum', cause.message);
    throw cause;
  }
}

/** Tubes whose swatches hold one of some tubes. */
async function toldAgainst(db: EntityManager, whites: ReadonlySet<string>): Promise<string[]> {
  if (whites.size === 0) return [];
  const standing = await db.find(Reading, { where: { withdrawnAt: IsNull() } });
  return standing.flatMap(({ tubeId, patch }) =>
    leavesOf(patch).some(({ source }) => 'tube' in source && source.tube !== tubeId && whites.has(source.tube)) ? [tubeId] : [],
  );
}

/** Fits some tubes anew, a white before those that are told against it. @returns whether anything was */
export async function teachTubes(work: Work, tubeIds: ReadonlySet<string>): Promise<boolean> {
  if (tubeIds.size === 0) return false;
  const bases = await baseStates(work.db, [...tubeIds]);
  const whites = new Set([...tubeIds].filter((id) => isWhitePaint(paintOfState(bases.get(id)!))));
  for (const id of whites) await teachTube(work, id);
  for (const id of new Set([...tubeIds, ...(await toldAgainst(work.db, whites))])) if (!whites.has(id)) await teachTube(work, id);
  // What piles taught lies over the curves beneath.
  await makeAllStale(work.db);
  return true;
}
