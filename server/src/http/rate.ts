import type { Request, RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { Problem } from './problem';
import { whenOver } from './when-over';

/** Counted over so long: a whole minute’s requests at once would keep others waiting. */
const WINDOW_MS = 10_000;
const WINDOWS_PER_MINUTE = 6;
/** What is above the limit is refused after so long: answered at once, whoever asks without end would ask all the more. */
const REFUSED_AFTER_MS = 1000;
/** Whoever is not signed in needs few requests. */
const STRANGERS_SHARE = 0.1;

/** So many requests an address may make a minute, as far as they are counted. */
const atMost = (perMinute: number, skip: (request: Request) => boolean): RequestHandler =>
  rateLimit({
    windowMs: WINDOW_MS,
    limit: Math.ceil(perMinute / WINDOWS_PER_MINUTE),
    skip,
    validate: { trustProxy: false, xForwardedForHeader: false },
    handler: (_request, response, next) => {
      const refuse = (): void => {
        next(new Problem('too-many', 'Too many requests from this address; wait ten seconds. Nothing was written'));
      };
      const refusing = setTimeout(refuse, REFUSED_AFTER_MS);
      whenOver(response, () => clearTimeout(refusing));
    },
  });

/** The limit of an address for all who are there, before it is looked who they are. */
export const rateOfAll = (perMinute: number): RequestHandler => atMost(perMinute, () => false);

/** The limit of an address for those who are not signed in; comes after the sessions. */
export const rateOfStrangers = (perMinute: number): RequestHandler =>
  atMost(perMinute * STRANGERS_SHARE, ({ session }) => session.personId !== undefined);
