import { randomUUID } from 'node:crypto';
import { blank, UNANSWERED, type Op, type PackageFields, type RigFields } from '@each-bolt/core/record';
import { Api, beginStudy, type Begun, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import type { HeldVehicle } from '@each-bolt/core/plan';
import type { OrganisationRig } from '@each-bolt/core/wire';
import type { ExperienceRow } from './queries';

const RIG: RigFields = {
  ...{
    sequence: 0,
    name: 'rotor guide',
    madeFor: 'rotor of the rear drive unit',
    hazards: ['magnets'],
    design: 'two rails',
    timeToMakeS: 14_400,
  },
  ...{ ratedN: 3000, factor: 2, wentWrong: 'rails too short', state: 'made', copies: 1 },
};

describe('planning on the server', () => {
  let api: Api;
  let drop: () => Promise<void>;
  let earlier: Begun;
  let study: Begun;
  beforeAll(async () => {
    const database = await testDatabase();
    drop = database.drop;
    api = await Api.over(database.pool);
    earlier = await beginStudy(api);
    study = await beginStudy(api);
  });
  afterAll(async () => {
    await api.stop();
    await drop();
  });
  const make = async (of: Begun, ops: readonly Op[]): Promise<Pick<Problem, 'code' | 'message' | 'issues'>> => {
    const { status, body } = await api.change<Problem>(of.studyId, ops);
    return status === 201 ? { code: 'kept', message: '', issues: [] } : body;
  };
  const pack = (fields: Partial<PackageFields>, id = randomUUID()): Op => ({
    kind: 'package.add',
    id,
    fields: { ...blank('package', { name: 'job', sequence: 0 }), ...fields },
  });

  it('learns parts and hours of a subsystem from earlier studies: loose parts with all that is above them', async () => {
    const { vehicleId, subsystemId, part } = earlier;
    const door = randomUUID();
    const done = { vehicleId, subsystemId, startedOn: '2026-05-04', doneOn: '2026-05-05', people: 2, workedS: 7200 };
    const kept = await make(earlier, [
      { kind: 'part.add', id: door, fields: part({ name: 'door', quantity: 2 }) },
      { kind: 'part.add', id: randomUUID(), fields: part({ name: 'bracket', quantity: 3, parentId: door, subsystemId: null }) },
      { kind: 'part.add', id: randomUUID(), fields: part({ name: 'panel', parentId: door, subsystemId: null }) },
      pack(done),
      pack({ ...done, people: 1, workedS: 3600 }),
    ]);
    expect(kept.code).toBe('kept');
    const { body } = await api.get<readonly ExperienceRow[]>(`/api/studies/${study.studyId}/plan/experience`);
    // 2 × (3 + 1) parts; 2 people × 2 h + 1 h
    expect(body).toEqual([expect.objectContaining({ vehicle: 'Drayman II', subsystem: 'Sliding cargo door', parts: 8, peopleS: 18_000 })]);
    // what is not all done says nothing of the hours
    await make(earlier, [pack({ vehicleId, subsystemId, startedOn: '2026-05-06' })]);
    const again = await api.get<readonly ExperienceRow[]>(`/api/studies/${study.studyId}/plan/experience`);
    expect(again.body[0]?.peopleS).toBeNull();
    expect((await api.get<readonly ExperienceRow[]>(`/api/studies/${earlier.studyId}/plan/experience`)).body).toEqual([]);
  });
  it('tells which vehicles the organisation has studied, by name only to people of the study', async () => {
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    const held = async (who: Api) => (await who.get<readonly HeldVehicle[]>(`/api/studies/${study.studyId}/plan/held-vehicles`)).body;
    expect((await held(api)).map((v) => v.name).sort()).toEqual(['Drayman II', 'Pannier']);
    expect((await held(odo)).map((v) => [v.name, v.study, v.modelYear])).toEqual([
      [null, null, 2026],
      [null, null, 2026],
    ]);
  });
  it('finds a rig of an earlier study again', async () => {
    await make(earlier, [{ kind: 'rig.add', id: randomUUID(), fields: RIG }]);
    const { body } = await api.get<readonly OrganisationRig[]>(`/api/studies/${study.studyId}/plan/organisation-rigs`);
    expect(body).toEqual([
      expect.objectContaining({ study: 'Last-mile vans', name: 'rotor guide', hazards: ['magnets'], wentWrong: 'rails too short' }),
    ]);
  });
  it('counts the lines that the bench recorded, by day, vehicle and subsystem', async () => {
    await make(study, [{ kind: 'part.add', id: randomUUID(), fields: study.part() }]);
    const { body } = await api.get<readonly { day: string; lines: number }[]>(`/api/studies/${study.studyId}/plan/recorded`);
    expect(body).toEqual([expect.objectContaining({ vehicleId: study.vehicleId, subsystemId: study.subsystemId, lines: 1 })]);
    expect(body[0]?.day).toMatch(/^\d{4}-\d{2}-\d{2}$/);
  });
  it('keeps every field of every kind of planning as it was written', async () => {
    const ids = {
      candidate: randomUUID(),
      rig: randomUUID(),
      lift: randomUUID(),
      odo: randomUUID(),
      first: randomUUID(),
      second: randomUUID(),
    };
    const price = { price: '48990.50', priceCurrency: 'EUR', priceYear: 2026 };
    const { vehicleId, subsystemId } = study;
    const off = [{ from: '2026-06-01', to: '2026-06-05', why: 'holiday' }];
    const resource = { sequence: 0, personId: null, note: 'mornings only' };
    const ops: readonly Op[] = [
      {
        kind: 'candidate.add',
        id: ids.candidate,
        fields: {
          ...{
            sequence: 0,
            name: 'Pannier',
            maker: 'Ostler Works',
            modelYear: 2025,
            vehicleClass: 'medium van',
            drive: 'front wheels',
            voltageV: 400,
          },
          ...{ novelty: 6.5, noveltyNote: 'cells in the frame', waitDays: 30, ...price, note: '', vehicleId },
        },
      },
      {
        kind: 'request.add',
        id: randomUUID(),
        fields: { candidateId: ids.candidate, sequence: 0, who: 'the body group', strength: 4, asks: 'the door' },
      },
      {
        kind: 'claim.add',
        id: randomUUID(),
        fields: {
          sequence: 0,
          vehicleId,
          statement: '12 % lighter door',
          sourceKind: 'the maker',
          source: 'launch',
          test: 'weigh',
          state: 'to test',
          outcome: '',
        },
      },
      {
        kind: 'scope.add',
        id: randomUUID(),
        fields: { vehicleId, subsystemId, depth: 'closed', reason: 'seal cannot be bought', expectedParts: 40, expectedS: 3600 },
      },
      { kind: 'resource.add', id: ids.lift, fields: { ...resource, kind: 'lift', name: 'Lift 1', skills: [], daysOff: [], ratedKg: 4000 } },
      {
        kind: 'resource.add',
        id: ids.odo,
        fields: { ...resource, kind: 'person', name: 'Odo', skills: ['high voltage'], daysOff: off, ratedKg: null },
      },
      { kind: 'rig.add', id: ids.rig, fields: RIG },
      pack({ name: 'first' }, ids.first),
      pack(
        {
          name: 'second',
          optimisticS: 1,
          mostLikelyS: 2,
          pessimisticS: 3,
          who: [ids.odo],
          after: [ids.first],
          rigId: ids.rig,
          place: 'lift',
          hazards: ['hoist'],
        },
        ids.second,
      ),
      {
        kind: 'holdPoint.add',
        id: randomUUID(),
        fields: {
          packageId: ids.second,
          sequence: 0,
          hazard: 'hoist',
          asks: 'Voltage',
          kind: 'number',
          unit: 'V',
          low: 0,
          high: 60,
          ...UNANSWERED,
          value: 0,
        },
      },
      {
        kind: 'liftSetUp.add',
        id: randomUUID(),
        fields: {
          ...{ vehicleId, resourceId: ids.lift, massKg: 2100, massUKg: 5, xM: 1.4, yM: -0.01, placeUM: 0.02, marginM: 0.1 },
          pads: [0, 1, 2].map((n) => ({ xM: n, yM: n * n - 1 })),
        },
      },
      {
        kind: 'liftStep.add',
        id: randomUUID(),
        fields: { vehicleId, sequence: 0, label: 'battery', partId: null, subsystemId: null, massKg: 400, massUKg: 4, xM: 1.6, yM: 0 },
      },
    ];
    expect(await make(study, ops)).toMatchObject({ code: 'kept' });
    const record = await api.record(study.studyId);
    const rows: readonly { id: string }[] = [
      ...[
        record.candidates,
        record.requests,
        record.claims,
        record.scopes,
        record.resources,
        record.rigs,
        record.packages,
        record.holdPoints,
      ],
      ...[record.liftSetUps, record.liftSteps],
    ].flat();
    for (const op of ops)
      expect(rows.find((row) => row.id === op.id)).toEqual({ id: op.id, version: record.revision, ...('fields' in op ? op.fields : {}) });
  });
  it('refuses what would hang in the air, in words', async () => {
    const { packages, resources, rigs, scopes } = await api.record(study.studyId);
    const without = ({ id: _id, version: _version, ...was }: { id: string; version: number }): object => was;
    const off = async (kind: 'package' | 'resource' | 'rig', row: { id: string; version: number } | undefined) =>
      (await make(study, [{ kind: `${kind}.remove`, id: row!.id, was: without(row!) } as Op])).issues.map((i) => i.message);
    expect(
      await off(
        'package',
        packages.find((p) => p.name === 'first'),
      ),
    ).toEqual([expect.stringContaining('“second” would name a work package that is not in this study; take it out')]);
    expect(await off('rig', rigs[0])).toEqual([
      expect.stringContaining('“second” would name a rig that is not in this study; choose another or none'),
    ]);
    expect(
      await off(
        'resource',
        resources.find((r) => r.name === 'Odo'),
      ),
    ).toEqual([expect.stringContaining('“second” would name a person or place that is not in this study')]);
    const { id: _id, version: _version, ...scope } = scopes[0]!;
    expect((await make(study, [{ kind: 'scope.add', id: randomUUID(), fields: scope }])).issues[0]?.message).toEqual(
      expect.stringMatching(/^The scope of “Sliding cargo door of .+” is there already; change that one$/),
    );
  });
  it('lists every fault of a package', async () => {
    const { issues } = await make(study, [
      pack({ optimisticS: 3, mostLikelyS: 2, pessimisticS: 5, who: [randomUUID(), randomUUID()], doneOn: '2026-05-01' }),
    ]);
    expect(issues.map((i) => i.code).sort()).toEqual(['crew', 'effort-order', 'not-started']);
  });
});
