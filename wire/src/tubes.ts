import type { Basis, Drying, Lightfastness } from '@dusk/core';

/** Kubelka–Munk curves as they cross the wire, 380–730 nm by 10 nm. */
export interface CurvesDto {
  readonly K: readonly number[];
  readonly S: readonly number[];
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

/** A tube of the studio with the state it is reckoned with today. */
export interface TubeDto {
  readonly id: string;
  readonly name: string;
  /** Empty for a generic pigment of the catalogue. */
  readonly maker: string;
  readonly pigment: string;
  readonly colourIndex: string;
  readonly character: string;
  readonly caution: string;
  readonly drying: Drying;
  readonly lightfastness: Lightfastness;
  /** Grams per ml. */
  readonly density: number;
  readonly nozzleMm: number;
  readonly stateId: string;
  readonly basis: Basis;
  readonly curves: CurvesDto;
  readonly learnt: LearntDto | null;
}

/** The states that come with a tube: the one it is reckoned with today, and the one that was learnt over. */
export const statesWith = ({ id, stateId, basis, curves, learnt }: TubeDto): readonly StateDto[] => [
  { id: stateId, tubeId: id, basis, curves },
  ...(learnt ? [{ id: learnt.stateId, tubeId: id, basis: learnt.basis, curves: learnt.curves }] : []),
];
