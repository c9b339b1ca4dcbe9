import { Router } from 'express';
import { object, string } from 'yup';
import { check } from '@each-bolt/core/shared';
import { readChange } from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { json } from '../http/json';
import { Problem } from '../http/problem';
import { studyRevision } from '../record/queries';
import { keepChange } from './keep-change';
import { changesSince } from './queries';

const STUDY_ID = object({ id: string().uuid('The study id must be a UUID').required() });

/** The study id of the address, checked. */
export const studyIdOf = (params: { readonly id?: string | undefined }): string => {
  const checked = check(STUDY_ID, { id: params.id });
  if (!checked.ok) throw new Problem('not-found', 'There is no such study');
  return checked.value.id;
};

const MOST_CHANGES = 1000;

const sinceOf = (text: unknown): number => {
  const since = typeof text === 'string' && /^\d{1,15}$/.test(text) ? Number(text) : Number.NaN;
  if (!(since >= 0)) throw new Problem('malformed', 'since must be a revision: a whole number from 0');
  return since;
};

/** POST and GET /api/studies/:id/changes */
export const ledgerRoutes = (pool: Pool): Router => {
  const router = Router();
  router.post('/:id/changes', json, async (request, response) => {
    const studyId = studyIdOf(request.params);
    const read = readChange(request.body as unknown);
    if (!read.ok) throw new Problem('invalid', 'The change has faults. Nothing was written', read.issues);
    const device = (request.get('X-Device') ?? 'unnamed').slice(0, 100);
    const kept = await keepChange(pool, studyId, read.value, { madeBy: 'local user', device });
    response.status(kept.repeated ? 200 : 201).json({ id: kept.id, revision: kept.revision });
  });
  router.get('/:id/changes', async (request, response) => {
    const studyId = studyIdOf(request.params);
    const since = sinceOf(request.query.since ?? '0');
    if ((await studyRevision(pool, studyId)) === null) throw new Problem('not-found', 'There is no such study');
    response.json(await changesSince(pool, studyId, since, MOST_CHANGES));
  });
  return router;
};
