import type { Request, RequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { whenOver } from './when-over';

/** The route that answered, without what stood in its address. */
export const routeOf = ({ method, baseUrl, route }: Request): string =>
  `${method} ${baseUrl}${(route as { readonly path?: string } | undefined)?.path ?? ' nowhere'}`;

interface Locals {
  /** what is done for the request just now, in words */
  doing?: string;
}

/** Notes what is done for a request from here on: the log tells it of one that is not answered for long. */
export const doing = (response: Response, what: string): void => {
  (response.locals as Locals).doing = what;
};

/** A request that is not answered for so long is told in the log. */
const LONG_MS = 20_000;

const isStream = (response: Response): boolean => response.headersSent && String(response.getHeader('Content-Type')).startsWith('text/event-stream'); // prettier-ignore

/** One line in the log for every answered request to the API: which route, not which record. */
export const requestLog =
  (log: Logger): RequestHandler =>
  (request, response, next) => {
    const started = performance.now();
    const watch = setInterval(() => {
      if (isStream(response)) clearInterval(watch);
      else
        log.warn(
          { route: routeOf(request), doing: (response.locals as Locals).doing, ms: Math.round(performance.now() - started) },
          'not answered yet',
        );
    }, LONG_MS);
    watch.unref();
    whenOver(response, () => clearInterval(watch));
    response.on('finish', () => {
      if (!request.originalUrl.startsWith('/api')) return;
      log.info({ route: routeOf(request), status: response.statusCode, ms: Math.round(performance.now() - started) }, 'request');
    });
    next();
  };
