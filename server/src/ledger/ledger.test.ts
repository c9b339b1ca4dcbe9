import { randomUUID } from 'node:crypto';
import { blank, applyOps, evidence, removeOp, undoStacks, type KeptChange, type Op } from '@each-bolt/core/record';
import { Api, STUDY_FIELDS, beginStudy, type Begun, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { many, one } from '../db/rows';
import type { Pool } from '../db/pool';
import type { OwnChange } from '@each-bolt/core/wire';

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

const add = (fields = {}, id: string = randomUUID()): Op => ({ kind: 'part.add', id, fields: study.part(fields) });
const written = async (): Promise<readonly [number, number, number]> => {
  const record = await api.record(study.studyId);
  const changes = await one<{ count: number }>(pool, 'select count(*) from change where study_id = $1', [study.studyId]);
  return [record.revision, record.parts.length, changes.count];
};
const refused = async (ops: readonly unknown[], status: number): Promise<Problem> => {
  const before = await written();
  const answer = await api.change<Problem>(study.studyId, ops);
  expect(answer.status).toBe(status);
  expect(await written()).toEqual(before);
  return answer.body;
};

describe('a change that is kept', () => {
  it('is answered with its revision, and every row it touches carries that as its version', async () => {
    const id = randomUUID();
    const answer = await api.change(study.studyId, [
      add(
        {
          massEachKg: 1.836,
          evidence: { massEachKg: evidence('M', { u: 0.0003, typed: '1.836 kg' }) },
          boughtPrice: '4.20',
          boughtCurrency: 'EUR',
          boughtPriceYear: 2026,
          boughtVolumePerYear: 60_000,
          boughtRegion: 'Central Europe',
        },
        id,
      ),
    ]);
    expect(answer).toMatchObject({ status: 201, body: { revision: 2 } });
    expect((await api.record(study.studyId)).parts).toMatchObject([
      { id, version: 2, massEachKg: 1.836, evidence: { massEachKg: { u: 0.0003 } }, boughtPrice: '4.20' },
    ]);
  });
  it('comes back field for field as it was sent, for every kind of record', async () => {
    const [partId, setId, jointId] = [randomUUID(), randomUUID(), randomUUID()];
    const fields = study.part({
      tag: 'DR2-1',
      name: 'ÆØ “plate” <b>',
      function: 'f',
      quantity: 3,
      hand: 'left',
      materialId: 'dc04',
      lengthM: 0.1,
      widthM: 0.2,
      heightM: 0.3,
      wallThicknessM: 0.0008,
      runLengthM: 1.4,
      opened: 'closed',
      closedReason: 'sealed',
      notes: 'line\nline',
    });
    const fasteners = {
      ...blank('fasteners', { partId }),
      count: 12,
      threadM: 0.006,
      lengthM: 0.016,
      drive: 'T30',
      grade: '8.8',
      direction: '-z',
    } as const;
    const joints = { ...blank('joints', { partId }), kind: 'adhesive bead', lengthEachM: 1.4 } as const;
    await api.change(study.studyId, [
      add(fields, partId),
      { kind: 'fasteners.add', id: setId, fields: fasteners },
      { kind: 'joints.add', id: jointId, fields: joints },
    ]);
    const record = await api.record(study.studyId);
    expect(record.parts).toEqual([{ id: partId, version: 2, ...fields }]);
    expect(record.fastenerSets).toEqual([{ id: setId, version: 2, ...fasteners }]);
    expect(record.jointSets).toEqual([{ id: jointId, version: 2, ...joints }]);
    expect(record.vehicles[0]).toMatchObject({ builtOn: '2026-02-18', acquiredOn: null });
  });
  it('sent again with the same id is kept once and gets the first answer', async () => {
    const change = JSON.stringify({ id: randomUUID(), ops: [add()], undoes: null });
    const path = `/api/studies/${study.studyId}/changes`;
    const answers = await Promise.all(Array.from({ length: 8 }, () => api.post<{ revision: number }>(path, change)));
    expect(answers.map((a) => a.body.revision)).toEqual(Array.from({ length: 8 }, () => 2));
    expect(answers.map((a) => a.status).sort()).toEqual([200, 200, 200, 200, 200, 200, 200, 201]);
    expect(await written()).toEqual([2, 1, 2]);
  });
  it('sent again after an upgrade is the same change, whatever fields were added to its kind meanwhile', async () => {
    const id = randomUUID();
    const op = { kind: 'part.add', id: randomUUID(), fields: study.part() } as const;
    await api.change(study.studyId, [op], id);
    // as the version before kept it: without what parts got later, and summed so
    const { runDiameterM: _, seenOutside: __, ...before } = op.fields;
    await pool.query('update change set ops = $2, digest = $3 where id = $1', [
      id,
      JSON.stringify([{ ...op, fields: before }]),
      Buffer.alloc(32, 7),
    ]);
    // the device that waits with it fills in what came later too, or does not know it yet
    for (const fields of [op.fields, before]) {
      const answer = await api.change(study.studyId, [{ ...op, fields }], id);
      expect([answer.status, answer.body.revision]).toEqual([200, 2]);
    }
    const other = await api.change<Problem>(study.studyId, [{ ...op, fields: { ...before, name: 'another' } }], id);
    expect([other.status, other.body.issues[0]?.code]).toEqual([422, 'id-used']);
  });
  it('queues behind others without a gap in the revisions', async () => {
    const answers = await Promise.all(Array.from({ length: 20 }, () => api.change(study.studyId, [add()])));
    expect(answers.map((a) => a.body.revision).sort((a, b) => a - b)).toEqual(Array.from({ length: 20 }, (_, i) => i + 2));
  });
  it('may add a part and put another into it, and edit what it just added', async () => {
    const [module, plate] = [randomUUID(), randomUUID()];
    const inside = { kind: 'part.add', id: plate, fields: study.part({ parentId: module, subsystemId: null }) };
    const answer = await api.change(study.studyId, [
      inside,
      add({ name: 'module' }, module),
      { kind: 'part.edit', id: plate, was: { tag: '' }, fields: { tag: 'A' } },
    ]);
    expect(answer.status).toBe(201);
    expect((await api.record(study.studyId)).parts.find((p) => p.id === plate)).toMatchObject({ parentId: module, tag: 'A' });
  });
  it('gives the client the same record that the client works out for itself', async () => {
    const id = randomUUID();
    const before = await api.record(study.studyId);
    const ops: readonly Op[] = [add({ name: 'a' }, id), add({ name: 'b' })];
    const { body } = await api.change(study.studyId, ops);
    const sorted = (parts: readonly { id: string }[]) => [...parts].sort((a, b) => (a.id < b.id ? -1 : 1));
    const [ours, theirs] = [applyOps(before, ops, body.revision), await api.record(study.studyId)];
    expect({ ...ours, parts: sorted(ours.parts) }).toEqual({ ...theirs, parts: sorted(theirs.parts) });
  });
});

describe('the inverse of a change', () => {
  it('is stored with it and, sent as a change, puts everything back', async () => {
    const [kept, gone, added] = [randomUUID(), randomUUID(), randomUUID()];
    await api.change(study.studyId, [
      add({ name: 'kept' }, kept),
      add({ name: 'gone', massEachKg: 1, evidence: { massEachKg: evidence('M', { u: 0.1 }) } }, gone),
      { kind: 'fasteners.add', id: added, fields: { ...blank('fasteners', { partId: gone }), count: 4 } },
    ]);
    const before = await api.record(study.studyId);
    await api.change(study.studyId, [
      { kind: 'part.edit', id: kept, was: { name: 'kept', quantity: 1 }, fields: { name: 'renamed', quantity: 7 } },
      removeOp('fasteners', before.fastenerSets[0]!),
      removeOp(
        'part',
        before.parts.find((p) => p.id === gone)!,
      ),
      add({ name: 'new' }),
    ]);
    const [last] = (await api.get<readonly { inverse: readonly Op[] }[]>(`/api/studies/${study.studyId}/changes?since=2`)).body;
    expect((await api.change(study.studyId, last?.inverse ?? [])).status).toBe(201);
    const after = await api.record(study.studyId);
    const content = (rows: readonly { id: string; version: number }[]) =>
      rows.map(({ version: _, ...row }) => row).sort((a, b) => (a.id < b.id ? -1 : 1));
    expect(content(after.parts)).toEqual(content(before.parts));
    expect(content(after.fastenerSets)).toEqual(content(before.fastenerSets));
  });
});

describe('two people on one part', () => {
  const edit = (id: string, was: object, fields: object) => ({ kind: 'part.edit', id, was, fields });
  const plate = async (): Promise<string> => {
    const id = randomUUID();
    await api.change(study.studyId, [add({ name: 'plate', location: 'A' }, id)]);
    return id;
  };
  it('may edit different fields at once: both stay, in either order', async () => {
    for (const [first, second] of [
      [{ name: 'panel' }, { location: 'B' }],
      [{ location: 'B' }, { name: 'panel' }],
    ] as const) {
      const id = await plate();
      const was = { name: 'plate', location: 'A' } as Record<string, string>;
      const only = (fields: object) => Object.fromEntries(Object.keys(fields).map((field) => [field, was[field]]));
      expect((await api.change(study.studyId, [edit(id, only(first), first)])).status).toBe(201);
      expect((await api.change(study.studyId, [edit(id, only(second), second)])).status).toBe(201);
      expect((await api.record(study.studyId)).parts.find((p) => p.id === id)).toMatchObject({ name: 'panel', location: 'B' });
    }
  });
  it('may say how different values are known at once', async () => {
    const id = await plate();
    const said = (field: string, mark: 'P' | 'T') => edit(id, { evidence: { [field]: null } }, { evidence: { [field]: evidence(mark) } });
    expect((await api.change(study.studyId, [said('quantity', 'P')])).status).toBe(201);
    expect((await api.change(study.studyId, [said('materialId', 'T')])).status).toBe(201);
    const { parts } = await api.record(study.studyId);
    expect(parts.find((p) => p.id === id)?.evidence).toEqual({ quantity: evidence('P'), materialId: evidence('T') });
  });
  it('are told of the same field with both values, who and when, and nothing is overwritten', async () => {
    const id = await plate();
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    await odo.change(study.studyId, [edit(id, { name: 'plate' }, { name: 'renamed by another' })]);
    const problem = await refused([edit(id, { name: 'plate', location: 'A' }, { name: 'mine', location: 'B' }), add()], 409);
    expect(problem.conflicts).toMatchObject([
      {
        id,
        verb: 'edit',
        cells: [
          {
            cell: 'name',
            was: 'plate',
            yours: 'mine',
            theirs: 'renamed by another',
            by: 'Odo Farrow',
            at: expect.stringMatching(/^20.*Z$/) as string,
          },
        ],
      },
    ]);
  });
  it('do not clash when both typed the same', async () => {
    const id = await plate();
    await api.change(study.studyId, [edit(id, { name: 'plate' }, { name: 'panel' })]);
    expect((await api.change(study.studyId, [edit(id, { name: 'plate' }, { name: 'panel' })])).status).toBe(201);
  });
  it('are asked when one takes off what the other edits, in either order', async () => {
    const [edited, removed] = [await plate(), await plate()];
    const rowOf = async (id: string) => (await api.record(study.studyId)).parts.find((p) => p.id === id)!;
    const off = removeOp('part', await rowOf(edited));
    await api.change(study.studyId, [edit(edited, { name: 'plate' }, { name: 'panel' })]);
    expect((await refused([off], 409)).conflicts).toMatchObject([
      { verb: 'remove', cells: [{ cell: 'name', theirs: 'panel' }], by: 'Wenna Tarn' },
    ]);
    await api.change(study.studyId, [removeOp('part', await rowOf(removed))]);
    expect((await refused([edit(removed, { name: 'plate' }, { name: 'panel' })], 409)).conflicts).toMatchObject([
      { id: removed, current: null, by: 'Wenna Tarn' },
    ]);
  });
});

describe('undo', () => {
  const kept = async (ops: readonly unknown[], undoes: string | null = null) => {
    const id = randomUUID();
    const answer = await api.change<Problem>(study.studyId, ops, id, undoes);
    return { id, ...answer };
  };
  const inverseOf = async (id: string): Promise<readonly Op[]> =>
    (await api.get<KeptChange>(`/api/studies/${study.studyId}/changes/${id}`)).body.inverse;
  const name = async () => (await api.record(study.studyId)).parts[0]?.name;

  it('puts back what a change did, and undoing the undo does it again', async () => {
    const id = randomUUID();
    await kept([add({ name: 'plate' }, id)]);
    const renamed = await kept([{ kind: 'part.edit', id, was: { name: 'plate' }, fields: { name: 'panel' } }]);
    const undone = await kept(await inverseOf(renamed.id), renamed.id);
    expect([undone.status, await name()]).toEqual([201, 'plate']);
    const again = await kept(await inverseOf(undone.id), undone.id);
    expect([again.status, await name()]).toEqual([201, 'panel']);
    const mine = await api.get<readonly OwnChange[]>(`/api/studies/${study.studyId}/mine`);
    expect(undoStacks(mine.body)).toMatchObject({ undo: expect.arrayContaining([again.id]) as string[], redo: [] });
  });
  it('asks when the value has been changed since', async () => {
    const id = randomUUID();
    await kept([add({ name: 'plate' }, id)]);
    const renamed = await kept([{ kind: 'part.edit', id, was: { name: 'plate' }, fields: { name: 'panel' } }]);
    await kept([{ kind: 'part.edit', id, was: { name: 'panel' }, fields: { name: 'door skin' } }]);
    const undone = await kept(await inverseOf(renamed.id), renamed.id);
    expect([undone.status, undone.body.conflicts[0]?.cells[0]?.theirs]).toEqual([409, 'door skin']);
  });
  it('is for one’s own changes, and once', async () => {
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    const added = await kept([add()]);
    const ops = await inverseOf(added.id);
    expect((await odo.change(study.studyId, ops, randomUUID(), added.id)).status).toBe(403);
    await kept(ops, added.id);
    expect((await kept(ops, added.id)).body.issues[0]?.code).toBe('undone-before');
    expect((await kept(ops, randomUUID())).body.issues[0]?.code).toBe('undone-unknown');
  });
});

describe('what is refused, with nothing written', () => {
  it('every fault of every op at once', async () => {
    const problem = await refused([add({ name: '' }), add({ massEachKg: -1, quantity: 0 }), { kind: 'part.melt', id: randomUUID() }], 422);
    expect(problem.issues.map((i) => i.field)).toEqual([
      'ops[0].fields.name',
      'ops[1].fields.quantity',
      'ops[1].fields.massEachKg',
      'ops[2].kind',
    ]);
  });
  it('rules across fields, for every row', async () => {
    const problem = await refused([add({ massEachKg: 1 }), add({ lengthM: 1 }), add({ subsystemId: null })], 422);
    expect(problem.issues.map((i) => i.code)).toEqual(['mass-incomplete', 'envelope-incomplete', 'place']);
  });
  it('a cycle in the tree, even over three parts', async () => {
    const [a, b, c] = [randomUUID(), randomUUID(), randomUUID()];
    await api.change(study.studyId, [
      add({ name: 'a' }, a),
      add({ name: 'b', parentId: a, subsystemId: null }, b),
      add({ name: 'c', parentId: b, subsystemId: null }, c),
    ]);
    const problem = await refused(
      [{ kind: 'part.edit', id: a, was: { parentId: null, subsystemId: study.subsystemId }, fields: { parentId: c, subsystemId: null } }],
      422,
    );
    expect(problem.issues.map((i) => [i.code, i.recordId])).toEqual(expect.arrayContaining([['cycle', a]]));
  });
  it('a cycle of parts that are all new, and parts inside each other however deep that are none', async () => {
    const [a, b, c] = [randomUUID(), randomUUID(), randomUUID()];
    const inside = (id: string, parentId: string | null): Op =>
      add({ name: 'x', parentId, subsystemId: parentId === null ? study.subsystemId : null }, id);
    const problem = await refused([inside(a, c), inside(b, a), inside(c, b)], 422);
    expect([...new Set(problem.issues.map((i) => i.code))]).toEqual(['cycle']);
    expect((await api.change(study.studyId, [inside(c, b), inside(b, a), inside(a, null)])).status).toBe(201);
  });
  it('a part inside one of another vehicle, or under nothing that exists', async () => {
    const other = randomUUID();
    await api.change(study.studyId, [add({ vehicleId: study.otherVehicleId }, other)]);
    const problem = await refused(
      [
        add({ parentId: other, subsystemId: null }),
        add({ parentId: randomUUID(), subsystemId: null }),
        add({ subsystemId: randomUUID() }),
        add({ vehicleId: randomUUID() }),
      ],
      422,
    );
    expect(problem.issues.map((i) => i.code).sort()).toEqual(['part-elsewhere', 'part-missing', 'subsystem-missing', 'vehicle-missing']);
  });
  it('removing a part that still holds others, fasteners or joints', async () => {
    const [module, set] = [randomUUID(), randomUUID()];
    await api.change(study.studyId, [
      add({ name: 'module' }, module),
      add({ parentId: module, subsystemId: null }),
      { kind: 'fasteners.add', id: set, fields: blank('fasteners', { partId: module }) },
    ]);
    const row = (await api.record(study.studyId)).parts.find((p) => p.id === module)!;
    const problem = await refused([removeOp('part', row)], 422);
    expect(problem.issues.map((i) => i.code)).toEqual(['part-missing', 'part-missing']);
  });
  it('removing a vehicle or a subsystem with parts, or the study', async () => {
    await api.change(study.studyId, [add()]);
    const { vehicles, subsystems, study: row } = await api.record(study.studyId);
    expect(
      (
        await refused(
          [
            removeOp(
              'vehicle',
              vehicles.find((v) => v.id === study.vehicleId)!,
            ),
          ],
          422,
        )
      ).issues[0]?.code,
    ).toBe('vehicle-missing');
    expect((await refused([removeOp('subsystem', subsystems[0]!)], 422)).issues[0]?.code).toBe('subsystem-missing');
    expect((await refused([removeOp('study', row)], 403)).code).toBe('forbidden');
  });
  it('an id that is taken, here or in another study', async () => {
    const id = randomUUID();
    await api.change(study.studyId, [add({}, id)]);
    expect((await refused([add({}, id)], 422)).issues[0]?.code).toBe('id-taken');
    study = await beginStudy(api);
    expect((await refused([add({}, id)], 422)).issues[0]?.code).toBe('id-taken');
  });
  it('a change id that was used for another change', async () => {
    const id = randomUUID();
    await api.change(study.studyId, [add()], id);
    const answer = await api.change<Problem>(study.studyId, [add()], id);
    expect([answer.status, answer.body.issues[0]?.code]).toEqual([422, 'id-used']);
  });
  it('a study that is not there, or named differently in the address', async () => {
    expect((await api.change(randomUUID(), [add()])).status).toBe(404);
    expect((await api.change('nowhere', [add()])).status).toBe(404);
    expect((await api.change(randomUUID(), [{ kind: 'study.add', id: randomUUID(), fields: STUDY_FIELDS }])).status).toBe(404);
  });
  it('malformed JSON, another type, and a body beyond all limits', async () => {
    const path = `/api/studies/${study.studyId}/changes`;
    const before = await written();
    const malformed = await api.post<Problem>(path, '{"id": ');
    expect([malformed.status, malformed.body.code]).toEqual([400, 'malformed']);
    expect((await api.post<Problem>(path, '[NaN]')).status).toBe(400);
    expect((await api.post<Problem>(path, 'id=1', 'application/x-www-form-urlencoded')).status).toBe(415);
    const huge = await api.post<Problem>(path, `"${'x'.repeat(97 * 1024 * 1024)}"`);
    expect([huge.status, huge.body.code]).toEqual([413, 'too-large']);
    expect(await written()).toEqual(before);
  });
  it('numbers that JSON can carry but nobody can weigh', async () => {
    const text = JSON.stringify({
      id: randomUUID(),
      ops: [add({ massEachKg: 12345, evidence: { massEachKg: evidence('M', { u: 1 }) } })],
      undoes: null,
    }).replace('12345', '1e999');
    const answer = await api.post<Problem>(`/api/studies/${study.studyId}/changes`, text);
    expect([answer.status, answer.body.issues[0]?.message]).toEqual([422, 'Mass each must be a finite number']);
  });
});

describe('reading', () => {
  it('gives the record with its revision as ETag, and 304 to those who have it', async () => {
    const first = await api.get(`/api/studies/${study.studyId}`);
    expect(first.headers.get('etag')).toBe('"1"');
    const again = await api.raw(`/api/studies/${study.studyId}`, { headers: { 'If-None-Match': '"1"' } });
    expect(again.status).toBe(304);
  });
  it('gives the changes since a revision, in order', async () => {
    await api.change(study.studyId, [add()]);
    await api.change(study.studyId, [add()]);
    const changes = await api.get<readonly { revision: number; madeBy: string }[]>(`/api/studies/${study.studyId}/changes?since=1`);
    expect(changes.body.map((c) => [c.revision, c.madeBy])).toEqual([
      [2, 'Wenna Tarn'],
      [3, 'Wenna Tarn'],
    ]);
    expect((await api.get(`/api/studies/${study.studyId}/changes?since=x`)).status).toBe(400);
    expect((await api.get(`/api/studies/${randomUUID()}/changes`)).status).toBe(404);
  });
  it('answers the health check from the database, and 404 with a message elsewhere', async () => {
    expect((await api.get<{ ok: boolean }>('/api/health')).body).toEqual({ ok: true, version: '0.0.0' });
    const nowhere = await api.get<Problem>('/api/nothing');
    expect([nowhere.status, nowhere.body.code]).toEqual([404, 'not-found']);
  });
  it('sends a strict content security policy', async () => {
    expect((await api.get('/api/health')).headers.get('content-security-policy')).toMatch(
      /default-src 'self';script-src 'self' 'wasm-unsafe-eval'/,
    );
  });
});

describe('the rules the database holds by itself', () => {
  const WITH_U = `'{"massEachKg": {"mark": "M", "u": 1}}'`;
  const insert = (columns: string, values: string, said: string): Promise<unknown> =>
    many(
      pool,
      `insert into part (id, study_id, version, vehicle_id, subsystem_id, sequence, tag, name, function, quantity, hand, material_detail, process_detail, location, markings, supplier, closed_reason, closed_risk, seen_outside, damage, notes, evidence${columns})
      values (gen_random_uuid(), $1, 1, $2, $3, 0, '', 'x', '', 1, 'none', '', '', '', '', '', '', '', '', '', '', ${said}${values})`,
      [study.studyId, study.vehicleId, study.subsystemId],
    );
  it.each([
    ['a negative mass', ', mass_each_kg', ', -1', WITH_U],
    ['NaN', ', mass_each_kg', ", 'NaN'", WITH_U],
    ['Infinity', ', mass_each_kg', ", 'Infinity'", WITH_U],
    ['a mass without uncertainty', ', mass_each_kg', ', 1', "'{}'"],
    ['an uncertainty without a mass', '', '', WITH_U],
    ['a price without basis', ', bought_price', ', 4.20', "'{}'"],
  ])('refuse %s', async (_, columns, values, said) => {
    await expect(insert(columns, values, said)).rejects.toThrow(/violates check constraint/);
  });
});
