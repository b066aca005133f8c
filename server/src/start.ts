import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { makeApp } from './app.ts';
import { openStudio, type Studio } from './studio/studio.ts';

export interface Running {
  readonly address: string;
  readonly studio: Studio;
  readonly stop: () => Promise<void>;
}

/**
 * Opens the studio in `folder` and listens on 127.0.0.1.
 * @param port 0 takes any free one
 * @param pages folder of the built interface
 */
export async function startServer(folder: string, port: number, pages?: string): Promise<Running> {
  const studio = await openStudio(folder);
  const server = createServer(makeApp(studio, pages));
  await listen(server, port).catch(async (cause: unknown) => {
    await studio.close();
    throw cause;
  });
  const { port: taken } = server.address() as AddressInfo;
  return {
    address: `http://127.0.0.1:${taken}/`,
    studio,
    stop: async () => {
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      await studio.close();
    },
  };
}

const listen = (server: Server, port: number): Promise<void> =>
  new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
