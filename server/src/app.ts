import { constants } from 'node:zlib';
import compression from 'compression';
import express, { type Express, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Aside } from './aside/aside';
import type { Config } from './config';
import type { Pool } from './db/pool';
import { one } from './db/rows';
import { noSuchRoute, problemHandler } from './http/problem';
import { rateOfAll, rateOfStrangers } from './http/rate';
import { requestLog } from './http/request-log';
import type { Turns } from './http/turns';
import { webClient } from './http/web-client';
import { ledgerRoutes } from './ledger/routes';
import { archiveRoutes } from './archive/routes';
import { benchRoutes } from './bench/routes';
import { fileRoutes } from './files/routes';
import { fromOwnPage, sessions } from './http/session';
import type { InstrumentHub } from './instruments/hub';
import { instrumentRoutes } from './instruments/routes';
import { liveRoutes } from './live/routes';
import type { Live } from './live/live';
import { peopleRoutes } from './accounts/routes';
import { planRoutes } from './plan/routes';
import { recordRoutes } from './record/routes';

export interface AppParts extends Pick<Config, 'limits' | 'trustProxy' | 'publicUrl'> {
  readonly pool: Pool;
  readonly log: Logger;
  readonly version: string;
  /** signs sessions and tokens; the same for every process on one database */
  readonly secret: string;
  readonly live: Live;
  readonly aside: Aside;
  readonly turns: Turns;
  readonly instruments: InstrumentHub;
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

/** Packed a tenth larger, a record of 30 000 parts is packed in a sixth of the time. */
const QUICKLY = { level: 1, brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } } };

const isStream = (response: Response): boolean => String(response.getHeader('Content-Type')).startsWith('text/event-stream');

const HALF_A_YEAR_S = 183 * 24 * 3600;

/** The application, built without listening. */
export const buildApp = ({ pool, log, version, webDir, secret, live, aside, turns, instruments, ...settings }: AppParts): Express => {
  const { limits, trustProxy, publicUrl } = settings;
  const isHttps = publicUrl?.protocol === 'https:';
  const app = express();
  app.set('trust proxy', typeof trustProxy === 'object' && trustProxy !== null ? [...trustProxy] : (trustProxy ?? false));
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: CONTENT_SECURITY,
      strictTransportSecurity: isHttps && { maxAge: HALF_A_YEAR_S, includeSubDomains: false },
    }),
  );
  app.use(requestLog(log));
  app.use(
    compression({
      // a stream must not wait for a compressor to fill
      filter: (request, response) => !isStream(response) && compression.filter(request, response),
      ...QUICKLY,
    }),
  );
  const session = sessions(pool, secret, log, isHttps);
  app.use(
    '/api',
    rateOfAll(limits.requests),
    // what a route says nothing of is stored by no browser
    (_request, response, next) => {
      response.set('Cache-Control', 'no-store');
      next();
    },
    session,
    rateOfStrangers(limits.requests),
    ({ session: { personId } }, _response, next) => {
      if (personId !== undefined) turns.see(personId);
      next();
    },
    fromOwnPage(secret, publicUrl),
  );
  app.get('/api/health', async (_request, response) => {
    await one(pool, 'select 1 as ok');
    response.json({ ok: true, version });
  });
  app.use(
    peopleRoutes(pool, secret, limits.failures),
    ledgerRoutes(pool, aside, turns),
    liveRoutes(pool, live),
    fileRoutes(pool),
    archiveRoutes(pool, aside, version),
    planRoutes(pool),
    benchRoutes(pool),
    instrumentRoutes(pool, instruments, live),
  );
  app.use(recordRoutes(pool, turns));
  app.use('/api', noSuchRoute);
  if (webDir !== null) app.use(webClient(webDir, session));
  app.use(noSuchRoute);
  app.use(problemHandler(log));
  return app;
};
