import { checkBounds, frameOf, fromCanvas, type Quad } from '@dusk/core';
import type { Needs, Operation, OutlineDto, ReferenceDto, SampleDto, ViewDto } from '@dusk/wire';
import { isUUID } from 'class-validator';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Picture, Pile, Reference, Sample } from '../entities/index.ts';
import { stale, unfit } from '../refusing/problems.ts';
import { paintingOf } from './paintings.ts';
import { puttingAway } from '../change/putAway.ts';
import { areThere, changed, given, present } from '../change/rows.ts';
import type { Doing } from '../change/work.ts';

async function pictureOf(db: EntityManager, id: string): Promise<Picture> {
  const picture = await db.findOneBy(Picture, { id });
  if (!picture) throw unfit('Unknown picture', 'pictureId', 'This picture has not arrived in the studio. Bring it again.');
  return picture;
}

/** What a view's class cannot say of it: that a crop lies within the picture, and that steps rise. */
function checkView(view: ViewDto | undefined): void {
  if (view?.crop) frameOf({ crop: view.crop }, 100, 100);
  if (view?.steps) checkBounds(view.steps);
  if (view?.canvas) fromCanvas(view.canvas.corners as unknown as Quad);
  if (view?.shapes?.some(({ points }) => points.length % 2 !== 0))
    throw unfit('Half a corner', 'view', 'A shape is made of corners, x and y each.');
}

/** Piles that a view speaks of. */
function pilesSpokenOf({ shapes = [], trials = [], dress = [] }: ViewDto): Set<string> {
  const parts = [...shapes, ...trials.flatMap(({ changes }) => changes)];
  return new Set([...parts.flatMap(({ pileId }) => pileId ?? []), ...dress.filter((one) => isUUID(one))]);
}
/** What a view speaks of anew is there; what it spoke of before may have been put away since. */
async function checkSpokenOf(db: EntityManager, view: ViewDto | undefined, before: ViewDto): Promise<void> {
  if (!view) return;
  const known = pilesSpokenOf(before);
  const fresh = [...pilesSpokenOf(view)].filter((id) => !known.has(id));
  if (!(await areThere(db, Pile, fresh)))
    throw unfit('Unknown pile', 'view', 'A part of the picture is to be painted with a pile that is not there.');
  const of = view.canvas?.of;
  if (of !== undefined && of !== before.canvas?.of && !(await db.existsBy(Reference, { id: of })))
    throw unfit('Unknown picture', 'view', 'The canvas is held against a picture that is not there.');
}

/** A corner is two numbers; a lone one at the end belongs to none. */
function checkOutline(outline: OutlineDto | undefined): void {
  for (const area of outline ? [outline, ...(outline.more ?? [])] : [])
    if (area.points && area.points.length % 2 !== 0)
      throw unfit('Half a corner', 'outline', 'A drawn area is made of corners, x and y each.');
}

/** A place that was sampled lies in its picture, as far as a hand that draws to the edge goes. */
async function checkWithin(db: EntityManager, referenceId: string | null | undefined, outline: OutlineDto | undefined): Promise<void> {
  if (!referenceId || !outline) return;
  const [reference] = await referenceRows(db, [referenceId]);
  if (!reference) return;
  const { width, height } = reference;
  const [farX, farY] = [width + EDGE, height + EDGE];
  for (const { x, y, radius, points = [] } of [outline, ...(outline.more ?? [])]) {
    const isIn = x >= -EDGE && x <= farX && y >= -EDGE && y <= farY && radius <= Math.max(width, height);
    const areIn = points.every((v, i) => v >= -EDGE && v <= (i % 2 === 0 ? farX : farY));
    if (!isIn || !areIn)
      throw unfit('Outside its picture', 'outline', `A place lies within its picture, which is ${width} by ${height} pixels.`);
  }
}
/** px. */
const EDGE = 2;

/** References with the size of their pictures, in one query: by id, or those of some paintings that are there. */
export async function referenceRows(
  db: EntityManager,
  ids: readonly string[] | { readonly paintingIds: readonly string[] },
): Promise<ReferenceDto[]> {
  const references = await db.find(Reference, {
    where: 'paintingIds' in ids ? { deletedAt: IsNull(), paintingId: In([...ids.paintingIds]) } : { id: In([...ids]) },
    relations: { picture: true },
    order: { createdAt: 'ASC' },
  });
  return references.map(({ picture, painting: _p, ...row }) => ({
    ...row,
    width: row.width || picture!.width,
    height: row.height || picture!.height,
    ownWidth: picture!.width,
    space: picture!.space,
    colours: picture!.colours,
  }));
}

export const addReference: Doing<Needs<'reference.add'>> = async ({ db, at, touch }, { id, paintingId, pictureId, name }) => {
  await paintingOf(db, paintingId);
  const { width, height } = await pictureOf(db, pictureId);
  const rest = { width, height, view: {}, source: '', passing: 'ask' as const, createdAt: at, deletedAt: null };
  await db.insert(Reference, { id, version: 1, paintingId, pictureId, name, ...rest });
  touch('references', id);
  return [{ do: 'reference.delete', id, version: 1 }];
};

export const changeReference: Doing<Needs<'reference.change'>> = async ({ db, touch }, { id, version, ...change }) => {
  present('reference', await db.findOneBy(Reference, { id }));
  const [before] = (await referenceRows(db, [id])) as [ReferenceDto];
  if (before.version !== version) throw stale('reference', version, before);
  if (change.pictureId !== undefined) await pictureOf(db, change.pictureId);
  checkView(change.view);
  await checkSpokenOf(db, change.view, before.view);
  const news = given(change);
  await db.update(Reference, { id }, { ...news, version: version + 1 });
  touch('references', id);
  return [{ do: 'reference.change', id, version: version + 1, ...changed(news, before) } as Operation];
};

export const { away: deleteReference, back: restoreReference } = puttingAway({
  what: 'reference',
  rows: 'references',
  entity: Reference,
});

const sampleDto = ({ painting: _p, reference: _r, ...row }: Sample): SampleDto => row;

/** Samples by their ids, or those of a painting. */
export async function sampleRows(
  db: EntityManager,
  where: { readonly ids?: readonly string[]; readonly paintingId?: string },
): Promise<SampleDto[]> {
  const { ids, paintingId } = where;
  const rows = await db.find(Sample, {
    where: ids ? { id: In([...ids]) } : { paintingId: paintingId!, deletedAt: IsNull() },
    order: { createdAt: 'ASC' },
  });
  return rows.map(sampleDto);
}

export const addSample: Doing<Needs<'sample.add'>> = async (
  { db, at, touch },
  { id, paintingId, referenceId, outline, seen, paint, zone, thing, valueOnly, light },
) => {
  await paintingOf(db, paintingId);
  checkOutline(outline);
  if (referenceId !== undefined && !(await db.existsBy(Reference, { id: referenceId, paintingId })))
    throw unfit('Unknown reference', 'referenceId', 'The place was sampled from a picture that this painting does not have.');
  await checkWithin(db, referenceId, outline);
  await db.insert(Sample, {
    id,
    version: 1,
    paintingId,
    referenceId: referenceId ?? null,
    outline: outline ?? null,
    seen,
    paint,
    zone: zone ?? '',
    thing: thing ?? '',
    valueOnly: valueOnly ?? false,
    light: light ?? '',
    createdAt: at,
    deletedAt: null,
  });
  touch('samples', id);
  return [{ do: 'sample.delete', id, version: 1 }];
};

export const changeSample: Doing<Needs<'sample.change'>> = async ({ db, touch }, { id, version, ...change }) => {
  const before = sampleDto(present('sample', await db.findOneBy(Sample, { id })));
  if (before.version !== version) throw stale('sample', version, before);
  checkOutline(change.outline);
  await checkWithin(db, before.referenceId, change.outline);
  const news = given(change);
  await db.update(Sample, { id }, { ...news, version: version + 1 });
  touch('samples', id);
  const { outline, ...rest } = changed(news, before);
  // A sample that had no place cannot be told so by a change.
  return [{ do: 'sample.change', id, version: version + 1, ...rest, ...(outline && { outline }) } as Operation];
};

export const { away: deleteSample, back: restoreSample } = puttingAway({ what: 'sample', rows: 'samples', entity: Sample });
