import type { Problem } from '@dusk/wire';

/** What the server said no to, as a sentence; a lost connection has status 0. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'ApiError';
  }
}
