import type { ElementReading, InstrumentReading } from '@each-bolt/core/bench';
import type { ReadingQuantity } from '@each-bolt/core/record';

/** What a `READ` line says, before it is known whose it is. */
export type ToldReading = Omit<InstrumentReading, 'instrumentId' | 'at'>;

const QUANTITY: Readonly<Record<string, { readonly quantity: ReadingQuantity; readonly unit: string }>> = {
  MASS: { quantity: 'mass', unit: 'KG' },
  LENG: { quantity: 'length', unit: 'M' },
  TORQ: { quantity: 'torque', unit: 'NM' },
  COUN: { quantity: 'count', unit: '' },
  ELEM: { quantity: 'element fractions', unit: '' },
  DATA: { quantity: 'count', unit: 'BYTE' },
};
const NUMBER = /^[+-]?\d{1,12}(?:\.\d{1,12})?(?:e[+-]?\d{1,3})?$/i;
const STATUS = ['STAB', 'UNST', 'OVER', 'UNDER'];

const numberOf = (text: string | undefined): number | null | undefined => {
  if (text === undefined || text === '') return null;
  const value = NUMBER.test(text) ? Number(text) : Number.NaN;
  return Number.isFinite(value) ? value : undefined;
};

const elementsOf = (parts: readonly string[]): Readonly<Record<string, ElementReading>> | null | undefined => {
  if (parts.length === 0) return null;
  const elements: Record<string, ElementReading> = {};
  for (const part of parts) {
    const [, symbol = '', fraction, u] = /^([A-Z][a-z]?)=([^:]+):(.+)$/.exec(part) ?? [];
    const [value, spread] = [numberOf(fraction), numberOf(u)];
    if (typeof value !== 'number' || typeof spread !== 'number' || value < 0 || value > 1 || spread < 0 || spread > 1) return undefined;
    elements[symbol] = { fraction: value, u: spread };
  }
  return elements;
};

/** Reads a line that an instrument told unasked; null when it is not one that can be understood in full. */
export const readReading = (line: string): ToldReading | null => {
  const [seqText = '', word = '', value, unit = '', u, tare, status = '', ...elements] = line.replace(/^READ /, '').split(',');
  const known = Object.hasOwn(QUANTITY, word) ? QUANTITY[word] : undefined;
  const numbers = [numberOf(value), numberOf(u), numberOf(tare)] as const;
  const parts = elementsOf(elements);
  if (!line.startsWith('READ ') || !/^\d{1,12}$/.test(seqText) || !known || !STATUS.includes(status)) return null;
  if (unit !== known.unit || numbers.includes(undefined) || parts === undefined) return null;
  const [v, spread, tared] = numbers as readonly (number | null)[];
  if (spread !== null && spread !== undefined && !(spread > 0)) return null;
  return {
    seq: Number(seqText),
    quantity: known.quantity,
    value: v ?? null,
    u: spread ?? null,
    tare: tared ?? null,
    stable: status === 'STAB',
    overload: status === 'OVER',
    elements: parts,
    raw: line,
  };
};
