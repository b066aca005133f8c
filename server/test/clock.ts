// The clock that tests live by: none of them knows what day it truly is.
import type { Clock } from '../src/file/clock.ts';

/** A Monday morning in winter on which every studio of a test is opened, UTC ISO. */
export const MORNING = '2026-11-30T08:00:00.000Z';

/** A clock that goes on from a moment; two of one moment agree. */
export const goingFrom = (moment: string): Clock => {
  const from = Date.parse(moment);
  // eslint-disable-next-line no-restricted-syntax -- how long it has run, not what time it is
  return () => new Date(from + performance.now()).toISOString();
};

export const testClock: Clock = goingFrom(MORNING);

/** A clock that goes on by a millisecond each time it is read: what is laid out by it is done at once, however slow the machine is. */
export function ticking(from: string): Clock {
  let at = Date.parse(from);
  return () => new Date(at++).toISOString();
}

/** A moment some days, and hours, from another. */
export const later = (at: string, days: number, hours = 0): string =>
  new Date(Date.parse(at) + days * 86_400_000 + hours * 3_600_000).toISOString();
