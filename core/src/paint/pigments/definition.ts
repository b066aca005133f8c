import type { Lab } from '../../colour/spaces.ts';
import type { Band, Scatter } from './bands.ts';

/** How soon a thin film of the paint is touch-dry, next to the others on the palette. */
export type Drying = 'fast' | 'medium' | 'slow';
/** Lightfastness class as ASTM D4303 names them. */
export type Lightfastness = 'I' | 'II' | 'III' | 'IV';

interface Handling {
  readonly slug: string;
  /** Grams per ml of tube paint. */
  readonly density: number;
  /** Grams of oil that 100 g of dry pigment takes up. */
  readonly oil: number;
  readonly drying: Drying;
  readonly lightfastness: Lightfastness;
  /** What the curves rest on. */
  readonly basis: string;
}

/** A pigment with curves of its own: published features, and the colours they must give. */
export interface SinglePigment extends Handling {
  readonly absorb: readonly Band[];
  readonly scatter: Scatter;
  /** Typical masstone and 1:9 tint in titanium white: CIELAB, D65, 2°, specular excluded. */
  readonly masstone: Lab;
  readonly tint: Lab;
}

/** A paint that is made of other generic pigments, in shares of volume; the rest is clear extender. */
export interface BlendedPigment extends Handling {
  readonly blend: Readonly<Record<string, number>>;
}

export type PigmentDefinition = SinglePigment | BlendedPigment;

type Traits = readonly [density: number, oil: number, drying: Drying, lightfastness: Lightfastness];

export const single = (
  slug: string,
  [density, oil, drying, lightfastness]: Traits,
  colour: { masstone: Lab; tint: Lab },
  absorb: readonly Band[],
  scatter: Scatter,
  basis: string,
): SinglePigment => ({ slug, density, oil, drying, lightfastness, ...colour, absorb, scatter, basis });

export const blended = (
  slug: string,
  [density, oil, drying, lightfastness]: Traits,
  blend: Readonly<Record<string, number>>,
  basis: string,
): BlendedPigment => ({ slug, density, oil, drying, lightfastness, blend, basis });
