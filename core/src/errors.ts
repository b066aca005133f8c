/** What was wrong with an input, by the name of the input. */
export type CraftErrorKind =
  'spectrum' | 'colour' | 'illuminant' | 'pigment' | 'parts' | 'palette' | 'limits' | 'film' | 'target' | 'input';

/** Bad input to a core function: `kind` names the input, `message` is a sentence a painter can act on. */
export class CraftError extends Error {
  constructor(
    readonly kind: CraftErrorKind,
    message: string,
  ) {
    super(message);
    this.name = 'CraftError';
  }
}

/** Passes a finite number through, or says which one was not. */
export function finite(kind: CraftErrorKind, name: string, value: unknown): number {
  if (typeof value !== 'number' || !Number.isFinite(value))
    throw new CraftError(kind, `${name} must be a number; it is ${JSON.stringify(value) ?? 'missing'}.`);
  return value;
}
