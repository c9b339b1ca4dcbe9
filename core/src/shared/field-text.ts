import { isDay } from './days';
import { asShown, type ShownUnit } from './shown-units';
import { inUnitOf } from './field-units';

/** How a field is typed and shown. */
export type FieldShape =
  | { readonly kind: 'text' | 'lines' | 'words' | 'date' | 'money' | 'whole' }
  /** a number in a unit: `per` SI units in one of it */
  | { readonly kind: 'number'; readonly per: number; readonly unit: string; readonly digits: number }
  /** optimistic, most likely and pessimistic, in hours */
  | { readonly kind: 'effort' };

/** The three times of an estimate, seconds. */
interface Effort {
  readonly optimisticS: number;
  readonly mostLikelyS: number;
  readonly pessimisticS: number;
}

export type FieldValue = string | number | null | readonly string[] | Effort;

export type ReadField = { readonly ok: true; readonly value: FieldValue } | { readonly ok: false; readonly message: string };

/** The shape of a figure that people read in a unit. */
export const unitShape = (shown: ShownUnit): FieldShape => ({ kind: 'number', ...shown });

const NUMBER = /^-?\d{1,12}(?:[.,]\d{1,9})?$/;
const THOUSANDS = /^-?[1-9]\d{0,2},\d{3}$/;
const HOUR_S = 3600;
/** A single time stands for three: three quarters of it, itself, half as much again. */
const LEAST = 0.75;
const MOST = 1.5;

const wrong = (message: string): ReadField => ({ ok: false, message });
const right = (value: FieldValue): ReadField => ({ ok: true, value });

const readDecimal = (text: string): number | string => {
  const plain = text.replace(/[\s\u00a0\u202f]/g, '').replace('−', '-');
  if (!NUMBER.test(plain)) return `“${text}” is not a number; write for instance 2.5`;
  if (THOUSANDS.test(plain)) return `“${text}” can be ${plain.replace(',', '.')} or ${plain.replace(',', '')}; write one of the two`;
  return Number(plain.replace(',', '.'));
};

const readEffort = (text: string): ReadField => {
  const parts = text
    .replace(/\s*h(?=[\s/;–]|$)/gi, '')
    .split(/[\s/;–]+/)
    .filter((text) => text !== '');
  const hours = parts.map(readDecimal);
  const fault = hours.find((h) => typeof h === 'string');
  if (fault !== undefined) return wrong(fault);
  if (hours.length !== 1 && hours.length !== 3)
    return wrong('Give optimistic, most likely and pessimistic hours, for instance 2 / 3 / 6, or the likely ones alone');
  const [first = 0, likely = first, most = first] = hours as number[];
  const [a, m, b] = hours.length === 1 ? [LEAST * first, first, MOST * first] : [first, likely, most];
  if (!(a > 0)) return wrong('Hours must be more than 0');
  if (!(a <= m && m <= b)) return wrong('Optimistic, most likely and pessimistic must not decrease');
  return right({ optimisticS: a * HOUR_S, mostLikelyS: m * HOUR_S, pessimisticS: b * HOUR_S });
};

const readDate = (text: string): ReadField => {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return wrong(`“${text}” is not a date; write for instance 2026-06-03`);
  return isDay(text) ? right(text) : wrong(`There is no ${text} in the calendar`);
};

/** What somebody typed into a field; nothing typed is null, or no text. */
export const readField = (shape: FieldShape, typed: string): ReadField => {
  const text = typed.trim();
  switch (shape.kind) {
    case 'text':
    case 'lines':
      return right(text);
    case 'words':
      return right(
        text
          .split(',')
          .map((word) => word.trim())
          .filter((word, i, all) => word !== '' && all.indexOf(word) === i),
      );
    default:
      if (text === '') return right(null);
  }
  if (shape.kind === 'date') return readDate(text);
  if (shape.kind === 'effort') return readEffort(text);
  if (shape.kind === 'money')
    return /^\d{1,9}(\.\d{1,4})?$/.test(text) ? right(text) : wrong(`“${text}” is not a price; write digits such as 48990.00`);
  if (shape.kind === 'number') {
    const shown = asShown(shape);
    const { number: digits, per } = inUnitOf(shown, text);
    if (per === null) return wrong(`“${text}” is not in a unit of this field; write it in ${shown.unit}, or with its unit`);
    const number = readDecimal(digits);
    return typeof number === 'string' ? wrong(number) : right(Number((number * per).toPrecision(12)));
  }
  const number = readDecimal(text);
  if (typeof number === 'string') return wrong(number);
  return Number.isInteger(number) ? right(number) : wrong(`“${text}” must be a whole number`);
};

const shortest = (value: number, digits: number): string => String(Number(value.toFixed(digits)));

/** A value as a field shows it, the way it can be typed back. */
export const printField = (shape: FieldShape, value: FieldValue | undefined): string => {
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return value;
  if (typeof value === 'number') {
    if (shape.kind !== 'number') return String(value);
    const { per, digits } = asShown(shape);
    return shortest(value / per, Math.max(digits, 3));
  }
  if (Array.isArray(value)) return (value as readonly string[]).join(', ');
  const { optimisticS, mostLikelyS, pessimisticS } = value as Effort;
  return [optimisticS, mostLikelyS, pessimisticS].map((s) => shortest(s / HOUR_S, 2)).join('/');
};
