import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import packed from 'express-static-gzip';
import express, { type Express, type Request } from 'express';
import helmet from 'helmet';
import { pino, type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { localOnly } from './refusing/localOnly.ts';
import { ProblemError, problemHandler } from './refusing/problems.ts';
import { apiRoutes } from './routes/api.ts';
import type { Studio } from './change/studio.ts';
import { EVENTS } from '@dusk/wire/reads';

const PAGE_RULES = helmet({
  strictTransportSecurity: false,
  contentSecurityPolicy: {
    directives: {
      'default-src': ["'self'"],
      'script-src': ["'self'"],
      'style-src': ["'self'", "'unsafe-inline'"],
      'img-src': ["'self'", 'blob:', 'data:'],
      'worker-src': ["'self'", 'blob:'],
      'upgrade-insecure-requests': null,
    },
  },
});

/** The server over an open studio. `pages` is the folder of the built interface, if it is to be served. */
export function makeApp(studio: Studio, pages?: string, log: Logger = pino({ level: 'warn' })): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(pinoHttp({ logger: log, autoLogging: false }));
  app.use(helmet.noSniff(), helmet.crossOriginResourcePolicy());
  app.use(localOnly);
  // What is heard as it happens must not wait in a packer.
  app.use(
    compression({
      filter: (request, response) => !(request as Request).originalUrl.startsWith(`/api${EVENTS}`) && compression.filter(request, response),
    }),
  );
  app.use('/api', express.json({ limit: '1mb' }), apiRoutes(studio, pages));
  if (pages && existsSync(pages)) {
    app.use(
      '/assets',
      packed(join(pages, 'assets'), {
        enableBrotli: true,
        orderPreference: ['br'],
        index: false,
        serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
      }),
    );
    // What a page may do is said with the page; each of its parts need not carry it again.
    app.use(PAGE_RULES);
    app.use(express.static(pages, { maxAge: 0 }));
    app.get('/{*path}', (_, response) => response.sendFile(join(pages, 'index.html')));
  }
  app.use(() => {
    throw new ProblemError(404, 'Not found', 'There is nothing here.');
  });
  app.use(problemHandler);
  return app;
}
