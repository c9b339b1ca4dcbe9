import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { massesOf, opOfToday, recordOfToday, type Masses, type StudyRecord } from '@each-bolt/core/record';
import type { LogEntry, OutboxEntry, OwnEntry } from './stored';
import type { Person } from '@each-bolt/core/wire';
import type { Sealed } from './seal';

/** A file that waits with a change, sealed. */
export interface SealedFile {
  readonly sha256: string;
  readonly type: string;
  readonly sealed: Sealed;
}

/** Changes, and the files that go with them. */
export interface SealedWaiting {
  readonly entries: Sealed;
  readonly files: readonly SealedFile[];
}

/** What an account left on this device unsent when it was signed out. */
export interface Left {
  readonly id: string;
  readonly personId: string;
  readonly name: string;
  /** changes that wait */
  readonly waiting: number;
  /** null where the browser has no ciphers: then it stays in the account’s own database, which no other account opens */
  readonly sealed: SealedWaiting | null;
}

/** What versions before 0.7 kept for all accounts together. */
export interface Before {
  readonly outbox: readonly OutboxEntry[];
  readonly own: readonly OwnEntry[];
  readonly files: readonly { readonly sha256: string; readonly blob: Blob }[];
  /** what the rows of its studies weighed before what waits */
  readonly masses: ReadonlyMap<string, Masses>;
}

interface Schema extends DBSchema {
  me: { key: string; value: Person };
  left: { key: string; value: Left };
  studies: { key: string; value: { readonly studyId: string; readonly record: StudyRecord } };
  log: { key: [string, number]; value: LogEntry };
  outbox: { key: number; value: OutboxEntry };
  own: { key: string; value: OwnEntry };
  files: { key: string; value: { readonly sha256: string; readonly blob: Blob } };
}

const OLD = ['studies', 'log', 'outbox', 'own', 'files'] as const;

/** What the device knows whoever is signed in: who that is, and what others left here to be sent. */
@Injectable({ providedIn: 'root' })
export class DeviceStore {
  private readonly db: Promise<IDBPDatabase<Schema>> = openDB<Schema>('each-bolt', 2, {
    upgrade(db, from) {
      if (from < 1) db.createObjectStore('me');
      if (from < 2) db.createObjectStore('left', { keyPath: 'id' });
    },
  });

  async me(): Promise<Person | null> {
    return (await (await this.db).get('me', 'me')) ?? null;
  }

  async setMe(person: Person | null): Promise<void> {
    const db = await this.db;
    if (person) await db.put('me', person, 'me');
    else await db.delete('me', 'me');
  }

  async left(): Promise<readonly Left[]> {
    return (await this.db).getAll('left');
  }

  async setLeft(left: Left): Promise<void> {
    const tx = (await this.db).transaction('left', 'readwrite', { durability: 'strict' });
    await tx.store.put(left);
    await tx.done;
  }

  async dropLeft(id: string): Promise<void> {
    await (await this.db).delete('left', id);
  }

  /** What an older version of the program kept here for an account; null where there is nothing of the kind. */
  async before(personId: string): Promise<Before | null> {
    const db = await this.db;
    if (!OLD.every((name) => db.objectStoreNames.contains(name))) return null;
    const outbox = (await db.getAll('outbox')).filter((entry) => entry.personId === personId);
    const own = (await db.getAll('own')).filter((entry) => entry.personId === personId);
    const masses = new Map<string, Masses>();
    if (outbox.length > 0) {
      for (const { studyId, record } of await db.getAll('studies')) masses.set(studyId, massesOf(recordOfToday(record)));
      for (const { studyId, ops } of await db.getAll('log')) for (const op of ops) opOfToday(op, masses.get(studyId));
    }
    return { outbox, own, files: outbox.length > 0 ? await db.getAll('files') : [], masses };
  }

  /** Forgets what an older version kept: of this account what was taken over, of all the copies of studies. */
  async forgetBefore(personId: string): Promise<void> {
    const tx = (await this.db).transaction(OLD, 'readwrite');
    for (const name of ['studies', 'log'] as const) await tx.objectStore(name).clear();
    for (const entry of await tx.objectStore('outbox').getAll())
      if (entry.personId === personId) await tx.objectStore('outbox').delete(entry.seq);
    for (const entry of await tx.objectStore('own').getAll()) if (entry.personId === personId) await tx.objectStore('own').delete(entry.id);
    if ((await tx.objectStore('outbox').count()) === 0) await tx.objectStore('files').clear();
    await tx.done;
  }
}
