import { runServer } from './main.ts';

await runServer('studio/own');
