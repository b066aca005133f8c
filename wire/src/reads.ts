import type { Beliefs } from '@dusk/core';
import type { CardStory } from './cards.ts';
import type { Answer } from './changes.ts';
import type { TaughtDto } from './readings.ts';

/** What every read answers with. */
export interface ReadAnswers {
  /** Settings, tubes, palettes, the newest paintings and their references: what a page needs before any place opens. */
  studio: Paged & { readonly studio: string };
  /** Older paintings, those that come after one. */
  paintings: Paged;
  /** Samples, sightings, piles, areas and sittings of one painting. */
  painting: Answer;
  /** Areas of the paintings that were worked on last with what was laid there, and the newest sittings. */
  log: LogDto;
  /** Older sittings, those before one. */
  sittings: Omit<LogDto, 'laid'>;
  /** One tube, with the readings that teach it. */
  tube: Answer;
  /** Looks at piles that taught a tube, the newest first. */
  taught: { readonly looks: readonly TaughtDto[] };
  /** The browsers and programs that changes came from. */
  devices: Answer;
  /** Sets of cards, and files of cards that were brought in. */
  sets: Answer;
  /** One card, and the piles that were mixed by it. */
  card: CardStory;
  /** What is believed of the tubes without what one pile taught, for correcting that pile. */
  beliefs: Beliefs;
  /** How unsure the tubes of a palette are together, as far as piles have taught them. */
  doubts: Beliefs;
}

/** What was laid on an area, opened to tubes. */
export interface LaidOfTubes {
  readonly deedId: string;
  /** Shares of the paint, by tube. */
  readonly parts: readonly { readonly tubeId: string; readonly share: number }[];
}

/** A sitting by what was done in it. */
export interface SittingTold {
  readonly id: string;
  /** When the last thing was done. */
  readonly lastAt: string | null;
  readonly deeds: number;
  /** Piles that were mixed in it, in order, as they were to look. */
  readonly piles: readonly {
    readonly pileId: string;
    readonly paintingId: string | null;
    readonly name: string;
    readonly lab: { readonly L: number; readonly a: number; readonly b: number } | null;
  }[];
  /** What was done with areas, in order. */
  readonly areas: readonly { readonly kind: string; readonly name: string; readonly paintingId: string }[];
}

/** The log. */
export interface LogDto extends Paged {
  readonly laid: readonly LaidOfTubes[];
  readonly sittings: readonly SittingTold[];
}

/** A page of rows. */
export interface Paged extends Answer {
  /** The row after which the next page begins; missing on the last. */
  readonly next?: string;
}

export type ReadName = keyof ReadAnswers;

/** Where each read is; `:id` stands for the id of a row. */
export const READS = {
  studio: '/studio',
  paintings: '/paintings-after/:id',
  painting: '/paintings/:id',
  log: '/log',
  sittings: '/sittings-before/:id',
  tube: '/tubes/:id',
  taught: '/tubes/:id/taught',
  devices: '/devices',
  sets: '/sets',
  card: '/cards/:id',
  beliefs: '/piles/:id/beliefs',
  doubts: '/palettes/:id/doubts',
} as const satisfies Record<ReadName, string>;

/** Names the studio that a change is meant for; another that answers at the same address refuses it. */
export const STUDIO_HEADER = 'X-Dusk-Studio';

/** What a window is told once it listens: which studio this is, and the change at the place it said it had come to. */
export interface HereDto {
  readonly studio: string;
  readonly seq: number | null;
  readonly log: string | null;
}

/** Where changes and pictures are sent, where the copy of a picture to look at is, and under that its own pixels and a small copy. */
export const CHANGES = '/changes';
export const PICTURES = '/pictures';
export const OWN_PIXELS = '/own';
export const SMALL = '/small';
/** A piece in its own pixels: `left`, `top`, `width`, `height` as the query; `wide=1` in core's wide space where its copy is in Display P3. */
export const PIECE = '/piece';
/** Where cards are looked for: what is wanted as JSON in the query `wanted`. */
export const CARDS_FOUND = '/cards-found';
/** Where files of cards are sent before they are brought in. */
export const CARD_FILES = '/card-files';
/** Where sheets are printed and where cards go out: what is wanted as JSON in the query `wanted`. */
export const PRINTED = '/sheets';
export const CARDS_OUT = '/cards-out';
/** Under a painting: one page that works alone, to be taken out of the studio. */
export const OUTING = '/outing';
/** Where changes are heard of as they happen, and where the studio is copied. */
export const EVENTS = '/events';
/** Where a window tells how it looks at its picture, for windows that follow it, in this browser or another. */
export const LOOKED = '/looked';
export const COPIES = '/copies';
export const BACKUP = '/backup';

/** The daily copies: where they lie, how many are kept, and when the newest was made. */
export interface CopiesDto {
  readonly folder: string;
  readonly kept: number;
  readonly newestAt: string | null;
  /** Why the last could not be made, where it could not. */
  readonly trouble: string | null;
  /** Since when there is work that lies in no copy, UTC ISO; null where all of it does, or none are wanted. */
  readonly behindSince: string | null;
}
