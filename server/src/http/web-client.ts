import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Router, type RequestHandler } from 'express';
import staticGzip from 'express-static-gzip';

/** Names of the program’s files that an opened study needs at once, as the build found them. */
const AHEAD = 'ahead.json';

const filesAhead = (dir: string): readonly string[] => {
  const path = join(dir, AHEAD);
  // a client built without it only opens later
  if (!existsSync(path)) return [];
  const named: unknown = JSON.parse(readFileSync(path, 'utf8'));
  if (!Array.isArray(named) || !named.every((name) => typeof name === 'string')) throw new Error(`${path} must be a list of file names`);
  return named;
};

const STUDY = /^\/studies\/([0-9a-f-]{36})(\/bench)?\/?$/;

const asked = (url: string): string => `<${url}>; rel=preload; as=fetch; crossorigin`;

/**
 * What the browser may fetch while it still reads the page: who is signed in, the study of the address, the files of its first view.
 * Of somebody who is not signed in no study: the refusal would be kept, and shown after they signed in.
 */
const linksFor = (
  { path, session }: { readonly path: string; readonly session?: { readonly personId?: string } },
  files: readonly string[],
): readonly string[] => {
  const [, study] = STUDY.exec(path) ?? [];
  // without a database there is no session either, and the page still comes
  if (study === undefined || session?.personId === undefined) return [asked('/api/me')];
  const [main, ...others] = files.map((file) => `</${file}>; rel=modulepreload`);
  // the browser asks in this order, six at a time: what the page begins with, what takes the server longest, the rest
  return [main, asked(`/api/studies/${study}`), asked('/api/me'), ...others].filter((link) => link !== undefined);
};

/** Serves the built web client: hashed files for good, the page itself always fresh and for every address of the client; `session` says who asks for it. */
export const webClient = (dir: string, session: RequestHandler): Router => {
  const router = Router();
  const ahead = filesAhead(dir);
  // the build packs its files once; packing them anew for every visitor would cost more than sending them
  router.use(
    staticGzip(dir, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        index: false,
        setHeaders: (response, path) => {
          const isForGood = /-[\w-]{8}\.\w+(?:\.br|\.gz)?$/.test(path);
          response.setHeader('Cache-Control', isForGood ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  // the page is served whatever becomes of the database: it has its own copy of the studies
  const asWhom: RequestHandler = (request, response, next) => session(request, response, () => next());
  router.get('/{*path}', asWhom, (request, response) => {
    response.set({ 'Cache-Control': 'no-cache', Link: linksFor(request, ahead).join(', ') }).sendFile(join(dir, 'index.html'));
  });
  return router;
};
