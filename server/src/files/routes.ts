import { Readable } from 'node:stream';
import express, { type Router } from 'express';
import type { RequestHandler } from 'express';
import { MOST_SCAN_BYTES } from '@each-bolt/core/shared';
import type { Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { Problem } from '../http/problem';
import { routed, studyIdOf } from '../http/routes';
import { sendSteadily } from '../http/send-steadily';
import { readPicture } from './picture';
import { insertFile, linkFile, fileOf, stretchesOf, thumbnailOf } from './queries';
import { readScan } from './scan-file';

const hashOf = (text: unknown): string => {
  if (typeof text !== 'string' || !/^[0-9a-f]{64}$/.test(text))
    throw new Problem('not-found', 'There is no such file: a file is named by its SHA-256');
  return text;
};

const bytes = express.raw({ type: () => true, limit: MOST_SCAN_BYTES }) as RequestHandler;

const isScan = (contentType: string | undefined): boolean => contentType?.startsWith('model/') ?? false;

/** A browser keeps it, for this session alone: the next person at the device gets nothing from its cache. */
const GOOD_FOR_EVER = 'private, max-age=31536000, immutable';

/** Pictures and scans in and out, by content hash. */
export const fileRoutes = (pool: Pool): Router => {
  const { router, on } = routed(pool);
  on('PUT /api/studies/:id/files/:sha256', bytes, async (request, response) => {
    const studyId = studyIdOf(request.params);
    const sha256 = hashOf(request.params.sha256);
    const sent: unknown = request.body;
    if (!Buffer.isBuffer(sent)) throw new Problem('malformed', 'The request holds no file. Nothing was written');
    const contentType = request.headers['content-type'];
    const file = isScan(contentType) ? readScan(sent, `scan.${contentType?.slice('model/'.length) ?? ''}`) : await readPicture(sent);
    if (file.sha256 !== sha256)
      throw new Problem(
        'invalid',
        'The file is not the one its address names; it was damaged on the way. Nothing was written, send it again',
      );
    await transaction(pool, async (db) => {
      await insertFile(db, file);
      await linkFile(db, studyId, sha256);
    });
    response.status(201).json({ sha256, widthPx: file.widthPx, heightPx: file.heightPx });
  });
  on('GET /api/studies/:id/files/:sha256', async (request, response) => {
    const sha256 = hashOf(request.params.sha256);
    const file = await fileOf(pool, studyIdOf(request.params), sha256);
    if (!file) throw new Problem('not-found', 'There is no such file in this study');
    response
      .set({ 'Content-Type': file.mediaType, 'Cache-Control': GOOD_FOR_EVER, 'Content-Disposition': 'inline' })
      .set('Content-Length', String(file.bytes))
      .vary('Cookie');
    await sendSteadily(response, Readable.from(stretchesOf(pool, sha256), { objectMode: false }));
  });
  on('GET /api/studies/:id/files/:sha256/thumbnail', async (request, response) => {
    const file = await thumbnailOf(pool, studyIdOf(request.params), hashOf(request.params.sha256));
    if (!file) throw new Problem('not-found', 'There is no such file in this study');
    response.set({ 'Content-Type': 'image/jpeg', 'Cache-Control': GOOD_FOR_EVER }).vary('Cookie').send(file.thumbnail);
  });
  return router;
};
