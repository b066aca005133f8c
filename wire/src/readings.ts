import { LabSent } from './colours.ts';
import { IsNumber, Max, Min } from 'class-validator';
import { Id, ListOf, Moment, ObjectOf, Optional, Within } from './fields.ts';
import { MixtureSent } from './mixtures.ts';
import type { LabDto, MixtureDto } from './written.ts';

/** Bands of a spectrum, by 10 nm. */
const SPECTRUM_BANDS = 36;

/** What a device or an eye read of a swatch that holds a tube: it teaches that tube, beside looks at piles. */
export class NewReading {
  @Id('A reading')
  id!: string;

  @Id('A sighting')
  sightingId!: string;

  @Id('A tube')
  tubeId!: string;

  /** What the swatch is of: the tube alone, or with others. */
  @ObjectOf('A swatch is a mixture', () => MixtureSent)
  patch!: MixtureSent;

  @ObjectOf('A reading is a colour', () => LabSent)
  lab!: LabSent;

  /** Reflectance, 36 bands from 380 nm, where a reader gave it. */
  @Optional()
  @ListOf('A spectrum', SPECTRUM_BANDS, SPECTRUM_BANDS)
  @IsNumber({}, { each: true, message: 'A spectrum holds numbers' })
  @Min(-0.02, { each: true, message: 'Nothing is darker than black' })
  @Max(1.2, { each: true, message: 'Nothing is brighter than white' })
  spectrum?: number[];

  /** How thick the swatch lies over white, in micrometres; left out where it covers. */
  @Optional()
  @Within('Micrometres', 1, 5000)
  filmUm?: number;

  @Optional()
  @Moment()
  at?: string;
}

/** A look at a pile that taught a tube in it. */
export interface TaughtDto {
  readonly lookId: string;
  readonly at: string;
  /** How it was looked at, as `eye`. */
  readonly kind: string;
  readonly beliefId: string;
  /** When the painter said that it teaches nothing. */
  readonly refusedAt: string | null;
  readonly pileId: string;
  readonly pile: string;
  readonly paintingId: string | null;
  readonly lab: LabDto;
}

export interface ReadingDto {
  readonly id: string;
  readonly sightingId: string;
  readonly tubeId: string;
  readonly patch: MixtureDto;
  readonly lab: LabDto;
  readonly spectrum: readonly number[] | null;
  readonly filmUm: number | null;
  readonly at: string;
  readonly withdrawnAt: string | null;
}
