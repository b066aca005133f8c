import type { Basis, Drying, Lightfastness } from '@dusk/core';

/** Kubelka–Munk curves as they cross the wire, 380–730 nm by 10 nm. */
export interface CurvesDto {
  readonly K: readonly number[];
  readonly S: readonly number[];
}

/** A tube of the studio with its newest state. */
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
}
