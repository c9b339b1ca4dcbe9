import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import type { KeptChange } from '@each-bolt/core/record';
import { Api, PASSWORD, beginStudy, listen, type Begun } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { networkTo } from '../../testing/network';
import { openPool, type Pool } from '../db/pool';
import { LISTENS, Live, type Follower } from './live';
import type { Here } from '@each-bolt/core/wire';

interface Heard {
  readonly event: string;
  readonly data: unknown;
}

/** Follows a study as a page would, and keeps what it hears. */
class Ear {
  readonly heard: Heard[] = [];
  isOver = false;
  private readonly ending = new AbortController();
  readonly connection = randomUUID();

  constructor(
    private readonly api: Api,
    private readonly studyId: string,
  ) {}

  async open(since: number): Promise<this> {
    const path =
      this.studyId === ''
        ? '/api/instruments/events'
        : `/api/studies/${this.studyId}/events?since=${since}&connection=${this.connection}&device=Bench%201`;
    const response = await this.api.raw(path, { signal: this.ending.signal });
    expect(response.headers.get('content-type')).toMatch(/^text\/event-stream/);
    void this.listen(response)
      .catch(() => undefined)
      .then(() => {
        this.isOver = true;
      });
    return this;
  }

  private async listen(response: Response): Promise<void> {
    const decoder = new TextDecoder();
    let text = '';
    for await (const chunk of response.body!) {
      text += decoder.decode(chunk as Uint8Array, { stream: true });
      const blocks = text.split('\n\n');
      text = blocks.pop() ?? '';
      for (const block of blocks) {
        const [, event] = /^event: (.*)$/m.exec(block) ?? [];
        const [, data] = /^data: (.*)$/m.exec(block) ?? [];
        if (event !== undefined && data !== undefined) this.heard.push({ event, data: JSON.parse(data) });
      }
    }
  }

  get revisions(): readonly number[] {
    return this.heard.filter((h) => h.event === 'change').map((h) => (h.data as KeptChange).revision);
  }

  get here(): readonly Here[] {
    return (this.heard.filter((h) => h.event === 'here').at(-1)?.data ?? []) as readonly Here[];
  }

  async until(test: () => boolean, mostMs = 5000): Promise<void> {
    const since = Date.now();
    while (!test()) {
      if (Date.now() - since > mostMs) throw new Error(`not heard within ${mostMs / 1000} s; heard ${JSON.stringify(this.heard)}`);
      await new Promise((done) => setTimeout(done, 10));
    }
  }

  close(): void {
    this.ending.abort();
  }
}

let api: Api;
let pool: Pool;
let drop: () => Promise<void>;
let other: { readonly address: string; readonly stop: () => Promise<void> };
let study: Begun;
const ears: Ear[] = [];
const ear = async (person: Api, since = 1): Promise<Ear> => {
  const made = await new Ear(person, study.studyId).open(since);
  ears.push(made);
  return made;
};
const add = (person = api) => person.change(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields: study.part() }]);

beforeAll(async () => {
  ({ pool, drop } = await testDatabase());
  api = await Api.over(pool);
  other = await listen(pool);
});
beforeEach(async () => {
  study = await beginStudy(api);
});
afterEach(() => ears.splice(0).forEach((e) => e.close()));
afterAll(async () => {
  await other.stop();
  await api.stop();
  await drop();
});

describe('whoever follows a study', () => {
  it('hears of every change in order, whichever of two server processes kept it', async () => {
    const [here, there] = [await ear(api), await ear(api.at(other.address))];
    for (let i = 0; i < 10; i++) await add(i % 2 === 0 ? api : api.at(other.address));
    const all = Array.from({ length: 10 }, (_, i) => i + 2);
    await here.until(() => here.revisions.length === 10);
    await there.until(() => there.revisions.length === 10);
    expect([here.revisions, there.revisions]).toEqual([all, all]);
  });
  it('is told first what was missed since the revision it has', async () => {
    await add();
    await add();
    const late = await ear(api, 2);
    await late.until(() => late.revisions.length === 1);
    expect(late.revisions).toEqual([3]);
  });
  it('hears who is here, on which device and with which part open, also at the other process', async () => {
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    const [mine, his] = [await ear(api, 2), await ear(odo.at(other.address), 2)];
    await mine.until(() => mine.here.length === 2);
    expect(mine.here.map((h) => [h.name, h.device])).toEqual([
      ['Odo Farrow', 'Bench 1'],
      ['Wenna Tarn', 'Bench 1'],
    ]);
    const partId = randomUUID();
    await odo.post(`/api/studies/${study.studyId}/here`, JSON.stringify({ connection: his.connection, partId }));
    await mine.until(() => mine.here.some((h) => h.partId === partId));
    his.close();
    await mine.until(() => mine.here.length === 1);
  });
  it('is not said to be here when it left before it was let in', async () => {
    const watching = await ear(api);
    await Promise.all(
      Array.from({ length: 20 }, async (_, i) => {
        const brief = new Ear(api, study.studyId);
        const opened = brief.open(1).catch(() => undefined);
        setTimeout(() => brief.close(), i);
        await opened;
        brief.close();
      }),
    );
    const rows = async (): Promise<number> =>
      (await pool.query('select 1 from presence where study_id = $1', [study.studyId])).rowCount ?? 0;
    // those who are still being let in come and go: what was left behind would stay
    let alone = 0;
    for (const since = Date.now(); alone < 10 && Date.now() - since < 20_000; alone = (await rows()) === 1 ? alone + 1 : 0)
      await new Promise((done) => setTimeout(done, 50));
    expect(alone).toBe(10);
    await watching.until(() => watching.here.length === 1);
  });
  it('goes on hearing after the connection that listens was cut', async () => {
    const here = await ear(api);
    await add();
    await here.until(() => here.revisions.length === 1);
    const cut = await pool.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and application_name = $1', [LISTENS]); // prettier-ignore
    expect(cut.rowCount).toBe(4);
    await add();
    await here.until(() => here.revisions.length === 2);
    expect(here.revisions).toEqual([2, 3]);
  });
  it('goes on hearing within 10 s after the network to the database swallows everything and says nothing', async () => {
    const network = await networkTo(pool.options.connectionString ?? '');
    const behind = openPool(network.url);
    behind.on('error', () => undefined);
    const far = await listen(behind);
    const here = await ear(api.at(far.address));
    await add();
    await here.until(() => here.revisions.length === 1);
    network.swallow();
    await add();
    const since = Date.now();
    await here.until(() => here.revisions.length === 2, 15_000);
    expect(here.revisions).toEqual([2, 3]);
    expect(Date.now() - since).toBeLessThan(10_000);
    here.close();
    await network.stop();
    await far.stop();
    await behind.end();
  }, 40_000);
  it('is told of a large change and fetches it; small ones before and after come as they are', async () => {
    const here = await ear(api);
    await add();
    // what cannot be packed
    const notes = (): string => Array.from({ length: 40 }, () => randomUUID()).join(' ');
    const many = Array.from({ length: 300 }, () => ({ kind: 'part.add', id: randomUUID(), fields: study.part({ notes: notes() }) }));
    expect((await api.change(study.studyId, many)).status).toBe(201);
    await add();
    await here.until(() => here.revisions.length === 2);
    expect(here.heard.filter(({ event }) => event !== 'here').map(({ event, data }) => [event, (data as KeptChange).revision])).toEqual([
      ['change', 2],
      ['large', 3],
      ['change', 4],
    ]);
    const fetched = await api.get<readonly KeptChange[]>(`/api/studies/${study.studyId}/changes?since=2`);
    expect(fetched.body.map(({ revision, ops }) => [revision, ops.length])).toEqual([
      [3, 300],
      [4, 1],
    ]);
  });
  it('is told no more than it reads, and everything once it reads on', async () => {
    const live = new Live(pool, pino({ level: 'silent' }));
    await live.start();
    const told: number[] = [];
    let isReady = false;
    const follower: Follower = {
      ...{ studyId: study.studyId, since: 1, here: () => undefined, end: () => undefined },
      change: ({ revision }) => void told.push(revision),
      isReady: () => isReady,
    };
    const leave = live.follow(follower);
    const beside = await ear(api);
    for (let i = 0; i < 5; i++) await add();
    await beside.until(() => beside.revisions.length === 5);
    expect(told).toEqual([]);
    isReady = true;
    live.tellMore(follower);
    await beside.until(() => told.length === 5);
    expect(told).toEqual([2, 3, 4, 5, 6]);
    leave();
    await live.stop();
  });
  it('is told who is here once for many who come at once, not once for each of them', async () => {
    const watching = await ear(api);
    await watching.until(() => watching.here.length === 1);
    const tellings = (): number => watching.heard.filter(({ event }) => event === 'here').length;
    const before = tellings();
    await Promise.all(Array.from({ length: 30 }, () => ear(api)));
    await watching.until(() => watching.here.length === 31);
    expect(tellings() - before).toBeLessThan(8);
  });
  it('hears nothing more once signed out, at any process, the instruments neither; the same person elsewhere goes on', async () => {
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    const there = odo.at(other.address);
    const ended = [await ear(odo, 2), await ear(there, 2), await new Ear(there, '').open(0), await new Ear(odo, '').open(0)];
    const elsewhere = await odo.again();
    const goesOn = await ear(elsewhere, 2);
    expect((await odo.post('/api/sign-out', '{}')).status).toBe(200);
    for (const stream of ended) await stream.until(() => stream.isOver);
    await add();
    await goesOn.until(() => goesOn.revisions.includes(3));
    expect([goesOn.isOver, ended.map((e) => e.revisions)]).toEqual([false, [[], [], [], []]]);
  });
  it('hears nothing more in any other session once the password is changed', async () => {
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    const [stolen, own] = [await ear(await odo.again(), 2), await ear(odo, 2)];
    const passwords = JSON.stringify({ current: PASSWORD, next: 'five other plain words' });
    expect((await odo.post('/api/password', passwords)).status).toBe(200);
    await stolen.until(() => stolen.isOver);
    expect(own.isOver).toBe(false);
    // reset by a lead of the organisation, it ends them all
    expect((await api.post(`/api/people/${odo.personId}/password`, JSON.stringify({ next: 'six more very plain words' }))).status).toBe(
      200,
    );
    await own.until(() => own.isOver);
  });
  it('hears nothing more after its session ran out, or ended while nobody could tell', async () => {
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    const his = await ear(odo, 2);
    await pool.query(`update session set expire = now() - interval '1 s' where sess ->> 'personId' = $1`, [odo.personId]);
    await his.until(() => his.isOver, 10_000);
  });
  it('hears nothing more once taken off the study', async () => {
    const odo = await api.as('Odo Farrow');
    await api.invite(study.studyId, odo, 'recorder');
    const his = await ear(odo, 2);
    const member = (await api.record(study.studyId)).members.find((m) => m.personId === odo.personId)!;
    await api.change(study.studyId, [{ kind: 'member.remove', id: member.id, was: { personId: member.personId, role: member.role } }]);
    await his.until(() => his.heard.some((h) => h.event === 'off'));
    await add();
    expect(his.revisions).toEqual([3]);
  });
});
