import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Request, Router } from 'express';
import type { Op } from '@each-bolt/core/record';
import type { Aside } from '../aside/aside';
import type { Pool } from '../db/pool';
import { Problem } from '../http/problem';
import { personOf, routed, studyIdOf } from '../http/routes';
import { sendSteadily } from '../http/send-steadily';
import { keepChange } from '../ledger/keep-change';
import { roleIn } from '../people/queries';
import { studyHead } from '../record/queries';
import { studyById } from '../record/read-record';
import { Spool } from './spool';

/** Largest archive that is taken, bytes. */
const MOST_BYTES = 1024 * 1024 * 1024;

const tooLarge = (): Problem => new Problem('too-large', 'The archive is larger than 1 GB. Nothing was written');

/** Puts the body of a request into a file, as far as the limit allows. */
const saveBody = async (request: Request, path: string): Promise<void> => {
  if (Number(request.get('Content-Length') ?? 0) > MOST_BYTES) throw tooLarge();
  let bytes = 0;
  const counted = new Transform({
    transform: (part: Buffer, _encoding, next) => {
      bytes += part.length;
      if (bytes > MOST_BYTES) next(tooLarge());
      else next(null, part);
    },
  });
  await pipeline(request, counted, createWriteStream(path));
};

const fileName = (title: string): string =>
  title
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase() || 'study';

/** A whole study out as an archive, and in again. */
export const archiveRoutes = (pool: Pool, aside: Aside, program: string): Router => {
  const { router, on } = routed(pool);
  const spool = new Spool();
  on('GET /api/studies/:id/archive', async (request, response) => {
    const studyId = studyIdOf(request.params);
    const study = await studyById(pool, studyId);
    if (!study) throw new Problem('not-found', 'There is no such study');
    const head = await studyHead(pool, studyId);
    const write = async (path: string): Promise<void> => {
      await aside.run('archive out', personOf(response).id, { studyId, program, path });
    };
    await spool.through(`${studyId} ${head?.revision}`, write, async (content) => {
      response.set({
        'Content-Type': 'application/zip',
        'Content-Disposition': `attachment; filename="${fileName(study.title)}.zip"`,
        'Cache-Control': 'no-store',
      });
      await sendSteadily(response, content);
    });
  });
  on('POST /api/archives', async (request, response) => {
    const dir = await mkdtemp(join(tmpdir(), 'archive-'));
    try {
      const path = join(dir, 'sent.zip');
      await saveBody(request, path);
      const person = personOf(response);
      const taken = await aside.run('archive in', person.id, { path });
      // whoever brings a study in can open it
      if ((await roleIn(pool, taken.studyId, person.id)) === null) {
        const join: Op = { kind: 'member.add', id: randomUUID(), fields: { personId: person.id, role: 'lead' } };
        const change = { id: randomUUID(), ops: [join], undoes: null };
        await keepChange(pool, taken.studyId, change, { person: null, name: person.name, device: 'brought in from an archive' });
      }
      response.status(201).json(taken);
    } finally {
      await rm(dir, { recursive: true, force: true });
    }
  });
  return router;
};
