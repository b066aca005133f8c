import { IsHexColor, IsInt, Matches } from 'class-validator';
import { Id, Nullable, ObjectOf, Optional, Version, Within, Words } from './fields.ts';
import { MOST_LAYERS } from './limits.ts';

const GROUND = { message: 'The ground is a colour like #b5a48c' };

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
}

const SIDE_MM = [10, 20_000] as const;

/** A canvas by its sides. */
export class CanvasSent {
  @Within('The width of a canvas in mm', ...SIDE_MM)
  widthMm!: number;

  @Within('The height of a canvas in mm', ...SIDE_MM)
  heightMm!: number;
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
  readonly pileCount: number;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}
