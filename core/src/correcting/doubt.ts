import type { Delta } from '../colour/difference.ts';

/** How a pile can be looked at. */
export const SIGHTS = ['words', 'eye', 'photo', 'typed', 'reader'] as const;
export type Sight = (typeof SIGHTS)[number];

/** How a colour was read. */
export interface Reading {
  /** What shares one offset: one way of reading, under one light, in one sitting. */
  readonly sighting: string;
  /** ΔE00 by which readings of one colour scatter (root mean square). */
  readonly noise: Delta;
  /** ΔE00 by which all readings of the sighting may be off alike, before anything is known of it. */
  readonly bias: Delta;
  /** Whether the painter has confirmed it: it is this pile, in this light, however strange. */
  readonly confirmed?: boolean;
}

/**
 * How far a look is off, in ΔE00: how much looks scatter, and how far a whole sitting's may be off
 * alike. Words are coarse steps; an eye at a lit screen set to white paper, and a photo beside a
 * patch, are mostly off alike (1.75); a colour typed from a card or an instrument's display less; a
 * reader hardly.
 */
export const SIGHT_ERROR: Readonly<Record<Sight, Omit<Reading, 'sighting'>>> = {
  words: { noise: 3.5, bias: 1.75 },
  eye: { noise: 1, bias: 1.75 },
  photo: { noise: 0.8, bias: 1.75 },
  typed: { noise: 0.7, bias: 0.7 },
  reader: { noise: 0.4, bias: 0.3 },
};

/** A look of a kind in a sighting, which the painter may have confirmed. */
export const readingOf = (sight: Sight, sighting: string, confirmed = false): Reading => ({
  sighting,
  ...SIGHT_ERROR[sight],
  ...(confirmed && { confirmed }),
});

/** A look of which nothing is said. */
export const UNSAID: Reading = { sighting: 'unsaid', noise: 0.5, bias: 0 };
