import { LIST_OF } from './apply-ops';
import { blankValue } from './blank';
import { ENTITIES, type Entity, type StudyRecord } from './entities';
import { KINDS } from './kinds';
import type { Fields } from './kinds/field';

const laterOf = (fields: Fields): object | null => {
  const later = Object.entries(fields).filter(([, field]) => field.later);
  return later.length === 0 ? null : Object.fromEntries(later.map(([name, field]) => [name, blankValue(field)]));
};

/** Fields that kinds of record got later, with what they hold where nothing was ever said. */
const LATER = Object.fromEntries(
  ENTITIES.flatMap((entity) => {
    const later = laterOf(KINDS[entity].fields);
    return later ? [[entity, later]] : [];
  }),
) as Readonly<Partial<Record<Entity, object>>>;

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
