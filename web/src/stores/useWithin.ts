// What a painting allows its colours. By itself, since it knows a whole colour order that the first view does without.
import { strengthOf, underCeiling, withinEnds, type Lab } from '@dusk/core';
import { usePaintings } from './paintings.ts';

/** A colour as dark, as light and as bright as the painting on the easel may get. */
export function useWithin(): (lab: Lab) => Lab {
  const paintings = usePaintings();
  return (lab) => {
    const { between, ceiling } = paintings.onEasel ?? {};
    return underCeiling(withinEnds(lab, between ?? undefined), ceiling ?? undefined);
  };
}

export { strengthOf };
