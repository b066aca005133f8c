import type { Needs, SetDto } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Card, CardPlace, CardSet } from '../entities/index.ts';
import { stale, unfit } from '../refusing/problems.ts';
import { puttingAway } from '../change/putAway.ts';
import { changed, given, groupedBy, present } from '../change/rows.ts';
import type { Doing, Work } from '../change/work.ts';

/** Sets with those of their cards that are there, in two queries however many. */
export async function setRows(db: EntityManager, ids?: readonly string[]): Promise<SetDto[]> {
  const sets = await db.find(CardSet, {
    where: ids ? { id: In([...ids]) } : { deletedAt: IsNull() },
    order: { createdAt: 'ASC', id: 'ASC' },
  });
  const places = await db.find(CardPlace, {
    where: { setId: In(sets.map(({ id }) => id)), card: { deletedAt: IsNull() } },
    order: { position: 'ASC' },
  });
  const cards = groupedBy(places, (place) => place.setId);
  return sets.map(({ id, version, name, kind, note, createdAt, deletedAt }) => ({
    id,
    version,
    name,
    kind,
    note,
    cardIds: (cards.get(id) ?? []).map(({ cardId }) => cardId),
    createdAt,
    deletedAt,
  }));
}

async function layOut({ db }: Work, setId: string, cardIds: readonly string[]): Promise<void> {
  const there = await db.countBy(Card, { id: In([...cardIds]) });
  if (there < cardIds.length) throw unfit('Unknown card', 'cardIds', 'A set names a card that is not in this studio.');
  await db.delete(CardPlace, { setId });
  await db.insert(
    CardPlace,
    cardIds.map((cardId, position) => ({ setId, cardId, position })),
  );
}

export const addSet: Doing<Needs<'set.add'>> = async (work, { id, name, kind, note = '', cardIds }) => {
  await work.db.insert(CardSet, { id, version: 1, name, kind, note, bringingId: null, createdAt: work.at, deletedAt: null });
  await layOut(work, id, cardIds);
  work.touch('sets', id);
  return [{ do: 'set.delete', id, version: 1 }];
};

export const changeSet: Doing<Needs<'set.change'>> = async (work, { id, version, cardIds, ...change }) => {
  present('set', await work.db.findOneBy(CardSet, { id }));
  const [before] = (await setRows(work.db, [id])) as [SetDto];
  if (before.version !== version) throw stale('set', version, before);
  const news = given(change);
  if (cardIds) await layOut(work, id, cardIds);
  await work.db.update(CardSet, { id }, { ...news, version: version + 1 });
  work.touch('sets', id);
  return [{ do: 'set.change', id, version: version + 1, ...changed(news, before), ...(cardIds && { cardIds: [...before.cardIds] }) }];
};

export const { away: deleteSet, back: restoreSet } = puttingAway({ what: 'set', rows: 'sets', entity: CardSet });
