import type { RequestHandler, Response } from 'express';
import type { Answer, HereDto, Looked } from '@dusk/wire';
import { logAt } from '../studio/changes.ts';
import { missedSince } from '../studio/missed.ts';
import { isFromElsewhere } from '../refusing/localOnly.ts';
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

function write(response: Response, event: string, data: object, id?: number): void {
  if (response.writableLength > MOST_UNREAD_BYTES) return void response.destroy();
  response.write(`${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
}
const writeChange = (response: Response, answer: Answer): void => write(response, 'change', answer, answer.seq);
const writeLooked = (response: Response, looked: Looked): void => write(response, 'looked', looked);

/**
 * What is changed, as it happens (server-sent events, each by its place in the change log). A window says
 * what it heard last, in `since` or as the browser does when it comes again, and is told what it missed.
 */
export const eventsOf =
  (studio: Studio): RequestHandler =>
  async (request, response) => {
    // A page of somebody else's could take every place by only naming this address.
    if (isFromElsewhere(request)) throw new ProblemError(403, 'Wrong origin', 'This studio is listened to from its own page.');
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
      writeChange(response, answer);
    };
    const stop = studio.hearing.listen(
      (news) => {
        if (news.is === 'looked') writeLooked(response, news.looked);
        else if (told) tell(news.answer);
        else waiting.push(news.answer);
      },
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
    if (missed === 'too much') write(response, 'reload', {});
    else if (missed) {
      heard = missed.seq;
      if (Object.keys(missed.rows).length > 0) writeChange(response, missed);
    }
    told = true;
    waiting.forEach(tell);
    if (studio.hearing.looked) writeLooked(response, studio.hearing.looked);
  };
