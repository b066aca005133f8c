import { LabSent } from './colours.ts';
import { Id, Moment, ObjectOf, Optional, Within } from './fields.ts';
import { MixtureSent } from './mixtures.ts';
import type { LabDto, MixtureDto } from './written.ts';

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

  /** How thick the swatch lies over white, in micrometres; left out where it covers. */
  @Optional()
  @Within('Micrometres', 1, 5000)
  filmUm?: number;

  @Optional()
  @Moment()
  at?: string;
}

export interface ReadingDto {
  readonly id: string;
  readonly sightingId: string;
  readonly tubeId: string;
  readonly patch: MixtureDto;
  readonly lab: LabDto;
  readonly filmUm: number | null;
  readonly at: string;
  readonly withdrawnAt: string | null;
}
