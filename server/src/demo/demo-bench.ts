import { lineChange, parseLine, type Entry } from '@each-bolt/core/bench';
import { blank, emptyRecord, applyOps, type Op, type Session, type StudyFields, type StudyRecord } from '@each-bolt/core/record';

/** A small study whose bench was left in the middle of its work: what is recorded so far, and what would come next. */
export interface DemoBench {
  readonly study: Omit<StudyFields, 'calendar' | 'choiceWeights' | 'usualHazards'>;
  readonly vehicle: { readonly name: string; readonly maker: string; readonly modelYear: number };
  readonly subsystem: string;
  readonly session: string;
  /** ISO 8601, UTC */
  readonly openedAt: string;
  /** time at work on each line */
  readonly secondsEach: number;
  /** lines of shorthand in the order they were typed */
  readonly lines: readonly string[];
  /** the removals to come, for whoever tries the bench: the part, its mass, and what else would be typed */
  readonly next: readonly { readonly part: string; readonly grams: number; readonly lines: readonly string[] }[];
}

const entryOf = (line: string): Entry => {
  const { entry, questions } = parseLine(line);
  if (entry === null) throw new RangeError(`“${line}”: ${questions.map((q) => q.message).join('; ')}`);
  return entry;
};

/** The ops that bring the half-recorded bench in, typed line by line as anybody would. */
export const benchOps = (
  demo: DemoBench,
  studyId: string,
  usual: Pick<StudyFields, 'calendar' | 'choiceWeights' | 'usualHazards'>,
  newId: () => string,
): readonly Op[] => {
  const [vehicleId, subsystemId, sessionId] = [newId(), newId(), newId()];
  const session: Session = {
    ...{ id: sessionId, version: 1, sequence: 0, name: demo.session, packageId: null, vehicleId, subsystemId },
    ...{ remover: 'Odo Farrow', recorder: 'Wenna Tarn', openedAt: demo.openedAt, closedAt: null, pauseAfterS: 600 },
    ...{ acknowledged: [], waived: [], note: '' },
  };
  const { id: _id, version: _version, ...sessionFields } = session;
  const fields: StudyFields = { ...demo.study, ...usual };
  const ops: Op[] = [
    { kind: 'study.add', id: studyId, fields },
    {
      kind: 'vehicle.add',
      id: vehicleId,
      fields: { ...blank('vehicle', { name: demo.vehicle.name, role: 'competitor', sequence: 0 }), ...demo.vehicle },
    },
    { kind: 'subsystem.add', id: subsystemId, fields: { parentId: null, sequence: 0, name: demo.subsystem } },
    { kind: 'session.add', id: sessionId, fields: sessionFields },
  ];
  let record: StudyRecord = applyOps(emptyRecord({ id: studyId, version: 1, ...fields }), ops, 1);
  let holderId: string | null = null;
  let atMs = Date.parse(demo.openedAt);
  for (const line of demo.lines) {
    const begunAt = new Date(atMs).toISOString();
    atMs += demo.secondsEach * 1000;
    const change = lineChange(
      record,
      [entryOf(line)],
      {
        ...{ place: { vehicleId, subsystemId, parentId: null }, holderId, session, otherwise: '', carries: null },
        time: { begunAt, endedAt: new Date(atMs).toISOString(), workedS: demo.secondsEach },
      },
      newId,
    );
    if (!change.ok) throw new RangeError(`“${line}”: ${change.message}`);
    ops.push(...change.ops);
    record = applyOps(record, change.ops, 1);
    holderId = change.partId ?? holderId;
  }
  return ops;
};
