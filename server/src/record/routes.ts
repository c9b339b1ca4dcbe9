import { Readable } from 'node:stream';
import type { Router } from 'express';
import type { Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { Problem } from '../http/problem';
import { fewAtOnce } from '../http/few-at-once';
import { opsOf } from '../http/roles';
import { personOf, roleOf, routed, studyIdOf } from '../http/routes';
import { doing } from '../http/request-log';
import { sendSteadily } from '../http/send-steadily';
import type { Turns } from '../http/turns';
import { studyHead, studyLines } from './queries';
import { readRecordText, recordJson } from './read-record';

/** The list of studies, and the whole record of one. */
export const recordRoutes = (pool: Pool, turns: Turns): Router => {
  const { router, on } = routed(pool);
  on('GET /api/studies', async (_request, response) => {
    response.json(await studyLines(pool, personOf(response).id));
  });
  on('GET /api/studies/:id', fewAtOnce, async (request, response) => {
    const studyId = studyIdOf(request.params);
    const head = await studyHead(pool, studyId);
    if (head === null) throw new Problem('not-found', 'There is no such study');
    response
      .set('Cache-Control', 'no-cache')
      .set('X-Role', roleOf(response))
      .set('X-May', opsOf(roleOf(response)).join(' '));
    if (request.get('If-None-Match') === `"${head.revision}"`) {
      response.status(304).end();
      return;
    }
    doing(response, 'waits for its turn');
    const record = await turns.of(personOf(response).id, 'read', () => {
      doing(response, 'waits for a connection to the database');
      return transaction(pool, (db) => {
        doing(response, 'reads the record');
        return readRecordText(db, studyId);
      });
    });
    doing(response, 'sends the record');
    if (!record) throw new Problem('not-found', 'There is no such study');
    response.set('ETag', `"${record.revision}"`).type('json');
    await sendSteadily(response, Readable.from(recordJson(record), { objectMode: false }));
  });
  return router;
};
