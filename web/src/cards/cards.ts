import { leavesOf, readCard, standInFor, type CardReading, type Mixture, type StandIn, shareText } from '@dusk/core';
import type { CardDto, CardTubeDto, MixtureSent } from '@dusk/wire';
import { labDto, labOfDto, mixtureDto } from '@dusk/wire/written';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { usePaintings } from '../paintings/paintings.ts';
import { present } from '../studio/rows.ts';
import { useStudio } from '../studio/useStudio.ts';
import { useTubes } from '../tubes/tubes.ts';

/** A card with what is read from it first. */
export interface CardSeen extends CardReading {
  readonly card: CardDto;
  /** Everything that is said on it, in small letters, to be found by. */
  readonly words: string;
}

const curves = ({ K, S }: CardTubeDto) => ({ K: Float64Array.from(K), S: Float64Array.from(S) });

/** The cards of the studio, of whatever painting, and what is done with them. */
export const useCards = defineStore('cards', () => {
  const studio = useStudio();
  const tubes = useTubes();
  const paintings = usePaintings();

  const all = computed((): CardSeen[] =>
    present(studio.rows.cards)
      .map((card) => {
        const seen = card.seen ? labOfDto(card.seen) : undefined;
        const words = [
          card.name,
          card.note,
          card.thing,
          card.zone,
          card.painting,
          ...card.tubes.flatMap(({ name, colourIndex }) => [name, colourIndex]),
        ];
        return { card, words: words.join(' ').toLowerCase(), ...readCard({ predicted: labOfDto(card.predicted), seen }) };
      })
      .sort((one, other) => one.lab[0] - other.lab[0]),
  );

  const make = (pileId: string, name: string): Promise<boolean> =>
    studio.make([{ do: 'card.add', id: crypto.randomUUID(), pileId }], `A card of “${name}”`);
  const remove = ({ id, version, name }: CardDto): Promise<boolean> =>
    studio.make([{ do: 'card.delete', id, version }], `The card “${name}” put away`);

  /** Today's tubes that may stand for a card's: one's own; generic ones only where there are none. */
  const own = computed(() => {
    const mine = tubes.all.filter(({ maker }) => maker !== '');
    return (mine.length > 0 ? mine : tubes.all).map(({ id, pigment, paint }) => ({ id, pigment, K: paint.K, S: paint.S }));
  });
  /** Found once for a card, until a tube is another: a list asks for each as often as it is drawn. */
  const found = computed(() => (void own.value, new WeakMap<CardDto, ReadonlyMap<string, StandIn>>()));
  /** Which of today's tubes stands for each of a card's, by the card's keys. */
  function standIns(card: CardDto): ReadonlyMap<string, StandIn> {
    const known = found.value.get(card);
    if (known) return known;
    const stands = new Map(
      card.tubes.flatMap((tube) => {
        const one = standInFor({ pigment: tube.pigment, ...curves(tube) }, own.value);
        return one ? [[tube.key, one] as const] : [];
      }),
    );
    found.value.set(card, stands);
    return stands;
  }

  /** A card's recipe of today's tubes. */
  function ofToday(card: CardDto): Mixture {
    const stands = standIns(card);
    return {
      heaps: card.recipe.heaps.map(({ ingredients }) => ({
        ingredients: ingredients.map((one) => ('tube' in one ? { tube: stands.get(one.tube)!.id, parts: one.parts } : one)),
      })),
    };
  }

  /** Takes a card into the painting on the easel as a pile to be mixed. @returns its id */
  async function use(card: CardDto): Promise<string | undefined> {
    const painting = paintings.onEasel;
    if (!painting) return undefined;
    const id = crypto.randomUUID();
    const made = await studio.make(
      [
        {
          do: 'pile.add',
          id,
          paintingId: painting.id,
          name: card.name.slice(0, 80),
          target: { kind: 'absolute', lab: labDto(labOfDto(card.seen ?? card.predicted)) },
          plan: mixtureDto(ofToday(card)) as unknown as MixtureSent,
          ml: Math.min(500, Math.max(0.1, card.ml)),
          purpose: { ...(card.thing && { thing: card.thing }), ...(card.zone && { zone: card.zone.slice(0, 40) }) },
        },
      ],
      `Took “${card.name}” into “${painting.title}”`,
    );
    return made ? id : undefined;
  }

  const tubeShares = (card: CardDto): string => {
    const names = new Map(card.tubes.map(({ key, name }) => [key, name]));
    return leavesOf(card.recipe)
      .map(({ source, share }) => ({ name: names.get((source as { readonly tube: string }).tube) ?? 'a tube', share }))
      .sort((a, b) => b.share - a.share)
      .map(({ name, share }) => `${shareText(share)} ${name}`)
      .join(', ');
  };

  return { all, make, remove, use, standIns, tubeShares };
});
