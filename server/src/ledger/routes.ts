import type { RequestHandler, Response, Router } from 'express';
import { isUuid } from '@each-bolt/core/shared';
import type { Pool } from '../db/pool';
import type { Aside } from '../aside/aside';
import { fewAtOnce } from '../http/few-at-once';
import { jsonBytes } from '../http/json';
import { Problem } from '../http/problem';
import { personOf, routed, studyIdOf } from '../http/routes';
import type { Turns } from '../http/turns';
import { roleIn } from '../people/queries';
import { studyHead } from '../record/queries';
import { refuseRole } from './keep-change';
import { changeText, changeTextsBefore, changeTextsSince, changesOfPerson, type ChangeText } from './queries';
import { takeChange } from './take-change';

/** A change that was sent in more bytes than this is read, checked and kept aside: it takes longer than others should wait. */
const HERE_BYTES = 64 * 1024;
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

/** Lets those through who may change anything of the study at all, before what they send is looked at. */
const mayChange =
  (pool: Pool): RequestHandler =>
  async (request, response, next) => {
    const studyId = studyIdOf(request.params);
    const person = personOf(response);
    const isThere = (await studyHead(pool, studyId)) !== null;
    refuseRole(isThere ? await roleIn(pool, studyId, person.id) : person.standing === 'lead' ? 'lead' : null, !isThere);
    next();
  };

/** Answers with a list of changes that the database wrote as JSON. */
const listOf = (response: Response, changes: readonly ChangeText[]): void => {
  response.type('json').end(`[${changes.map(({ text }) => text).join(',')}]`);
};

/** The ledger: changes in, changes out, the history, and what a person can undo. */
export const ledgerRoutes = (pool: Pool, aside: Aside, turns: Turns): Router => {
  const { router, on } = routed(pool);
  const read = <T>(response: Response, act: () => Promise<T>): Promise<T> => turns.of(personOf(response).id, 'read', act);
  on('POST /api/studies/:id/changes', mayChange(pool), jsonBytes, async (request, response) => {
    const studyId = studyIdOf(request.params);
    const person = personOf(response);
    const device = (request.get('X-Device') ?? 'unnamed').slice(0, 100);
    const maker = { person, name: person.name, device };
    const bytes: Uint8Array = Buffer.isBuffer(request.body) ? request.body : new Uint8Array();
    const kept = await (bytes.length <= HERE_BYTES
      ? takeChange(pool, studyId, bytes, maker)
      : aside.run('change', person.id, { studyId, bytes, maker }, bytes));
    response.status(kept.repeated ? 200 : 201).json({ id: kept.id, revision: kept.revision });
  });
  on('GET /api/studies/:id/changes', fewAtOnce, async (request, response) => {
    const since = revisionOf(request.query.since ?? '0', 'since');
    listOf(response, await read(response, () => changeTextsSince(pool, studyIdOf(request.params), since, MOST_CHANGES)));
  });
  on('GET /api/studies/:id/changes/:change', fewAtOnce, async (request, response) => {
    const id = request.params.change;
    const change = isUuid(id) ? await read(response, () => changeText(pool, studyIdOf(request.params), id)) : null;
    if (change === null) throw new Problem('not-found', 'There is no such change');
    response.type('json').end(change);
  });
  on('GET /api/studies/:id/history', fewAtOnce, async (request, response) => {
    const before = request.query.before === undefined ? Number.MAX_SAFE_INTEGER : revisionOf(request.query.before, 'before');
    const rows = rowsOf(request.query.rows);
    const of = (): Promise<readonly ChangeText[]> =>
      changeTextsBefore(pool, studyIdOf(request.params), before, rows.length > 0 ? rows : null, PAGE);
    listOf(response, await read(response, of));
  });
  on('GET /api/studies/:id/mine', async (request, response) => {
    response.json(await changesOfPerson(pool, studyIdOf(request.params), personOf(response).id));
  });
  return router;
};
