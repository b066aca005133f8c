// What is known of tubes' curves; without decorators, since a page goes through it.
import type { Basis } from '@dusk/core';
import type { TubeDto } from './tubes.ts';

/** Kubelka–Munk curves as they cross the wire, 380–730 nm by 10 nm. */
export interface CurvesDto {
  readonly K: readonly number[];
  readonly S: readonly number[];
  /** Of a tube that was taught: what is still open of it, as core’s `PaintCurves` has it. */
  readonly doubt?: readonly (readonly number[])[];
}

/** What was known of a tube's curves from some day on. It never changes: other curves are another state. */
export interface StateDto {
  readonly id: string;
  readonly tubeId: string;
  readonly basis: Basis;
  readonly curves: CurvesDto;
}

/** What piles taught of a tube. */
export interface LearntDto {
  /** The state it was learnt over. */
  readonly stateId: string;
  readonly basis: Basis;
  readonly curves: CurvesDto;
  /** Tinting strength, in times that of those curves, and the factor within which about two of three true ones lie. */
  readonly strength: number;
  readonly within: number;
  readonly shiftNm: number;
  /** From how many piles. */
  readonly piles: number;
}

/** The states that come with a tube: the one it is reckoned with today, and the one that was learnt over. */
export const statesWith = ({ id, stateId, basis, curves, learnt }: TubeDto): readonly StateDto[] => [
  { id: stateId, tubeId: id, basis, curves },
  ...(learnt ? [{ id: learnt.stateId, tubeId: id, basis: learnt.basis, curves: learnt.curves }] : []),
];
