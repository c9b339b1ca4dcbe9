/** A number as somebody typed it: its value and how finely it was stated. */
export interface TypedNumber {
  readonly value: number;
  /** the smallest step the digits show: 1.84 → 0.01, 41 → 1, 3/8 → 0.125, 5e2 → 100 */
  readonly step: number;
  /** one spelling that reads back as the same: a point for the decimal sign, no thousands marks */
  readonly text: string;
}

type ReadNumber =
  | { readonly kind: 'number'; readonly number: TypedNumber }
  | { readonly kind: 'ambiguous'; readonly readings: readonly TypedNumber[] }
  | { readonly kind: 'none' };

/** What parts thousands where it can be nothing else: apostrophes and the narrow and no-break spaces. */
const APART = "['’ʼ\\u00a0\\u2009\\u202f]";
const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};

/** How an unsigned number may look, as a pattern without groups; `readNumber` says what it is. */
export const NUMBER_TEXT =
  `(?:\\d{1,3}(?:${APART}\\d{3})+(?:[.,]\\d{1,6})?|(?:\\d{1,4}[- ])?\\d{1,3}\\/\\d{1,3}(?![\\d/])` +
  `|\\d{0,4} ?[${Object.keys(VULGAR).join('')}]|[.,]\\d{1,6}|\\d+(?:[.,]\\d+)*(?:e[+-]?\\d{1,2})?)`;

const PLAIN = /^(\d{0,9})(?:[.,](\d{1,6}))?(?:e([+-]?\d{1,2}))?$/i;
const FRACTION = /^(?:(\d{1,4})[- ])?(\d{1,3})\/(\d{1,3})$/;
const COMMA_GROUP = /^[1-9]\d{0,2},\d{3}$/;
const POINT_GROUP = /^[1-9]\d{0,2}\.\d{3}$/;
/** thousands parted all through, with a decimal sign of the other kind or none: 1.234.567 or 1,234.5 */
const GROUPED = [/^[1-9]\d{0,2}(?:,\d{3}){2,}$/, /^[1-9]\d{0,2}(?:\.\d{3}){2,}$/, /^[1-9]\d{0,2}(?:,\d{3})+\.\d{1,6}$/];
const GROUPED_COMMA = /^[1-9]\d{0,2}(?:\.\d{3})+,\d{1,6}$/;

const typed = (whole: string, fraction: string, exponent = 0): TypedNumber => {
  const digits = fraction === '' ? whole : `${whole === '' ? '0' : whole}.${fraction}`;
  const text = exponent === 0 ? digits : `${digits}e${exponent}`;
  return { value: Number(text), step: Number(`1e${exponent - fraction.length}`), text };
};

const number = (read: TypedNumber): ReadNumber => (Number.isFinite(read.value) ? { kind: 'number', number: read } : { kind: 'none' });

const fraction = (text: string): ReadNumber => {
  const [, whole, above = '', below = ''] = FRACTION.exec(text) ?? [];
  if (Number(below) === 0) return { kind: 'none' };
  const value = Number(whole ?? 0) + Number(above) / Number(below);
  return number({ value, step: 1 / Number(below), text: `${whole === undefined ? '' : `${whole}-`}${above}/${below}` });
};

/**
 * Reads an unsigned number with a point or a comma, thousands marks, a common fraction or a power of ten. "1,840" could be
 * either and is said to be so; "1.840" is so only where `pointMayGroup`, that is in units small enough for thousands.
 *
 * @param text digits as typed, without a unit
 * @param pointMayGroup whether three digits after one point may be thousands
 * @returns the number, its two possible readings, or none
 * @example
 * readNumber('1,84') // => { kind: 'number', number: { value: 1.84, step: 0.01, text: '1.84' } }
 */
export const readNumber = (text: string, pointMayGroup = false): ReadNumber => {
  const vulgar = new RegExp(`^(\\d{0,4}) ?([${Object.keys(VULGAR).join('')}])$`).exec(text);
  if (vulgar) return fraction(`${vulgar[1] === '' ? '' : `${vulgar[1]}-`}${VULGAR[vulgar[2] ?? ''] ?? ''}`);
  if (FRACTION.test(text)) return fraction(text);
  const marks = new RegExp(APART, 'g');
  if (marks.test(text)) return readNumber(text.replace(marks, '').replace(',', '.'));
  if (GROUPED_COMMA.test(text)) return readNumber(text.replaceAll('.', '').replace(',', '.'));
  if (GROUPED.some((pattern) => pattern.test(text))) {
    const [whole = '', after = ''] = /[,]/.test(text) ? text.replaceAll(',', '').split('.') : [text.replaceAll('.', '')];
    return number(typed(whole, after));
  }
  const match = PLAIN.exec(text);
  const [, whole = '', after = '', exponent] = match ?? [];
  if (!match || (whole === '' && after === '')) return { kind: 'none' };
  const asDecimal = typed(whole, after, exponent === undefined ? 0 : Number(exponent));
  if (!COMMA_GROUP.test(text) && !(pointMayGroup && POINT_GROUP.test(text))) return number(asDecimal);
  return { kind: 'ambiguous', readings: [asDecimal, typed(whole + after, '')] };
};
