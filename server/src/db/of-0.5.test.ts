import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { ENTITIES, rowsOf, type Entity, type KeptChange, type Op, type StudyRecord } from '@each-bolt/core/record';
import { Api, PASSWORD } from '../../testing/api';
import { MIGRATIONS, testDatabase } from '../../testing/test-database';
import { migrate } from './migrate';
import { many } from './rows';

// Files that version 0.5.0 of the program wrote: a dump of its database by pg_dump, the archive of its one study, which holds a row of
// every kind, and what it answered when it was asked for that study. Some masses were edited in parts, one was undone, a row taken off.

const OLDER = join(__dirname, '..', '..', 'testing', 'older');
const unpacked = (name: string): string => gunzipSync(readFileSync(join(OLDER, name))).toString('utf8');

type Row = Readonly<Record<string, unknown>> & { readonly id: string };
const THEN = JSON.parse(unpacked('0.5.0-record.json.gz')) as {
  readonly record: Readonly<Record<string, unknown>>;
  readonly changes: readonly KeptChange[];
  readonly plate: string;
  readonly lever: string;
  readonly login: string;
};
const STUDY = (THEN.record.study as Row).id;

/** Its lists and fields by their names of today, written out once more: what the program does is held against this. */
const LIST_THEN: Readonly<Partial<Record<string, string>>> = {
  ...{ parts: 'pieces', liftSetUps: 'hoists', liftSteps: 'unloads', holdPoints: 'gates', gaugeStudies: 'gauges', holePatterns: 'patterns' },
};
const FIELD_THEN: Readonly<Partial<Record<string, string>>> = {
  ...{ partId: 'pieceId', evidence: 'known', expectedParts: 'expectedPieces' },
  ...{ optimisticS: 'leastS', mostLikelyS: 'likelyS', pessimisticS: 'mostS' },
};
const WORD_THEN: Readonly<Partial<Record<string, string>>> = { part: 'piece', parts: 'pieces', holdPoint: 'gate' };
const WITH_A_MASS: readonly Entity[] = ['part', 'fasteners', 'fluid'];
const CHOICES = ['aboutKind', 'depth', 'assembliesAs'];

/** Rows of then; of a kind that came after it there are none. */
const thenOf = (list: string): readonly Row[] =>
  ((list === 'study' ? [THEN.record.study] : THEN.record[LIST_THEN[list] ?? list]) as readonly Row[] | undefined) ?? [];

/** What a row of then must be today, value by value; undefined for a value that did not exist then. */
const expected = (entity: Entity, then: Row, field: string): unknown => {
  const name = entity === 'step' && field === 'parts' ? 'pieces' : (FIELD_THEN[field] ?? field);
  const value = then[name];
  if (field === 'evidence' && WITH_A_MASS.includes(entity)) {
    const { massEachKg: said, ...others } = value as Readonly<Record<string, object>>;
    if (then.massEachKg === null) return others;
    const own = { mark: then.massEvidence, u: then.massUKg, typed: then.massTyped };
    return { ...others, massEachKg: { low: null, high: null, instrument: '', source: '', ...said, ...own } };
  }
  if (entity === 'scan' && field === 'figures') {
    const { smallestM, ...figures } = value as Readonly<Record<string, unknown>>;
    return { ...figures, minimumM: smallestM };
  }
  return CHOICES.includes(field) ? (Object.keys(WORD_THEN).find((word) => WORD_THEN[word] === value) ?? value) : value;
};

const holdsAll = (now: StudyRecord, isBroughtIn = false): void => {
  let rows = 0;
  for (const entity of ENTITIES) {
    const found = rowsOf(now, entity) as unknown as readonly Row[];
    const list = Object.keys(now).find((name) => (now as unknown as Record<string, unknown>)[name] === found) ?? 'study';
    const then = thenOf(list);
    // whoever brings a study in is of it
    if (!(isBroughtIn && entity === 'member'))
      expect([entity, found.map(({ id }) => id).sort()]).toEqual([entity, then.map(({ id }) => id).sort()]);
    for (const was of then) {
      const is = found.find(({ id }) => id === was.id)!;
      for (const [field, value] of Object.entries(is)) {
        // who is who in another organisation is told by the accounts there
        if (isBroughtIn && ['personId', 'ownerId'].includes(field)) continue;
        const of = expected(entity, was, field);
        if (of !== undefined) expect([entity, field, value]).toEqual([entity, field, of]);
      }
      // nothing of then is without a place today
      const told = Object.keys(was).filter(
        (field) => !['massUKg', 'massEvidence', 'massTyped'].includes(field) || !WITH_A_MASS.includes(entity),
      );
      const places = Object.keys(is).map((field) => (entity === 'step' && field === 'parts' ? 'pieces' : (FIELD_THEN[field] ?? field)));
      expect([entity, told.filter((field) => !places.includes(field))]).toEqual([entity, []]);
      rows += 1;
    }
  }
  // every row of then was looked at, and the study itself
  const then = Object.values(THEN.record).flatMap((list) => (Array.isArray(list) ? (list as readonly Row[]) : []));
  expect([rows, then.length > 30]).toEqual([then.length + 1, true]);
};

describe('a database that version 0.5.0 left', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>;
  let api: Api;
  beforeAll(async () => {
    database = await testDatabase({ migrated: false });
    const dump = unpacked('0.5.0-database.sql.gz')
      .split('\n')
      // lines for the program that dumps are read by, and the path that every other connection would keep
      .filter((line) => !line.startsWith('\\') && !line.includes('search_path'))
      .join('\n');
    await database.pool.query(dump);
    await migrate(database.pool, MIGRATIONS);
    api = (await Api.over(database.pool)).nobody();
    expect((await api.post('/api/sign-in', JSON.stringify({ login: THEN.login, password: PASSWORD }))).status).toBe(200);
  });
  afterAll(async () => {
    await api.stop();
    await database.drop();
  });

  it('holds every row of every kind, value by value', async () => holdsAll(await api.record(STUDY)));

  it('holds its ledger: put together from nothing, the changes come to the record', async () => {
    const { body: changes } = await api.get<readonly KeptChange[]>(`/api/studies/${STUDY}/changes?since=0`);
    expect(changes.map(({ id, revision, madeBy, madeAt }) => [id, revision, madeBy, madeAt])).toEqual(
      THEN.changes.map(({ id, revision, madeBy, madeAt }) => [id, revision, madeBy, madeAt]),
    );
    const rows = new Map<string, Record<string, unknown>>();
    const laid = (row: Record<string, unknown>, fields: Readonly<Record<string, unknown>>): Record<string, unknown> => ({
      ...row,
      ...fields,
      ...('evidence' in fields && {
        evidence: Object.fromEntries(
          Object.entries({ ...(row.evidence as object), ...(fields.evidence as object) }).filter(([, said]) => said !== null),
        ),
      }),
    });
    for (const { ops } of changes)
      for (const op of ops as readonly (Op & { readonly fields?: Readonly<Record<string, unknown>> })[])
        if (op.kind.endsWith('.remove')) rows.delete(op.id);
        else rows.set(op.id, laid(rows.get(op.id) ?? {}, op.fields ?? {}));
    const record = await api.record(STUDY);
    for (const entity of ENTITIES)
      for (const { id, version: _version, ...fields } of rowsOf(record, entity) as unknown as readonly (Row & { version: number })[])
        expect([entity, rows.get(id)]).toEqual([entity, expect.objectContaining(fields)]);
  });

  it('undoes a change of then: a mass that was given to the lever goes again, and what was taken off comes back', async () => {
    const { body: changes } = await api.get<readonly KeptChange[]>(`/api/studies/${STUDY}/changes?since=0`);
    const weighed = changes.find(({ ops }) => ops.some((op) => op.id === THEN.lever && op.kind === 'part.edit'))!;
    const removed = changes.at(-1)!;
    for (const { id, inverse } of [weighed, removed]) {
      const { status, body } = await api.change(STUDY, inverse, randomUUID(), id);
      expect([status, body]).toEqual([201, expect.anything()]);
    }
    const record = await api.record(STUDY);
    const lever = record.parts.find(({ id }) => id === THEN.lever)!;
    expect([lever.massEachKg, lever.evidence.massEachKg]).toEqual([null, undefined]);
    expect(record.jointSets).toHaveLength(1);
  });

  it('knows a change of then that is sent once more, in the words of then', async () => {
    for (const { id, ops, undoes, revision } of THEN.changes.slice(1, -1)) {
      const answer = await api.change<{ revision: number }>(STUDY, ops, id, undoes);
      expect([revision, answer.status, answer.body]).toEqual([revision, 200, expect.objectContaining({ revision })]);
    }
  });

  it('takes a change in the words of then, an uncertainty alone: it is completed by what the plate weighs', async () => {
    const before = (await api.record(STUDY)).parts.find(({ id }) => id === THEN.plate)!;
    const u = before.evidence.massEachKg!.u!;
    const edit = { kind: 'piece.edit', id: THEN.plate, was: { massUKg: u }, fields: { massUKg: 0.004 } } as unknown as Op;
    expect((await api.change(STUDY, [edit])).status).toBe(201);
    const after = (await api.record(STUDY)).parts.find(({ id }) => id === THEN.plate)!;
    expect(after).toEqual({
      ...before,
      version: after.version,
      evidence: { ...before.evidence, massEachKg: { ...before.evidence.massEachKg, u: 0.004 } },
    });
  });

  it('has no word of then in any row of its tables', async () => {
    const words = await many<{ table_name: string; column_name: string }>(
      database.pool,
      `select table_name, column_name from information_schema.columns where table_schema = 'public'
         and (column_name ~ '(piece|^known$|_likely_s|mass_typed)' or table_name ~ '(piece|hoist|unload|gauge$|^gate|^pattern)') and column_name <> 'most_likely_s'`,
    );
    expect(words).toEqual([]);
  });
});

describe('an archive that version 0.5.0 wrote', () => {
  it('comes in whole: every row, and its history in the words of today', async () => {
    const database = await testDatabase();
    const api = await Api.over(database.pool);
    try {
      const zip = readFileSync(join(OLDER, '0.5.0-study.zip'));
      const answer = await api.post<{ studyId: string; copied: boolean }>('/api/archives', new Uint8Array(zip) as never, 'application/zip');
      expect([answer.status, answer.body]).toEqual([201, expect.objectContaining({ studyId: STUDY, copied: false })]);
      holdsAll(await api.record(STUDY), true);
      const { body: changes } = await api.get<readonly KeptChange[]>(`/api/studies/${STUDY}/changes?since=0`);
      // and one more, by which whoever brings a study in is of it
      expect(changes).toHaveLength(THEN.changes.length + 1);
      expect(JSON.stringify(changes)).not.toMatch(/"(?:piece|hoist|gate|gauge|pattern)\.|"massTyped"|"known":/);
    } finally {
      await api.stop();
      await database.drop();
    }
  });
});
