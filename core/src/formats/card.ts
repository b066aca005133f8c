import { CraftError } from '../errors.ts';
import { labToMunsell, writeMunsell } from '../colour/munsell.ts';
import type { Delta } from '../colour/difference.ts';
import type { Lab } from '../colour/spaces.ts';
import { temperature, type Temperature } from '../colour/temperature.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { Sight } from '../correcting/doubt.ts';
import type { Millilitres } from '../mixing/units.ts';
import { checkMixture, isHeap, isTube, type FromTube, type Leaf, type Mixture } from '../mixing/mixture.ts';
import { leavesOf, paintOfMixture } from '../mixing/open.ts';
import { masstoneOf } from '../mixing/order.ts';
import { stepsOf, type HeapSteps } from '../mixing/steps.ts';
import type { Basis, PaintCurves } from '../paint/catalogue.ts';

/** A tube as a card was reckoned with: it stays so when the tube itself is another. */
export interface CardTube extends PaintCurves {
  /** What the recipe calls it. */
  readonly key: string;
  readonly name: string;
  /** Generic pigment, where it is one that is known. */
  readonly pigment: string;
  readonly colourIndex: string;
  /** `none`, or the metal or property to be careful about: see its label. */
  readonly caution: string;
  /** Grams per ml, and the bore of its mouth in mm. */
  readonly density: number;
  readonly nozzleMm: number;
  /** What its curves rested on. */
  readonly basis: Basis;
}

/** Real paint laid on a card, read later: by eye against the screen, or from a photo with a white patch. */
export interface Dab {
  readonly lab: Lab;
  readonly sight: Sight;
  /** UTC, ISO 8601. */
  readonly at: string;
}

/** A mixture that stands for itself: it can be read, printed, sent and used long after its painting is gone. */
export interface Card {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  /** In mixing order, let-downs first; of tubes by their keys, and of earlier heaps. */
  readonly recipe: Mixture;
  readonly tubes: readonly CardTube[];
  /** How much was made, ml. */
  readonly ml: number;
  /** What it was meant to be, what it was reckoned to be, and how it truly looked, D65. */
  readonly target?: Lab | undefined;
  readonly predicted: Lab;
  readonly seen?: Lab | undefined;
  /** A real dab of it. */
  readonly dab?: Dab | undefined;
  readonly thing: string;
  readonly zone: string;
  /** The painting it was mixed for. */
  readonly painting: string;
  /** The light it was looked at in, how it lay (full, left broken), and what was let into it; empty where nobody said. */
  readonly light: string;
  readonly film: string;
  readonly medium: string;
  /** What it was truly made of, where the recipe is the same measured anew. */
  readonly made?: string | undefined;
  /** The least sure of the curves it rests on, and how far ΔE00 moves when each part is a tenth too much. */
  readonly basis: Basis;
  readonly steadiness: number;
  /** ΔE00 that nine of ten true piles of it were thought to stay within; 0 where nobody said. */
  readonly within: Delta;
  /** UTC, ISO 8601. */
  readonly madeAt: string;
}

/** What is read from a card first: its real dab, else how the pile truly looked, else what it was reckoned to be. */
export interface CardReading {
  readonly lab: Lab;
  readonly value: MunsellValue;
  readonly temperature: Temperature;
  readonly munsell: string;
}

export function readCard({ dab, seen, predicted }: Pick<Card, 'dab' | 'seen' | 'predicted'>): CardReading {
  const lab = dab?.lab ?? seen ?? predicted;
  return { lab, value: valueOfLightness(Math.max(0, lab[0])), temperature: temperature(lab), munsell: writeMunsell(labToMunsell(lab)) };
}

type Mixed = Pick<Card, 'recipe' | 'tubes'>;

/** Which of a card's tubes a source in its recipe is. */
function tubeOn({ tubes }: Pick<Card, 'tubes'>): (source: Leaf) => CardTube {
  const byKey = new Map(tubes.map((tube) => [tube.key, tube]));
  return (source) => byKey.get((source as FromTube).tube)!;
}

/** Curves of what a card makes, by its own tubes. */
export const paintOfCard = (card: Mixed): PaintCurves => paintOfMixture(card.recipe, tubeOn(card));

/** A card's recipe measured out for so many ml, with the tubes it was reckoned from. */
export function stepsOfCard(card: Mixed, ml: Millilitres): HeapSteps[] {
  const of = tubeOn(card);
  return stepsOf(card.recipe, ml, {
    paintOf: of,
    nameOf: (source) => of(source).name,
    handlingOf: of,
    cautionOf: (source) => of(source).caution,
  });
}

/** How far a card's stated colour may lie from what its recipe gives: less than is written, ΔE76. */
const SAME = 0.5;

/**
 * Sees that a card stands for itself: its recipe can be mixed, of its own tubes alone, and gives the
 * colour that it says.
 * @throws CraftError that says what is wrong with it
 */
export function checkCard(card: Card): Card {
  checkMixture(card.recipe);
  const keys = new Set(card.tubes.map(({ key }) => key));
  if (keys.size < card.tubes.length) throw new CraftError('input', `The card “${card.name}” names one tube twice.`);
  for (const { ingredients } of card.recipe.heaps)
    for (const one of ingredients)
      if (!isHeap(one) && !(isTube(one) && keys.has(one.tube)))
        throw new CraftError('input', `The card “${card.name}” takes from something that is none of its tubes.`);
  const used = new Set(leavesOf(card.recipe).map(({ source }) => (source as { readonly tube: string }).tube));
  const idle = card.tubes.find(({ key }) => !used.has(key));
  if (idle) throw new CraftError('input', `The card “${card.name}” brings ${idle.name}, of which nothing is taken.`);
  const gives = masstoneOf(paintOfCard(card));
  if (Math.hypot(...gives.map((v, i) => v - card.predicted[i]!)) > SAME)
    throw new CraftError('input', `The card “${card.name}” says another colour than its recipe gives.`);
  return card;
}
