import type { Lab, Mixture } from '@dusk/core';
import { MIXTURE_VERSION } from './limits.ts';
import type { MixtureSent } from './mixtures.ts';

/** Colours and mixtures as they are written on the wire; without any decorators, so that the page may have this alone. */
export interface LabDto {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

export const labOfDto = ({ L, a, b }: LabDto): Lab => [L, a, b];
export const labDto = ([L, a, b]: Lab): LabDto => ({ L, a, b });

/** A mixture as it is written. */
export interface MixtureDto extends Mixture {
  readonly form: number;
}

export const mixtureDto = ({ heaps }: Mixture): MixtureDto => ({ form: MIXTURE_VERSION, heaps });
/** A mixture as a change sends it: the same, by the type that the other side checks it by. */
export const mixtureSent = (mixture: Mixture): MixtureSent => mixtureDto(mixture);
