import { HttpClient, HttpErrorResponse, type HttpResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { Issue } from '@each-bolt/core/shared';
import type { CellConflict, Change, ChangeKept, Conflict, KeptChange, OpKind, Role, Study, StudyRecord } from '@each-bolt/core/record';
import { catchError, map, retry, throwError, timer, type Observable } from 'rxjs';
import { deviceName } from './device';

export interface StudyLine {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly state: Study['state'];
  readonly vehicles: readonly string[];
  readonly pieces: number;
  readonly openQuestions: number;
  readonly changedAt: string | null;
  readonly role: Role;
}

/** A conflict as the server tells it: with who changed what, and when. */
export interface ToldConflict extends Omit<Conflict, 'cells'> {
  readonly by: string | null;
  readonly at: string | null;
  readonly cells: readonly (CellConflict & { readonly by: string | null; readonly at: string | null })[];
}

/** Why the server did not do it, in words for people. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
  readonly issues: readonly Issue[];
  readonly conflicts?: readonly ToldConflict[];
}

/** A change as a history tells it: of a very large one some of its ops, and how many there are. */
export interface ToldChange extends KeptChange {
  readonly opCount: number;
}

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly login?: string;
  readonly standing?: 'lead' | 'member';
  readonly demoPassword?: boolean;
}

export interface DemoSignIn {
  readonly login: string;
  readonly name: string;
  readonly role: Role;
  readonly password: string;
}

/** Somebody who signed in, with the key that seals what they leave unsent on the device; null when the server was not asked. */
export interface SignedIn {
  readonly person: Person;
  readonly seal: string | null;
}

/** Who is signed in, or what there is to sign in with. */
export interface Me {
  readonly person: Person | null;
  readonly seal: string | null;
  readonly firstRun: boolean;
  readonly demo: readonly DemoSignIn[];
}

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

/** The refusal in an error of the HTTP client. */
export const refusalOf = (error: unknown): Refusal => {
  if (!(error instanceof HttpErrorResponse) || error.status === 0 || error.status === 502 || error.status === 504) return NO_ANSWER;
  const body = error.error as Partial<Refusal> | null;
  if (typeof body?.message === 'string')
    return { code: body.code ?? 'failed', message: body.message, issues: body.issues ?? [], conflicts: body.conflicts ?? [] };
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

const readStudyOf = (response: HttpResponse<StudyRecord>): ReadStudy => ({
  record: response.body!,
  role: (response.headers.get('X-Role') ?? 'reader') as Role,
  may: (response.headers.get('X-May') ?? '').split(' ') as OpKind[],
});

/** The only place that speaks HTTP. A change is sent again safely: its id makes the server keep it once. */
@Injectable({ providedIn: 'root' })
export class RecordApi {
  private readonly http = inject(HttpClient);

  instrumentCommand(id: string, command: string): Observable<object> {
    return this.post(`/api/instruments/${id}/commands`, { command });
  }

  /** Puts a demo part on or into a stand-in. */
  placeOnInstrument(id: string, placed: { readonly numbers: readonly number[]; readonly symbols: readonly string[] }): Observable<object> {
    return this.post(`/api/instruments/${id}/place`, placed);
  }

  addInstrument(instrument: object): Observable<object> {
    return this.post('/api/instruments', instrument);
  }

  removeInstrument(id: string): Observable<object> {
    return this.refused(this.http.delete<object>(`/api/instruments/${id}`));
  }

  /** The file an instrument made last: a picture, a scan. */
  instrumentFile(id: string): Observable<Blob> {
    return this.refused(this.http.get(`/api/instruments/${id}/file`, { responseType: 'blob' }));
  }

  me(): Observable<Me> {
    return this.get<Me>('/api/me');
  }

  signIn(login: string, password: string): Observable<SignedIn> {
    return this.post('/api/sign-in', { login, password });
  }

  signOut(): Observable<object> {
    return this.post('/api/sign-out', {});
  }

  firstLead(account: object): Observable<SignedIn> {
    return this.post('/api/first-lead', account);
  }

  changePassword(current: string, next: string): Observable<object> {
    return this.post('/api/password', { current, next });
  }

  people(): Observable<readonly Person[]> {
    return this.get('/api/people');
  }

  addPerson(account: object): Observable<{ readonly person: Person }> {
    return this.post('/api/people', account);
  }

  resetPassword(personId: string, next: string): Observable<object> {
    return this.post(`/api/people/${personId}/password`, { next });
  }

  studies(): Observable<readonly StudyLine[]> {
    return this.get('/api/studies');
  }

  study(id: string): Observable<ReadStudy> {
    return this.refused(again(this.http.get<StudyRecord>(`/api/studies/${id}`, { observe: 'response' })).pipe(map(readStudyOf)));
  }

  /** Sends a change once; whoever calls decides when to try again. */
  keep(studyId: string, change: Change): Observable<ChangeKept> {
    return this.refused(this.http.post<ChangeKept>(`/api/studies/${studyId}/changes`, change, this.device()));
  }

  changesSince(studyId: string, revision: number): Observable<readonly KeptChange[]> {
    return this.get(`/api/studies/${studyId}/changes?since=${revision}`);
  }

  change(studyId: string, id: string): Observable<KeptChange> {
    return this.get(`/api/studies/${studyId}/changes/${id}`);
  }

  history(studyId: string, rows: readonly string[], before: number | null): Observable<readonly ToldChange[]> {
    const query = [...(rows.length > 0 ? [`rows=${rows.join(',')}`] : []), ...(before === null ? [] : [`before=${before}`])].join('&');
    return this.get(`/api/studies/${studyId}/history${query === '' ? '' : `?${query}`}`);
  }

  mine(studyId: string): Observable<readonly { readonly id: string; readonly undoes: string | null }[]> {
    return this.get(`/api/studies/${studyId}/mine`);
  }

  here(studyId: string, connection: string, pieceId: string | null): Observable<object> {
    return this.refused(this.http.post<object>(`/api/studies/${studyId}/here`, { connection, pieceId }, this.device()));
  }

  /** What planning learns from the other studies of the house. */
  house<T>(studyId: string, what: 'experience' | 'held-vehicles' | 'house-rigs' | 'recorded'): Observable<readonly T[]> {
    return this.get(`/api/studies/${studyId}/plan/${what}`);
  }

  putFile(studyId: string, sha256: string, file: Blob): Observable<object> {
    return this.refused(
      this.http.put<object>(`/api/studies/${studyId}/files/${sha256}`, file, {
        // a scan is told from a picture by its type; both are checked by what is in them
        headers: { 'Content-Type': file.type.startsWith('model/') ? file.type : 'application/octet-stream' },
      }),
    );
  }

  file(studyId: string, sha256: string): Observable<Blob> {
    return this.refused(this.http.get(`/api/studies/${studyId}/files/${sha256}`, { responseType: 'blob' }));
  }

  bringArchive(file: Blob): Observable<{ readonly studyId: string; readonly title: string; readonly copied: boolean }> {
    return this.refused(
      this.http.post<{ studyId: string; title: string; copied: boolean }>('/api/archives', file, {
        headers: { 'Content-Type': 'application/zip' },
      }),
    );
  }

  private device(): { readonly headers: { readonly 'X-Device': string } } {
    return { headers: { 'X-Device': deviceName() } };
  }

  private get<T>(path: string): Observable<T> {
    return this.refused(again(this.http.get<T>(path)));
  }

  private post<T>(path: string, body: object): Observable<T> {
    return this.refused(this.http.post<T>(path, body));
  }

  private refused<T>(source: Observable<T>): Observable<T> {
    return source.pipe(catchError((error: unknown) => throwError(() => refusalOf(error))));
  }
}
