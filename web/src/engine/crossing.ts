import { CraftError } from '@dusk/core';
import { transferHandlers } from 'comlink';

/** Work that was given up because nobody wants its answer any more. */
export class GivenUp extends Error {
  constructor() {
    super('This was given up.');
    this.name = 'GivenUp';
  }
}

interface Crossed {
  readonly name: string;
  readonly message: string;
  readonly stack?: string;
  readonly kind?: CraftError['kind'];
}

/** An error made anew on the other side, of the class it was. */
function revived({ name, message, stack, kind }: Crossed): Error {
  if (kind !== undefined) return new CraftError(kind, message);
  if (name === 'GivenUp') return new GivenUp();
  return Object.assign(new Error(message), { name, ...(stack !== undefined && { stack }) });
}

/** Errors cross between page and worker with their type; to be called on both sides. */
export function keepErrorsTyped(): void {
  const isThrown = transferHandlers.get('throw')!.canHandle;
  transferHandlers.set('throw', {
    canHandle: isThrown,
    serialize: ({ value }: { value: unknown }) => {
      const error = value instanceof Error ? value : new Error(String(value));
      const crossed: Crossed = {
        name: error.name,
        message: error.message,
        ...(error.stack !== undefined && { stack: error.stack }),
        ...(error instanceof CraftError && { kind: error.kind }),
      };
      return [crossed, []];
    },
    deserialize: (crossed: Crossed) => {
      throw revived(crossed);
    },
  } as never);
}
