import { evidenceOf, throughStages } from '@dusk/core';
import { randomUUID } from 'node:crypto';
import type { Needs, SightingDto } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Belief, Look, Sighting, Stage } from '../entities/index.ts';
import { notFound, ProblemError, unfit } from '../refusing/problems.ts';
import { pileOf } from './piles.ts';
import { knifeNow } from '../settings/settings.ts';
import { isOfPile, withMothers, type PileStage } from '../deeds/stagesRead.ts';
import type { Doing } from '../change/work.ts';

const refuse = (detail: string): ProblemError => new ProblemError(409, 'Not now', detail);

/** Sightings by id, or those with looks at piles of a painting, in one query. */
export async function sightingRows(
  db: EntityManager,
  where: { readonly ids?: readonly string[]; readonly paintingId?: string },
): Promise<SightingDto[]> {
  const { ids, paintingId } = where;
  if (ids) return db.find(Sighting, { where: { id: In([...ids]) } });
  return db
    .createQueryBuilder(Sighting, 'sighting')
    .where(
      `sighting.id IN (SELECT look.sightingId FROM look JOIN stage ON stage.id = look.stageId JOIN pile ON pile.id = stage.pileId WHERE pile.paintingId = :paintingId)`,
      { paintingId },
    )
    .getMany();
}

/** A sighting is what it is: nothing needs undoing but the looks it holds. */
export const addSighting: Doing<Needs<'sighting.add'>> = async ({ db, at, touch }, { id, kind, light, white, at: when }) => {
  await db.insert(Sighting, { id, kind, light: light ?? null, white: white ?? null, at: when ?? at });
  touch('sightings', id);
  return [];
};

export const addLook: Doing<Needs<'look.add'>> = async (work, { id, sightingId, stageId, lab, said, confirmed, at }) => {
  const { db } = work;
  const stage = await db.findOneBy(Stage, { id: stageId, withdrawnAt: IsNull() });
  if (!stage || !isOfPile(stage)) throw unfit('Unknown step', 'stageId', 'What was looked at is not there any more.');
  await pileOf(db, stage.pileId);
  if (!(await db.existsBy(Sighting, { id: sightingId })))
    throw unfit('Unknown sighting', 'sightingId', 'This look belongs to no sighting.');
  await db.insert(Look, {
    id,
    sightingId,
    stageId,
    ...lab,
    said: said ?? null,
    confirmed: confirmed ?? false,
    at: at ?? work.at,
    withdrawnAt: null,
  });
  await believe(db, id, stage, at ?? work.at);
  work.touch('piles', stage.pileId);
  work.relearn(stage.pileId);
  return [{ do: 'look.withdraw', id }];
};

/** Keeps what a look says about tubes, if it says anything. */
async function believe(db: EntityManager, lookId: string, stage: PileStage, at: string): Promise<void> {
  const records = await withMothers(db, [stage.pileId]);
  const own = records.filter((r) => r.pile === stage.pileId && r.n <= stage.n);
  const evidence = evidenceOf(own, throughStages(records), await knifeNow(db));
  if (evidence?.some((e) => e.additions.length > 0)) await db.insert(Belief, { id: randomUUID(), lookId, evidence, at, refusedAt: null });
}

const markLook =
  (withdrawing: boolean): Doing<Needs<'look.withdraw'>> =>
  async (work, { id }) => {
    const { db, at } = work;
    const look = await db.findOne(Look, { where: { id }, relations: { stage: true } });
    if (!look) throw notFound('look');
    if ((look.withdrawnAt !== null) === withdrawing)
      throw refuse(withdrawing ? 'This look was taken back already.' : 'This look stands already.');
    await db.update(Look, { id }, { withdrawnAt: withdrawing ? at : null });
    work.touch('piles', look.stage!.pileId!);
    work.relearn(look.stage!.pileId!);
    return [{ do: withdrawing ? 'look.restore' : 'look.withdraw', id }];
  };

export const withdrawLook = markLook(true);
export const restoreLook = markLook(false);

const markBelief =
  (refusing: boolean): Doing<Needs<'belief.refuse'>> =>
  async (work, { id }) => {
    const { db, at } = work;
    const belief = await db.findOne(Belief, { where: { id }, relations: { look: { stage: true } } });
    if (!belief) throw notFound('belief');
    if ((belief.refusedAt !== null) === refusing) throw refuse(refusing ? 'This was not learnt from.' : 'This was learnt from already.');
    await db.update(Belief, { id }, { refusedAt: refusing ? at : null });
    work.touch('piles', belief.look!.stage!.pileId!);
    work.relearn(belief.look!.stage!.pileId!);
    return [{ do: refusing ? 'belief.accept' : 'belief.refuse', id }];
  };

export const refuseBelief = markBelief(true);
export const acceptBelief = markBelief(false);
