import type { FieldError } from './problem.ts';

/** More than so many wrong fields are not told one by one. */
const MOST_TOLD = 20;

/** A request that does not fit its class, field by field. */
export class InvalidRequest extends Error {
  readonly fields: readonly FieldError[];

  constructor(fields: readonly FieldError[]) {
    const told = fields.slice(0, MOST_TOLD);
    const more = fields.length - told.length;
    super([...new Set(told.map((f) => f.message)), ...(more > 0 ? [`And ${more} more.`] : [])].join(' '));
    this.name = 'InvalidRequest';
    this.fields = told;
  }
}
