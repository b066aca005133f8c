import type { Lab } from '@dusk/core';
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

export interface LabDto {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

export const labOfDto = ({ L, a, b }: LabDto): Lab => [L, a, b];
export const labDto = ([L, a, b]: Lab): LabDto => ({ L, a, b });
