import type { Answer } from '@dusk/wire';

type Listener = (answer: Answer) => void;

/** Tells open windows what was changed, as it happens. */
export class Hearing {
  private readonly listeners = new Set<Listener>();
  private readonly ends = new Set<() => void>();

  /** Windows that listen. */
  get size(): number {
    return this.listeners.size;
  }

  /** @param end what lets go of the window */
  listen(listener: Listener, end: () => void): () => void {
    this.listeners.add(listener);
    this.ends.add(end);
    return () => {
      this.listeners.delete(listener);
      this.ends.delete(end);
    };
  }

  /** Lets go of every window, as when the studio is closed. */
  close(): void {
    for (const end of this.ends) end();
  }

  tell(answer: Answer): void {
    for (const listener of this.listeners) listener(answer);
  }
}
