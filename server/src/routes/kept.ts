// Answers to reads of rows as they were written, until the studio is another: a window that opens asks for what another has just had.

/** So many answers are kept: the studio, and a few paintings. */
const MOST = 8;

/** Written answers of one state of the studio, by what was asked. */
export class KeptAnswers {
  private seq: number | undefined;
  private readonly texts = new Map<string, string>();

  /** @param seq the place in the change log at which it is asked */
  of(asked: string, seq: number): string | undefined {
    if (seq !== this.seq) {
      this.texts.clear();
      this.seq = seq;
    }
    return this.texts.get(asked);
  }

  keep(asked: string, seq: number, text: string): void {
    if (seq !== this.seq) return;
    this.texts.set(asked, text);
    for (const oldest of [...this.texts.keys()].slice(0, -MOST)) this.texts.delete(oldest);
  }
}
