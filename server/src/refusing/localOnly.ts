import type { Request, RequestHandler } from 'express';
import { ProblemError } from './problems.ts';

const OWN_NAMES = new Set(['127.0.0.1', 'localhost', '[::1]']);

const hostName = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** Whether a browser says that another's page asks for this. */
export const isFromElsewhere = ({ headers }: Pick<Request, 'headers'>): boolean =>
  headers['sec-fetch-site'] === 'cross-site' || headers['sec-fetch-site'] === 'same-site';

/**
 * Refuses requests that name another host (a foreign page that has its own name point here), and
 * changes that come from another origin.
 */
export const localOnly: RequestHandler = (request, _response, next) => {
  const host = request.headers.host ?? '';
  if (!OWN_NAMES.has(hostName(host)))
    throw new ProblemError(421, 'Wrong host', 'This studio answers on this machine only, as 127.0.0.1 or localhost.');
  const { origin } = request.headers;
  const isReading = request.method === 'GET' || request.method === 'HEAD';
  if ((origin !== undefined && origin !== `http://${host}`) || (!isReading && isFromElsewhere(request)))
    throw new ProblemError(403, 'Wrong origin', 'This studio takes no requests from other pages.');
  next();
};
