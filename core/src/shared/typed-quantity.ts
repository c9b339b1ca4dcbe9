import { NUMBER_TEXT, readNumber, type TypedNumber } from './read-number';
import { toSi, type Unit } from './units';

/** A quantity in SI with the step its digits show, and the words it was typed in. */
interface TypedQuantity {
  readonly si: number;
  readonly stepSi: number;
  /** number and unit as typed, e.g. "41 g" */
  readonly typed: string;
}

const typedQuantity = (number: TypedNumber, unit: Unit): TypedQuantity => ({
  si: toSi(number.value, unit),
  stepSi: toSi(number.step, unit),
  typed: `${number.text} ${unit.symbol}`,
});

type ReadQuantity =
  | { readonly kind: 'quantity'; readonly quantity: TypedQuantity }
  | { readonly kind: 'ambiguous'; readonly readings: readonly string[] }
  | { readonly kind: 'no-unit'; readonly text: string }
  | { readonly kind: 'none' };

const NUMBER_AND_UNIT = new RegExp(`^(${NUMBER_TEXT})\\s*([a-z]{0,4})$`, 'i');
/** Units so small that three digits after a point may be thousands: 1.840 g. */
const SMALL: ReadonlySet<string> = new Set(['g', 'mg', 'mm']);

/**
 * Reads "41 g", "1.84kg" or "1,84 kg" with the units given; without a unit it says so rather than guess.
 *
 * @param text number and unit as typed
 * @param units symbol → unit
 */
export const readQuantity = (text: string, units: Readonly<Record<string, Unit>>): ReadQuantity => {
  const match = NUMBER_AND_UNIT.exec(text.trim());
  if (!match) return { kind: 'none' };
  const symbol = (match[2] ?? '').toLowerCase();
  const read = readNumber(match[1] ?? '', SMALL.has(symbol));
  if (read.kind === 'none') return read;
  if (symbol === '') return { kind: 'no-unit', text: match[1] ?? '' };
  const unit = Object.hasOwn(units, symbol) ? units[symbol] : undefined;
  if (!unit) return { kind: 'none' };
  if (read.kind === 'ambiguous') return { kind: 'ambiguous', readings: read.readings.map((r) => `${r.text} ${symbol}`) };
  return { kind: 'quantity', quantity: typedQuantity(read.number, unit) };
};
