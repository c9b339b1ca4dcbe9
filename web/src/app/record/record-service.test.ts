import 'fake-indexeddb/auto';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { editOp, type Change, type KeptChange, type Op, type StudyRecord } from '@each-bolt/core/record';
import { IDBFactory } from 'fake-indexeddb';
import { Subject, type Observable } from 'rxjs';
import { BLANK, STUDY, partNamed, recordOf, teardown, testId } from '../../../testing/record';
import { Session } from './session';
import { LiveStream, type Heard } from './live-stream';
import { RecordService } from './record-service';

const record = recordOf(teardown('plate 1 kg\n  4 clip\nlever'));
const URL = `/api/studies/${STUDY.id}`;
const ME = { id: testId(900), name: 'Wenna Tarn' };

/** Lets everything that waits on the device’s database go on. */
const settle = async (): Promise<void> => {
  for (let i = 0; i < 12; i++) await new Promise((done) => setTimeout(done, 0));
};

const rename = (name: string, was = 'plate'): Op => editOp('part', { ...partNamed(record, 'plate'), name: was }, { name })!;

describe('the client’s copy of the record', () => {
  let service: RecordService;
  let server: HttpTestingController;
  let heard: Subject<Heard>;
  let ids = 0;

  const now = (): StudyRecord => {
    const state = service.state();
    if (state.kind !== 'ready') throw new Error(`the record is ${state.kind}`);
    return state.record;
  };
  const begin = (): void => {
    heard = new Subject();
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        { provide: LiveStream, useValue: { follow: (): Observable<Heard> => heard } },
      ],
    });
    service = TestBed.inject(RecordService);
    server = TestBed.inject(HttpTestingController);
  };
  const signIn = async (): Promise<void> => {
    const reading = TestBed.inject(Session).read();
    server.expectOne('/api/me').flush({ person: ME, seal: null, units: null, firstRun: false, demo: [] });
    await reading;
  };
  const opened = async (read: StudyRecord = record): Promise<void> => {
    const opening = service.open(STUDY.id);
    await settle();
    server.expectOne(URL).flush(read, { headers: { 'X-Role': 'lead', 'X-May': 'part.edit part.add' } });
    await settle();
    server.expectOne('/api/people').flush([ME]);
    await settle();
    await opening;
  };
  const sent = (): TestRequest => server.expectOne(`${URL}/changes`);
  /** The request once it is made, which may be tried again after a while. */
  const requestOf = async (url: string): Promise<TestRequest> => {
    for (;;) {
      const [request] = server.match(url);
      if (request) return request;
      await new Promise((done) => setTimeout(done, 10));
    }
  };
  const bodyOf = (request: TestRequest): Change => request.request.body as Change;
  const tell = async (change: Partial<KeptChange> & Pick<KeptChange, 'id' | 'ops' | 'revision'>): Promise<void> => {
    heard.next({
      kind: 'change',
      change: { undoes: null, madeAt: '', madeBy: 'Odo Farrow', personId: testId(901), device: '', ...change },
    });
    await settle();
  };

  beforeEach(async () => {
    globalThis.indexedDB = new IDBFactory();
    Object.defineProperty(globalThis.crypto, 'randomUUID', { value: () => testId(700 + ids++), configurable: true });
    begin();
    await signIn();
  });

  it('shows what is typed at once, sends it, and keeps what the server keeps', async () => {
    await opened();
    const keeping = service.send([rename('panel')]);
    expect(now().parts[0]?.name).toBe('panel');
    expect(await keeping).toMatchObject({ kept: true });
    await settle();
    expect(service.sync().kind).toBe('sending');
    const request = sent();
    expect(bodyOf(request)).toMatchObject({ undoes: null, ops: [{ was: { name: 'plate' }, fields: { name: 'panel' } }] });
    request.flush({ id: bodyOf(request).id, revision: 2 });
    await settle();
    expect(now()).toMatchObject({ revision: 2, parts: [{ name: 'panel' }, { name: 'lever' }] });
    expect(service.sync().kind).toBe('kept');
  });
  it('never says that all is kept while this device is still storing what is seen already', async () => {
    await opened();
    const kinds: string[] = [];
    const keeping = service.send([rename('panel')]);
    kinds.push(service.sync().kind);
    expect(service.sync()).toEqual({ kind: 'sending', waiting: 1 });
    await keeping;
    kinds.push(service.sync().kind);
    await settle();
    kinds.push(service.sync().kind);
    expect(kinds).toEqual(['sending', 'sending', 'sending']);
    const request = sent();
    request.flush({ id: bodyOf(request).id, revision: 2 });
    await settle();
    expect(service.sync().kind).toBe('kept');
  });
  it('says again that all is kept when the device could not store a change, which is taken back and told', async () => {
    await opened();
    const { LocalStore } = await import('./local-store');
    jest.spyOn(TestBed.inject(LocalStore), 'add').mockRejectedValueOnce(new Error('disk full'));
    const result = await service.send([rename('panel')]);
    expect(result).toMatchObject({ kept: false });
    expect([now().parts[0]?.name, service.sync().kind]).toEqual(['plate', 'kept']);
  });
  it('says why a study could not be read', async () => {
    const opening = service.open(STUDY.id);
    await settle();
    server
      .expectOne(URL)
      .flush({ code: 'not-found', message: 'There is no such study', issues: [] }, { status: 404, statusText: 'Not Found' });
    await opening;
    expect(service.state()).toMatchObject({ kind: 'failed', refusal: { message: 'There is no such study' } });
  });
  it('opens no study in a browser that keeps nothing, and says what to do', async () => {
    const { LocalStore } = await import('./local-store');
    jest.spyOn(TestBed.inject(LocalStore), 'study').mockRejectedValue(new Error('no database'));
    await service.open(STUDY.id);
    expect(service.state()).toMatchObject({ kind: 'failed', refusal: { message: expect.stringContaining('ordinary window') as string } });
  });
  it('refuses at once what breaks a rule of the record, and sends nothing', async () => {
    await opened();
    const result = await service.send([editOp('part', partNamed(record, 'lever'), { massEachKg: 1 })!]);
    expect(result).toMatchObject({ kept: false, refusal: { issues: [{ code: 'mass-incomplete' }] } });
    await settle();
    server.expectNone(`${URL}/changes`);
  });
  it('takes in what others change, under what waits here', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    const request = sent();
    await tell({ id: testId(50), revision: 2, ops: [editOp('part', partNamed(record, 'plate'), { tag: 'A' })!] });
    expect(now().parts[0]).toMatchObject({ name: 'panel', tag: 'A' });
    request.flush({ id: bodyOf(request).id, revision: 3 });
    await settle();
    expect(now()).toMatchObject({ revision: 3, parts: [{ name: 'panel', tag: 'A' }, {}] });
  });
  it('knows its own change when the stream tells of it before the answer comes', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    const request = sent();
    const { id, ops } = bodyOf(request);
    await tell({ id, ops, revision: 2, personId: ME.id });
    request.flush({ id, revision: 2 });
    await settle();
    expect([now().revision, service.waiting().length, service.sync().kind]).toEqual([2, 0, 'kept']);
    server.expectNone(`${URL}/changes`);
  });
  it('says that all is kept when the stream told of the change first and then its answer was lost', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    const request = sent();
    await tell({ id: bodyOf(request).id, ops: bodyOf(request).ops, revision: 2 });
    request.error(new ProgressEvent('error'));
    await settle();
    expect(service.sync().kind).toBe('kept');
    expect(now().parts[0]?.name).toBe('panel');
  });
  it('says that all is kept when the answer was lost but the stream told of the change', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    const request = sent();
    const { id, ops } = bodyOf(request);
    request.error(new ProgressEvent('error'));
    await settle();
    expect(service.sync()).toEqual({ kind: 'offline', waiting: 1 });
    await tell({ id, ops, revision: 2, personId: ME.id });
    await settle();
    expect(service.sync().kind).toBe('kept');
    server.expectNone(`${URL}/changes`);
  });
  it('asks for what it has missed when a revision is left out', async () => {
    await opened();
    const missed = [2, 3].map((revision) => ({
      ...{ id: testId(50 + revision), revision, madeAt: '', madeBy: 'Odo', personId: null, device: '', undoes: null, inverse: [] },
      ops: [{ kind: 'part.add', id: testId(60 + revision), fields: { ...BLANK, name: `arm ${revision}` } }],
    }));
    await tell(missed[1] as unknown as KeptChange);
    server.expectOne(`${URL}/changes?since=1`).flush(missed);
    await settle();
    expect(now().parts.map((p) => p.name)).toEqual(['plate', 'lever', 'arm 2', 'arm 3']);
  });
  it('goes on without a network, also after a reload, and sends everything in order on return', async () => {
    await opened();
    for (const name of ['one', 'two', 'three'])
      await service.send([{ kind: 'part.add', id: testId(60 + ids), fields: { ...BLANK, name } }]);
    await settle();
    sent().error(new ProgressEvent('error'));
    await settle();
    expect(service.sync()).toEqual({ kind: 'offline', waiting: 3 });
    begin();
    const reading = TestBed.inject(Session).read();
    for (let asked = 0; asked < 3; asked++) (await requestOf('/api/me')).error(new ProgressEvent('error'));
    expect(await reading).toMatchObject({ kind: 'in', person: ME });
    void service.open(STUDY.id);
    await settle();
    expect(now().parts.map((p) => p.name)).toEqual(['plate', 'lever', 'one', 'two', 'three']);
    server.expectOne(URL).flush(record, { headers: { 'X-Role': 'lead', 'X-May': 'part.add' } });
    await settle();
    server.expectOne('/api/people').flush([ME]);
    await settle();
    const names: string[] = [];
    for (let revision = 2; revision <= 4; revision++) {
      const request = sent();
      names.push((bodyOf(request).ops[0] as { fields: { name: string } }).fields.name);
      request.flush({ id: bodyOf(request).id, revision });
      await settle();
    }
    expect(names).toEqual(['one', 'two', 'three']);
    expect([now().revision, service.sync().kind]).toEqual([4, 'kept']);
  });
  it('sets a change aside that the server fails on again and again, and sends what waits behind it', async () => {
    await opened();
    await service.send([rename('panel')]);
    await service.send([{ kind: 'part.add', id: testId(60), fields: { ...BLANK, name: 'arm' } }]);
    await settle();
    const failure = { code: 'failed', message: 'Something failed on the server', issues: [], conflicts: [] };
    for (let time = 1; time <= 4; time++) {
      expect(service.refused()).toEqual([]);
      sent().flush(failure, { status: 500, statusText: 'x' });
      await settle();
      if (time < 4) dispatchEvent(new Event('online'));
      await settle();
    }
    expect(service.refused()[0]?.refusal?.message).toBe(
      'The server failed on this 4 times; it was set aside so that what you recorded after it could go on. Something failed on the server',
    );
    const next = sent();
    expect(bodyOf(next).ops).toMatchObject([{ kind: 'part.add' }]);
    next.flush({ id: bodyOf(next).id, revision: 2 });
    await settle();
    expect(service.sync().kind).toBe('kept');
    expect(now().parts.map((p) => p.name)).toEqual(['plate', 'lever', 'arm']);
  });
  it('waits on for a server that is away, however often it asks', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    for (let time = 1; time <= 6; time++) {
      sent().error(new ProgressEvent('error'));
      await settle();
      dispatchEvent(new Event('online'));
      await settle();
    }
    expect([service.refused().length, service.waiting().length]).toEqual([0, 1]);
    sent().flush({ id: service.waiting()[0]!.id, revision: 2 });
    await settle();
    expect(service.sync().kind).toBe('kept');
  });
  it('takes a refused change out of the view, and keeps it with its reason until it is dropped', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    const refusal = { code: 'conflict', message: 'Someone changed this', issues: [], conflicts: [] };
    sent().flush(refusal, { status: 409, statusText: 'Conflict' });
    await settle();
    expect(now().parts[0]?.name).toBe('plate');
    expect(service.refused()).toMatchObject([
      { refusal: { message: 'Someone changed this' }, change: { ops: [{ fields: { name: 'panel' } }] } },
    ]);
    begin();
    await signIn();
    await opened();
    expect(service.refused()).toHaveLength(1);
    await service.drop(service.refused()[0]!);
    expect(service.refused()).toHaveLength(0);
  });
  it('stops sending when the session has ended, loses nothing, and goes on after signing in', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    sent().flush({ code: 'signed-out', message: 'Sign in first', issues: [] }, { status: 401, statusText: 'Unauthorized' });
    await settle();
    expect(service.sync()).toEqual({ kind: 'signed-out', waiting: 1 });
    await signIn();
    await settle();
    const request = sent();
    request.flush({ id: bodyOf(request).id, revision: 2 });
    await settle();
    expect([now().parts[0]?.name, service.sync().kind]).toEqual(['panel', 'kept']);
  });
  it('says that it is signed out, not that the server is away, when the stream was refused because the session ended elsewhere', async () => {
    await opened();
    heard.next({ kind: 'lost' });
    heard.complete();
    await settle();
    expect(service.sync().kind).toBe('offline');
    server
      .expectOne(`${URL}/changes?since=1`)
      .flush({ code: 'signed-out', message: 'Sign in first', issues: [] }, { status: 401, statusText: 'Unauthorized' });
    await settle();
    expect(service.sync()).toEqual({ kind: 'signed-out', waiting: 0 });
    expect(service.state().kind).toBe('ready');
  });
  it('leaves what another person recorded on this device for that person to send', async () => {
    await opened();
    await service.send([rename('panel')]);
    await settle();
    sent().error(new ProgressEvent('error'));
    await settle();
    begin();
    const reading = TestBed.inject(Session).read();
    server
      .expectOne('/api/me')
      .flush({ person: { id: testId(902), name: 'Odo Farrow' }, seal: null, units: null, firstRun: false, demo: [] });
    await reading;
    await opened();
    expect(service.waiting()).toEqual([]);
    server.expectNone(`${URL}/changes`);
  });
  it('closes when one is taken off the study, with a sentence', async () => {
    await opened();
    heard.next({ kind: 'off' });
    await settle();
    expect(service.state()).toMatchObject({
      kind: 'failed',
      refusal: { message: expect.stringContaining('taken off this study') as string },
    });
  });
});
