import { Injectable, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { BehaviorSubject, firstValueFrom } from 'rxjs';
import { LocalStore } from '../record/local-store';
import { RecordApi, isPassing, type Me, type Person, type Refusal } from '../record/record-api';

export type SessionState =
  | { readonly kind: 'reading' }
  | { readonly kind: 'in'; readonly person: Person }
  /** signed out, with what there is to sign in with */
  | { readonly kind: 'out'; readonly me: Me }
  | { readonly kind: 'failed'; readonly refusal: Refusal };

const NOBODY: Me = { person: null, firstRun: false, demo: [] };

/** Who is signed in. Without a network it is whoever was last signed in on this device. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(RecordApi);
  private readonly store = inject(LocalStore);
  private readonly state$ = new BehaviorSubject<SessionState>({ kind: 'reading' });
  readonly state = toSignal(this.state$, { requireSync: true });
  readonly changes = this.state$.asObservable();

  get person(): Person | null {
    const state = this.state$.value;
    return state.kind === 'in' ? state.person : null;
  }

  /** Asks the server who is signed in. */
  async read(): Promise<SessionState> {
    try {
      const me = await firstValueFrom(this.api.me());
      await this.store.setMe(me.person);
      this.state$.next(me.person ? { kind: 'in', person: me.person } : { kind: 'out', me });
    } catch (refusal) {
      const person = isPassing(refusal as Refusal) ? await this.store.me() : null;
      this.state$.next(person ? { kind: 'in', person } : { kind: 'failed', refusal: refusal as Refusal });
    }
    return this.state$.value;
  }

  /** The state once it is known. */
  async known(): Promise<SessionState> {
    return this.state$.value.kind === 'reading' || this.state$.value.kind === 'failed' ? this.read() : this.state$.value;
  }

  /** Null when signed in, else why not. */
  signIn(login: string, password: string): Promise<Refusal | null> {
    return this.enter(() => firstValueFrom(this.api.signIn(login, password)));
  }

  firstLead(account: object): Promise<Refusal | null> {
    return this.enter(() => firstValueFrom(this.api.firstLead(account)));
  }

  async signOut(): Promise<Refusal | null> {
    try {
      await firstValueFrom(this.api.signOut());
    } catch (refusal) {
      if ((refusal as Refusal).code !== 'signed-out') return refusal as Refusal;
    }
    await this.store.setMe(null);
    await this.read();
    return null;
  }

  /** The server no longer knows the session. */
  ended(): void {
    if (this.state$.value.kind !== 'out') this.state$.next({ kind: 'out', me: NOBODY });
  }

  private async enter(act: () => Promise<{ readonly person: Person }>): Promise<Refusal | null> {
    try {
      const { person } = await act();
      await this.store.setMe(person);
      this.state$.next({ kind: 'in', person });
      return null;
    } catch (refusal) {
      return refusal as Refusal;
    }
  }
}
