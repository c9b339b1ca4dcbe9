import { createHash } from 'node:crypto';
import { Socket } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import type { Logger } from 'pino';
import type { Pool } from '../db/pool';
import { heardSince, type HeardChange } from '../ledger/queries';
import { livingSessions, present } from './queries';

/** Somebody who follows a study. `since` is the last revision told. */
export interface Follower {
  readonly studyId: string;
  since: number;
  /** takes a change as it goes over the wire, written once for all who follow */
  readonly change: (change: HeardChange, event: Buffer) => void;
  readonly here: (event: Buffer) => void;
  /** false while it has not read what it was told; `tellMore` is called once it has */
  readonly isReady: () => boolean;
  /** ends the connection when the server stops */
  readonly end: () => void;
}

const AT_ONCE = 200;
/** Who is here is told at most so often, however many come and go, and the less often the more there are to tell and to be told. */
const HERE_EACH_MS = 1000;
const HERE_EACH_FOLLOWER_MS = 10;
const RETRY_MS = 1000;
/** The name by which the database knows the connection. */
export const LISTENS = 'each bolt: listens for changes';
/** The connection is asked so often whether it is still there, and given so long to answer: noticed and made again within 10 s. */
const PROBE_MS = 2500;
const ANSWER_MS = 3000;
/** A change of a whole import may take so long to read. */
const READ_MS = 60_000;

/** An event of a stream as it goes over the wire; `data` is JSON, on one line. */
export const eventOf = (event: string, data: string, id?: number): Buffer =>
  Buffer.from(`event: ${event}\n${id === undefined ? '' : `id: ${id}\n`}data: ${data}\n\n`);

const changeEvent = ({ revision, text }: HeardChange): Buffer =>
  text === null ? eventOf('large', JSON.stringify({ revision }), revision) : eventOf('change', text, revision);

/** What the database tells of a session: no session could be taken up by it. */
const toldOf = (sid: string): string => createHash('sha256').update(sid).digest('hex');

/**
 * Tells followers of every change of their study, whichever process kept it: PostgreSQL notifies each process, which
 * reads the changes its followers have not been told. The connection that is notified is probed,
 * for a network that swallows everything says nothing; a lost or silent one is made again and all are caught up.
 */
export class Live {
  private readonly followers = new Map<string, Set<Follower>>();
  /** what is being read of a study, and whether it has to be read once more afterwards */
  private readonly reading = new Map<string, { again: boolean }>();
  /** who was told to be here last, by study, and when */
  private readonly told = new Map<string, { readonly text: string; readonly at: number }>();
  /** hears what is told and is probed */
  private client: pg.Client | null = null;
  /** reads what was told: apart, for a large change takes longer to read than a probe may take */
  private reader: pg.Client | null = null;
  private readonly readers = new WeakMap<pg.Client, pg.Client>();
  private readonly sockets = new WeakMap<pg.Client, Socket>();
  private probing: NodeJS.Timeout | null = null;
  /** streams open in each session, by what the database tells of it */
  private readonly sessions = new Map<string, { readonly sid: string; readonly ends: Set<() => void> }>();
  private stopped = false;
  private readonly lost = new WeakSet<pg.Client>();

  constructor(
    private readonly pool: Pool,
    private readonly log: Logger,
    /** the list of the organisation's instruments may have changed */
    private readonly instrumentsChanged: () => void = () => undefined,
  ) {}

  async start(): Promise<void> {
    const client = this.connection(ANSWER_MS);
    const reader = this.connection(READ_MS);
    this.readers.set(client, reader);
    client.on('notification', ({ channel, payload }) => {
      if (channel === 'session_end') this.endStreams(payload ?? '');
      if (channel === 'instruments') this.instrumentsChanged();
      if (payload === undefined || !this.followers.has(payload)) return;
      if (channel === 'study_change') this.tellChanges(payload);
      else this.tellHere(payload);
    });
    client.on('error', (error) => this.again(client, error));
    client.on('end', () => this.again(client, null));
    reader.on('error', (error) => this.again(client, error));
    reader.on('end', () => this.again(client, null));
    try {
      await Promise.all([client.connect(), reader.connect()]);
      await client.query('listen study_change');
      await client.query('listen study_here');
      await client.query('listen session_end');
      await client.query('listen instruments');
    } catch (error) {
      this.again(client, error as Error);
      return;
    }
    if (this.stopped) {
      await Promise.all([client.end(), reader.end()]);
      return;
    }
    [this.client, this.reader] = [client, reader];
    this.probing = setInterval(() => {
      this.checkSessions(client).catch((error: unknown) => this.again(client, error as Error));
    }, PROBE_MS);
    this.instrumentsChanged();
    for (const studyId of this.followers.keys()) {
      this.tellChanges(studyId);
      this.tellHere(studyId);
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    for (const followers of this.followers.values()) for (const follower of followers) follower.end();
    const { client, reader } = this;
    this.forget();
    await Promise.all([client?.end(), reader?.end()]);
  }

  /** Follows a study until the returned function is called; what it has missed since its revision comes first. */
  follow(follower: Follower): () => void {
    const { studyId } = follower;
    const all = this.followers.get(studyId) ?? new Set();
    this.followers.set(studyId, all.add(follower));
    const told = this.told.get(studyId);
    if (told) follower.here(eventOf('here', told.text));
    this.tellChanges(studyId);
    this.tellHere(studyId);
    return () => {
      all.delete(follower);
      if (all.size > 0) return;
      this.followers.delete(studyId);
      this.told.delete(studyId);
    };
  }

  /** Tells a follower who has read all of it what came meanwhile. */
  tellMore({ studyId }: Pick<Follower, 'studyId'>): void {
    this.tellChanges(studyId);
  }

  /** Ends a stream when its session does: signed out, password changed, or run out. Until the returned function is called. */
  attend(sid: string, end: () => void): () => void {
    const told = toldOf(sid);
    const open = this.sessions.get(told) ?? { sid, ends: new Set() };
    this.sessions.set(told, open);
    open.ends.add(end);
    return () => {
      open.ends.delete(end);
      if (open.ends.size === 0) this.sessions.delete(told);
    };
  }

  private endStreams(told: string): void {
    for (const end of [...(this.sessions.get(told)?.ends ?? [])]) end();
  }

  /** Probes the connection, and ends the streams of sessions whose end was not heard. */
  private async checkSessions(client: pg.Client): Promise<void> {
    const open = [...this.sessions].map(([told, { sid }]) => ({ told, sid }));
    const alive = new Set(
      await livingSessions(
        client,
        open.map(({ sid }) => sid),
      ),
    );
    for (const { told, sid } of open) if (!alive.has(sid)) this.endStreams(told);
  }

  private tellChanges(studyId: string): void {
    this.read(studyId, () => this.readChanges(studyId));
  }

  private tellHere(studyId: string): void {
    this.read(`here ${studyId}`, () => this.readHere(studyId));
  }

  /** One reading at a time: however many wish it while it runs, it is read once more afterwards. What fails is told over the next connection. */
  private read(key: string, act: () => Promise<void>): void {
    const running = this.reading.get(key);
    if (running) {
      running.again = true;
      return;
    }
    const state = { again: false };
    this.reading.set(key, state);
    const { client } = this;
    void act()
      .catch((error: unknown) => {
        if (client) this.again(client, error as Error);
      })
      .then(() => {
        this.reading.delete(key);
        if (state.again && !this.stopped) this.read(key, act);
      });
  }

  private async readChanges(studyId: string): Promise<void> {
    for (;;) {
      const followers = [...(this.followers.get(studyId) ?? [])].filter((follower) => follower.isReady());
      // without a connection they are told once there is one again
      if (followers.length === 0 || this.reader === null) return;
      const since = Math.min(...followers.map((f) => f.since));
      const changes = await heardSince(this.reader, studyId, since, AT_ONCE);
      for (const change of changes) {
        const event = changeEvent(change);
        for (const follower of followers) {
          if (change.revision <= follower.since || !follower.isReady()) continue;
          follower.since = change.revision;
          follower.change(change, event);
        }
      }
      if (changes.length < AT_ONCE) return;
    }
  }

  /** Tells who is here, all at once and only when it is not what was told last; what happens meanwhile is told together. */
  private async readHere(studyId: string): Promise<void> {
    const before = this.told.get(studyId);
    const each = HERE_EACH_MS + HERE_EACH_FOLLOWER_MS * (this.followers.get(studyId)?.size ?? 0);
    const wait = before ? before.at + each - Date.now() : 0;
    if (wait > 0) await pause(wait, undefined, { ref: false });
    if (this.reader === null || !this.followers.has(studyId)) return;
    const text = JSON.stringify(await present(this.reader, studyId));
    // the last of them may have left meanwhile: whoever comes next is not told of those who were there
    if (!this.followers.has(studyId)) return;
    this.told.set(studyId, { text, at: Date.now() });
    if (text === before?.text) return;
    const event = eventOf('here', text);
    for (const follower of this.followers.get(studyId) ?? []) follower.here(event);
  }

  private connection(answerMs: number): pg.Client {
    const socket = new Socket();
    const { connectionString, types } = this.pool.options;
    const client = new pg.Client({
      connectionString,
      ...(types && { types }),
      application_name: LISTENS,
      keepAlive: true,
      keepAliveInitialDelayMillis: PROBE_MS,
      connectionTimeoutMillis: ANSWER_MS,
      query_timeout: answerMs,
      stream: () => socket,
    });
    this.sockets.set(client, socket);
    return client;
  }

  private forget(): void {
    this.client = null;
    this.reader = null;
    if (this.probing) clearInterval(this.probing);
    this.probing = null;
  }

  /** Makes the lost connection again, once however many signs of its loss there are. */
  private again(client: pg.Client, error: Error | null): void {
    if (this.stopped || this.lost.has(client)) return;
    this.lost.add(client);
    this.forget();
    if (error)
      this.log.warn(
        { err: error },
        'the connection that listens for changes was lost; it is made again, and all are told what they missed',
      );
    // a goodbye would wait for an answer that does not come
    for (const gone of [client, this.readers.get(client)]) if (gone) this.sockets.get(gone)?.destroy();
    setTimeout(() => {
      if (this.stopped) return;
      void this.start();
    }, RETRY_MS).unref();
  }
}
