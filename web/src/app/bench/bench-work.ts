import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Issue } from '@each-bolt/core/shared';
import {
  editOp,
  type Op,
  type Place,
  type Session,
  type SessionFields,
  type Step,
  type WorkPackage,
  nextSequence,
} from '@each-bolt/core/record';
import {
  countLeftOut,
  confirmCarried,
  dropCarried,
  isElsewhere,
  isPaused,
  lineChange,
  precautionsOf,
  saidOf,
  sessionLosses,
  shownS,
  startClock,
  stepsOf,
  tickClock,
  wordBook,
  type Entry,
  type Loss,
  type WorkClock,
} from '@each-bolt/core/bench';
import { interval } from 'rxjs';
import { Session as SignedIn } from '../record/session';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { todayHere } from '../record/when';
import type { Elsewhere, ElsewhereAnswer } from './elsewhere-question';

/** Ten minutes without a sign of work, and the clock stands. */
const PAUSE_AFTER_S = 600;

type LinesKept =
  | { readonly kept: true; readonly partId: string | null }
  /** put back to be typed on: nobody refused it */
  | { readonly kept: false; readonly line: number; readonly refusal: null }
  | { readonly kept: false; readonly line: number; readonly refusal: Refusal };

const refusalOf = (code: string, message: string, issues: readonly Issue[] = []): Refusal => ({ code, message, issues });

/** The session that is open at this bench: its clock, its steps, what must be done before the next one. */
@Injectable({ providedIn: 'root' })
export class BenchWork {
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  private readonly service = inject(RecordService);
  private readonly signedIn = inject(SignedIn);

  /** id of the session this bench works in; kept over a reload */
  private readonly sessionId = signal('');
  private readonly clock = signal<WorkClock | null>(null);
  private readonly now = toSignal(interval(1000), { initialValue: 0 });
  /** the part that is on its way to the server: what is typed next belongs to it */
  private onItsWay: string | null = null;
  /** why the next step is recorded without all precautions */
  readonly otherwise = signal('');

  readonly mayRecord = computed(() => this.service.can()('part.add'));
  readonly session = computed<Session | null>(() => {
    const session = this.open.record().sessions.find((s) => s.id === this.sessionId());
    return session?.closedAt === null ? session : null;
  });
  /** sessions somebody opened and nobody closed */
  readonly openSessions = computed(() => this.open.record().sessions.filter((s) => s.closedAt === null));
  readonly pack = computed<WorkPackage | null>(() => this.open.record().packages.find((p) => p.id === this.session()?.packageId) ?? null);
  readonly steps = computed<readonly Step[]>(() => {
    const session = this.session();
    return session ? stepsOf(this.open.record().steps, session.vehicleId) : [];
  });
  readonly ownSteps = computed(() => this.steps().filter((s) => s.sessionId === this.session()?.id));
  readonly precautions = computed(() => precautionsOf(this.open.record(), this.session()));
  readonly losses = computed(() => {
    const session = this.session();
    return session ? sessionLosses(this.open.record(), session) : [];
  });
  readonly book = computed(() => wordBook(this.open.record()));
  readonly clockS = computed(() => {
    this.now();
    const [clock, session] = [this.clock(), this.session()];
    return clock && session ? shownS(clock, Date.now(), session.pauseAfterS) : 0;
  });
  readonly paused = computed(() => {
    this.now();
    const [clock, session] = [this.clock(), this.session()];
    return clock !== null && session !== null && isPaused(clock, Date.now(), session.pauseAfterS);
  });
  readonly leftOutS = computed(() => this.clock()?.leftOutS ?? 0);

  constructor() {
    effect(() => {
      const studyId = this.open.study().id;
      untracked(() => this.recall(studyId));
    });
  }

  private recall(studyId: string): void {
    // what was asked of another study is answered with nothing kept
    this.answerElsewhere('back');
    this.elsewhereToo.set('');
    const [id = '', clock] = (localStorage.getItem(`bench ${studyId}`) ?? '').split(' ');
    this.sessionId.set(id);
    try {
      this.clock.set(clock ? (JSON.parse(decodeURIComponent(clock)) as WorkClock) : null);
    } catch {
      // a clock that cannot be read starts anew; the times of the steps are in the record
      this.clock.set(null);
    }
  }

  private store(): void {
    const clock = this.clock();
    localStorage.setItem(`bench ${this.open.study().id}`, `${this.sessionId()} ${clock ? encodeURIComponent(JSON.stringify(clock)) : ''}`);
  }

  /** A sign of work: a key, a reading, a tag. */
  touch(): void {
    const session = this.session();
    if (!session) return;
    this.clock.update((clock) => tickClock(clock ?? startClock(Date.now()), Date.now(), session.pauseAfterS));
  }

  /** The time that was left out was work after all. */
  countLeftOut(): void {
    this.clock.update((clock) => clock && countLeftOut(clock));
    this.store();
  }

  async begin(pack: WorkPackage | null): Promise<Refusal | null> {
    const vehicleId = pack?.vehicleId ?? this.selection.vehicle()?.id;
    if (!vehicleId) return refusalOf('no-vehicle', 'The study has no vehicle yet');
    const subsystemId = pack?.subsystemId ?? this.selection.subsystem()?.id ?? null;
    const { sessions } = this.open.record();
    const id = crypto.randomUUID();
    const name = pack?.name ?? `Bench work on ${this.open.subsystemById().get(subsystemId ?? '')?.name ?? 'the vehicle'}`;
    const fields: SessionFields = {
      sequence: nextSequence(sessions),
      name,
      packageId: pack?.id ?? null,
      vehicleId,
      subsystemId,
      remover: '',
      recorder: this.signedIn.person?.name ?? '',
      openedAt: new Date().toISOString(),
      closedAt: null,
      pauseAfterS: PAUSE_AFTER_S,
      acknowledged: [],
      waived: [],
      note: '',
    };
    const started = pack?.startedOn === null ? editOp('package', pack, { startedOn: todayHere() }) : null;
    const result = await this.service.send([{ kind: 'session.add', id, fields }, ...(started ? [started] : [])]);
    if (!result.kept) return result.refusal;
    await this.enter(id, vehicleId, subsystemId);
    return null;
  }

  /** Goes on with a session that is open. */
  async goOn(session: Session): Promise<void> {
    await this.enter(session.id, session.vehicleId, session.subsystemId);
  }

  private async enter(id: string, vehicle: string, subsystem: string | null): Promise<void> {
    this.sessionId.set(id);
    this.clock.set(startClock(Date.now()));
    this.otherwise.set('');
    this.store();
    await this.selection.choose({ vehicle, ...(subsystem === null ? {} : { subsystem }), inside: null, part: null });
  }

  /** Leaves the session open for later, or for another bench. */
  leave(): void {
    this.sessionId.set('');
    this.clock.set(null);
    this.store();
  }

  async close(): Promise<Refusal | null> {
    const session = this.session();
    if (!session) return null;
    const refusal = await this.edit({ closedAt: new Date().toISOString() });
    if (refusal === null) this.leave();
    return refusal;
  }

  /** Edits the open session. */
  async edit(fields: Partial<SessionFields>): Promise<Refusal | null> {
    const session = this.session();
    const op = session && editOp('session', session, fields);
    if (!op) return null;
    const result = await this.service.send([op]);
    return result.kept ? null : result.refusal;
  }

  /** Remover and recorder change places. */
  handOver(): Promise<Refusal | null> {
    const session = this.session();
    return session ? this.edit({ remover: session.recorder, recorder: session.remover }) : Promise.resolve(null);
  }

  acknowledge(hazard: string): Promise<Refusal | null> {
    const session = this.session();
    if (!session) return Promise.resolve(null);
    const read = { hazard, by: this.signedIn.person?.name ?? '', at: new Date().toISOString() };
    return this.edit({ acknowledged: [...session.acknowledged.filter((a) => a.hazard !== hazard), read] });
  }

  /** What stays so is kept with its reason. */
  waive(losses: readonly Loss[], reason: string): Promise<Refusal | null> {
    const session = this.session();
    if (!session) return Promise.resolve(null);
    const by = this.signedIn.person?.name ?? '';
    return this.edit({ waived: [...session.waived, ...losses.map(({ check, aboutId }) => ({ check, aboutId, reason, by }))] });
  }

  /** One tool for removals that name none. */
  setTool(stepIds: readonly string[], tool: string): Promise<Refusal | null> {
    const ops = this.steps().flatMap((s) => (stepIds.includes(s.id) ? (editOp('step', s, saidOf(s, { tool })) ?? []) : []));
    return this.send(ops);
  }

  /** a line that is not of the place of the session, until somebody says where it goes */
  readonly elsewhere = signal<Elsewhere | null>(null);
  private answers: ((answer: ElsewhereAnswer) => void)[] = [];
  /** the place at which this session was told to keep lines all the same */
  private readonly elsewhereToo = signal('');

  answerElsewhere(answer: ElsewhereAnswer): void {
    this.elsewhere.set(null);
    if (answer === 'here') this.elsewhereToo.set(this.placeKey());
    for (const told of this.answers.splice(0)) told(answer);
  }

  private placeKey(): string {
    return `${this.sessionId()} ${this.selection.vehicle()?.id ?? ''} ${this.selection.subsystem()?.id ?? ''}`;
  }

  /** Where lines of another vehicle or subsystem than that of the session go: somebody says so. */
  private async askElsewhere(typed: string): Promise<ElsewhereAnswer> {
    const [session, place] = [this.session(), this.place()];
    if (!session || !place || !isElsewhere(this.open.record(), session, place) || this.elsewhereToo() === this.placeKey()) return 'here';
    const called = (vehicleId: string, subsystemId: string | null): string =>
      [this.open.subsystemById().get(subsystemId ?? '')?.name, this.open.record().vehicles.find((v) => v.id === vehicleId)?.name]
        .filter((name) => name !== undefined)
        .join(' of ');
    this.elsewhere.set({
      typed,
      here: called(place.vehicleId, this.selection.subsystem()?.id ?? null),
      there: called(session.vehicleId, session.subsystemId),
      isOtherVehicle: place.vehicleId !== session.vehicleId,
    });
    const answer = await new Promise<ElsewhereAnswer>((told) => this.answers.push(told));
    if (answer === 'there') {
      const subsystem = session.subsystemId;
      await this.selection.choose({ vehicle: session.vehicleId, ...(subsystem === null ? {} : { subsystem }), inside: null, part: null });
    }
    return answer;
  }

  /** What the last removal took over from the one before does not hold for it. */
  async dropCarried(): Promise<Refusal | null> {
    const last = this.lastStep();
    return last ? this.send(dropCarried(last)) : null;
  }

  /** What was carried over into these removals holds for them. */
  confirmCarried(stepIds: readonly string[]): Promise<Refusal | null> {
    return this.send(confirmCarried(this.steps().filter((s) => stepIds.includes(s.id))));
  }

  /** Keeps lines as one change. */
  async keep(entries: readonly Entry[], typed: string): Promise<LinesKept> {
    const session = this.session();
    const needs =
      session !== null && entries.some((e) => e.kind === 'part') && !this.precautions().isClear && this.otherwise().trim() === '';
    if (needs)
      return {
        kept: false,
        line: 0,
        refusal: refusalOf('precautions', 'Precautions come first: read and answer them above, or say why it is done otherwise'),
      };
    if ((await this.askElsewhere(typed)) === 'back') return { kept: false, line: 0, refusal: null };
    this.touch();
    const clock = this.clock();
    const holderId = this.onItsWay ?? this.selection.part()?.id ?? null;
    const last = this.ownSteps().at(-1);
    const change = lineChange(
      this.open.record(),
      entries,
      {
        place: this.place(),
        holderId,
        session,
        time: clock && {
          begunAt: new Date(clock.startedMs).toISOString(),
          endedAt: new Date(clock.lastMs).toISOString(),
          workedS: clock.workedS,
        },
        otherwise: this.precautions().isClear ? '' : this.otherwise().trim(),
        carries: last ?? null,
      },
      () => crypto.randomUUID(),
    );
    if (!change.ok) return { kept: false, line: change.line, refusal: refusalOf(change.code, change.message) };
    if (change.partId !== null) this.onItsWay = change.partId;
    this.clock.set(session ? startClock(Date.now()) : null);
    this.store();
    const result = await this.service.send(change.ops, { typed });
    if (result.kept && change.partId !== null) await this.selection.choose({ part: change.partId });
    if (this.onItsWay === change.partId) this.onItsWay = null;
    return result.kept ? { kept: true, partId: change.partId } : { kept: false, line: 0, refusal: result.refusal };
  }

  async send(ops: readonly Op[]): Promise<Refusal | null> {
    if (ops.length === 0) return null;
    this.touch();
    const result = await this.service.send(ops);
    return result.kept ? null : result.refusal;
  }

  private place(): Place | null {
    const vehicle = this.selection.vehicle();
    const subsystem = this.selection.subsystem();
    const inside = this.selection.inside();
    if (!vehicle || !subsystem) return null;
    return { vehicleId: vehicle.id, subsystemId: inside ? null : subsystem.id, parentId: inside?.id ?? null };
  }

  /** the last step this bench added */
  readonly lastStep = computed(() => this.ownSteps().at(-1) ?? null);
}
