import type { Basis, PaintCurves } from '@dusk/core';
import type { CurvesDto, StateDto } from '@dusk/wire';
import { useStudio } from '../studio/useStudio.ts';

/** Curves of a tube in a state, and how sure they are. */
export interface StatePaint {
  readonly paint: PaintCurves;
  readonly basis: Basis;
}

/** Curves as they crossed the wire, ready to mix. */
export const paintOf = ({ K, S, doubt }: CurvesDto): PaintCurves => ({
  K: Float64Array.from(K),
  S: Float64Array.from(S),
  ...(doubt && { doubt: doubt.map((way) => Float64Array.from(way)) }),
});

/** Made once of each state: it never changes. */
const made = new WeakMap<StateDto, StatePaint>();

/** Curves of tubes in their states: the one place where the page has them from. */
export function useStates(): (id: string) => StatePaint | undefined {
  const { rows } = useStudio();
  return (id) => {
    const state = rows.states.get(id);
    if (!state) return undefined;
    const known = made.get(state) ?? {
      paint: paintOf(state.curves),
      basis: state.basis,
    };
    made.set(state, known);
    return known;
  };
}
