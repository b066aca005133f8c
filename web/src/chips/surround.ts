import { hexToLab, labToHex, lightnessOfValue } from '@dusk/core';
import type { Surround } from '@dusk/wire';

/** What the surround of judged colours consists of, as CSS custom properties. */
export type SurroundStyle = {
  readonly '--surround': string;
  readonly '--surround-ink': string;
  /** Letters on a key that is filled with ink: a key in the surround's own grey looks as if it could not be pressed. */
  readonly '--on-ink': string;
  /** Ink of what is said more quietly; no fainter than reads well. */
  readonly '--surround-soft': string;
  readonly '--surround-line': string;
};

/** The grey of a value; what lies beyond the scale is shown at its end. */
export const grey = (value: number): string => labToHex([lightnessOfValue(Math.min(10, Math.max(0, value))), 0, 0]);

const VALUE: Readonly<Record<Exclude<Surround, 'ground'>, number>> = { white: 10, N7: 7, N5: 5, N3: 3 };
/** Below this lightness white ink reads better than black: both have the same contrast at Y 18 %. */
const INK_TURNS = 49.5;

/** The surround for a choice; the painting's ground is the only one that may have a hue. */
export function surroundStyle(choice: Surround, ground: string): SurroundStyle {
  const surround = choice === 'ground' ? ground : grey(VALUE[choice]);
  const [L] = hexToLab(surround);
  const dark = L < INK_TURNS;
  const roomy = L > 85 || L < 35;
  const step = dark ? 10 : -12;
  return {
    '--surround': surround,
    '--surround-ink': dark ? '#ffffff' : '#000000',
    '--on-ink': dark ? '#000000' : '#ffffff',
    '--surround-soft': roomy ? (dark ? '#d6d6d6' : '#444444') : dark ? '#ffffff' : '#000000',
    '--surround-line': labToHex([Math.min(100, Math.max(0, L + step)), 0, 0]),
  };
}
