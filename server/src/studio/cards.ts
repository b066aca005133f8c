import { checkCard, CATALOGUE, isPile, leavesOf, mixtureOf, throughStages, valueOfLightness, withPileOpened, masstoneOf, paintOfCard, type Mixture } from '@dusk/core';
import { labDto, labOfDto, type CardBody, type CardDto, type CardTubeDto, type Needs } from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Card, Painting, Sample, Tube, type Pile } from '../entities/index.ts';
import { stale, unfit } from '../problems.ts';
import { pileOf } from './piles.ts';
import { puttingAway } from './putAway.ts';
import { changed, given, present } from './rows.ts';
import { readStages, withMothers } from './stagesRead.ts';
import { statesById } from './tubes.ts';
import type { Doing } from './work.ts';

const dto = ({ body, pile: _p, value: _v, ...row }: Card): CardDto => ({ ...row, ...body });

/** Cards by their ids, or all that are there, dark to light. */
export async function cardRows(db: EntityManager, ids?: readonly string[]): Promise<CardDto[]> {
  const rows = await db.find(Card, { where: ids ? { id: In([...ids]) } : { deletedAt: IsNull() }, order: { value: 'ASC', id: 'ASC' } });
  return rows.map(dto);
}

/** Hundredths of a part: how finely what was truly done is written. */
const FINE = 100;

/** Most piles that are opened into one another. */
const MOST_OPENED = 40;

/** A plan of tubes alone: the piles it takes from are opened, let-downs and order kept. */
async function ofTubesAlone(db: EntityManager, plan: Mixture): Promise<Mixture> {
  let mixture: Mixture = { heaps: plan.heaps };
  for (let opened = 0; ; opened++) {
    const mother = leavesOf(mixture).map(({ source }) => source).find(isPile);
    if (!mother) return mixture;
    if (opened >= MOST_OPENED) throw unfit('Too many mothers', 'pileId', 'This pile rests on too many others for a card.');
    mixture = withPileOpened(mixture, mother.pile, await recipeOf(db, await pileOf(db, mother.pile)));
  }
}

/** What a pile is made of: its plan as long as it was mixed so; else the tubes that went into it, as much of each. */
async function recipeOf(db: EntityManager, pile: Pile): Promise<Mixture> {
  const { stages } = await readStages(db, { pileIds: [pile.id] });
  const own = stages.filter((stage) => stage.pileId === pile.id);
  const asPlanned = own.every(({ kind }) => kind === 'mixed' || kind === 'scraped' || kind === 'left');
  if (asPlanned) return ofTubesAlone(db, pile.plan);
  const content = throughStages(await withMothers(db, [pile.id])).now.get(pile.id);
  if (!content?.known) throw unfit('Not known', 'pileId', 'Something went into this pile that was not recorded, so a card cannot say what it is made of.');
  return mixtureOf(Object.entries(content.tubes).map(([tube, share]) => ({ tube, parts: Math.max(1 / FINE, Math.round(share * 100 * FINE) / FINE) })));
}

/** The tubes of a recipe as they are reckoned with, and the recipe by their keys. */
async function withTubes(db: EntityManager, mixture: Mixture): Promise<{ readonly recipe: Mixture; readonly tubes: CardTubeDto[] }> {
  const used = leavesOf(mixture).map(({ source }) => source as { readonly tube: string; readonly state?: string });
  const tubes = new Map((await db.find(Tube, { where: { id: In(used.map(({ tube }) => tube)) }, relations: { state: true } })).map((tube) => [tube.id, tube]));
  const states = await statesById(
    db,
    used.flatMap(({ state }) => state ?? []),
  );
  const keyOf = new Map<string, string>();
  const known: CardTubeDto[] = [];
  for (const { tube: id, state } of used) {
    const name = `${id} ${state ?? ''}`;
    if (keyOf.has(name)) continue;
    const tube = tubes.get(id)!;
    const { K, S } = (state === undefined ? undefined : states.get(state)) ?? tube.state!;
    const { colourIndex, caution, density } = CATALOGUE.get(tube.pigment)!;
    const key = `t${known.length + 1}`;
    keyOf.set(name, key);
    known.push({ key, name: tube.name, pigment: tube.pigment, colourIndex, caution, density, nozzleMm: tube.nozzleMm, K, S });
  }
  const recipe = {
    heaps: mixture.heaps.map(({ ingredients }) => ({
      ingredients: ingredients.map((one) =>
        'heap' in one ? { heap: one.heap, parts: one.parts } : { tube: keyOf.get(`${(one as { tube: string }).tube} ${(one as { state?: string }).state ?? ''}`)!, parts: one.parts },
      ),
    })),
  };
  return { recipe, tubes: known };
}

const curves = (tubes: readonly CardTubeDto[]) => tubes.map((tube) => ({ ...tube, K: Float64Array.from(tube.K), S: Float64Array.from(tube.S) }));

async function bodyOf(db: EntityManager, pile: Pile): Promise<CardBody> {
  const { recipe, tubes } = await withTubes(db, await recipeOf(db, pile));
  const { looks, stages } = await readStages(db, { pileIds: [pile.id] });
  const last = stages.filter((stage) => stage.pileId === pile.id).at(-1);
  const look = last && looks.get(last.id)?.at(-1);
  const sample = pile.sampleId === null ? null : await db.findOneBy(Sample, { id: pile.sampleId });
  const painting = pile.paintingId === null ? null : await db.findOneBy(Painting, { id: pile.paintingId });
  return {
    recipe,
    tubes,
    ml: pile.ml,
    target: pile.target?.lab ?? null,
    predicted: labDto(masstoneOf(paintOfCard({ recipe, tubes: curves(tubes) }))),
    seen: look ? { L: look.L, a: look.a, b: look.b } : null,
    thing: pile.purpose.thing ?? sample?.thing ?? '',
    zone: pile.purpose.zone ?? sample?.zone ?? '',
    painting: painting?.title ?? '',
  };
}

export const addCard: Doing<Needs<'card.add'>> = async ({ db, at, touch }, { id, pileId, name }) => {
  const pile = await pileOf(db, pileId);
  const body = await bodyOf(db, pile);
  const called = name ?? pile.name;
  checkCard({
    ...body,
    id,
    name: called,
    note: pile.note,
    madeAt: at,
    tubes: curves(body.tubes),
    predicted: labOfDto(body.predicted),
    target: undefined,
    seen: undefined,
  });
  const { L } = body.seen ?? body.predicted;
  await db.insert(Card, { id, version: 1, name: called, note: pile.note, pileId, body, value: valueOfLightness(Math.max(0, L)), createdAt: at, deletedAt: null });
  touch('cards', id);
  return [{ do: 'card.delete', id, version: 1 }];
};

export const changeCard: Doing<Needs<'card.change'>> = async ({ db, touch }, { id, version, ...change }) => {
  present('card', await db.findOneBy(Card, { id }));
  const [before] = (await cardRows(db, [id])) as [CardDto];
  if (before.version !== version) throw stale('card', version, before);
  const news = given(change);
  await db.update(Card, { id }, { ...news, version: version + 1 });
  touch('cards', id);
  return [{ do: 'card.change', id, version: version + 1, ...changed(news, before) }];
};

export const { away: deleteCard, back: restoreCard } = puttingAway({ what: 'card', rows: 'cards', entity: Card });
