// The keys of an open pile.
import type { Shortcut } from '../floor/useShortcuts.ts';
import type { useKin } from '../kin/useKin.ts';
import type { useLook } from '../correcting/useLook.ts';

/** With Shift a step is so many. */
const LARGE = 5;
const KIN_LARGE = 3;

type Step<By> = readonly [key: string, by: By, way: 1 | -1];
const steps = <By>(keys: readonly Step<By>[], large: number, run: (by: By, steps: number) => void): Shortcut[] =>
  keys.map(([key, by, way]) => ({ key, repeats: true, run: ({ shiftKey }) => run(by, way * (shiftKey ? large : 1)) }));

/** What steps from one pile to the next. */
export const kinKeys = (step: ReturnType<typeof useKin>['step']): Shortcut[] =>
  steps(
    [
      ['ArrowUp', 'value', 1],
      ['ArrowDown', 'value', -1],
      ['ArrowRight', 'temperature', 1],
      ['ArrowLeft', 'temperature', -1],
      ['+', 'chroma', 1],
      ['=', 'chroma', 1],
      ['-', 'chroma', -1],
      ['i', 'shadow', 1],
      ['f', 'off', 1],
    ] as const,
    KIN_LARGE,
    step,
  );

/** What says how what was mixed differs from what is on the screen. */
export const nudgeKeys = (nudge: ReturnType<typeof useLook>['nudge']): Shortcut[] =>
  steps(
    [
      ['ArrowUp', 'value', 1],
      ['ArrowDown', 'value', -1],
      ['ArrowRight', 'hue', 1],
      ['ArrowLeft', 'hue', -1],
      ['+', 'chroma', 1],
      ['=', 'chroma', 1],
      ['-', 'chroma', -1],
    ] as const,
    LARGE,
    nudge,
  );
