import type { Tube } from './tubes.ts';

/** Whether a tube fits what was typed: every word in its name, maker, Colour Index name or character. */
export function matches(tube: Tube, wanted: string | null): boolean {
  const text = [tube.name, tube.maker || 'generic', tube.colourIndex, tube.character, tube.caution].join(' ').toLowerCase();
  return (wanted ?? '')
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
