import { ObjectSchema, Schema, type ISchema } from 'yup';

/** Values of one field that were found good before, at most so many. */
const MOST_REMEMBERED = 5000;
const LONGEST_REMEMBERED = 200;

/** What was good by a schema: values by themselves, and values that have parts by their text, apart, for a text is a value as well. */
interface Remembered {
  readonly values: Set<unknown>;
  readonly texts: Set<string>;
}

const remembered = new WeakMap<object, Remembered>();

/** Where a value is remembered and as what; null when it is too large, or nothing, to be remembered. */
const placeOf = ({ values, texts }: Remembered, value: unknown): readonly [Set<unknown>, unknown] | null => {
  if (value === undefined || (typeof value === 'string' && value.length > LONGEST_REMEMBERED)) return null;
  if (typeof value !== 'object' || value === null) return [values, value];
  const text = JSON.stringify(value);
  return text.length > LONGEST_REMEMBERED ? null : [texts, text];
};

/** A test that a value passes only when its schema would let it pass, without the ceremony. */
export interface Quick {
  readonly passes: (value: unknown) => boolean;
  /** so many tests the schema had when it was said; with more it says less than the whole */
  readonly tests: number;
}

/** What a schema says of values that surely pass, as long as nothing was added to it since. */
export const quickly = <S extends Schema>(schema: S, passes: Quick['passes']): S =>
  schema.meta({ quick: { passes, tests: schema.tests.length } satisfies Quick });

const quick = new WeakMap<object, Quick['passes'] | null>();

const quickOf = (schema: Schema): Quick['passes'] | null => {
  const known = quick.get(schema);
  if (known !== undefined) return known;
  const { meta, oneOf, notOneOf, tests } = schema.describe() as unknown as {
    readonly meta?: { readonly quick?: Quick };
    readonly oneOf: readonly unknown[];
    readonly notOneOf: readonly unknown[];
    readonly tests: readonly unknown[];
  };
  const said = meta?.quick;
  const isWhole = said?.tests === tests.length && oneOf.length === 0 && notOneOf.length === 0;
  const passes = isWhole ? said.passes : null;
  quick.set(schema, passes);
  return passes;
};

const isGoodValue = (schema: Schema, value: unknown): boolean => {
  if (quickOf(schema)?.(value) === true) return true;
  const all = remembered.get(schema) ?? { values: new Set(), texts: new Set() };
  const place = placeOf(all, value);
  if (place?.[0].has(place[1]) === true) return true;
  if (!schema.isValidSync(value, { strict: true })) return false;
  if (place && place[0].size < MOST_REMEMBERED) {
    place[0].add(place[1]);
    remembered.set(schema, all);
  }
  return true;
};

/** An object whose rules are those of its fields, each by itself: none looks at two of them, or at what is around. */
const isOfFields = (schema: Schema): boolean =>
  schema instanceof ObjectSchema && Object.keys(schema.fields).length > 0 && schema.tests.every((test) => test.OPTIONS?.name === 'exact');

const isSchema = (schema: ISchema<unknown>): schema is ISchema<unknown> & Schema => schema instanceof Schema;

/**
 * True when input is good by a schema, found field by field: rows by the thousand share most of their values, and a value that was good
 * for a field before is good again. False when it is not, or cannot be told so: the schema itself then says.
 */
export const isKnownGood = (schema: ISchema<unknown>, input: unknown): boolean => {
  if (!isSchema(schema)) return false;
  if (((schema as unknown as { readonly conditions?: readonly unknown[] }).conditions?.length ?? 0) > 0) return false;
  if (!isOfFields(schema)) return isGoodValue(schema, input);
  if (typeof input !== 'object' || input === null || Array.isArray(input)) return isGoodValue(schema, input);
  const fields = (schema as unknown as ObjectSchema<object>).fields as Readonly<Record<string, ISchema<unknown>>>;
  for (const name of Object.keys(input)) if (!Object.hasOwn(fields, name)) return false;
  for (const name of Object.keys(fields))
    if (!isKnownGood(fields[name]!, Object.hasOwn(input, name) ? (input as Record<string, unknown>)[name] : undefined)) return false;
  return true;
};
