import { HttpErrorResponse, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import { STUDY, testId } from '../../../testing/record';
import { deviceName, nameDevice } from './device';
import { RecordApi, isPassing, refusalOf, type Refusal } from './record-api';

const failed = (status: number, error: unknown = null): HttpErrorResponse => new HttpErrorResponse({ status, error });

describe('what the server refused, in words', () => {
  it.each([0, 502, 504])('no answer (%s) is told as that: nothing is lost, and it may be tried again', (status) => {
    const refusal = refusalOf(failed(status));
    expect(refusal).toMatchObject({ code: 'no-answer', message: expect.stringContaining('Nothing typed is lost') as string });
    expect(isPassing(refusal)).toBe(true);
  });
  it('an error that is none of the network is no answer either', () => expect(refusalOf(new Error('x')).code).toBe('no-answer'));
  it('is what the server says, with every fault and every clash', () => {
    const issues = [{ code: 'mass-incomplete', message: 'A mass needs its uncertainty', field: 'massEachKg', recordId: testId(7) }];
    const refusal = refusalOf(failed(422, { code: 'invalid', message: 'The change was not kept', issues }));
    expect(refusal).toEqual({ code: 'invalid', message: 'The change was not kept', issues, conflicts: [] });
    expect(isPassing(refusal)).toBe(false);
  });
  it('an answer nobody foresaw is told by its number, and that nothing was written', () =>
    expect(refusalOf(failed(500, '<html>'))).toMatchObject({ code: 'failed', message: 'The server answered 500. Nothing was written' }));
  it.each([
    ['no-answer', true],
    ['unavailable', true],
    ['too-many', true],
    ['failed', true],
    ['conflict', false],
    ['invalid', false],
    ['forbidden', false],
  ])('%s is asked again later: %s', (code, passing) => expect(isPassing({ code, message: '', issues: [] })).toBe(passing));
});

describe('the way to the server', () => {
  let api: RecordApi;
  let server: HttpTestingController;
  beforeEach(() => {
    jest.useFakeTimers();
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    [api, server] = [TestBed.inject(RecordApi), TestBed.inject(HttpTestingController)];
  });
  afterEach(() => {
    server.verify();
    jest.useRealTimers();
    nameDevice('');
  });
  const url = `/api/studies/${STUDY.id}`;

  it('reads again, twice at most, from a server that is starting', async () => {
    const read = firstValueFrom(api.studies()).catch((refusal: unknown) => refusal as Refusal);
    for (const wait of [300, 600]) {
      server.expectOne('/api/studies').flush({ code: 'unavailable', message: 'Starting' }, { status: 503, statusText: 'x' });
      jest.advanceTimersByTime(wait);
    }
    server.expectOne('/api/studies').flush({ code: 'unavailable', message: 'Starting' }, { status: 503, statusText: 'x' });
    expect(await read).toMatchObject({ code: 'unavailable', message: 'Starting' });
  });
  it('takes what comes at the second try', async () => {
    const read = firstValueFrom(api.mine(STUDY.id));
    server.expectOne(`${url}/mine`).error(new ProgressEvent('error'));
    jest.advanceTimersByTime(300);
    server.expectOne(`${url}/mine`).flush([{ id: testId(1), undoes: null }]);
    expect(await read).toEqual([{ id: testId(1), undoes: null }]);
  });
  it('does not ask again what was refused', async () => {
    const read = firstValueFrom(api.change(STUDY.id, testId(9))).catch((refusal: unknown) => refusal);
    server
      .expectOne(`${url}/changes/${testId(9)}`)
      .flush({ code: 'not-found', message: 'No such change' }, { status: 404, statusText: 'x' });
    expect(await read).toMatchObject({ code: 'not-found' });
  });
  it('sends a change once, with the name of the device in plain letters; whoever calls sends it again', async () => {
    nameDevice('Bühne 2');
    const sent = firstValueFrom(api.keep(STUDY.id, { id: testId(9), ops: [], undoes: null })).catch((refusal: unknown) => refusal);
    const request = server.expectOne(`${url}/changes`);
    expect(request.request.headers.get('X-Device')).toBe('B?hne 2');
    request.error(new ProgressEvent('error'));
    jest.advanceTimersByTime(5000);
    expect(await sent).toMatchObject({ code: 'no-answer' });
  });
  it('reads a study with the role and the acts it may do; without them nothing may be done', async () => {
    const read = firstValueFrom(api.study(STUDY.id));
    server.expectOne(url).flush({ revision: 3 }, { headers: { 'X-Role': 'recorder', 'X-May': 'piece.add piece.edit' } });
    expect(await read).toEqual({ record: { revision: 3 }, role: 'recorder', may: ['piece.add', 'piece.edit'] });
  });
  it('tells a scan from a picture by its type', () => {
    for (const [type, header] of [
      ['model/stl', 'model/stl'],
      ['image/png', 'application/octet-stream'],
    ] as const) {
      api.putFile(STUDY.id, 'ab', new Blob(['x'], { type })).subscribe();
      const request = server.expectOne(`${url}/files/ab`);
      expect([request.request.method, request.request.headers.get('Content-Type')]).toEqual(['PUT', header]);
      request.flush({});
    }
  });
  it('asks for the history of rows, and for what came before', () => {
    api.history(STUDY.id, ['a', 'b'], 40).subscribe();
    server.expectOne(`${url}/history?rows=a,b&before=40`).flush([]);
    api.history(STUDY.id, [], null).subscribe();
    server.expectOne(`${url}/history`).flush([]);
  });
});

describe('the name of a device', () => {
  it('is its system until somebody names it, and again when the name is taken back', () => {
    const guessed = deviceName();
    expect(guessed).toMatch(/ browser$/);
    nameDevice('  Bench tablet  ');
    expect(deviceName()).toBe('Bench tablet');
    nameDevice('x'.repeat(100));
    expect(deviceName()).toHaveLength(60);
    nameDevice(' ');
    expect(deviceName()).toBe(guessed);
  });
});
