/** Work done a little at a time: it yields the share that is done, 0–1, and answers at the end. */
export type InSteps<T> = Generator<number, T, void>;

/** Does work in steps to its end at once. */
export function atOnce<T>(work: InSteps<T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}
