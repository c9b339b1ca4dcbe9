import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { InstrumentNow, InstrumentReading } from '@each-bolt/core/bench';
import { BehaviorSubject } from 'rxjs';
import { Session } from '../record/session';
import { InstrumentService } from './instrument-service';

/** A stream of the server whose events the test sends. */
class ToldEvents extends EventTarget {
  static readonly CLOSED = 2;
  static last: ToldEvents;
  readyState = 1;
  onerror: (() => void) | null = null;
  isClosed = false;
  constructor(readonly url: string) {
    super();
    ToldEvents.last = this;
  }
  close(): void {
    this.isClosed = true;
  }
  tell(type: string, data: object): void {
    this.dispatchEvent(Object.assign(new Event(type), { data: JSON.stringify(data) }));
  }
}

const now = (id: string, more: Partial<InstrumentNow> = {}): InstrumentNow => ({
  ...{ id, name: id, kind: 'scale', address: '127.0.0.1:1', simulated: true, state: 'ready', fault: '' },
  ...{ maker: '', model: '', serial: `${id}-1`, most: null, last: null, ...more },
});
const read = (seq: number, at = '2026-06-01T07:00:00.000Z'): InstrumentReading => ({
  ...{ instrumentId: 'bench', seq, at, quantity: 'mass', value: 0.1, u: 0.0001, tare: 0, stable: true, overload: false },
  ...{ elements: null, raw: '' },
});

describe('the instruments as the server tells of them', () => {
  let service: InstrumentService;
  let server: HttpTestingController;
  let changes: BehaviorSubject<{ readonly kind: string }>;
  beforeEach(() => {
    (globalThis as { EventSource?: unknown }).EventSource = ToldEvents;
    changes = new BehaviorSubject({ kind: 'in' });
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting(), { provide: Session, useValue: { changes } }],
    });
    [service, server] = [TestBed.inject(InstrumentService), TestBed.inject(HttpTestingController)];
  });
  afterEach(() => server.verify());

  it('are none, and the server is away, until it has told of all', () => {
    expect([service.all(), service.isAway()]).toEqual([[], true]);
    ToldEvents.last.tell('all', [now('bench'), now('floor')]);
    expect([service.all().map((i) => i.id), service.isAway()]).toEqual([['bench', 'floor'], false]);
  });
  it('change one by one, the others staying as they were', () => {
    ToldEvents.last.tell('all', [now('bench'), now('floor')]);
    const [, floor] = service.all();
    ToldEvents.last.tell('one', now('bench', { fault: 'overload' }));
    expect(service.all().map((i) => i.fault)).toEqual(['overload', '']);
    expect(service.all()[1]).toBe(floor);
    // one that was taken off meanwhile does not come back
    ToldEvents.last.tell('one', now('gone'));
    expect(service.all()).toHaveLength(2);
  });
  it('are all away without a reading while the server is lost: an old one must not pass for what lies there', () => {
    ToldEvents.last.tell('all', [now('bench', { last: read(3) })]);
    ToldEvents.last.onerror?.();
    expect(service.all()).toMatchObject([{ state: 'away', fault: 'no connection to the server', last: null }]);
    expect(service.isAway()).toBe(true);
  });
  it('are away while nobody is signed in, and are heard of again after signing in', () => {
    ToldEvents.last.tell('all', [now('bench')]);
    const before = ToldEvents.last;
    changes.next({ kind: 'out' });
    expect([service.all()[0]?.fault, before.isClosed]).toEqual(['not signed in', true]);
    changes.next({ kind: 'in' });
    ToldEvents.last.tell('all', [now('bench')]);
    expect([ToldEvents.last === before, service.all()[0]?.state]).toEqual([false, 'ready']);
  });
  it('are asked for again after a while when the server refused the stream for good', () => {
    jest.useFakeTimers();
    const refused = ToldEvents.last;
    refused.readyState = ToldEvents.CLOSED;
    refused.onerror?.();
    expect(ToldEvents.last).toBe(refused);
    jest.advanceTimersByTime(4000);
    ToldEvents.last.tell('all', [now('bench')]);
    expect([ToldEvents.last === refused, service.isAway()]).toEqual([false, false]);
    jest.useRealTimers();
  });
  it('are as old as they are, however wrong the clock of this device is', () => {
    jest.useFakeTimers({ now: Date.parse('2026-06-01T07:00:00.000Z') });
    // the server, which dates the readings, is eight seconds behind
    const told = (seq: number, at: string): void => ToldEvents.last.tell('one', now('bench', { last: read(seq, at) }));
    ToldEvents.last.tell('all', [now('bench')]);
    told(1, '2026-06-01T06:59:52.000Z');
    expect(service.now()).toBe('2026-06-01T06:59:52.000Z');
    // one that was longer on its way says nothing of the clocks
    jest.advanceTimersByTime(2000);
    told(2, '2026-06-01T06:59:53.500Z');
    expect(service.now()).toBe('2026-06-01T06:59:54.000Z');
    // silence is silence
    jest.advanceTimersByTime(4000);
    expect(service.now()).toBe('2026-06-01T06:59:58.000Z');
    jest.useRealTimers();
  });
  it('are told what to do, and a refusal comes back as words', async () => {
    const asked = service.command('bench', 'tare');
    const request = server.expectOne('/api/instruments/bench/commands');
    expect(request.request.body).toEqual({ command: 'tare' });
    request.flush({ code: 'moving', message: 'It has not settled' }, { status: 409, statusText: 'x' });
    expect(await asked).toMatchObject({ code: 'moving', message: 'It has not settled' });
    const placed = service.place('bench', [0.1874]);
    server.expectOne('/api/instruments/bench/place').flush({});
    expect(await placed).toBeNull();
  });
  it('give the file they made after they were triggered, not the one before', async () => {
    ToldEvents.last.tell('all', [now('camera', { last: read(4) })]);
    const made = service.made('camera', 4);
    server.expectNone('/api/instruments/camera/file');
    ToldEvents.last.tell('one', now('camera', { last: read(5) }));
    await Promise.resolve();
    server.expectOne('/api/instruments/camera/file').flush(new Blob(['picture']));
    expect(await made).toBeInstanceOf(Blob);
  });
  it('that were triggered and made nothing say so', async () => {
    jest.useFakeTimers();
    ToldEvents.last.tell('all', [now('camera', { last: read(4) })]);
    const made = service.made('camera', 4);
    await jest.advanceTimersByTimeAsync(20_001);
    expect(await made).toMatchObject({ code: 'no-file' });
    jest.useRealTimers();
  });
});
