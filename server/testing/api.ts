import { randomUUID } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import { blank, USUAL_STUDY, type Op, type PartFields, type Role, type StudyFields, type StudyRecord } from '@each-bolt/core/record';
import { buildApp, type AppParts } from '../src/app';
import { Aside } from '../src/aside/aside';
import type { Pool } from '../src/db/pool';
import type { Standing, ToldConflict } from '@each-bolt/core/wire';
import { CONNECTIONS } from '../src/http/connections';
import { newSecret } from '../src/http/session';
import { Turns } from '../src/http/turns';
import { InstrumentHub } from '../src/instruments/hub';
import { Reachable, USUAL_RANGES } from '../src/instruments/reachable';
import { Live } from '../src/live/live';
import { passwordHash } from '../src/people/password';
import { insertPerson, settingOr } from '../src/people/queries';

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

export interface Problem {
  readonly code: string;
  readonly message: string;
  readonly issues: readonly {
    readonly code: string;
    readonly recordId: string | null;
    readonly field: string | null;
    readonly message: string;
  }[];
  readonly conflicts: readonly ToldConflict[];
}

export const PASSWORD = 'four plain words here';
/** Settings of a server that nobody passes requests on to. */
const BARE = { trustProxy: null, publicUrl: null };
const LIMITS = { failures: 1000, requests: 1_000_000 };

/** The program of the threads beside the server, which the start of the tests builds. */
const BUILT_THREAD = join(__dirname, '..', 'dist', 'aside.js');

/** The application listening on a port of its own. */
export const listen = async (
  pool: Pool,
  limits = LIMITS,
  proxy: Pick<AppParts, 'trustProxy' | 'publicUrl'> = BARE,
  log = pino({ level: 'silent' }),
): Promise<{ readonly address: string; readonly stop: () => Promise<void> }> => {
  const instruments = new InstrumentHub(pool, log, new Reachable(USUAL_RANGES));
  // a server of a test that has just ended reads no list any more
  const live = new Live(pool, log, () => void instruments.reload().catch(() => undefined));
  await live.start();
  const secret = await settingOr(pool, 'session secret', newSecret());
  await instruments.reload();
  const turns = new Turns();
  const aside = new Aside(BUILT_THREAD, pool.options.connectionString ?? '', log, turns);
  const app = buildApp({ pool, log, version: '0.0.0', webDir: null, secret, live, aside, turns, instruments, limits, ...proxy });
  const server = createServer(CONNECTIONS, app).listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const { port } = server.address() as AddressInfo;
  const stop = async (): Promise<void> => {
    await live.stop();
    instruments.stop();
    await aside.stop();
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
  };
  return { address: `http://127.0.0.1:${port}`, stop };
};

/** One person at one browser, spoken for over HTTP as any client would: with its cookies and its token. */
export class Api {
  private readonly cookies = new Map<string, string>();
  personId = '';
  private login = '';

  constructor(
    readonly address: string,
    private readonly pool: Pool,
    readonly stop: () => Promise<void>,
  ) {}

  /** The application with a lead of the organisation signed in. */
  static async over(pool: Pool, limits = LIMITS): Promise<Api> {
    const { address, stop } = await listen(pool, limits);
    return new Api(address, pool, stop).as('Wenna Tarn', 'lead');
  }

  /** Another person, with an account of their own, signed in. */
  async as(name: string, standing: Standing = 'member'): Promise<Api> {
    const login = `p${randomUUID().slice(0, 8)}`;
    const person = { id: randomUUID(), login, name, standing, demoPassword: false };
    await insertPerson(this.pool, { ...person, passwordHash: await passwordHash(PASSWORD) });
    const api = this.nobody();
    const { status } = await api.post('/api/sign-in', JSON.stringify({ login, password: PASSWORD }));
    if (status !== 200) throw new Error(`${name} was not signed in: ${status}`);
    api.personId = person.id;
    api.login = login;
    return api;
  }

  /** The same person signed in a second time, elsewhere. */
  async again(): Promise<Api> {
    const api = this.nobody();
    const { status } = await api.post('/api/sign-in', JSON.stringify({ login: this.login, password: PASSWORD }));
    if (status !== 200) throw new Error(`the second sign-in failed: ${status}`);
    [api.personId, api.login] = [this.personId, this.login];
    return api;
  }

  /** The same application to a browser that has never been there. */
  nobody(): Api {
    return new Api(this.address, this.pool, this.stop);
  }

  /** The same person at another process. */
  at(address: string): Api {
    const other = new Api(address, this.pool, this.stop);
    for (const [name, value] of this.cookies) other.cookies.set(name, value);
    other.personId = this.personId;
    return other;
  }

  get headers(): Record<string, string> {
    return {
      Cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; '),
      'X-XSRF-TOKEN': this.cookies.get('XSRF-TOKEN') ?? '',
    };
  }

  async raw(path: string, init: RequestInit = {}): Promise<Response> {
    const response = await fetch(this.address + path, {
      ...init,
      headers: { ...this.headers, ...(init.headers as Record<string, string>) },
    });
    for (const cookie of response.headers.getSetCookie()) {
      const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(cookie) ?? [];
      this.cookies.set(name, decodeURIComponent(value));
    }
    return response;
  }

  async get<T>(path: string, headers: Record<string, string> = {}): Promise<Answer<T>> {
    return this.answer<T>(await this.raw(path, { headers }));
  }

  async post<T>(path: string, body: string, type = 'application/json'): Promise<Answer<T>> {
    return this.answer<T>(await this.raw(path, { method: 'POST', headers: { 'Content-Type': type }, body }));
  }

  async put<T>(path: string, body: Uint8Array): Promise<Answer<T>> {
    return this.answer<T>(
      await this.raw(path, { method: 'PUT', headers: { 'Content-Type': 'application/octet-stream' }, body: new Uint8Array(body) }),
    );
  }

  change<T = { readonly id: string; readonly revision: number }>(
    studyId: string,
    ops: readonly unknown[],
    id: string = randomUUID(),
    undoes: string | null = null,
  ): Promise<Answer<T>> {
    return this.post<T>(`/api/studies/${studyId}/changes`, JSON.stringify({ id, ops, undoes }));
  }

  async record(studyId: string): Promise<StudyRecord> {
    return (await this.get<StudyRecord>(`/api/studies/${studyId}`)).body;
  }

  /** Takes somebody into a study. */
  async invite(studyId: string, person: Api, role: Role): Promise<void> {
    const { status } = await this.change(studyId, [{ kind: 'member.add', id: randomUUID(), fields: { personId: person.personId, role } }]);
    if (status !== 201) throw new Error(`nobody was taken into the study: ${status}`);
  }

  private async answer<T>(response: Response): Promise<Answer<T>> {
    const text = await response.text();
    return { status: response.status, headers: response.headers, body: (text === '' ? null : JSON.parse(text)) as T };
  }
}

export const STUDY_FIELDS: StudyFields = {
  title: 'Last-mile vans',
  questions: '',
  lead: '',
  currency: 'EUR',
  priceYear: 2026,
  volumePerYear: 60_000,
  productionYears: 7,
  region: 'Central Europe',
  fastenersIn: true,
  assembliesAs: 'parts',
  ...USUAL_STUDY,
};

export interface Begun {
  readonly studyId: string;
  readonly vehicleId: string;
  readonly otherVehicleId: string;
  readonly subsystemId: string;
  /** fields of a part straight under the subsystem */
  readonly part: (fields?: Partial<PartFields>) => PartFields;
}

/** A study with two vehicles and one subsystem, at revision 1. */
export const beginStudy = async (api: Api): Promise<Begun> => {
  const [studyId, vehicleId, otherVehicleId, subsystemId] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()] as const;
  const vehicle = {
    ...blank('vehicle', { name: 'Drayman II', role: 'subject', sequence: 0 }),
    maker: 'Halvard & Roe',
    modelYear: 2026,
    builtOn: '2026-02-18',
  };
  const ops: readonly Op[] = [
    { kind: 'study.add', id: studyId, fields: STUDY_FIELDS },
    { kind: 'member.add', id: randomUUID(), fields: { personId: api.personId, role: 'lead' } },
    { kind: 'vehicle.add', id: vehicleId, fields: vehicle },
    { kind: 'vehicle.add', id: otherVehicleId, fields: { ...vehicle, sequence: 1, name: 'Pannier', role: 'competitor' } },
    { kind: 'subsystem.add', id: subsystemId, fields: { parentId: null, sequence: 0, name: 'Sliding cargo door' } },
  ];
  const { status } = await api.change(studyId, ops);
  if (status !== 201) throw new Error(`the study was not begun: ${status}`);
  return {
    studyId,
    vehicleId,
    otherVehicleId,
    subsystemId,
    part: (fields = {}) => ({ ...blank('part', { vehicleId, subsystemId, parentId: null }), name: 'carrier plate', ...fields }),
  };
};
