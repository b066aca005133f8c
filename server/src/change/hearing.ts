import type { Answer, Looked } from '@dusk/wire';

/** What open windows are told: a change, or how the picture is looked at in another window. */
export type Told = { readonly is: 'change'; readonly answer: Answer } | { readonly is: 'looked'; readonly looked: Looked };
type Listener = (told: Told) => void;

/** Tells open windows what was changed, as it happens, and how the picture is looked at. */
export class Hearing {
  private readonly listeners = new Set<Listener>();
  private readonly ends = new Set<() => void>();
  /** How it was looked at last, for windows that come later; no file keeps it. */
  looked: Looked | undefined;

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
    this.tellAll({ is: 'change', answer });
  }

  tellLooked(looked: Looked): void {
    this.looked = looked;
    this.tellAll({ is: 'looked', looked });
  }

  private tellAll(told: Told): void {
    for (const listener of this.listeners) listener(told);
  }
}
