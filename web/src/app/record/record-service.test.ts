import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { Change, Op, StudyRecord } from '@each-bolt/core/record';
import { BLANK, STUDY, pieceNamed, recordOf, teardown, testId } from '../../../testing/record';
import { RecordService, touchedPieces, type Kept } from './record-service';

const record = recordOf(teardown('plate 1 kg\n  4 clip\nlever'));
const URL = `/api/studies/${STUDY.id}`;

describe('the client’s copy of the record', () => {
  let service: RecordService;
  let server: HttpTestingController;
  const now = (): StudyRecord => {
    const state = service.state();
    if (state.kind !== 'ready') throw new Error(`the record is ${state.kind}`);
    return state.record;
  };
  const rename = (name: string): readonly Op[] => [
    { kind: 'piece.edit', id: pieceNamed(record, 'plate').id, expectsVersion: 1, fields: { name } },
  ];
  const sent = (): Change => server.expectOne(`${URL}/changes`).request.body as Change;

  beforeEach(() => {
    Object.defineProperty(globalThis.crypto, 'randomUUID', { value: () => testId(777), configurable: true });
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    service = TestBed.inject(RecordService);
    server = TestBed.inject(HttpTestingController);
  });
  afterEach(() => server.verify());
  const opened = (): void => {
    service.open(STUDY.id);
    server.expectOne(URL).flush(record);
  };
  const settle = async (what: () => void, promise: Promise<Kept>): Promise<Kept> => {
    what();
    return promise;
  };

  it('is read once and then ready', () => {
    expect(service.state().kind).toBe('reading');
    opened();
    expect(now().pieces).toHaveLength(2);
  });
  it('says why it could not be read', () => {
    service.open(STUDY.id);
    server
      .expectOne(URL)
      .flush({ code: 'not-found', message: 'There is no such study', issues: [] }, { status: 404, statusText: 'Not Found' });
    expect(service.state()).toMatchObject({ kind: 'failed', refusal: { message: 'There is no such study' } });
  });
  it('changes once the server has kept the change, without reading all of it again', async () => {
    opened();
    const promise = service.send(rename('panel'));
    expect(service.sync()).toEqual({ kind: 'sending', waiting: 1 });
    const request = server.expectOne(`${URL}/changes`);
    expect(request.request.body).toEqual({ id: testId(777), ops: rename('panel') });
    await settle(() => request.flush({ id: testId(777), revision: 2 }), promise);
    expect(now()).toMatchObject({ revision: 2, pieces: [{ name: 'panel', version: 2 }, { name: 'lever' }] });
    expect(service.sync().kind).toBe('kept');
  });
  it('reads again when others have changed the study in between', async () => {
    opened();
    const promise = service.send(rename('panel'));
    await settle(() => server.expectOne(`${URL}/changes`).flush({ id: testId(777), revision: 5 }), promise);
    server.expectOne(URL).flush({ ...record, revision: 5 });
    expect(now().revision).toBe(5);
  });
  it('sends one change after the other, in order', async () => {
    opened();
    const [first, second] = [
      service.send(rename('one')),
      service.send([{ kind: 'piece.add', id: testId(60), fields: { ...BLANK, name: 'arm' } }]),
    ];
    const request = server.expectOne(`${URL}/changes`);
    await settle(() => request.flush({ id: testId(777), revision: 2 }), first);
    expect(sent().ops[0]?.kind).toBe('piece.add');
    void second;
  });
  it('leaves the record as it was when a change is refused, and says so', async () => {
    opened();
    const promise = service.send(rename(''));
    const refusal = {
      code: 'invalid',
      message: 'The change has faults',
      issues: [{ code: 'filled', recordId: null, field: 'name', message: 'Name must not be empty' }],
    };
    const kept = await settle(
      () => server.expectOne(`${URL}/changes`).flush(refusal, { status: 422, statusText: 'Unprocessable' }),
      promise,
    );
    expect(kept).toEqual({ kept: false, refusal });
    expect(now()).toMatchObject({ revision: 1, pieces: [{ name: 'plate' }, { name: 'lever' }] });
    expect(service.sync().kind).toBe('refused');
  });
  it('reads the current values before it tells of a conflict, so that saving again stands on them', async () => {
    opened();
    const promise = service.send(rename('mine'));
    let told = false;
    void promise.then(() => (told = true));
    server
      .expectOne(`${URL}/changes`)
      .flush({ code: 'conflict', message: 'Someone changed this', issues: [] }, { status: 409, statusText: 'Conflict' });
    await Promise.resolve();
    expect(told).toBe(false);
    server.expectOne(URL).flush({ ...record, revision: 4 });
    expect(await promise).toMatchObject({ kept: false, refusal: { code: 'conflict' } });
    expect(now().revision).toBe(4);
  });
});

describe('which pieces a change touches', () => {
  const plate = pieceNamed(record, 'plate').id;
  it('counts the piece that a set holds', () => {
    const set = record.fastenerSets[0]!;
    expect(touchedPieces(record, [{ kind: 'fasteners.edit', id: set.id, expectsVersion: 1, fields: { count: 5 } }])).toEqual([plate]);
    expect(touchedPieces(record, [{ kind: 'piece.remove', id: plate, expectsVersion: 1 }])).toEqual([plate]);
  });
  it('is unknown for anything else', () =>
    expect(touchedPieces(record, [{ kind: 'study.edit', id: STUDY.id, expectsVersion: 1, fields: {} }])).toBeNull());
});
