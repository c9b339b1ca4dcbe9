import { array, mixed, object, type Schema } from 'yup';
import { oneOf, shape, uuid } from '../shared';
import { ENTITIES, VERBS, type Entity, type FieldsOf, type Verb } from './entities';
import { isKnowing, knowingFields } from './evidence-of';
import { fieldsSchema, evidenceSchema } from './field-schemas';
import { KINDS } from './kinds';

/** Made when first asked for, then kept: a page that opens needs few of them, and making all takes it a tenth of a second. */
const onceEach = <K, S>(make: (key: K) => S): ((key: K) => S) => {
  const made = new Map<K, S>();
  return (key) => {
    const known = made.get(key);
    if (known !== undefined) return known;
    const schema = make(key);
    made.set(key, schema);
    return schema;
  };
};

const schemas = onceEach((entity: Entity): Schema<object> =>
  fieldsSchema(KINDS[entity].fields, isKnowing(entity) ? { evidence: evidenceSchema(knowingFields(entity), false) } : {}),
);

/** The check of a kind of record: labels, limits and what is said when they are broken. */
export const schemaOf = <E extends Entity>(entity: E): Schema<FieldsOf[E]> => schemas(entity) as unknown as Schema<FieldsOf[E]>;

const isPlain = (value: unknown): value is object => typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a row or its fields held before: only compared with what is there now, never written, so its shape is enough. */
const before = (): Schema<unknown> =>
  mixed((value): value is object => isPlain(value))
    .label('What it was')
    .defined()
    .typeError('An edit or removal must say what it was') as Schema<unknown>;

const edited = (entity: Entity): Schema<unknown> => {
  const fields = (schemaOf(entity) as unknown as { partial(): { shape(more: object): Schema<unknown> } }).partial();
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
    add: () => ({ kind, id, fields: schemaOf(entity) as Schema<unknown> }),
    edit: () => ({ kind, id, was: before(), fields: edited(entity) }),
    remove: () => ({ kind, id, was: before() }),
  }[verb]();
  const op = object(parts as never)
    .exact('${path} has fields that are not known here: ${properties}')
    .required();
  return verb === 'edit' ? op.test('was', 'An edit must say what each of its fields was', (value) => sameFields(value)) : op;
};

const OPS: ReadonlyMap<string, readonly [Entity, Verb]> = new Map(
  ENTITIES.flatMap((entity) => VERBS.map((verb) => [`${entity}.${verb}`, [entity, verb]] as const)),
);

/** Every kind of op there is. */
export const OP_KINDS: readonly string[] = [...OPS.keys()];

const opSchemas = onceEach((kind: string): Schema<unknown> => opSchema(...OPS.get(kind)!));

/** The check of a kind of op; null where there is no such kind. */
export const opSchemaOf = (kind: string): Schema<unknown> | null => (OPS.has(kind) ? opSchemas(kind) : null);

/** More ops than this in one change are refused. */
const MOST_OPS = 200_000;

export const CHANGE_SHELL = shape<{ id: string; ops: readonly unknown[]; undoes: string | null }>({
  id: uuid('Change'),
  ops: array().label('Ops').defined().min(1, 'A change needs at least one op').max(MOST_OPS, 'A change may hold at most ${max} ops'),
  undoes: uuid('Undone change').nullable(),
});
