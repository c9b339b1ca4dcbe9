import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { pino } from 'pino';
import { blank, USUAL_STUDY, readChange, type Change, type Op } from '@each-bolt/core/record';
import { openPool } from '../server/src/db/pool';
import { keepChange } from '../server/src/ledger/keep-change';
import { Live } from '../server/src/live/live';
import { insertPerson, type Person } from '../server/src/people/queries';
import { benchDatabase, urlOf } from './database';
import { atLeast, atMost, type Result } from './harness';

const CHANGES = 400;
const WARM_UP = 50;

interface Statement {
  readonly text: string;
  readonly values: readonly unknown[];
}

/** Every statement sent while it is on, in order: what the same work comes to as bare SQL. */
const recorded: Statement[] = [];
let recording = false;

type Query = (...sent: readonly unknown[]) => unknown;
const client = pg.Client.prototype as unknown as { query: Query };
const send = client.query;
client.query = function (this: unknown, ...sent: readonly unknown[]) {
  const [text, values] = sent;
  if (recording && typeof text === 'string') recorded.push({ text, values: Array.isArray(values) ? values : [] });
  return send.apply(this, [...sent]);
};

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;

/**
 * The rate of changes through the ledger, read, checked, conflict by conflict, and committed, against the very same
 * statements sent bare by one client to a copy of the database; and how soon a follower at another process hears of one.
 */
export const ledgerBench = async (): Promise<readonly Result[]> => {
  const database = await benchDatabase();
  const { pool, url } = database;
  const [studyId, vehicleId, subsystemId] = [randomUUID(), randomUUID(), randomUUID()];
  const person: Person = { id: randomUUID(), login: 'bench', name: 'Bench', standing: 'lead', demoPassword: false };
  await insertPerson(pool, { ...person, passwordHash: 'x' });
  const maker = { person, name: person.name, device: 'bench' };
  const study = {
    title: 'Bench',
    questions: '',
    lead: '',
    currency: 'EUR',
    priceYear: 2026,
    volumePerYear: 1,
    productionYears: 1,
    region: 'x',
    fastenersIn: true,
    assembliesAs: 'parts',
    ...USUAL_STUDY,
  } as const;
  const begin: readonly Op[] = [
    { kind: 'study.add', id: studyId, fields: study },
    { kind: 'member.add', id: randomUUID(), fields: { personId: person.id, role: 'lead' } },
    { kind: 'vehicle.add', id: vehicleId, fields: blank('vehicle', { name: 'Van', role: 'subject', sequence: 0 }) },
    { kind: 'subsystem.add', id: subsystemId, fields: { parentId: null, sequence: 0, name: 'Door' } },
  ];
  await keepChange(pool, studyId, { id: randomUUID(), ops: begin, undoes: null }, maker);

  const change = (n: number): Change => {
    const fields = { ...blank('part', { vehicleId, subsystemId, parentId: null }), name: `part ${n}`, sequence: n };
    return { id: randomUUID(), undoes: null, ops: [{ kind: 'part.add', id: randomUUID(), fields }] };
  };
  const keepOne = async (n: number): Promise<void> => {
    const read = readChange(JSON.parse(JSON.stringify(change(n))));
    if (!read.ok) throw new RangeError('the benchmark sends a change with faults');
    await keepChange(pool, studyId, read.value, maker);
  };
  for (let n = 0; n < WARM_UP; n++) await keepOne(n);
  await pool.end();
  const admin = new pg.Client(urlOf(url, 'postgres'));
  await admin.connect();
  await admin.query('create database bare template eachbolt');
  await admin.end();

  const again = openPool(url);
  again.on('error', () => undefined);
  const keepAgain = async (n: number): Promise<void> => {
    const read = readChange(JSON.parse(JSON.stringify(change(n))));
    if (read.ok) await keepChange(again, studyId, read.value, maker);
  };
  await again.query('select 1');
  recording = true;
  const since = performance.now();
  for (let n = 0; n < CHANGES; n++) await keepAgain(WARM_UP + n);
  const ledgerMs = performance.now() - since;
  recording = false;

  const bare = new pg.Client(urlOf(url, 'bare'));
  await bare.connect();
  const bareSince = performance.now();
  for (const { text, values } of recorded) await bare.query(text, [...values]);
  const bareMs = performance.now() - bareSince;
  await bare.end();

  const elsewhere = openPool(url);
  elsewhere.on('error', () => undefined);
  const live = new Live(elsewhere, pino({ level: 'silent' }));
  await live.start();
  const heard: number[] = [];
  let told: () => void = () => undefined;
  const leave = live.follow({
    studyId,
    since: 1 + WARM_UP + CHANGES,
    change: () => told(),
    here: () => undefined,
    isReady: () => true,
    end: () => undefined,
  });
  for (let n = 0; n < 60; n++) {
    const hearing = new Promise<void>((done) => (told = done));
    await keepAgain(10_000 + n);
    const kept = performance.now();
    await hearing;
    heard.push(performance.now() - kept);
  }
  leave();
  await live.stop();
  await elsewhere.end();
  await again.end();
  await database.stop();
  return [
    atLeast('changes through the ledger, against the same SQL sent bare', (100 * bareMs) / ledgerMs, '%', 50),
    atMost('  a change kept, until a follower at another process hears of it', median(heard), 'ms', 1000),
  ];
};
