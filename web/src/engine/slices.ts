import type { InSteps } from '@dusk/core';
import { GivenUp } from './crossing.ts';

/** Work longer than this is put off for a moment, so that a cancel is heard. */
const SLICE_MS = 8;

const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => {
  (channel.port1 as { unref?: () => void }).unref?.();
  waiting.shift()?.();
};
// Where a program would be kept running by an open port, it is not.
for (const port of [channel.port1, channel.port2]) (port as { unref?: () => void }).unref?.();
/** A moment in which other messages are heard; faster than a timer. */
const breath = (): Promise<void> =>
  new Promise((resolve) => {
    waiting.push(resolve);
    (channel.port1 as { ref?: () => void }).ref?.();
    channel.port2.postMessage(0);
  });

/**
 * Does work in slices.
 * @param isWanted asked between slices
 * @param told hears how far it is, 0–1
 * @throws GivenUp once nobody wants it any more
 */
export async function inSlices<T>(work: InSteps<T>, isWanted: () => boolean, told?: (done: number) => void): Promise<T> {
  let until = performance.now() + SLICE_MS;
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    if (performance.now() < until) continue;
    told?.(value);
    await breath();
    if (!isWanted()) throw new GivenUp();
    until = performance.now() + SLICE_MS;
  }
}
