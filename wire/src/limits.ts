/** Limits that page and server share; without any decorators, so that the page may have them alone. */
export const PALETTE_MOST_TUBES = 24;

/** Largest file that may be sent, in bytes, and most pixels it may hold. */
export const UPLOAD_MOST_BYTES = 40 * 1024 * 1024;
export const UPLOAD_MOST_PIXELS = 64_000_000;
/** Longest side a picture is kept at. */
export const PICTURE_LONGEST_SIDE = 2400;

export const SURROUNDS = ['white', 'N7', 'N5', 'N3', 'ground'] as const;
/** Grey around colours that are judged: white, a Munsell value, or the painting's ground. */
export type Surround = (typeof SURROUNDS)[number];

export const ROOMS = ['light', 'dark'] as const;
/** The studio's own light: how bright the interface is away from the judged colours. */
export type Room = (typeof ROOMS)[number];

/** Daily copies of the studio that are kept unless the painter says otherwise. */
export const COPIES_KEPT = 30;
