/** Looks of a picture, of which one is on; grey and squint go with any of them. */
export const LOOKS = ['colour', 'values', 'warmth', 'strength', 'edges', 'reach', 'piles'] as const;
export type LookName = (typeof LOOKS)[number];
