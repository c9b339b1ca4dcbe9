import pg from 'pg';
import type { Logger } from 'pino';
import type { KeptChange } from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { changesSince } from '../ledger/queries';
import { present, type Here } from './queries';

/** Somebody who follows a study. `since` is the last revision told. */
export interface Follower {
  readonly studyId: string;
  since: number;
  readonly change: (change: KeptChange) => void;
  readonly here: (people: readonly Here[]) => void;
  /** ends the connection when the server stops */
  readonly end: () => void;
}

const AT_ONCE = 200;
const RETRY_MS = 1000;

/**
 * Tells followers of every change of their study, whichever process kept it: PostgreSQL notifies each process, which
 * reads the changes its followers have not been told. A lost notification connection is made again and all are caught up.
 */
export class Live {
  private readonly followers = new Map<string, Set<Follower>>();
  private readonly busy = new Map<string, Promise<void>>();
  private client: pg.Client | null = null;
  private stopped = false;
  private readonly lost = new WeakSet<pg.Client>();

  constructor(
    private readonly pool: Pool,
    private readonly log: Logger,
  ) {}

  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.pool.options.connectionString });
    client.on('notification', ({ channel, payload }) => {
      if (payload === undefined || !this.followers.has(payload)) return;
      if (channel === 'study_change') this.queue(payload, () => this.tellChanges(payload));
      else this.queue(`here ${payload}`, () => this.tellHere(payload));
    });
    client.on('error', (error) => this.again(client, error));
    client.on('end', () => this.again(client, null));
    try {
      await client.connect();
      await client.query('listen study_change');
      await client.query('listen study_here');
    } catch (error) {
      this.again(client, error as Error);
      return;
    }
    this.client = client;
    for (const studyId of this.followers.keys()) this.queue(studyId, () => this.tellChanges(studyId));
  }

  async stop(): Promise<void> {
    this.stopped = true;
    for (const followers of this.followers.values()) for (const follower of followers) follower.end();
    const { client } = this;
    this.client = null;
    await client?.end();
  }

  /** Follows a study until the returned function is called; what it has missed since its revision comes first. */
  follow(follower: Follower): () => void {
    const { studyId } = follower;
    const all = this.followers.get(studyId) ?? new Set();
    this.followers.set(studyId, all.add(follower));
    this.queue(studyId, () => this.tellChanges(studyId));
    this.queue(`here ${studyId}`, () => this.tellHere(studyId));
    return () => {
      all.delete(follower);
      if (all.size === 0) this.followers.delete(studyId);
    };
  }

  /** One reading of a study at a time; a second wish while one runs is one more afterwards. */
  private queue(key: string, act: () => Promise<void>): void {
    const before = this.busy.get(key) ?? Promise.resolve();
    const next = before
      .then(act)
      .catch((error: unknown) => this.log.warn({ err: error }, 'followers could not be told; they are told again'));
    this.busy.set(key, next);
    void next.then(() => {
      if (this.busy.get(key) === next) this.busy.delete(key);
    });
  }

  private async tellChanges(studyId: string): Promise<void> {
    for (;;) {
      const followers = [...(this.followers.get(studyId) ?? [])];
      if (followers.length === 0) return;
      const since = Math.min(...followers.map((f) => f.since));
      const changes = await changesSince(this.pool, studyId, since, AT_ONCE);
      for (const change of changes)
        for (const follower of followers) {
          if (change.revision <= follower.since) continue;
          follower.since = change.revision;
          follower.change(change);
        }
      if (changes.length < AT_ONCE) return;
    }
  }

  private async tellHere(studyId: string): Promise<void> {
    const people = await present(this.pool, studyId);
    for (const follower of this.followers.get(studyId) ?? []) follower.here(people);
  }

  /** Makes the lost connection again, once however many signs of its loss there are. */
  private again(client: pg.Client, error: Error | null): void {
    if (this.stopped || this.lost.has(client)) return;
    this.lost.add(client);
    this.client = null;
    if (error) this.log.warn({ err: error }, 'the connection that listens for changes was lost');
    void client.end().catch(() => undefined);
    setTimeout(() => {
      if (this.stopped) return;
      void this.start();
    }, RETRY_MS).unref();
  }
}
