import type { RequestHandler } from 'express';
import type { Logger } from 'pino';

/** One line in the log for every answered request to the API. */
export const requestLog =
  (log: Logger): RequestHandler =>
  (request, response, next) => {
    const started = performance.now();
    response.on('finish', () => {
      if (!request.originalUrl.startsWith('/api')) return;
      log.info(
        { method: request.method, url: request.originalUrl, status: response.statusCode, ms: Math.round(performance.now() - started) },
        'request',
      );
    });
    next();
  };
