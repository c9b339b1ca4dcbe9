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

/** An op that was written before a kind of record got some of its fields, with those fields. Anything else as it is. */
export const withLaterFields = (op: unknown): unknown => {
  if (!isPlain(op) || typeof op.kind !== 'string' || !isPlain(op.fields)) return op;
  const [entity, verb] = op.kind.split('.');
  const later = verb === 'add' ? LATER[entity as Entity] : undefined;
  return later ? { ...op, fields: { ...later, ...op.fields } } : op;
};

/** A record that was kept before kinds of record, or fields of theirs, were added, as a record of today. */
export const withLaterRows = (record: StudyRecord): StudyRecord => {
  const lists = Object.entries(LIST_OF).map(([entity, list]) => {
    const later = LATER[entity as Entity];
    const rows = (record[list] as readonly object[] | undefined) ?? [];
    return [list, later ? rows.map((row) => ({ ...later, ...row })) : rows];
  });
  return { ...record, ...Object.fromEntries(lists), study: { ...LATER.study, ...record.study } } as StudyRecord;
};
