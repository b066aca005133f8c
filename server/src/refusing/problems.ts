import { CraftError } from '@dusk/core';
import { InvalidRequest, CARDS_MOST_BYTES, UPLOAD_MOST_BYTES, type FieldError, type Problem } from '@dusk/wire';
import { tmpdir } from 'node:os';
import type { ErrorRequestHandler, Response } from 'express';
import { MulterError } from 'multer';

const MIB = 1024 * 1024;

/** An error that has a place in HTTP: a status and a sentence a painter can act on. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly more: { fields?: readonly FieldError[]; sentVersion?: number; current?: unknown } = {},
  ) {
    super(detail);
    this.name = 'ProblemError';
  }
}

export const notFound = (what: string): ProblemError => new ProblemError(404, 'Not found', `There is no such ${what}.`);

/** The row has moved on since the sender last saw it. */
export const stale = (what: string, sentVersion: number, current: unknown): ProblemError =>
  new ProblemError(409, 'Changed elsewhere', `This ${what} was changed in another window. Nothing was lost: look at both and choose.`, {
    sentVersion,
    current,
  });

/** Whether an error says no to what was asked, and is no failure of ours. */
export const isRefusal = (error: unknown): boolean =>
  error instanceof ProblemError || error instanceof InvalidRequest || error instanceof CraftError;

/** A field of a request that is wrong, with the sentence that says so. */
export const unfit = (title: string, field: string, detail: string): ProblemError =>
  new ProblemError(422, title, detail, { fields: [{ field, message: detail }] });

interface ParserError {
  readonly type: string;
  readonly status: number;
}

function asProblem(error: unknown): ProblemError | undefined {
  if (error instanceof ProblemError) return error;
  if (error instanceof InvalidRequest) return new ProblemError(422, 'The request does not fit', error.message, { fields: error.fields });
  if (error instanceof CraftError)
    return new ProblemError(422, 'This cannot be mixed', error.message, { fields: [{ field: error.kind, message: error.message }] });
  if (error instanceof MulterError)
    return error.code === 'LIMIT_FILE_SIZE'
      ? new ProblemError(
          413,
          'Too large',
          `The file is larger than is taken here: a picture up to ${UPLOAD_MOST_BYTES / MIB} MB, a file of cards up to ${CARDS_MOST_BYTES / MIB} MB. Save it smaller and try again.`,
        )
      : new ProblemError(422, 'The request does not fit', 'Send one file at a time, in the field that is asked for.');
  const { code } = error as { code?: unknown };
  if (code === 'SQLITE_FULL')
    return new ProblemError(507, 'The disk is full', 'The disk is full; nothing of this was kept. Make room and do it again.');
  if (code === 'ENOSPC' || code === 'EDQUOT')
    return new ProblemError(
      507,
      'The disk is full',
      `There is no room to lay a file down (${tmpdir()}); nothing of this was kept. Make room and do it again.`,
    );
  if (code === 'SQLITE_READONLY' || code === 'EROFS')
    return new ProblemError(
      503,
      'Not to be written',
      'The studio’s file cannot be written; nothing of this was kept. Give yourself the right to, or start Auburn Dusk on another folder.',
    );
  if (typeof code === 'string' && (code.startsWith('SQLITE_IOERR') || code === 'EIO'))
    return new ProblemError(
      503,
      'The disk fails',
      'The studio’s file cannot be read or written just now; nothing of this was kept. It is tried again.',
    );
  const { type, status } = error as Partial<ParserError>;
  if (type === 'entity.parse.failed') return new ProblemError(400, 'Not JSON', 'The request is not valid JSON.');
  if (type === 'entity.too.large') return new ProblemError(413, 'Too large', 'The request is larger than 1 MB.');
  if (status === 404) return new ProblemError(404, 'Not found', 'There is nothing here.');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new ProblemError(status, 'Bad request', 'The request cannot be read.');
  if (error instanceof Error && /^(Multipart|Unexpected end of form|Malformed part)/.test(error.message))
    return new ProblemError(400, 'Broken upload', 'The upload broke off. Send the picture again.');
  return undefined;
}

export function sendProblem(response: Response, error: ProblemError): void {
  const problem: Problem = { type: 'about:blank', title: error.title, status: error.status, detail: error.message, ...error.more };
  response.status(error.status).type('application/problem+json').send(JSON.stringify(problem));
}

/** Last in line: every error leaves as `problem+json`; those that are ours to mend are logged. */
export const problemHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  const problem = asProblem(error);
  if (!problem) request.log?.error({ err: error }, 'unexpected error');
  if (response.headersSent) next(error);
  else
    sendProblem(
      response,
      problem ??
        (request.method === 'GET'
          ? new ProblemError(
              500,
              'Not to be read',
              'Something in the studio could not be read. Nothing was changed; try again. If it stays so, stop Auburn Dusk and start it anew: it then says what is damaged, and which copy is good.',
            )
          : new ProblemError(500, 'Something broke', 'Something went wrong here. Nothing was changed; try again.')),
    );
};
