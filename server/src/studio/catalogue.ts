import { randomUUID } from 'node:crypto';
import { CATALOGUE, KNIFE, type Pigment } from '@dusk/core';
import { COPIES_KEPT } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { Settings, Tube, TubeState } from '../entities/index.ts';
import { relearn } from '../beliefs/beliefs.ts';
import { makeAllStale } from '../beliefs/order.ts';
import { workOn } from '../change/work.ts';
import { addState, USUAL_NOZZLE_MM } from '../tubes/changing.ts';
import { typicalCurves, TYPICAL_SOURCE } from '../tubes/tubes.ts';

/** A new tube of a generic pigment, with the pigment's typical curves as its first state. */
export async function addTube(
  db: EntityManager,
  pigment: Pigment,
  name: string,
  maker: string,
  nozzleMm: number,
  at: string,
): Promise<string> {
  const id = randomUUID();
  const { slug } = pigment;
  await db.insert(Tube, {
    id,
    version: 1,
    name,
    maker,
    pigment: slug,
    pigments: [slug],
    nozzleMm,
    note: '',
    createdAt: at,
    stateId: null,
  });
  await addState(db, id, pigment, 'typical', TYPICAL_SOURCE, at);
  return id;
}

/**
 * Sees that the studio holds every generic pigment as a tube, and that tubes resting on typical
 * curves have today's as their newest state; older states stay for the piles that rested on them, and
 * what piles taught is laid over the new ones.
 */
export async function stockCatalogue(db: EntityManager, at: string): Promise<void> {
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
  for (const pigment of CATALOGUE.values())
    if (!generic.has(pigment.slug)) await addTube(db, pigment, pigment.name, '', USUAL_NOZZLE_MM, at);
  const states = await db.find(TubeState, { select: { tubeId: true, basis: true, source: true } });
  const rests = new Set(states.filter(({ source }) => source.startsWith('catalogue ')).map(({ tubeId }) => tubeId));
  const upToDate = new Set(
    states
      .filter(({ basis, source }) => basis === 'fitted' || basis === 'measured' || source === TYPICAL_SOURCE)
      .map(({ tubeId }) => tubeId),
  );
  const old = tubes.filter(({ id }) => rests.has(id) && !upToDate.has(id));
  for (const { id, pigments } of old) {
    const usual = typicalCurves(pigments);
    if (usual) await addState(db, id, usual, 'typical', TYPICAL_SOURCE, at);
  }
  if (old.length === 0) return;
  await makeAllStale(db);
  await relearn(workOn(db, at).work, []);
}
