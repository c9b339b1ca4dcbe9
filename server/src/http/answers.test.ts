import { randomUUID } from 'node:crypto';
import { check } from '@each-bolt/core/shared';
import { ANSWERS, EVENTS, REFUSAL, addressOf, type AnsweredRoute } from '@each-bolt/core/wire';
import { Api, PASSWORD, beginStudy, type Begun } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { ROUTES } from './roles';

// Every route that answers with JSON does so as it is declared: what it sends is read here as the page reads it.

let api: Api;
let study: Begun;
let drop: () => Promise<void>;
let change: string;

beforeAll(async () => {
  const database = await testDatabase();
  drop = database.drop;
  api = await Api.over(database.pool);
  study = await beginStudy(api);
  change = randomUUID();
  const [part, rig] = [randomUUID(), randomUUID()];
  await api.change(study.studyId, [{ kind: 'part.add', id: part, fields: study.part() }], change);
  await api.change(study.studyId, [
    {
      kind: 'rig.add',
      id: rig,
      fields: {
        ...{ sequence: 0, name: 'guide', madeFor: 'rotors', hazards: ['magnets'], design: '', timeToMakeS: 3600, ratedN: 900, factor: 2 },
        ...{ wentWrong: '', state: 'made', copies: 1 },
      },
    },
  ]);
  // another study, to plan in: the first is what it learns from
  study = await beginStudy(api);
  await api.change(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields: study.part() }], (change = randomUUID()));
});
afterAll(async () => {
  await api.stop();
  await drop();
});

const asRead = (route: AnsweredRoute, body: unknown): readonly string[] => {
  const read = check<unknown>(ANSWERS[route], body);
  return read.ok ? [] : read.issues.map(({ field, message }) => `${field}: ${message}`);
};

describe('an answer', () => {
  const read = (Object.keys(ANSWERS) as AnsweredRoute[]).filter((route) => route.startsWith('GET '));
  it.each(read)('%s is as declared', async (route) => {
    const at = { id: study.studyId, change };
    const { status, body } = await api.get(addressOf(route, at, route.endsWith('/changes') ? { since: '0' } : {}));
    expect([status, asRead(route, body)]).toEqual([200, []]);
    // and holds something to be read
    if (Array.isArray(body) && !route.endsWith('/instruments')) expect([route, body.length > 0]).toEqual([route, true]);
  });
  it('to a change, to one sent again, and to an act on an account is as declared', async () => {
    const id = randomUUID();
    const ops = [{ kind: 'part.add', id: randomUUID(), fields: study.part() }] as const;
    for (const status of [201, 200]) {
      const answer = await api.change(study.studyId, ops, id);
      expect([answer.status, asRead('POST /api/studies/:id/changes', answer.body)]).toEqual([status, []]);
    }
    const here = await api.post(`/api/studies/${study.studyId}/here`, JSON.stringify({ connection: randomUUID(), partId: null }));
    expect(asRead('POST /api/studies/:id/here', here.body)).toEqual([]);
    const account = { login: 'mara', name: 'Mara', password: PASSWORD, standing: 'member' };
    const added = await api.post('/api/people', JSON.stringify(account));
    expect([added.status, asRead('POST /api/people', added.body)]).toEqual([201, []]);
    const signedIn = await api.nobody().post('/api/sign-in', JSON.stringify({ login: 'mara', password: PASSWORD }));
    expect([signedIn.status, asRead('POST /api/sign-in', signedIn.body)]).toEqual([200, []]);
    const { body: me } = await api.nobody().get('/api/me');
    expect(asRead('GET /api/me', me)).toEqual([]);
  });
  it('that is a refusal is as declared, conflicts and all', async () => {
    const partId = randomUUID();
    await api.change(study.studyId, [{ kind: 'part.add', id: partId, fields: study.part() }]);
    const edit = { kind: 'part.edit', id: partId, was: { name: 'something else' }, fields: { name: 'plate' } } as const;
    const clash = await api.change(study.studyId, [edit]);
    expect([clash.status, check(REFUSAL, clash.body).ok]).toEqual([409, true]);
    expect((clash.body as unknown as { conflicts: unknown[] }).conflicts).toHaveLength(1);
    for (const path of [`/api/studies/${randomUUID()}`, '/api/studies/x', '/api/no-such'])
      expect([path, check(REFUSAL, (await api.get(path)).body).ok]).toEqual([path, true]);
  });
  it('that is another is not taken for it', () => {
    expect(asRead('GET /api/studies', [{ id: 'x', title: 'no more' }])).not.toEqual([]);
    expect(asRead('GET /api/studies/:id', { revision: 1, study: {}, parts: [] })).not.toEqual([]);
    expect(asRead('GET /api/studies/:id/changes/:change', { id: 'x', ops: [{ kind: 1 }] })).not.toEqual([]);
  });
  it('is declared for every route there is, but those that give a file, a page of labels or a stream', () => {
    const others = Object.keys(ROUTES).filter((route) => !(route in ANSWERS) && !(route in EVENTS));
    expect(others).toEqual([
      'GET /api/studies/:id/archive',
      'GET /api/studies/:id/bench/sheets/:sheet/labels',
      'GET /api/instruments/:instrument/file',
      'GET /api/studies/:id/files/:sha256',
      'GET /api/studies/:id/files/:sha256/thumbnail',
    ]);
    expect([...Object.keys(ANSWERS), ...Object.keys(EVENTS)].filter((route) => !(route in ROUTES))).toEqual([]);
  });
});
