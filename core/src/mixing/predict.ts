import { deltaE00 } from '../colour/difference.ts';
import type { Illuminant } from '../colour/illuminants.ts';
import type { Lab } from '../colour/spaces.ts';
import { valueOfLightness, type MunsellValue } from '../colour/value.ts';
import type { Basis } from '../paint/catalogue.ts';
import { labOf, mixCurves, reflectance, type Portion } from '../paint/mix.ts';
import { trustIn, type KnownDoubts, type Trust } from '../paint/trust.ts';
import { isTube, lastHeap, type Heap, type Leaf, type Mixture } from './mixture.ts';
import { leavesOf, paintOfMixture, portionsOf, type PaintOf } from './open.ts';

/** How much a dose is off, as a share of itself, where steadiness is reckoned. */
const DOSING = 0.1;

/** Root of the summed squares of ΔE00 when one portion after the other is a tenth too much; lower is steadier. */
export function steadiness(portions: readonly Portion[], light: Illuminant = 'D65'): number {
  if (portions.length < 2) return 0;
  const lab = labOf(reflectance(mixCurves(portions)), light);
  const sum = portions.reduce((squares, _, off) => {
    const dosed = portions.map((p, i) => (i === off ? { ...p, parts: p.parts * (1 + DOSING) } : p));
    return squares + deltaE00(lab, labOf(reflectance(mixCurves(dosed)), light)) ** 2;
  }, 0);
  return Math.sqrt(sum);
}

/**
 * The same for a mixture of several heaps: one measuring after the other is a tenth too much, in the
 * heaps mixed first too.
 */
export function steadinessOf(mixture: Mixture, paintOf: PaintOf, light: Illuminant = 'D65'): number {
  if (mixture.heaps.length === 1) return steadiness(portionsOf(mixture, lastHeap(mixture), paintOf), light);
  const seen = (heaps: readonly Heap[]): Lab => labOf(reflectance(paintOfMixture({ heaps }, paintOf)), light);
  const lab = seen(mixture.heaps);
  let sum = 0;
  mixture.heaps.forEach(({ ingredients }, h) =>
    ingredients.forEach((_, i) => {
      const dosed = ingredients.map((one, j) => (j === i ? { ...one, parts: one.parts * (1 + DOSING) } : one));
      sum += deltaE00(lab, seen(mixture.heaps.map((heap, k) => (k === h ? { ingredients: dosed } : heap)))) ** 2;
    }),
  );
  return Math.sqrt(sum);
}

/** What a mixture gives as a thick glossy film by daylight. */
export interface Prediction {
  readonly lab: Lab;
  readonly value: MunsellValue;
  readonly steadiness: number;
}

/** Predicts the pile a mixture makes. */
export function predict(mixture: Mixture, paintOf: PaintOf): Prediction {
  const portions = portionsOf(mixture, lastHeap(mixture), paintOf);
  const lab = labOf(reflectance(mixCurves(portions)));
  return { lab, value: valueOfLightness(lab[0]), steadiness: steadinessOf(mixture, paintOf) };
}

/**
 * How far the prediction of a mixture can be trusted.
 * @param doubts of tubes that piles have taught, together; of them the curves are those that are believed
 */
export const trustInMixture = (mixture: Mixture, paintOf: PaintOf, basisOf: (source: Leaf) => Basis, doubts?: KnownDoubts): Trust =>
  trustIn(
    leavesOf(mixture).map(({ source, share, range }) => ({
      paint: paintOf(source),
      parts: share,
      basis: basisOf(source),
      ...(isTube(source) && basisOf(source) === 'learnt' && { id: source.tube }),
      ...(range && { range }),
    })),
    undefined,
    doubts,
  );
