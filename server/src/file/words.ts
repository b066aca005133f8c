import type { StudioSeen } from './look.ts';

const counted = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;

/** What a studio file holds, in words. */
export const seenInWords = ({ paintings, piles, newest, bytes }: StudioSeen): string =>
  `${counted(paintings, 'painting')} and ${counted(piles, 'pile')}, last worked on ${newest ? newest.slice(0, 16).replace('T', ' at ') : 'never'}, ${(bytes / 1e6).toFixed(1)} MB`;
