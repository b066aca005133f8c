import { DAY_ORDERS, HABITS, VARNISHES, WIPED, type DayOrder, type Habit, type Varnish, type Wiped } from '@dusk/core';
import { IsBoolean, IsHexColor, IsIn, IsInt, Matches } from 'class-validator';
import { Day, Id, ListOfWords, Moment, Note, Nullable, ObjectOf, Optional, Version, Within, Words } from './fields.ts';
import { MOST_LAYERS } from './limits.ts';

const GROUND = { message: 'The ground is a colour like #b5a48c' };

/** A ground that is made of a tube: a wash of it over white priming. */
export class GroundOfSent {
  @Id('The tube a ground is made of')
  tubeId!: string;

  @IsIn(WIPED, { message: `A wash is ${WIPED.join(', ')}` })
  wiped!: Wiped;
}

/** How a day's piles are planned. */
export class DaySent {
  @IsIn(DAY_ORDERS, { message: `Piles are mixed ${DAY_ORDERS.join(', ')}` })
  order!: DayOrder;

  /** Time there is; left out for all that is needed. */
  @Optional()
  @Within('The minutes there are', 1, 1440)
  minutes?: number;
}

export class NewPainting {
  @Id('A painting')
  id!: string;

  @Words('The title of a painting', 120)
  title!: string;

  @Id('The palette a painting is made from')
  paletteId!: string;

  @Optional()
  @IsHexColor(GROUND)
  @Matches(/^#[0-9a-f]{6}$/i, GROUND)
  ground?: string;

  @Optional()
  @ObjectOf('A ground is made of a tube', () => GroundOfSent)
  groundOf?: GroundOfSent;
}

const SIDE_MM = [10, 20_000] as const;

/** A canvas by its sides. */
export class CanvasSent {
  @Within('The width of a canvas in mm', ...SIDE_MM)
  widthMm!: number;

  @Within('The height of a canvas in mm', ...SIDE_MM)
  heightMm!: number;
}

/** The darkest and the lightest that a painting may get. */
export class BetweenSent {
  @Within('The darkest a painting may get', 0, 9.5)
  darkest!: number;

  @Within('The lightest a painting may get', 0.5, 10)
  lightest!: number;
}

/** A painting as a thing that stands somewhere and has to be ready some day. All of it may be left out. */
export class AboutSent {
  @Optional()
  @Note('What it is painted on', 80)
  support?: string;

  @Optional()
  @Note('The priming', 80)
  priming?: string;

  /** The day on which it has to hang. */
  @Optional()
  @Day()
  dueOn?: string;

  @Optional()
  @IsIn(VARNISHES, { message: `A varnish is ${VARNISHES.join(', ')}` })
  varnish?: Varnish;

  /** Layers that are still to come. */
  @Optional()
  @IsInt({ message: 'Layers to come are a whole number' })
  @Within('Layers to come', 0, MOST_LAYERS)
  toCome?: number;

  /** An earlier painting of the same subject. */
  @Optional()
  @Id('An earlier version')
  followsId?: string;

  /** What of the painter's list is seen to. */
  @Optional()
  @ListOfWords('Things that are seen to', 0, 40, 'What is seen to', 120)
  seenTo?: string[];

  @Optional()
  @Moment()
  finishedAt?: string;
}

export class PaintingChange {
  @Id('A painting')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The title of a painting', 120)
  title?: string;

  @Optional()
  @Id('The palette a painting is made from')
  paletteId?: string;

  @Optional()
  @IsHexColor(GROUND)
  @Matches(/^#[0-9a-f]{6}$/i, GROUND)
  ground?: string;

  /** Null where its size is not known. */
  @Nullable()
  @ObjectOf('A canvas is a width and a height', () => CanvasSent)
  canvas?: CanvasSent | null;

  /** The layer that is being painted, from 1. */
  @Optional()
  @IsInt({ message: 'A layer is a whole number' })
  @Within('A layer', 1, MOST_LAYERS)
  layer?: number;

  /** Munsell chroma that no pile is to go above; null for none. */
  @Nullable()
  @Within('The ceiling of chroma', 0, 30)
  ceiling?: number | null;

  /** Null for a ground that is a colour alone. */
  @Nullable()
  @ObjectOf('A ground is made of a tube', () => GroundOfSent)
  groundOf?: GroundOfSent | null;

  /** How its paint is laid where nothing else is said; null for nothing said. */
  @Nullable()
  @IsIn(HABITS, { message: `A painting is laid ${HABITS.join(', ')}` })
  habit?: Habit | null;

  @Nullable()
  @ObjectOf('A day is planned by an order', () => DaySent)
  day?: DaySent | null;

  /** Whether only the values of its pictures count, unless a sample says otherwise. */
  @Optional()
  @IsBoolean({ message: 'A painting takes values alone from its pictures, or not' })
  valueOnly?: boolean;

  /** Values that it keeps between; null for all that paint can be. */
  @Nullable()
  @ObjectOf('A painting keeps between two values', () => BetweenSent)
  between?: BetweenSent | null;

  @Optional()
  @ObjectOf('What a painting is is said in its parts', () => AboutSent)
  about?: AboutSent;
}

export interface AboutDto {
  readonly support?: string;
  readonly priming?: string;
  readonly dueOn?: string;
  readonly varnish?: Varnish;
  readonly toCome?: number;
  readonly followsId?: string;
  readonly seenTo?: readonly string[];
  readonly finishedAt?: string;
}

export interface PaintingDto {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly paletteId: string;
  /** Colour of the toned ground, `#rrggbb`. */
  readonly ground: string;
  readonly canvas: { readonly widthMm: number; readonly heightMm: number } | null;
  readonly layer: number;
  readonly ceiling: number | null;
  /** The tube its ground was made of, and how far it was wiped back. */
  readonly groundOf: { readonly tubeId: string; readonly wiped: Wiped } | null;
  readonly habit: Habit | null;
  /** Whether samples are of values alone unless they say otherwise. */
  readonly valueOnly: boolean;
  /** Values that it keeps between. */
  readonly between: { readonly darkest: number; readonly lightest: number } | null;
  readonly day: { readonly order: DayOrder; readonly minutes?: number } | null;
  readonly about: AboutDto;
  readonly pileCount: number;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}
