import {
  cardOfToday,
  colourName,
  onesOwn,
  readCard,
  standInFor,
  type Card,
  type Lab,
  type Mixture,
  type PaintCurves,
  type SetKind,
  type StandIn,
} from '@dusk/core';
import type { CardDto, CardTubeDto, Operation, PileDto, SetDto } from '@dusk/wire';
import { labDto, labOfDto, mixtureSent } from '@dusk/wire/written';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { counted } from '../floor/words.ts';
import type { Remade } from '../engine/proposal.ts';
import { usePaintings } from './paintings.ts';
import { present } from '../studio/rows.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useDesk } from './useDesk.ts';
import { useTubes, type Tube } from './tubes.ts';
import { useFinding } from './finding.ts';
import { newId } from '../floor/ids.ts';

const curvesOf = ({ K, S }: Pick<CardTubeDto, 'K' | 'S'>): PaintCurves => ({ K: Float64Array.from(K), S: Float64Array.from(S) });

/** A card with its tubes as the engine knows them. */
export const paintedCard = ({ recipe, tubes }: CardDto): Pick<Card, 'recipe' | 'tubes'> => ({
  recipe,
  tubes: tubes.map((tube) => ({ ...tube, ...curvesOf(tube) })),
});

/** What is read of a card first. */
export const readingOf = ({ predicted, seen, dab }: CardDto) =>
  readCard({
    predicted: labOfDto(predicted),
    seen: seen ? labOfDto(seen) : undefined,
    dab: dab ? { ...dab, lab: labOfDto(dab.lab) } : undefined,
  });

/** One's own tube in place of a card's: chosen by the painter, or the likest. */
export interface Stand {
  readonly tubeId: string;
  readonly by: 'chosen' | StandIn['by'];
}

const MOST_ML = 500;
const LEAST_ML = 0.1;

/** The cards of the studio, of whatever painting, and what is done with them. */
export const useCards = defineStore('cards', () => {
  const studio = useStudio();
  const tubes = useTubes();
  const paintings = usePaintings();
  const finding = useFinding();
  const router = useRouter();

  const sets = computed(() => present(studio.rows.sets));

  /** @returns the id of the card, where it was made */
  async function make(pile: PileDto): Promise<string | undefined> {
    const id = newId();
    return (await studio.make([{ do: 'card.add', id, pileId: pile.id }], `A card of “${pile.name}”`)) ? id : undefined;
  }

  type NewCard = Operation & { do: 'card.add' };
  /** Keeps cards as a set, and makes those first that are not there yet. @returns its id */
  async function keepAs(
    cardIds: string[],
    kind: SetKind,
    name: string,
    says: string,
    fresh: readonly NewCard[] = [],
  ): Promise<string | undefined> {
    const id = newId();
    const made = await studio.make([...fresh, { do: 'set.add', id, name: name.slice(0, 120), kind, cardIds }], says);
    return made ? id : undefined;
  }
  const makeTogether = (fresh: readonly NewCard[], kind: SetKind, name: string): Promise<string | undefined> =>
    keepAs(
      fresh.map(({ id }) => id),
      kind,
      name,
      `${counted(fresh.length, 'card')}, “${name}”`,
      fresh,
    );

  /** Cards that belong together, made at once: of a layer's piles, or of a string. */
  const makeSet = (piles: readonly PileDto[], kind: SetKind, name: string): Promise<string | undefined> =>
    makeTogether(
      piles.map((pile): NewCard => ({ do: 'card.add', id: newId(), pileId: pile.id })),
      kind,
      name,
    );

  /** Cards of recipes that were never piles, as a palette's pairs, kept as a set. */
  const makeOf = (
    recipes: readonly { readonly name: string; readonly mixture: Mixture; readonly ml: number }[],
    kind: SetKind,
    name: string,
  ): Promise<string | undefined> =>
    makeTogether(
      recipes.map(({ name: called, mixture, ml }): NewCard => ({
        do: 'card.add',
        id: newId(),
        name: called.slice(0, 120),
        of: { plan: mixtureSent(mixture), ml },
      })),
      kind,
      name,
    );

  /** Keeps cards together that lie about. */
  const keepTogether = (cards: readonly CardDto[], kind: SetKind, name: string): Promise<string | undefined> =>
    keepAs(
      cards.map(({ id }) => id),
      kind,
      name,
      `Kept ${counted(cards.length, 'card')} together`,
    );
  const changeSet = ({ id, version }: SetDto, part: { name?: string; note?: string; cardIds?: string[] }, says: string): Promise<boolean> =>
    studio.make([{ do: 'set.change', id, version, ...part }], says);
  const removeSet = ({ id, version, name }: SetDto): Promise<boolean> =>
    studio.make([{ do: 'set.delete', id, version }], `The set “${name}” put away; its cards stay`);

  type Change = Omit<Operation & { do: 'card.change' }, 'do' | 'id' | 'version'>;
  const change = ({ id, version }: CardDto, part: Change, says: string): Promise<boolean> =>
    studio.make([{ do: 'card.change', id, version, ...part }], says);
  const remove = ({ id, version, name }: CardDto): Promise<boolean> =>
    studio.make([{ do: 'card.delete', id, version }], `The card “${name}” put away`);

  /** Shows the cards that are near to a colour. */
  function near(lab: Lab, says = colourName(lab)): void {
    finding.clear();
    finding.near = { lab, says };
    void router.push({ name: 'cards' });
  }

  const desk = useDesk();
  const ownTube = ({ id, name, pigment, paint }: Tube) => ({ id, name, pigment, K: paint.K, S: paint.S });
  /** Today's tubes that may stand for a card's, those of the palette on the easel first. */
  const standing = computed(() => ({
    palette: desk.paletteTubes.map(ownTube),
    own: onesOwn(tubes.all).map(ownTube),
    all: tubes.all.map(ownTube),
  }));
  /** Found once for a card, until a tube or the palette is another: a list asks for each as often as it is drawn. */
  const found = computed(() => (void standing.value, new WeakMap<CardDto, ReadonlyMap<string, Stand>>()));
  /** Which of today's tubes stands for each of a card's, by the card's keys. */
  function standIns(card: CardDto): ReadonlyMap<string, Stand> {
    const known = found.value.get(card);
    if (known) return known;
    const stands = new Map<string, Stand>();
    for (const tube of card.tubes) {
      const chosen = card.stands[tube.key];
      const likest = standInFor({ ...tube, ...curvesOf(tube) }, standing.value);
      if (chosen !== undefined && tubes.byId.has(chosen))
        stands.set(tube.key, { tubeId: chosen, by: chosen === likest?.id ? likest.by : 'chosen' });
      else if (likest) stands.set(tube.key, { tubeId: likest.id, by: likest.by });
    }
    found.value.set(card, stands);
    return stands;
  }

  /** What a card becomes with today's tubes; nothing where there are none. */
  const today = (card: CardDto) => {
    const stands = standIns(card);
    return cardOfToday(
      { recipe: card.recipe, predicted: labOfDto(card.predicted) },
      (key) => tubes.byId.get(stands.get(key)?.tubeId ?? '')?.paint,
    );
  };

  /** A card's recipe of today's tubes. */
  function ofToday(card: CardDto): Mixture {
    const stands = standIns(card);
    return {
      heaps: card.recipe.heaps.map(({ ingredients }) => ({
        ingredients: ingredients.map((one) => ('tube' in one ? { tube: stands.get(one.tube)!.tubeId, parts: one.parts } : one)),
      })),
    };
  }

  /** Tubes that a card would be made of today and that do not lie on the palette. */
  function offPalette(card: CardDto): string[] {
    const lies = new Set(desk.paletteTubes.map(({ id }) => id));
    const needed = [...new Set([...standIns(card).values()].map(({ tubeId }) => tubeId))];
    return needed.filter((id) => !lies.has(id)).map((id) => tubes.byId.get(id)!.name);
  }

  /** Takes a mixture that stands on a card into the painting on the easel, and opens it there. */
  async function take(card: CardDto, mixture: Mixture, ml: number): Promise<boolean> {
    const painting = paintings.onEasel;
    if (!painting) return false;
    const id = newId();
    const { lab } = readingOf(card);
    const made = await studio.make(
      [
        {
          do: 'pile.add',
          id,
          paintingId: painting.id,
          cardId: card.id,
          name: card.name.slice(0, 80),
          target: { kind: 'absolute', lab: labDto([Math.min(100, lab[0]), lab[1], lab[2]]) },
          plan: mixtureSent(mixture),
          ml: Math.min(MOST_ML, Math.max(LEAST_ML, ml)),
          purpose: { ...(card.thing && { thing: card.thing }), ...(card.zone && { zone: card.zone.slice(0, 40) }) },
        },
      ],
      `Took “${card.name}” into “${painting.title}”`,
    );
    if (made) await router.push({ name: 'mixing', params: { paintingId: painting.id, pileId: id } });
    return made;
  }
  const use = (card: CardDto, ml = card.ml): Promise<boolean> => take(card, ofToday(card), ml);
  const useRemade = (card: CardDto, { mixture }: Remade, ml = card.ml): Promise<boolean> => take(card, mixture, ml);

  return {
    sets,
    make,
    makeSet,
    makeOf,
    keepTogether,
    changeSet,
    removeSet,
    change,
    remove,
    near,
    use,
    useRemade,
    standIns,
    offPalette,
    today,
  };
});
