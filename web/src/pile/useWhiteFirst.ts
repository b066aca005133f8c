// The first look by eye asks for the white of the paper, once for each light.
import { watch } from 'vue';
import { useWhite } from '../floor/white.ts';

/** @returns does something that is judged by eye: at once, or when the white that is asked for has been said */
export function useWhiteFirst(): (work: () => void) => void {
  const white = useWhite();
  const isKnown = (): boolean => white.isSet || white.outshone;
  let waiting: (() => void) | undefined;
  watch(
    () => white.setting,
    (isAsked) => {
      if (isAsked) return;
      if (isKnown()) waiting?.();
      waiting = undefined;
    },
  );
  return (work) => {
    if (isKnown()) return work();
    white.setting = true;
    waiting = work;
  };
}
