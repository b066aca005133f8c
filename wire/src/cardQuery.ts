import { IsIn, IsString, Length } from 'class-validator';
import { LabSent } from './colours.ts';
import { Id, ListOf, Moment, Note, ObjectOf, Optional, Within } from './fields.ts';
import type { CardDto } from './cards.ts';

export const TEMPERATURES = ['warm', 'neutral', 'cool'] as const;
export const REACHES = ['mixable', 'nearly'] as const;
/** Most cards in one answer. */
export const MOST_FOUND = 100;

const Pigments =
  (what: string): PropertyDecorator =>
  (target, key) => {
    ListOf(what, 0, 24)(target, key);
    IsString({ each: true, message: 'A pigment is named by its name in the catalogue' })(target, key);
    Length(1, 80, { each: true, message: 'A pigment is named by its name in the catalogue' })(target, key);
  };

/** What cards are looked for by: all that is said must hold. */
export class CardQuery {
  /** Nearest to a colour first; without one, dark to light. */
  @Optional()
  @ObjectOf('A colour to be near to', () => LabSent)
  near?: LabSent;

  /** Munsell values. */
  @Optional()
  @Within('The darkest value', 0, 10)
  darkest?: number;

  @Optional()
  @Within('The lightest value', 0, 10)
  lightest?: number;

  @Optional()
  @IsIn(TEMPERATURES, { message: `A temperature is ${TEMPERATURES.join(', ')}` })
  temperature?: (typeof TEMPERATURES)[number];

  @Optional()
  @Note('Words to find by', 200)
  words?: string;

  /** Pigments that must be in it, and that must not. */
  @Optional()
  @Pigments('Pigments that are wanted')
  within?: string[];

  @Optional()
  @Pigments('Pigments that are not wanted')
  without?: string[];

  /** Mixable from a palette's pigments, or all but one of its pigments there. */
  @Optional()
  @Id('A palette')
  paletteId?: string;

  @Optional()
  @IsIn(REACHES, { message: `A card is ${REACHES.join(' or ')}` })
  reach?: (typeof REACHES)[number];

  @Optional()
  @Note('A thing', 80)
  thing?: string;

  @Optional()
  @Note('A zone', 40)
  zone?: string;

  @Optional()
  @Note('A painting', 120)
  painting?: string;

  @Optional()
  @Moment()
  since?: string;

  @Optional()
  @Moment()
  until?: string;

  @Optional()
  @Id('A set')
  setId?: string;

  @Optional()
  @Within('How many', 1, MOST_FOUND)
  most?: number;
}

/** Cards that were found, nearest or darkest first, of how many. */
export interface CardsFound {
  readonly seq: number;
  readonly total: number;
  /** How many there are at all. */
  readonly of: number;
  readonly cards: readonly CardDto[];
}
