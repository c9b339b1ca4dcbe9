import { randomUUID } from 'node:crypto';
import { Api, PASSWORD, beginStudy, listen, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import type { Pool } from '../db/pool';
import { many, one } from '../db/rows';
import { lockAfter } from './sign-in';

interface Me {
  readonly person: { readonly id: string; readonly name: string } | null;
  readonly units: string | null;
  readonly firstRun: boolean;
  readonly demo: readonly object[];
}

let pool: Pool;
let drop: () => Promise<void>;
let wenna: Api;
const login = async (): Promise<string> =>
  (await one<{ login: string }>(pool, 'select login from person where id = $1', [wenna.personId])).login;
const signIn = (api: Api, name: string, password: string) =>
  api.post<Problem & { person: object }>('/api/sign-in', JSON.stringify({ login: name, password }));

beforeAll(async () => {
  ({ pool, drop } = await testDatabase());
  wenna = await Api.over(pool);
});
beforeEach(() => pool.query('delete from sign_in_attempt'));
afterAll(async () => {
  await wenna.stop();
  await drop();
});

describe('signing in', () => {
  it('takes name and password, whatever case the name is typed in, and tells who one is', async () => {
    const api = wenna.nobody();
    expect((await signIn(api, ` ${(await login()).toUpperCase()} `, PASSWORD)).status).toBe(200);
    expect((await api.get<Me>('/api/me')).body.person).toMatchObject({ name: 'Wenna Tarn' });
  });
  it('says the same of a wrong password and of a name that nobody has', async () => {
    const [wrong, nobody] = [await signIn(wenna.nobody(), await login(), 'wrong'), await signIn(wenna.nobody(), 'nobody', PASSWORD)];
    expect([wrong.status, nobody.status]).toEqual([401, 401]);
    expect(wrong.body.message).toBe(nobody.body.message);
  });
  it('keeps only a hash of the password, by argon2id', async () => {
    const hashes = await many<{ hash: string }>(pool, 'select password_hash as hash from person order by id');
    for (const { hash } of hashes) expect(hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });
  it('begins a session of its own, closed to scripts and to other sites', async () => {
    const response = await wenna.nobody().raw('/api/sign-in', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ login: await login(), password: PASSWORD }),
    });
    const session = response.headers.getSetCookie().find((cookie) => cookie.startsWith('eachbolt='));
    expect(session).toMatch(/HttpOnly/);
    expect(session).toMatch(/SameSite=Strict/);
  });
  it('ends with signing out: the old cookie is of no use', async () => {
    const api = await wenna.as('Odo Farrow');
    const before = api.at(api.address);
    expect((await api.post('/api/sign-out', '{}')).status).toBe(200);
    expect((await before.get<Me>('/api/me')).body.person).toBeNull();
    expect((await before.get('/api/studies')).status).toBe(401);
  });
});

describe('a device that several share', () => {
  it('gets the key that seals what an account leaves there only with its sign-in: the same each time, another for each account', async () => {
    const odo = await wenna.as('Odo Farrow');
    const keyOf = async (api: Api): Promise<string> => (await api.get<{ seal: string }>('/api/me')).body.seal;
    const keys = [await keyOf(wenna), await keyOf(odo), await keyOf(await odo.again())];
    expect(Buffer.from(keys[0] ?? '', 'base64')).toHaveLength(32);
    expect([keys[0] === keys[1], keys[1] === keys[2]]).toEqual([false, true]);
    expect((await wenna.nobody().get<{ seal: null }>('/api/me')).body.seal).toBeNull();
  });
  it('sends nothing of one account as another’s: what a page still holds of the first is refused', async () => {
    const study = await beginStudy(wenna);
    const odo = await wenna.as('Odo Farrow');
    const body = JSON.stringify({ id: randomUUID(), undoes: null, ops: [{ kind: 'part.add', id: randomUUID(), fields: study.part() }] });
    const headers = { 'Content-Type': 'application/json', 'X-Account': odo.personId };
    const response = await wenna.raw(`/api/studies/${study.studyId}/changes`, { method: 'POST', headers, body });
    expect([response.status, ((await response.json()) as Problem).code]).toEqual([401, 'signed-out']);
    expect((await wenna.record(study.studyId)).parts).toEqual([]);
    expect((await wenna.get(`/api/studies/${study.studyId}`, { 'X-Account': wenna.personId })).status).toBe(200);
  });
});

describe('guessing a password', () => {
  it('locks the name where it comes from after five failures, for longer each time, even against the right password', async () => {
    const api = await wenna.as('Odo Farrow');
    const { login: name } = await one<{ login: string }>(pool, 'select login from person where id = $1', [api.personId]);
    const answers = [];
    for (let i = 0; i < 6; i++) answers.push((await signIn(wenna.nobody(), name, `guess ${i}`)).status);
    expect(answers).toEqual([401, 401, 401, 401, 429, 429]);
    const right = await signIn(wenna.nobody(), name, PASSWORD);
    expect([right.status, right.body.code]).toEqual([429, 'locked']);
    expect(right.body.message).toMatch(/locked here for \d+ seconds/);
    expect(Number(right.headers.get('retry-after'))).toBeGreaterThan(0);
    await pool.query(`update sign_in_attempt set locked_until = now() - interval '1 second' where login = $1`, [name]);
    expect((await signIn(wenna.nobody(), name, PASSWORD)).status).toBe(200);
  });
  it('is counted one by one however many guesses come at once', async () => {
    const api = await wenna.as('Lisk Amberley');
    const { login: name } = await one<{ login: string }>(pool, 'select login from person where id = $1', [api.personId]);
    const guesses = await Promise.all(Array.from({ length: 12 }, (_, i) => signIn(wenna.nobody(), name, `guess ${i}`)));
    expect(guesses.filter((g) => g.status === 401)).toHaveLength(4);
  });
  it('is locked 30 s at first, then twice as long, at most a quarter of an hour', () =>
    expect([4, 5, 6, 7, 20].map(lockAfter)).toEqual([0, 30, 60, 120, 900]));
  it('is slowed by address over all names together', async () => {
    const { address, stop } = await listen(pool, { failures: 3, requests: 1000 });
    const api = wenna.nobody().at(address);
    const statuses = [];
    for (let i = 0; i < 5; i++) statuses.push((await signIn(api, `nobody${i}`, 'guess')).status);
    await stop();
    expect(statuses).toEqual([401, 401, 401, 429, 429]);
  });
  it('answers a name that nobody has like any other, its lock too', async () => {
    const answers = [];
    for (let i = 0; i < 6; i++) answers.push((await signIn(wenna.nobody(), 'nobody', `guess ${i}`)).status);
    expect(answers).toEqual([401, 401, 401, 401, 429, 429]);
  });
  it('is counted by all processes together', async () => {
    const { address, stop } = await listen(pool);
    const name = await login();
    const answers = [];
    for (let i = 0; i < 6; i++) answers.push((await signIn(wenna.nobody().at(i % 2 ? address : wenna.address), name, 'guess')).status);
    await stop();
    expect(answers).toEqual([401, 401, 401, 401, 429, 429]);
  });
});

describe('a request from elsewhere', () => {
  it('is refused without the token of the page, though the cookie comes along', async () => {
    const response = await wenna.raw('/api/sign-out', { method: 'POST', headers: { 'X-XSRF-TOKEN': '' } });
    expect([response.status, ((await response.json()) as Problem).code]).toEqual([403, 'cross-site']);
    expect((await wenna.get<Me>('/api/me')).body.person).not.toBeNull();
  });
  it('is refused with a token of another session', async () => {
    const odo = await wenna.as('Odo Farrow');
    const token = odo.headers['X-XSRF-TOKEN'] ?? '';
    expect((await wenna.raw('/api/sign-out', { method: 'POST', headers: { 'X-XSRF-TOKEN': token } })).status).toBe(403);
  });
  it.each([
    ['Origin', 'http://elsewhere.example'],
    ['Origin', 'null'],
    ['Sec-Fetch-Site', 'cross-site'],
    ['Sec-Fetch-Site', 'same-site'],
  ])('is refused when the browser says so: %s %s', async (header, value) => {
    const study = await beginStudy(wenna);
    const body = JSON.stringify({ id: randomUUID(), undoes: null, ops: [{ kind: 'part.add', id: randomUUID(), fields: study.part() }] });
    const headers = { 'Content-Type': 'application/json', [header]: value };
    const response = await wenna.raw(`/api/studies/${study.studyId}/changes`, { method: 'POST', headers, body });
    expect(response.status).toBe(403);
    expect((await wenna.record(study.studyId)).parts).toEqual([]);
  });
  it('cannot sign somebody in either', async () => {
    const headers = { 'Content-Type': 'application/json', Origin: 'http://elsewhere.example' };
    const body = JSON.stringify({ login: await login(), password: PASSWORD });
    expect((await wenna.nobody().raw('/api/sign-in', { method: 'POST', headers, body })).status).toBe(403);
  });
  it('is slowed down when there are too many, of strangers to a tenth of that', async () => {
    // 5 in ten seconds are 30 a minute
    const { address, stop } = await listen(pool, { failures: 3, requests: 30 });
    const [signedIn, stranger] = [wenna.at(address), wenna.nobody().at(address)];
    const asked = async (api: Api): Promise<number> => (await api.get('/api/me')).status;
    const answers = [await asked(stranger), await asked(stranger)];
    for (let i = 0; i < 4; i++) answers.push(await asked(signedIn));
    await stop();
    expect(answers).toEqual([200, 429, 200, 200, 200, 429]);
  });
});

describe('accounts', () => {
  const account = (fields: object) =>
    JSON.stringify({ login: `n${randomUUID().slice(0, 8)}`, name: 'Pell Oriane', password: PASSWORD, standing: 'member', ...fields });
  it('are made by a lead of the organisation only', async () => {
    expect((await wenna.post('/api/people', account({}))).status).toBe(201);
    expect((await (await wenna.as('Odo Farrow')).post('/api/people', account({}))).status).toBe(403);
  });
  it.each([
    ['a short password', { password: 'short' }, 'password'],
    ['a password of one letter', { password: 'aaaaaaaaaaaa' }, 'password'],
    ['the sign-in name as password', { login: 'pell', password: 'my name is pell' }, 'password'],
    ['a sign-in name with spaces', { login: 'pell oriane' }, 'login'],
    ['no name', { name: ' ' }, 'name'],
  ])('are refused with %s, and the field is named', async (_, fields, field) => {
    const answer = await wenna.post<Problem>('/api/people', account(fields));
    expect([answer.status, answer.body.issues[0]?.field]).toEqual([422, field]);
  });
  it('change their own password with the one in use, which ends their other sessions', async () => {
    const [here, there] = [await wenna.as('Odo Farrow'), wenna.nobody()];
    const { login: name } = await one<{ login: string }>(pool, 'select login from person where id = $1', [here.personId]);
    await signIn(there, name, PASSWORD);
    const change = (current: string) => here.post<Problem>('/api/password', JSON.stringify({ current, next: 'five other plain words' }));
    expect((await change('wrong')).body.issues[0]?.field).toBe('current');
    expect((await change(PASSWORD)).status).toBe(200);
    expect((await there.get<Me>('/api/me')).body.person).toBeNull();
    expect((await here.get<Me>('/api/me')).body.person).not.toBeNull();
    expect((await signIn(wenna.nobody(), name, 'five other plain words')).status).toBe(200);
  });
  it('choose the units they read figures in, for every device of theirs and for nobody else', async () => {
    const [odo, pell] = [await wenna.as('Odo Farrow'), await wenna.as('Pell Oriane')];
    const units = async (who: typeof odo): Promise<unknown> => (await who.get<Me>('/api/me')).body.units;
    expect(await units(odo)).toBe('metric');
    expect((await odo.post('/api/me/units', JSON.stringify({ units: 'inch-pound' }))).status).toBe(200);
    expect([await units(odo), await units(pell)]).toEqual(['inch-pound', 'metric']);
    const wrong = await odo.post<Problem>('/api/me/units', JSON.stringify({ units: 'stones' }));
    expect([wrong.status, wrong.body.issues[0]?.field]).toEqual([422, 'units']);
    expect(await units(odo)).toBe('inch-pound');
  });
  it('get a new password from a lead of the organisation', async () => {
    const odo = await wenna.as('Odo Farrow');
    const reset = { next: 'given by the lead' };
    expect((await wenna.post(`/api/people/${odo.personId}/password`, JSON.stringify(reset))).status).toBe(200);
    expect((await odo.get<Me>('/api/me')).body.person).toBeNull();
    expect((await wenna.post(`/api/people/${randomUUID()}/password`, JSON.stringify(reset))).status).toBe(404);
  });
});

describe('the first run', () => {
  it('makes the first lead, who leads the studies there are; then never again', async () => {
    const empty = await testDatabase();
    const { address, stop } = await listen(empty.pool);
    const api = wenna.nobody().at(address);
    expect((await api.get<Me>('/api/me')).body).toEqual({ person: null, seal: null, units: null, firstRun: true, demo: [] });
    const first = JSON.stringify({ login: 'first', name: 'First Lead', password: PASSWORD });
    const answers = await Promise.all([
      api.post('/api/first-lead', first),
      api.at(address).post('/api/first-lead', first.replace('first', 'second')),
    ]);
    expect(answers.map((a) => a.status).sort()).toEqual([201, 403]);
    expect((await api.nobody().get<Me>('/api/me')).body.firstRun).toBe(false);
    await stop();
    await empty.drop();
  });
});
