import { IsBoolean, IsIn, IsInt, IsNumber, Max, Min, ValidateIf } from 'class-validator';
import { LabSent } from './colours.ts';
import { ListOf, ObjectOf, Optional, Within } from './fields.ts';
import type { LabDto } from './written.ts';

/** What is kept of a turned picture, in shares of its sides. */
export class CropSent {
  @Within('The left of a crop', 0, 1)
  x!: number;

  @Within('The top of a crop', 0, 1)
  y!: number;

  @Within('The width of a crop', 0.01, 1)
  width!: number;

  @Within('The height of a crop', 0.01, 1)
  height!: number;
}

/** Lines over a picture by which a drawing is placed. */
export class GridSent {
  @IsInt({ message: 'A grid has whole squares' })
  @Within('Squares across', 1, 40)
  across!: number;

  @IsInt({ message: 'A grid has whole squares' })
  @Within('Squares down', 1, 40)
  down!: number;

  @IsBoolean({ message: 'Diagonals are there or not' })
  diagonals!: boolean;

  @IsBoolean({ message: 'Thirds are there or not' })
  thirds!: boolean;
}

export const KEY_KINDS = ['as it is', 'fitted', 'moved'] as const;

/** How a picture's range is put onto paint. */
export class KeySent {
  @IsIn(KEY_KINDS, { message: `A key is one of ${KEY_KINDS.join(', ')}` })
  kind!: (typeof KEY_KINDS)[number];

  @ValidateIf(({ kind, held }: KeySent) => kind !== 'as it is' || held !== undefined)
  @Within('What is held back below white', 0, 5)
  held?: number;

  @Optional()
  @Within('What is held back above the darkest', 0, 5)
  heldDark?: number;

  @ValidateIf(({ kind, from }: KeySent) => kind === 'moved' || from !== undefined)
  @Within('The value that is picked', 0, 10)
  from?: number;

  @ValidateIf(({ kind, to }: KeySent) => kind === 'moved' || to !== undefined)
  @Within('The value it comes to', 0, 10)
  to?: number;
}

/** How a picture is cut, turned, lit, keyed and lined; its own pixels are never written over. All absent: as it is. */
export class View {
  @Optional()
  @IsInt({ message: 'A picture is turned by whole quarters' })
  @Within('Quarter turns', 0, 3)
  turn?: number;

  @Optional()
  @Within('Degrees by which it is straightened', -45, 45)
  straighten?: number;

  @Optional()
  @IsBoolean({ message: 'A picture is mirrored or not' })
  mirror?: boolean;

  @Optional()
  @ObjectOf('A crop is what is kept of a picture', () => CropSent)
  crop?: CropSent;

  @Optional()
  @Within('Stops of exposure', -8, 8)
  exposure?: number;

  /** A place known to be white or grey, as the photo shows it. */
  @Optional()
  @ObjectOf('A colour is three numbers, L, a and b', () => LabSent)
  neutral?: LabSent;

  @Optional()
  @Within('The temperature of the light', 1700, 20_000)
  kelvin?: number;

  @Optional()
  @ObjectOf('A key says how a range is put onto paint', () => KeySent)
  key?: KeySent;

  @Optional()
  @ObjectOf('A grid is so many squares', () => GridSent)
  grid?: GridSent;

  /** Values at which it is cut into steps; they rise. */
  @Optional()
  @ListOf('The boundaries of steps', 1, 8)
  @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true, message: 'A boundary is a value' })
  @Min(0, { each: true, message: 'Values begin at 0' })
  @Max(10, { each: true, message: 'Values end at 10' })
  steps?: number[];

  /** Temperature against which warm is told from cool. */
  @Optional()
  @Within('The pivot of warm and cool', -150, 150)
  pivot?: number;
}

/** A view as plain data. */
export interface ViewDto {
  readonly turn?: number;
  readonly straighten?: number;
  readonly mirror?: boolean;
  readonly crop?: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly exposure?: number;
  readonly neutral?: LabDto;
  readonly kelvin?: number;
  readonly key?: {
    readonly kind: (typeof KEY_KINDS)[number];
    readonly held?: number;
    readonly heldDark?: number;
    readonly from?: number;
    readonly to?: number;
  };
  readonly grid?: { readonly across: number; readonly down: number; readonly diagonals: boolean; readonly thirds: boolean };
  readonly steps?: readonly number[];
  readonly pivot?: number;
}
