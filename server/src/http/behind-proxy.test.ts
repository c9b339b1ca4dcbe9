import { Api, PASSWORD, listen } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import type { Pool } from '../db/pool';
import { one } from '../db/rows';
import { demoPeople } from '../people/demo-people';
import { insertPerson } from '../people/queries';

// addresses for documentation: RFC 5737, RFC 3849
const OFFICE = '198.51.100.2';
const ELSEWHERE = '203.0.113.7';

let pool: Pool;
let drop: () => Promise<void>;
let direct: Api;
let proxied: Api;
let stop: () => Promise<void>;

beforeAll(async () => {
  ({ pool, drop } = await testDatabase());
  direct = await Api.over(pool);
  const publicUrl = new URL('https://bolts.example');
  const server = await listen(pool, { failures: 30, requests: 1_000_000 }, { trustProxy: ['loopback'], publicUrl });
  stop = server.stop;
  proxied = direct.nobody().at(server.address);
});
afterAll(async () => {
  await stop();
  await direct.stop();
  await drop();
});

const through = (from: string, path: string, body: object | null = null, more: Record<string, string> = {}): Promise<Response> =>
  proxied.nobody().raw(path, {
    method: body ? 'POST' : 'GET',
    headers: { 'Content-Type': 'application/json', 'X-Forwarded-For': from, 'X-Forwarded-Proto': 'https', ...more },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
const loginOf = async (api: Api): Promise<string> =>
  (await one<{ login: string }>(pool, 'select login from person where id = $1', [api.personId])).login;

describe('behind a proxy that speaks https', () => {
  it('cookies are for https only, and browsers are told to come no other way', async () => {
    const response = await through(OFFICE, '/api/sign-in', { login: await loginOf(direct), password: PASSWORD });
    expect(response.status).toBe(200);
    for (const cookie of response.headers.getSetCookie()) expect(cookie).toMatch(/; Secure/);
    expect(response.headers.get('strict-transport-security')).toMatch(/^max-age=15811200$/);
    expect((await direct.raw('/api/me')).headers.get('strict-transport-security')).toBeNull();
  });
  it('a page of the public address may send, one of another may not', async () => {
    const form = { login: await loginOf(direct), password: PASSWORD };
    expect((await through(OFFICE, '/api/sign-in', form, { Origin: 'https://bolts.example' })).status).toBe(200);
    expect((await through(OFFICE, '/api/sign-in', form, { Origin: 'https://nuts.example' })).status).toBe(403);
  });
  it('whoever guesses is locked out where they are, the owner elsewhere is not', async () => {
    const odo = await direct.as('Odo Farrow');
    const login = await loginOf(odo);
    for (let i = 0; i < 5; i++) await through(ELSEWHERE, '/api/sign-in', { login, password: `guess ${i}` });
    expect((await through(ELSEWHERE, '/api/sign-in', { login, password: PASSWORD })).status).toBe(429);
    expect((await through(OFFICE, '/api/sign-in', { login, password: PASSWORD })).status).toBe(200);
  });
  it('all addresses of one network of IPv6 count as one', async () => {
    const login = await loginOf(direct);
    for (let i = 0; i < 5; i++) await through(`2001:db8:0:1::${i}`, '/api/sign-in', { login, password: `guess ${i}` });
    expect((await through('2001:db8:0:1:ffff::1', '/api/sign-in', { login, password: PASSWORD })).status).toBe(429);
    expect((await through('2001:db8:0:2::1', '/api/sign-in', { login, password: PASSWORD })).status).toBe(200);
  });
  it('the passwords of the demo are shown to this machine alone, also when a proxy nobody trusts stands in front', async () => {
    for (const person of await demoPeople()) await insertPerson(pool, person);
    const shown = async (response: Promise<Response>): Promise<number> =>
      ((await (await response).json()) as { demo: object[] }).demo.length;
    const asked = (headers: Record<string, string>) => direct.nobody().raw('/api/me', { headers });
    expect(await shown(asked({}))).toBeGreaterThan(0);
    expect(await shown(asked({ 'X-Forwarded-For': ELSEWHERE }))).toBe(0);
    expect(await shown(asked({ 'X-Forwarded-For': '127.0.0.1' }))).toBe(0);
    expect(await shown(through(ELSEWHERE, '/api/me'))).toBe(0);
    expect(await shown(through('127.0.0.1', '/api/me'))).toBeGreaterThan(0);
  });
});
