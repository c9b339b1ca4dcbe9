import { issue } from '../../../shared';
import { REMARK, anyReference, byName, choice, flag, instant, number, optional, group, positive, text, shown } from '../field';
import { RECORDERS, UNCHANGING, kind } from '../kind';

const READING_ABOUT = ['part', 'fasteners', 'connection', 'fluid', 'step', 'holdPoint'] as const;

export const READING_QUANTITIES = ['mass', 'length', 'torque', 'count', 'element fractions'] as const;
export type ReadingQuantity = (typeof READING_QUANTITIES)[number];

const fraction = (label: string) =>
  number(label, '', { min: 0, max: 1, says: { min: '${label} must not be less than 0', max: '${label} may be at most 1' } });

const ELEMENT = group('Element', { fraction: fraction('Fraction'), u: fraction('Uncertainty of the fraction') });

/** One raw value as an instrument or a person gave it. It is never edited: a later reading corrects it; it goes only with what it is about. */
export const READING = kind({
  list: 'readings',
  table: 'reading',
  words: ['reading', 'readings'],
  name: { field: 'raw' },
  may: { add: RECORDERS, edit: UNCHANGING, remove: RECORDERS },
  fields: {
    aboutKind: choice('About', READING_ABOUT),
    aboutId: anyReference('About', 'aboutKind', 'remove too', { unsaid: true }),
    /** the field that took its value */
    aboutField: text('Field', 40, optional),
    quantity: choice('Quantity', READING_QUANTITIES),
    /** kg, m, N m or a number; null for element fractions */
    value: number('Value', '', optional),
    /** standard uncertainty in the unit of the value */
    u: positive('Uncertainty', '', 1e9, optional),
    /** what was taken off before, in the unit of the value; null where there is no such thing */
    tare: number('Tare', '', optional),
    elements: shown(
      byName('Elements', ELEMENT, 'Elements must be fractions by symbol', {
        ...optional,
        names: { are: /^[A-Z][a-z]?$/, says: '${name} is no symbol of an element' },
      }),
      (elements) =>
        Object.entries(elements)
          .sort(([, a], [, b]) => b.fraction - a.fraction)
          .map(([symbol, { fraction: share }]) => `${symbol} ${Number((share * 100).toPrecision(3))} %`)
          .join(', '),
    ),
    /** exactly what the instrument or person said, with its unit */
    raw: text('As read', 2000, { needed: true }),
    instrument: text('Instrument', 200),
    serial: text('Serial number', 100),
    /** null: typed by a person */
    stable: flag('Stable', optional),
    takenAt: instant('Taken'),
    takenBy: text('Taken by', 200),
    note: REMARK,
  },
  faults: (reading) => [
    ...((reading.value === null) === (reading.elements === null)
      ? [issue('reading-value', 'A reading holds either one value or fractions of elements', 'value', reading.id)]
      : []),
    ...(reading.stable === false
      ? [issue('unstable', 'The reading had not settled; wait until it stands still and take it again', 'stable', reading.id)]
      : []),
    ...(reading.stable !== null && reading.serial.trim() === ''
      ? [issue('no-serial', 'A reading of an instrument names its serial number', 'serial', reading.id)]
      : []),
  ],
});
