import { HttpErrorResponse, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import { STUDY, recordOf, testId } from '../../../testing/record';
import { deviceName, nameDevice } from './device';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordApi, isPassing, refusalOf } from './record-api';

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

const changeOf = (kind: string): object => ({
  ...{ id: testId(9), revision: 5, madeAt: '', madeBy: 'Odo', personId: null, device: '', undoes: null },
  ops: [{ kind, id: testId(10) }],
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
    server.expectOne(`${url}/mine`).flush([{ id: testId(1), revision: 4, undoes: null }]);
    expect(await read).toEqual([{ id: testId(1), revision: 4, undoes: null }]);
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
    const record = { ...recordOf(), revision: 3 };
    server.expectOne(url).flush(record, { headers: { 'X-Role': 'recorder', 'X-May': 'part.add part.edit' } });
    expect(await read).toEqual({ record, role: 'recorder', may: ['part.add', 'part.edit'] });
  });
  it('does not take for a study what is none, and says what to do', async () => {
    const read = firstValueFrom(api.study(STUDY.id)).catch((refusal: unknown) => refusal as Refusal);
    const { parts: _parts, ...without } = recordOf();
    server.expectOne(url).flush(without);
    expect(await read).toMatchObject({ code: 'not-understood', message: expect.stringContaining('Load the page again') as string });
  });
  it('waits for a change no longer than half a minute and what its ops take: a network that is dead says nothing', async () => {
    const sent = firstValueFrom(api.keep(STUDY.id, { id: testId(9), ops: [], undoes: null })).catch(
      (refusal: unknown) => refusal as Refusal,
    );
    const request = server.expectOne(`${url}/changes`);
    jest.advanceTimersByTime(29_000);
    expect(request.cancelled).toBe(false);
    jest.advanceTimersByTime(1001);
    expect(request.cancelled).toBe(true);
    expect(isPassing((await sent) as Refusal)).toBe(true);
  });
  it('tells a scan from a picture by its type', () => {
    for (const [type, header] of [
      ['model/stl', 'model/stl'],
      ['image/png', 'application/octet-stream'],
    ] as const) {
      api.putFile(STUDY.id, 'ab', new Blob(['x'], { type })).subscribe();
      const request = server.expectOne(`${url}/files/ab`);
      expect([request.request.method, request.request.headers.get('Content-Type')]).toEqual(['PUT', header]);
      request.flush({ sha256: 'ab', widthPx: null, heightPx: null });
    }
  });
  it('asks for the history of rows, and for what came before', () => {
    api.history(STUDY.id, ['a', 'b'], 40).subscribe();
    server.expectOne(`${url}/history?rows=a%2Cb&before=40`).flush([]);
    api.history(STUDY.id, [], null).subscribe();
    server.expectOne(`${url}/history`).flush([]);
  });
});

describe('what the server tells as it happens', () => {
  class Told extends EventTarget {
    static last: Told;
    static readonly CLOSED = 2;
    readonly readyState = 1;
    onopen: (() => void) | null = null;
    onerror: (() => void) | null = null;
    isClosed = false;
    constructor(readonly url: string) {
      super();
      Told.last = this;
    }
    close(): void {
      this.isClosed = true;
    }
    say(kind: string, data: string): void {
      this.dispatchEvent(Object.assign(new Event(kind), { data }));
    }
  }
  const follow = (): { readonly heard: unknown[]; isOver: boolean } => {
    (globalThis as { EventSource?: unknown }).EventSource = Told;
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    const found = { heard: [] as unknown[], isOver: false };
    const asked = { at: { id: STUDY.id }, query: { since: '4' } };
    TestBed.inject(RecordApi)
      .stream('GET /api/studies/:id/events', asked)
      .subscribe({ next: (event) => found.heard.push(event), complete: () => (found.isOver = true) });
    return found;
  };

  it('is heard by its kind, from the address of the study, past the service worker', () => {
    const found = follow();
    expect(Told.last.url).toBe(`/api/studies/${STUDY.id}/events?since=4&ngsw-bypass=`);
    Told.last.say('large', '{"revision":7}');
    expect(found).toEqual({ heard: [{ kind: 'large', told: { revision: 7 } }], isOver: false });
  });
  it.each([
    ['of a kind of record that only a newer server knows', 'change', JSON.stringify(changeOf('bearing.add'))],
    ['with a field that is missing', 'large', '{}'],
    ['that is cut short', 'here', '[{"connec'],
  ])('%s is not understood: the stream ends, and what was missed is asked for', (_, kind, data) => {
    const found = follow();
    Told.last.say(kind, data);
    expect([found, Told.last.isClosed]).toEqual([{ heard: [{ kind: 'lost' }], isOver: true }, true]);
  });
  it('of a kind of record that is known is taken', () => {
    const found = follow();
    Told.last.say('change', JSON.stringify(changeOf('part.remove')));
    expect(found.heard).toMatchObject([{ kind: 'change', told: { revision: 5 } }]);
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
