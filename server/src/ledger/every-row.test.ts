import { randomUUID } from 'node:crypto';
import {
  ENTITIES,
  LIST_OF,
  REFERENCES,
  editTo,
  fieldsOf,
  inverseOps,
  namedRows,
  netEffect,
  removalOps,
  removeOp,
  rowsOf,
  type Entity,
  type FieldsOf,
  type Op,
  type RowOf,
  type StudyRecord,
} from '@each-bolt/core/record';
import { BARE_ROWS, FULL_ROWS, MESH_SHA256, PERSON_ID, ROW_ID, SHA256 } from '../../../core/testing/rows';
import { Api, type Problem } from '../../testing/api';
import { pngOf, sha256 } from '../../testing/pictures';
import { testDatabase } from '../../testing/test-database';
import type { Pool } from '../db/pool';
import { boxesMesh, stlOf } from '../demo/demo-meshes';
import type { Store } from '../db/store';
import { STORES } from '../db/stores';

const MESH = stlOf(boxesMesh([[0, 0, 0, 118, 42, 86]]));
const KINDS = ENTITIES.filter((entity): entity is Exclude<Entity, 'study'> => entity !== 'study');
/** what an instrument said, what was printed and what was signed is never changed: it is corrected by another, or taken off */
const FINAL: readonly Entity[] = ['reading', 'sheet', 'signOff'];
const EDITABLE = ENTITIES.filter((entity) => !FINAL.includes(entity));
/** what still holds others is not taken off, and a study keeps its lead */
const HELD = new Set<Entity>(REFERENCES.filter(({ whenGone }) => whenGone === 'refuse').map(({ to }) => to));
const OFF = KINDS.filter((entity) => !HELD.has(entity) && entity !== 'member');
const studyId = ROW_ID.study;

let api: Api;
let drop: () => Promise<void>;
let pool: Pool;
/** the sample rows, with the person and the files that this database has */
let full: FieldsOf;
let bare: FieldsOf;

const put = async (bytes: Uint8Array, type: string): Promise<void> => {
  const answer = await api.raw(`/api/studies/${studyId}/files/${sha256(bytes)}`, {
    method: 'PUT',
    headers: { 'Content-Type': type },
    body: new Uint8Array(bytes),
  });
  expect(answer.status).toBeLessThan(300);
};
const send = async (ops: readonly Op[], undoes: string | null = null): Promise<string> => {
  const id = randomUUID();
  const answer = await api.change<Problem>(studyId, ops, id, undoes);
  expect([answer.status, answer.body]).toEqual([201, expect.anything()]);
  return id;
};
const rowOf = (record: StudyRecord, entity: Entity): RowOf<Entity> => rowsOf(record, entity).find((row) => row.id === ROW_ID[entity])!;
const stored = async (entity: Entity): Promise<object> => fieldsOf(rowOf(await api.record(studyId), entity) as never);

beforeAll(async () => {
  const database = await testDatabase();
  ({ drop, pool } = database);
  api = await Api.over(database.pool);
  const odo = await api.as('Odo Farrow');
  const picture = await pngOf();
  const here = <T>(rows: T): T =>
    JSON.parse(
      JSON.stringify(rows).replaceAll(PERSON_ID, odo.personId).replaceAll(SHA256, sha256(picture)).replaceAll(MESH_SHA256, sha256(MESH)),
    ) as T;
  [full, bare] = [here(FULL_ROWS), here(BARE_ROWS)];
  await send([
    { kind: 'study.add', id: studyId, fields: full.study },
    { kind: 'member.add', id: randomUUID(), fields: { personId: api.personId, role: 'lead' } },
  ]);
  await put(picture, 'image/png');
  await put(MESH, 'model/stl');
  // in one change: rows refer to each other, in whatever order the kinds are listed
  await send(KINDS.map((entity) => ({ kind: `${entity}.add`, id: ROW_ID[entity], fields: full[entity] }) as unknown as Op));
});
afterAll(async () => {
  await api.stop();
  await drop();
});

describe('a row of every kind in the database', () => {
  it.each(ENTITIES.map((entity) => [entity] as const))('%s: comes back as it was sent, to the last digit', async (entity) =>
    expect(await stored(entity)).toEqual(full[entity]),
  );

  it.each(EDITABLE.map((entity) => [entity] as const))(
    '%s: edited to as little as it may hold, and back by undoing that',
    async (entity) => {
      const record = await api.record(studyId);
      const edit = editTo(entity, rowOf(record, entity) as never, bare[entity])!;
      const { effects } = netEffect([edit], namedRows(record, [edit]), record.revision + 1);
      const done = await send([edit]);
      expect(await stored(entity)).toEqual(bare[entity]);
      await send(inverseOps(effects), done);
      expect(await stored(entity)).toEqual(full[entity]);
    },
  );

  it.each(FINAL.map((entity) => [entity] as const))('%s: is not to be edited, and stays as it is', async (entity) => {
    const edit = editTo(entity, rowOf(await api.record(studyId), entity) as never, bare[entity])!;
    expect((await api.change<Problem>(studyId, [edit])).status).toBe(403);
    expect(await stored(entity)).toEqual(full[entity]);
  });

  it.each(OFF.map((entity) => [entity] as const))(
    '%s: is taken off by a lead with all that goes with it, and all of it is back when that is undone',
    async (entity) => {
      const record = await api.record(studyId);
      const ops = removalOps(record, entity, [ROW_ID[entity]]);
      const { effects } = netEffect(ops, namedRows(record, ops), record.revision + 1);
      const done = await send(ops);
      expect(rowsOf(await api.record(studyId), entity)).toEqual([]);
      await send(inverseOps(effects), done);
      for (const kind of KINDS) expect([kind, await stored(kind)]).toEqual([kind, full[kind]]);
    },
  );

  it('goes when all are taken off, and all are there again when that is undone', async () => {
    const record = await api.record(studyId);
    const ops = [...KINDS].reverse().map((entity) => removeOp(entity, rowOf(record, entity) as never));
    const { effects } = netEffect(ops, namedRows(record, ops), record.revision + 1);
    const done = await send(ops);
    const without = await api.record(studyId);
    for (const entity of KINDS) expect([entity, without[LIST_OF[entity]].length]).toEqual([entity, entity === 'member' ? 1 : 0]);
    await send(inverseOps(effects), done);
    for (const entity of KINDS) expect([entity, await stored(entity)]).toEqual([entity, full[entity]]);
  });

  it('comes in by the thousand as it does alone', async () => {
    const client = await pool.connect();
    try {
      await client.query('begin; set constraints all deferred');
      for (const entity of KINDS) {
        const store = STORES[entity] as unknown as Store<Entity>;
        const id = randomUUID();
        // what is written in tables and text: tabs, line breaks and backslashes of every kind
        const odd = 'a\tb\\N\nc\r\\.';
        const row = { ...rowOf(await api.record(studyId), entity), id, version: 3, ...('notes' in full[entity] ? { notes: odd } : {}) };
        await client.query('savepoint one_kind');
        await store.remove(client, studyId, [ROW_ID[entity]]);
        await store.insertMany(client, studyId, [row]);
        const came = await store.rows(client, studyId, [id]);
        expect([entity, came]).toEqual([entity, [row]]);
        await client.query('rollback to one_kind');
      }
    } finally {
      await client.query('rollback');
      client.release();
    }
  });

  it('is in the history as it was, change by change', async () => {
    const { body } = await api.get<readonly { readonly revision: number; readonly ops: readonly Op[]; readonly undoes: string | null }[]>(
      `/api/studies/${studyId}/changes?since=0`,
    );
    expect(body.map((change) => change.revision)).toEqual(body.map((_, i) => i + 1));
    expect(new Set(body[1]?.ops.map((op) => op.kind))).toEqual(new Set(KINDS.map((entity) => `${entity}.add`)));
    // one undo for every kind that is edited, for every one that is taken off by itself, and for all of them
    expect(body.filter((change) => change.undoes !== null)).toHaveLength(EDITABLE.length + OFF.length + 1);
  });
});
