import { Injectable, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { Experience, HeldVehicle } from '@each-bolt/core/plan';
import type { OrganisationRig } from '@each-bolt/core/wire';
import { catchError, combineLatest, filter, map, of, switchMap, type Observable } from 'rxjs';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';

/** A rig of another study. */
interface Organisation {
  readonly experience: readonly Experience[];
  readonly held: readonly HeldVehicle[];
  readonly rigs: readonly OrganisationRig[];
}

type Read = { readonly kind: 'reading' } | { readonly kind: 'away' } | { readonly kind: 'ready'; readonly organisation: Organisation };

const NOTHING: Organisation = { experience: [], held: [], rigs: [] };

/** What the other studies of the organisation let planning know. Without a connection it is not there, and is said not to be. */
@Injectable({ providedIn: 'root' })
export class PlanOrganisation {
  private readonly api = inject(RecordApi);
  private readonly service = inject(RecordService);
  private readonly studyId$ = toObservable(
    computed(() => {
      const state = this.service.state();
      return state.kind === 'ready' ? state.record.study.id : '';
    }),
  );
  private readonly read = toSignal(
    this.studyId$.pipe(
      filter((id) => id !== ''),
      switchMap((id): Observable<Read> =>
        combineLatest({
          experience: this.api.plan(id, 'experience'),
          held: this.api.plan(id, 'held-vehicles'),
          rigs: this.api.plan(id, 'organisation-rigs'),
        }).pipe(
          map((organisation): Read => ({ kind: 'ready', organisation })),
          catchError(() => of<Read>({ kind: 'away' })),
        ),
      ),
    ),
    { initialValue: { kind: 'reading' } },
  );
  readonly organisation = computed<Organisation>(() => {
    const read = this.read();
    return read.kind === 'ready' ? read.organisation : NOTHING;
  });
  readonly isAway = computed(() => this.read().kind === 'away');
}
