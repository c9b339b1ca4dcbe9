import {
  blank,
  USUAL_STUDY,
  emptyRecord,
  type FastenerSet,
  type JointSet,
  type Part,
  type Study,
  type StudyRecord,
  type Subsystem,
  type Vehicle,
} from '../src/record';
import { fastenerFields, jointFields, parseLine, partFields } from '../src/bench';

/** Fixed ids that read well in failures: the nth record of a test. */
export const testId = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export const STUDY: Study = {
  id: testId(1),
  version: 1,
  title: 'Test study',
  questions: '',
  lead: '',
  currency: 'EUR',
  priceYear: 2026,
  volumePerYear: 60_000,
  productionYears: 7,
  region: 'Central Europe',
  fastenersIn: true,
  assembliesAs: 'parts',
  ...USUAL_STUDY,
};
export const LEFT: Vehicle = {
  id: testId(2),
  version: 1,
  ...blank('vehicle', { name: 'Left van', role: 'subject', sequence: 0 }),
  modelYear: 2026,
};
export const RIGHT: Vehicle = { ...LEFT, id: testId(3), sequence: 1, name: 'Right van', role: 'competitor' };
export const DOOR: Subsystem = { id: testId(4), version: 1, parentId: null, sequence: 0, name: 'Sliding cargo door' };

const indentOf = (line: string): number => (line.length - line.trimStart().length) / 2;

/**
 * A teardown written as the bench writes it: one shorthand line per part, two spaces deeper for what is inside it;
 * fastener and joint sets stand under the part they hold.
 */
export const teardown = (
  text: string,
  vehicle: Vehicle = LEFT,
  firstId = 100,
): Pick<StudyRecord, 'parts' | 'fastenerSets' | 'jointSets'> => {
  const parts: Part[] = [];
  const fastenerSets: FastenerSet[] = [];
  const jointSets: JointSet[] = [];
  const above: string[] = [];
  text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .forEach((line, n) => {
      const depth = indentOf(line);
      const parsed = parseLine(line.trim());
      if (!parsed.entry) throw new Error(`not understood: ${line}: ${parsed.questions.map((q) => q.message).join('; ')}`);
      const row = { id: testId(firstId + n), version: 1 };
      const parentId = above[depth - 1] ?? null;
      if (parsed.entry.kind === 'part') {
        parts.push({
          ...row,
          ...partFields(parsed.entry, { vehicleId: vehicle.id, subsystemId: parentId === null ? DOOR.id : null, parentId }, n),
        });
        above[depth] = row.id;
      } else if (parsed.entry.kind === 'fasteners') fastenerSets.push({ ...row, ...fastenerFields(parsed.entry, parentId ?? '', n) });
      else if (parsed.entry.kind === 'joints') jointSets.push({ ...row, ...jointFields(parsed.entry, parentId ?? '', n) });
      else throw new Error(`a teardown holds parts, fasteners and joints, not ${parsed.entry.kind}`);
    });
  return { parts, fastenerSets, jointSets };
};

/** A whole record around one or more teardowns. */
export const recordOf = (...teardowns: readonly ReturnType<typeof teardown>[]): StudyRecord => ({
  ...emptyRecord(STUDY),
  revision: 1,
  vehicles: [LEFT, RIGHT],
  subsystems: [DOOR],
  parts: teardowns.flatMap((each) => each.parts),
  fastenerSets: teardowns.flatMap((each) => each.fastenerSets),
  jointSets: teardowns.flatMap((each) => each.jointSets),
});

export const partNamed = (record: StudyRecord, name: string): Part => {
  const part = record.parts.find((p) => p.name === name);
  if (!part) throw new Error(`no part is called ${name}`);
  return part;
};

export const BLANK = blank('part', { vehicleId: LEFT.id, subsystemId: DOOR.id, parentId: null });
