import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import type { RequestHandler, Response } from 'express';
import session from 'express-session';
import type { Logger } from 'pino';
import type { Pool } from '../db/pool';
import { Problem } from './problem';

declare module 'express-session' {
  interface SessionData {
    personId: string;
  }
}

const DAYS_30_MS = 30 * 24 * 3600 * 1000;
const COOKIE = 'eachbolt';

/** A fresh secret for sessions; the database keeps the first one. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/** Sessions kept in PostgreSQL; the cookie is closed to scripts and to other sites. */
export const sessions = (pool: Pool, secret: string, log: Logger, isHttps: boolean): RequestHandler => {
  const Store = connectPgSimple(session);
  return session({
    name: COOKIE,
    secret,
    store: new Store({
      pool,
      tableName: 'session',
      pruneSessionInterval: false,
      errorLog: (...said) => log.warn({ said: said.map(String) }, 'sessions'),
    }),
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: isHttps ? true : 'auto', maxAge: DAYS_30_MS },
  });
};

const tokenOf = (secret: string, sid: string): string => createHmac('sha256', secret).update(`csrf ${sid}`).digest('base64url');

const same = (a: string, b: string): boolean => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

/** Gives the page the token it must send with every change; only a page of this origin can read the cookie it comes in. */
export const giveToken = (response: Response, secret: string, sid: string): void => {
  response.cookie('XSRF-TOKEN', tokenOf(secret, sid), { sameSite: 'strict', secure: response.req.secure, path: '/', maxAge: DAYS_30_MS });
};

/**
 * The key that seals what an account leaves unsent on a device when it signs out: only who signs in to it is given it again.
 *
 * @returns 32 bytes in base64, the same for an account for as long as the organisation keeps its secret
 */
export const sealOf = (secret: string, personId: string): string =>
  createHmac('sha256', secret).update(`seal ${personId}`).digest('base64');

const hostOf = (origin: string): string | null => (URL.canParse(origin) ? new URL(origin).host : null);

const refuse = (): never => {
  throw new Problem('cross-site', 'The request did not come from a page of this program. Nothing was written; load the page again');
};

/** Lets requests that change something through only when they come from a page of this origin, and carry its token once signed in. */
export const fromOwnPage =
  (secret: string, publicUrl: URL | null): RequestHandler =>
  (request, _response, next) => {
    if (request.method === 'GET' || request.method === 'HEAD') {
      next();
      return;
    }
    const [site, origin] = [request.get('Sec-Fetch-Site'), request.get('Origin')];
    if (site !== undefined && site !== 'same-origin' && site !== 'none') refuse();
    if (origin !== undefined && hostOf(origin) !== request.host && hostOf(origin) !== publicUrl?.host) refuse();
    if (request.session.personId !== undefined && !same(request.get('X-XSRF-TOKEN') ?? '', tokenOf(secret, request.sessionID))) refuse();
    next();
  };
