// What waited in a browser for another studio, that was open at this address before, is not taken in here.
import type { RequestHandler } from 'express';
import { STUDIO_HEADER } from '@dusk/wire';
import { ProblemError } from './problems.ts';

/** Refuses what says that it is meant for another studio than this. */
export const isForHere =
  ({ id }: { readonly id: string }): RequestHandler =>
  (request, _response, next) => {
    const meant = request.get(STUDIO_HEADER);
    if (meant !== undefined && meant !== id)
      throw new ProblemError(
        421,
        'Another studio',
        'Another studio is open at this address than the one this was done in. It waits for that one.',
      );
    next();
  };
