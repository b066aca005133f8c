import { CraftError } from '@dusk/core';

/** One command of `dusk`: plain data in, plain data out. */
export interface Command {
  readonly name: string;
  readonly summary: string;
  /** Input and output by example, for `--help`. */
  readonly help: string;
  readonly run: (input: unknown) => unknown;
}

/**
 * The fields of an input object.
 * @throws CraftError when it is no object, or has a field the command does not know.
 */
export function fieldsOf<Name extends string>(input: unknown, known: readonly Name[]): Partial<Record<Name, unknown>> {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new CraftError('input', `The input must be an object with ${known.join(', ')}, or an array of such objects.`);
  const unknown = Object.keys(input).find((key) => !known.includes(key as Name));
  if (unknown !== undefined)
    throw new CraftError('input', `There is no field ${JSON.stringify(unknown)} here; known are ${known.join(', ')}.`);
  return input as Partial<Record<Name, unknown>>;
}

/** Rounds for people and files: far below what can be seen or measured. */
export const rounded = (v: number, digits = 4): number => Number(v.toFixed(digits)) + 0;
export const roundedList = (list: readonly number[], digits = 4): number[] => list.map((v) => rounded(v, digits));

/** Whether something was asked for. @throws CraftError for anything but true or false: "yes" is not read as no */
export function saidYes(name: string, value: unknown): boolean {
  if (value !== undefined && typeof value !== 'boolean')
    throw new CraftError('input', `${name} is true or false; it is ${JSON.stringify(value)}.`);
  return value === true;
}
