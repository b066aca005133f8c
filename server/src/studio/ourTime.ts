import type { Operation } from '@dusk/wire';

const DAY_MS = 86_400_000;
/** Fields that say when something was done. */
const DONE_AT = ['at', 'openedAt', 'closedAt', 'finishedAt'] as const;

/** How far beyond now something is said to have been done, ms; a day and less may be another zone's, or said beforehand. */
const beyond = (said: unknown, now: number): number => {
  const by = typeof said === 'string' ? Date.parse(said) - now : 0;
  return by > DAY_MS ? by : 0;
};

interface InOurTime {
  readonly ops: readonly Operation[];
  /** How far the clock of whoever sent it runs ahead, ms; 0 where it does not. */
  readonly ahead: number;
}

/**
 * What is said to be done more than a day from now was told by a wrong clock: it is done now. The log keeps what was sent.
 * @param at the studio's own time, UTC ISO
 */
export function inOurTime(sent: readonly Operation[], at: string): InOurTime {
  const now = Date.parse(at);
  let ahead = 0;
  const told = <T extends object>(fields: T): T => {
    const late = DONE_AT.filter((field) => beyond((fields as Record<string, unknown>)[field], now) > 0);
    for (const field of late) ahead = Math.max(ahead, beyond((fields as Record<string, unknown>)[field], now));
    return late.length === 0 ? fields : { ...fields, ...Object.fromEntries(late.map((field) => [field, at])) };
  };
  const ops = sent.map((op) => {
    const own = told(op);
    // What a painting is about says when it was finished.
    return 'about' in own && typeof own.about === 'object' ? { ...own, about: told(own.about) } : own;
  });
  return { ops, ahead };
}
