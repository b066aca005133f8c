/** The file that is the whole studio, inside the data folder. */
export const STUDIO_FILE = 'studio.sqlite';
/** A studio that is being made: it takes its own name once it is whole. */
export const NEW_FILE = 'studio being made.sqlite';
