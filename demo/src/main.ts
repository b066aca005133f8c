import { runServer } from '@dusk/server/main';
import { fillStudio } from './fill.ts';

await runServer('studio/demo', async ({ studio }) => {
  if (await fillStudio(studio)) console.log('The sample studio is laid out.');
});
