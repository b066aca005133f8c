import type { Delta } from '../colour/difference.ts';

/** How a pile can be looked at. */
export const SIGHTS = ['words', 'eye', 'photo', 'typed', 'reader'] as const;
export type Sight = (typeof SIGHTS)[number];

/**
 * How far a look is off, in ΔE00 (about two of three within it): words are coarse steps; an eye at a
 * lit screen, set to white paper, judges to about 2; a photo beside a patch 1.75; a colour typed from
 * a card or an instrument's display 1; a reader half.
 */
export const SIGHT_ERROR: Readonly<Record<Sight, Delta>> = { words: 4, eye: 2, photo: 1.75, typed: 1, reader: 0.5 };

/** Times less sure than a careful reading: what learning weighs an observation by. */
export const doubtOf = (sight: Sight): number => Math.max(1, SIGHT_ERROR[sight]);
