import { array, mixed, type Schema } from 'yup';
import { EVIDENCE_MARKS, oneOf, positive, text, uuid, whole, type EvidenceMark } from '../shared';

// What fields of several kinds of record have in common, each said once.

export const sequence = (): Schema<number> => whole('Place in the list', 0, 1_000_000_000);
export const optionalUuid = (label: string): Schema<string | null> => uuid(label).nullable();
export const massKg = (label: string): Schema<number | null> => positive(label, 'kg', 100_000).nullable();
export const lengthM = (label: string, max: number): Schema<number | null> => positive(label, 'm', max).nullable();
export const evidence = (label: string): Schema<EvidenceMark | null> =>
  oneOf(label, EVIDENCE_MARKS).nullable() as Schema<EvidenceMark | null>;
export const nullable = <T>(schema: Schema<T>): Schema<T | null> => schema.nullable() as Schema<T | null>;
export const year = (label: string): Schema<number> => whole(label, 1900, 2100);
export const calendarDate = (label: string): Schema<string | null> =>
  text(label, 10)
    .nullable()
    .test(
      'calendar-date',
      `${label} must be a date such as 2026-03-31`,
      (value?: string | null) => value === null || value === undefined || isCalendarDate(value),
    );
export const isCalendarDate = (value: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(value) && isRealDate(value);
const isRealDate = (isoDate: string): boolean => {
  const [y = 0, m = 0, d = 0] = isoDate.split('-').map(Number);
  const leap = (y % 4 === 0 && y % 100 !== 0) || y % 400 === 0;
  const days = [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][m - 1] ?? 0;
  return d >= 1 && d <= days;
};
export const currency = (label: string): ReturnType<typeof text> =>
  text(label, 3).matches(/^[A-Z]{3}$/, '${label} must be three capital letters such as EUR');
export const switched = (label: string): Schema<boolean> =>
  mixed<boolean>((value): value is boolean => typeof value === 'boolean')
    .label(label)
    .defined()
    .typeError(`${label} must be true or false`) as Schema<boolean>;

/** A price in decimal digits: 4.20 stays 4.20. */
export const priceDigits = (label: string): Schema<string | null> =>
  text(label, 20)
    .nullable()
    .matches(/^(0|[1-9]\d{0,8})(\.\d{1,4})?$/, { message: '${label} must be decimal digits such as 4.20', excludeEmptyString: false });

/** A moment as ISO 8601 in UTC. */
export const instant = (label: string): Schema<string> =>
  text(label, 24).matches(
    /^\d{4}-\d{2}-\d{2}T([01]\d|2[0-3]):[0-5]\d:[0-5]\d\.\d{3}Z$/,
    '${label} must be a time such as 2026-03-31T10:00:00.000Z',
  );

export const listOf = <T>(label: string, item: Schema<T>, most: number): Schema<readonly T[]> =>
  array(item as never)
    .label(label)
    .defined()
    .nonNullable('${label} must be a list')
    .typeError('${label} must be a list')
    .max(most, '${label} may hold at most ${max}');
