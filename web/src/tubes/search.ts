import { folded } from '@dusk/core';
import type { Tube } from './tubes.ts';

/** Whether a tube fits what was typed: every word in its name, maker, Colour Index name or character. */
export function matches(tube: Tube, wanted: string | null): boolean {
  const text = folded([tube.name, tube.maker || 'generic', tube.colourIndex, tube.character, tube.caution].join(' '));
  return folded(wanted ?? '')
    .split(/\s+/)
    .every((word) => text.includes(word));
}
