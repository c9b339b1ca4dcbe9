import { randomUUID } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { Api, PASSWORD, beginStudy, type Begun, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { depthOf } from './json';

const DASHES = '-'.repeat(36);
let api: Api;
let study: Begun;
let drop: () => Promise<void>;

beforeAll(async () => {
  const { pool, drop: dropped } = await testDatabase();
  drop = dropped;
  api = await Api.over(pool);
  study = await beginStudy(api);
});
afterAll(async () => {
  await api.stop();
  await drop();
});

const posted = (path: string, body: string | Uint8Array<ArrayBuffer>, headers: Record<string, string> = {}): Promise<Response> =>
  api.raw(path, { method: 'POST', headers: { 'Content-Type': 'application/json', ...headers }, body });
const toldOf = async (response: Promise<Response>): Promise<readonly [number, string]> => {
  const answer = await response;
  return [answer.status, ((await answer.json()) as Problem).message];
};

describe('a request with something odd about it', () => {
  it.each(['/api/studies/%zz/changes', '/api/studies/%E0%A4%A/archive'])('%s is refused with a sentence', async (path) => {
    expect(await toldOf(api.raw(path))).toEqual([400, 'The address holds a % that stands for nothing. Nothing was written']);
  });
  it('finds nothing under ids that are none', async () => {
    const under = `/api/studies/${study.studyId}`;
    const paths = [
      `/api/studies/${DASHES}`,
      `${under}/changes/${DASHES}`,
      `${under}/bench/sheets/${DASHES}/labels`,
      `${under}/files/${DASHES}`,
    ];
    expect(await Promise.all(paths.map(async (path) => (await api.raw(path)).status))).toEqual([404, 404, 404, 404]);
    expect((await api.raw(`${under}/history?rows=${DASHES}`)).status).toBe(400);
  });
  it('that nests without end is refused before it is read', async () => {
    expect(await toldOf(posted('/api/sign-in', `${'['.repeat(5000)}${']'.repeat(5000)}`))).toEqual([
      400,
      'The request nests lists and objects deeper than any record does. Nothing was written',
    ]);
  });
  it.each([
    ['{"a":[{"b":1}]}', 3],
    ['"[[[["', 0],
    ['["\\"[", []]', 2],
    ['["\\\\", []]', 2],
    ['[],[]', 1],
  ])('nests %s %i deep', (json, depth) => expect(depthOf(Buffer.from(json))).toBe(depth));
  it('to sign in may hold kilobytes, packed or not; a change may hold more', async () => {
    const long = JSON.stringify({ login: 'wenna', password: PASSWORD, more: 'x'.repeat(200_000) });
    const packed = new Uint8Array(gzipSync(long));
    expect(packed.length).toBeLessThan(1000);
    expect((await posted('/api/sign-in', long)).status).toBe(413);
    expect((await posted('/api/sign-in', packed, { 'Content-Encoding': 'gzip' })).status).toBe(413);
    const note = JSON.stringify({ id: randomUUID(), undoes: null, ops: [{ kind: 'part.add', id: randomUUID(), fields: study.part(), more: 'x'.repeat(200_000) }] }); // prettier-ignore
    expect((await posted(`/api/studies/${study.studyId}/changes`, note)).status).toBe(422);
  });
  it('is asked who it is before it is read', async () => {
    const body = '{"not": json';
    const nobody = await api.nobody().raw(`/api/studies/${study.studyId}/changes`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body }); // prettier-ignore
    expect(nobody.status).toBe(401);
  });
  it('holds a character that no database can hold: the field is named', async () => {
    for (const odd of ['\u0000', '\ud800']) {
      const fields = { ...study.part(), notes: `plate${odd}` };
      const response = await api.change<Problem>(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields }]);
      expect([response.status, response.body.issues[0]?.field]).toEqual([422, 'ops[0].fields.notes']);
    }
    expect((await api.post<Problem>('/api/sign-in', JSON.stringify({ login: 'a\u0000', password: 'b' }))).status).toBe(422);
  });
  it('adds the same row twice: refused, and neither is there', async () => {
    const add = { kind: 'part.add', id: randomUUID(), fields: study.part({ name: 'twice' }) };
    const response = await api.change<Problem>(study.studyId, [add, add]);
    expect(response.status).toBe(422);
    expect((await api.record(study.studyId)).parts.filter((part) => part.name === 'twice')).toEqual([]);
  });
  it('has thousands of faults: a hundred are told', async () => {
    const ops = Array.from({ length: 3000 }, () => ({ kind: 'part.add', id: randomUUID(), fields: {} }));
    const response = await api.change<Problem>(study.studyId, ops);
    expect([response.status, response.body.issues.length]).toEqual([422, 100]);
    const orphans = Array.from({ length: 300 }, () => ({
      kind: 'part.add',
      id: randomUUID(),
      fields: study.part({ parentId: randomUUID() }),
    }));
    const told = await api.change<Problem>(study.studyId, orphans);
    expect([told.status, told.body.issues.length]).toEqual([422, 100]);
    expect(told.body.message).toMatch(/Of its 300 faults the first 100 are listed/);
  });
  it('comes with letters in its headers that a header cannot hold', async () => {
    const response = await api.raw(`/api/studies/${study.studyId}`, { headers: { 'X-Device': '\u00e9\u00ff', 'Last-Event-ID': '\u00ff' } });
    expect(response.status).toBe(200);
  });
});

it('what the program answers is stored by no browser, pictures for their session alone', async () => {
  const caching = async (path: string): Promise<string | null> => (await api.raw(path)).headers.get('cache-control');
  expect(await Promise.all(['/api/people', `/api/studies/${study.studyId}/history`, '/api/studies'].map(caching))).toEqual(
    Array(3).fill('no-store'),
  );
  expect(await caching(`/api/studies/${study.studyId}`)).toBe('no-cache');
});

it('one archive brought in several times at once is several studies, none half', async () => {
  const { studyId, part } = await beginStudy(api);
  await api.change(studyId, [{ kind: 'part.add', id: randomUUID(), fields: part({ name: 'carried over' }) }]);
  const zip = new Uint8Array(await (await api.raw(`/api/studies/${studyId}/archive`)).arrayBuffer());
  const bring = (): Promise<Response> => posted('/api/archives', zip, { 'Content-Type': 'application/zip' });
  const answers = await Promise.all(Array.from({ length: 5 }, bring));
  expect(answers.map((answer) => answer.status)).toEqual(Array(5).fill(201));
  const ids = new Set(await Promise.all(answers.map(async (answer) => ((await answer.json()) as { studyId: string }).studyId)));
  expect(ids.size).toBe(5);
  for (const id of ids) expect((await api.record(id)).parts.map((p) => p.name)).toEqual(['carried over']);
});
