import {
  BY_KNIFE,
  deltaE00,
  inWorkOrder,
  isTube,
  KNIFE_BORE_MM,
  layPalette,
  leavesOf,
  masstoneOf,
  mlText,
  paintOfMixture,
  paintOn,
  pilesIn,
  rederive,
  stepsOf,
  USUAL_AMOUNT_ML,
  type Card,
  type CardTube,
  type Handling,
  type Lab,
  type Leaf,
  type Palette as LaidPalette,
  type PaintCurves,
} from '@dusk/core';
import { labOfDto, type PileDto, type SheetWanted } from '@dusk/wire';
import { In, type EntityManager } from 'typeorm';
import { CardPlace, Palette, PaletteTube, Settings, Tube } from '../entities/index.ts';
import { unfit } from '../refusing/problems.ts';
import { cardOf } from '../cards/kept.ts';
import { cardsInOrder } from '../cards/cardsOut.ts';
import { paintingOf } from '../paintings/paintings.ts';
import { laidLines } from '../piles/laid.ts';
import { anyPile, pileRows, sourcesOf } from '../piles/piles.ts';
import { present } from '../change/rows.ts';
import { handledOf, paintOfState } from '../tubes/tubes.ts';
import type { ChartTube } from './chart.ts';
import { apart, dayOf, ofCard, RAGS, sureOf, type Saying, type SheetMixture } from './contents.ts';
import type { FromOwn, LessonPile } from './lesson.ts';
import { copiesOf, hungBy } from './pictures.ts';

/** How this studio says values and temperatures. */
export async function sayingOf(db: EntityManager): Promise<Saying> {
  const { valueScale, warmBlue, measure } = await db.findOneByOrFail(Settings, { id: 1 });
  return { scale: valueScale, warmBlue, measure };
}

/** What a card's tube is called: with its maker where another tube of the same name is taken from too. */
async function makersOf(db: EntityManager, cards: readonly Card[]): Promise<(tube: CardTube) => string> {
  const idOf = (tube: CardTube): string => (tube as CardTube & { readonly tubeId?: string }).tubeId ?? '';
  const ids = new Map<string, Set<string>>();
  for (const tube of cards.flatMap((card) => card.tubes)) ids.set(tube.name, (ids.get(tube.name) ?? new Set()).add(idOf(tube)));
  const doubled = [...ids.values()].filter((own) => own.size > 1).flatMap((own) => [...own]);
  const makers = new Map((await db.findBy(Tube, { id: In(doubled) })).map(({ id, maker }) => [id, maker || 'generic']));
  return (tube) => (ids.get(tube.name)!.size > 1 ? `${tube.name} (${makers.get(idOf(tube)) ?? 'another’s'})` : tube.name);
}

/** The cards that are wanted: those that are named, or those of a set in its order. */
export async function cardMixtures(db: EntityManager, { cardIds, setId, ml }: SheetWanted): Promise<SheetMixture[]> {
  const ids =
    cardIds ?? (await db.find(CardPlace, { where: { setId: setId ?? '' }, order: { position: 'ASC' } })).map(({ cardId }) => cardId);
  const cards = await cardsInOrder(db, ids);
  if (cards.length === 0) throw unfit('No cards', 'cardIds', 'None of these cards is there any more; nothing was printed.');
  const read = cards.map(cardOf);
  const makers = await makersOf(db, read);
  return read.map((card) => ofCard({ ...card, tubes: card.tubes.map((tube) => ({ ...tube, name: makers(tube) })) }, ml));
}

/** A palette by its tubes, in the order they are laid out. */
export async function tubesOfPalette(db: EntityManager, id: string | undefined) {
  const palette = present('palette', await db.findOneBy(Palette, { id: id ?? '' }));
  const places = await db.find(PaletteTube, {
    where: { paletteId: palette.id },
    relations: { tube: { state: true } },
    order: { position: 'ASC' },
  });
  return { name: palette.name, tubes: places.map(({ tube }) => tube!) };
}

export const tubeNames = async (db: EntityManager, ids: readonly string[]): Promise<ReadonlyMap<string, string>> =>
  new Map((await db.findBy(Tube, { id: In([...new Set(ids)]) })).map(({ id, name }) => [id, name]));

export const chartTubes = (tubes: readonly Tube[]): ChartTube[] => tubes.map(({ name, state }) => ({ name, ...paintOfState(state!) }));

const lookOf = (pile: PileDto): Lab | undefined => {
  const look = pile.stages.at(-1)?.looks.at(-1);
  return look && labOfDto(look.lab);
};

/** A pile of a painting with what a lesson needs of it besides. */
export interface PileFound {
  readonly pile: PileDto;
  readonly mixture: SheetMixture;
  /** What is due where its medium or powder goes in. */
  readonly caution: string;
  readonly paint: PaintCurves;
}

/** The piles of a painting that are wanted, each after those it is mixed from, dark to light otherwise. */
export async function pilesFound(
  db: EntityManager,
  { paintingId, pileIds, ml }: SheetWanted,
): Promise<{ readonly title: string; readonly ground: string; readonly piles: PileFound[] }> {
  const painting = await paintingOf(db, paintingId ?? '');
  const all = await pileRows(db, { paintingId: painting.id });
  const wanted = pileIds ? all.filter(({ id }) => pileIds.includes(id)) : all;
  if (wanted.length === 0)
    throw unfit(
      'No piles',
      'pileIds',
      pileIds ? 'This painting has none of these piles any more.' : 'This painting has no piles yet: keep some first.',
    );
  const byId = new Map(all.map((pile) => [pile.id, pile]));
  const ordered = inWorkOrder(
    wanted,
    (id) => pilesIn(byId.get(id)!.plan),
    (pile) => (lookOf(pile) ?? labOfDto(pile.predicted.lab))[0],
  );
  const tubes = new Map((await db.find(Tube)).map((tube) => [tube.id, tube]));
  // Two tubes of one name that are both taken from tell who made them.
  const taken = new Set(all.flatMap(({ plan }) => leavesOf(plan).flatMap(({ source }) => (isTube(source) ? source.tube : []))));
  const named = new Map<string, number>();
  for (const id of taken) named.set(tubes.get(id)?.name ?? '', (named.get(tubes.get(id)?.name ?? '') ?? 0) + 1);
  const tubeName = (id: string): string | undefined => {
    const tube = tubes.get(id);
    return tube && (named.get(tube.name) ?? 0) > 1 ? `${tube.name} (${tube.maker || 'generic'})` : tube?.name;
  };
  const nameOf = (leaf: Leaf): string => (isTube(leaf) ? tubeName(leaf.tube) : byId.get(leaf.pile)?.name) ?? 'another pile';
  const handlingOf = (leaf: Leaf): Handling => {
    const tube = isTube(leaf) ? tubes.get(leaf.tube) : undefined;
    return tube ? { density: handledOf(tube).density, nozzleMm: tube.nozzleMm ?? KNIFE_BORE_MM } : BY_KNIFE;
  };
  const cautionOf = (leaf: Leaf): string => (isTube(leaf) ? handledOf(tubes.get(leaf.tube)!).caution : 'none');
  const laid = await laidLines(db, ordered, painting);
  const piles: PileFound[] = [];
  for (const pile of ordered) {
    const { film, medium, caution } = laid.get(pile.id)!;
    const { paintOf } = await sourcesOf(db, pile.plan, pile.id, anyPile);
    const seen = lookOf(pile);
    const predicted = labOfDto(pile.predicted.lab);
    const own = ml ?? pile.ml;
    piles.push({
      pile,
      caution,
      paint: paintOfMixture(pile.plan, paintOf),
      mixture: {
        name: pile.name,
        lab: seen ?? predicted,
        target: pile.target ? labOfDto(pile.target.lab) : undefined,
        predicted,
        seen,
        ml: own,
        heaps: stepsOf(pile.plan, own, { paintOf, nameOf, handlingOf, cautionOf }),
        said: [
          [pile.purpose.thing, pile.purpose.zone, `layer ${pile.layer}`, film, medium && `with ${medium}`].filter(Boolean).join(', '),
          `${mlText(own)}, ${dayOf(pile.createdAt)}`,
        ],
        note: pile.note,
        sure: sureOf(pile.predicted.basis),
      },
    });
  }
  return { title: painting.title, ground: painting.ground, piles };
}

/** What is said wherever oil paint is planned, and what is due for what goes into it. */
export const due = (piles: readonly PileFound[]): string[] => [...new Set([RAGS, ...piles.flatMap(({ caution }) => caution || [])])];

/** What was done to a pile, in words. */
function storyOf({ stages }: PileDto, nameOf: (tubeId: string) => string): string[] {
  return stages.map(({ kind, additions, left }) => {
    const what = additions.map(({ tubeId, ml }) => `${mlText(ml)} ${tubeId === null ? 'of another pile' : nameOf(tubeId)}`).join(', ');
    if (kind === 'mixed') return `Mixed: ${what}`;
    if (kind === 'added') return `Then added: ${what}`;
    if (kind === 'left') return `Left over: ${mlText(left ?? 0)}`;
    return kind === 'scraped' ? 'Wiped off' : 'Changed by eye';
  });
}

/** A colour from a reader's tubes, and how it will differ. */
function fromOwn(paint: PaintCurves, palette: LaidPalette, names: ReadonlyMap<string, string>, saying: Saying): FromOwn {
  const [best] = rederive(paint, palette).recipes;
  if (!best) return { lines: ['Not from these tubes.'], differs: '' };
  const heaps = stepsOf(best.mixture, USUAL_AMOUNT_ML, {
    paintOf: paintOn(palette),
    nameOf: (leaf) => names.get((leaf as { tube: string }).tube) ?? '',
    handlingOf: () => BY_KNIFE,
    cautionOf: () => 'none',
  });
  const lines = heaps.map(({ name, steps }, at) => {
    const line = steps.map(({ told, name: of }) => `${told[saying.measure]} ${of}`).join(', ');
    if (heaps.length === 1) return line;
    return at < heaps.length - 1 ? `First ${line}: ${name}` : `Then ${line}`;
  });
  const lab = masstoneOf(paint);
  const differs = deltaE00(lab, best.lab) < 1 ? '' : `It will be ${apart(best.lab, lab, saying)}.`;
  return { lines, differs };
}

/** Pictures that may be passed on, as the sheet takes them. */
export async function picturesFor(
  db: EntityManager,
  paintingId: string,
): Promise<{ readonly pictures: Buffer[]; readonly heldBack: number }> {
  const hung = await hungBy(db, paintingId);
  const passing = hung.filter((picture) => picture.passing === 'mine' || picture.passing === 'free');
  return { pictures: (await copiesOf(db, passing)).map(({ bytes }) => bytes), heldBack: hung.length - passing.length };
}

/** The piles of a lesson: what was done, and the same from a palette the readers have. */
export async function lessonPiles(db: EntityManager, found: readonly PileFound[], paletteId: string | undefined, saying: Saying) {
  const names = new Map(
    (
      await db.findBy(Tube, {
        id: In(found.flatMap(({ pile }) => pile.stages.flatMap(({ additions }) => additions.flatMap(({ tubeId }) => tubeId ?? [])))),
      })
    ).map((tube) => [tube.id, tube.name]),
  );
  const own = paletteId === undefined ? undefined : await tubesOfPalette(db, paletteId);
  const laid = own && layPalette(own.tubes.map(({ id, state }) => ({ id, ...paintOfState(state!) })));
  const ownNames = new Map(own?.tubes.map(({ id, name }) => [id, name]));
  const piles = found.map(({ pile, mixture, paint }): LessonPile => ({
    mixture,
    stages: storyOf(pile, (id) => names.get(id) ?? 'a tube'),
    own: laid && fromOwn(paint, laid, ownNames, saying),
  }));
  return { piles, ownTitle: own ? `From “${own.name}”` : 'From your tubes' };
}
