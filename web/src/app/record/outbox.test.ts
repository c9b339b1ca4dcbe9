import 'fake-indexeddb/auto';
import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { IDBFactory } from 'fake-indexeddb';
import { testId } from '../../../testing/record';
import { ofAccount } from './account';
import { Session } from './session';
import { LocalStore } from './local-store';
import type { OutboxEntry } from './stored';
import { Outbox } from './outbox';

const ME = { id: testId(900), name: 'Wenna Tarn' };
const entry = (n: number, studyId: string): Omit<OutboxEntry, 'seq'> => ({
  ...{ studyId, personId: ME.id, change: { id: testId(n), ops: [], undoes: null }, inverse: [] },
  ...{ madeAt: '2026-06-01T08:00:00.000Z', typed: `line ${n}`, refusal: null },
});
const urlOf = (study: number): string => `/api/studies/${testId(study)}/changes`;

/** Lets everything that waits on the device’s database go on. */
const settle = async (): Promise<void> => {
  for (let i = 0; i < 12; i++) await new Promise((done) => setTimeout(done, 0));
};

describe('what was recorded on this device and is not sent', () => {
  let outbox: Outbox;
  let server: HttpTestingController;

  const begin = (): void => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [provideHttpClient(withInterceptors([ofAccount])), provideHttpClientTesting()] });
    outbox = TestBed.inject(Outbox);
    server = TestBed.inject(HttpTestingController);
  };
  const signIn = async (person = ME): Promise<void> => {
    const reading = TestBed.inject(Session).read();
    server.expectOne('/api/me').flush({ person, seal: null, units: null, firstRun: false, demo: [] });
    await reading;
    await settle();
  };

  beforeEach(() => {
    globalThis.indexedDB = new IDBFactory();
    begin();
  });

  it('of any study, and by a page that was closed, is counted and sent in order by whichever page is open', async () => {
    await signIn();
    const store = TestBed.inject(LocalStore);
    for (const [n, study] of [[50, 1], [51, 2], [52, 1]] as const) await store.add(entry(n, testId(study))); // prettier-ignore
    begin();
    await signIn();
    expect(outbox.sync()).toEqual({ kind: 'sending', waiting: 3 });
    for (const [n, study] of [
      [50, 1],
      [51, 2],
      [52, 1],
    ] as const) {
      // prettier-ignore
      const request = server.expectOne(urlOf(study));
      expect([(request.request.body as { id: string }).id, request.request.headers.get('X-Account')]).toEqual([testId(n), ME.id]);
      request.flush({ id: testId(n), revision: n });
      await settle();
    }
    expect([outbox.sync().kind, outbox.entries()]).toEqual(['kept', []]);
  });
  it('is never said to be kept while a change of another study waits', async () => {
    await signIn();
    await outbox.add(entry(50, testId(1)));
    await settle();
    server.expectOne(urlOf(1)).error(new ProgressEvent('error'));
    await settle();
    expect(outbox.sync()).toEqual({ kind: 'offline', waiting: 1 });
    outbox.settled();
    expect(outbox.sync().kind).toBe('offline');
  });
  it('is kept when others tell of it while its own answer is lost', async () => {
    await signIn();
    await outbox.add(entry(50, testId(1)));
    await settle();
    const told = outbox.acknowledge(outbox.entries()[0]!, 2);
    server.expectOne(urlOf(1)).error(new ProgressEvent('error'));
    await told;
    await settle();
    expect([outbox.sync().kind, outbox.entries()]).toEqual(['kept', []]);
  });
  it('goes on in the other studies when one does not take a change', async () => {
    await signIn();
    await outbox.add(entry(50, testId(1)));
    await outbox.add(entry(51, testId(2)));
    await settle();
    server
      .expectOne(urlOf(1))
      .flush({ code: 'not-found', message: 'There is no such study', issues: [] }, { status: 404, statusText: 'Not Found' });
    await settle();
    server.expectOne(urlOf(2)).flush({ id: testId(51), revision: 2 });
    await settle();
    expect(outbox.refused().map((e) => [e.typed, e.refusal?.message])).toEqual([['line 50', 'There is no such study']]);
    expect(outbox.sync().kind).toBe('kept');
  });
});
