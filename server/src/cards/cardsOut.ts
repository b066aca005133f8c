import {
  CATALOGUE,
  cardsToCgats,
  cardsToCsv,
  MOST_CARDS,
  writeCards,
  type CardPalette,
  type CardSet as CoreSet,
  type CardTube,
} from '@dusk/core';
import type { CardForm, CardsOut } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Card, Palette, PaletteTube, type Tube } from '../entities/index.ts';
import { ProblemError } from '../refusing/problems.ts';
import { cardOf, cardsById } from './kept.ts';
import { setRows } from './cardSets.ts';
import { paintOfState } from '../tubes/tubes.ts';

/** Cards that are there, in the order they are asked for. */
export async function cardsInOrder(db: EntityManager, ids: readonly string[]): Promise<Card[]> {
  const found = await cardsById(db, ids);
  return ids.flatMap((id) => found.get(id) ?? []).filter(({ deletedAt }) => deletedAt === null);
}

/** A tube of the studio as a card or a palette takes it along. */
function tubeOut({ id, name, pigment, nozzleMm, state }: Tube): CardTube {
  const { colourIndex, caution, density } = CATALOGUE.get(pigment)!;
  return { key: id, name, pigment, colourIndex, caution, density, nozzleMm, basis: state!.basis, ...paintOfState(state!) };
}

async function palettesOut(db: EntityManager, ids: readonly string[] | undefined): Promise<CardPalette[]> {
  const palettes = await db.find(Palette, {
    where: { ...(ids && { id: In([...ids]) }), deletedAt: IsNull() },
    order: { createdAt: 'ASC' },
  });
  const places = await db.find(PaletteTube, {
    where: { paletteId: In(palettes.map(({ id }) => id)) },
    relations: { tube: { state: true } },
    order: { position: 'ASC' },
  });
  return palettes.map(({ id, name }) => ({
    id,
    name,
    tubes: places.filter((place) => place.paletteId === id).map(({ tube }) => tubeOut(tube!)),
  }));
}

async function setsOut(db: EntityManager, ids: readonly string[], there: ReadonlySet<string>): Promise<CoreSet[]> {
  return (await setRows(db, ids)).map(({ id, name, kind, note, cardIds }) => ({
    id,
    name,
    kind,
    note,
    cards: cardIds.filter((card) => there.has(card)),
  }));
}

/** How many are asked for at once at most, in words. */
const tooMany = (): never => {
  throw new ProblemError(
    413,
    'Too many cards',
    `One file holds at most ${MOST_CARDS} cards. Choose fewer, by a set; or copy the whole studio under Settings.`,
  );
};

/** A file of cards to be taken elsewhere. @throws ProblemError where there are none, or more than one file holds */
export async function cardsOut(
  db: EntityManager,
  { cardIds, setId, paletteIds = [], all = false }: CardsOut,
  form: CardForm,
): Promise<string> {
  const sets = all ? await setRows(db) : setId ? await setRows(db, [setId]) : [];
  const ids = all
    ? (
        await db.find(Card, {
          where: { deletedAt: IsNull() },
          select: { id: true },
          order: { value: 'ASC', id: 'ASC' },
          take: MOST_CARDS + 1,
        })
      ).map(({ id }) => id)
    : [...new Set([...(cardIds ?? []), ...sets.flatMap((set) => set.cardIds)])];
  if (ids.length > MOST_CARDS) return tooMany();
  const cards = (await cardsInOrder(db, ids)).map(cardOf);
  const palettes = all ? await palettesOut(db, undefined) : await palettesOut(db, paletteIds);
  if (cards.length + palettes.length === 0)
    throw new ProblemError(404, 'No cards', 'None of these cards is there any more; no file was written.');
  if (form === 'csv') return cardsToCsv(cards);
  if (form === 'cgats') return cardsToCgats(cards);
  return writeCards({
    cards,
    sets: await setsOut(
      db,
      sets.map(({ id }) => id),
      new Set(cards.map(({ id }) => id)),
    ),
    palettes,
  });
}
