import { DAY_ORDERS, type DayOrder } from '@dusk/core';
import { ArrayUnique, IsBoolean, IsIn, IsUUID } from 'class-validator';
import { Id, ListOf, Note, ObjectOf, ObjectsOf, Optional, Within } from './fields.ts';
import { MOST_IN_SET } from './limits.ts';

export const PAPER_SIZES = ['A4', 'Letter', 'A6'] as const;
export type PaperSize = (typeof PAPER_SIZES)[number];

/** What is printed: cards one to a sheet, cards in a row (a string, a set), what to take along; a palette's chart; a painting's sheet, its piles in the order to mix them, a day as it is planned, what to take along, a lesson, what dries when. */
export const SHEETS = ['cards', 'row', 'kit', 'chart', 'painting', 'order', 'day', 'painting-kit', 'lesson', 'drying'] as const;
export type SheetKind = (typeof SHEETS)[number];

/** A pile of a day, and when its turn is, in minutes from the beginning. */
export class DayStepSent {
  @Id('A pile')
  id!: string;

  @Within('When its turn is', 0, 100_000)
  startsAt!: number;
}

/** A pile that waits, the pile it is then had from, and the tube that goes into that. */
export class LaterSent {
  @Id('A pile')
  id!: string;

  @Id('The pile it is had from')
  fromId!: string;

  @Id('A tube')
  tubeId!: string;
}

/** A day as it was planned. */
export class DayShown {
  @IsIn(DAY_ORDERS, { message: `Piles are mixed ${DAY_ORDERS.join(', ')}` })
  order!: DayOrder;

  @Within('What it takes in minutes', 0, 100_000)
  minutes!: number;

  @ObjectsOf('The piles of a day', 1, MOST_IN_SET, () => DayStepSent)
  steps!: DayStepSent[];

  @ObjectsOf('The piles that wait', 0, MOST_IN_SET, () => LaterSent)
  later!: LaterSent[];

  @ListOf('The piles there is no time for', 0, MOST_IN_SET)
  @IsUUID(undefined, { each: true, message: 'Each pile is named by its id' })
  leftIds!: string[];
}

/** What is to stand on a sheet, as JSON in the query `wanted`. */
export class SheetWanted {
  @IsIn(SHEETS, { message: `A sheet is ${SHEETS.join(', ')}` })
  sheet!: SheetKind;

  @IsIn(PAPER_SIZES, { message: `Paper is ${PAPER_SIZES.join(', ')}` })
  paper!: PaperSize;

  @Optional()
  @ListOf('The cards of a sheet', 1, MOST_IN_SET)
  @ArrayUnique({ message: 'A card is printed once' })
  @IsUUID(undefined, { each: true, message: 'Each card is named by its id' })
  cardIds?: string[];

  @Optional()
  @Id('A set')
  setId?: string;

  /** Of a chart; of a lesson, the tubes its readers have. */
  @Optional()
  @Id('A palette')
  paletteId?: string;

  @Optional()
  @Id('A painting')
  paintingId?: string;

  /** Of a painting, all where nobody says. */
  @Optional()
  @ListOf('The piles of a sheet', 1, MOST_IN_SET)
  @ArrayUnique({ message: 'A pile is printed once' })
  @IsUUID(undefined, { each: true, message: 'Each pile is named by its id' })
  pileIds?: string[];

  /** Of a day's page. */
  @Optional()
  @ObjectOf('A day is said by its piles', () => DayShown)
  day?: DayShown;

  /** The zone whose calendar is spoken, as `Europe/Berlin`. */
  @Optional()
  @Note('A time zone', 60)
  zone?: string;

  @Optional()
  @IsBoolean({ message: 'Pictures are printed or not' })
  pictures?: boolean;

  /** How much is to be mixed; as much as each says where nobody does. */
  @Optional()
  @Within('Millilitres', 0.1, 500)
  ml?: number;
}

/** Cards, sets and palettes that go into a file, as JSON in the query `wanted`. */
export class CardsOut {
  @Optional()
  @ListOf('The cards of a file', 1, MOST_IN_SET)
  @IsUUID(undefined, { each: true, message: 'Each card is named by its id' })
  cardIds?: string[];

  @Optional()
  @Id('A set')
  setId?: string;

  /** Palettes that go along. */
  @Optional()
  @ListOf('The palettes of a file', 0, 40)
  @IsUUID(undefined, { each: true, message: 'Each palette is named by its id' })
  paletteIds?: string[];

  /** Every card, set and palette of the studio. */
  @Optional()
  @IsBoolean({ message: 'All go, or not' })
  all?: boolean;
}

/** Forms that cards go out in. */
export const CARD_FORMS = ['json', 'csv', 'cgats'] as const;
export type CardForm = (typeof CARD_FORMS)[number];
