// A thread of its own that folds evidence, so that nothing else waits for it. Plain Node: it brings the loader of types along.
import { parentPort } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
const { foldAll } = await import('./fold.ts');
parentPort.on('message', (asked) => parentPort.postMessage(foldAll(asked)));
