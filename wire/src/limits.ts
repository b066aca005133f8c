/** Limits that page and server share; without any decorators, so that the page may have them alone. */
export const PALETTE_MOST_TUBES = 24;

/** Largest file that may be sent, in bytes, and most pixels it may hold. */
export const UPLOAD_MOST_BYTES = 100 * 1024 * 1024;
export const UPLOAD_MOST_PIXELS = 64_000_000;
/** Longest side of the copy that a picture is looked at in; its own pixels are kept besides. */
export const PICTURE_LONGEST_SIDE = 2400;
/** Longest side of a piece of a picture that can be had in its own pixels. */
export const PIECE_LONGEST_SIDE = 640;

export const SURROUNDS = ['white', 'N7', 'N5', 'N3', 'ground'] as const;
/** Grey around colours that are judged: white, a Munsell value, or the painting's ground. */
export type Surround = (typeof SURROUNDS)[number];

export const ROOMS = ['light', 'dark'] as const;
/** The studio's own light: how bright the interface is away from the judged colours. */
export type Room = (typeof ROOMS)[number];

/** Daily copies of the studio that are kept unless the painter says otherwise. */
export const COPIES_KEPT = 30;

export const PICTURE_SPACES = ['srgb', 'display-p3'] as const;
/** What the numbers of a picture's copy mean. */
export type PictureSpace = (typeof PICTURE_SPACES)[number];

export const PASSING_ON = ['ask', 'mine', 'free', 'no'] as const;
/** What may be done with a picture: not said, the painter's own, free to pass on, for looking at only. */
export type PassingOn = (typeof PASSING_ON)[number];

/** After so long in which nothing was done a sitting is over, also where nobody said so. */
export const SITTING_REST_MS = 4 * 3_600_000;

/** Layers of a painting, counted from 1. */
export const MOST_LAYERS = 20;
/** Things that are added to one pile in place. */
export const MOST_IN_PLACE = 6;
/** Neighbours of a pile, further places it serves in, and what may show in it left broken. */
export const MOST_NEIGHBOURS = 2;
export const MOST_PLACES = 40;
export const MOST_BROKEN = 6;

/** Most corners of an area that was drawn, and most areas joined to one. */
export const MOST_CORNERS = 120;
/** Flat shapes of a plan. */
export const MOST_FLAT_SHAPES = 60;
/** Trials of a picture that lie side by side, and changes of one. */
export const MOST_TRIALS = 8;
export const MOST_CHANGES_TRIED = 12;
export const MOST_JOINED = 12;

/** Most cards that are kept together as one set. */
export const MOST_IN_SET = 400;

/** Largest file of cards that is read, in bytes. */
export const CARDS_MOST_BYTES = 32 * 1024 * 1024;

/** Most operations in one change. */
export const MOST_OPERATIONS = 120;

/** Number of the form in which mixtures cross the wire and lie in the file. */
export const MIXTURE_VERSION = 1;
