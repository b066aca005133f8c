import { CraftError } from '../errors.ts';
import { CURVES } from './tables/curves.ts';
import { GENERIC_PIGMENTS } from './tables/genericPigments.ts';
import { HANDLING } from './tables/handling.ts';
import type { Drying, Lightfastness } from './pigments/definition.ts';

/** Names of generic pigments, as `ultramarine-blue`. */
export type PigmentSlug = string;

/**
 * Kubelka–Munk curves of tube paint: absorption K and scattering S per unit volume in 36 bands,
 * with the scattering of titanium white at 560 nm as 1.
 */
export interface PaintCurves {
  readonly K: Float64Array;
  readonly S: Float64Array;
  /** Of a tube that was taught: what is still open of it, as changes of log K and log S end to end (72 numbers), one standard deviation each. */
  readonly doubt?: readonly Float64Array[];
}

/**
 * What a paint's curves rest on, the least sure first: typical of the pigment, learnt from how piles
 * came out, fitted to swatches, or measured.
 */
export const BASES = ['typical', 'learnt', 'fitted', 'measured'] as const;
export type Basis = (typeof BASES)[number];

/** The least sure of what several paints rest on. */
export const leastSure = (bases: readonly Basis[]): Basis => BASES.find((basis) => bases.includes(basis)) ?? 'typical';

/** A generic pigment as typical tube paint. */
export interface Pigment extends PaintCurves {
  readonly slug: PigmentSlug;
  readonly name: string;
  readonly colourIndex: string;
  readonly character: string;
  /** `none`, or the metal or property to be careful about. */
  readonly caution: string;
  /** Grams per ml. */
  readonly density: number;
  /** Grams of oil per 100 g of pigment. */
  readonly oil: number;
  readonly drying: Drying;
  readonly lightfastness: Lightfastness;
  /** What the curves rest on, in words. */
  readonly basis: string;
}

const SCALE = 1e5;

function makePigment([slug, name, colourIndex, character, caution]: (typeof GENERIC_PIGMENTS)[number]): Pigment {
  const curves = CURVES[slug];
  const handling = HANDLING[slug];
  if (!curves || !handling) throw new Error(`The catalogue has no curves for ${slug}.`);
  const read = (list: readonly number[]) => Float64Array.from(list, (v) => v / SCALE);
  return { slug, name, colourIndex, character, caution, K: read(curves.K), S: read(curves.S), ...handling };
}

/** All generic pigments, by slug, in the order painters lay them out. */
export const CATALOGUE: ReadonlyMap<PigmentSlug, Pigment> = new Map(GENERIC_PIGMENTS.map((row) => [row[0], makePigment(row)]));

/** Changes whenever a curve in the catalogue does, so that a kept pile can say what it rested on. */
export const CATALOGUE_STATE = 'typical-1';

/** @throws CraftError when the catalogue has no such pigment. */
export function pigmentFromInput(slug: unknown): Pigment {
  const pigment = typeof slug === 'string' ? CATALOGUE.get(slug) : undefined;
  if (!pigment)
    throw new CraftError('pigment', `There is no tube called ${JSON.stringify(slug)} in the catalogue. Names look like "titanium-white".`);
  return pigment;
}
