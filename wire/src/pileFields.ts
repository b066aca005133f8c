import { MOST_LAYERS } from './limits.ts';
import type { Plain } from './plain.ts';

/** What is said of a pile in plain words and figures, beyond its colour and its plan. */
export const PILE_FIELDS = {
  /** The layer of the painting it is mixed for. */
  layer: { is: 'whole', called: 'layer', least: 1, most: MOST_LAYERS, begins: 1 },
  note: { is: 'text', called: 'note', longest: 2000, begins: '' },
} as const satisfies Readonly<Record<string, Plain>>;
