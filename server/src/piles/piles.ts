import {
  checkMixture,
  evidenceOf,
  lookAfter,
  leastSure,
  leavesOf,
  masstoneOf,
  paintOfMixture,
  pilesIn,
  predict,
  throughStages,
  type Ingredient,
  type Leaf,
  type Mixture,
  type PaintCurves,
  type StageRecord,
} from '@dusk/core';
import {
  begun,
  labDto,
  mixtureDto,
  mixtureSent,
  PILE_FIELDS,
  type IngredientSent,
  type MixtureSent,
  type Needs,
  type PileDto,
  type PredictionDto,
  type PurposeDto,
  type StageDto,
  type TargetDto,
} from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Card, Pile, Sample, Stage, type Addition, Tube } from '../entities/index.ts';
import { ProblemError, stale, unfit } from '../refusing/problems.ts';
import { groundsFor } from '../beliefs/beliefs.ts';
import { knifeNow } from '../settings/settings.ts';
import { paintingOf } from '../paintings/paintings.ts';
import { additionDto } from '../paintings/areas.ts';
import { puttingAway } from '../change/putAway.ts';
import { any, areThere, changed, given, present } from '../change/rows.ts';
import {
  additionOf,
  isOfPile,
  paintsOf,
  readStages,
  recordsOf,
  withMothers,
  type PileStage,
  type StagesRead,
} from '../deeds/stagesRead.ts';
import type { Studio } from '../change/studio.ts';
import { checkTubes, paintOfState, statesById, statesToday } from '../tubes/tubes.ts';
import type { Doing, Work } from '../change/work.ts';

function stageDto(stage: PileStage, { additions, looks, beliefs }: StagesRead): StageDto {
  const { id, n, kind, at, left, predicted } = stage;
  return {
    id,
    n,
    kind,
    at,
    left,
    predicted,
    additions: (additions.get(id) ?? []).map(additionDto),
    looks: (looks.get(id) ?? []).map(({ id: own, sightingId, sighting, L, a, b, said, confirmed, at: when }) => ({
      id: own,
      sightingId,
      kind: sighting!.kind,
      lab: { L, a, b },
      said,
      confirmed,
      at: when,
      beliefId: beliefs.get(own)?.id ?? null,
      refused: (beliefs.get(own)?.refusedAt ?? null) !== null,
    })),
  };
}

/** Piles with what was done with them, in a fixed number of queries: by id, or all of a painting. */
export async function pileRows(
  db: EntityManager,
  where: { readonly ids?: readonly string[]; readonly paintingId?: string },
): Promise<PileDto[]> {
  const { ids, paintingId } = where;
  const piles = await db.find(Pile, {
    where: ids ? { id: In([...ids]) } : { paintingId: paintingId!, deletedAt: IsNull() },
    order: { createdAt: 'ASC', id: 'ASC' },
  });
  const read = await readStages(db, ids ? { pileIds: ids } : { paintingId: paintingId! });
  const { now } = throughStages(recordsOf(read));
  const stages = new Map<string, StageDto[]>();
  for (const stage of read.stages.filter(isOfPile)) stages.set(stage.pileId, [...(stages.get(stage.pileId) ?? []), stageDto(stage, read)]);
  return piles.map(({ painting: _, remakeOf: __, sample: ___, ...pile }) => ({
    ...pile,
    stages: stages.get(pile.id) ?? [],
    there: now.get(pile.id)?.ml ?? 0,
  }));
}

/** Piles with all that they take from, mothers of mothers too, of whatever painting those are. */
export async function withSources(db: EntityManager, piles: readonly PileDto[]): Promise<PileDto[]> {
  const found = new Map(piles.map((pile) => [pile.id, pile]));
  for (let newest = piles; newest.length > 0;) {
    const drawn = newest.flatMap(({ stages }) => stages.flatMap(({ additions }) => additions.flatMap(({ stageId }) => stageId ?? [])));
    const stages =
      drawn.length === 0 ? [] : await db.find(Stage, { where: { id: In([...new Set(drawn)]) }, select: { id: true, pileId: true } });
    const wanted = [...newest.flatMap(({ plan }) => pilesIn(plan as Mixture)), ...stages.flatMap(({ pileId }) => pileId ?? [])];
    const missing = [...new Set(wanted)].filter((id) => !found.has(id));
    newest = missing.length === 0 ? [] : await pileRows(db, { ids: missing });
    for (const pile of newest) found.set(pile.id, pile);
  }
  return [...found.values()];
}

/** All piles of a painting. */
export const pilesOf = ({ look }: Studio, paintingId: string): Promise<PileDto[]> => look((db) => pileRows(db, { paintingId }));

/**
 * A pile that can be worked on.
 * @throws ProblemError when it, or the painting it is of, was put away
 */
export async function pileOf(db: EntityManager, id: string): Promise<Pile> {
  const { painting, ...pile } = present('pile', await db.findOne(Pile, { where: { id }, relations: { painting: true } }));
  if (painting?.deletedAt)
    throw new ProblemError(
      409,
      'Its painting is put away',
      `The painting of this pile, “${painting.title}”, was put away. Bring it back first.`,
    );
  return pile;
}

/** A pile that may have been put away: what was made of it stays what it is. */
export const anyPile = async (db: EntityManager, id: string): Promise<Pile> => any('pile', await db.findOneBy(Pile, { id }));

/** A plan with every tube in a state: that which was named, or today's. */
async function withStates(db: EntityManager, { heaps }: Mixture): Promise<Mixture> {
  const tubes = leavesOf({ heaps }).flatMap(({ source }) => ('tube' in source ? source : []));
  await checkTubes(
    db,
    tubes.map((t) => t.tube),
  );
  const today = await statesToday(
    db,
    tubes.map((t) => t.tube),
  );
  const named = await statesById(
    db,
    tubes.flatMap((t) => t.state ?? []),
  );
  const stateOf = ({ tube, state }: { readonly tube: string; readonly state?: string }): string => {
    if (state === undefined) return today.get(tube)!.id;
    if (named.get(state)?.tubeId !== tube) throw unfit('Unknown state', 'plan', 'A tube in the plan has no such state.');
    return state;
  };
  return {
    heaps: heaps.map(({ ingredients }) => ({
      ingredients: ingredients.map((ingredient) => ('tube' in ingredient ? { ...ingredient, state: stateOf(ingredient) } : ingredient)),
    })),
  };
}

const leafSources = (plan: Mixture): Leaf[] => leavesOf(plan).map(({ source }) => source);

/** Most piles that are planned from one another, of which nothing is mixed yet. */
const MOST_MOTHERS = 200;

/** Plans of piles a plan takes from, and of those that these take from, by pile. @throws ProblemError where a pile would be mixed from itself */
async function plansOfMothers(db: EntityManager, plan: Mixture, own: string, read = pileOf): Promise<ReadonlyMap<string, Mixture>> {
  const plans = new Map<string, Mixture>();
  for (let wanted = pilesIn(plan); wanted.length > 0;) {
    if (wanted.includes(own))
      throw unfit('Mixed from itself', 'plan', 'A pile cannot be mixed from itself, nor from piles that are mixed from it.');
    if (plans.size > MOST_MOTHERS)
      throw unfit('Too many mothers', 'plan', 'This pile rests on too many others that are mixed from one another.');
    for (const id of new Set(wanted)) plans.set(id, (await read(db, id)).plan);
    wanted = [...new Set(wanted)].flatMap((id) => pilesIn(plans.get(id)!)).filter((id) => id === own || !plans.has(id));
  }
  return plans;
}

/**
 * Curves and trust of everything a plan is made from; a pile that is not mixed yet is what it is planned to be.
 * @param read how piles it takes from are had: for new plans only those that can be worked on
 */
export async function sourcesOf(db: EntityManager, plan: Mixture, own: string, read = pileOf) {
  const plans = await plansOfMothers(db, plan, own, read);
  const states = await statesById(
    db,
    [plan, ...plans.values()].flatMap(leafSources).flatMap((source) => ('tube' in source ? (source.state ?? []) : [])),
  );
  const records = plans.size === 0 ? [] : await withMothers(db, [...plans.keys()]);
  const { at, now } = throughStages(records, await paintsOf(db, records));
  const planned = new Map<string, PaintCurves>();
  const paintOf = (source: Leaf): PaintCurves => {
    if ('tube' in source) return paintOfState(states.get(source.state!)!);
    const content = source.stage === undefined ? now.get(source.pile) : at.get(source.stage);
    if (content?.paint) return content.paint;
    if (source.stage !== undefined) throw unfit('Unknown stage', 'plan', 'A pile in the plan never was as the plan says.');
    const known = planned.get(source.pile) ?? paintOfMixture(plans.get(source.pile)!, paintOf);
    planned.set(source.pile, known);
    return known;
  };
  return { paintOf, basis: leastSure([...states.values()].map((s) => s.basis)) };
}

/** A plan made ready to be kept, and what it gives. */
async function planned(
  db: EntityManager,
  sent: MixtureSent,
  own: string,
): Promise<{ readonly plan: Pile['plan']; readonly predicted: PredictionDto }> {
  const plan = await withStates(db, mixtureOfSent(sent));
  const { paintOf, basis } = await sourcesOf(db, plan, own);
  const { lab, steadiness } = predict(plan, paintOf);
  return { plan: mixtureDto(plan), predicted: { lab: labDto(lab), steadiness, basis } };
}

/** An ingredient as it was sent (in that order: what is taken back is as it was), once it is seen to be one thing: a tube, a pile or a heap. */
function ingredientOf(sent: IngredientSent): Ingredient {
  const { tube, state, pile, stage, heap } = sent;
  const known = [tube, pile, heap].filter((one) => one !== undefined).length;
  if (known !== 1 || (state !== undefined && tube === undefined) || (stage !== undefined && pile === undefined))
    throw unfit('The request does not fit', 'plan', 'An ingredient is one thing: a tube, a pile, or an earlier heap.');
  return { ...sent } as Ingredient;
}

/** A mixture as it was sent, checked. @throws ProblemError, CraftError */
export function mixtureOfSent({ heaps }: MixtureSent): Mixture {
  const mixture = { heaps: heaps.map(({ ingredients }) => ({ ingredients: ingredients.map(ingredientOf) })) };
  checkMixture(mixture);
  return mixture;
}

/** A place of a string is one pile's. */
async function checkPlace(db: EntityManager, string: Needs<'pile.add'>['string'] | null | undefined, own: string): Promise<void> {
  if (!string) return;
  const [other] = await db.query<{ name: string }[]>(
    `SELECT "name" FROM "pile" WHERE "deletedAt" IS NULL AND "id" <> ? AND json_extract("string", '$.id') = ? AND json_extract("string", '$.at') = ?`,
    [own, string.id, string.at],
  );
  if (other) throw unfit('Taken', 'string', `“${other.name}” stands at place ${string.at} of this string already.`);
}

async function checkTarget(db: EntityManager, target: TargetDto | null | undefined, own: string): Promise<void> {
  if (target?.pileId === own) throw unfit('Relative to itself', 'target.pileId', 'A pile is not meant to be itself, moved by steps.');
  if (target?.pileId !== undefined && !(await db.existsBy(Pile, { id: target.pileId })))
    throw unfit('Unknown pile', 'target.pileId', 'The target is relative to a pile that is not there.');
}

/** That whatever a purpose speaks of is there, and no pile its own neighbour. */
async function checkPurpose(db: EntityManager, purpose: Needs<'pile.add'>['purpose'], own?: string): Promise<void> {
  if (!purpose) return;
  const added = purpose.inPlace ?? [];
  const piles = [...[...(purpose.neighbours ?? []), ...added].map(({ pileId }) => pileId), purpose.overId, purpose.laid?.brushId].filter(
    (id) => id !== undefined,
  );
  if (own !== undefined && piles.includes(own))
    throw unfit(
      'Beside itself',
      'purpose',
      'A pile is not its own neighbour, nor laid over itself, with itself in the brush, or added to itself.',
    );
  if (!(await areThere(db, Pile, piles)))
    throw unfit('Unknown pile', 'purpose', 'A pile is to stand beside one, over one or after one that is not there.');
  const tubes = added.flatMap(({ tubeId }) => tubeId ?? []);
  if (!(await areThere(db, Tube, tubes)))
    throw unfit('Unknown tube', 'purpose', 'A tube is to be added in place that is not in this studio.');
  if (!(await areThere(db, Sample, purpose.also ?? [])))
    throw unfit('Unknown place', 'purpose', 'A pile is to serve in a place that is not marked.');
  const crossed = purpose.neighbours?.some(({ least, most }) => least !== undefined && most !== undefined && least > most);
  if (crossed) throw unfit('Nothing between', 'purpose', 'The least difference to a neighbour is no larger than the most.');
}

export const addPile: Doing<Needs<'pile.add'>> = async ({ db, at, touch }, sent) => {
  const { id, paintingId = null, remakeOfId = null, cardId = null, name, target = null, sampleId = null, ml } = sent;
  const painting = paintingId === null ? undefined : await paintingOf(db, paintingId);
  if (remakeOfId !== null) await pileOf(db, remakeOfId);
  if (cardId !== null) present('card', await db.findOneBy(Card, { id: cardId }));
  if (sampleId !== null && !(await db.existsBy(Sample, { id: sampleId })))
    throw unfit('Unknown sample', 'sampleId', 'The pile is for a sample that is not there.');
  await checkTarget(db, target as TargetDto | null, id);
  await checkPurpose(db, sent.purpose, id);
  await checkPlace(db, sent.string, id);
  const { plan, predicted } = await planned(db, sent.plan, id);
  await db.insert(Pile, {
    id,
    version: 1,
    paintingId,
    remakeOfId,
    cardId,
    name,
    target: target as TargetDto | null,
    sampleId,
    purpose: (sent.purpose ?? {}) as PurposeDto,
    ...begun(PILE_FIELDS, sent),
    layer: sent.layer ?? painting?.layer ?? 1,
    string: sent.string ? { ...sent.string } : null,
    plan,
    ml,
    predicted,
    createdAt: at,
    updatedAt: at,
    deletedAt: null,
  });
  touch('piles', id);
  if (paintingId !== null) touch('paintings', paintingId);
  return [{ do: 'pile.delete', id, version: 1 }];
};

export const changePile: Doing<Needs<'pile.change'>> = async (
  { db, at, touch },
  { id, version, target, plan, purpose, string, ...plain },
) => {
  const pile = await pileOf(db, id);
  if (pile.version !== version) {
    const [current] = await pileRows(db, { ids: [id] });
    throw stale('pile', version, current);
  }
  await checkTarget(db, target as TargetDto | null | undefined, id);
  await checkPlace(db, string, id);
  await checkPurpose(db, purpose, id);
  await db.update(
    Pile,
    { id },
    {
      version: version + 1,
      updatedAt: at,
      ...given(plain),
      ...(target !== undefined && { target: target as TargetDto | null }),
      ...(purpose !== undefined && { purpose: purpose as PurposeDto }),
      ...(string !== undefined && { string: string && { ...string } }),
      ...(plan && (await planned(db, plan, id))),
    },
  );
  touch('piles', id);
  return [
    {
      do: 'pile.change',
      id,
      version: version + 1,
      ...changed(given(plain), pile),
      ...(target !== undefined && { target: pile.target as Needs<'pile.change'>['target'] }),
      ...(purpose !== undefined && { purpose: pile.purpose as Needs<'pile.change'>['purpose'] & object }),
      ...(string !== undefined && { string: pile.string }),
      ...(plan && { plan: mixtureSent(pile.plan) }),
    },
  ];
};

export const { away: deletePile, back: restorePile } = puttingAway({
  what: 'pile',
  rows: 'piles',
  entity: Pile,
  touches: ({ touch }: Work, row) => {
    const { paintingId } = row as unknown as Pile;
    if (paintingId !== null) touch('paintings', paintingId);
  },
});

/**
 * The colour of a pile after a stage that is about to be recorded (a stage is never changed, so it is
 * reckoned before), or null where it is not known what went in.
 */
export async function predictedAfter(
  db: EntityManager,
  stage: Pick<PileStage, 'id' | 'n' | 'pileId' | 'kind' | 'left'>,
  additions: readonly Pick<Addition, 'tubeId' | 'stateId' | 'sourceId' | 'ml' | 'low' | 'high'>[],
): Promise<{ L: number; a: number; b: number } | null> {
  const sources = additions.flatMap(({ sourceId }) => sourceId ?? []);
  const mothers = sources.length === 0 ? [] : await db.find(Stage, { where: { id: In(sources) }, select: { id: true, pileId: true } });
  const own: StageRecord = {
    id: stage.id,
    n: stage.n,
    pile: stage.pileId,
    kind: stage.kind,
    ...(stage.left !== null && { left: stage.left }),
    additions: additions.map(additionOf),
  };
  const records = [...(await withMothers(db, [stage.pileId, ...mothers.flatMap((m) => m.pileId ?? [])])), own];
  const through = throughStages(records, await paintsOf(db, records));
  const content = through.at.get(stage.id);
  if (!content?.paint || !content.known) return null;
  const evidence = evidenceOf(
    records.filter((r) => r.pile === stage.pileId),
    through,
    await knifeNow(db),
  );
  // A pile that was looked at is reckoned from its look, as what to add was.
  if (evidence?.some((e) => e.observed)) {
    const { beliefs, tubes } = await groundsFor(db, stage.pileId, Object.keys(content.tubes));
    return labDto(lookAfter(evidence, beliefs, tubes));
  }
  return labDto(masstoneOf(content.paint));
}
