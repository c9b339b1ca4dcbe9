import { Injectable, inject } from '@angular/core';
import type { KeptChange } from '@each-bolt/core/record';
import { Observable } from 'rxjs';
import { Account } from '../people/account';
import { deviceName } from './device';

/** Somebody who has the study open. */
export interface Here {
  readonly connection: string;
  readonly personId: string;
  readonly name: string;
  readonly device: string;
  readonly pieceId: string | null;
}

export type Heard =
  | { readonly kind: 'open' }
  | { readonly kind: 'change'; readonly change: Omit<KeptChange, 'inverse'> }
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

  follow(studyId: string, since: number, connection: string): Observable<Heard> {
    return new Observable((heard) => {
      // a stream must not pass through the service worker, which would wait for its end
      const { id } = this.account;
      const query = new URLSearchParams({
        ...{ since: String(since), connection, device: deviceName(), 'ngsw-bypass': '' },
        ...(id === null ? {} : { account: id }),
      });
      const source = new EventSource(`/api/studies/${studyId}/events?${query}`);
      const data = (event: Event): unknown => JSON.parse((event as MessageEvent<string>).data);
      source.onopen = () => heard.next({ kind: 'open' });
      source.onerror = () => {
        heard.next({ kind: 'lost' });
        // refused for good, for instance because the session ended: whoever follows decides when to try again
        if (source.readyState === EventSource.CLOSED) heard.complete();
      };
      source.addEventListener('change', (event) => heard.next({ kind: 'change', change: data(event) as KeptChange }));
      source.addEventListener('large', (event) => heard.next({ kind: 'large', ...(data(event) as { readonly revision: number }) }));
      source.addEventListener('here', (event) => heard.next({ kind: 'here', here: data(event) as readonly Here[] }));
      source.addEventListener('off', () => {
        source.close();
        heard.next({ kind: 'off' });
        heard.complete();
      });
      return () => source.close();
    });
  }
}
