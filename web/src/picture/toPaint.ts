// What a colour of the picture is to be painted as.
import { lightnessOfValue, throughKey, valueOfLightness, type Lab } from '@dusk/core';
import { useReference } from '../stores/reference.ts';
import { useWithin } from '../stores/useWithin.ts';

/** Where only the value counts, it is painted in another's hue. */
export const ofValueAlone = (paint: Lab, [, a, b]: Lab): Lab => [
  lightnessOfValue(Math.min(10, Math.max(0, valueOfLightness(paint[0])))),
  a,
  b,
];

/** A colour that is seen, through the key of the picture that is looked at within the values the painting keeps between and under its ceiling. */
export function useToPaint(): (seen: Lab) => Lab {
  const reference = useReference();
  const within = useWithin();
  return (seen) => within(reference.key ? throughKey(reference.key, seen) : seen);
}
