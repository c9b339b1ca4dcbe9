import { array, mixed, object, type Schema } from 'yup';
import { oneOf, shape, uuid } from '../shared';
import { ENTITIES, VERBS, type Entity, type FieldsOf, type Verb } from './entities';
import { isKnowing, knowingFields } from './evidence-of';
import { fieldsSchema, evidenceSchema } from './field-schemas';
import { KINDS } from './kinds';

const schemaOf = (entity: Entity): Schema<object> =>
  fieldsSchema(KINDS[entity].fields, isKnowing(entity) ? { evidence: evidenceSchema(knowingFields(entity), false) } : {});

/** The check of each kind of record: labels, limits and what is said when they are broken. */
export const SCHEMAS = Object.fromEntries(ENTITIES.map((entity) => [entity, schemaOf(entity)])) as unknown as {
  readonly [E in Entity]: Schema<FieldsOf[E]>;
};

const isPlain = (value: unknown): value is object => typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a row or its fields held before: only compared with what is there now, never written, so its shape is enough. */
const before = (): Schema<unknown> =>
  mixed((value): value is object => isPlain(value))
    .label('What it was')
    .defined()
    .typeError('An edit or removal must say what it was') as Schema<unknown>;

const edited = (entity: Entity): Schema<unknown> => {
  const fields = (SCHEMAS[entity] as unknown as { partial(): { shape(more: object): Schema<unknown> } }).partial();
  return isKnowing(entity)
    ? fields.shape({ evidence: (evidenceSchema(knowingFields(entity), true) as unknown as { optional(): Schema<unknown> }).optional() })
    : (fields as unknown as Schema<unknown>);
};

const sameFields = (op: { readonly was?: object; readonly fields?: object }): boolean => {
  const [was, fields] = [Object.keys(op.was ?? {}).sort(), Object.keys(op.fields ?? {}).sort()];
  return was.length === fields.length && was.every((field, i) => field === fields[i]);
};

const opSchema = (entity: Entity, verb: Verb): Schema<unknown> => {
  const kind = oneOf('Kind of change', [`${entity}.${verb}`]);
  const id = uuid('Record');
  const parts = {
    add: { kind, id, fields: SCHEMAS[entity] as Schema<unknown> },
    edit: { kind, id, was: before(), fields: edited(entity) },
    remove: { kind, id, was: before() },
  }[verb];
  const op = object(parts as never)
    .exact('${path} has fields that are not known here: ${properties}')
    .required();
  return verb === 'edit' ? op.test('was', 'An edit must say what each of its fields was', (value) => sameFields(value)) : op;
};

/** The check for each kind of op. */
export const OP_SCHEMAS: ReadonlyMap<string, Schema<unknown>> = new Map(
  ENTITIES.flatMap((entity) => VERBS.map((verb) => [`${entity}.${verb}`, opSchema(entity, verb)] as const)),
);

/** More ops than this in one change are refused. */
const MOST_OPS = 200_000;

export const CHANGE_SHELL = shape<{ id: string; ops: readonly unknown[]; undoes: string | null }>({
  id: uuid('Change'),
  ops: array().label('Ops').defined().min(1, 'A change needs at least one op').max(MOST_OPS, 'A change may hold at most ${max} ops'),
  undoes: uuid('Undone change').nullable(),
});
