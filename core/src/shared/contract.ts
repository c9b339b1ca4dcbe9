import { ValidationError, number, object, string, type ISchema, type NumberSchema, type Schema, type StringSchema } from 'yup';
import { issue, type Issue } from './issue';
import { isKnownGood, quickly } from './known-good';

/** A Yup object schema that is checked, field by field, against an interface: a missing or extra field does not compile. */
export const shape = <T extends object>(fields: { readonly [K in keyof T]-?: ISchema<T[K]> }): Schema<T> =>
  object(fields as never)
    .exact('${path} has fields that are not known here: ${properties}')
    .required();

/** Validated input, or every fault in it. */
export type Checked<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly issues: readonly Issue[] };

const faultsOf = (error: ValidationError, recordId: string | null): readonly Issue[] =>
  (error.inner.length > 0 ? error.inner : [error]).map((fault) =>
    issue(fault.type ?? 'invalid', fault.message, fault.path === '' ? null : (fault.path ?? null), recordId),
  );

/** Checks input strictly (nothing is coerced) and lists every fault. */
export const check = <T>(schema: Schema<T>, input: unknown, recordId: string | null = null): Checked<T> => {
  if (isKnownGood(schema as ISchema<unknown>, input)) return { ok: true, value: input as T };
  try {
    return { ok: true, value: schema.validateSync(input, { strict: true, abortEarly: false }) };
  } catch (error) {
    if (error instanceof ValidationError) return { ok: false, issues: faultsOf(error, recordId) };
    throw error;
  }
};

// Control characters but tab and line feed, and halves of surrogate pairs: neither a database nor a file can hold them.
// eslint-disable-next-line no-control-regex
export const UNPRINTABLE = /[\u0000-\u0008\u000b-\u001f\u007f]|\p{Surrogate}/u;

/** Text of at most `max` characters, without control characters. */
export const text = (label: string, max: number): StringSchema<string> => quickly(anyText(label, max), isText(max));

const isText =
  (max: number) =>
  (value: unknown): value is string =>
    typeof value === 'string' && value.length <= max && !UNPRINTABLE.test(value);

const anyText = (label: string, max: number): StringSchema<string> =>
  string()
    .label(label)
    .defined()
    .nonNullable('${label} must be text')
    .typeError('${label} must be text')
    .max(max, '${label} may have at most ${max} characters')
    .test(
      'printable',
      '${label} holds control characters; type it again',
      (value?: string | null) => value === undefined || value === null || !UNPRINTABLE.test(value),
    );

/** Text that must not be blank. */
export const requiredText = (label: string, max: number): StringSchema<string> =>
  quickly(
    text(label, max).test('filled', '${label} must not be empty', (value) => typeof value !== 'string' || value.trim() !== ''),
    (value) => isText(max)(value) && value.trim() !== '',
  );

/** A finite number; Infinity, which JSON can carry as 1e999, is refused. */
export const finite = (label: string): NumberSchema<number> =>
  number()
    .label(label)
    .defined()
    .nonNullable('${label} must be a number')
    .typeError('${label} must be a number')
    .test(
      'finite',
      '${label} must be a finite number',
      (value?: number | null) => value === undefined || value === null || Number.isFinite(value),
    );

/** A number above zero and at most `max`. */
export const positive = (label: string, unit: string, max: number): NumberSchema<number> =>
  finite(label).moreThan(0, `\${label} must be more than 0 ${unit}`).max(max, `\${label} may be at most \${max} ${unit}`);

/** A whole number from `min` to `max`. */
export const whole = (label: string, min: number, max: number): NumberSchema<number> =>
  finite(label)
    .integer('${label} must be a whole number')
    .min(min, '${label} must be at least ${min}')
    .max(max, '${label} may be at most ${max}');

/** One of the given words. */
export const oneOf = <T extends string>(label: string, words: readonly T[]): Schema<T> =>
  string().label(label).defined().nonNullable('${label} must be chosen').oneOf(words, '${label} must be one of: ${values}');

/** True for a UUID in small letters, of whatever version. @source RFC 9562, section 4 */
export const isUuid = (value: unknown): value is string =>
  typeof value === 'string' && /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(value);

/** A UUID as the schema takes it: of a version from 1 to 5, in small letters. */
const isUuidOfToday = (value: unknown): boolean =>
  typeof value === 'string' && /^[0-9a-f]{8}-[0-9a-f]{4}-[1-5][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/.test(value);

/** A UUID made by the client. */
export const uuid = (label: string): StringSchema<string> =>
  quickly(
    text(label, 36)
      .uuid('${label} must be a UUID')
      .matches(/^[^A-Z]*$/, '${label} must be a UUID in small letters'),
    isUuidOfToday,
  );
