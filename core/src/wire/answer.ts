import { array, boolean, mixed, number, object, string, type ISchema, type Schema } from 'yup';

// Answers are read by the page of the same version as the server, or of one before: what it does not know yet is left alone.

/** An answer that has at least these fields, checked against an interface: a missing one does not compile. */
export const answer = <T extends object>(fields: { readonly [K in keyof T]-?: ISchema<T[K]> }): Schema<T> =>
  object(fields as never).required();

export const listOf = <T>(item: Schema<T>): Schema<readonly T[]> => array(item as never).required();

export const words = (): Schema<string> => string().defined().nonNullable();
export const figure = (): Schema<number> => number().defined().nonNullable();
export const yesNo = (): Schema<boolean> => boolean().defined().nonNullable();
export const wordOf = <T extends string>(choices: readonly T[]): Schema<T> => string().defined().nonNullable().oneOf(choices);

/** One of that, or null. */
export const orNull = <T>(schema: Schema<T>): Schema<T | null> => schema.nullable() as Schema<T | null>;
/** One of that, or nothing at all. */
export const orAbsent = <T>(schema: Schema<T>): Schema<T | undefined> => schema.optional() as Schema<T | undefined>;

/** A part of an answer whose rows were checked when they were written: only its outline is looked at. */
export const outline = <T>(isIt: (value: unknown) => boolean, what: string): Schema<T> =>
  mixed<object>()
    .nullable()
    .defined()
    .test('outline', `it holds no ${what}`, (value) => isIt(value)) as unknown as Schema<T>;

/** Done: there is nothing to tell. */
export const DONE: Schema<object> = object().required();
