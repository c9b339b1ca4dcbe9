import { HttpClient, HttpErrorResponse, HttpHeaders, type HttpResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { check, type UnitSystem } from '@each-bolt/core/shared';
import type { Change, KeptChange, OpKind, Role, StudyRecord } from '@each-bolt/core/record';
import {
  ANSWERS,
  EVENTS,
  REFUSAL,
  addressOf,
  type AnswerOf,
  type AnsweredRoute,
  type BroughtIn,
  type EventOf,
  type InstrumentCommand,
  type Me,
  type NewInstrument,
  type OwnChange,
  type Person,
  type Placed,
  type Refusal,
  type SignedIn,
  type StreamRoute,
  type StudyLine,
  type ToldChange,
} from '@each-bolt/core/wire';
import { Observable, catchError, map, retry, throwError, timeout, timer } from 'rxjs';
import { deviceName } from './device';

/** A study as read: the record, and what the reader may do in it. */
export interface ReadStudy {
  readonly record: StudyRecord;
  readonly role: Role;
  readonly may: readonly OpKind[];
}

const NO_ANSWER: Refusal = {
  code: 'no-answer',
  message: 'The server does not answer. Nothing typed is lost; try again when it is back',
  issues: [],
};

/** An answer that is not what the server is said to answer with. */
class NotUnderstood extends Error {}

const notUnderstood = (what: string): Refusal => ({
  code: 'not-understood',
  message: `This page does not understand what the server answers (${what}). Load the page again; nothing typed is lost`,
  issues: [],
});

/** The refusal in an error of the HTTP client. */
export const refusalOf = (error: unknown): Refusal => {
  if (error instanceof NotUnderstood) return notUnderstood(error.message);
  if (!(error instanceof HttpErrorResponse) || error.status === 0 || error.status === 502 || error.status === 504) return NO_ANSWER;
  const told = check(REFUSAL, typeof error.error === 'object' ? { issues: [], conflicts: [], ...error.error } : null);
  if (told.ok) return told.value;
  return { code: 'failed', message: `The server answered ${error.status}. Nothing was written`, issues: [] };
};

/** True for refusals that say nothing about the request: the server is away, starting, or too busy. It is asked again later. */
export const isPassing = ({ code }: Refusal): boolean =>
  code === 'no-answer' || code === 'unavailable' || code === 'too-many' || code === 'failed';

const RETRIES = 2;

/** True for failures in which a second try can succeed: no answer at all, or a server that is starting up again. */
const worthAnotherTry = (error: unknown): boolean => error instanceof HttpErrorResponse && (error.status === 0 || error.status === 503);

const again = <T>(source: Observable<T>): Observable<T> =>
  source.pipe(
    retry({
      count: RETRIES,
      delay: (error: unknown, attempt) => (worthAnotherTry(error) && navigator.onLine ? timer(300 * attempt) : throwError(() => error)),
    }),
  );

const understood = <R extends AnsweredRoute>(route: R, body: unknown): AnswerOf<R> => {
  const read = check(ANSWERS[route], body);
  if (!read.ok) throw new NotUnderstood(read.issues[0]?.message ?? route);
  return read.value as AnswerOf<R>;
};

/** What a text of JSON holds; undefined where it is none. */
const jsonOf = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
};

interface Asked {
  /** what stands in the places of the route */
  readonly at?: Readonly<Record<string, string>>;
  /** what is asked behind it */
  readonly query?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
}

/** A change is waited for so long, and longer the more ops it has: on a dead network nothing else would end the waiting. */
const KEPT_WITHIN_MS = 30_000;
const PER_OP_MS = 20;

/** What a stream tells, and how it stands. */
type Streamed<R extends StreamRoute> =
  | EventOf<R>
  | { readonly kind: 'open' }
  /** connecting again by itself, or refused for good: then the stream ends */
  | { readonly kind: 'lost' };

/** The only place that speaks with the server: by requests and by streams. A change is sent again safely: its id makes the server keep it once. */
@Injectable({ providedIn: 'root' })
export class RecordApi {
  private readonly http = inject(HttpClient);

  instrumentCommand(instrument: string, command: InstrumentCommand): Observable<object> {
    return this.ask('POST /api/instruments/:instrument/commands', { at: { instrument }, body: { command } });
  }

  /** Puts a demo part on or into a stand-in. */
  placeOnInstrument(instrument: string, placed: Placed): Observable<object> {
    return this.ask('POST /api/instruments/:instrument/place', { at: { instrument }, body: placed });
  }

  addInstrument(instrument: NewInstrument): Observable<object> {
    return this.ask('POST /api/instruments', { body: instrument });
  }

  removeInstrument(instrument: string): Observable<object> {
    return this.ask('DELETE /api/instruments/:instrument', { at: { instrument } });
  }

  /** The file an instrument made last: a picture, a scan. */
  instrumentFile(id: string): Observable<Blob> {
    return this.refused(this.http.get(`/api/instruments/${id}/file`, { responseType: 'blob' }));
  }

  me(): Observable<Me> {
    return this.ask('GET /api/me');
  }

  signIn(login: string, password: string): Observable<SignedIn> {
    return this.ask('POST /api/sign-in', { body: { login, password } });
  }

  setUnits(units: UnitSystem): Observable<object> {
    return this.ask('POST /api/me/units', { body: { units } });
  }

  signOut(): Observable<object> {
    return this.ask('POST /api/sign-out', { body: {} });
  }

  firstLead(account: object): Observable<SignedIn> {
    return this.ask('POST /api/first-lead', { body: account });
  }

  changePassword(current: string, next: string): Observable<object> {
    return this.ask('POST /api/password', { body: { current, next } });
  }

  people(): Observable<readonly Person[]> {
    return this.ask('GET /api/people');
  }

  addPerson(account: object): Observable<{ readonly person: Person }> {
    return this.ask('POST /api/people', { body: account });
  }

  resetPassword(person: string, next: string): Observable<object> {
    return this.ask('POST /api/people/:person/password', { at: { person }, body: { next } });
  }

  studies(): Observable<readonly StudyLine[]> {
    return this.ask('GET /api/studies');
  }

  study(id: string): Observable<ReadStudy> {
    const route = 'GET /api/studies/:id';
    const readOf = (response: HttpResponse<unknown>): ReadStudy => ({
      record: understood(route, response.body),
      role: (response.headers.get('X-Role') ?? 'reader') as Role,
      may: (response.headers.get('X-May') ?? '').split(' ') as OpKind[],
    });
    return this.refused(again(this.http.get<unknown>(addressOf(route, { id }), { observe: 'response' })).pipe(map(readOf)));
  }

  /** Sends a change once; whoever calls decides when to try again. */
  keep(id: string, change: Change): Observable<AnswerOf<'POST /api/studies/:id/changes'>> {
    const asked = { at: { id }, body: change, headers: { 'X-Device': deviceName() } };
    return this.ask('POST /api/studies/:id/changes', asked).pipe(
      timeout({ first: KEPT_WITHIN_MS + PER_OP_MS * change.ops.length, with: () => throwError(() => NO_ANSWER) }),
    );
  }

  changesSince(id: string, revision: number): Observable<readonly KeptChange[]> {
    return this.ask('GET /api/studies/:id/changes', { at: { id }, query: { since: String(revision) } });
  }

  change(id: string, change: string): Observable<KeptChange> {
    return this.ask('GET /api/studies/:id/changes/:change', { at: { id, change } });
  }

  history(id: string, rows: readonly string[], before: number | null): Observable<readonly ToldChange[]> {
    const query = { ...(rows.length > 0 ? { rows: rows.join(',') } : {}), ...(before === null ? {} : { before: String(before) }) };
    return this.ask('GET /api/studies/:id/history', { at: { id }, query });
  }

  mine(id: string): Observable<readonly OwnChange[]> {
    return this.ask('GET /api/studies/:id/mine', { at: { id } });
  }

  here(id: string, connection: string, partId: string | null): Observable<object> {
    return this.ask('POST /api/studies/:id/here', { at: { id }, body: { connection, partId }, headers: { 'X-Device': deviceName() } });
  }

  /** What planning learns from the other studies of the organisation, and how far the bench is. */
  plan<W extends 'experience' | 'held-vehicles' | 'organisation-rigs' | 'recorded'>(
    id: string,
    what: W,
  ): Observable<AnswerOf<`GET /api/studies/:id/plan/${W}`>> {
    return this.ask(`GET /api/studies/:id/plan/${what}`, { at: { id } });
  }

  putFile(id: string, sha256: string, file: Blob): Observable<object> {
    // a scan is told from a picture by its type; both are checked by what is in them
    const type = file.type.startsWith('model/') ? file.type : 'application/octet-stream';
    return this.ask('PUT /api/studies/:id/files/:sha256', { at: { id, sha256 }, body: file, headers: { 'Content-Type': type } });
  }

  file(studyId: string, sha256: string): Observable<Blob> {
    return this.refused(this.http.get(`/api/studies/${studyId}/files/${sha256}`, { responseType: 'blob' }));
  }

  bringArchive(file: Blob): Observable<BroughtIn> {
    return this.ask('POST /api/archives', { body: file, headers: { 'Content-Type': 'application/zip' } });
  }

  /** What the server tells as it happens. The browser connects again by itself, and ends the stream when it was refused for good. */
  stream<R extends StreamRoute>(route: R, asked: Pick<Asked, 'at' | 'query'> = {}): Observable<Streamed<R>> {
    return new Observable((heard) => {
      // a stream must not pass through the service worker, which would wait for its end
      const source = new EventSource(addressOf(route, asked.at, { ...asked.query, 'ngsw-bypass': '' }));
      source.onopen = () => heard.next({ kind: 'open' });
      source.onerror = () => {
        heard.next({ kind: 'lost' });
        if (source.readyState === EventSource.CLOSED) heard.complete();
      };
      for (const [kind, schema] of Object.entries(EVENTS[route]))
        source.addEventListener(kind, (event) => {
          const told = check<unknown>(schema, jsonOf((event as MessageEvent<string>).data));
          if (told.ok) heard.next({ kind, told: told.value } as EventOf<R>);
          else {
            // whoever follows asks for what was missed, and is told there what is not understood
            source.close();
            heard.next({ kind: 'lost' });
            heard.complete();
          }
        });
      return () => source.close();
    });
  }

  private ask<R extends AnsweredRoute>(route: R, { at, query, body, headers = {} }: Asked = {}): Observable<AnswerOf<R>> {
    const method = route.slice(0, route.indexOf(' '));
    const sent = this.http.request<unknown>(method, addressOf(route, at, query), { body, headers: new HttpHeaders(headers) });
    return this.refused((method === 'GET' ? again(sent) : sent).pipe(map((answer) => understood(route, answer))));
  }

  private refused<T>(source: Observable<T>): Observable<T> {
    return source.pipe(catchError((error: unknown) => throwError(() => refusalOf(error))));
  }
}
