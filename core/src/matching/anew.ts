import { deltaE00 } from '../colour/difference.ts';
import type { PaintCurves } from '../paint/catalogue.ts';
import { asTouch, dosingOf, LEAST_TOUCH_ML, USUAL_HAND, type Hand } from '../mixing/hand.ts';
import { KNIFE_BORE_MM } from '../mixing/amounts.ts';
import { isHeap, keyOf, mixtureOf, type Ingredient, type Leaf, type Mixture } from '../mixing/mixture.ts';
import { leavesOf, paintOfMixture, type LeafShare, type PaintOf } from '../mixing/open.ts';
import { masstoneOf } from '../mixing/order.ts';
import { wholeParts } from '../mixing/measures.ts';
import { planFor } from './find.ts';
import { layPalette } from '../laying/palette.ts';
import { recipeOf } from './recipe.ts';
import { MOST_TOGETHER } from '../laying/shares.ts';

/** A paint with the bore of its mouth. */
type Squeezed = PaintCurves & { readonly nozzleMm?: number };
export type SqueezedOf = (source: Leaf) => Squeezed;

/** How far off its own colour a mixture may come by being measured anew, ΔE00; else its shares are rounded as they are. */
const STAYS = 1;

/** Shares as whole parts in one heap, what is less than a bead as touches. */
function byShares(leaves: readonly LeafShare[], paintOf: SqueezedOf, amountMl: number, hand: Hand): Mixture {
  const laid = leaves.map(({ source, share }) => {
    const bore = paintOf(source).nozzleMm ?? KNIFE_BORE_MM;
    const ml = Math.max(LEAST_TOUCH_ML, share * amountMl);
    return { source, ml, bore, byTip: dosingOf(ml, bore).how === 'touch' };
  });
  const beads = laid.filter(({ byTip }) => !byTip);
  const whole = wholeParts(beads.map(({ ml }) => ml));
  const perMl = whole.reduce((sum, n) => sum + n, 0) / beads.reduce((sum, { ml }) => sum + ml, 0);
  return mixtureOf(
    laid.map((one): Ingredient => {
      if (!one.byTip) return { ...one.source, parts: whole[beads.indexOf(one)]! };
      const parts = one.ml * (perMl || 1);
      return { ...one.source, parts, ...asTouch(one.ml, one.bore, parts, hand) };
    }),
  );
}

/**
 * The same composition, measured anew for an amount: whole parts, touches of the knife's tip, one heap where
 * that bears it. What it was made of before stays with the pile's history.
 */
export function measuredAnew(mixture: Mixture, paintOf: SqueezedOf, amountMl: number, hand: Hand = USUAL_HAND): Mixture {
  const leaves = leavesOf(mixture);
  if (leaves.length === 1) return mixtureOf([{ ...leaves[0]!.source, parts: 1 }]);
  const target = masstoneOf(paintOfMixture(mixture, paintOf as PaintOf));
  if (leaves.length > MOST_TOGETHER) return byShares(leaves, paintOf, amountMl, hand);
  const bySource = new Map(leaves.map(({ source }) => [keyOf(source), source]));
  const palette = layPalette(
    [...bySource].map(([id, source]) => {
      const { K, S, nozzleMm } = paintOf(source);
      return { id, K, S, ...(nozzleMm !== undefined && { nozzleMm }) };
    }),
  );
  const all = leaves.map((_, i) => i);
  const sought = { target, valueTolerance: 0.05, amountMl, hand, closest: 'in one heap' } as const;
  const recipe = [1, undefined]
    .map((mostHeaps) => planFor(palette, all, { ...sought, mostHeaps }))
    .flatMap((found) => (found ? [recipeOf(palette, found, target)] : []))
    .find(({ lab }) => deltaE00(lab, target) <= STAYS);
  if (!recipe) return byShares(leaves, paintOf, amountMl, hand);
  return {
    heaps: recipe.mixture.heaps.map(({ ingredients }) => ({
      ingredients: ingredients.map((one): Ingredient => {
        if (isHeap(one)) return one;
        const { parts, said, range } = one;
        const source = bySource.get('tube' in one ? one.tube : one.pile)!;
        return { ...source, parts, ...(said !== undefined && { said }), ...(range && { range }) };
      }),
    })),
  };
}
