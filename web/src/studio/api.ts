import type { Answer, Change, CopiesDto, PictureDto, Problem, ReadAnswers, ReadName } from '@dusk/wire';
import { CHANGES, COPIES, PICTURES, READS } from '@dusk/wire/reads';

/** What the server said no to, as a sentence; a lost connection has status 0. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'ApiError';
  }
}

const unreachable: Problem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  detail: 'The studio does not answer. Is the program still running?',
};

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const form = body instanceof FormData;
  const init: RequestInit = { method };
  if (body !== undefined) {
    init.body = form ? body : JSON.stringify(body);
    if (!form) init.headers = { 'Content-Type': 'application/json' };
  }
  const response = await fetch(`/api${path}`, init).catch(() => {
    throw new ApiError(unreachable);
  });
  if (!response.ok) {
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
    throw new ApiError(problem ?? { ...unreachable, status: response.status, detail: `The studio answered ${response.status}.` });
  }
  // An answer that breaks off is none.
  return (await response.json().catch(() => {
    throw new ApiError(unreachable);
  })) as T;
}

/** Sends a change; a change that is known is answered again. */
export const sendChange = (change: Change): Promise<Answer> => call('POST', CHANGES, change);

export const read = <N extends ReadName>(name: N, id = ''): Promise<ReadAnswers[N]> => call('GET', READS[name].replace(':id', id));

export const readCopies = (): Promise<CopiesDto> => call('GET', COPIES);

/** Sends a picture ahead of the change that speaks of it. */
export function sendPicture(file: File): Promise<PictureDto> {
  const form = new FormData();
  form.append('picture', file);
  return call('POST', PICTURES, form);
}

export const pictureUrl = (pictureId: string): string => `/api${PICTURES}/${pictureId}`;
