import { Within } from './fields.ts';

/** A colour as it crosses the wire: CIELAB under D65. */
export class LabSent {
  @Within('L', 0, 100)
  L!: number;

  @Within('a', -150, 150)
  a!: number;

  @Within('b', -150, 150)
  b!: number;
}
