// Answers to reads of rows as they were written, until the studio is another: a window that opens asks for what another has just had.

/** So many answers are kept: the studio, and a few paintings. */
const MOST = 8;

/** Written answers of one state of the studio, by what was asked. */
export class KeptAnswers {
  private seq: number | undefined;
  private readonly texts = new Map<string, string>();

  /** @param seq the place in the change log at which it is asked @param write writes the answer, where it is not kept */
  async of(asked: string, seq: number, write: () => Promise<string>): Promise<string> {
    if (seq !== this.seq) this.texts.clear();
    this.seq = seq;
    const text = this.texts.get(asked) ?? (await write());
    this.texts.set(asked, text);
    for (const oldest of [...this.texts.keys()].slice(0, -MOST)) this.texts.delete(oldest);
    return text;
  }
}
