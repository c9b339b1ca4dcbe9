import { ObjectSchema, Schema, type ISchema } from 'yup';

/** Values of one field that were found good before, at most so many. */
const MOST_REMEMBERED = 5000;
const LONGEST_REMEMBERED = 200;

/** A test that a value passes only when its schema would let it pass, without the ceremony. */
interface Quick {
  readonly passes: (value: unknown) => boolean;
  /** so many tests the schema had when it was said; with more it says less than the whole */
  readonly tests: number;
}

/** What a schema says of values that surely pass, as long as nothing was added to it since. */
export const quickly = <S extends Schema>(schema: S, passes: Quick['passes']): S =>
  schema.meta({ quick: { passes, tests: schema.tests.length } satisfies Quick });

/** Tells of one value whether it is surely good. */
type Tells = (value: unknown) => boolean;

const quickOf = (schema: Schema): Tells | null => {
  const { meta, oneOf, notOneOf, tests } = schema.describe() as unknown as {
    readonly meta?: { readonly quick?: Quick };
    readonly oneOf: readonly unknown[];
    readonly notOneOf: readonly unknown[];
    readonly tests: readonly unknown[];
  };
  const said = meta?.quick;
  const isWhole = said?.tests === tests.length && oneOf.length === 0 && notOneOf.length === 0;
  return isWhole ? said.passes : null;
};

/** Whether a value is good by its schema, asked once of each value that may come again. */
const ofValue = (schema: Schema): Tells => {
  const passes = quickOf(schema);
  // values by themselves, and values that have parts by their text, apart, for a text is a value as well
  const [values, texts] = [new Set<unknown>(), new Set<unknown>()];
  return (value) => {
    if (passes?.(value) === true) return true;
    const isTree = typeof value === 'object' && value !== null;
    const known = isTree ? texts : values;
    const key = isTree ? JSON.stringify(value) : value;
    if (known.has(key)) return true;
    if (!schema.isValidSync(value, { strict: true })) return false;
    // nothing is no value, and what is long does not come again
    const isShort = key !== undefined && !(typeof key === 'string' && key.length > LONGEST_REMEMBERED);
    if (isShort && known.size < MOST_REMEMBERED) known.add(key);
    return true;
  };
};

/** An object whose rules are those of its fields, each by itself: none looks at two of them, or at what is around. */
const isOfFields = (schema: Schema): schema is ObjectSchema<object> =>
  schema instanceof ObjectSchema && Object.keys(schema.fields).length > 0 && schema.tests.every((test) => test.OPTIONS?.name === 'exact');

const ofFields = (schema: ObjectSchema<object>): Tells => {
  const whole = ofValue(schema);
  const fields = Object.entries(schema.fields as Readonly<Record<string, ISchema<unknown>>>).map(([name, field]) => ({
    name,
    tells: tellsOf(field),
  }));
  const names = new Set(fields.map(({ name }) => name));
  return (input) => {
    if (typeof input !== 'object' || input === null || Array.isArray(input)) return whole(input);
    for (const name of Object.keys(input)) if (!names.has(name)) return false;
    for (const { name, tells } of fields)
      if (!tells(Object.hasOwn(input, name) ? (input as Record<string, unknown>)[name] : undefined)) return false;
    return true;
  };
};

const isSchema = (schema: ISchema<unknown>): schema is ISchema<unknown> & Schema => schema instanceof Schema;
const hasConditions = (schema: Schema): boolean =>
  ((schema as unknown as { readonly conditions?: readonly unknown[] }).conditions?.length ?? 0) > 0;

/** Schemas never change, so that each is looked into once. */
const looked = new WeakMap<object, Tells>();

const tellsOf = (schema: ISchema<unknown>): Tells => {
  if (!isSchema(schema) || hasConditions(schema)) return () => false;
  const known = looked.get(schema);
  if (known) return known;
  const tells = isOfFields(schema) ? ofFields(schema) : ofValue(schema);
  looked.set(schema, tells);
  return tells;
};

/**
 * True when input is good by a schema, found field by field: rows by the thousand share most of their values, and a value that was good
 * for a field before is good again. False when it is not, or cannot be told so: the schema itself then says.
 */
export const isKnownGood = (schema: ISchema<unknown>, input: unknown): boolean => tellsOf(schema)(input);
