import type { Needs, ReferenceDto, SampleDto } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Picture, Reference, Sample } from '../entities/index.ts';
import { unfit } from '../problems.ts';
import { paintingOf } from './paintings.ts';
import { puttingAway } from './putAway.ts';
import type { Doing } from './work.ts';

/** References with the size of their pictures, in one query. Without ids: those of paintings that are there. */
export async function referenceRows(db: EntityManager, ids?: readonly string[]): Promise<ReferenceDto[]> {
  const references = await db.find(Reference, {
    where: ids ? { id: In([...ids]) } : { deletedAt: IsNull(), painting: { deletedAt: IsNull() } },
    relations: { picture: true },
    order: { createdAt: 'ASC' },
  });
  return references.map(({ id, version, paintingId, pictureId, name, createdAt, deletedAt, picture }) => ({
    id,
    version,
    paintingId,
    pictureId,
    name,
    width: picture!.width,
    height: picture!.height,
    createdAt,
    deletedAt,
  }));
}

export const addReference: Doing<Needs<'reference.add'>> = async ({ db, at, touch }, { id, paintingId, pictureId, name }) => {
  await paintingOf(db, paintingId);
  if (!(await db.existsBy(Picture, { id: pictureId })))
    throw unfit('Unknown picture', 'pictureId', 'This picture has not arrived in the studio. Bring it again.');
  await db.insert(Reference, { id, version: 1, paintingId, pictureId, name, createdAt: at, deletedAt: null });
  touch('references', id);
  return [{ do: 'reference.delete', id, version: 1 }];
};

export const { away: deleteReference, back: restoreReference } = puttingAway({
  what: 'reference',
  rows: 'references',
  entity: Reference,
});

const sampleDto = ({ painting: _p, reference: _r, ...row }: Sample): SampleDto => row;

/** Samples by their ids, or those of a painting. */
export async function sampleRows(db: EntityManager, where: { readonly ids?: readonly string[]; readonly paintingId?: string }): Promise<SampleDto[]> {
  const { ids, paintingId } = where;
  const rows = await db.find(Sample, {
    where: ids ? { id: In([...ids]) } : { paintingId: paintingId!, deletedAt: IsNull() },
    order: { createdAt: 'ASC' },
  });
  return rows.map(sampleDto);
}

export const addSample: Doing<Needs<'sample.add'>> = async ({ db, at, touch }, { id, paintingId, referenceId, outline, seen, paint, zone, thing }) => {
  await paintingOf(db, paintingId);
  if (referenceId !== undefined && !(await db.existsBy(Reference, { id: referenceId, paintingId })))
    throw unfit('Unknown reference', 'referenceId', 'The place was sampled from a picture that this painting does not have.');
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
    createdAt: at,
    deletedAt: null,
  });
  touch('samples', id);
  return [{ do: 'sample.delete', id, version: 1 }];
};

export const { away: deleteSample, back: restoreSample } = puttingAway({ what: 'sample', rows: 'samples', entity: Sample });

