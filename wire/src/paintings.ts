import { IsHexColor, Matches } from 'class-validator';
import { Id, Optional, Version, Words } from './fields.ts';

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
}

export interface PaintingDto {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly paletteId: string;
  /** Colour of the toned ground, `#rrggbb`. */
  readonly ground: string;
  readonly pileCount: number;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}
