import { Injectable, inject } from '@angular/core';
import type { UnitSystem } from '@each-bolt/core/shared';
import { toSignal } from '@angular/core/rxjs-interop';
import { BehaviorSubject, Subject, firstValueFrom } from 'rxjs';
import { LocalStore } from './local-store';
import type { Me, Person, Refusal, SignedIn } from '@each-bolt/core/wire';
import { RecordApi, isPassing } from './record-api';
import { Account } from './account';
import { keepUnits } from '../shared/chosen-units';

type SessionState =
  | { readonly kind: 'reading' }
  | { readonly kind: 'in'; readonly person: Person }
  /** signed out, with what there is to sign in with */
  | { readonly kind: 'out'; readonly me: Me }
  | { readonly kind: 'failed'; readonly refusal: Refusal };

const NOBODY: Me = { person: null, seal: null, units: null, firstRun: false, demo: [] };

/** Who is signed in. Without a network it is whoever was last signed in on this device. */
@Injectable({ providedIn: 'root' })
export class Session {
  private readonly api = inject(RecordApi);
  private readonly store = inject(LocalStore);
  private readonly account = inject(Account);
  private readonly state$ = new BehaviorSubject<SessionState>({ kind: 'reading' });
  readonly state = toSignal(this.state$, { requireSync: true });
  readonly changes = this.state$.asObservable();
  private readonly elsewhere$ = new Subject<void>();
  /** another tab signed out, or another account in: what this one shows is no longer its own */
  readonly elsewhere = this.elsewhere$.asObservable();
  /** tells the other tabs who is signed in on this device */
  private readonly tabs = typeof BroadcastChannel === 'function' ? new BroadcastChannel('each-bolt account') : null;

  /** what is shown is in units that are not those of the account: the page must be read again */
  isOfOtherUnits = false;

  constructor() {
    this.tabs?.addEventListener('message', ({ data }: MessageEvent<string | null>) => this.hear(data));
  }

  get person(): Person | null {
    const state = this.state$.value;
    return state.kind === 'in' ? state.person : null;
  }

  /** Asks the server who is signed in. */
  async read(): Promise<SessionState> {
    try {
      const me = await firstValueFrom(this.api.me());
      if (me.person) {
        await this.begin({ person: me.person, seal: me.seal, units: me.units });
        if (this.isOfOtherUnits) location.reload();
      } else this.state$.next({ kind: 'out', me });
    } catch (refusal) {
      const person = isPassing(refusal as Refusal) ? await this.store.me() : null;
      if (person) await this.begin({ person, seal: null, units: null });
      else this.state$.next({ kind: 'failed', refusal: refusal as Refusal });
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

  /** Shows figures in other units from now on, on every device of the person; null when the server kept it, else why not. */
  async chooseUnits(units: UnitSystem): Promise<Refusal | null> {
    try {
      await firstValueFrom(this.api.setUnits(units));
    } catch (refusal) {
      return refusal as Refusal;
    }
    if (keepUnits(units)) location.reload();
    return null;
  }

  firstLead(account: object): Promise<Refusal | null> {
    return this.enter(() => firstValueFrom(this.api.firstLead(account)));
  }

  /** Signs out on the server and closes what this device keeps for the account. */
  async signOut(): Promise<Refusal | null> {
    try {
      await firstValueFrom(this.api.signOut());
    } catch (refusal) {
      if ((refusal as Refusal).code !== 'signed-out') return refusal as Refusal;
    }
    await this.store.leave();
    this.account.id = null;
    this.tabs?.postMessage(null);
    await this.read();
    return null;
  }

  /** The server no longer knows the session. */
  ended(): void {
    if (this.state$.value.kind !== 'out') this.state$.next({ kind: 'out', me: NOBODY });
  }

  /** Another tab says who is signed in on this device now. */
  private hear(personId: string | null): void {
    const { id } = this.account;
    if (id !== null && personId !== id) this.elsewhere$.next();
    else if (personId !== null && this.person === null) void this.read();
  }

  private async enter(act: () => Promise<SignedIn>): Promise<Refusal | null> {
    try {
      await this.begin(await act());
      return null;
    } catch (refusal) {
      return refusal as Refusal;
    }
  }

  private async begin({ person, seal, units }: SignedIn): Promise<void> {
    this.isOfOtherUnits = units !== null && keepUnits(units);
    await this.store.enter(person, seal);
    this.account.id = person.id;
    this.state$.next({ kind: 'in', person });
    this.tabs?.postMessage(person.id);
  }
}
