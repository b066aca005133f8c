import { randomUUID } from 'node:crypto';
import { mixCurves, temperature, valueOfLightness, weigh, type Basis, type BookIngredient, type Lab, type Measure } from '@dusk/core';
import type { LabDto, NewPile, PileChange, PileDto, PileMeasure as MeasureSent, PileMeasureDto } from '@dusk/wire';
import { IsNull, type EntityManager } from 'typeorm';
import { Pile, PileMeasure, Reference, type TubeState } from '../entities/index.ts';
import { notFound, ProblemError, stale } from '../problems.ts';
import { now } from './catalogue.ts';
import { paintingOf } from './paintings.ts';
import { checkTubes, newestStates } from './tubes.ts';

const USUAL_AMOUNT_ML = 4;

const lab = (L: number | null, a: number | null, b: number | null): LabDto | null => (L === null || a === null || b === null ? null : { L, a, b });

function measureDtos(rows: readonly PileMeasure[]): PileMeasureDto[] {
  const inOrder = [...rows].sort((one, other) => one.position - other.position);
  return inOrder
    .filter((row) => row.letdownId === null)
    .map(({ id, parts, tubeId, stateId }) =>
      tubeId !== null && stateId !== null
        ? { parts, tubeId, stateId }
        : {
            parts,
            letdown: inOrder.filter((r) => r.letdownId === id).map((r) => ({ tubeId: r.tubeId!, stateId: r.stateId!, parts: r.parts })),
          },
    );
}

function dto(pile: Pile): PileDto {
  const { id, version, paintingId, name, amountMl, value, temperature: t, deltaE00, steadiness, basis, createdAt, updatedAt } = pile;
  return {
    id,
    version,
    paintingId,
    name,
    amountMl,
    target: lab(pile.targetL, pile.targetA, pile.targetB),
    sampled:
      pile.sampledReferenceId === null
        ? null
        : { referenceId: pile.sampledReferenceId, x: pile.sampledX!, y: pile.sampledY!, radius: pile.sampledRadius! },
    measures: measureDtos(pile.measures ?? []),
    predicted: { L: pile.predictedL, a: pile.predictedA, b: pile.predictedB },
    value,
    temperature: t,
    deltaE00,
    steadiness,
    basis,
    createdAt,
    updatedAt,
  };
}

async function read(db: EntityManager, id: string): Promise<PileDto> {
  return dto((await db.findOne(Pile, { where: { id }, relations: { measures: true } }))!);
}

export async function pilesOf(db: EntityManager, paintingId: string): Promise<PileDto[]> {
  await paintingOf(db, paintingId);
  const piles = await db.find(Pile, {
    where: { paintingId, deletedAt: IsNull() },
    relations: { measures: true },
    order: { createdAt: 'ASC' },
  });
  return piles.map(dto);
}

async function pileOf(db: EntityManager, id: string, deletedToo = false): Promise<Pile> {
  const pile = await db.findOneBy(Pile, { id });
  if (!pile || (pile.deletedAt && !deletedToo)) throw notFound('pile');
  return pile;
}

const TRUST: readonly Basis[] = ['typical', 'fitted', 'measured'];

/** What the engine says of a recipe, from the newest states of its tubes. */
interface Prediction {
  readonly columns: Pick<Pile, 'predictedL' | 'predictedA' | 'predictedB' | 'value' | 'temperature' | 'deltaE00' | 'steadiness' | 'basis'>;
  readonly states: ReadonlyMap<string, TubeState>;
}

const tubeIdsOf = (measures: readonly MeasureSent[]): string[] =>
  measures.flatMap((m) => m.letdown?.map((l) => l.tubeId) ?? m.tubeId!);

function checkMeasures(measures: readonly MeasureSent[]): void {
  const both = measures.find((m) => m.letdown !== undefined && m.tubeId !== undefined);
  if (both)
    throw new ProblemError(422, 'The request does not fit', 'An ingredient is a tube or a let-down, not both.', {
      fields: [{ field: 'measures', message: 'An ingredient is a tube or a let-down, not both.' }],
    });
}

async function predict(db: EntityManager, sent: readonly MeasureSent[], target: Lab | undefined): Promise<Prediction> {
  checkMeasures(sent);
  const tubeIds = tubeIdsOf(sent);
  await checkTubes(db, tubeIds);
  const states = await newestStates(db, tubeIds);
  const paint = (tubeId: string) => {
    const { K, S } = states.get(tubeId)!;
    return { K: Float64Array.from(K), S: Float64Array.from(S) };
  };
  const measures = sent.map(({ parts, tubeId, letdown }): Measure => {
    const curves = letdown ? mixCurves(letdown.map((l) => ({ paint: paint(l.tubeId), parts: l.parts }))) : paint(tubeId!);
    const ingredient: BookIngredient = { id: tubeId ?? 'let-down', counts: [], ...curves };
    return { ingredient, parts };
  });
  const { lab: predicted, deltaE00, steadiness } = weigh(measures, target ?? [50, 0, 0]);
  const basis = TRUST.find((b) => [...states.values()].some((s) => s.basis === b)) ?? 'typical';
  return {
    states,
    columns: {
      predictedL: predicted[0],
      predictedA: predicted[1],
      predictedB: predicted[2],
      value: valueOfLightness(predicted[0]),
      temperature: temperature(predicted),
      deltaE00: target ? deltaE00 : null,
      steadiness,
      basis,
    },
  };
}

async function layDown(db: EntityManager, pileId: string, sent: readonly MeasureSent[], states: ReadonlyMap<string, TubeState>): Promise<void> {
  await db.delete(PileMeasure, { pileId });
  let position = 0;
  const row = (parts: number, tubeId: string | null, letdownId: string | null) => ({
    id: randomUUID(),
    pileId,
    position: position++,
    parts,
    tubeId,
    stateId: tubeId === null ? null : states.get(tubeId)!.id,
    letdownId,
  });
  for (const { parts, tubeId, letdown } of sent) {
    const measure = row(parts, letdown ? null : tubeId!, null);
    await db.insert(PileMeasure, measure);
    for (const part of letdown ?? []) await db.insert(PileMeasure, row(part.parts, part.tubeId, measure.id));
  }
}

async function checkSampled(db: EntityManager, paintingId: string, sampled: NewPile['sampled']): Promise<void> {
  if (sampled && !(await db.existsBy(Reference, { id: sampled.referenceId, paintingId })))
    throw new ProblemError(422, 'Unknown reference', 'The place was sampled from a picture that this painting does not have.', {
      fields: [{ field: 'sampled.referenceId', message: 'There is no such reference.' }],
    });
}

export async function addPile(db: EntityManager, paintingId: string, sent: NewPile): Promise<PileDto> {
  await paintingOf(db, paintingId);
  await checkSampled(db, paintingId, sent.sampled);
  const target: Lab | undefined = sent.target && [sent.target.L, sent.target.a, sent.target.b];
  const { columns, states } = await predict(db, sent.measures, target);
  const at = now();
  const id = randomUUID();
  await db.insert(Pile, {
    id,
    version: 1,
    paintingId,
    name: sent.name,
    amountMl: sent.amountMl ?? USUAL_AMOUNT_ML,
    targetL: sent.target?.L ?? null,
    targetA: sent.target?.a ?? null,
    targetB: sent.target?.b ?? null,
    sampledReferenceId: sent.sampled?.referenceId ?? null,
    sampledX: sent.sampled?.x ?? null,
    sampledY: sent.sampled?.y ?? null,
    sampledRadius: sent.sampled?.radius ?? null,
    ...columns,
    createdAt: at,
    updatedAt: at,
    deletedAt: null,
  });
  await layDown(db, id, sent.measures, states);
  return read(db, id);
}

export async function changePile(db: EntityManager, id: string, { version, name, amountMl, measures }: PileChange): Promise<PileDto> {
  const pile = await pileOf(db, id);
  if (pile.version !== version) throw stale('pile', version, await read(db, id));
  const change: Partial<Pile> = { version: version + 1, updatedAt: now() };
  if (name !== undefined) change.name = name;
  if (amountMl !== undefined) change.amountMl = amountMl;
  if (measures) {
    const target = lab(pile.targetL, pile.targetA, pile.targetB);
    const { columns, states } = await predict(db, measures, target ? [target.L, target.a, target.b] : undefined);
    Object.assign(change, columns);
    await layDown(db, id, measures, states);
  }
  await db.update(Pile, { id }, change);
  return read(db, id);
}

export async function deletePile(db: EntityManager, id: string): Promise<void> {
  const pile = await pileOf(db, id);
  await db.update(Pile, { id }, { deletedAt: now(), version: pile.version + 1 });
}

export async function restorePile(db: EntityManager, id: string): Promise<PileDto> {
  const pile = await pileOf(db, id, true);
  await db.update(Pile, { id }, { deletedAt: null, version: pile.version + 1 });
  return read(db, id);
}
