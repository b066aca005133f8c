import { DAY_MS } from '@dusk/core';
import type { Operation } from '@dusk/wire';

/** Fields that say when something was done. */
const DONE_AT = ['at', 'openedAt', 'closedAt', 'finishedAt'] as const;

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
  const told = <T extends object>(sent: T): T => {
    const fields = { ...sent } as Record<string, unknown>;
    for (const field of DONE_AT) {
      const said = fields[field];
      const by = typeof said === 'string' ? Date.parse(said) - now : 0;
      // A day and less may be another zone's, or said beforehand.
      if (!(by > DAY_MS)) continue;
      ahead = Math.max(ahead, by);
      fields[field] = at;
    }
    return fields as T;
  };
  const ops = sent.map((op) => {
    const own = told(op);
    // What a painting is about says when it was finished.
    return 'about' in own && typeof own.about === 'object' ? { ...own, about: told(own.about) } : own;
  });
  return { ops, ahead };
}
