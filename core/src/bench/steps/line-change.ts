import { counted } from '../../shared';
import { editOp, editTo, type Op, type Place, type Session, type Step, type StepFields, type StudyRecord } from '../../record';
import type { Entry, SetEntry, StepEntry } from '../shorthand/entry';
import { partFields, setFields } from '../shorthand/to-fields';
import { afterByNumber, carriedFrom, inStepOrder, nextStep, saidOf, stepsOf } from './step-ops';

/** What the clock says of the time since the line before. */
interface StepTime {
  /** ISO 8601, UTC */
  readonly begunAt: string;
  readonly endedAt: string;
  readonly workedS: number;
}

/** Where lines are recorded. */
export interface LinePlace {
  /** where a new part hangs; null when no subsystem is chosen */
  readonly place: Place | null;
  /** the part that sets go onto */
  readonly holderId: string | null;
  /** the open session, when there is one */
  readonly session: Session | null;
  readonly time: StepTime | null;
  /** why the precautions asked for were not all done before the next step */
  readonly otherwise: string;
  /** tool and the rest that the last step had go on in the next one until something else is said */
  readonly carries: Pick<StepFields, 'tool' | 'bit' | 'people'> | null;
}

type LineChange =
  | { readonly ok: true; readonly ops: readonly Op[]; readonly partId: string | null }
  | { readonly ok: false; readonly line: number; readonly code: string; readonly message: string };

/** A line that says how its part came off is two: the part, then its removal. */
const apart = (entry: Entry, line: number): readonly { readonly line: number; readonly entry: Entry }[] => {
  if (entry.kind === 'step' || entry.removal === undefined) return [{ line, entry }];
  const { removal, ...own } = entry;
  return [
    { line, entry: own },
    { line, entry: removal },
  ];
};

type Bench = Pick<StudyRecord, 'parts' | 'fastenerSets' | 'jointSets' | 'connections' | 'componentSets' | 'boards' | 'fluids' | 'steps'>;

interface Seen {
  readonly id: string;
  readonly partId: string;
  readonly sequence: number;
}

const SETS_OF: Readonly<Record<Exclude<SetEntry['kind'], 'board'>, (record: Bench) => readonly Seen[]>> = {
  fasteners: (record) => record.fastenerSets,
  joints: (record) => record.jointSets,
  connection: (record) => record.connections,
  components: (record) => record.componentSets,
  fluid: (record) => record.fluids,
};

/** What a step line changes of a step; the numbers of other steps become their ids. */
const stepEdit = (
  steps: readonly Step[],
  step: Step,
  entry: StepEntry,
): { readonly fields: Partial<StepFields> } | { readonly fault: string } => {
  const { kind: _kind, after, ...said } = entry;
  if (after === undefined) return { fields: said };
  const read = afterByNumber(steps, step, after);
  return read.ok ? { fields: { ...said, after: read.after } } : { fault: read.message };
};

/** A step as it grows while lines of one change are worked off. */
interface Working {
  readonly isNew: boolean;
  readonly was: Step;
  now: Step;
}

/** The steps of a session as lines change them: looked up, begun, filled in; in the end as ops. */
class LineSteps {
  private readonly known: Map<string, Step>;
  private readonly working = new Map<string, Working>();

  constructor(
    record: Bench,
    private readonly session: Session | null,
    private readonly at: LinePlace,
    private readonly newId: () => string,
  ) {
    this.known = new Map(record.steps.map((s) => [s.id, s]));
  }

  now(): readonly Step[] {
    return inStepOrder([...this.known.values()]);
  }

  /** The step in which the holder comes off; without one the last of the session. */
  current(holderId: string | null): Step | null {
    const own = holderId === null ? undefined : [...this.known.values()].find((s) => s.parts.includes(holderId));
    if (own || this.session === null) return own ?? null;
    const { id, vehicleId } = this.session;
    return (
      stepsOf(this.now(), vehicleId)
        .filter((s) => s.sessionId === id)
        .at(-1) ?? null
    );
  }

  put(step: Step, fields: Partial<StepFields>): void {
    const now = { ...step, ...fields };
    const before = this.working.get(step.id);
    this.working.set(step.id, before ? { ...before, now } : { isNew: false, was: step, now });
    this.known.set(step.id, now);
  }

  /** A part that comes off: with the part before, or in a step of its own; in none outside a session. */
  comesOff(partId: string, before: Step | null): void {
    if (this.session === null) return;
    if (before?.sessionId === this.session.id) return this.put(before, { parts: [...before.parts, partId] });
    const id = this.newId();
    const fields = { ...(this.at.carries && carriedFrom(this.at.carries)), otherwise: this.at.otherwise, parts: [partId] };
    const step: Step = { id, version: 0, ...nextStep(this.now(), this.session, fields) };
    this.working.set(id, { isNew: true, was: step, now: step });
    this.known.set(id, step);
  }

  /** The time since the line before belongs to the step the lines are about. */
  takesTime(step: Step | null): void {
    const { time } = this.at;
    if (step === null || time === null || this.session === null) return;
    if (step.sessionId !== this.session.id) return;
    this.put(step, {
      startedAt: step.startedAt ?? time.begunAt,
      endedAt: time.endedAt,
      workedS: (step.workedS ?? 0) + time.workedS,
    });
  }

  ops(): readonly Op[] {
    return [...this.working.values()].flatMap(({ isNew, was, now }): readonly Op[] => {
      const { id: _id, version: _version, ...fields } = now;
      if (isNew) return [{ kind: 'step.add', id: now.id, fields }];
      const op = editOp('step', was, fields);
      return op ? [op] : [];
    });
  }
}

/** The sets of lines, each behind those of its kind that its holder has already. */
class LineSets {
  private readonly added = new Map<string, number>();

  constructor(
    private readonly record: Bench,
    private readonly newId: () => string,
  ) {}

  /** The op for a set, and its id where it is a new one; a second board on a part is an edit of the first. */
  op(entry: SetEntry, holderId: string): { readonly op: Op | null; readonly id: string | null } {
    const board = entry.kind === 'board' ? this.record.boards.find((b) => b.partId === holderId) : undefined;
    if (entry.kind === 'board' && board) return { op: editTo('board', board, setFields(entry, holderId, 0)), id: null };
    const id = this.newId();
    const sequence = this.lastOf(entry.kind, holderId) + 1;
    this.added.set(`${entry.kind} ${holderId}`, sequence);
    return { op: { kind: `${entry.kind}.add`, id, fields: setFields(entry, holderId, sequence) } as Op, id };
  }

  private lastOf(kind: SetEntry['kind'], holderId: string): number {
    const added = this.added.get(`${kind} ${holderId}`);
    if (added !== undefined || kind === 'board') return added ?? -1;
    return SETS_OF[kind](this.record).reduce((most, s) => (s.partId === holderId ? Math.max(most, s.sequence) : most), -1);
  }
}

/**
 * The ops that lines bring, all of one change: parts, what holds and feeds them, and the steps in which they come off.
 * In a session each part is a step of its own, unless its line begins with “+ ”: then it comes off together with the
 * part before. Sets go onto the part of the line before, or onto the chosen one.
 *
 * @param record what is recorded so far
 * @param entries the lines as understood, in their order
 * @param at where they are recorded, in which session, and what the clock says
 * @param newId makes a fresh UUID at each call
 * @returns the ops and the last part; or the first line that cannot be kept, with the reason
 */
export const lineChange = (record: Bench, entries: readonly Entry[], at: LinePlace, newId: () => string): LineChange => {
  const ops: Op[] = [];
  const session = at.session !== null && at.place?.vehicleId === at.session.vehicleId ? at.session : null;
  const steps = new LineSteps(record, session, at, newId);
  const sets = new LineSets(record, newId);
  let holderId = at.holderId;
  let partId: string | null = null;
  let sequence = record.parts.reduce((last, p) => Math.max(last, p.sequence), -1);
  for (const { line, entry } of entries.flatMap(apart)) {
    const fault = (code: string, message: string): LineChange => ({ ok: false, line, code, message });
    if (entry.kind === 'part') {
      if (at.place === null) return fault('no-subsystem', 'Choose the subsystem first that the part belongs to');
      const id = newId();
      ops.push({ kind: 'part.add', id, fields: partFields(entry, at.place, (sequence += 1)) });
      steps.comesOff(id, entry.together ? steps.current(holderId) : null);
      holderId = partId = id;
      continue;
    }
    const step = steps.current(holderId);
    if (entry.kind === 'step') {
      if (!step) return fault('no-step', 'There is no removal yet that this is about: begin a session and record the part first');
      const edit = stepEdit(steps.now(), step, entry);
      if ('fault' in edit) return fault('step-after', edit.fault);
      steps.put(step, saidOf(step, edit.fields));
      continue;
    }
    if (holderId === null) return fault('no-part', 'Choose the part first that these belong to');
    const { op, id } = sets.op(entry, holderId);
    if (op) ops.push(op);
    if (step && id !== null && entry.kind === 'connection') steps.put(step, { connections: [...step.connections, id] });
    if (step && id !== null && entry.kind === 'fluid' && entry.drained) steps.put(step, { fluids: [...step.fluids, id] });
  }
  if (session !== null) steps.takesTime(steps.current(holderId));
  return { ok: true, ops: [...ops, ...steps.ops()], partId };
};

/** "2 parts and 1 set": what a change of lines holds, in words. */
export const entriesText = (entries: readonly Entry[]): string => {
  const parts = entries.filter((e) => e.kind === 'part').length;
  const sets = entries.filter((e) => e.kind !== 'part' && e.kind !== 'step').length;
  const steps = entries.filter((e) => e.kind === 'step').length;
  return [
    parts > 0 ? counted(parts, 'part') : '',
    sets > 0 ? counted(sets, 'set') : '',
    steps > 0 ? counted(steps, 'line') + ' about removals' : '',
  ]
    .filter((text) => text !== '')
    .join(', ');
};
