import { Within } from './fields.ts';

/** A colour as it crosses the wire: CIELAB under D65. */
export class LabSent {
  @Within('The L of a colour', 0, 100)
  L!: number;

  @Within('The a of a colour', -150, 150)
  a!: number;

  @Within('The b of a colour', -150, 150)
  b!: number;
}
