import { randomUUID } from 'node:crypto';
import { CATALOGUE, CATALOGUE_STATE, KNIFE, type Pigment } from '@dusk/core';
import { COPIES_KEPT } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { Settings, Tube, TubeState } from '../entities/index.ts';
import { relearn } from '../beliefs/beliefs.ts';
import { makeAllStale } from '../beliefs/order.ts';
import { now, workOn } from '../change/work.ts';

/** Mouth of an ordinary 40 ml tube. */
const USUAL_NOZZLE_MM = 6;
const SOURCE = `catalogue ${CATALOGUE_STATE}`;

/** A new tube of a generic pigment, with the pigment's typical curves as its first state. */
export async function addTube(db: EntityManager, pigment: Pigment, name: string, maker: string, nozzleMm: number): Promise<string> {
  const id = randomUUID();
  await db.insert(Tube, { id, name, maker, pigment: pigment.slug, nozzleMm, createdAt: now(), stateId: null });
  await addTypicalState(db, id, pigment);
  return id;
}

async function addTypicalState(db: EntityManager, tubeId: string, pigment: Pigment): Promise<void> {
  const id = randomUUID();
  await db.insert(TubeState, {
    id,
    tubeId,
    basis: 'typical',
    source: SOURCE,
    K: Array.from(pigment.K),
    S: Array.from(pigment.S),
    createdAt: now(),
    baseId: null,
    beliefId: null,
    learnt: null,
  });
  await db.update(Tube, { id: tubeId }, { stateId: id });
}

/**
 * Sees that the studio holds every generic pigment as a tube, and that tubes resting on typical
 * curves have today's as their newest state; older states stay for the piles that rested on them, and
 * what piles taught is laid over the new ones.
 */
export async function stockCatalogue(db: EntityManager): Promise<void> {
  if (!(await db.existsBy(Settings, { id: 1 })))
    await db.insert(Settings, {
      id: 1,
      version: 1,
      valueScale: 'munsell',
      warmBlue: 'red-leaning',
      surround: 'N5',
      room: 'dark',
      knife: KNIFE,
      dulling: 'any',
      copiesFolder: '',
      copiesKept: COPIES_KEPT,
      studioId: randomUUID().replaceAll('-', ''),
    });
  const tubes = await db.find(Tube);
  const generic = new Set(tubes.filter((t) => t.maker === '').map((t) => t.pigment));
  for (const pigment of CATALOGUE.values()) if (!generic.has(pigment.slug)) await addTube(db, pigment, pigment.name, '', USUAL_NOZZLE_MM);
  const states = await db.find(TubeState, { select: { tubeId: true, basis: true, source: true } });
  const upToDate = new Set(
    states.filter((s) => (s.basis !== 'typical' && s.basis !== 'learnt') || s.source === SOURCE).map((s) => s.tubeId),
  );
  const old = tubes.filter((tube) => CATALOGUE.has(tube.pigment) && !upToDate.has(tube.id));
  for (const tube of old) await addTypicalState(db, tube.id, CATALOGUE.get(tube.pigment)!);
  if (old.length === 0) return;
  await makeAllStale(db);
  await relearn(workOn(db, now()).work, []);
}
