import type { Basis, Drying, Lightfastness } from '@dusk/core';
import { IsIn } from 'class-validator';
import { Id, ListOfWords, Note, Nullable, Optional, Version, Within, Words } from './fields.ts';
import type { CurvesDto, LearntDto } from './states.ts';

export const DRYINGS: readonly Drying[] = ['fast', 'medium', 'slow'];
export const LIGHTFASTNESSES: readonly Lightfastness[] = ['I', 'II', 'III', 'IV'];
const MOST_PIGMENTS = 8;
const LONGEST_PIGMENT = 60;

/** What may be said of one's own tube; what is null, or was never said, is as its pigment usually is. */
class TubeSaid {
  @Optional()
  @Note('The maker', 80)
  maker?: string;

  @Optional()
  @Within('The mouth of a tube in mm', 1, 30)
  nozzleMm?: number;

  @Nullable()
  @Within('Grams per ml', 0.7, 6)
  density?: number | null;

  @Nullable()
  @IsIn(DRYINGS, { message: `Paint dries ${DRYINGS.join(', ')}` })
  drying?: Drying | null;

  @Nullable()
  @IsIn(LIGHTFASTNESSES, { message: `Lightfastness is ${LIGHTFASTNESSES.join(', ')}` })
  lightfastness?: Lightfastness | null;

  /** What its label warns of, beside what its pigments do. */
  @Nullable()
  @Words('A caution', 80)
  caution?: string | null;

  @Nullable()
  @Within('The size of a tube in ml', 1, 5000)
  sizeMl?: number | null;

  @Nullable()
  @Within('What is left in a tube in ml', 0, 5000)
  leftMl?: number | null;

  @Optional()
  @Note('A note', 2000)
  note?: string;
}

/** A tube of one's own. */
export class NewTube extends TubeSaid {
  @Id('A tube')
  id!: string;

  @Words('The name of a tube', 80)
  name!: string;

  /** Slugs of the catalogue, or what stands on the label where the catalogue has no such pigment. A tube of others is another tube. */
  @ListOfWords('The pigments of a tube', 1, MOST_PIGMENTS, 'A pigment', LONGEST_PIGMENT)
  pigments!: string[];

  /** The tube whose curves it begins with; without it they are those usual for its pigments. */
  @Optional()
  @Id('The tube it is like')
  likeId?: string;
}

export class TubeChange extends TubeSaid {
  @Id('A tube')
  id!: string;

  @Version()
  version!: number;

  @Optional()
  @Words('The name of a tube', 80)
  name?: string;
}

/** What a tube may have of its own instead of its pigment's. */
export const OWN_OF_TUBE = ['density', 'drying', 'lightfastness', 'caution'] as const;
export type OwnOfTube = (typeof OWN_OF_TUBE)[number];

/** A tube of the studio with the state it is reckoned with today. */
export interface TubeDto {
  readonly id: string;
  readonly name: string;
  /** Empty for a generic pigment of the catalogue. */
  readonly maker: string;
  readonly version: number;
  /** The first of its pigments: a slug of the catalogue, or what stands on the label. */
  readonly pigment: string;
  readonly pigments: readonly string[];
  readonly colourIndex: string;
  readonly character: string;
  readonly caution: string;
  readonly drying: Drying;
  readonly lightfastness: Lightfastness;
  /** Grams per ml. */
  readonly density: number;
  readonly nozzleMm: number;
  /** Of the above, what was said of this very tube; the rest is as its pigment usually is. */
  readonly own: readonly OwnOfTube[];
  readonly sizeMl: number | null;
  readonly leftMl: number | null;
  readonly note: string;
  readonly createdAt: string;
  readonly deletedAt: string | null;
  readonly stateId: string;
  readonly basis: Basis;
  readonly curves: CurvesDto;
  readonly learnt: LearntDto | null;
}
