import type { Request, RequestHandler } from 'express';
import type { Logger } from 'pino';

/** The route that answered, without what stood in its address. */
export const routeOf = ({ method, baseUrl, route }: Request): string =>
  `${method} ${baseUrl}${(route as { readonly path?: string } | undefined)?.path ?? ' nowhere'}`;

/** One line in the log for every answered request to the API: which route, not which record. */
export const requestLog =
  (log: Logger): RequestHandler =>
  (request, response, next) => {
    const started = performance.now();
    response.on('finish', () => {
      if (!request.originalUrl.startsWith('/api')) return;
      log.info({ route: routeOf(request), status: response.statusCode, ms: Math.round(performance.now() - started) }, 'request');
    });
    next();
  };
