import { randomUUID } from 'node:crypto';
import { applyOps, type Op, type PartFields } from '@each-bolt/core/record';
import { Api, beginStudy, type Begun, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import type { Pool } from '../db/pool';
import { one } from '../db/rows';
import { transaction } from '../db/transaction';
import type { Maker } from '../people/maker';
import { keepWithin } from './keep-change';

/** More ops than a change that is kept in its turn from beginning to end. */
const MANY = 600;

let api: Api;
let pool: Pool;
let drop: () => Promise<void>;
let study: Begun;
beforeAll(async () => {
  ({ pool, drop } = await testDatabase());
  api = await Api.over(pool);
});
beforeEach(async () => {
  study = await beginStudy(api);
});
afterAll(async () => {
  await api.stop();
  await drop();
});

const parts = (count: number, fields: (i: number) => Partial<PartFields> = () => ({})): readonly Op[] =>
  Array.from({ length: count }, (_, i): Op => ({
    kind: 'part.add',
    id: randomUUID(),
    fields: study.part({ sequence: i, ...fields(i) }),
  }));

const PROGRAM: Maker = { person: null, name: 'Odo Farrow', device: 'bench 2' };
const changeOf = (ops: readonly Op[]) => ({ id: randomUUID(), ops, undoes: null });

const soon = async (test: () => Promise<boolean>): Promise<void> => {
  for (const until = Date.now() + 20_000; !(await test());) {
    if (Date.now() > until) throw new Error('it did not come to that within 20 s');
    await new Promise((done) => setTimeout(done, 10));
  }
};
const anyoneWaits = (): Promise<boolean> =>
  one<{ waits: boolean }>(pool, 'select exists (select from pg_locks where not granted) as waits').then(({ waits }) => waits);

/** Somebody else’s change, in the middle of being kept while `meanwhile` begins; it is kept as soon as that waits for it. */
const inTheMiddleOf = async <T>(ops: readonly Op[], meanwhile: () => Promise<T>): Promise<T> => {
  const { begun } = await transaction(pool, async (db) => {
    await keepWithin(db, study.studyId, changeOf(ops), PROGRAM);
    const begun = meanwhile();
    await soon(anyoneWaits);
    return { begun };
  });
  return begun;
};

describe('a change of very many rows', () => {
  it('is kept like any other: its rows carry its revision, and the record is what the client works out', async () => {
    const before = await api.record(study.studyId);
    const ops = parts(MANY);
    const { status, body } = await api.change(study.studyId, ops);
    expect([status, body.revision]).toEqual([201, 2]);
    const after = await api.record(study.studyId);
    expect(after.parts.every((part) => part.version === 2)).toBe(true);
    expect(after).toEqual(applyOps(before, ops, 2));
  });
  it('sent twice at once is kept once, and both are told the same', async () => {
    const [id, ops] = [randomUUID(), parts(MANY)];
    const answers = await Promise.all([api.change(study.studyId, ops, id), api.change(study.studyId, ops, id)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 201]);
    expect(answers.map(({ body }) => body.revision)).toEqual([2, 2]);
    expect((await api.record(study.studyId)).parts).toHaveLength(MANY);
  });
  it('is undone as a whole', async () => {
    const { body } = await api.change(study.studyId, parts(MANY));
    const kept = await api.get<{ readonly inverse: readonly Op[] }>(`/api/studies/${study.studyId}/changes/${body.id}`);
    const undone = await api.change(study.studyId, kept.body.inverse, randomUUID(), body.id);
    expect(undone).toMatchObject({ status: 201, body: { revision: 3 } });
    expect((await api.record(study.studyId)).parts).toEqual([]);
  });
  it('leaves the turn to others while it is written: theirs is kept first, and both stay', async () => {
    const plate: Op = { kind: 'part.add', id: randomUUID(), fields: study.part({ name: 'carrier plate' }) };
    await api.change(study.studyId, [plate]);
    const rename: Op = { kind: 'part.edit', id: plate.id, was: { name: 'carrier plate' }, fields: { name: 'carrier' } };
    const { large } = await transaction(pool, async (db) => {
      // whoever holds a row that the large change edits keeps it in its middle
      await db.query('select id from part where id = $1 for update', [plate.id]);
      const large = api.change(study.studyId, [...parts(MANY), rename]);
      await soon(anyoneWaits);
      const small = await api.change(
        study.studyId,
        parts(1, () => ({ name: 'roller' })),
      );
      expect([small.status, small.body.revision]).toEqual([201, 3]);
      return { large };
    });
    expect((await large).body.revision).toBe(4);
    const { revision, parts: all } = await api.record(study.studyId);
    expect([revision, all.length, all.filter((p) => p.version === 4).length]).toEqual([4, MANY + 2, MANY + 1]);
  });
  it('makes only those wait who write the same rows; they go on after it', async () => {
    const [first, second] = ['00', 'ff'].map((start): Op => ({
      kind: 'part.add',
      id: start + randomUUID().slice(2),
      fields: study.part(),
    }));
    await api.change(study.studyId, [first!, second!]);
    const renames = [first!, second!].map(({ id }): Op => ({ kind: 'part.edit', id, was: { name: 'carrier plate' }, fields: { name: 'carrier' } })); // prettier-ignore
    const mass: Op = { kind: 'part.edit', id: first!.id, was: { notes: '' }, fields: { notes: 'weighed again' } };
    const { large, small } = await transaction(pool, async (db) => {
      await db.query('select id from part where id = $1 for update', [second!.id]);
      const large = api.change(study.studyId, [...parts(MANY), ...renames]);
      await soon(anyoneWaits);
      const small = api.change(study.studyId, [mass]);
      // an act on other rows is not held up by either
      expect((await api.change(study.studyId, parts(1))).status).toBe(201);
      return { large, small };
    });
    expect([(await large).status, (await small).status]).toEqual([201, 201]);
    const part = (await api.record(study.studyId)).parts.find((p) => p.id === first!.id);
    expect([part?.name, part?.notes]).toEqual(['carrier', 'weighed again']);
  });
  it('is refused in words when what it hangs on goes while it is written', async () => {
    const inSubsystem = await api.record(study.studyId);
    const [subsystem] = inSubsystem.subsystems;
    const gone: Op = { kind: 'subsystem.remove', id: study.subsystemId, was: { parentId: null, sequence: 0, name: subsystem!.name } };
    const refused = await inTheMiddleOf([gone], () => api.change<Problem>(study.studyId, parts(MANY)));
    expect([refused.status, refused.body.issues[0]?.message]).toEqual([
      422,
      expect.stringContaining('a subsystem that is not in this study'),
    ]);
    expect((await api.record(study.studyId)).parts).toEqual([]);
  });
  it('is refused when a tag it gives is given by somebody else while it is written', async () => {
    const theirs: Op = { kind: 'part.add', id: randomUUID(), fields: study.part({ tag: 'A03-017Y' }) };
    const refused = await inTheMiddleOf([theirs], () => api.change<Problem>(study.studyId, parts(MANY, (i) => (i === 7 ? { tag: 'A03-017Y' } : {})))); // prettier-ignore
    expect([refused.status, refused.body.issues[0]?.code]).toEqual([422, 'tag-twice']);
    expect((await api.record(study.studyId)).parts).toHaveLength(1);
  });
  it('goes in when what others did meanwhile does not touch it', async () => {
    const theirs = parts(2, () => ({ name: 'roller' }));
    const kept = await inTheMiddleOf(theirs, () => api.change(study.studyId, parts(MANY)));
    expect([kept.status, kept.body.revision]).toEqual([201, 3]);
    expect((await api.record(study.studyId)).parts).toHaveLength(MANY + 2);
  });
  it('is told in a history with some of its ops, those that are asked for, and how many there are', async () => {
    const ops = parts(MANY, (i) => ({ name: `plate ${i}` }));
    await api.change(study.studyId, ops);
    const renames = ops.map(({ id }, i): Op => ({ kind: 'part.edit', id, was: { name: `plate ${i}` }, fields: { name: `panel ${i}` } }));
    await api.change(study.studyId, renames);
    interface Told {
      readonly opCount: number;
      readonly ops: readonly Op[];
      readonly inverse: readonly Op[];
    }
    const history = async (query: string): Promise<readonly Told[]> =>
      (await api.get<readonly Told[]>(`/api/studies/${study.studyId}/history${query}`)).body;
    const counts = (told: readonly Told[]): readonly object[] => told.map((c) => [c.opCount, c.ops.length, c.inverse.length]);
    expect(counts(await history(''))).toEqual([
      [MANY, 50, 50],
      [MANY, 50, 50],
      [5, 5, 5],
    ]);
    const last = ops.at(-1)!;
    const [renamed, added] = await history(`?rows=${last.id}`);
    expect(renamed).toMatchObject({ opCount: MANY, ops: [renames.at(-1)], inverse: [{ id: last.id, fields: { name: 'plate 599' } }] });
    expect(added).toMatchObject({ ops: [{ id: last.id, kind: 'part.add' }], inverse: [{ id: last.id, kind: 'part.remove' }] });
  });
  it('that clashes is told with a hundred of its conflicts, each with who and when', async () => {
    const added = parts(MANY);
    await api.change(study.studyId, added);
    const theirs = added.map(({ id }): Op => ({ kind: 'part.edit', id, was: { notes: '' }, fields: { notes: 'cracked' } }));
    await api.change(study.studyId, theirs);
    const ours = added.map(({ id }): Op => ({ kind: 'part.edit', id, was: { notes: '' }, fields: { notes: 'whole' } }));
    const { status, body } = await api.change<Problem>(study.studyId, ours);
    expect([status, body.conflicts.length, body.conflicts[0]?.cells[0]]).toMatchObject([409, 100, { theirs: 'cracked', by: 'Wenna Tarn' }]);
  });
});
