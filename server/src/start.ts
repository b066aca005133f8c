import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Express } from 'express';
import { makeApp } from './app.ts';
import { copyDaily } from './settings/daily.ts';
import { bringRest, unfinished } from './cards/bringing.ts';
import type { Studio } from './change/studio.ts';
import type { Clock } from './file/clock.ts';
import { openStudio } from './studio/openStudio.ts';

export interface Running {
  readonly address: string;
  readonly studio: Studio;
  /** @returns whether all of the studio is in its one file, and nothing in a journal beside it */
  readonly stop: () => Promise<boolean>;
}

/** Bytes of an address with all that may be asked for in one: four hundred cards by their ids. */
const LONGEST_HEAD = 64 * 1024;

/**
 * Opens the studio in `folder` and listens on 127.0.0.1. The port is taken first: where that fails, no
 * studio is left behind; whoever asks before the studio is open waits.
 * @param port 0 takes any free one
 * @param pages folder of the built interface
 * @param clock what time it is, where that is not the machine's
 * @throws TroubleAtStart when the studio is not to be opened
 */
export async function startServer(folder: string, port: number, pages?: string, clock?: Clock): Promise<Running> {
  let open!: (app: Express) => void;
  const app = new Promise<Express>((resolve) => (open = resolve));
  const server = createServer({ maxHeaderSize: LONGEST_HEAD }, (request, response) => void app.then((serve) => serve(request, response)));
  await listen(server, port);
  const closeServer = (): Promise<void> => {
    server.closeAllConnections();
    return new Promise((done) => server.close(() => done()));
  };
  const studio = await openStudio(folder, clock).catch(async (cause: unknown) => {
    await closeServer();
    throw cause;
  });
  const copying = copyDaily(studio);
  studio.folding.goOn();
  // What a crash left of a file of cards comes now.
  const resting = (async () => {
    for (const { id } of await studio.look(unfinished)) await bringRest(studio, id);
  })().catch(() => undefined);
  open(makeApp(studio, pages));
  const { port: taken } = server.address() as AddressInfo;
  let stopped: Promise<boolean> | undefined;
  return {
    address: `http://127.0.0.1:${taken}/`,
    studio,
    stop: () =>
      (stopped ??= (async () => {
        await copying.stop();
        await resting;
        studio.hearing.close();
        await closeServer();
        return studio.close();
      })()),
  };
}

const listen = (server: Server, port: number): Promise<void> =>
  new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
