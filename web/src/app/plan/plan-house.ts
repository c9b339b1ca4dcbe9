import { Injectable, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { Experience, HeldVehicle } from '@each-bolt/core/plan';
import type { RigFields } from '@each-bolt/core/record';
import { catchError, combineLatest, filter, map, of, switchMap, type Observable } from 'rxjs';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';

/** A rig of another study. */
export type HouseRig = RigFields & { readonly id: string; readonly studyId: string; readonly study: string };

export interface House {
  readonly experience: readonly Experience[];
  readonly held: readonly HeldVehicle[];
  readonly rigs: readonly HouseRig[];
}

type Read = { readonly kind: 'reading' } | { readonly kind: 'away' } | { readonly kind: 'ready'; readonly house: House };

const NOTHING: House = { experience: [], held: [], rigs: [] };

/** What the other studies of the house let planning know. Without a connection it is not there, and is said not to be. */
@Injectable({ providedIn: 'root' })
export class PlanHouse {
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
          experience: this.api.house<Experience>(id, 'experience'),
          held: this.api.house<HeldVehicle>(id, 'held-vehicles'),
          rigs: this.api.house<HouseRig>(id, 'house-rigs'),
        }).pipe(
          map((house): Read => ({ kind: 'ready', house })),
          catchError(() => of<Read>({ kind: 'away' })),
        ),
      ),
    ),
    { initialValue: { kind: 'reading' } },
  );
  readonly house = computed<House>(() => {
    const read = this.read();
    return read.kind === 'ready' ? read.house : NOTHING;
  });
  readonly isAway = computed(() => this.read().kind === 'away');
}
