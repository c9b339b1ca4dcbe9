import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from '@playwright/test';
import { test } from './test';
import { startDatabase } from '../scripts/database.mjs';
import { startServer } from '../scripts/server.mjs';
import { PEOPLE } from './sign-in';

const DIR = join(dirname(fileURLToPath(import.meta.url)), '..', '.test-data', 'crash');
const WRITERS = 8;
const CHANGES_EACH = 250;

interface Signed {
  readonly headers: Record<string, string>;
  readonly personId: string;
}

const signIn = async (base: string): Promise<Signed> => {
  const body = JSON.stringify({ login: 'wenna', password: PEOPLE.wenna.password });
  const answer = await fetch(`${base}/api/sign-in`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
  const cookies = answer.headers.getSetCookie().map((cookie) => cookie.split(';')[0] ?? '');
  const token = decodeURIComponent(cookies.find((cookie) => cookie.startsWith('XSRF-TOKEN='))?.slice(11) ?? '');
  const { person } = (await answer.json()) as { person: { id: string } };
  return { headers: { 'Content-Type': 'application/json', Cookie: cookies.join('; '), 'X-XSRF-TOKEN': token }, personId: person.id };
};

/** Sends a change until it is answered, as a client does; returns its revision. */
const keep = async (url: string, headers: Record<string, string>, body: string): Promise<number> => {
  for (;;) {
    try {
      const answer = await fetch(url, { method: 'POST', headers, body });
      if (answer.status === 200 || answer.status === 201) return ((await answer.json()) as { revision: number }).revision;
      if (answer.status < 500) throw new RangeError(`refused: ${answer.status} ${await answer.text()}`);
    } catch (error) {
      if (error instanceof RangeError) throw error;
    }
    await new Promise((done) => setTimeout(done, 50));
  }
};

/** PostgreSQL's own process id, from the file it keeps. */
const postmaster = (): number => Number(readFileSync(join(DIR, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]);

test('the server killed during 2 000 changes, then PostgreSQL: every acknowledged change is there, none twice', async () => {
  test.setTimeout(300_000);
  rmSync(DIR, { recursive: true, force: true });
  let database = await startDatabase(DIR);
  const settings = (port: string): Record<string, string> => ({
    DATABASE_URL: database.url,
    PORT: port,
    LOG_LEVEL: 'silent',
    REQUESTS_PER_MINUTE: '1000000',
  });
  let server = await startServer(settings('0'));
  const base = `http://127.0.0.1:${server.port}`;
  const [studyId, vehicleId, subsystemId] = [randomUUID(), randomUUID(), randomUUID()];
  const { headers, personId } = await signIn(base);
  const url = `${base}/api/studies/${studyId}/changes`;
  const study = {
    title: 'Crash',
    questions: '',
    lead: '',
    currency: 'EUR',
    priceYear: 2026,
    volumePerYear: 1,
    productionYears: 1,
    region: 'x',
    fastenersIn: true,
    assembliesAs: 'parts',
    state: 'open',
  };
  const vehicle = {
    sequence: 0,
    name: 'Drayman II',
    maker: '',
    role: 'subject',
    modelYear: null,
    builtOn: null,
    acquiredOn: null,
    notes: '',
  };
  const begin = [
    { kind: 'study.add', id: studyId, fields: study },
    { kind: 'member.add', id: randomUUID(), fields: { personId, role: 'lead' } },
    { kind: 'vehicle.add', id: vehicleId, fields: vehicle },
    { kind: 'subsystem.add', id: subsystemId, fields: { parentId: null, sequence: 0, name: 'Door' } },
  ];
  await keep(url, headers, JSON.stringify({ id: randomUUID(), ops: begin, undoes: null }));

  const acknowledged = new Map<string, number>();
  const write = async (writer: number): Promise<void> => {
    for (let n = 0; n < CHANGES_EACH; n++) {
      const id = randomUUID();
      const question = {
        kind: 'question',
        aboutKind: 'vehicle',
        aboutId: vehicleId,
        aboutField: null,
        text: `${writer} ${n}`,
        ownerId: null,
        dueOn: null,
        owedTo: '',
        state: 'open',
        answer: '',
      };
      const ops = [{ kind: 'question.add', id: randomUUID(), fields: question }];
      acknowledged.set(id, await keep(url, headers, JSON.stringify({ id, ops, undoes: null })));
    }
  };
  const until = async (count: number): Promise<void> => {
    while (acknowledged.size < count) await new Promise((done) => setTimeout(done, 5));
  };
  const writing = Promise.all(Array.from({ length: WRITERS }, (_, writer) => write(writer)));

  await until(600);
  process.kill(server.pid, 'SIGKILL');
  await server.ended;
  server = await startServer(settings(new URL(base).port));

  await until(1300);
  process.kill(postmaster(), 'SIGKILL');
  await new Promise((done) => setTimeout(done, 300));
  // on the port it had, as a supervisor would start it again
  database = await startDatabase(DIR, {}, Number(new URL(database.url).port));

  await writing;
  const kept = new Map<string, number>();
  const texts: string[] = [];
  for (let since = 1; ;) {
    const page = (await (await fetch(`${url}?since=${since}`, { headers })).json()) as readonly {
      id: string;
      revision: number;
      ops: readonly { fields: { text: string } }[];
    }[];
    if (page.length === 0) break;
    for (const change of page) {
      expect(change.revision).toBe(since + 1);
      since = change.revision;
      kept.set(change.id, change.revision);
      texts.push(change.ops[0]?.fields.text ?? '');
    }
  }
  await server.stop();
  await database.stop();
  expect(acknowledged.size).toBe(WRITERS * CHANGES_EACH);
  expect(kept.size).toBe(WRITERS * CHANGES_EACH);
  for (const [id, revision] of acknowledged) expect(kept.get(id)).toBe(revision);
  // each writer’s changes once and in its order
  for (let writer = 0; writer < WRITERS; writer++) {
    const mine = texts.filter((text) => text.startsWith(`${writer} `));
    expect(mine).toEqual(Array.from({ length: CHANGES_EACH }, (_, n) => `${writer} ${n}`));
  }
  expect(existsSync(join(DIR, 'postgres', 'postmaster.pid'))).toBe(false);
});
