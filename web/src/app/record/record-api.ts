import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { Issue } from '@each-bolt/core/shared';
import type { Change, ChangeKept, StudyRecord } from '@each-bolt/core/record';
import { catchError, retry, throwError, timer, type Observable } from 'rxjs';

export interface StudyLine {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly vehicles: readonly string[];
  readonly pieces: number;
}

/** Why the server did not do it, in words for people. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
  readonly issues: readonly Issue[];
}

const NO_ANSWER: Refusal = {
  code: 'no-answer',
  message: 'The server does not answer. Nothing typed is lost; try again when it is back',
  issues: [],
};

/** The refusal in an error of the HTTP client. */
export const refusalOf = (error: unknown): Refusal => {
  if (!(error instanceof HttpErrorResponse) || error.status === 0) return NO_ANSWER;
  const body = error.error as Partial<Refusal> | null;
  if (typeof body?.message === 'string') return { code: body.code ?? 'failed', message: body.message, issues: body.issues ?? [] };
  return { code: 'failed', message: `The server answered ${error.status}. Nothing was written`, issues: [] };
};

const RETRIES = 2;

/** True for failures in which a second try can succeed: no answer at all, or a server that is starting up again. */
const worthAnotherTry = (error: unknown): boolean => error instanceof HttpErrorResponse && (error.status === 0 || error.status === 503);

const again = <T>(source: Observable<T>): Observable<T> =>
  source.pipe(
    retry({
      count: RETRIES,
      delay: (error: unknown, attempt) => (worthAnotherTry(error) ? timer(300 * attempt) : throwError(() => error)),
    }),
  );

/** The only place that speaks HTTP to the record. A change is sent again safely: its id makes the server keep it once. */
@Injectable({ providedIn: 'root' })
export class RecordApi {
  private readonly http = inject(HttpClient);

  studies(): Observable<readonly StudyLine[]> {
    return this.refused(again(this.http.get<readonly StudyLine[]>('/api/studies')));
  }

  study(id: string): Observable<StudyRecord> {
    return this.refused(again(this.http.get<StudyRecord>(`/api/studies/${id}`)));
  }

  keep(studyId: string, change: Change): Observable<ChangeKept> {
    return this.refused(
      again(this.http.post<ChangeKept>(`/api/studies/${studyId}/changes`, change, { headers: { 'X-Device': 'browser' } })),
    );
  }

  private refused<T>(source: Observable<T>): Observable<T> {
    return source.pipe(catchError((error: unknown) => throwError(() => refusalOf(error))));
  }
}
