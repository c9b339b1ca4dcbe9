import { array, mixed, tuple, type NumberSchema, type Schema } from 'yup';
import { EVIDENCE_MARKS, finite, isDay, oneOf, requiredText, shape, text, uuid } from '../shared';
import type {
  ByNameField,
  Field,
  Fields,
  Evidence,
  EvidenceOf,
  ListField,
  NumberField,
  GroupField,
  TextField,
  TupleField,
} from './kinds/field';

// The check of every type of field, from its declaration.

type Any = Schema<unknown>;

const isPlain = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const DATE = /^\d{4}-\d{2}-\d{2}$/;
const INSTANT = /^\d{4}-\d{2}-\d{2}T([01]\d|2[0-3]):[0-5]\d:[0-5]\d\.\d{3}Z$/;
const LOCAL_TIME = /^\d{4}-\d{2}-\d{2}T([01]\d|2[0-3]):[0-5]\d$/;
const PRICE = /^(0|[1-9]\d{0,8})(\.\d{1,4})?$/;
const SHA256 = /^[0-9a-f]{64}$/;

/** Text that must look like something; empty it does not. */
const like = (label: string, max: number, is: RegExp, says: string): Any =>
  text(label, max).matches(is, { message: says, excludeEmptyString: false }) as Any;

const ofText = ({ label, max, needed, pattern }: TextField): Any => {
  const schema = needed ? requiredText(label, max) : text(label, max);
  return (pattern ? schema.matches(pattern.is, pattern.says) : schema) as Any;
};

const ofDate = (label: string): Any =>
  text(label, 10).test(
    'calendar-date',
    `${label} must be a date such as 2026-03-31`,
    (value?: string | null) => typeof value !== 'string' || (DATE.test(value) && isDay(value)),
  ) as Any;

const ofNumber = ({ label, unit, whole, above, min, max, says }: NumberField): Any => {
  const inUnit = unit === '' ? '' : ` ${unit}`;
  let schema: NumberSchema<number> = finite(label);
  if (whole) schema = schema.integer('${label} must be a whole number');
  if (above !== undefined) schema = schema.moreThan(above, `\${label} must be more than \${more}${inUnit}`);
  if (min !== undefined) schema = schema.min(min, says?.min ?? `\${label} must be at least \${min}${inUnit}`);
  if (max !== undefined) schema = schema.max(max, says?.max ?? `\${label} may be at most \${max}${inUnit}`);
  return schema as Any;
};

const ofFlag = (label: string): Any =>
  mixed<boolean>((value): value is boolean => typeof value === 'boolean')
    .label(label)
    .defined()
    .typeError(`${label} must be true or false`) as Any;

const ofList = ({ label, item, most }: ListField<Field>): Any =>
  array(fieldSchema(item) as never)
    .label(label)
    .defined()
    .nonNullable('${label} must be a list')
    .typeError('${label} must be a list')
    .max(most, '${label} may hold at most ${max}');

const ofTuple = ({ label, item, size }: TupleField<Field>): Any =>
  tuple(Array.from({ length: size }, () => fieldSchema(item)) as never)
    .label(label)
    .defined()
    .typeError(`${label} must be ${size === 2 ? 'two' : 'three'} numbers`);

const ofGroup = ({ label, fields, rule }: GroupField<Fields>): Any => {
  const whole = fieldsSchema(fields).label(label) as unknown as Any;
  // an edit of other fields has none
  return rule ? whole.test(rule.name, rule.says, (value?: unknown) => !isPlain(value) || rule.holds(value as never)) : whole;
};

const faultOf = (schema: Any, value: unknown): string | null => {
  try {
    schema.validateSync(value, { strict: true });
    return null;
  } catch (error) {
    return (error as Error).message;
  }
};

const ofNamed = ({ label, item, says, names }: ByNameField<Field>): Any => {
  const each = fieldSchema(item);
  return mixed(isPlain)
    .label(label)
    .defined()
    .nonNullable(says)
    .typeError(says)
    .test('by-name', function (value) {
      for (const [name, part] of Object.entries((value as object | null) ?? {})) {
        if (names && !names.are.test(name)) return this.createError({ message: names.says.replace('${name}', name) });
        const fault = faultOf(each, part);
        if (fault !== null) return this.createError({ message: `${name}: ${fault}` });
      }
      return true;
    });
};

const SCHEMA: { readonly [T in Exclude<Field['type'], 'evidence'>]: (field: Extract<Field, { readonly type: T }>) => Any } = {
  text: ofText,
  number: ofNumber,
  choice: ({ label, choices }) => oneOf(label, choices) as Any,
  flag: ({ label }) => ofFlag(label),
  date: ({ label }) => ofDate(label),
  instant: ({ label }) => like(label, 24, INSTANT, '${label} must be a time such as 2026-03-31T10:00:00.000Z'),
  'local time': ({ label }) => like(label, 16, LOCAL_TIME, '${label} must be a time such as 2026-03-31T08:00'),
  price: ({ label }) => like(label, 20, PRICE, '${label} must be decimal digits such as 4.20'),
  reference: ({ label }) => uuid(label) as Any,
  'any reference': ({ label }) => uuid(label) as Any,
  person: ({ label }) => uuid(label) as Any,
  library: ({ label }) => text(label, 60) as Any,
  file: ({ label }) => like(label, 64, SHA256, '${label} must be named by its SHA-256'),
  list: (field) => ofList(field as ListField<Field>),
  tuple: (field) => ofTuple(field as TupleField<Field>),
  group: (field) => ofGroup(field as GroupField<Fields>),
  'by name': (field) => ofNamed(field as ByNameField<Field>),
};

/** The check of one field. How values are known belongs to the whole kind and is checked by `evidenceSchema`. */
const fieldSchema = (field: Field): Any => {
  if (field.type === 'evidence') throw new RangeError(`${field.label} is checked with its kind`);
  const schema = (SCHEMA[field.type] as (field: Field) => Any)(field);
  return field.optional ? (schema.nullable() as Any) : schema;
};

/** The check of a value that has these parts, and no others. */
export const fieldsSchema = (fields: Fields, more: Readonly<Record<string, Any>> = {}): Schema<object> =>
  shape<Record<string, unknown>>({
    ...Object.fromEntries(Object.entries(fields).flatMap(([name, field]) => (name in more ? [] : [[name, fieldSchema(field)]]))),
    ...more,
  });

const nullable = (schema: Any): Any => schema.nullable() as Any;

const EVIDENCE = shape<Evidence>({
  mark: oneOf('Evidence', EVIDENCE_MARKS),
  u: nullable(ofNumber({ type: 'number', label: 'Uncertainty', unit: '', above: 0, max: 1e9 })) as Schema<number | null>,
  low: nullable(finite('Lowest') as Any) as Schema<number | null>,
  high: nullable(finite('Highest') as Any) as Schema<number | null>,
  typed: text('As typed', 60).nullable(),
  instrument: text('Instrument', 200),
  source: text('Source', 400),
}).test('range', 'The lowest must not be above the highest', (k) => k.low === null || k.high === null || k.low <= k.high);

/**
 * The check of how the values of a kind are evidence: each named field is one that can say so; in an edit, null takes it back.
 *
 * @param names fields that say how they are known
 */
export const evidenceSchema = (names: readonly string[], mayBeNull: boolean): Schema<EvidenceOf> => {
  const fields = new Set(names);
  return mixed<EvidenceOf>(isPlain as (value: unknown) => value is EvidenceOf)
    .label('Evidence')
    .defined()
    .typeError('Evidence must say how values are known, by field')
    .test('evidence', function (value) {
      // absent is told by `defined`, or is nothing to say in an edit
      for (const [field, said] of Object.entries((value as EvidenceOf | undefined) ?? {})) {
        if (!fields.has(field)) return this.createError({ message: `${field} does not say how it is known` });
        const fault = mayBeNull && (said as Evidence | null) === null ? null : faultOf(EVIDENCE, said);
        if (fault !== null) return this.createError({ message: fault });
      }
      return true;
    });
};
