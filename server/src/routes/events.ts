import type { RequestHandler, Response } from 'express';
import type { Answer, HereDto } from '@dusk/wire';
import { logAt } from '../studio/changes.ts';
import { missedSince } from '../studio/missed.ts';
import { ProblemError } from '../refusing/problems.ts';
import type { Studio } from '../change/studio.ts';

/** A line now and then, so that a connection that broke is noticed. */
const ALIVE_MS = 20_000;

const seqFrom = (text: unknown): number | undefined => {
  const seq = typeof text === 'string' && text !== '' ? Number(text) : NaN;
  return Number.isInteger(seq) && seq >= 0 ? seq : undefined;
};

/** Somebody who has not read this much is let go of: the browser comes again and hears what it missed. */
const MOST_UNREAD_BYTES = 1_000_000;
/** Windows that listen at once; more are none of a painter's. */
const MOST_LISTENING = 64;

function write(response: Response, answer: Answer | 'reload'): void {
  if (response.writableLength > MOST_UNREAD_BYTES) return void response.destroy();
  if (answer === 'reload') response.write('event: reload\ndata: {}\n\n');
  else response.write(`id: ${answer.seq}\nevent: change\ndata: ${JSON.stringify(answer)}\n\n`);
}

/**
 * What is changed, as it happens (server-sent events, each by its place in the change log). A window says
 * what it heard last, in `since` or as the browser does when it comes again, and is told what it missed.
 */
export const eventsOf =
  (studio: Studio): RequestHandler =>
  async (request, response) => {
    if (studio.hearing.size >= MOST_LISTENING)
      throw new ProblemError(503, 'Too many windows', `This studio is open in ${MOST_LISTENING} windows already: close one.`);
    response.status(200).set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    const waiting: Answer[] = [];
    let told = false;
    let heard = -1;
    const tell = (answer: Answer): void => {
      if (answer.seq <= heard) return;
      heard = answer.seq;
      write(response, answer);
    };
    const stop = studio.hearing.listen(
      (answer) => (told ? tell(answer) : waiting.push(answer)),
      () => response.end(),
    );
    const alive = setInterval(() => response.write(': here\n\n'), ALIVE_MS);
    request.on('close', () => {
      clearInterval(alive);
      stop();
    });
    const since = seqFrom(request.headers['last-event-id']) ?? seqFrom(request.query['since']);
    const missed = since === undefined ? undefined : await missedSince(studio, since).catch(() => 'too much' as const);
    const log = since === undefined ? null : await studio.look((db) => logAt(db, since));
    const here: HereDto = { studio: studio.id, seq: since ?? null, log };
    response.write(`event: here\ndata: ${JSON.stringify(here)}\n\n`);
    if (missed === 'too much') write(response, 'reload');
    else if (missed) {
      heard = missed.seq;
      if (Object.keys(missed.rows).length > 0) write(response, missed);
    }
    told = true;
    waiting.forEach(tell);
  };
