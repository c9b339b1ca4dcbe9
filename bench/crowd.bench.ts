import { randomBytes, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { blank, type Op } from '@each-bolt/core/record';
import { openPool, type Pool } from '../server/src/db/pool';
import { one } from '../server/src/db/rows';
import { sha256Of } from '../server/src/files/picture';
import { startServer } from '../scripts/server.mjs';
import { benchDatabase } from './database';
import { guest, percentile, stranger, type Guest } from './guest';
import { letLoose } from './hammer';
import { atMost, type Result } from './harness';
import { referenceStudy } from './reference-study';

const PARTS = 30_000;
const STREAMS = 500;
const SLOW_ARCHIVES = 12;
const SLOW_SCANS = 6;
const SCAN_BYTES = 128 * 1024 * 1024;
const SLOW_BYTES_PER_S = 10 * 1024;

const ops = (entity: string, rows: readonly { readonly id: string; readonly version: number }[]): readonly Op[] =>
  rows.map(({ id, version: _version, ...fields }) => ({ kind: `${entity}.add`, id, fields }) as unknown as Op);

const need = (status: number, ...wanted: readonly number[]): void => {
  if (!wanted.includes(status)) throw new RangeError(`answered ${status} in place of ${wanted.join(' or ')}`);
};

/** What people at work wait for while something else goes on: each of them changes and reads, again and again. */
class Others {
  private readonly waited: number[] = [];
  private going = true;
  private readonly done: Promise<unknown>;

  constructor(
    people: readonly Guest[],
    private readonly studyId: string,
    private readonly partId: string,
  ) {
    this.done = Promise.all(people.map((person) => this.work(person)));
  }

  private async work(person: Guest): Promise<void> {
    while (this.going) {
      const fields = { aboutKind: 'study', aboutId: this.studyId, aboutField: null, kind: 'question', text: 'weighed with its clips?', ownerId: null, dueOn: null, owedTo: '', state: 'open', answer: '' }; // prettier-ignore
      const kept = await person.change(this.studyId, [{ kind: 'question.add', id: randomUUID(), fields } as unknown as Op]);
      need(kept.status, 201);
      const me = await person.hear('GET', '/api/me');
      const history = await person.hear('GET', `/api/studies/${this.studyId}/history?rows=${this.partId}`);
      need(history.status, 200);
      this.waited.push(kept.ms, me.ms, history.ms);
      await pause(20);
    }
  }

  async stop(): Promise<readonly number[]> {
    this.going = false;
    await this.done;
    return this.waited;
  }
}

interface Scene {
  readonly pool: Pool;
  readonly port: number;
  readonly lead: Guest;
  readonly people: readonly Guest[];
  readonly studyId: string;
  readonly vehicleId: string;
  readonly subsystemId: string;
  readonly partId: string;
}

/** Runs an act while others work; gives its milliseconds and what they waited for at worst. */
const beside = async (scene: Scene, act: () => Promise<void>): Promise<{ readonly ms: number; readonly worst: number }> => {
  const others = new Others(scene.people, scene.studyId, scene.partId);
  await pause(300);
  const since = performance.now();
  await act();
  const ms = performance.now() - since;
  return { ms, worst: percentile(await others.stop(), 1) };
};

const COPIES = 3;

/** Rows of a study written by the fastest way there is, the middle one of a few. @source PostgreSQL 17, 14.4.2: COPY is the fastest way to load many rows */
const copyMs = async (pool: Pool, studyId: string): Promise<number> => {
  const once = async (): Promise<number> => {
    let all = 0;
    for (const table of ['part', 'fastener_set', 'joint_set']) {
      const file = `/tmp/each-bolt-bench-${table}.csv`;
      await pool.query(`create table ${table}_copied (like ${table} including all)`);
      await pool.query(`copy (select * from ${table} where study_id = '${studyId}') to '${file}'`);
      const since = performance.now();
      await pool.query(`copy ${table}_copied from '${file}'`);
      all += performance.now() - since;
      await pool.query(`drop table ${table}_copied`);
    }
    return all;
  };
  const tries: number[] = [];
  for (let i = 0; i < COPIES; i++) tries.push(await once());
  return percentile(tries, 0.5);
};

const largeChanges = async (scene: Scene): Promise<readonly Result[]> => {
  const { lead, studyId } = scene;
  const record = referenceStudy(PARTS);
  const own = (row: { readonly vehicleId: string; readonly subsystemId: string | null }) => ({
    vehicleId: scene.vehicleId,
    subsystemId: row.subsystemId === null ? null : scene.subsystemId,
  });
  const parts = record.parts.map((part) => ({ ...part, ...own(part) }));
  const all = [...ops('part', parts), ...ops('fasteners', record.fastenerSets), ...ops('joints', record.jointSets)];
  // written out beforehand: what this process is busy with would else be taken for waiting
  const sent = (ops: readonly Op[], undoes: string | null): { readonly id: string; readonly send: () => Promise<void> } => {
    const id = randomUUID();
    const body = Buffer.from(JSON.stringify({ id, ops, undoes }));
    return { id, send: async () => need((await lead.hear('POST', `/api/studies/${studyId}/changes`, body)).status, 201) };
  };
  const undo = async (id: string): Promise<ReturnType<typeof sent>> => {
    const { body } = await lead.hear('GET', `/api/studies/${studyId}/changes/${id}`);
    return sent((JSON.parse(body.toString()) as { readonly inverse: readonly Op[] }).inverse, id);
  };
  const alone = sent(all, null);
  const since = performance.now();
  await alone.send();
  const importMs = performance.now() - since;
  const copied = await copyMs(scene.pool, studyId);
  await (await undo(alone.id)).send();
  const { id, send } = sent(all, null);
  const imported = await beside(scene, send);
  let zip: Buffer = Buffer.alloc(0);
  const out = await beside(scene, async () => {
    const archive = await lead.hear('GET', `/api/studies/${studyId}/archive`);
    need(archive.status, 200);
    zip = archive.body;
  });
  const back = await beside(scene, async () => need((await lead.hear('POST', '/api/archives', zip, 'application/zip')).status, 201));
  const undone = await beside(scene, (await undo(id)).send);
  return [
    atMost(`import of ${PARTS} parts and their sets, against COPY of the same rows`, importMs / copied, '×', 10),
    atMost('  what others of the study wait for meanwhile, at worst', imported.worst, 'ms', 300),
    atMost('  while its archive is written', out.worst, 'ms', 300),
    atMost('  while the archive is brought in', back.worst, 'ms', 300),
    atMost('  while the import is undone', undone.worst, 'ms', 300),
  ];
};

const hostile = async (scene: Scene): Promise<readonly Result[]> => {
  const [reader, ...people] = scene.people;
  const stop = await letLoose(scene.port, scene.studyId, reader!);
  const others = new Others(people, scene.studyId, scene.partId);
  await pause(15_000);
  const waited = await others.stop();
  await stop();
  return [atMost('others beside a hostile reader and a hostile stranger, p99', percentile(waited, 0.99), 'ms', 300)];
};

/** Whether the time of an answer tells if there is an account of a name. */
const signInTimes = async (scene: Scene): Promise<readonly Result[]> => {
  const { login } = scene.lead.person!;
  const tried = async (name: string): Promise<number> => {
    const somebody = stranger(scene.port);
    const { ms, status } = await somebody.hear('POST', '/api/sign-in', JSON.stringify({ login: name, password: 'five other plain words' }));
    need(status, 401);
    somebody.leave();
    return ms;
  };
  const [known, unknown]: number[][] = [[], []];
  for (let i = 0; i < 60; i++) {
    known!.push(await tried(login));
    unknown!.push(await tried(`nobody-${i}`));
  }
  const apart = Math.abs(percentile(known!, 0.5) / percentile(unknown!, 0.5) - 1) * 100;
  return [atMost('sign-in of a name that is known against one that is not, medians apart', apart, '%', 5)];
};

const memoryMb = (pid: number): number => Number(/^VmRSS:\s+(\d+) kB$/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

/** Draws an answer by drops until it is told to stop. */
const draw = async (reader: Guest, path: string, isOver: () => boolean): Promise<void> => {
  const response = await reader.ask('GET', path);
  need(response.statusCode ?? 0, 200);
  response.pause();
  while (!isOver() && !response.destroyed) {
    response.read(SLOW_BYTES_PER_S / 10);
    await pause(100);
  }
  response.destroy();
};

const slowReaders = async (scene: Scene, pid: number): Promise<readonly Result[]> => {
  const { lead, studyId } = scene;
  const paths: string[] = [];
  for (let i = 0; i < SLOW_SCANS; i++) {
    const { sha256 } = await one<{ sha256: string }>(scene.pool, 'select sha256 from file order by sha256 offset $1 limit 1', [i]);
    paths.push(`/api/studies/${studyId}/files/${sha256}`);
  }
  let [over, most] = [false, 0];
  const drawing = [...Array<string>(SLOW_ARCHIVES).fill(`/api/studies/${studyId}/archive`), ...paths].map((path) =>
    draw(lead, path, () => over),
  );
  for (let second = 0; second < 40; second++) {
    most = Math.max(most, memoryMb(pid));
    await pause(1000);
  }
  over = true;
  await Promise.all(drawing);
  return [atMost(`memory while ${SLOW_ARCHIVES} archives and ${SLOW_SCANS} scans of 128 MB are drawn at 10 kB/s`, most, 'MB', 500)];
};

const manyStreams = async (scene: Scene): Promise<readonly Result[]> => {
  const { lead, studyId } = scene;
  const { body } = await lead.hear('GET', `/api/studies/${studyId}/mine`);
  const since = (JSON.parse(body.toString()) as readonly { readonly revision: number }[]).at(-1)?.revision ?? 1;
  const heard: number[] = [];
  let sentAt = Number.POSITIVE_INFINITY;
  const streams = await Promise.all(
    Array.from({ length: STREAMS }, async () => {
      const response = await lead.ask('GET', `/api/studies/${studyId}/events?since=${since}&connection=${randomUUID()}&device=bench`);
      response.on('data', (chunk: Buffer) => {
        if (chunk.includes('roller of the last stream')) heard.push(performance.now() - sentAt);
      });
      return response;
    }),
  );
  // until who is here has been told
  await pause(8000);
  const fields = {
    ...blank('part', { vehicleId: scene.vehicleId, subsystemId: scene.subsystemId, parentId: null }),
    name: 'roller of the last stream',
  };
  sentAt = performance.now();
  const kept = await lead.change(studyId, [{ kind: 'part.add', id: randomUUID(), fields }]);
  need(kept.status, 201);
  for (const until = Date.now() + 10_000; heard.length < STREAMS && Date.now() < until;) await pause(20);
  for (const stream of streams) stream.destroy();
  if (heard.length < STREAMS) throw new RangeError(`only ${heard.length} of ${STREAMS} streams heard of the change`);
  return [
    atMost(`a change is answered with ${STREAMS} streams open`, kept.ms, 'ms', 500),
    atMost('  and heard by the last of them', Math.max(...heard), 'ms', 1000),
  ];
};

/** A binary STL of the largest size there may be; what is in it does not matter. */
const scan = (): Buffer => {
  const triangles = Math.floor((SCAN_BYTES - 84) / 50);
  const bytes = Buffer.alloc(84 + 50 * triangles);
  randomBytes(1024).copy(bytes, 84);
  bytes.writeUInt32LE(triangles, 80);
  return bytes;
};

/** How long people wait for one another on one server process. */
export const crowdBench = async (): Promise<readonly Result[]> => {
  const database = await benchDatabase();
  await database.pool.end();
  const pool = openPool(database.url);
  pool.on('error', () => undefined);
  const settings = {
    DATABASE_URL: database.url,
    PORT: '0',
    LOG_LEVEL: 'silent',
    WEB_DIR: join(process.cwd(), 'web', 'dist', 'browser'),
    DEMO: 'no',
    STAND_INS: 'no',
    TRUST_PROXY: '1',
  };
  let server = await startServer(settings);
  const lead = await guest(pool, server.port, 'lead');
  const people = [await guest(pool, server.port), await guest(pool, server.port), await guest(pool, server.port)];
  const record = referenceStudy(10);
  const studyId = record.study.id;
  const begun = await lead.change(studyId, [
    ...ops('study', [record.study]),
    { kind: 'member.add', id: randomUUID(), fields: { personId: lead.person!.id, role: 'lead' } },
    ...people.map((who): Op => ({ kind: 'member.add', id: randomUUID(), fields: { personId: who.person!.id, role: 'recorder' } })),
    ...ops('vehicle', record.vehicles),
    ...ops('subsystem', record.subsystems.slice(0, 1)),
  ]);
  need(begun.status, 201);
  const [vehicleId, subsystemId, partId] = [record.vehicles[0]!.id, record.subsystems[0]!.id, randomUUID()];
  const plate: Op = {
    kind: 'part.add',
    id: partId,
    fields: { ...blank('part', { vehicleId, subsystemId, parentId: null }), name: 'carrier plate' },
  };
  need((await lead.change(studyId, [plate])).status, 201);
  const scene: Scene = { pool, port: server.port, lead, people, studyId, vehicleId, subsystemId, partId };
  const results = [...(await signInTimes(scene)), ...(await largeChanges(scene)), ...(await hostile(scene)), ...(await manyStreams(scene))];
  for (let i = 0; i < SLOW_SCANS; i++) {
    const bytes = scan();
    need((await lead.hear('PUT', `/api/studies/${studyId}/files/${sha256Of(bytes)}`, bytes, 'model/stl')).status, 201);
  }
  // a process that has done nothing else yet
  await server.stop();
  server = await startServer({ ...settings, PORT: String(scene.port) });
  results.push(...(await slowReaders(scene, server.pid)));
  await server.stop();
  await pool.end();
  await database.stop();
  return results;
};
