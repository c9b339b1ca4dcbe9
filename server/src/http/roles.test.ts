import { randomUUID } from 'node:crypto';
import { blank, ENTITIES, ROLES, UNANSWERED, VERBS, evidence, removeOp, type Op, type OpKind, type Role } from '@each-bolt/core/record';
import { Api, STUDY_FIELDS, beginStudy, type Begun, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { OPS, ROUTES, mayMake, type Route } from './roles';

type Who = Role | 'stranger' | 'nobody';

/** What the trade says each may do, written out by hand: the table of the server must agree. L lead, R recorder, C cost, r reader. */
const MAY: Readonly<Record<OpKind, string>> = {
  'study.add': 'L',
  'study.edit': 'LRC',
  'study.remove': '',
  'member.add': 'L',
  'member.edit': 'L',
  'member.remove': 'L',
  'vehicle.add': 'LR',
  'vehicle.edit': 'LR',
  'vehicle.remove': 'LR',
  'subsystem.add': 'LR',
  'subsystem.edit': 'LR',
  'subsystem.remove': 'LR',
  'part.add': 'LR',
  'part.edit': 'LRC',
  'part.remove': 'LR',
  'fasteners.add': 'LR',
  'fasteners.edit': 'LR',
  'fasteners.remove': 'LR',
  'joints.add': 'LR',
  'joints.edit': 'LR',
  'joints.remove': 'LR',
  'question.add': 'LRC',
  'question.edit': 'LRC',
  'question.remove': 'LRC',
  'picture.add': 'LR',
  'picture.edit': 'LR',
  'picture.remove': 'LR',
  'candidate.add': 'LR',
  'candidate.edit': 'LR',
  'candidate.remove': 'LR',
  'request.add': 'LRCr',
  'request.edit': 'LRC',
  'request.remove': 'LRC',
  'claim.add': 'LRC',
  'claim.edit': 'LRC',
  'claim.remove': 'LRC',
  'scope.add': 'L',
  'scope.edit': 'L',
  'scope.remove': 'L',
  'resource.add': 'L',
  'resource.edit': 'L',
  'resource.remove': 'L',
  'rig.add': 'LR',
  'rig.edit': 'LR',
  'rig.remove': 'LR',
  'package.add': 'L',
  'package.edit': 'LR',
  'package.remove': 'L',
  'holdPoint.add': 'LR',
  'holdPoint.edit': 'LR',
  'holdPoint.remove': 'L',
  'liftSetUp.add': 'LR',
  'liftSetUp.edit': 'LR',
  'liftSetUp.remove': 'LR',
  'liftStep.add': 'LR',
  'liftStep.edit': 'LR',
  'liftStep.remove': 'LR',
  'connection.add': 'LR',
  'connection.edit': 'LR',
  'connection.remove': 'LR',
  'components.add': 'LR',
  'components.edit': 'LR',
  'components.remove': 'LR',
  'board.add': 'LR',
  'board.edit': 'LR',
  'board.remove': 'LR',
  'fluid.add': 'LR',
  'fluid.edit': 'LR',
  'fluid.remove': 'LR',
  'session.add': 'LR',
  'session.edit': 'LR',
  'session.remove': 'LR',
  'step.add': 'LR',
  'step.edit': 'LR',
  'step.remove': 'LR',
  'reading.add': 'LR',
  'reading.edit': '',
  'reading.remove': 'LR',
  'recount.add': 'LR',
  'recount.edit': 'LR',
  'recount.remove': 'L',
  'sheet.add': 'LR',
  'sheet.edit': 'L',
  'sheet.remove': 'L',
  'scan.add': 'LR',
  'scan.edit': 'LR',
  'scan.remove': 'LR',
  'identification.add': 'LR',
  'identification.edit': 'LR',
  'identification.remove': 'LR',
  'section.add': 'LR',
  'section.edit': 'LR',
  'section.remove': 'LR',
  'holePattern.add': 'LR',
  'holePattern.edit': 'LR',
  'holePattern.remove': 'LR',
  'gaugeStudy.add': 'LR',
  'gaugeStudy.edit': 'LR',
  'gaugeStudy.remove': 'LR',
  'port.add': 'LR',
  'port.edit': 'LR',
  'port.remove': 'LR',
  'passage.add': 'LR',
  'passage.edit': 'LR',
  'passage.remove': 'LR',
  'boardDuty.add': 'LR',
  'boardDuty.edit': 'LR',
  'boardDuty.remove': 'LR',
  'supply.add': 'LR',
  'supply.edit': 'LR',
  'supply.remove': 'LR',
  'heating.add': 'LR',
  'heating.edit': 'LR',
  'heating.remove': 'LR',
  'runCase.add': 'LR',
  'runCase.edit': 'LR',
  'runCase.remove': 'LR',
  'runChange.add': 'LR',
  'runChange.edit': 'LR',
  'runChange.remove': 'LR',
  'pack.add': 'LR',
  'pack.edit': 'LR',
  'pack.remove': 'LR',
  'explanation.add': 'LRC',
  'explanation.edit': 'LRC',
  'explanation.remove': 'LRC',
  'signOff.add': 'LR',
  'signOff.edit': '',
  'signOff.remove': 'L',
  'checkReading.add': 'LR',
  'checkReading.edit': 'LR',
  'checkReading.remove': 'LR',
  'recountSample.add': 'LR',
  'recountSample.edit': 'LR',
  'recountSample.remove': 'LR',
};
const LETTER: Readonly<Record<Role, string>> = { lead: 'L', recorder: 'R', cost: 'C', reader: 'r' };

describe('the table of ops', () => {
  it('names every kind of op there is', () =>
    expect(Object.keys(OPS).sort()).toEqual(ENTITIES.flatMap((entity) => VERBS.map((verb) => `${entity}.${verb}`)).sort()));
  it.each(Object.keys(MAY) as OpKind[])('%s', (kind) => {
    const letters = ROLES.filter((role) => OPS[kind].roles.includes(role)).map((role) => LETTER[role]);
    expect(letters.join('')).toBe(MAY[kind]);
  });
  it('lets those who cost edit what a price stands on, not what a part is', () => {
    const edit = (fields: object): Op => ({ kind: 'part.edit', id: randomUUID(), was: fields, fields });
    expect(mayMake('cost', edit({ boughtPrice: '4.20', supplier: 'x' }))).toBe(true);
    expect(mayMake('cost', edit({ boughtPrice: '4.20', massEachKg: 1 }))).toBe(false);
    // how a price is known is theirs, how a mass is known is not
    expect(mayMake('cost', edit({ evidence: { boughtPrice: evidence('T', { source: 'offer 12' }) } }))).toBe(true);
    expect(mayMake('cost', edit({ evidence: { boughtPrice: null } }))).toBe(true);
    expect(mayMake('cost', edit({ evidence: { massEachKg: evidence('M') } }))).toBe(false);
    expect(mayMake('cost', edit({ evidence: { boughtPrice: null, massEachKg: null } }))).toBe(false);
    expect(mayMake('recorder', { kind: 'study.edit', id: randomUUID(), was: {}, fields: { currency: 'USD' } })).toBe(false);
    expect(mayMake('cost', { kind: 'study.edit', id: randomUUID(), was: {}, fields: { state: 'archived' } })).toBe(false);
  });
  it('lets those who record say what was done, not what is planned', () => {
    const edit = (fields: object): Op => ({ kind: 'package.edit', id: randomUUID(), was: fields, fields });
    expect(mayMake('recorder', edit({ startedOn: '2026-06-01', workedS: 3600 }))).toBe(true);
    expect(mayMake('recorder', edit({ mostLikelyS: 3600 }))).toBe(false);
  });
});

/** Fields of one record of each kind of planning, of which what it hangs on is not there. */
const planFields = (): Readonly<Record<string, object>> => {
  const price = { price: null, priceCurrency: null, priceYear: null };
  const somewhere = { vehicleId: randomUUID(), sequence: 0 };
  return {
    candidate: {
      ...{ sequence: 0, name: 'Pannier', maker: '', modelYear: null, vehicleClass: null, drive: null, voltageV: null, novelty: null },
      ...{ noveltyNote: '', waitDays: null, ...price, note: '', vehicleId: null },
    },
    request: { candidateId: randomUUID(), sequence: 0, who: 'the body group', strength: 3, asks: '' },
    claim: { ...somewhere, statement: 'lighter', sourceKind: 'the maker', source: '', test: '', state: 'to test', outcome: '' },
    scope: { vehicleId: randomUUID(), subsystemId: randomUUID(), depth: 'parts', reason: '', expectedParts: null, expectedS: null },
    resource: { sequence: 0, kind: 'bay', name: 'Bay 1', personId: null, skills: [], daysOff: [], ratedKg: null, note: '' },
    rig: {
      ...{ sequence: 0, name: 'guide', madeFor: '', hazards: [], design: '', timeToMakeS: null, ratedN: null, factor: 2, wentWrong: '' },
      ...{ state: 'idea', copies: 1 },
    },
    package: blank('package', { name: 'Take the door off', sequence: 0 }),
    holdPoint: {
      packageId: randomUUID(),
      sequence: 0,
      hazard: '',
      asks: 'Who?',
      kind: 'text',
      unit: '',
      low: null,
      high: null,
      ...UNANSWERED,
    },
    liftSetUp: {
      ...{ vehicleId: randomUUID(), resourceId: null, massKg: 2000, massUKg: 10, xM: 1, yM: 0, placeUM: 0.02, marginM: 0.1 },
      pads: [1, 2, 3].map((n) => ({ xM: n, yM: n })),
    },
    liftStep: { ...somewhere, label: 'battery', partId: null, subsystemId: null, massKg: null, massUKg: null, xM: null, yM: null },
  };
};

/** The same for the records of the bench. */
const benchFields = (): Readonly<Record<string, object>> => {
  const [partId, vehicleId, now] = [randomUUID(), randomUUID(), '2026-06-01T08:00:00.000Z'];
  return {
    connection: blank('connection', { partId, kind: 'hose' }),
    components: blank('components', { partId }),
    board: blank('board', { partId }),
    fluid: blank('fluid', { partId, name: 'coolant' }),
    session: {
      ...{ sequence: 0, name: 'Door off', packageId: null, vehicleId, subsystemId: null, remover: '', recorder: '', openedAt: now },
      ...{ closedAt: null, pauseAfterS: 600, acknowledged: [], waived: [], note: '' },
    },
    step: blank('step', { vehicleId, sessionId: null, sequence: 0 }),
    reading: {
      ...{ aboutKind: 'part', aboutId: partId, aboutField: 'massEachKg', quantity: 'mass', value: 1, u: 0.1, tare: 0, elements: null },
      ...{ raw: '1 kg', instrument: 'scale', serial: '1', stable: true, takenAt: now, takenBy: 'Odo', note: '' },
    },
    recount: { partId, by: 'Odo', countedAt: now, counts: [], others: '', state: 'agrees', settled: '' },
    sheet: { vehicleId, subsystemId: null, packageId: null, prefix: 'A01', firstNumber: 1, count: 1, stock: 'Roll', printedAt: now },
  };
};

/** The same for what is measured. */
const measureFields = (): Readonly<Record<string, object>> => {
  const [partId, now] = [randomUUID(), '2026-06-01T08:00:00.000Z'];
  const figures = {
    ...{
      triangles: 12,
      volumeM3: 1e-6,
      volumeUM3: 1e-8,
      areaM2: 6e-4,
      centroidM: [0, 0, 0],
      openEdges: 0,
      nonManifoldEdges: 0,
      turnedEdges: 0,
    },
    ...{ holes: 0, sidesM: [0.01, 0.01, 0.01], minimumM: [0.01, 0.01, 0.01], hullVolumeM3: 1e-6, trimmedM: [0.01, 0.01, 0.01] },
    ...{ shareFraction: 0.98, heldFraction: 1, heldOf: 'volume' },
  };
  return {
    port: blank('port', { partId, name: 'outlet' }),
    passage: blank('passage', { partId, name: 'core' }),
    boardDuty: blank('boardDuty', { partId, name: 'as recorded', isWhatIf: false }),
    supply: blank('supply', { partId, name: 'lamp' }),
    heating: blank('heating', { vehicleId: partId, name: 'as recorded', isWhatIf: false }),
    runCase: blank('runCase', { vehicleId: partId, name: 'outlet forward', reason: 'Shorter hose?' }),
    runChange: { ...blank('runChange', { caseId: partId, change: 'leave out' }), connectionId: partId },
    scan: {
      ...{ partId, sequence: 0, sha256: 'a'.repeat(64), fileName: 'a.stl', format: 'STL', bytes: 684, unit: 'mm', unitBy: '', figures },
      ...{ instrument: '', serial: '', takenAt: now, takenBy: 'Odo', note: '' },
    },
    identification: {
      ...{ partId, sequence: 0, cues: ['draft'], readingId: null, marking: '', materialId: 'pp', grade: '', processId: null, reason: '' },
      ...{ decidedAt: now, decidedBy: 'Odo' },
    },
    section: {
      ...{ partId, sequence: 0, name: 'sill', kind: 'rectangle', dimensions: { width: 0.04, height: 0.08 }, loops: [], scanId: null },
      ...{ materialId: null, note: '' },
    },
    holePattern: { partId, sequence: 0, name: 'foot', points: [[0, 0, 0], [0.1, 0, 0]], source: 'caliper', note: '' }, // prettier-ignore
    pack: { ...blank('pack', { partId, sequence: 0, name: 'as recorded', isWhatIf: false, author: '', reason: '' }) },
    gaugeStudy: {
      ...{
        sequence: 0,
        name: 'wall',
        quantity: 'length',
        persons: ['Odo', 'Wenna'],
        parts: ['a', 'b'],
        trials: 2,
        instrument: '',
        note: '',
      },
      readings: [0, 1].map(() => [0, 1].map(() => [null, null])),
    },
  };
};

/** The same for what the record is checked with. */
const checkingFields = (): Readonly<Record<string, object>> => {
  const [somebody, now] = ['Odo', '2026-06-01T08:00:00.000Z'];
  return {
    explanation: blank('explanation', { says: '3 g are missing', reason: 'Grease wiped off', by: somebody, at: now }),
    signOff: blank('signOff', {
      ...{ vehicleId: randomUUID(), subsystemId: randomUUID(), by: somebody, at: now, revision: 1, parts: 3, open: 0, explained: 0 },
    }),
    checkReading: blank('checkReading', {
      ...{ instrument: 'scale', serial: '1', quantity: 'mass', nominal: 1, nominalU: 0.0001, value: 1.001, takenAt: now },
    }),
    recountSample: blank('recountSample', {
      ...{ sampledBy: 'at random', assuranceFraction: 0.95, wrongFraction: 0.05, allowed: 0, seed: 1, outOf: 100, drawnAt: now },
    }),
  };
};

describe('the table, walked through over HTTP', () => {
  let api: Api;
  let drop: () => Promise<void>;
  let study: Begun;
  let who: Readonly<Record<Who, Api>>;
  beforeAll(async () => {
    const database = await testDatabase();
    drop = database.drop;
    api = await Api.over(database.pool);
    study = await beginStudy(api);
    const [recorder, cost, reader, stranger] = [await api.as('Odo'), await api.as('Lisk'), await api.as('Pell'), await api.as('Nobody')];
    await api.invite(study.studyId, recorder, 'recorder');
    await api.invite(study.studyId, cost, 'cost');
    await api.invite(study.studyId, reader, 'reader');
    who = { lead: api, recorder, cost, reader, stranger, nobody: api.nobody() };
  });
  afterAll(async () => {
    await api.stop();
    await drop();
  });

  const pathOf = (route: Route): readonly [string, string] => {
    const [method = '', path = ''] = route.split(' ');
    const filled = path
      .replace(':id', study.studyId)
      .replace(':change', randomUUID())
      .replace(':sha256', 'a'.repeat(64))
      .replace(':person', randomUUID());
    return [method, path.endsWith('/events') ? `${filled}?since=0&connection=${randomUUID()}` : filled];
  };
  const statusOf = async (api: Api, route: Route): Promise<number> => {
    const [method, path] = pathOf(route);
    const ending = new AbortController();
    const body = method === 'GET' ? {} : { body: '{}', headers: { 'Content-Type': 'application/json' } };
    const { status } = await api.raw(path, { method, ...body, signal: ending.signal });
    ending.abort();
    return status;
  };
  /** every route but those that sign out whoever walks */
  const walked = (Object.keys(ROUTES) as Route[]).filter((route) => route !== 'POST /api/sign-out');

  it.each(walked)('%s', async (route) => {
    const access = ROUTES[route];
    for (const [name, person] of Object.entries(who) as [Who, Api][]) {
      const status = await statusOf(person, route);
      const message = `${name}: ${status}`;
      if (access === 'anyone') continue;
      if (name === 'nobody') expect(message).toBe(`${name}: 401`);
      else if (access === 'recorder') expect([message, status === 403]).toEqual([message, !['lead', 'recorder'].includes(name)]);
      else if (access === 'organisation-lead') expect([message, status === 403]).toEqual([message, name !== 'lead']);
      else if (typeof access === 'object') {
        if (name === 'stranger') expect(message).toBe(`${name}: 404`);
        else expect([message, status === 403]).toEqual([message, !(access as readonly Role[]).includes(name)]);
      } else expect([401, 403]).not.toContain(status);
    }
  });

  it('has no route that the table does not know', async () => {
    // a guard is put before each by `routed`, which takes only names of the table
    const unknown = await Promise.all(['/api/secrets', `/api/studies/${study.studyId}/everything`].map((path) => api.get(path)));
    expect(unknown.map((answer) => answer.status)).toEqual([404, 404]);
  });

  it.each(Object.keys(MAY) as OpKind[])('%s, as each of them', async (kind) => {
    for (const role of ROLES) {
      const [op] = await opsFor(kind);
      const answer = await who[role].change<Problem>(study.studyId, [op]);
      const refused = answer.status === 403;
      expect([role, kind, refused]).toEqual([role, kind, !MAY[kind].includes(LETTER[role])]);
    }
    const [op] = await opsFor(kind);
    expect((await who.stranger.change(study.studyId, [op])).status).toBe(404);
    expect((await who.nobody.change(study.studyId, [op])).status).toBe(401);
  });

  /** An op of each kind that would be kept, or refused for another reason than the role. */
  const opsFor = async (kind: OpKind): Promise<readonly unknown[]> => {
    const id = randomUUID();
    const { vehicles, study: row } = await api.record(study.studyId);
    const question = {
      kind: 'question',
      aboutKind: 'study',
      aboutId: study.studyId,
      aboutField: null,
      text: 'How many spot welds?',
      ownerId: null,
      dueOn: null,
      owedTo: '',
      state: 'open',
      answer: '',
    };
    const fields: Readonly<Record<string, object>> = {
      study: STUDY_FIELDS,
      member: { personId: randomUUID(), role: 'reader' },
      vehicle: { ...vehicles[0], id: undefined, version: undefined },
      subsystem: { parentId: null, sequence: 9, name: 'Load floor' },
      part: study.part(),
      fasteners: blank('fasteners', { partId: randomUUID() }),
      joints: blank('joints', { partId: randomUUID() }),
      question,
      ...planFields(),
      ...benchFields(),
      ...measureFields(),
      ...checkingFields(),
      picture: { partId: randomUUID(), rigId: null, sequence: 0, sha256: 'a'.repeat(64), widthPx: 1, heightPx: 1, shows: '', marks: [] },
    };
    const [entity = '', verb] = kind.split('.');
    if (verb === 'add') {
      expect(Object.keys(fields)).toContain(entity);
      return [{ kind, id, fields: fields[entity] }];
    }
    if (verb === 'edit') {
      const edited =
        {
          study: { fastenersIn: false },
          member: { role: 'reader' },
          part: { supplier: 'x' },
          question: { text: 'x' },
          package: { note: 'x' },
        }[entity] ?? {};
      return [{ kind, id: entity === 'study' ? study.studyId : id, was: edited, fields: edited }];
    }
    return [entity === 'study' ? removeOp('study', row) : { kind, id, was: {} }];
  };
});

describe('an archived study', () => {
  it('is read by all and written by nobody until a lead opens it again', async () => {
    const { pool, drop } = await testDatabase();
    const api = await Api.over(pool);
    const study = await beginStudy(api);
    const state = (was: string, to: string) => [{ kind: 'study.edit', id: study.studyId, was: { state: was }, fields: { state: to } }];
    expect((await api.change(study.studyId, state('open', 'archived'))).status).toBe(201);
    const refused = await api.change<Problem>(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields: study.part() }]);
    expect([refused.status, refused.body.message]).toEqual([403, expect.stringContaining('archived') as string]);
    expect((await api.record(study.studyId)).study.state).toBe('archived');
    expect((await api.change(study.studyId, state('archived', 'open'))).status).toBe(201);
    expect((await api.change(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields: study.part() }])).status).toBe(201);
    await api.stop();
    await drop();
  });
});

describe('the people of a study', () => {
  it('can be taken off while their history stays, but one lead remains', async () => {
    const { pool, drop } = await testDatabase();
    const api = await Api.over(pool);
    const study = await beginStudy(api);
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    await odo.change(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields: study.part() }]);
    const { members } = await api.record(study.studyId);
    const off = (person: Api) =>
      removeOp(
        'member',
        members.find((m) => m.personId === person.personId)!,
      );
    expect((await api.change(study.studyId, [off(odo)])).status).toBe(201);
    expect((await odo.get(`/api/studies/${study.studyId}`)).status).toBe(404);
    const history = await api.get<readonly { madeBy: string }[]>(`/api/studies/${study.studyId}/history`);
    expect(history.body.map((change) => change.madeBy)).toContain('Odo Farrow');
    const alone = await api.change<Problem>(study.studyId, [off(api)]);
    expect([alone.status, alone.body.issues[0]?.code]).toEqual([422, 'lead-missing']);
    const unknown = await api.change<Problem>(study.studyId, [
      { kind: 'member.add', id: randomUUID(), fields: { personId: randomUUID(), role: 'reader' } },
    ]);
    expect([unknown.status, unknown.body.issues[0]?.code]).toEqual([422, 'person-missing']);
    await api.stop();
    await drop();
  });
});
