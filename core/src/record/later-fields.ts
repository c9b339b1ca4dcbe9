import { blankVehicle, USUAL_STUDY } from './blank';
import type { Entity, StudyRecord } from './entities';
import { LIST_OF } from './apply-ops';

const { choiceWeights, usualHazards, calendar } = USUAL_STUDY;
const { name: _name, maker: _maker, role: _role, sequence: _sequence, notes: _notes, ...passport } = blankVehicle('', 'subject', 0);
const { modelYear: _year, builtOn: _built, acquiredOn: _acquired, ...laterOfVehicle } = passport;

/** Fields that kinds of record got later, with what they hold where nothing was ever said. */
const LATER: Readonly<Partial<Record<Entity, object>>> = {
  study: { choiceWeights, usualHazards, calendar },
  vehicle: laterOfVehicle,
  piece: { xM: null, yM: null, zM: null, closedRisk: '', seenOutside: '', damageFrom: null, runDiameterM: null },
  fasteners: { tighteningNm: null, breakawayNm: null, access: null, tool: '', removed: null },
  gate: { answeredBy: '', answeredAt: null },
  picture: { rigId: null },
  scan: { offsetM: null },
  unload: { subsystemId: null },
};

const isPlain = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The fields with those that came later; the same object when nothing is missing, as with nearly all of thousands. */
const withLater = <T extends object>(fields: T, later: object): T =>
  Object.keys(later).every((field) => Object.hasOwn(fields, field)) ? fields : { ...later, ...fields };

/** An op that was written before a kind of record got some of its fields, with those fields. Anything else as it is. */
export const withLaterFields = (op: unknown): unknown => {
  if (!isPlain(op) || typeof op.kind !== 'string' || !isPlain(op.fields)) return op;
  const [entity, verb] = op.kind.split('.');
  const later = verb === 'add' ? LATER[entity as Entity] : undefined;
  if (!later) return op;
  const fields = withLater(op.fields, later);
  return fields === op.fields ? op : { ...op, fields };
};

/** A record that was kept before kinds of record, or fields of theirs, were added, as a record of today. */
export const withLaterRows = (record: StudyRecord): StudyRecord => {
  const lists = Object.entries(LIST_OF).map(([entity, list]) => {
    const later = LATER[entity as Entity];
    const rows = (record[list] as readonly object[] | undefined) ?? [];
    return [list, later ? rows.map((row) => withLater(row, later)) : rows];
  });
  return { ...record, ...Object.fromEntries(lists), study: { ...LATER.study, ...record.study } } as StudyRecord;
};
