import { Injectable, inject } from '@angular/core';
import { changeOfToday, massesOf, opOfToday, recordOfToday, type Masses, type Op } from '@each-bolt/core/record';
import { deleteDB, openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from 'idb';
import { DeviceStore, type Left, type SealedFile, type SealedWaiting } from './device-store';
import type { LogEntry, OutboxEntry, OwnEntry } from './stored';
import type { Person, Refusal } from '@each-bolt/core/wire';
import type { ReadStudy } from './record-api';
import { canSeal, seal, unseal } from './seal';

interface Schema extends DBSchema {
  studies: { key: string; value: ReadStudy & { readonly studyId: string; readonly people: readonly Person[] } };
  log: { key: [string, number]; value: LogEntry };
  outbox: { key: number; value: OutboxEntry; indexes: { study: string } };
  own: { key: string; value: OwnEntry; indexes: { study: string } };
  files: { key: string; value: { readonly sha256: string; readonly blob: Blob } };
  /** what seals that which waits when the account is signed out */
  key: { key: string; value: string };
}

type Account = IDBPDatabase<Schema>;
type Upgrade = IDBPTransaction<Schema, ('studies' | 'log' | 'outbox' | 'own' | 'files' | 'key')[], 'versionchange'>;

const nameOf = (personId: string): string => `each-bolt ${personId}`;

const openAccount = (personId: string): Promise<Account> =>
  openDB<Schema>(nameOf(personId), 2, {
    upgrade(db, before, _now, tx) {
      if (before === 1) {
        // what cannot be put into other words stays as it is, and is not opened
        inWordsOfToday(tx).catch(() => tx.abort());
        return;
      }
      db.createObjectStore('studies', { keyPath: 'studyId' });
      db.createObjectStore('log', { keyPath: ['studyId', 'revision'] });
      db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true }).createIndex('study', 'studyId');
      db.createObjectStore('own', { keyPath: 'id' }).createIndex('study', 'studyId');
      db.createObjectStore('files', { keyPath: 'sha256' });
      db.createObjectStore('key');
    },
    // signed out in another tab: the copy must go, here too
    blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
  });

/** The files that have to be with the server before a change. */
export const filesOf = ({ change }: OutboxEntry): readonly string[] =>
  change.ops.flatMap((op) => (op.kind === 'picture.add' || op.kind === 'scan.add' ? [op.fields.sha256] : []));

interface Waiting {
  readonly outbox: readonly OutboxEntry[];
  readonly own: readonly OwnEntry[];
}

/**
 * What the device keeps for the account that is signed in, to begin and to record without a network. Each account has a database of
 * its own: no other opens it, and when it is signed out only what is still unsent stays, sealed.
 */
@Injectable({ providedIn: 'root' })
export class LocalStore {
  private readonly device = inject(DeviceStore);
  private account: { readonly personId: string; readonly db: Account } | null = null;

  private get db(): Promise<Account> {
    return this.account ? Promise.resolve(this.account.db) : Promise.reject(new Error('No account is open on this device'));
  }

  /** Who was signed in here last; null once they signed out. */
  me(): Promise<Person | null> {
    return this.device.me();
  }

  /**
   * Opens what this device keeps for an account, with what it left here unsent; what another account kept here is closed.
   *
   * @param key what sealed it, in base64; null when the server was not asked, for one who is signed in still
   */
  async enter(person: Person, key: string | null): Promise<void> {
    await alone(async () => {
      const before = await this.device.me();
      if (before && before.id !== person.id) await this.close(before);
      if (this.account?.personId !== person.id) {
        this.account?.db.close();
        this.account = { personId: person.id, db: await openAccount(person.id) };
      }
      const { db } = this.account;
      if (key !== null) await db.put('key', key, 'key');
      await this.takeBefore(db, person.id);
      await this.takeLeft(db, person.id, key);
      await this.device.setMe(person);
    });
  }

  /** Closes the account on this device: its copies go, what is unsent stays, sealed. */
  async leave(): Promise<void> {
    await alone(async () => {
      const person = await this.device.me();
      if (person) await this.close(person);
      await this.device.setMe(null);
    });
  }

  /** What accounts left here that still waits to be sent. */
  left(): Promise<readonly Left[]> {
    return this.device.left();
  }

  private async close(person: Person): Promise<void> {
    const db = this.account?.personId === person.id ? this.account.db : await openAccount(person.id);
    this.account = null;
    const outbox = await db.getAll('outbox');
    if (outbox.length === 0) {
      db.close();
      await deleteDB(nameOf(person.id));
      return;
    }
    const unsent = new Set(outbox.map((entry) => entry.change.id));
    const own = (await db.getAll('own')).filter(({ id }) => unsent.has(id));
    const key = await db.get('key', 'key');
    const left = { id: crypto.randomUUID(), personId: person.id, name: person.name, waiting: outbox.length };
    if (key === undefined || !canSeal()) {
      await forgetCopies(db, outbox, unsent);
      db.close();
      await this.device.setLeft({ ...left, sealed: null });
      return;
    }
    const waiting: Waiting = { outbox, own };
    const entries = await seal(key, new TextEncoder().encode(JSON.stringify(waiting)).buffer);
    const files: SealedFile[] = [];
    for (const sha256 of new Set(outbox.flatMap(filesOf))) {
      const blob = (await db.get('files', sha256))?.blob;
      if (blob) files.push({ sha256, type: blob.type, sealed: await seal(key, await blob.arrayBuffer()) });
    }
    await this.device.setLeft({ ...left, sealed: { entries, files } });
    db.close();
    await deleteDB(nameOf(person.id));
  }

  /** Puts back what was sealed; a crash between that and forgetting the seal puts nothing back twice. */
  private async takeLeft(db: Account, personId: string, key: string | null): Promise<void> {
    for (const left of await this.device.left()) {
      if (left.personId !== personId) continue;
      // it waits for a sign-in that the server answers, which alone brings the key
      if (left.sealed && key === null) continue;
      if (left.sealed && key !== null) {
        const opened = await openSeal(key, left.sealed);
        // sealed by another organisation at this address: it stays until that one is back, and keeps nobody from signing in
        if (opened === null) continue;
        await putBack(db, opened.waiting, opened.files);
      }
      await this.device.dropLeft(left.id);
    }
  }

  private async takeBefore(db: Account, personId: string): Promise<void> {
    const before = await this.device.before(personId);
    if (!before) return;
    await putBack(db, before, before.files, before.masses);
    await this.device.forgetBefore(personId);
  }

  /** The study as it was last stored, and the changes applied since. */
  async study(
    studyId: string,
  ): Promise<{ readonly stored: ReadStudy & { readonly people: readonly Person[] }; readonly log: readonly LogEntry[] } | null> {
    const db = await this.db;
    const stored = await db.get('studies', studyId);
    if (!stored) return null;
    const log = await db.getAll('log', IDBKeyRange.bound([studyId, stored.record.revision + 1], [studyId, Infinity]));
    return { stored, log };
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
    return (await this.db).getAll('studies');
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

  /** All that waits or was refused, of every study, in the order of sending. */
  async outbox(): Promise<readonly OutboxEntry[]> {
    return [...(await (await this.db).getAll('outbox'))].sort((a, b) => a.seq - b.seq);
  }

  async own(studyId: string): Promise<readonly OwnEntry[]> {
    const entries = await (await this.db).getAllFromIndex('own', 'study', studyId);
    return [...entries].sort((a, b) => a.seq - b.seq);
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

/** Opens and closes accounts one at a time, whichever tab does it. */
const alone = async (act: () => Promise<void>): Promise<void> => {
  const locks = (navigator as Partial<Navigator>).locks;
  await (locks ? locks.request('each-bolt account', act) : act());
};

type Files = readonly { readonly sha256: string; readonly blob: Blob }[];

/** What was sealed; null when the key is another. */
const openSeal = async (
  key: string,
  { entries, files }: SealedWaiting,
): Promise<{ readonly waiting: Waiting; readonly files: Files } | null> => {
  const bytes = await unseal(key, entries).catch(() => null);
  if (bytes === null) return null;
  const blobs = files.map(async ({ sha256, type, sealed }) => ({ sha256, blob: new Blob([await unseal(key, sealed)], { type }) }));
  return { waiting: JSON.parse(new TextDecoder().decode(bytes)) as Waiting, files: await Promise.all(blobs) };
};

/** Puts back what waits. An edit of a part of a mass, whose row this device does not have, is completed by the server. */
const putBack = async (db: Account, waiting: Waiting, files: Files, masses: ReadonlyMap<string, Masses> = new Map()): Promise<void> => {
  const { outbox, own } = waitingOfToday(waiting, masses);
  const tx = db.transaction(['outbox', 'own', 'files'], 'readwrite', { durability: 'strict' });
  const there = new Set((await tx.objectStore('outbox').getAll()).map((entry) => entry.change.id));
  for (const entry of outbox) {
    if (there.has(entry.change.id)) continue;
    const { seq: _seq, ...rest } = entry;
    const seq = await tx.objectStore('outbox').add(rest as OutboxEntry);
    const acts = own.filter(({ id }) => id === entry.change.id);
    for (const act of acts) await tx.objectStore('own').put({ ...act, seq });
  }
  for (const file of files) await tx.objectStore('files').put(file);
  await tx.done;
};

const NOTHING_WEIGHED = (): Masses => new Map();

/** What waits, in the words of today; `own` are what takes back the changes that wait, and no others. */
const waitingOfToday = ({ outbox, own }: Waiting, masses: ReadonlyMap<string, Masses>): Waiting => {
  const inOrder = [...outbox].sort((a, b) => a.seq - b.seq);
  const now = inOrder.map((entry): OutboxEntry => {
    const { ops, inverse } = changeOfToday(
      { ops: entry.change.ops, inverse: entry.inverse },
      masses.get(entry.studyId) ?? NOTHING_WEIGHED(),
    );
    // what clashed then is told in words of then; sent again, it is told anew
    const refusal = entry.refusal?.conflicts?.length && ops !== entry.change.ops ? { ...entry.refusal, conflicts: [] } : entry.refusal;
    return { ...entry, change: { ...entry.change, ops }, inverse, refusal };
  });
  const inverseOf = new Map(now.map((entry) => [entry.change.id, entry.inverse]));
  return { outbox: now, own: own.flatMap((act) => (inverseOf.has(act.id) ? [{ ...act, inverse: inverseOf.get(act.id)! }] : [])) };
};

/**
 * Puts what an older version kept here into the words of today: the copies of studies, the changes since, and what waits. What takes
 * back a change that the server has is asked of the server again.
 */
const inWordsOfToday = async (tx: Upgrade): Promise<void> => {
  const [studies, log, outbox, own] = await Promise.all([
    tx.objectStore('studies').getAll(),
    tx.objectStore('log').getAll(),
    tx.objectStore('outbox').getAll(),
    tx.objectStore('own').getAll(),
  ]);
  const masses = new Map<string, Masses>();
  for (const kept of studies) {
    const record = recordOfToday(kept.record);
    masses.set(kept.studyId, massesOf(record));
    await tx.objectStore('studies').put({ ...kept, record });
  }
  for (const entry of [...log].sort((a, b) => a.revision - b.revision)) {
    const weighed = masses.get(entry.studyId) ?? NOTHING_WEIGHED();
    await tx.objectStore('log').put({ ...entry, ops: entry.ops.map((op) => opOfToday(op, weighed) as Op) });
  }
  const waiting = waitingOfToday({ outbox, own }, masses);
  for (const entry of waiting.outbox) await tx.objectStore('outbox').put(entry);
  await tx.objectStore('own').clear();
  for (const act of waiting.own) await tx.objectStore('own').put(act);
};

/** Leaves in the database only what is unsent. */
const forgetCopies = async (db: Account, outbox: readonly OutboxEntry[], unsent: ReadonlySet<string>): Promise<void> => {
  const tx = db.transaction(['studies', 'log', 'own', 'files'], 'readwrite');
  await tx.objectStore('studies').clear();
  await tx.objectStore('log').clear();
  for (const id of await tx.objectStore('own').getAllKeys()) if (!unsent.has(id)) await tx.objectStore('own').delete(id);
  const needed = new Set(outbox.flatMap(filesOf));
  for (const sha256 of await tx.objectStore('files').getAllKeys()) if (!needed.has(sha256)) await tx.objectStore('files').delete(sha256);
  await tx.done;
};
