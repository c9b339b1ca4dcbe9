import { Injectable, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { triesFor, type ScheduleResult } from '@each-bolt/core/plan';
import { Observable, catchError, debounceTime, distinctUntilChanged, map, merge, of, scan, switchMap, timer } from 'rxjs';
import { OpenStudy } from '../record/open-study';
import { todayHere } from '../record/when';
import { makeScheduleWorker } from './make-worker';
import type { PlanParts, ScheduleAsked, ScheduleTold } from './schedule-told';

interface ScheduleState {
  /** 0 … 1 while a schedule is made; null when it is there */
  readonly doneFraction: number | null;
  /** the last one that was made, of the plan as it was then */
  readonly result: ScheduleResult | null;
  readonly failure: string;
}

const SAMPLES = 1000;
const WAIT_MS = 150;
const MINUTE_MS = 60_000;

const worked = (asked: ScheduleAsked): Observable<ScheduleTold> =>
  new Observable((told) => {
    const worker = makeScheduleWorker();
    worker.onmessage = ({ data }: MessageEvent<ScheduleTold>) => {
      told.next(data);
      if (data.kind === 'result') told.complete();
    };
    worker.onerror = (event) => told.error(new Error(event.message));
    worker.postMessage(asked);
    return () => worker.terminate();
  });

type Asked = PlanParts & { readonly today: string };

const sameParts = (a: Asked, b: Asked): boolean =>
  a.today === b.today &&
  a.study === b.study &&
  a.packages === b.packages &&
  a.resources === b.resources &&
  a.rigs === b.rigs &&
  a.vehicles === b.vehicles;

const FAILED = 'The schedule could not be made. Nothing is lost; change something in the plan to try again';

/** The schedule of the open study, made anew in a worker whenever the plan changes; a newer plan stops an older run. */
@Injectable({ providedIn: 'root' })
export class PlanScheduleService {
  private readonly open = inject(OpenStudy);
  /** the calendar date; a page that stays open over midnight plans anew */
  readonly today = toSignal(
    timer(MINUTE_MS, MINUTE_MS).pipe(
      map(() => todayHere()),
      distinctUntilChanged(),
    ),
    { initialValue: todayHere() },
  );
  private readonly parts = computed(() => {
    const { study, packages, resources, rigs, vehicles } = this.open.record();
    return { study, packages, resources, rigs, vehicles, today: this.today() };
  });
  readonly state = toSignal(
    toObservable(this.parts).pipe(
      distinctUntilChanged(sameParts),
      debounceTime(WAIT_MS),
      switchMap(({ today, ...plan }): Observable<ScheduleTold | 'begun' | 'failed'> => {
        if (plan.study.id === '' || plan.packages.length === 0)
          return of<ScheduleTold>({ kind: 'result', result: { schedule: null, issues: [] } });
        const options = { today, tries: triesFor(plan.packages.length), samples: SAMPLES };
        return merge(of('begun' as const), worked({ plan, options }).pipe(catchError(() => of('failed' as const))));
      }),
      scan(
        (state: ScheduleState, told): ScheduleState => {
          if (told === 'begun') return { ...state, doneFraction: 0, failure: '' };
          if (told === 'failed') return { ...state, doneFraction: null, failure: FAILED };
          return told.kind === 'progress'
            ? { ...state, doneFraction: told.doneFraction }
            : { doneFraction: null, result: told.result, failure: '' };
        },
        { doneFraction: 0, result: null, failure: '' },
      ),
    ),
    { initialValue: { doneFraction: 0, result: null, failure: '' } },
  );
  readonly schedule = computed(() => this.state().result?.schedule ?? null);
}
