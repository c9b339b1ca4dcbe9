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
import { Session } from '../people/session';
import { afterKept, effectOf, holdStudy, inverseOf, withWaiting, withoutWaiting, type HeldStudy } from './held-study';
import { LiveStream, type Heard, type Here } from './live-stream';
import { LocalStore, type OutboxEntry } from './local-store';
import { RecordApi, isPassing, type Person, type ReadStudy, type Refusal } from './record-api';

export type RecordState =
  | { readonly kind: 'reading' }
  | { readonly kind: 'failed'; readonly refusal: Refusal }
  | { readonly kind: 'ready'; readonly record: StudyRecord; readonly rollUp: StudyRollUp };

/** What became of an act: it is recorded on this device and on its way, or it cannot be. */
export type Kept = { readonly kept: true; readonly id: string } | { readonly kept: false; readonly refusal: Refusal };

/** How this device stands to the server, for the basis line. */
export type SyncState =
  | { readonly kind: 'sending'; readonly waiting: number }
  | { readonly kind: 'kept'; readonly at: Date | null }
  /** the server does not answer; what is recorded waits here */
  | { readonly kind: 'offline'; readonly waiting: number }
  | { readonly kind: 'signed-out'; readonly waiting: number };

interface Open {
  readonly studyId: string;
  readonly role: Role;
  readonly may: readonly OpKind[];
  readonly people: readonly Person[];
  readonly held: HeldStudy;
}

const RETRY_MS = [500, 1000, 2000, 4000, 8000, 15_000];
/** So often the server may fail on one change in the same way before it is set aside. */
const MOST_FAILURES = 4;
const SET_ASIDE = `The server failed on this ${MOST_FAILURES} times; it was set aside so that what you recorded after it could go on.`;
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
@Injectable({ providedIn: 'root' })
export class RecordService {
  private readonly api = inject(RecordApi);
  private readonly store = inject(LocalStore);
  private readonly live = inject(LiveStream);
  private readonly session = inject(Session);

  private readonly state$ = new BehaviorSubject<RecordState>({ kind: 'reading' });
  private readonly sync$ = new BehaviorSubject<SyncState>({ kind: 'kept', at: null });
  private readonly heard$ = new Subject<Heard & { kind: 'change' }>();
  private readonly made$ = new Subject<Change>();
  private open$: Open | null = null;
  private opening = '';
  private outbox: readonly OutboxEntry[] = [];
  private following: Subscription | null = null;
  private pumping: Promise<void> | null = null;
  private pause: { readonly timer: ReturnType<typeof setTimeout>; readonly go: () => void } | null = null;
  private failures = 0;
  /** the change the server failed on last, and how often */
  private failing: { readonly id: string; readonly message: string; readonly times: number } | null = null;
  private logged = 0;

  readonly connection = crypto.randomUUID();
  readonly state = toSignal(this.state$, { requireSync: true });
  readonly sync = toSignal(this.sync$, { requireSync: true });
  /** changes of the ledger that were not made here, as they come in */
  readonly heard = this.heard$.asObservable();
  /** changes made here */
  readonly made = this.made$.asObservable();
  readonly here = signal<readonly Here[]>([]);
  readonly refused = signal<readonly OutboxEntry[]>([]);
  readonly role = signal<Role>('reader');
  readonly people = signal<readonly Person[]>([]);
  private readonly may = signal<ReadonlySet<OpKind>>(new Set());
  /** true when the role allows ops of this kind and the study is not archived */
  readonly can = computed(() => {
    const [may, state] = [this.may(), this.state()];
    const archived = state.kind === 'ready' && state.record.study.state === 'archived';
    return (kind: OpKind): boolean => may.has(kind) && (!archived || kind === 'study.edit');
  });
  /** one’s own changes that wait or are being sent, oldest first */
  readonly waiting = signal<readonly Change[]>([]);

  constructor() {
    addEventListener('online', () => this.hurry());
    this.session.changes.subscribe(({ kind }) => {
      if (kind !== 'in') return;
      if (this.sync$.value.kind === 'signed-out') this.sync$.next({ kind: 'kept', at: null });
      this.setOutbox(this.outbox);
      this.hurry();
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
    const kept = await Promise.all([this.store.study(studyId), this.store.outbox(studyId)]).catch(() => null);
    if (this.opening !== studyId) return;
    if (!kept) {
      this.state$.next({ kind: 'failed', refusal: NO_STORE });
      return;
    }
    const [local, outbox] = kept;
    this.setOutbox(outbox);
    if (local) {
      const { record, role, may, people } = { ...local.stored };
      const base = local.log.reduce(
        (now, { ops, revision }) => (revision === now.revision + 1 ? applyOps(now, ops, revision) : now),
        record,
      );
      this.show({ studyId, role, may, people, held: holdStudy(base, this.mine()) });
    }
    await this.readFromServer(studyId);
    if (this.opening === studyId && this.open$) {
      this.follow();
      this.pump();
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
    this.storing += 1;
    // what people see already is not kept, and is not said to be, while this device is still storing it
    if (this.sync$.value.kind === 'kept') this.tell('sending');
    this.made$.next(change);
    const [personId, madeAt] = [person.id, new Date().toISOString()];
    const adding = this.store.add({ studyId: open.studyId, personId, change, inverse, madeAt, typed, refusal: null });
    const added = this.added.then(async () => {
      const entry = await adding;
      if (this.open$?.studyId === entry.studyId) this.setOutbox([...this.outbox, entry]);
    });
    // one that this device could not store must not stand in the way of the next
    this.added = added.catch(() => undefined);
    try {
      await added;
    } catch {
      if (this.open$) this.show({ ...this.open$, held: withoutWaiting(this.open$.held, change.id) });
      return { kept: false, refusal: NOT_STORED };
    } finally {
      this.storing -= 1;
      this.settled();
    }
    this.pump();
    return { kept: true, id: change.id };
  }

  private added: Promise<void> = Promise.resolve();
  /** changes that this device has not stored yet */
  private storing = 0;

  /** What ops would come to on what people see now. */
  effectOf(ops: readonly Op[]): NetEffect | null {
    return this.open$ && effectOf(this.open$.held, ops);
  }

  /** Gives up a change that was refused. */
  async drop(entry: OutboxEntry): Promise<void> {
    await this.store.drop(entry.seq);
    this.setOutbox(this.outbox.filter((e) => e.seq !== entry.seq));
  }

  /** Says which piece is open here, so that others see it. */
  async tellWhere(pieceId: string | null): Promise<void> {
    if (this.studyId === '' || this.sync$.value.kind === 'offline') return;
    // where somebody is matters only while it can be told; nothing is lost when it cannot
    await firstValueFrom(this.api.here(this.studyId, this.connection, pieceId)).catch(() => undefined);
  }

  private async readFromServer(studyId: string): Promise<void> {
    try {
      const [read, people] = [await firstValueFrom(this.api.study(studyId)), await firstValueFrom(this.api.people())];
      if (this.opening !== studyId) return;
      this.failures = 0;
      this.show({ studyId, role: read.role, may: read.may, people, held: holdStudy(read.record, this.mine()) });
      await this.storeWhole();
      this.settled();
    } catch (refusal) {
      await this.notRead(studyId, refusal as Refusal);
    }
  }

  private async notRead(studyId: string, refusal: Refusal): Promise<void> {
    if (this.opening !== studyId) return;
    if (refusal.code === 'signed-out') this.session.ended();
    if (refusal.code === 'not-found') await this.store.forget(studyId);
    if (this.open$ && (isPassing(refusal) || refusal.code === 'signed-out'))
      this.tell(refusal.code === 'signed-out' ? 'signed-out' : 'offline');
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

  /** The changes of whoever is signed in that wait to be sent. */
  private mine(): readonly Change[] {
    return this.outbox.filter((e) => e.refusal === null && e.personId === this.session.person?.id).map((e) => e.change);
  }

  private setOutbox(outbox: readonly OutboxEntry[]): void {
    this.outbox = outbox;
    this.refused.set(outbox.filter((e) => e.refusal !== null));
    const mine = this.mine();
    this.waiting.set(mine);
    const sync = this.sync$.value;
    // what comes while nothing is being sent waits too, and is said to
    if ('waiting' in sync && sync.waiting !== mine.length && mine.length > 0) this.sync$.next({ ...sync, waiting: mine.length });
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
    }, RETRY_MS[3]);
  }

  private async hear(heard: Heard): Promise<void> {
    if (heard.kind === 'here') this.here.set(heard.here);
    else if (heard.kind === 'open') this.hurry();
    else if (heard.kind === 'lost') {
      this.here.set([]);
      this.tell('offline');
    } else if (heard.kind === 'off') {
      await this.store.forget(this.studyId);
      this.close();
      this.state$.next({ kind: 'failed', refusal: OFF });
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
    const own = this.outbox.find((e) => e.change.id === change.id);
    this.show({ ...open, held: afterKept(open.held, change.id, change.ops, change.revision) });
    if (own) await this.acknowledge(own, change.revision);
    else {
      await this.store.logChange({ studyId: open.studyId, revision: change.revision, ops: change.ops });
      this.heard$.next({ kind: 'change', change });
    }
    await this.afterLogging();
    this.settled();
  }

  private async catchUp(): Promise<void> {
    const open = this.open$;
    if (!open) return;
    try {
      const changes = await firstValueFrom(this.api.changesSince(open.studyId, open.held.base.revision));
      for (const change of changes) await this.take(change);
    } catch (refusal) {
      // the stream connects again and tells of what was missed
      if (isPassing(refusal as Refusal)) this.tell('offline');
      else await this.notRead(open.studyId, refusal as Refusal);
    }
  }

  private async acknowledge(entry: OutboxEntry, revision: number): Promise<void> {
    // whoever told of it, the server answers: what waits need not wait on
    this.failures = 0;
    if (this.pause) {
      clearTimeout(this.pause.timer);
      this.pause.go();
    }
    this.setOutbox(this.outbox.filter((e) => e.seq !== entry.seq));
    await this.store.kept(entry, revision);
    for (const op of entry.change.ops) if (op.kind === 'picture.add' || op.kind === 'scan.add') await this.store.dropFile(op.fields.sha256);
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

  // —— what is sent ——

  /** Tries again now, if it was waiting to. */
  private hurry(): void {
    this.failures = 0;
    if (this.pause) {
      clearTimeout(this.pause.timer);
      this.pause.go();
    } else this.pump();
    if (this.open$ && this.following?.closed) this.follow();
  }

  private pump(): void {
    this.pumping ??= this.sendAll().finally(() => {
      this.pumping = null;
      this.settled();
      // what came in between the last look and here would else wait for the next act
      if (this.sync$.value.kind !== 'signed-out' && this.waiting().length > 0 && this.open$) this.pump();
    });
  }

  private async sendAll(): Promise<void> {
    for (;;) {
      const personId = this.session.person?.id;
      const entry = this.outbox.find((e) => e.refusal === null && e.personId === personId);
      if (!entry || !this.open$) return;
      this.tell('sending');
      const refusal = await this.sendOne(entry);
      // when its answer was lost the stream may have told of it meanwhile
      if (refusal === null || !this.outbox.some((e) => e.seq === entry.seq)) this.failures = 0;
      else if (refusal.code === 'signed-out' || refusal.code === 'cross-site') {
        this.session.ended();
        this.tell('signed-out');
        return;
      } else if (this.failsAgain(entry, refusal)) {
        this.failures = 0;
        await this.refuse(entry, { ...refusal, message: `${SET_ASIDE} ${refusal.message}` });
      } else if (isPassing(refusal)) {
        this.tell('offline');
        await this.wait(RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)]!);
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

  private wait(ms: number): Promise<void> {
    return new Promise((done) => {
      const go = (): void => {
        this.pause = null;
        done();
      };
      this.pause = { timer: setTimeout(go, ms), go };
    });
  }

  /** Null once the change is kept. */
  private async sendOne(entry: OutboxEntry): Promise<Refusal | null> {
    try {
      await this.sendFiles(entry);
      const { revision } = await firstValueFrom(this.api.keep(entry.studyId, entry.change));
      // the stream may have told of it first
      if (this.outbox.some((e) => e.seq === entry.seq)) await this.takeOwn(entry, revision);
      return null;
    } catch (refusal) {
      return refusal as Refusal;
    }
  }

  private async sendFiles({ change, studyId }: OutboxEntry): Promise<void> {
    for (const op of change.ops) {
      if (op.kind !== 'picture.add' && op.kind !== 'scan.add') continue;
      const file = await this.store.file(op.fields.sha256);
      if (file) await firstValueFrom(this.api.putFile(studyId, op.fields.sha256, file));
    }
  }

  private async takeOwn(entry: OutboxEntry, revision: number): Promise<void> {
    const { change, personId } = entry;
    const base = this.open$?.held.base.revision ?? 0;
    if (revision <= base) {
      // already part of the base by way of the server’s whole record
      if (this.open$) this.show({ ...this.open$, held: withoutWaiting(this.open$.held, change.id) });
      await this.acknowledge(entry, revision);
      return;
    }
    await this.take({ ...change, revision, madeAt: '', madeBy: '', personId, device: '' });
  }

  private async refuse(entry: OutboxEntry, refusal: Refusal): Promise<void> {
    const refused = await this.store.refuse(entry, refusal);
    this.setOutbox(this.outbox.map((e) => (e.seq === entry.seq ? refused : e)));
    if (this.open$) this.show({ ...this.open$, held: withoutWaiting(this.open$.held, entry.change.id) });
  }

  private tell(kind: 'sending' | 'offline' | 'signed-out'): void {
    const waiting = this.waiting().length + this.storing;
    if (kind === 'sending' && this.sync$.value.kind === 'offline' && this.failures > 0) return;
    this.sync$.next({ kind, waiting });
  }

  private settled(): void {
    if (this.pumping !== null || this.sync$.value.kind === 'signed-out') return;
    if (this.waiting().length === 0 && this.storing === 0 && this.failures === 0) this.sync$.next({ kind: 'kept', at: new Date() });
  }
}
