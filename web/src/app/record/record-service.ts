import { Injectable, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  applyOps,
  type Change,
  type KeptChange,
  type NetEffect,
  type Op,
  type OpKind,
  type Role,
  type StudyRecord,
} from '@each-bolt/core/record';
import type { StudyRollUp } from '@each-bolt/core/cost';
import { BehaviorSubject, Subject, firstValueFrom, type Subscription } from 'rxjs';
import { Session } from './session';
import { afterKept, effectOf, holdStudy, inverseOf, withWaiting, withoutWaiting, type HeldStudy } from './held-study';
import type { Here } from '@each-bolt/core/wire';
import { LiveStream, type Heard } from './live-stream';
import { LocalStore } from './local-store';
import type { OutboxEntry } from './stored';
import { Outbox, type Outcome, type Told } from './outbox';
import type { Person, Refusal } from '@each-bolt/core/wire';
import { RecordApi, isPassing, type ReadStudy } from './record-api';

type RecordState =
  | { readonly kind: 'reading' }
  | { readonly kind: 'failed'; readonly refusal: Refusal }
  | { readonly kind: 'ready'; readonly record: StudyRecord; readonly rollUp: StudyRollUp };

/** What became of an act: it is recorded on this device and on its way, or it cannot be. */
export type Kept = { readonly kept: true; readonly id: string } | { readonly kept: false; readonly refusal: Refusal };

interface Open {
  readonly studyId: string;
  readonly role: Role;
  readonly may: readonly OpKind[];
  readonly people: readonly Person[];
  readonly held: HeldStudy;
}

/** A stream that was refused is tried again after this. */
const FOLLOW_AGAIN_MS = 4000;
/** A study is stored whole again after this many changes. */
const STORE_AFTER = 100;

const NO_STORE: Refusal = {
  code: 'no-store',
  message:
    'This browser keeps nothing for the program (a private window, or a full disk), so that a study could lose what you record. Use an ordinary window or free some space, then try again',
  issues: [],
};

const NOT_STORED: Refusal = {
  code: 'not-stored',
  message:
    'This device could not store what you recorded (its disk may be full), so that it was taken back. Free some space, then record it again',
  issues: [],
};

const OFF: Refusal = { code: 'not-found', message: 'You were taken off this study. What you did stays in its history', issues: [] };

/**
 * The client's copy of the open study. An act is applied at once, put into the outbox of this device, and sent in order
 * when the server answers; what others change comes in as it happens. What is refused leaves the view and stays visible.
 */
/** Until the browser has nothing more pressing to do, a second at most. */
const idle = (): Promise<void> =>
  new Promise((done) => {
    if ('requestIdleCallback' in globalThis) requestIdleCallback(() => done(), { timeout: 1000 });
    else setTimeout(done);
  });

@Injectable({ providedIn: 'root' })
export class RecordService {
  private readonly api = inject(RecordApi);
  private readonly store = inject(LocalStore);
  private readonly live = inject(LiveStream);
  private readonly session = inject(Session);
  private readonly outbox = inject(Outbox);

  private readonly state$ = new BehaviorSubject<RecordState>({ kind: 'reading' });
  private readonly heard$ = new Subject<Heard & { kind: 'change' }>();
  private readonly made$ = new Subject<Change>();
  private open$: Open | null = null;
  private opening = '';
  private following: Subscription | null = null;
  private logged = 0;

  readonly connection = crypto.randomUUID();
  readonly state = toSignal(this.state$, { requireSync: true });
  readonly sync = this.outbox.sync;
  /** changes of the ledger that were not made here, as they come in */
  readonly heard = this.heard$.asObservable();
  /** changes made here */
  readonly made = this.made$.asObservable();
  readonly here = signal<readonly Here[]>([]);
  private readonly openId = signal('');
  private readonly own = computed(() => this.outbox.entries().filter(({ studyId }) => studyId === this.openId()));
  /** what was not kept of this study */
  readonly refused = computed(() => this.own().filter((entry) => entry.refusal !== null));
  readonly role = signal<Role>('reader');
  readonly people = signal<readonly Person[]>([]);
  private readonly may = signal<ReadonlySet<OpKind>>(new Set());
  /** true when the role allows ops of this kind and the study is not archived */
  readonly can = computed(() => {
    const [may, state] = [this.may(), this.state()];
    const archived = state.kind === 'ready' && state.record.study.state === 'archived';
    return (kind: OpKind): boolean => may.has(kind) && (!archived || kind === 'study.edit');
  });
  /** one’s own changes of this study that wait or are being sent, oldest first */
  readonly waiting = computed<readonly Change[]>(() =>
    this.own()
      .filter((e) => e.refusal === null)
      .map((e) => e.change),
  );

  constructor() {
    this.outbox.told.subscribe((told) => {
      if (told.entry.studyId === this.open$?.studyId) void this.became(told);
    });
    const followAgain = (): void => {
      if (this.open$ && this.following?.closed) this.follow();
    };
    addEventListener('online', followAgain);
    this.session.changes.subscribe(({ kind }) => {
      if (kind === 'in') followAgain();
    });
  }

  get studyId(): string {
    return this.open$?.studyId ?? '';
  }

  /** Opens a study: from this device at once if it is kept here, then from the server, then as it changes. */
  async open(studyId: string): Promise<void> {
    this.close();
    this.opening = studyId;
    this.state$.next({ kind: 'reading' });
    this.openId.set(studyId);
    const kept = await Promise.all([this.store.study(studyId), this.outbox.look()]).catch(() => null);
    if (this.opening !== studyId) return;
    if (!kept) {
      this.state$.next({ kind: 'failed', refusal: NO_STORE });
      return;
    }
    const [local] = kept;
    if (local) {
      const { record, role, may, people } = { ...local.stored };
      const base = local.log.reduce(
        (now, { ops, revision }) => (revision === now.revision + 1 ? applyOps(now, ops, revision) : now),
        record,
      );
      this.show({ studyId, role, may, people, held: holdStudy(base, this.waiting()) });
    }
    await this.readFromServer(studyId);
    if (this.opening === studyId && this.open$) {
      this.follow();
      this.outbox.pump();
    }
  }

  close(): void {
    this.following?.unsubscribe();
    this.following = null;
    this.opening = '';
    this.open$ = null;
    this.here.set([]);
  }

  /** Records ops as one change. */
  async send(
    ops: readonly Op[],
    { typed = '', undoes = null }: { readonly typed?: string; readonly undoes?: string | null } = {},
  ): Promise<Kept> {
    const [open, person] = [this.open$, this.session.person];
    if (!open || !person)
      return { kept: false, refusal: { code: 'signed-out', message: 'Sign in first; nothing was written', issues: [] } };
    const { issues } = effectOf(open.held, ops);
    if (issues.length > 0)
      return { kept: false, refusal: { code: 'invalid', message: 'This does not fit the record. Nothing was written', issues } };
    const change: Change = { id: crypto.randomUUID(), ops, undoes };
    const inverse = inverseOf(open.held, ops);
    this.show({ ...open, held: withWaiting(open.held, change.id, ops) });
    this.made$.next(change);
    const [personId, madeAt] = [person.id, new Date().toISOString()];
    try {
      await this.outbox.add({ studyId: open.studyId, personId, change, inverse, madeAt, typed, refusal: null });
    } catch {
      this.withdraw(change.id);
      return { kept: false, refusal: NOT_STORED };
    }
    return { kept: true, id: change.id };
  }

  /** What becomes of a change that was recorded here, as soon as it is known. */
  outcome(changeId: string): Promise<Outcome> {
    return this.outbox.outcome(changeId);
  }

  /** What ops would come to on what people see now. */
  effectOf(ops: readonly Op[]): NetEffect | null {
    return this.open$ && effectOf(this.open$.held, ops);
  }

  /** Gives up a change that was refused. */
  drop(entry: OutboxEntry): Promise<void> {
    return this.outbox.drop(entry);
  }

  /** Says which part is open here, so that others see it. */
  async tellWhere(partId: string | null): Promise<void> {
    if (this.studyId === '' || this.sync().kind === 'offline') return;
    // where somebody is matters only while it can be told; nothing is lost when it cannot
    await firstValueFrom(this.api.here(this.studyId, this.connection, partId)).catch(() => undefined);
  }

  private async readFromServer(studyId: string): Promise<void> {
    try {
      // who the people are does not wait for the study, which may be large
      const [read, people] = await Promise.all([firstValueFrom(this.api.study(studyId)), firstValueFrom(this.api.people())]);
      if (this.opening !== studyId) return;
      this.show({ studyId, role: read.role, may: read.may, people, held: holdStudy(read.record, this.waiting()) });
      // what is shown is drawn first; the copy for the next visit can wait for that
      await idle();
      await this.storeWhole();
      this.outbox.settled();
    } catch (refusal) {
      await this.notRead(studyId, refusal as Refusal);
    }
  }

  private async notRead(studyId: string, refusal: Refusal): Promise<void> {
    if (this.opening !== studyId) return;
    if (refusal.code === 'signed-out') this.session.ended();
    if (refusal.code === 'not-found') await this.store.forget(studyId);
    if (this.open$ && (isPassing(refusal) || refusal.code === 'signed-out'))
      this.outbox.tell(refusal.code === 'signed-out' ? 'signed-out' : 'offline');
    else {
      this.open$ = null;
      this.state$.next({ kind: 'failed', refusal });
    }
  }

  private show(open: Open): void {
    this.open$ = open;
    this.role.set(open.role);
    this.people.set(open.people);
    this.may.set(new Set(open.may));
    const { view, rollUp } = open.held;
    const state = this.state$.value;
    if (state.kind !== 'ready' || state.record !== view) this.state$.next({ kind: 'ready', record: view, rollUp });
  }

  // —— what others do ——

  private follow(): void {
    const { studyId, held } = this.open$!;
    this.following?.unsubscribe();
    this.following = this.live.follow(studyId, held.base.revision, this.connection).subscribe({
      next: (heard) => void this.hear(heard),
      complete: () => this.followLater(studyId),
    });
  }

  /** The stream was refused for good: asks why (a session that ended says so), and follows again after a while. */
  private followLater(studyId: string): void {
    void this.catchUp();
    setTimeout(() => {
      if (this.open$?.studyId === studyId && this.state$.value.kind === 'ready' && this.session.person) this.follow();
    }, FOLLOW_AGAIN_MS);
  }

  private async hear(heard: Heard): Promise<void> {
    if (heard.kind === 'here') this.here.set(heard.here);
    else if (heard.kind === 'open') this.outbox.hurry();
    else if (heard.kind === 'lost') {
      this.here.set([]);
      this.outbox.tell('offline');
    } else if (heard.kind === 'off') {
      await this.store.forget(this.studyId);
      this.close();
      this.state$.next({ kind: 'failed', refusal: OFF });
    } else if (heard.kind === 'large') {
      if (this.open$ && heard.revision > this.open$.held.base.revision) await this.catchUp();
    } else await this.take(heard.change);
  }

  /** Takes in a change of the ledger: one's own is thereby acknowledged. */
  private async take(change: Omit<KeptChange, 'inverse'>): Promise<void> {
    const open = this.open$;
    if (!open || change.revision <= open.held.base.revision) return;
    if (change.revision > open.held.base.revision + 1) {
      await this.catchUp();
      return;
    }
    const own = this.outbox.entries().find((e) => e.change.id === change.id);
    this.show({ ...open, held: afterKept(open.held, change.id, change.ops, change.revision) });
    if (own) await this.outbox.acknowledge(own, change.revision);
    else {
      await this.store.logChange({ studyId: open.studyId, revision: change.revision, ops: change.ops });
      this.heard$.next({ kind: 'change', change });
    }
    await this.afterLogging();
    this.outbox.settled();
  }

  private async catchUp(): Promise<void> {
    const open = this.open$;
    if (!open) return;
    try {
      // they come in portions; the last one is empty
      for (let before = -1; this.open$?.studyId === open.studyId && this.open$.held.base.revision > before;) {
        before = this.open$.held.base.revision;
        for (const change of await firstValueFrom(this.api.changesSince(open.studyId, before))) await this.take(change);
      }
    } catch (refusal) {
      // the stream connects again and tells of what was missed
      if (isPassing(refusal as Refusal)) this.outbox.tell('offline');
      else await this.notRead(open.studyId, refusal as Refusal);
    }
  }

  /** Shows what became of a change that waited here, or that another tab has recorded. */
  private async became(told: Told): Promise<void> {
    const { change } = told.entry;
    const open = this.open$!;
    if (told.kind === 'refused') this.withdraw(change.id);
    else if (told.kind === 'added') {
      if (told.entry.refusal === null) this.show({ ...open, held: withWaiting(open.held, change.id, change.ops) });
    } else if (told.revision <= open.held.base.revision) {
      // already part of the base by way of the server’s whole record
      this.withdraw(change.id);
    } else if (told.revision === open.held.base.revision + 1) {
      this.show({ ...open, held: afterKept(open.held, change.id, change.ops, told.revision) });
      await this.afterLogging();
    } else await this.catchUp();
  }

  private withdraw(changeId: string): void {
    if (this.open$) this.show({ ...this.open$, held: withoutWaiting(this.open$.held, changeId) });
  }

  private async afterLogging(): Promise<void> {
    this.logged += 1;
    if (this.logged >= STORE_AFTER) await this.storeWhole();
  }

  private async storeWhole(): Promise<void> {
    const open = this.open$;
    if (!open) return;
    this.logged = 0;
    const read: ReadStudy = { record: open.held.base, role: open.role, may: open.may };
    await this.store.storeStudy(open.studyId, read, open.people);
  }
}
