import { join } from 'node:path';
import { Router } from 'express';
import staticGzip from 'express-static-gzip';

/** Serves the built web client: hashed files for good, the page itself always fresh and for every address of the client. */
export const webClient = (dir: string): Router => {
  const router = Router();
  // the build packs its files once; packing them anew for every visitor would cost more than sending them
  router.use(
    staticGzip(dir, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        index: false,
        setHeaders: (response, path) => {
          const isForGood = /-[A-Z0-9]{8}\.\w+(?:\.br|\.gz)?$/.test(path);
          response.setHeader('Cache-Control', isForGood ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  router.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(dir, 'index.html'));
  });
  return router;
};
