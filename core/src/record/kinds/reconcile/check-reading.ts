import { issue } from '../../../shared';
import { REMARK, choice, instant, number, positive, text } from '../field';
import { RECORDED, kind } from '../kind';

export const CHECK_QUANTITIES = ['mass', 'length', 'torque'] as const;
export type CheckQuantity = (typeof CHECK_QUANTITIES)[number];

/** A reading of something that is known: a check weight, a gauge block. The quantity says the unit: kg, m or N m. */
export const CHECK_READING = kind({
  list: 'checkReadings',
  table: 'check_reading',
  words: ['check reading', 'check readings'],
  name: { fields: ['instrument', 'serial'] },
  may: RECORDED,
  fields: {
    instrument: text('Instrument', 200, { needed: true }),
    serial: text('Serial number', 100, { needed: true }),
    quantity: choice('Quantity', CHECK_QUANTITIES),
    /** what the weight or block is, and how well that is known, standard uncertainty */
    nominal: positive('Nominal value', '', 1e6),
    nominalU: number('Uncertainty of the nominal value', '', { min: 0, max: 1e6 }),
    value: number('Reading', '', { min: -1e6, max: 1e6 }),
    takenAt: instant('Taken'),
    takenBy: text('Taken by', 200),
    note: REMARK,
  },
  faults: (reading) =>
    reading.nominalU >= reading.nominal
      ? [issue('nominal-unknown', 'A check needs something that is known better than it is large', 'nominalU', reading.id)]
      : [],
});
