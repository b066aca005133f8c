import { fileURLToPath } from 'node:url';
import { dataFolder } from './file/places.ts';
import { inWords, TroubleAtStart } from './file/trouble.ts';
import { startServer, type Running } from './start.ts';

const USUAL_PORT = 4270;
const PAGES = fileURLToPath(new URL('../../web/dist', import.meta.url));

function portFromEnvironment(): number {
  const { PORT } = process.env;
  if (PORT === undefined || PORT === '') return USUAL_PORT;
  const port = Number(PORT);
  if (Number.isInteger(port) && port >= 0 && port <= 65535) return port;
  throw new TroubleAtStart(`PORT must be a number from 0 to 65535; it is ${JSON.stringify(PORT)}. Nothing was opened.`);
}

/**
 * Runs the server until it is told to stop; it then closes the studio, however often it is told. `PORT`
 * chooses the port, `DUSK_DATA` the folder.
 * @param usualFolder where the studio lies when `DUSK_DATA` does not say
 * @param prepare runs once the studio is open, before the address is printed
 */
export async function runServer(usualFolder: string, prepare?: (running: Running) => Promise<void>): Promise<void> {
  const folder = dataFolder(usualFolder);
  let told = false;
  let running: Running | undefined;
  const stop = (): void => {
    told = true;
    // While it is still opening, it is closed once it is open.
    void running?.stop().then((isInOneFile) => {
      if (!isInOneFile)
        console.error(
          `The disk that holds ${folder} is full: what was done last lies in the journal beside the studio. Leave it there; it is taken in at the next start.`,
        );
      process.exit(0);
    });
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) {
    const before = process.listeners(signal);
    // There is somebody who listens at every moment: a signal that came while nobody did would be lost.
    process.on(signal, stop);
    for (const listener of before) process.off(signal, listener);
  }
  try {
    running = await startServer(folder, portFromEnvironment(), PAGES);
    if (!told) await prepare?.(running);
    if (told) return stop();
    if (running.studio.isFull)
      console.error(`The disk that holds ${folder} is full: all is there to be read, and nothing new is kept until there is room.`);
    console.log(`Auburn Dusk is open at ${running.address} (studio in ${folder}; stop with Ctrl+C)`);
  } catch (cause) {
    await running?.stop();
    console.error(inWords(cause, folder));
    process.exit(told ? 0 : 1);
  }
}
