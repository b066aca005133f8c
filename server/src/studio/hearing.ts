import type { Answer } from '@dusk/wire';

type Listener = (answer: Answer) => void;

/** Tells open windows what was changed, as it happens. */
export class Hearing {
  private readonly listeners = new Set<Listener>();

  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  tell(answer: Answer): void {
    for (const listener of this.listeners) listener(answer);
  }
}
