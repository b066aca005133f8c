// What swatches that hold a tube looked like.
import { leavesOf } from '@dusk/core';
import { mixtureDto, type Needs, type ReadingDto } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Reading, Sighting, Tube } from '../entities/index.ts';
import { notFound, ProblemError, unfit } from '../refusing/problems.ts';
import { present } from '../change/rows.ts';
import { checkTubes } from '../tubes/tubes.ts';
import type { Doing } from '../change/work.ts';
import { mixtureOfSent } from './piles.ts';

const readingDto = ({ sighting: _, tube: __, ...reading }: Reading): ReadingDto => reading;

/** Readings by id, or those of a tube that stand. */
export const readingRows = async (
  db: EntityManager,
  { ids, tubeId }: { readonly ids?: readonly string[]; readonly tubeId?: string },
): Promise<ReadingDto[]> =>
  (
    await db.find(Reading, {
      where: ids ? { id: In([...ids]) } : { tubeId: tubeId!, withdrawnAt: IsNull() },
      order: { at: 'ASC', id: 'ASC' },
    })
  ).map(readingDto);

export const addReading: Doing<Needs<'reading.add'>> = async ({ db, at, touch, teach }, sent) => {
  const { id, sightingId, tubeId, patch, lab, filmUm, spectrum } = sent;
  present('tube', await db.findOneBy(Tube, { id: tubeId }));
  if (!(await db.existsBy(Sighting, { id: sightingId })))
    throw unfit('Unknown sighting', 'sightingId', 'This reading belongs to no sighting.');
  const mixture = mixtureOfSent(patch);
  const sources = leavesOf(mixture).map(({ source }) => source);
  if (!sources.every((source) => 'tube' in source))
    throw unfit('The request does not fit', 'patch', 'A swatch that teaches a tube is mixed from tubes alone.');
  const tubes = sources.map(({ tube }) => tube);
  if (!tubes.includes(tubeId)) throw unfit('The request does not fit', 'patch', 'The swatch does not hold the tube that it is to teach.');
  await checkTubes(db, tubes);
  await db.insert(Reading, {
    id,
    sightingId,
    tubeId,
    patch: mixtureDto(mixture),
    lab: { L: lab.L, a: lab.a, b: lab.b },
    spectrum: spectrum ?? null,
    filmUm: filmUm ?? null,
    at: sent.at ?? at,
    withdrawnAt: null,
  });
  touch('readings', id);
  teach(tubeId);
  return [{ do: 'reading.withdraw', id }];
};

const mark =
  (withdrawing: boolean): Doing<Needs<'reading.withdraw'>> =>
  async ({ db, at, touch, teach }, { id }) => {
    const reading = await db.findOneBy(Reading, { id });
    if (!reading) throw notFound('reading');
    if ((reading.withdrawnAt !== null) === withdrawing)
      throw new ProblemError(409, 'Not now', withdrawing ? 'This reading was taken back already.' : 'This reading stands already.');
    await db.update(Reading, { id }, { withdrawnAt: withdrawing ? at : null });
    touch('readings', id);
    teach(reading.tubeId);
    return [{ do: withdrawing ? 'reading.restore' : 'reading.withdraw', id }];
  };

export const withdrawReading = mark(true);
export const restoreReading = mark(false);
