import { Injectable } from '@angular/core';
import { withLaterFields, withLaterRows, type Change, type Op } from '@each-bolt/core/record';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Person, ReadStudy, Refusal } from './record-api';

/** A change that waits to be sent, or was refused and waits to be mended. */
export interface OutboxEntry {
  /** place in the order of sending */
  readonly seq: number;
  readonly studyId: string;
  readonly personId: string;
  readonly change: Change;
  /** what takes it back, as far as this device knows */
  readonly inverse: readonly Op[];
  /** when it was made here, ISO 8601 */
  readonly madeAt: string;
  /** the line it was typed as, or empty */
  readonly typed: string;
  readonly refusal: Refusal | null;
}

/** A change of one's own as undoing needs it, kept across reloads. */
export interface OwnEntry {
  readonly id: string;
  readonly studyId: string;
  readonly personId: string;
  readonly undoes: string | null;
  readonly inverse: readonly Op[];
  readonly seq: number;
}

/** A change applied since the study was last stored whole. */
export interface LogEntry {
  readonly studyId: string;
  readonly revision: number;
  readonly ops: readonly Op[];
}

/** An op that an older version of the program left on this device. */
const asToday = (op: Op): Op => withLaterFields(op) as Op;

interface Schema extends DBSchema {
  studies: { key: string; value: ReadStudy & { readonly studyId: string; readonly people: readonly Person[] } };
  log: { key: [string, number]; value: LogEntry };
  outbox: { key: number; value: OutboxEntry; indexes: { study: string } };
  own: { key: string; value: OwnEntry; indexes: { study: string } };
  files: { key: string; value: { readonly sha256: string; readonly blob: Blob } };
  me: { key: string; value: Person };
}

/** What the device keeps of a study, to begin and to record without a network. */
@Injectable({ providedIn: 'root' })
export class LocalStore {
  private readonly db: Promise<IDBPDatabase<Schema>> = openDB<Schema>('each-bolt', 1, {
    upgrade(db) {
      db.createObjectStore('studies', { keyPath: 'studyId' });
      db.createObjectStore('log', { keyPath: ['studyId', 'revision'] });
      db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true }).createIndex('study', 'studyId');
      db.createObjectStore('own', { keyPath: 'id' }).createIndex('study', 'studyId');
      db.createObjectStore('files', { keyPath: 'sha256' });
      db.createObjectStore('me');
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

  /** The study as it was last stored, and the changes applied since. */
  async study(
    studyId: string,
  ): Promise<{ readonly stored: ReadStudy & { readonly people: readonly Person[] }; readonly log: readonly LogEntry[] } | null> {
    const db = await this.db;
    const stored = await db.get('studies', studyId);
    if (!stored) return null;
    const log = await db.getAll('log', IDBKeyRange.bound([studyId, stored.record.revision + 1], [studyId, Infinity]));
    return {
      stored: { ...stored, record: withLaterRows(stored.record) },
      log: log.map((entry) => ({ ...entry, ops: entry.ops.map(asToday) })),
    };
  }

  async storeStudy(studyId: string, read: ReadStudy, people: readonly Person[]): Promise<void> {
    const tx = (await this.db).transaction(['studies', 'log'], 'readwrite');
    await tx.objectStore('studies').put({ studyId, ...read, people });
    await tx.objectStore('log').delete(IDBKeyRange.bound([studyId, 0], [studyId, read.record.revision]));
    await tx.done;
  }

  /** Forgets a study that one is no longer of. */
  async forget(studyId: string): Promise<void> {
    const tx = (await this.db).transaction(['studies', 'log'], 'readwrite');
    await tx.objectStore('studies').delete(studyId);
    await tx.objectStore('log').delete(IDBKeyRange.bound([studyId, 0], [studyId, Infinity]));
    await tx.done;
  }

  async studies(): Promise<readonly (ReadStudy & { readonly studyId: string })[]> {
    return (await (await this.db).getAll('studies')).map((kept) => ({ ...kept, record: withLaterRows(kept.record) }));
  }

  async logChange(entry: LogEntry): Promise<void> {
    await (await this.db).put('log', entry);
  }

  /** Puts a change at the end of the outbox, durably, with what takes it back. */
  async add(entry: Omit<OutboxEntry, 'seq'>): Promise<OutboxEntry> {
    const tx = (await this.db).transaction(['outbox', 'own'], 'readwrite', { durability: 'strict' });
    const seq = await tx.objectStore('outbox').add(entry as OutboxEntry);
    const { change, studyId, personId, inverse } = entry;
    await tx.objectStore('own').put({ id: change.id, studyId, personId, undoes: change.undoes, inverse, seq });
    await tx.done;
    return { ...entry, seq };
  }

  async outbox(studyId: string): Promise<readonly OutboxEntry[]> {
    const entries = await (await this.db).getAllFromIndex('outbox', 'study', studyId);
    return entries
      .map((entry) => ({ ...entry, change: { ...entry.change, ops: entry.change.ops.map(asToday) } }))
      .sort((a, b) => a.seq - b.seq);
  }

  async own(studyId: string, personId: string): Promise<readonly OwnEntry[]> {
    const entries = await (await this.db).getAllFromIndex('own', 'study', studyId);
    return entries.filter((own) => own.personId === personId).sort((a, b) => a.seq - b.seq);
  }

  /** A kept change leaves the outbox and enters the log in one step: never lost, never there twice. */
  async kept(entry: OutboxEntry, revision: number): Promise<void> {
    const tx = (await this.db).transaction(['outbox', 'log'], 'readwrite');
    await tx.objectStore('outbox').delete(entry.seq);
    await tx.objectStore('log').put({ studyId: entry.studyId, revision, ops: entry.change.ops });
    await tx.done;
  }

  async refuse(entry: OutboxEntry, refusal: Refusal): Promise<OutboxEntry> {
    const refused = { ...entry, refusal };
    const tx = (await this.db).transaction(['outbox', 'own'], 'readwrite');
    await tx.objectStore('outbox').put(refused);
    await tx.objectStore('own').delete(entry.change.id);
    await tx.done;
    return refused;
  }

  async drop(seq: number): Promise<void> {
    await (await this.db).delete('outbox', seq);
  }

  async putFile(sha256: string, blob: Blob): Promise<void> {
    await (await this.db).put('files', { sha256, blob });
  }

  async file(sha256: string): Promise<Blob | null> {
    return (await (await this.db).get('files', sha256))?.blob ?? null;
  }

  async dropFile(sha256: string): Promise<void> {
    await (await this.db).delete('files', sha256);
  }
}
