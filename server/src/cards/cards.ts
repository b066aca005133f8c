import {
  checkCard,
  deltaE00,
  isPile,
  leastSure,
  leavesOf,
  masstoneOf,
  measuredAnew,
  mixtureOf,
  MOST_MADE,
  openToTubes,
  paintOfMixture,
  predict,
  readCard,
  shareText,
  throughStages,
  trustInMixture,
  withPileOpened,
  type Basis,
  type Card as CoreCard,
  type CardTube,
  type Mixture,
} from '@dusk/core';
import {
  labDto,
  type CardBody,
  type CardDto,
  type CardStory,
  type CardTubeDto,
  type DabDto,
  type Needs,
  type Operation,
  type StandsDto,
} from '@dusk/wire';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Card, CardFound, CardPlace, Painting, Pile, Sample, Sighting, Tube } from '../entities/index.ts';
import { stale, unfit } from '../refusing/problems.ts';
import { doubtsAbout } from '../beliefs/beliefs.ts';
import { CardIndex, letBeFound } from './cardIndex.ts';
import { cardOf, curvesOfTubes, UNSAID } from './kept.ts';
import { laidLines } from '../piles/laid.ts';
import { anyPile, mixtureOfSent, pileOf } from '../piles/piles.ts';
import { puttingAway } from '../change/putAway.ts';
import { changed, given, present } from '../change/rows.ts';
import { readStages, withMothers } from '../deeds/stagesRead.ts';
import { checkTubes, handledOf, statesById } from '../tubes/tubes.ts';
import type { Doing, Work } from '../change/work.ts';

const dto = ({ body, pile: _p, bringing: _b, value: _v, ...row }: Card): CardDto => ({ ...row, ...UNSAID, ...body });

/** Cards by their ids, dark to light. */
export async function cardRows(db: EntityManager, ids: readonly string[]): Promise<CardDto[]> {
  return (await db.find(Card, { where: { id: In([...ids]) }, order: { value: 'ASC', id: 'ASC' } })).map(dto);
}

/** What is kept of a card from elsewhere. */
export const bodyOfCard = ({
  recipe,
  tubes,
  ml,
  target,
  predicted,
  seen,
  thing,
  zone,
  painting,
  light,
  film,
  medium,
  made,
  basis,
  steadiness,
  within,
}: CoreCard): CardBody => ({
  recipe,
  tubes: tubes.map((tube) => ({ ...tube, K: Array.from(tube.K), S: Array.from(tube.S) })),
  ml,
  target: target ? labDto(target) : null,
  predicted: labDto(predicted),
  seen: seen ? labDto(seen) : null,
  thing,
  zone,
  painting,
  light,
  film,
  medium,
  ...(made && { made }),
  basis,
  steadiness,
  within,
});

/** Cards written in one statement: SQLite takes so many values at once. */
const AT_ONCE = 200;

/** Writes new cards and lets them be found. */
export async function keepCards(
  db: EntityManager,
  cards: readonly (CoreCard & Pick<Card, 'pileId' | 'stands' | 'bringingId'> & { readonly deletedAt?: string | null })[],
): Promise<void> {
  const rows = cards.map(({ pileId, stands, bringingId, deletedAt = null, ...card }): Card => ({
    id: card.id,
    version: 1,
    name: card.name,
    note: card.note,
    pileId,
    body: bodyOfCard(card),
    value: readCard({ predicted: card.predicted, seen: card.seen }).value,
    dab: card.dab ? { ...card.dab, lab: labDto(card.dab.lab) } : null,
    stands,
    bringingId,
    createdAt: card.madeAt,
    deletedAt,
  }));
  // The mapper writes into what it inserts, and mistakes one row for another there: it gets copies.
  for (let at = 0; at < rows.length; at += AT_ONCE)
    await db.insert(
      Card,
      rows.slice(at, at + AT_ONCE).map((row) => ({ ...row })),
    );
  await letBeFound(db, rows);
}

/** Hundredths of a part: how finely what was truly done is written. */
const FINE = 100;

/** Most piles that are opened into one another. */
const MOST_OPENED = 40;

/** A plan of tubes alone: the piles it takes from are opened, let-downs and order kept. */
async function ofTubesAlone(db: EntityManager, plan: Mixture): Promise<Mixture> {
  let mixture: Mixture = { heaps: plan.heaps };
  for (let opened = 0; ; opened++) {
    const mother = leavesOf(mixture)
      .map(({ source }) => source)
      .find(isPile);
    if (!mother) return mixture;
    if (opened >= MOST_OPENED) throw unfit('Too many mothers', 'pileId', 'This pile rests on too many others for a card.');
    mixture = withPileOpened(mixture, mother.pile, await recipeOf(db, await anyPile(db, mother.pile)));
  }
}

/** Shares of tubes that differ by no more than this are the same. */
const SAME_SHARE = 0.004;

/** What a pile is made of: its plan, with let-downs and order, where that is what went into it or nothing did; else the tubes that did, as much of each. */
const recipeOf = async (db: EntityManager, pile: Pile): Promise<Mixture> => (await madeOf(db, pile)).mixture;

/** The same, and whether that is as it was planned. */
async function madeOf(db: EntityManager, pile: Pile): Promise<{ readonly mixture: Mixture; readonly isAsPlanned: boolean }> {
  const plan = await ofTubesAlone(db, pile.plan);
  const content = throughStages(await withMothers(db, [pile.id])).now.get(pile.id);
  if (!content || content.ml <= 0) return { mixture: plan, isAsPlanned: true };
  if (!content.known)
    throw unfit('Not known', 'pileId', 'Something went into this pile that was not recorded, so a card cannot say what it is made of.');
  const planned = openToTubes(plan, () => ({}));
  const ids = new Set([...Object.keys(planned), ...Object.keys(content.tubes)]);
  const isAsPlanned = [...ids].every((id) => Math.abs((planned[id] ?? 0) - (content.tubes[id] ?? 0)) <= SAME_SHARE);
  if (isAsPlanned) return { mixture: plan, isAsPlanned };
  const mixture = mixtureOf(
    Object.entries(content.tubes).map(([tube, share]) => ({ tube, parts: Math.max(1 / FINE, Math.round(share * 100 * FINE) / FINE) })),
  );
  return { mixture, isAsPlanned };
}

/** The tubes of a recipe as they are reckoned with, and the recipe by their keys. */
async function withTubes(
  db: EntityManager,
  mixture: Mixture,
): Promise<{ readonly recipe: Mixture; readonly tubes: CardTubeDto[]; readonly basis: Basis }> {
  const used = leavesOf(mixture).map(({ source }) => source as { readonly tube: string; readonly state?: string });
  const tubes = new Map(
    (await db.find(Tube, { where: { id: In(used.map(({ tube }) => tube)) }, relations: { state: true } })).map((tube) => [tube.id, tube]),
  );
  const states = await statesById(
    db,
    used.flatMap(({ state }) => state ?? []),
  );
  const keyOf = new Map<string, string>();
  const known: CardTubeDto[] = [];
  const bases: Basis[] = [];
  for (const { tube: id, state } of used) {
    const name = `${id} ${state ?? ''}`;
    if (keyOf.has(name)) continue;
    const tube = tubes.get(id)!;
    const { K, S, basis } = (state === undefined ? undefined : states.get(state)) ?? tube.state!;
    bases.push(basis);
    const { colourIndex, caution, density } = handledOf(tube);
    const key = `t${known.length + 1}`;
    keyOf.set(name, key);
    known.push({
      key,
      tubeId: id,
      name: tube.name,
      pigment: tube.pigment,
      colourIndex,
      caution,
      density,
      nozzleMm: tube.nozzleMm,
      basis,
      K: written(K),
      S: written(S),
    });
  }
  const recipe = {
    heaps: mixture.heaps.map(({ ingredients }) => ({
      ingredients: ingredients.map((one) =>
        'heap' in one
          ? { heap: one.heap, parts: one.parts }
          : { tube: keyOf.get(`${(one as { tube: string }).tube} ${(one as { state?: string }).state ?? ''}`)!, parts: one.parts },
      ),
    })),
  };
  return { recipe, tubes: known, basis: leastSure(bases) };
}

/** Digits to which curves are written on a card: far finer than any tube is known. */
const DIGITS = 7;
const written = (curve: readonly number[]): number[] => curve.map((v) => Number(v.toPrecision(DIGITS)));

/** The light a look was made in, as it was said. */
const lightOf = async (db: EntityManager, sightingId: string | undefined): Promise<string> =>
  (sightingId !== undefined && (await db.findOneBy(Sighting, { id: sightingId }))?.light) || '';

/** What a mixture of tubes alone comes to, with the tubes as they are reckoned with today, or were in the states it names, and how far that is sure. */
async function mixtureBody(db: EntityManager, mixture: Mixture) {
  const { recipe, tubes, basis } = await withTubes(db, mixture);
  const known = new Map(curvesOfTubes(tubes).map((tube) => [tube.key, tube]));
  const of = (source: unknown): CardTube => known.get((source as { readonly tube: string }).tube)!;
  const { lab, steadiness } = predict(recipe, of);
  const own = leavesOf(mixture).map(({ source }) => (source as { readonly tube: string }).tube);
  const joint = basis === 'learnt' || tubes.some((tube) => tube.basis === 'learnt') ? await doubtsAbout(db, own) : undefined;
  // What is unsure of tubes together is known by their own names, not by a card's.
  const names = new Map(leavesOf(recipe).map(({ source }, i) => [own[i]!, of(source)]));
  const byName = (source: unknown): CardTube => names.get((source as { readonly tube: string }).tube)!;
  const { errorEstimate } = trustInMixture(mixture, byName, (source) => byName(source).basis, joint && { joint });
  return { recipe, tubes, basis, steadiness, within: errorEstimate, predicted: labDto(lab) };
}

/** ΔE00 that an eye does not see between a step as it was mixed from others and one heap from tubes. */
const SAME_COLOUR = 1;

/**
 * A pile as it is mixed by itself: as it was planned; anew, where it grew or was put right, or takes from
 * other piles, which a card has none of (half a string would be mixed for one step). Where one heap is not
 * the same colour, the others are mixed first.
 */
async function onItsOwn(
  db: EntityManager,
  pile: Pile,
  { mixture, isAsPlanned }: Awaited<ReturnType<typeof madeOf>>,
): Promise<{ readonly mixture: Mixture; readonly made: string }> {
  if (isAsPlanned && !leavesOf(pile.plan).some(({ source }) => isPile(source))) return { mixture, made: '' };
  const { apart, ...anew } = await anewFor(db, mixture, pile.ml);
  return isAsPlanned && apart > SAME_COLOUR ? { mixture, made: '' } : anew;
}

/** A mixture measured anew for a knife, what it was truly made of, and how far its colour then differs, ΔE00. */
async function anewFor(
  db: EntityManager,
  mixture: Mixture,
  ml: number,
): Promise<{ readonly mixture: Mixture; readonly made: string; readonly apart: number }> {
  const ids = leavesOf(mixture).map(({ source }) => (source as { readonly tube: string }).tube);
  const tubes = new Map((await db.find(Tube, { where: { id: In(ids) }, relations: { state: true } })).map((tube) => [tube.id, tube]));
  const paintOf = (source: unknown) => {
    const { nozzleMm, state } = tubes.get((source as { readonly tube: string }).tube)!;
    return { nozzleMm, K: Float64Array.from(state!.K), S: Float64Array.from(state!.S) };
  };
  const shares = leavesOf(mixture).map(
    ({ source, share }) => `${shareText(share)} ${tubes.get((source as { readonly tube: string }).tube)!.name}`,
  );
  const anew = measuredAnew(mixture, paintOf, ml);
  const [was, now] = [mixture, anew].map((one) => masstoneOf(paintOfMixture(one, paintOf)));
  return { mixture: anew, made: shares.join(', ').slice(0, MOST_MADE), apart: deltaE00(was!, now!) };
}

async function bodyOf(db: EntityManager, pile: Pile): Promise<CardBody> {
  const was = await madeOf(db, pile);
  const { mixture, made } = await onItsOwn(db, pile, was);
  const { looks, stages } = await readStages(db, { pileIds: [pile.id] });
  const last = stages.filter((stage) => stage.pileId === pile.id).at(-1);
  const look = last && looks.get(last.id)?.at(-1);
  const sample = pile.sampleId === null ? null : await db.findOneBy(Sample, { id: pile.sampleId });
  const painting = pile.paintingId === null ? null : await db.findOneBy(Painting, { id: pile.paintingId });
  const { film, medium } = (await laidLines(db, [pile], painting)).get(pile.id)!;
  return {
    ...(await mixtureBody(db, mixture)),
    ...(made && { made }),
    ml: pile.ml,
    target: pile.target?.lab ?? null,
    seen: look ? { L: look.L, a: look.a, b: look.b } : null,
    thing: pile.purpose.thing ?? sample?.thing ?? '',
    zone: pile.purpose.zone ?? sample?.zone ?? '',
    painting: painting?.title ?? '',
    light: await lightOf(db, look?.sightingId),
    film: [film, pile.purpose.leftBroken ? 'left broken' : ''].filter(Boolean).join('; ') || 'full',
    medium,
  };
}

/** The body of a recipe that was never a pile. */
async function bodyOfRecipe(db: EntityManager, { plan, ml }: NonNullable<Needs<'card.add'>['of']>): Promise<CardBody> {
  const mixture = mixtureOfSent(plan);
  const leaves = leavesOf(mixture).map(({ source }) => source);
  if (leaves.some(isPile)) throw unfit('Of tubes alone', 'of.plan', 'A card without a pile is made of tubes alone.');
  await checkTubes(
    db,
    leaves.map((source) => (source as { readonly tube: string }).tube),
  );
  return {
    ...(await mixtureBody(db, mixture)),
    ml,
    target: null,
    seen: null,
    thing: '',
    zone: '',
    painting: '',
    light: '',
    film: 'full',
    medium: '',
  };
}

export const addCard: Doing<Needs<'card.add'>> = async ({ db, at, touch }, { id, pileId, of, name }) => {
  if (pileId !== undefined && of) throw unfit('Of one thing', 'of', 'A card is made of a pile or of a recipe, not of both.');
  const pile = pileId === undefined ? undefined : await pileOf(db, pileId);
  const body = pile ? await bodyOf(db, pile) : await bodyOfRecipe(db, of!);
  const row = { id, name: name ?? pile!.name, note: pile?.note ?? '', body, dab: null, createdAt: at };
  await keepCards(db, [{ ...checkCard(cardOf(row)), pileId: pileId ?? null, stands: {}, bringingId: null }]);
  touch('cards', id);
  return [{ do: 'card.delete', id, version: 1 }];
};

/** That whatever stands for a card's tubes is a tube, and stands for one that the card has. */
async function standing(db: EntityManager, stands: Needs<'card.change'>['stands'], { tubes }: CardDto): Promise<StandsDto | undefined> {
  if (!stands) return undefined;
  await checkTubes(
    db,
    stands.map(({ tubeId }) => tubeId),
  );
  const stranger = stands.find(({ key }) => !tubes.some((tube) => tube.key === key));
  if (stranger) throw unfit('Unknown tube', 'stands', `The card has no tube ${JSON.stringify(stranger.key)}.`);
  return Object.fromEntries(stands.map(({ key, tubeId }) => [key, tubeId]));
}
const standsSent = (stands: StandsDto): NonNullable<Needs<'card.change'>['stands']> =>
  Object.entries(stands).map(([key, tubeId]) => ({ key, tubeId }));

export const changeCard: Doing<Needs<'card.change'>> = async ({ db, touch }, { id, version, name, note, dab, stands }) => {
  present('card', await db.findOneBy(Card, { id }));
  const [before] = (await cardRows(db, [id])) as [CardDto];
  if (before.version !== version) throw stale('card', version, before);
  const news = given({ name, note, dab: dab as DabDto | null | undefined, stands: await standing(db, stands, before) });
  await db.update(Card, { id }, { ...news, version: version + 1 });
  await letBeFound(db, await db.findBy(Card, { id }));
  touch('cards', id);
  const { stands: stood, ...was } = changed(news, before);
  return [{ do: 'card.change', id, version: version + 1, ...was, ...(stood && { stands: standsSent(stood) }) } as Operation];
};

/** What was put away is not found. */
const hide = async ({ db, touch }: Work, { id }: { readonly id: string }, back: boolean): Promise<void> => {
  await db.update(CardFound, { cardId: id }, { away: !back });
  for (const { setId } of await db.findBy(CardPlace, { cardId: id })) touch('sets', setId);
  CardIndex.of(db).isChanged([id]);
};

export const { away: deleteCard, back: restoreCard } = puttingAway({ what: 'card', rows: 'cards', entity: Card, check: hide });

/** A card, and the piles that were mixed by it. */
export async function cardStory(db: EntityManager, id: string): Promise<Omit<CardStory, 'seq'>> {
  present('card', await db.findOneBy(Card, { id }));
  const [card] = (await cardRows(db, [id])) as [CardDto];
  const piles = await db.find(Pile, {
    where: { cardId: id, deletedAt: IsNull() },
    relations: { painting: true },
    order: { createdAt: 'ASC' },
  });
  const used = piles.map((pile) => ({
    pileId: pile.id,
    name: pile.name,
    paintingId: pile.paintingId,
    painting: pile.painting?.title ?? '',
    at: pile.createdAt,
  }));
  return { card, used };
}
