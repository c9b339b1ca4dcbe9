import type { Router } from 'express';
import { isUuid } from '@each-bolt/core/shared';
import { readChange } from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { largeJson } from '../http/json';
import { Problem } from '../http/problem';
import { personOf, routed, studyIdOf } from '../http/routes';
import { keepChange } from './keep-change';
import { changeOf, changesBefore, changesOfPerson, changesOfRows, changesSince } from './queries';

const MOST_CHANGES = 1000;
const PAGE = 100;
const MOST_ROWS = 500;

/** A revision in a query: a whole number from 0. */
export const revisionOf = (text: unknown, name: string): number => {
  const revision = typeof text === 'string' && /^\d{1,15}$/.test(text) ? Number(text) : Number.NaN;
  if (!(revision >= 0)) throw new Problem('malformed', `${name} must be a revision: a whole number from 0`);
  return revision;
};

const rowsOf = (text: unknown): readonly string[] => {
  if (typeof text !== 'string' || text === '') return [];
  const ids = text.split(',');
  if (ids.length > MOST_ROWS || !ids.every(isUuid))
    throw new Problem('malformed', `rows must be at most ${MOST_ROWS} record ids with commas between them`);
  return ids;
};

/** The ledger: changes in, changes out, the history, and what a person can undo. */
export const ledgerRoutes = (pool: Pool): Router => {
  const { router, on } = routed(pool);
  on('POST /api/studies/:id/changes', largeJson, async (request, response) => {
    const studyId = studyIdOf(request.params);
    const read = readChange(request.body as unknown);
    if (!read.ok) throw new Problem('invalid', 'The change has faults. Nothing was written', read.issues);
    const person = personOf(response);
    const device = (request.get('X-Device') ?? 'unnamed').slice(0, 100);
    const kept = await keepChange(pool, studyId, read.value, { person, name: person.name, device });
    response.status(kept.repeated ? 200 : 201).json({ id: kept.id, revision: kept.revision });
  });
  on('GET /api/studies/:id/changes', async (request, response) => {
    response.json(await changesSince(pool, studyIdOf(request.params), revisionOf(request.query.since ?? '0', 'since'), MOST_CHANGES));
  });
  on('GET /api/studies/:id/changes/:change', async (request, response) => {
    const id = request.params.change;
    const change = isUuid(id) ? await changeOf(pool, studyIdOf(request.params), id) : null;
    if (!change) throw new Problem('not-found', 'There is no such change');
    response.json(change);
  });
  on('GET /api/studies/:id/history', async (request, response) => {
    const studyId = studyIdOf(request.params);
    const before = request.query.before === undefined ? Number.MAX_SAFE_INTEGER : revisionOf(request.query.before, 'before');
    const rows = rowsOf(request.query.rows);
    response.json(
      rows.length > 0 ? await changesOfRows(pool, studyId, rows, before, PAGE) : await changesBefore(pool, studyId, before, PAGE),
    );
  });
  on('GET /api/studies/:id/mine', async (request, response) => {
    response.json(await changesOfPerson(pool, studyIdOf(request.params), personOf(response).id));
  });
  return router;
};
