import { Injectable, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { applyOps, splitKind, type Change, type Op, type StudyRecord } from '@each-bolt/core/record';
import { onlyPiece, studyRollUp, studyRollUpAfter, type StudyRollUp } from '@each-bolt/core/cost';
import { BehaviorSubject, Subject, catchError, concatMap, firstValueFrom, map, of, switchMap, tap, type Observable } from 'rxjs';
import { RecordApi, type Refusal } from './record-api';

export type RecordState =
  | { readonly kind: 'reading' }
  | { readonly kind: 'failed'; readonly refusal: Refusal }
  | { readonly kind: 'ready'; readonly record: StudyRecord; readonly rollUp: StudyRollUp };

/** What became of a change. */
export type Kept = { readonly kept: true; readonly revision: number } | { readonly kept: false; readonly refusal: Refusal };

/** What is being sent, in words for the basis line. */
export type SyncState =
  | { readonly kind: 'sending'; readonly waiting: number }
  | { readonly kind: 'kept'; readonly at: Date | null }
  | { readonly kind: 'refused'; readonly refusal: Refusal };

interface Job {
  readonly studyId: string;
  readonly change: Change;
  readonly done: Subject<Kept>;
}

/** Ids of the pieces that ops touch, directly or by their fastener and joint sets; null when an op touches something else. */
export const touchedPieces = (record: StudyRecord, ops: readonly Op[]): readonly string[] | null => {
  const found: string[] = [];
  for (const op of ops) {
    const { entity } = splitKind(op.kind);
    if (entity === 'piece') found.push(op.id);
    else if (entity === 'fasteners' || entity === 'joints') {
      const sets = entity === 'fasteners' ? record.fastenerSets : record.jointSets;
      const before = sets.find((set) => set.id === op.id);
      if (before) found.push(before.pieceId);
      if ('fields' in op && 'pieceId' in op.fields && op.fields.pieceId !== undefined) found.push(op.fields.pieceId);
    } else return null;
  }
  return found;
};

/** The client's copy of the open study: what the server last said, with every kept change applied to it. */
@Injectable({ providedIn: 'root' })
export class RecordService {
  private readonly api = inject(RecordApi);
  private readonly state$ = new BehaviorSubject<RecordState>({ kind: 'reading' });
  private readonly sync$ = new BehaviorSubject<SyncState>({ kind: 'kept', at: null });
  private readonly opened$ = new Subject<string>();
  private readonly jobs$ = new Subject<Job>();
  private waiting = 0;
  private studyId = '';

  readonly state = toSignal(this.state$, { requireSync: true });
  readonly sync = toSignal(this.sync$, { requireSync: true });

  constructor() {
    this.opened$.pipe(switchMap((id) => this.read(id))).subscribe((state) => this.state$.next(state));
    this.jobs$.pipe(concatMap((job) => this.post(job))).subscribe();
  }

  /** Reads a study; the state goes through reading to ready or failed. */
  open(studyId: string): void {
    if (studyId !== this.studyId) this.state$.next({ kind: 'reading' });
    this.studyId = studyId;
    this.opened$.next(studyId);
  }

  /** Sends ops as one change, after those already waiting, and applies them once the server has kept them. */
  send(ops: readonly Op[]): Promise<Kept> {
    const done = new Subject<Kept>();
    this.waiting += 1;
    this.sync$.next({ kind: 'sending', waiting: this.waiting });
    const job = { studyId: this.studyId, change: { id: crypto.randomUUID(), ops }, done };
    const result = firstValueFrom(done);
    this.jobs$.next(job);
    return result;
  }

  private read(studyId: string): Observable<RecordState> {
    return this.api.study(studyId).pipe(
      map((record): RecordState => ({ kind: 'ready', record, rollUp: studyRollUp(record) })),
      catchError((refusal: Refusal) => of<RecordState>({ kind: 'failed', refusal })),
    );
  }

  private post(job: Job): Observable<Kept> {
    return this.api.keep(job.studyId, job.change).pipe(
      map(({ revision }): Kept => ({ kept: true, revision })),
      catchError((refusal: Refusal) => this.refused(job, refusal)),
      tap((result) => {
        this.settle(job, result);
        job.done.next(result);
        job.done.complete();
      }),
    );
  }

  /** After a conflict the current values are read first, so that whoever hears of it already sees them and can save again. */
  private refused(job: Job, refusal: Refusal): Observable<Kept> {
    const result: Kept = { kept: false, refusal };
    if (refusal.code !== 'conflict') return of(result);
    return this.read(job.studyId).pipe(
      tap((state) => {
        if (state.kind === 'ready' && job.studyId === this.studyId) this.state$.next(state);
      }),
      map(() => result),
    );
  }

  private settle(job: Job, result: Kept): void {
    this.waiting -= 1;
    const state = this.state$.value;
    if (result.kept && state.kind === 'ready' && job.studyId === this.studyId) {
      if (result.revision === state.record.revision + 1) this.apply(state, job.change.ops, result.revision);
      else this.opened$.next(this.studyId);
    }
    if (this.waiting > 0) this.sync$.next({ kind: 'sending', waiting: this.waiting });
    else this.sync$.next(result.kept ? { kind: 'kept', at: new Date() } : { kind: 'refused', refusal: result.refusal });
  }

  private apply(state: RecordState & { kind: 'ready' }, ops: readonly Op[], revision: number): void {
    const record = applyOps(state.record, ops, revision);
    const touched = touchedPieces(state.record, ops);
    const rollUp = touched === null ? studyRollUp(record) : studyRollUpAfter(state.rollUp, state.record, record, onlyPiece(touched));
    this.state$.next({ kind: 'ready', record, rollUp });
  }
}
