import 'fake-indexeddb/auto';
import { webcrypto } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { TestBed } from '@angular/core/testing';
import { readChange, type Change } from '@each-bolt/core/record';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import { recordOf, teardown, testId } from '../../../testing/record';
import { LocalStore } from './local-store';
import type { OutboxEntry } from './stored';
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
  it('sealed by another organisation at the same address keeps nobody from signing in, and is not written over', async () => {
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

describe('what version 0.5.0 left on a device', () => {
  let store: LocalStore;
  const begin = (): void => {
    TestBed.resetTestingModule();
    store = TestBed.inject(LocalStore);
  };
  // a dump of its database in a browser: the copy of a study, and three changes that were recorded without a network
  const DEVICE = JSON.parse(readFileSync(join(__dirname, '../../../testing/older/0.5.0-device.json'), 'utf8')) as Readonly<{
    stores: Readonly<
      Record<
        string,
        { readonly keyPath: string | null; readonly autoIncrement: boolean; readonly keys: string[]; readonly values: object[] }
      >
    >;
  }>;
  const waiting = DEVICE.stores.outbox!.values as readonly OutboxEntry[];

  it('waits in the words of today, in order, to be taken by the server, and a mass edited in part is whole', async () => {
    globalThis.indexedDB = new IDBFactory();
    const old = await openDB('each-bolt', 1, {
      upgrade(db) {
        for (const [name, { keyPath, autoIncrement }] of Object.entries(DEVICE.stores))
          db.createObjectStore(name, { ...(keyPath === null ? {} : { keyPath }), autoIncrement });
      },
    });
    for (const [name, { keyPath, keys, values }] of Object.entries(DEVICE.stores))
      for (const [i, value] of values.entries()) await old.put(name, value, keyPath === null ? keys[i] : undefined);
    old.close();
    begin();
    await store.enter({ id: waiting[0]!.personId, name: 'Wenna Tarn' }, KEY);
    const now = await store.outbox();
    expect(now.map(({ change, typed, studyId, madeAt }) => [change.id, typed, studyId, madeAt])).toEqual(
      waiting.map(({ change, typed, studyId, madeAt }) => [change.id, typed, studyId, madeAt]),
    );
    for (const { change } of now) expect(readChange(change)).toMatchObject({ ok: true, value: change });
    expect(now.map(({ change }) => change.ops.map(({ kind }) => kind))).toEqual([['part.add'], ['part.add'], ['part.edit']]);
    expect(now[0]?.change.ops[0]).toMatchObject({
      fields: {
        name: 'bracket',
        massEachKg: 0.041,
        evidence: { massEachKg: { mark: 'M', typed: '41 g', u: expect.closeTo(0.000289, 6) as number } },
      },
    });
    const supplier = 'supplier’s sheet 12';
    expect(now[2]?.change.ops[0]).toMatchObject({
      was: { massEachKg: 0.17, evidence: { massEachKg: { mark: 'T', u: 0.001, typed: '170 g', source: supplier } } },
      fields: { massEachKg: 0.18, evidence: { massEachKg: { mark: 'M', typed: '180 g', source: supplier } } },
    });
    expect(now[2]?.inverse[0]).toMatchObject({ fields: { evidence: { massEachKg: { mark: 'T', u: 0.001, source: supplier } } } });
    expect((await store.own(now[0]!.studyId)).map(({ id }) => id)).toEqual(now.map(({ change }) => change.id));
  });
  it('of a later version, a database for each account, is put into the words of today, the copy of the study too', async () => {
    globalThis.indexedDB = new IDBFactory();
    const person = { id: waiting[0]!.personId, name: 'Wenna Tarn' };
    const later = await openDB(`each-bolt ${person.id}`, 1, {
      upgrade(db) {
        db.createObjectStore('studies', { keyPath: 'studyId' });
        db.createObjectStore('log', { keyPath: ['studyId', 'revision'] });
        db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true }).createIndex('study', 'studyId');
        db.createObjectStore('own', { keyPath: 'id' }).createIndex('study', 'studyId');
        db.createObjectStore('files', { keyPath: 'sha256' });
        db.createObjectStore('key');
      },
    });
    for (const name of ['studies', 'outbox', 'own']) for (const value of DEVICE.stores[name]!.values) await later.put(name, value);
    const copy = (await later.getAll('studies'))[0] as { studyId: string; record: { revision: number } };
    const plate = waiting[2]!.change.ops[0]!.id;
    const edit = { kind: 'piece.edit', id: plate, was: { massUKg: 0.001 }, fields: { massUKg: 0.002 } };
    await later.put('log', { studyId: copy.studyId, revision: copy.record.revision + 1, ops: [edit] });
    later.close();
    begin();
    await store.enter(person, KEY);
    const { stored, log } = (await store.study(copy.studyId))!;
    expect(stored.record.parts.map(({ name }) => name)).toContain('plate');
    expect(log[0]?.ops[0]).toMatchObject({
      kind: 'part.edit',
      fields: { evidence: { massEachKg: { mark: 'T', u: 0.002, source: 'supplier’s sheet 12' } } },
    });
    for (const { change } of await store.outbox()) expect(readChange(change).ok).toBe(true);
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
