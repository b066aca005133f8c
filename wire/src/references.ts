import { Matches } from 'class-validator';
import { LabSent } from './colours.ts';
import type { LabDto } from './written.ts';
import { Id, Note, ObjectOf, Optional, Within, Words } from './fields.ts';

/** A picture that has been sent becomes a painting's reference. */
export class NewReference {
  @Id('A reference')
  id!: string;

  @Id('A painting')
  paintingId!: string;

  @Matches(/^[0-9a-f]{64}$/, { message: 'A picture is named by what it holds' })
  pictureId!: string;

  @Words('The name of a picture', 120)
  name!: string;
}

/** A picture as it is kept. Its bytes are at `/api/pictures/{id}`. */
export interface PictureDto {
  readonly id: string;
  readonly width: number;
  readonly height: number;
}

export interface ReferenceDto {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string;
  readonly pictureId: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly createdAt: string;
  readonly deletedAt: string | null;
}

/** A round place in a reference picture, in its pixels. */
export class Outline {
  @Within('The x of a place', 0, 100_000)
  x!: number;

  @Within('The y of a place', 0, 100_000)
  y!: number;

  @Within('The radius', 0, 2000)
  radius!: number;
}

/** A colour read from a picture: as it was seen, and as it is to be painted. */
export class NewSample {
  @Id('A sample')
  id!: string;

  @Id('A painting')
  paintingId!: string;

  @Optional()
  @Id('A reference')
  referenceId?: string;

  @Optional()
  @ObjectOf('An outline is x, y and a radius', () => Outline)
  outline?: Outline;

  @ObjectOf('A colour is three numbers, L, a and b', () => LabSent)
  seen!: LabSent;

  @ObjectOf('A colour is three numbers, L, a and b', () => LabSent)
  paint!: LabSent;

  @Optional()
  @Note('A zone', 40)
  zone?: string;

  @Optional()
  @Note('A thing', 80)
  thing?: string;
}

export interface SampleDto {
  readonly id: string;
  readonly version: number;
  readonly paintingId: string;
  readonly referenceId: string | null;
  readonly outline: { readonly x: number; readonly y: number; readonly radius: number } | null;
  readonly seen: LabDto;
  readonly paint: LabDto;
  readonly zone: string;
  readonly thing: string;
  readonly createdAt: string;
  readonly deletedAt: string | null;
}
