import { READ_IN } from '../../../shared';
import { priceFaults } from '../../whole-sets';
import { PRICE_PAID, SEQUENCE, choice, number, optional, positive, reference, text, year } from '../field';
import { RECORDED, kind } from '../kind';
import { DRIVES, VEHICLE_CLASSES } from '../study/vehicle';

const NOVELTY = { min: '${label} goes from 0 to 10', max: '${label} goes from 0 to 10' };

/** A vehicle that might be bought for a study. */
export const CANDIDATE = kind({
  list: 'candidates',
  table: 'candidate',
  words: ['candidate', 'candidates'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    sequence: SEQUENCE,
    name: text('Name', 200, { needed: true, unsaid: true }),
    maker: text('Maker', 200),
    modelYear: year('Model year', optional),
    vehicleClass: choice('Class', VEHICLE_CLASSES, optional),
    drive: choice('Driven', DRIVES, optional),
    /** nominal voltage of the traction battery; null where there is none or it is not known */
    voltageV: positive('Battery voltage', 'V', 10_000, { ...optional, readIn: READ_IN.V }),
    /** how much of it is new in its technique, 0 nothing … 10 everything */
    novelty: number('Novelty, 0 to 10', '', { ...optional, min: 0, max: 10, says: NOVELTY }),
    noveltyNote: text('What is new', 1000),
    /** calendar days until it stands in the workshop */
    waitDays: number('Time to obtain', 'days', { ...optional, whole: true, min: 0, max: 3650, readIn: READ_IN.weeks }),
    ...PRICE_PAID,
    note: text('Note', 1000),
    /** the vehicle of the study it became */
    vehicleId: reference('Vehicle', 'vehicle', 'clear', { ...optional, unsaid: true }),
  },
  faults: (candidate) => priceFaults(candidate, candidate.id),
});
