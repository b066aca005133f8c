import type { Drying } from '../paint/pigments/definition.ts';

/** How much each kind holds drying up. */
const HOLDS_UP: Readonly<Record<Drying, number>> = { fast: 0, medium: 1, slow: 2 };
/** A tube counts in full from this share of the paint on: a slow one holds up beyond its share. */
const IN_FULL = 1 / 4;
const SLOW_FROM = 1.5;
const MEDIUM_FROM = 0.6;

/** Touch-dry in so many days: a rule of thumb for a thin coat in linseed at 20 °C. */
export const TOUCH_DRY_DAYS: Readonly<Record<Drying, readonly [from: number, to: number]>> = {
  fast: [1, 3],
  medium: [3, 6],
  slow: [5, 12],
};

/** A tube in a mixture, by how it dries. */
export interface DryingPart {
  readonly id: string;
  readonly share: number;
  readonly drying: Drying;
}

/** How long a mixture takes to dry, from 0 (fast) to 2 (slow), and the tube that holds it up most. */
export function dryingOf(parts: readonly DryingPart[]): { readonly much: number; readonly kind: Drying; readonly by: string | undefined } {
  const held = parts.map(({ id, share, drying }) => ({ id, much: HOLDS_UP[drying] * Math.min(1, share / IN_FULL) }));
  const worst = held.reduce((most, one) => (one.much > most.much ? one : most), { id: '', much: 0 });
  const kind = worst.much >= SLOW_FROM ? 'slow' : worst.much >= MEDIUM_FROM ? 'medium' : 'fast';
  return { much: worst.much, kind, by: worst.much > 0 ? worst.id : undefined };
}
