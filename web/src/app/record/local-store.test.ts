import 'fake-indexeddb/auto';
import { webcrypto } from 'node:crypto';
import { TestBed } from '@angular/core/testing';
import type { Change } from '@each-bolt/core/record';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import { recordOf, teardown, testId } from '../../../testing/record';
import { LocalStore, type OutboxEntry } from './local-store';
import { seal, unseal } from './seal';

const WENNA = { id: testId(900), name: 'Wenna Tarn' };
const ODO = { id: testId(901), name: 'Odo Farrow' };
const KEY = btoa('k'.repeat(32));
const STUDY = testId(1);
const record = recordOf(teardown('secret plate 1 kg'));
const change = (n: number): Change => ({ id: testId(n), ops: [], undoes: null });
const entry = (n: number, personId: string): Omit<OutboxEntry, 'seq'> => ({
  ...{
    studyId: STUDY,
    personId,
    change: change(n),
    inverse: [],
    madeAt: '2026-06-01T08:00:00.000Z',
    typed: `secret line ${n}`,
    refusal: null,
  },
});

/** Everything that stands in any database of the device, as text. */
const everything = async (): Promise<string> => {
  const found: string[] = [];
  for (const { name } of await indexedDB.databases()) {
    const db = await openDB(name!);
    for (const store of db.objectStoreNames) found.push(`${name} ${store} ${JSON.stringify(await db.getAll(store))}`);
    db.close();
  }
  return found.join('\n');
};

describe('what a device keeps of an account', () => {
  let store: LocalStore;
  /** as after a reload */
  const begin = (): void => {
    TestBed.resetTestingModule();
    store = TestBed.inject(LocalStore);
  };

  beforeEach(() => {
    globalThis.indexedDB = new IDBFactory();
    for (const key of ['subtle', 'getRandomValues'] as const)
      Object.defineProperty(globalThis.crypto, key, {
        value: key === 'subtle' ? webcrypto.subtle : webcrypto.getRandomValues.bind(webcrypto),
        configurable: true,
      });
    begin();
  });

  it('is opened by no other account, signed out or not', async () => {
    await store.enter(WENNA, KEY);
    await store.storeStudy(STUDY, { record, role: 'lead', may: [] }, []);
    expect(await store.study(STUDY)).not.toBeNull();
    begin();
    await store.enter(ODO, KEY);
    expect([await store.study(STUDY), await store.studies(), await store.outbox()]).toEqual([null, [], []]);
    expect(await everything()).not.toContain('secret');
  });
  it('goes with signing out when all of it is sent', async () => {
    await store.enter(WENNA, KEY);
    await store.storeStudy(STUDY, { record, role: 'lead', may: [] }, []);
    await store.logChange({ studyId: STUDY, revision: 9, ops: [] });
    await store.leave();
    expect((await indexedDB.databases()).map(({ name }) => name)).toEqual(['each-bolt']);
    expect([await store.me(), await store.left()]).toEqual([null, []]);
  });
  it('stays sealed where it is unsent, says so, and is whole again for its owner alone', async () => {
    await store.enter(WENNA, KEY);
    await store.add(entry(50, WENNA.id));
    const refused = await store.add(entry(51, WENNA.id));
    await store.refuse(refused, { code: 'invalid', message: 'no', issues: [] });
    await store.leave();
    expect(await everything()).not.toContain('secret');
    expect(await store.left()).toMatchObject([{ name: 'Wenna Tarn', waiting: 2 }]);
    begin();
    await store.enter(ODO, btoa('o'.repeat(32)));
    expect(await store.outbox()).toEqual([]);
    await store.leave();
    begin();
    await store.enter(WENNA, KEY);
    expect((await store.outbox()).map((e) => [e.change.id, e.typed, e.refusal?.message ?? null])).toEqual([
      [testId(50), 'secret line 50', null],
      [testId(51), 'secret line 51', 'no'],
    ]);
    expect((await store.own(STUDY)).map(({ id }) => id)).toEqual([testId(50)]);
    expect(await store.left()).toEqual([]);
  });
  it('waits for a sign-in that the server answers, which alone brings the key', async () => {
    await store.enter(WENNA, KEY);
    await store.add(entry(50, WENNA.id));
    await store.leave();
    begin();
    await store.enter(WENNA, null);
    expect([(await store.outbox()).length, (await store.left()).length]).toEqual([0, 1]);
    await store.enter(WENNA, KEY);
    expect([(await store.outbox()).length, (await store.left()).length]).toEqual([1, 0]);
  });
  it('sealed by another house at the same address keeps nobody from signing in, and is not written over', async () => {
    const OTHER = btoa('h'.repeat(32));
    await store.enter(WENNA, OTHER);
    await store.add(entry(50, WENNA.id));
    await store.leave();
    await store.enter(WENNA, KEY);
    expect(await store.outbox()).toEqual([]);
    await store.add(entry(51, WENNA.id));
    await store.leave();
    expect(await store.left()).toHaveLength(2);
    await store.enter(WENNA, OTHER);
    expect((await store.outbox()).map((e) => e.typed)).toEqual(['secret line 50']);
    expect(await store.left()).toHaveLength(1);
  });
  it('of a browser without ciphers stays in the database of the account, without copies of studies', async () => {
    Object.defineProperty(globalThis.crypto, 'subtle', { value: undefined, configurable: true });
    await store.enter(WENNA, KEY);
    await store.storeStudy(STUDY, { record, role: 'lead', may: [] }, []);
    await store.add(entry(50, WENNA.id));
    await store.leave();
    expect(await store.left()).toMatchObject([{ waiting: 1, sealed: null }]);
    expect(await everything()).not.toContain('secret plate');
    await store.enter(WENNA, KEY);
    expect((await store.outbox()).map((e) => e.typed)).toEqual(['secret line 50']);
  });
  it('takes over what an older version left unsent for all accounts together, each its own', async () => {
    globalThis.indexedDB = new IDBFactory();
    const old = await openDB('each-bolt', 1, {
      upgrade(db) {
        db.createObjectStore('studies', { keyPath: 'studyId' });
        db.createObjectStore('log', { keyPath: ['studyId', 'revision'] });
        db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true });
        db.createObjectStore('own', { keyPath: 'id' });
        db.createObjectStore('files', { keyPath: 'sha256' });
        db.createObjectStore('me');
      },
    });
    await old.put('studies', { studyId: STUDY, record, role: 'lead', may: [], people: [] });
    for (const e of [entry(50, WENNA.id), entry(51, ODO.id)]) await old.add('outbox', e);
    old.close();
    begin();
    await store.enter(WENNA, KEY);
    expect((await store.outbox()).map((e) => e.typed)).toEqual(['secret line 50']);
    expect(await store.study(STUDY)).toBeNull();
    begin();
    await store.enter(ODO, KEY);
    expect((await store.outbox()).map((e) => e.typed)).toEqual(['secret line 51']);
  });
});

describe('a seal', () => {
  it('opens with its key alone, and shows any byte that was changed', async () => {
    const bytes = new TextEncoder().encode('12x bracket 41 g').buffer;
    const sealed = await seal(KEY, bytes);
    expect(new TextDecoder().decode(await unseal(KEY, sealed))).toBe('12x bracket 41 g');
    await expect(unseal(btoa('x'.repeat(32)), sealed)).rejects.toThrow();
    const changed = new Uint8Array(sealed.bytes.slice(0));
    changed[0]! ^= 1;
    await expect(unseal(KEY, { ...sealed, bytes: changed.buffer })).rejects.toThrow();
  });
});
