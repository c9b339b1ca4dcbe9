import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Pool } from './db/pool';
import { one } from './db/rows';
import { noSuchRoute, problemHandler } from './http/problem';
import { requestLog } from './http/request-log';
import { webClient } from './http/web-client';
import { ledgerRoutes } from './ledger/routes';
import { recordRoutes } from './record/routes';

export interface AppParts {
  readonly pool: Pool;
  readonly log: Logger;
  readonly version: string;
  /** folder of the built web client, or null for the API alone */
  readonly webDir: string | null;
}

const CONTENT_SECURITY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
    workerSrc: ["'self'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    styleSrcAttr: ["'unsafe-inline'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    fontSrc: ["'self'"],
    connectSrc: ["'self'"],
    objectSrc: ["'none'"],
    baseUri: ["'self'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
  },
};

/** The application, built without listening. */
export const buildApp = ({ pool, log, version, webDir }: AppParts): Express => {
  const app = express();
  app.disable('x-powered-by');
  app.use(helmet({ contentSecurityPolicy: CONTENT_SECURITY, strictTransportSecurity: false }));
  app.use(requestLog(log));
  app.use(compression());
  app.get('/api/health', async (_request, response) => {
    await one(pool, 'select 1 as ok');
    response.json({ ok: true, version });
  });
  app.use('/api/studies', ledgerRoutes(pool), recordRoutes(pool));
  app.use('/api', noSuchRoute);
  if (webDir !== null) app.use(webClient(webDir));
  app.use(noSuchRoute);
  app.use(problemHandler(log));
  return app;
};
