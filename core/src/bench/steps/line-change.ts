import { counted } from '../../shared';
import { editOp, editTo, type Op, type Place, type Session, type Step, type StepFields, type StudyRecord } from '../../record';
import type { Entry, SetEntry, StepEntry } from '../shorthand/entry';
import { partFields, setFields } from '../shorthand/to-fields';
import { afterByNumber, inStepOrder, nextStep, stepsOf } from './step-ops';

/** What the clock says of the time since the line before. */
export interface StepTime {
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
  readonly carries: Partial<Pick<StepFields, 'tool' | 'bit' | 'people'>>;
}

export type LineChange =
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
  const added = new Map<string, number>();
  let holderId = at.holderId;
  let partId: string | null = null;
  let sequence = record.parts.reduce((last, p) => Math.max(last, p.sequence), -1);
  const session = at.session !== null && at.place?.vehicleId === at.session.vehicleId ? at.session : null;
  const evidence = new Map(record.steps.map((s) => [s.id, s]));
  const working = new Map<string, Working>();
  const stepsNow = (): readonly Step[] => inStepOrder([...evidence.values()]);
  const current = (): Step | null => {
    if (holderId !== null) {
      const own = [...evidence.values()].find((s) => s.parts.includes(holderId!));
      if (own) return own;
    }
    return session === null
      ? null
      : (stepsOf(stepsNow(), session.vehicleId)
          .filter((s) => s.sessionId === session.id)
          .at(-1) ?? null);
  };
  const put = (step: Step, fields: Partial<StepFields>): void => {
    const now = { ...step, ...fields };
    const before = working.get(step.id);
    working.set(step.id, before ? { ...before, now } : { isNew: false, was: step, now });
    evidence.set(step.id, now);
  };
  const begin = (fields: Partial<StepFields>, of: Session): void => {
    const id = newId();
    const step: Step = { id, version: 0, ...nextStep(stepsNow(), of, { ...at.carries, otherwise: at.otherwise, ...fields }) };
    working.set(id, { isNew: true, was: step, now: step });
    evidence.set(id, step);
  };
  for (const { line, entry } of entries.flatMap(apart)) {
    const fault = (code: string, message: string): LineChange => ({ ok: false, line, code, message });
    if (entry.kind === 'part') {
      if (at.place === null) return fault('no-subsystem', 'Choose the subsystem first that the part belongs to');
      const id = newId();
      sequence += 1;
      ops.push({ kind: 'part.add', id, fields: partFields(entry, at.place, sequence) });
      const before = current();
      if (session !== null && entry.together && before?.sessionId === session.id) put(before, { parts: [...before.parts, id] });
      else if (session !== null) begin({ parts: [id] }, session);
      holderId = id;
      partId = id;
      continue;
    }
    if (entry.kind === 'step') {
      const step = current();
      if (!step) return fault('no-step', 'There is no removal yet that this is about: begin a session and record the part first');
      const edit = stepEdit(stepsNow(), step, entry);
      if ('fault' in edit) return fault('step-after', edit.fault);
      put(step, edit.fields);
      continue;
    }
    if (holderId === null) return fault('no-part', 'Choose the part first that these belong to');
    const holder = holderId;
    const boardThere = entry.kind === 'board' ? record.boards.find((b) => b.partId === holder) : undefined;
    if (entry.kind === 'board' && boardThere) {
      const op = editTo('board', boardThere, setFields(entry, holder, 0));
      if (op) ops.push(op);
      continue;
    }
    const id = newId();
    const key = `${entry.kind} ${holder}`;
    const last =
      added.get(key) ??
      (entry.kind === 'board'
        ? -1
        : SETS_OF[entry.kind](record).reduce((most, s) => (s.partId === holder ? Math.max(most, s.sequence) : most), -1));
    added.set(key, last + 1);
    ops.push({ kind: `${entry.kind}.add`, id, fields: setFields(entry, holder, last + 1) } as Op);
    const step = current();
    if (step && entry.kind === 'connection') put(step, { connections: [...step.connections, id] });
    if (step && entry.kind === 'fluid' && entry.drained) put(step, { fluids: [...step.fluids, id] });
  }
  // the time since the line before belongs to the step the lines are about
  const timed = session === null ? null : current();
  if (timed !== null && at.time !== null && timed.sessionId === session?.id)
    put(timed, {
      startedAt: timed.startedAt ?? at.time.begunAt,
      endedAt: at.time.endedAt,
      workedS: (timed.workedS ?? 0) + at.time.workedS,
    });
  for (const { isNew, was, now } of working.values()) {
    const { id: _id, version: _version, ...fields } = now;
    if (isNew) ops.push({ kind: 'step.add', id: now.id, fields });
    else {
      const op = editOp('step', was, fields);
      if (op) ops.push(op);
    }
  }
  return { ok: true, ops, partId };
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
