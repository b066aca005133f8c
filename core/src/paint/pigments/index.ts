import type { PigmentDefinition } from './definition.ts';
import { WHITES } from './whites.ts';
import { YELLOWS } from './yellows.ts';
import { REDS } from './reds.ts';
import { BLUES, GREENS } from './blues.ts';
import { BLACKS, EARTHS } from './earths.ts';

/** Every pigment's published features; the catalogue's curves are derived from these. */
export const DEFINITIONS: readonly PigmentDefinition[] = [...WHITES, ...YELLOWS, ...REDS, ...BLUES, ...GREENS, ...EARTHS, ...BLACKS];
