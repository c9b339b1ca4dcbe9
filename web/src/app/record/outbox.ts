import { Injectable, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { BehaviorSubject, Subject, filter, firstValueFrom, map, merge, startWith, takeUntil, timer } from 'rxjs';
import { Session } from './session';
import { LocalStore, filesOf } from './local-store';
import type { OutboxEntry } from './stored';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordApi, isPassing } from './record-api';

/** How this device stands to the server, for the basis line. Changes are counted in every study. */
export type SyncState =
  | { readonly kind: 'sending'; readonly waiting: number }
  | { readonly kind: 'kept'; readonly at: Date | null }
  /** the server does not answer; what is recorded waits here */
  | { readonly kind: 'offline'; readonly waiting: number }
  | { readonly kind: 'signed-out'; readonly waiting: number };

/** What became of a change as far as it is known. */
export type Outcome =
  { readonly kind: 'kept' | 'waits' } | { readonly kind: 'refused'; readonly entry: OutboxEntry; readonly refusal: Refusal };

/** So long somebody waits to see whether the server keeps an edit. */
const OUTCOME_MS = 4000;

export type Told =
  | { readonly kind: 'kept'; readonly entry: OutboxEntry; readonly revision: number }
  | { readonly kind: 'refused'; readonly entry: OutboxEntry }
  /** another tab recorded it */
  | { readonly kind: 'added'; readonly entry: OutboxEntry };

/** What tabs tell one another. */
type Word = { readonly kind: 'look' } | { readonly kind: 'kept'; readonly seq: number; readonly revision: number };

const RETRY_MS = [500, 1000, 2000, 4000, 8000, 15_000];
/** So often the server may fail on one change in the same way before it is set aside. */
const MOST_FAILURES = 4;
const SET_ASIDE = `The server failed on this ${MOST_FAILURES} times; it was set aside so that what you recorded after it could go on.`;

/**
 * Everything recorded on this device and not yet kept by the server, of all studies of the account. One tab at a time sends, for all
 * tabs and for those that were closed; what the others show follows.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly api = inject(RecordApi);
  private readonly store = inject(LocalStore);
  private readonly session = inject(Session);

  private readonly sync$ = new BehaviorSubject<SyncState>({ kind: 'kept', at: null });
  private readonly told$ = new Subject<Told>();
  private readonly set$ = new Subject<void>();
  private readonly all = signal<readonly OutboxEntry[]>([]);
  private pumping: Promise<void> | null = null;
  private pause: { readonly timer: ReturnType<typeof setTimeout>; readonly go: () => void } | null = null;
  private failures = 0;
  /** the change the server failed on last, and how often */
  private failing: { readonly id: string; readonly message: string; readonly times: number } | null = null;
  /** changes that this device has not stored yet */
  private storing = 0;
  private added: Promise<void> = Promise.resolve();
  private readonly tabs = typeof BroadcastChannel === 'function' ? new BroadcastChannel('each-bolt outbox') : null;

  readonly sync = toSignal(this.sync$, { requireSync: true });
  readonly told = this.told$.asObservable();
  /** what waits or was refused, of every study, in the order of sending */
  readonly entries = this.all.asReadonly();
  readonly waiting = computed(() => this.all().filter((entry) => entry.refusal === null));
  readonly refused = computed(() => this.all().filter((entry) => entry.refusal !== null));

  constructor() {
    addEventListener('online', () => this.hurry());
    this.tabs?.addEventListener('message', ({ data }: MessageEvent<Word>) => void this.hear(data));
    this.session.changes.subscribe(({ kind }) => {
      if (kind !== 'in') return;
      if (this.sync$.value.kind === 'signed-out') this.sync$.next({ kind: 'kept', at: null });
      void this.look().then(() => this.hurry());
    });
  }

  /** Looks again at what this device keeps. */
  look(): Promise<void> {
    // in turn with what is being added, so that neither forgets the other
    const looked = this.added.then(async () => {
      const before = new Map(this.all().map((entry) => [entry.seq, entry]));
      const now = await this.store.outbox();
      this.set(now);
      for (const entry of now) {
        const was = before.get(entry.seq);
        if (!was) this.told$.next({ kind: 'added', entry });
        else if (was.refusal === null && entry.refusal !== null) this.told$.next({ kind: 'refused', entry });
      }
    });
    this.added = looked.catch(() => undefined);
    return looked;
  }

  /**
   * What becomes of a change that was put in: kept, or refused and why. `waits` when it is not known within a moment, or the server is
   * away: it is on its way then, and what becomes of it is told with all others.
   */
  outcome(changeId: string): Promise<Outcome> {
    const now = (): Outcome => {
      const entry = this.all().find(({ change }) => change.id === changeId);
      if (!entry) return { kind: 'kept' };
      return entry.refusal ? { kind: 'refused', entry, refusal: entry.refusal } : { kind: 'waits' };
    };
    const isAway = ({ kind }: SyncState): boolean => kind === 'offline' || kind === 'signed-out';
    return firstValueFrom(
      merge(this.set$, this.sync$).pipe(
        startWith(null),
        map(now),
        takeUntil(merge(timer(OUTCOME_MS), this.sync$.pipe(filter(isAway)))),
        filter(({ kind }) => kind !== 'waits'),
      ),
      { defaultValue: { kind: 'waits' } },
    );
  }

  /** Puts a change at the end, durably. Throws when this device could not store it. */
  async add(entry: Omit<OutboxEntry, 'seq'>): Promise<void> {
    this.storing += 1;
    // what people see already is not kept, and is not said to be, while this device is still storing it
    if (this.sync$.value.kind === 'kept') this.tell('sending');
    const adding = this.store.add(entry);
    const added = this.added.then(async () => {
      const kept = await adding;
      if (!this.all().some(({ seq }) => seq === kept.seq)) this.set([...this.all(), kept]);
    });
    // one that this device could not store must not stand in the way of the next
    this.added = added.catch(() => undefined);
    try {
      await added;
    } finally {
      this.storing -= 1;
      this.settled();
    }
    this.say({ kind: 'look' });
    this.pump();
  }

  /** Gives up a change that was refused. */
  async drop(entry: OutboxEntry): Promise<void> {
    await this.store.drop(entry.seq);
    this.set(this.all().filter((e) => e.seq !== entry.seq));
    this.say({ kind: 'look' });
  }

  /** The server has a change, whoever told of it. */
  async acknowledge(entry: OutboxEntry, revision: number): Promise<void> {
    // the server answers: what waits need not wait on
    this.failures = 0;
    this.go();
    await this.store.kept(entry, revision);
    this.set(this.all().filter((e) => e.seq !== entry.seq));
    if (this.waiting().length === 0) this.go();
    for (const sha256 of filesOf(entry)) await this.store.dropFile(sha256);
    this.say({ kind: 'kept', seq: entry.seq, revision });
  }

  /** Tries again now, if it was waiting to. */
  hurry(): void {
    this.failures = 0;
    if (!this.go()) this.pump();
  }

  /** Says that the server does not answer, or no longer knows the session, as something else has found out. */
  tell(kind: 'sending' | 'offline' | 'signed-out'): void {
    if (kind === 'sending' && this.sync$.value.kind === 'offline' && this.failures > 0) return;
    this.sync$.next({ kind, waiting: this.waiting().length + this.storing });
  }

  /** Says that all is kept, if it is. */
  settled(): void {
    if (this.pumping !== null || this.sync$.value.kind === 'signed-out') return;
    if (this.waiting().length === 0 && this.storing === 0 && this.failures === 0) this.sync$.next({ kind: 'kept', at: new Date() });
  }

  pump(): void {
    this.pumping ??= this.sendAll().finally(() => {
      this.pumping = null;
      this.settled();
      // what came in between the last look and here would else wait for the next act
      if (this.maySend() && this.waiting().length > 0) this.pump();
    });
  }

  private maySend(): boolean {
    return this.session.person !== null && this.sync$.value.kind !== 'signed-out';
  }

  /** Sends in order until nothing waits or the session has ended. While it waits to try again another tab may send. */
  private async sendAll(): Promise<void> {
    while (this.maySend() && this.waiting().length > 0) {
      this.tell('sending');
      if (await alone(() => this.sendWhatWaits())) return;
      if (this.waiting().length > 0) await this.wait(RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)]!);
    }
    // what failed may have been told of as kept meanwhile: nothing is left to fail
    if (this.waiting().length === 0) this.failures = 0;
  }

  /** False when the server did not answer. */
  private async sendWhatWaits(): Promise<boolean> {
    // what another tab has sent meanwhile is gone
    await this.look();
    for (;;) {
      const entry = this.waiting()[0];
      if (!entry || !this.maySend()) return true;
      const refusal = await this.sendOne(entry);
      // when its answer was lost the stream may have told of it meanwhile
      if (refusal === null || !this.all().some((e) => e.seq === entry.seq)) this.failures = 0;
      else if (refusal.code === 'signed-out' || refusal.code === 'cross-site') {
        this.session.ended();
        this.tell('signed-out');
        return true;
      } else if (this.failsAgain(entry, refusal)) {
        this.failures = 0;
        await this.refuse(entry, { ...refusal, message: `${SET_ASIDE} ${refusal.message}` });
      } else if (isPassing(refusal) || refusal.code === 'not-understood') {
        // an answer that this page does not understand is no refusal: it waits until the page is loaded again
        this.tell('offline');
        return false;
      } else await this.refuse(entry, refusal);
    }
  }

  /** True when the server failed on the same change the same way several times: it must not hold back what waits behind it. */
  private failsAgain({ change }: OutboxEntry, { code, message }: Refusal): boolean {
    if (code !== 'failed') return false;
    const before = this.failing?.id === change.id && this.failing.message === message ? this.failing.times : 0;
    this.failing = { id: change.id, message, times: before + 1 };
    return this.failing.times >= MOST_FAILURES;
  }

  /** Null once the change is kept. */
  private async sendOne(entry: OutboxEntry): Promise<Refusal | null> {
    const files = await Promise.all(filesOf(entry).map(async (sha256) => ({ sha256, file: await this.store.file(sha256) })));
    let revision: number;
    try {
      for (const { sha256, file } of files) if (file) await firstValueFrom(this.api.putFile(entry.studyId, sha256, file));
      ({ revision } = await firstValueFrom(this.api.keep(entry.studyId, entry.change)));
    } catch (refusal) {
      return refusal as Refusal;
    }
    // the stream may have told of it first
    if (this.all().some((e) => e.seq === entry.seq)) {
      this.told$.next({ kind: 'kept', entry, revision });
      await this.acknowledge(entry, revision);
    }
    return null;
  }

  private async refuse(entry: OutboxEntry, refusal: Refusal): Promise<void> {
    const refused = await this.store.refuse(entry, refusal);
    this.set(this.all().map((e) => (e.seq === entry.seq ? refused : e)));
    this.told$.next({ kind: 'refused', entry: refused });
    this.say({ kind: 'look' });
  }

  private set(entries: readonly OutboxEntry[]): void {
    this.all.set(entries);
    this.set$.next();
    const [sync, waiting] = [this.sync$.value, this.waiting().length];
    // what comes while nothing is being sent waits too, and is said to
    if ('waiting' in sync && sync.waiting !== waiting && waiting > 0) this.sync$.next({ ...sync, waiting });
  }

  // —— other tabs ——

  private say(word: Word): void {
    this.tabs?.postMessage(word);
  }

  private async hear(word: Word): Promise<void> {
    if (this.session.person === null) return;
    if (word.kind === 'kept') {
      const entry = this.all().find(({ seq }) => seq === word.seq);
      if (!entry) return;
      this.set(this.all().filter((e) => e !== entry));
      this.told$.next({ kind: 'kept', entry, revision: word.revision });
      this.settled();
      return;
    }
    await this.look();
    this.pump();
  }

  private wait(ms: number): Promise<void> {
    return new Promise((done) => {
      const go = (): void => {
        this.pause = null;
        done();
      };
      this.pause = { timer: setTimeout(go, ms), go };
    });
  }

  /** Ends a pause; false when there was none. */
  private go(): boolean {
    if (!this.pause) return false;
    clearTimeout(this.pause.timer);
    this.pause.go();
    return true;
  }
}

/** Lets one tab at a time do it; a tab that is closed meanwhile lets the next. Where the browser cannot, ids keep each change once. */
const alone = async (act: () => Promise<boolean>): Promise<boolean> => {
  const locks = (navigator as Partial<Navigator>).locks;
  return locks ? await locks.request('each-bolt outbox', act) : act();
};
