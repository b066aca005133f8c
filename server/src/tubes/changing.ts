// What a painter writes of tubes: their own are added, changed, put away and brought back.
import { randomUUID } from 'node:crypto';
import type { PaintCurves } from '@dusk/core';
import type { Needs, Operation } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Palette, PaletteTube, Tube, TubeState } from '../entities/index.ts';
import { ProblemError, stale, unfit } from '../refusing/problems.ts';
import { puttingAway } from '../change/putAway.ts';
import { changed, given, present } from '../change/rows.ts';
import type { Doing, Work } from '../change/work.ts';
import { paintOfState, tubeRows, typicalCurves, TYPICAL_SOURCE } from './tubes.ts';

/** Mouth of an ordinary 40 ml tube. */
export const USUAL_NOZZLE_MM = 6;

/** Digits to which doubt is kept. */
const round = (v: number): number => Math.round(v * 1e4) / 1e4;

/** A state that is not learnt, as a tube's newest; the tube is reckoned with it from now on. */
export async function addState(
  db: EntityManager,
  tubeId: string,
  { K, S, doubt }: PaintCurves,
  basis: Exclude<TubeState['basis'], 'learnt'>,
  source: string,
  at: string,
): Promise<void> {
  const id = randomUUID();
  const curves = { K: Array.from(K), S: Array.from(S), doubt: doubt?.map((way) => Array.from(way, (v) => round(v))) ?? null };
  await db.insert(TubeState, { id, tubeId, basis, source, ...curves, createdAt: at, baseId: null, beliefId: null, learnt: null });
  await db.update(Tube, { id: tubeId }, { stateId: id });
}

/** Curves of the tube that a new one is like, as they are today; what piles taught of it holds for paint of the same kind. */
async function likeOf(db: EntityManager, likeId: string) {
  const like = await db.findOne(Tube, { where: { id: likeId }, relations: { state: true } });
  if (!like?.state) throw unfit('Unknown tube', 'likeId', 'The tube that this one is like is not in this studio.');
  const { basis } = like.state;
  return { paint: paintOfState(like.state), basis: basis === 'learnt' ? 'typical' : basis, source: `like ${likeId}` } as const;
}

function usualOf(pigments: readonly string[]) {
  const paint = typicalCurves(pigments);
  if (!paint)
    throw unfit(
      'Unknown pigment',
      'likeId',
      `The catalogue knows ${pigments.length === 1 ? 'no such pigment' : 'none of these pigments'}. Say which tube this one is like, to begin with.`,
    );
  return { paint, basis: 'typical', source: TYPICAL_SOURCE } as const;
}

export const addOwnTube: Doing<Needs<'tube.add'>> = async (work, sent) => {
  const { db, at, touch } = work;
  const { id, name, pigments, likeId, maker, nozzleMm, note, density, drying, lightfastness, caution, sizeMl, leftMl } = sent;
  const { paint, basis, source } = likeId === undefined ? usualOf(pigments) : await likeOf(db, likeId);
  await db.insert(Tube, {
    id,
    version: 1,
    name,
    maker: maker ?? '',
    pigment: pigments[0]!,
    pigments: [...pigments],
    nozzleMm: nozzleMm ?? USUAL_NOZZLE_MM,
    density: density ?? null,
    drying: drying ?? null,
    lightfastness: lightfastness ?? null,
    caution: caution ?? null,
    sizeMl: sizeMl ?? null,
    leftMl: leftMl ?? null,
    note: note ?? '',
    createdAt: at,
    deletedAt: null,
    stateId: null,
  });
  await addState(db, id, paint, basis, source, at);
  touch('tubes', id);
  return [{ do: 'tube.delete', id, version: 1 }];
};

export const changeTube: Doing<Needs<'tube.change'>> = async (work, { id, version, ...change }) => {
  const { db, touch } = work;
  const before = present('tube', await db.findOneBy(Tube, { id }));
  if (before.version !== version) throw stale('tube', version, (await tubeRows(db, [id]))[0]!);
  const news = given(change);
  await db.update(Tube, { id }, { ...news, version: version + 1 });
  touch('tubes', id);
  return [{ do: 'tube.change', id, version: version + 1, ...changed(news, before) } as Operation];
};

/** A tube that lies on a palette stays: whoever paints from that would miss it. */
async function checkFree({ db }: Work, { id }: { readonly id: string }, back: boolean): Promise<void> {
  if (back) return;
  const lain = await db.findBy(PaletteTube, { tubeId: id });
  const lies = await db.findOneBy(Palette, { id: In(lain.map(({ paletteId }) => paletteId)), deletedAt: IsNull() });
  if (!lies) return;
  const { name } = await db.findOneByOrFail(Tube, { id });
  throw new ProblemError(409, 'In use', `“${name}” lies on the palette “${lies.name}”. Take it off there first.`);
}

export const { away: deleteTube, back: restoreTube } = puttingAway({ what: 'tube', rows: 'tubes', entity: Tube, check: checkFree });
