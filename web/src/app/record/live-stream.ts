import { Injectable, inject } from '@angular/core';
import type { Here, HeardChange } from '@each-bolt/core/wire';
import { map, takeWhile, type Observable } from 'rxjs';
import { Account } from './account';
import { deviceName } from './device';
import { RecordApi } from './record-api';

export type Heard =
  | { readonly kind: 'open' }
  | { readonly kind: 'change'; readonly change: HeardChange }
  /** a change too large to be told to everybody; it is there to be fetched */
  | { readonly kind: 'large'; readonly revision: number }
  | { readonly kind: 'here'; readonly here: readonly Here[] }
  /** taken off the study */
  | { readonly kind: 'off' }
  | { readonly kind: 'lost' };

/** What the server tells of a study as it happens. The browser connects again by itself and goes on from where it was. */
@Injectable({ providedIn: 'root' })
export class LiveStream {
  private readonly account = inject(Account);
  private readonly api = inject(RecordApi);

  follow(studyId: string, since: number, connection: string): Observable<Heard> {
    const { id } = this.account;
    const query = { since: String(since), connection, device: deviceName(), ...(id === null ? {} : { account: id }) };
    return this.api.stream('GET /api/studies/:id/events', { at: { id: studyId }, query }).pipe(
      map((event): Heard => {
        switch (event.kind) {
          case 'change':
            return { kind: 'change', change: event.told };
          case 'large':
            return { kind: 'large', revision: event.told.revision };
          case 'here':
            return { kind: 'here', here: event.told };
          case 'off':
          case 'open':
          case 'lost':
            return { kind: event.kind };
        }
      }),
      takeWhile(({ kind }) => kind !== 'off', true),
    );
  }
}
