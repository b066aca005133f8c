// Cards as they are kept, and as the engine knows them.
import type { Card as CoreCard, CardTube, Lab } from '@dusk/core';
import { labOfDto, type CardTubeDto, type LabDto } from '@dusk/wire';
import { In, type EntityManager } from 'typeorm';
import { Card } from '../entities/index.ts';

/** What cards of before say nothing of. */
export const UNSAID = { light: '', film: '', medium: '', basis: 'typical', steadiness: 0, within: 0 } as const;

/** Cards looked up at once: SQLite takes so many values. */
const LOOKED_UP = 500;

/** Cards by their ids, put away or not, however many are asked for. */
export async function cardsById(db: EntityManager, ids: readonly string[]): Promise<Map<string, Card>> {
  const found = new Map<string, Card>();
  for (let at = 0; at < ids.length; at += LOOKED_UP)
    for (const card of await db.findBy(Card, { id: In(ids.slice(at, at + LOOKED_UP)) })) found.set(card.id, card);
  return found;
}

const labIf = (lab: LabDto | null): Lab | undefined => (lab ? labOfDto(lab) : undefined);

export const curvesOfTubes = (tubes: readonly CardTubeDto[]): CardTube[] =>
  tubes.map((tube) => ({ ...tube, basis: tube.basis ?? 'typical', K: Float64Array.from(tube.K), S: Float64Array.from(tube.S) }));

/** A card as the engine knows it. */
export function cardOf({
  id,
  name,
  note,
  body,
  dab,
  createdAt,
}: Pick<Card, 'id' | 'name' | 'note' | 'body' | 'dab' | 'createdAt'>): CoreCard {
  return {
    ...UNSAID,
    ...body,
    id,
    name,
    note,
    tubes: curvesOfTubes(body.tubes),
    target: labIf(body.target),
    predicted: labOfDto(body.predicted),
    seen: labIf(body.seen),
    dab: dab ? { ...dab, lab: labOfDto(dab.lab) } : undefined,
    madeAt: createdAt,
  };
}
