import { lineChange, nextStep, parseLine, type Entry } from '@each-bolt/core/bench';
import type { Op, Session, Step, StudyRecord } from '@each-bolt/core/record';

/** Lines of shorthand about a part that is recorded already. */
interface AboutPart {
  readonly tag: string;
  readonly lines: readonly string[];
}

/** A session of the bench that is over: what came off, in order, what it was connected with, and what lay inside. */
export interface DemoSession {
  readonly name: string;
  readonly vehicle: string;
  readonly subsystem: string;
  /** ISO 8601, UTC */
  readonly openedAt: string;
  /** the last line of each is that of its removal; the numbers behind “after” count the removals of the vehicle from 1 */
  readonly removals: readonly (AboutPart & { readonly seconds: number })[];
  readonly inside: readonly AboutPart[];
}

interface Names {
  vehicle(name: string): string;
  subsystem(name: string): string;
  part(tag: string): string;
  newId(): string;
}

const entryOf = (line: string): Entry => {
  const { entry, questions } = parseLine(line);
  if (entry === null || questions.length > 0) throw new RangeError(`“${line}”: ${questions.map((q) => q.message).join('; ')}`);
  return entry;
};

/** What lines say of a part, outside any session. */
const setOps = (record: StudyRecord, { tag, lines }: AboutPart, names: Names): readonly Op[] => {
  if (lines.length === 0) return [];
  const at = { place: null, holderId: names.part(tag), session: null, time: null, otherwise: '', carries: null };
  const change = lineChange(record, lines.map(entryOf), at, () => names.newId());
  if (!change.ok) throw new RangeError(`${tag}, “${lines[change.line] ?? ''}”: ${change.message}`);
  return change.ops;
};

const sessionOf = (demo: DemoSession, sequence: number, closedMs: number, names: Names): Session => ({
  ...{ id: names.newId(), version: 1, sequence, name: demo.name, packageId: null },
  ...{ vehicleId: names.vehicle(demo.vehicle), subsystemId: names.subsystem(demo.subsystem) },
  ...{ remover: sequence % 2 === 0 ? 'Odo Farrow' : 'Wenna Tarn', recorder: sequence % 2 === 0 ? 'Wenna Tarn' : 'Odo Farrow' },
  ...{ openedAt: demo.openedAt, closedAt: new Date(closedMs).toISOString(), pauseAfterS: 600, acknowledged: [], waived: [], note: '' },
});

/** The removal that a line beginning with “>” tells of a part. */
const stepOf = (line: string, partId: string, session: Session, steps: readonly Step[], startMs: number, seconds: number): Step => {
  const entry = entryOf(line);
  if (entry.kind !== 'step') throw new RangeError(`“${line}” is not the line of a removal`);
  const { kind: _kind, after, ...said } = entry;
  const waits = (after ?? []).map((number) => {
    const step = steps[number - 1];
    if (!step) throw new RangeError(`“${line}”: removal ${number} is not there yet`);
    return step.id;
  });
  const [startedAt, endedAt] = [new Date(startMs).toISOString(), new Date(startMs + seconds * 1000).toISOString()];
  const fields = { ...nextStep(steps, session, { parts: [partId] }), ...said, startedAt, endedAt, workedS: seconds };
  return { id: '', version: 1, ...fields, after: after === undefined ? fields.after : waits };
};

/** Between two removals somebody walks, labels and takes the picture. */
const BETWEEN_S = 45;

/** The ops of sessions that are over, on top of the parts that the files brought in; a part is told of in one place only. */
export const sessionOps = (demos: readonly DemoSession[], begun: StudyRecord, names: Names): readonly Op[] => {
  const ops: Op[] = [];
  const parts = new Map(begun.parts.map((part) => [part.id, part]));
  // what a line needs of the record is the part it is about: the whole of it would be copied for every line
  const about = (tag: string): StudyRecord => ({ ...begun, parts: [parts.get(names.part(tag))].filter((part) => part !== undefined) });
  const stepsBy = new Map<string, Step[]>();
  for (const [i, demo] of demos.entries()) {
    const whole = demo.removals.reduce((sum, { seconds }) => sum + seconds + BETWEEN_S, 0);
    const session = sessionOf(demo, i, Date.parse(demo.openedAt) + whole * 1000, names);
    const { id, version: _version, ...fields } = session;
    ops.push({ kind: 'session.add', id, fields });
    const steps = stepsBy.get(session.vehicleId) ?? [];
    stepsBy.set(session.vehicleId, steps);
    let atMs = Date.parse(demo.openedAt);
    for (const { tag, lines, seconds } of demo.removals) {
      ops.push(...setOps(about(tag), { tag, lines: lines.slice(0, -1) }, names));
      const step = { ...stepOf(lines.at(-1) ?? '', names.part(tag), session, steps, atMs, seconds), id: names.newId() };
      steps.push(step);
      const { id: stepId, version: _was, ...stepFields } = step;
      ops.push({ kind: 'step.add', id: stepId, fields: stepFields });
      atMs += (seconds + BETWEEN_S) * 1000;
    }
    for (const inside of demo.inside) ops.push(...setOps(about(inside.tag), inside, names));
  }
  return ops;
};
