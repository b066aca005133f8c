/** What is wrong with one field of a request. */
export interface FieldError {
  readonly field: string;
  readonly message: string;
}

/** An error as it crosses the wire (RFC 9457, `application/problem+json`). */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  /** A sentence a painter can act on. */
  readonly detail: string;
  readonly fields?: readonly FieldError[];
  /** With 409: the version that was sent and the row as it now is. */
  readonly sentVersion?: number;
  readonly current?: unknown;
}
