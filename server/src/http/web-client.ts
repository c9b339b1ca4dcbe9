import { join } from 'node:path';
import express, { Router } from 'express';

/** Serves the built web client: hashed files for good, the page itself always fresh and for every address of the client. */
export const webClient = (dir: string): Router => {
  const router = Router();
  router.use(
    express.static(dir, {
      index: false,
      setHeaders: (response, path) => {
        response.setHeader('Cache-Control', /-[A-Z0-9]{8}\.\w+$/.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    }),
  );
  router.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(dir, 'index.html'));
  });
  return router;
};
