import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startServer, type Running } from './start.ts';

const USUAL_PORT = 4270;
const PAGES = fileURLToPath(new URL('../../web/dist', import.meta.url));

function portFromEnvironment(): number {
  const { PORT } = process.env;
  if (PORT === undefined || PORT === '') return USUAL_PORT;
  const port = Number(PORT);
  if (Number.isInteger(port) && port >= 0 && port <= 65535) return port;
  throw new Error(`PORT must be a number from 0 to 65535; it is ${JSON.stringify(PORT)}.`);
}

function sentence(cause: unknown, folder: string): string {
  const { code, message } = cause as NodeJS.ErrnoException;
  if (code === 'EADDRINUSE') return 'The port is taken: another Auburn Dusk may be open. Choose one with PORT=…';
  if (code === 'EACCES' || code === 'EROFS') return `The folder ${folder} cannot be written; choose another with DUSK_DATA=…`;
  return message;
}

/**
 * Runs the server until it is told to stop. `PORT` chooses the port, `DUSK_DATA` the folder.
 * @param usualFolder where the studio lies when `DUSK_DATA` does not say
 * @param prepare runs once the studio is open, before the address is printed
 */
export async function runServer(usualFolder: string, prepare?: (running: Running) => Promise<void>): Promise<void> {
  const folder = resolve(process.env['DUSK_DATA'] || usualFolder);
  try {
    const running = await startServer(folder, portFromEnvironment(), PAGES);
    await prepare?.(running);
    console.log(`Auburn Dusk is open at ${running.address} (studio in ${folder}; stop with Ctrl+C)`);
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void running.stop().then(() => process.exit(0)));
  } catch (cause) {
    console.error(sentence(cause, folder));
    process.exitCode = 1;
  }
}
