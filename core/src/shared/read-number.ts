/** A number as somebody typed it: its value and how finely it was stated. */
export interface TypedNumber {
  readonly value: number;
  /** the smallest step the digits show: 1.84 → 0.01, 41 → 1 */
  readonly step: number;
  /** the digits with a point for the decimal sign */
  readonly text: string;
}

export type ReadNumber =
  | { readonly kind: 'number'; readonly number: TypedNumber }
  | { readonly kind: 'ambiguous'; readonly readings: readonly TypedNumber[] }
  | { readonly kind: 'none' };

const PLAIN = /^(\d{1,9})(?:[.,](\d{1,6}))?$/;
const THOUSANDS = /^[1-9]\d{0,2},\d{3}$/;

const typed = (whole: string, fraction: string): TypedNumber => {
  const text = fraction === '' ? whole : `${whole}.${fraction}`;
  return { value: Number(text), step: Number(`1e-${fraction.length}`), text };
};

/**
 * Reads an unsigned decimal number with a point or a comma; "1,840" could be either and is said to be so.
 *
 * @param text digits as typed, without a unit
 * @returns the number, its two possible readings, or none
 * @example
 * readNumber('1,84') // => { kind: 'number', number: { value: 1.84, step: 0.01, text: '1.84' } }
 */
export const readNumber = (text: string): ReadNumber => {
  const match = PLAIN.exec(text);
  if (!match) return { kind: 'none' };
  const whole = match[1] ?? '';
  const fraction = match[2] ?? '';
  const asDecimal = typed(whole, fraction);
  if (!THOUSANDS.test(text)) return { kind: 'number', number: asDecimal };
  return { kind: 'ambiguous', readings: [asDecimal, typed(whole + fraction, '')] };
};
